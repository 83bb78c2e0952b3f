import type { MasterFace, Seams } from './face';
import { MinimumCut } from './minimum-cut';

/**
 * Which direction each triangle is drawn along: what cannot be drawn costs its area, a seam its length times `weight`
 * metres. Two directions are cut exactly; more by going through them, one taking what lowers the cost, two sharing theirs
 * anew, until nothing does. Boykov, Veksler and Zabih (2001), *Fast Approximate Energy Minimization via Graph Cuts*.
 */
export interface LabelInputs {
  readonly areas: Float64Array;
  readonly stands: Uint8Array;
  readonly seams: Pick<Seams, 'count' | 'one' | 'other' | 'cost'>;
}

/** By direction, by triangle: whether it can be drawn. */
export type Drawable = readonly Uint8Array[];

/** Metres: a metre of seam is taken for so much area that cannot be drawn. An edge; of a finely drawn piece a two hundredth of its size. */
export function seamWeight({ medianEdge, diagonal }: Pick<MasterFace, 'medianEdge' | 'diagonal'>): number {
  return Math.max(medianEdge, 0.005 * diagonal);
}

export function costOf(inputs: LabelInputs, drawable: Drawable, labels: Uint8Array, weight: number): number {
  const { areas, stands, seams } = inputs;
  let cost = 0;
  for (let t = 0; t < areas.length; t++) if (!stands[t] && !drawable[labels[t]!]![t]) cost += areas[t]!;
  for (let e = 0; e < seams.count; e++)
    if (labels[seams.one[e]!] !== labels[seams.other[e]!]) cost += weight * seams.cost[e]!;
  return cost;
}

export function labelTriangles(inputs: LabelInputs, drawable: Drawable, weight: number): Uint8Array {
  const labels = new Uint8Array(inputs.areas.length);
  if (drawable.length < 2) return labels;
  if (drawable.length === 2) return twoLabels(inputs, drawable, weight);
  const firsts = labels.map((_, t) =>
    Math.max(
      0,
      drawable.findIndex((d) => d[t]),
    ),
  );
  // From one start it may stick in a poor place: begun from the best cuts of two it seldom does.
  const starts = [firsts, ...bestOfTwo(inputs, drawable, weight)]
    .map((start) => ({ start, cost: costOf(inputs, drawable, start, weight) }))
    .sort((a, b) => a.cost - b.cost)
    .slice(0, mostStarts * inputs.areas.length > mostBegun / 2 ? 1 : mostStarts);
  const ends = starts.map(({ start }) => lowered(inputs, drawable, start, weight, movesOf(drawable.length)));
  return ends.reduce((best, end) => (end.cost < best.cost ? end : best)).labels;
}

/** Labels that were the answer until these triangles turned out to be drawn by others than was thought. */
export function relabelled(
  inputs: LabelInputs,
  drawable: Drawable,
  weight: number,
  labels: Uint8Array,
  otherwise: readonly number[],
): Uint8Array {
  if (drawable.length < 3) return labelTriangles(inputs, drawable, weight);
  return lowered(inputs, drawable, labels, weight, takings(drawable.length), otherwise).labels;
}

/** Each pair's exact cut; of many labels on a large face, where they would take longer than they are worth, the first two's. */
function bestOfTwo(inputs: LabelInputs, drawable: Drawable, weight: number): Uint8Array[] {
  const all = movesOf(drawable.length).flatMap(([a, b]) => (b === undefined ? [] : [[a, b] as const]));
  const pairs = all.length * inputs.areas.length > mostBegun ? all.slice(0, 1) : all;
  return pairs.map(([a, b]) =>
    twoLabels(inputs, [drawable[a]!, drawable[b]!], weight).map((second) => (second ? b : a)),
  );
}
const mostBegun = 200_000;
/** Those that cost least to begin with. */
const mostStarts = 3;

/**
 * Goes through the moves until none lowers the cost. A move that was tried before is tried again about what has changed
 * since; `changed` are triangles that were given otherwise to begin with, all else being as it was left.
 */
function lowered(
  inputs: LabelInputs,
  drawable: Drawable,
  start: Uint8Array,
  weight: number,
  all: readonly Move[],
  changed?: readonly number[],
): { labels: Uint8Array; cost: number } {
  const labels = start.slice();
  // Where there are many, taking is tried and changing places is not: there would be more of it than it is worth.
  const moves = all.length * labels.length > mostBegun ? all.filter((m) => m.length === 1) : all;
  const since = new Map(moves.map((move) => [move, new Set(changed)]));
  const tried = new Set<Move>(changed ? moves : []);
  const seamsOfEach = seamsAt(inputs);
  for (let inVain = 0, i = 0; inVain < moves.length; i = (i + 1) % moves.length) {
    const move = moves[i]!;
    const about = since.get(move)!;
    const wide = !tried.has(move) || about.size > wideFrom * labels.length;
    const near = wide ? null : partAbout(inputs, seamsOfEach, drawable, labels, about);
    tried.add(move);
    since.set(move, new Set());
    const of = near ?? { inputs, drawable, labels };
    const after = moved(of.inputs, of.drawable, of.labels, move, weight);
    const was = costOf(of.inputs, of.drawable, of.labels, weight),
      now = costOf(of.inputs, of.drawable, after, weight);
    if (!(now < was * (1 - 1e-9))) {
      inVain++;
      continue;
    }
    inVain = 0;
    for (let k = 0; k < after.length; k++) {
      if (after[k] === of.labels[k]) continue;
      const t = near ? near.triangles[k]! : k;
      labels[t] = after[k]!;
      for (const others of since.values()) others.add(t);
    }
  }
  return { labels, cost: costOf(inputs, drawable, labels, weight) };
}

/** Triangles about one that changed, counted from one to the next, among which labels may change with it. */
const rings = 16;
/** Of all triangles: about so many it is as well to look at the whole. */
const wideFrom = 0.02;

/** By triangle: its seams, as places in one list. */
function seamsAt({ areas, seams }: LabelInputs): { from: Uint32Array; seam: Uint32Array } {
  const from = new Uint32Array(areas.length + 1);
  for (const side of [seams.one, seams.other]) for (let e = 0; e < seams.count; e++) from[side[e]! + 1]!++;
  for (let t = 0; t < areas.length; t++) from[t + 1]! += from[t]!;
  const next = from.slice(0, areas.length);
  const seam = new Uint32Array(2 * seams.count);
  for (const side of [seams.one, seams.other]) for (let e = 0; e < seams.count; e++) seam[next[side[e]!]!++] = e;
  return { from, seam };
}

/** The triangles within some rings of these, and about them those that keep their label whatever it costs. */
function partAbout(
  { areas, stands, seams }: LabelInputs,
  { from, seam }: ReturnType<typeof seamsAt>,
  drawable: Drawable,
  labels: Uint8Array,
  about: ReadonlySet<number>,
) {
  const triangles = [...about];
  const place = new Int32Array(areas.length).fill(-1);
  for (const [k, t] of triangles.entries()) place[t] = k;
  /** Where the ring begins that is gone about now, and the last, of those that keep theirs. */
  let ring = 0;
  for (let r = 0; r <= rings; r++) {
    const end = triangles.length;
    for (let k = ring; k < end; k++) {
      const t = triangles[k]!;
      for (let s = from[t]!; s < from[t + 1]!; s++) {
        const e = seam[s]!;
        const other = seams.one[e] === t ? seams.other[e]! : seams.one[e]!;
        if (place[other]! < 0) place[other] = triangles.push(other) - 1;
      }
    }
    ring = end;
  }
  const keeps = (k: number) => k >= ring;
  const one: number[] = [],
    other: number[] = [],
    cost: number[] = [];
  for (let k = 0; k < ring; k++) {
    const t = triangles[k]!;
    for (let s = from[t]!; s < from[t + 1]!; s++) {
      const e = seam[s]!;
      const next = place[seams.one[e] === t ? seams.other[e]! : seams.one[e]!]!;
      // Each once: by the first of its two, or by the one of them that does not keep its label.
      if (next < k) continue;
      one.push(k);
      other.push(next);
      cost.push(seams.cost[e]!);
    }
  }
  return {
    triangles,
    inputs: {
      areas: Float64Array.from(triangles, (t, k) => (keeps(k) ? dear : areas[t]!)),
      stands: Uint8Array.from(triangles, (t) => stands[t]!),
      seams: {
        count: one.length,
        one: Uint32Array.from(one),
        other: Uint32Array.from(other),
        cost: Float64Array.from(cost),
      },
    },
    drawable: drawable.map((d, label) =>
      Uint8Array.from(triangles, (t, k) => (keeps(k) ? Number(labels[t] === label) : d[t]!)),
    ),
    labels: Uint8Array.from(triangles, (t) => labels[t]!),
  };
}

/** m2: more than any seam saves. */
const dear = 1000;

/** One label taken by whoever likes; or two that change places, which the first kind cannot do. */
type Move = readonly [number] | readonly [number, number];

const takings = (labels: number): Move[] => Array.from({ length: labels }, (_, a): Move => [a]);

function movesOf(labels: number): Move[] {
  const all = Array.from({ length: labels }, (_, a) => a);
  return [...takings(labels), ...all.flatMap((a) => all.filter((b) => b > a).map((b): Move => [a, b]))];
}

function moved(inputs: LabelInputs, drawable: Drawable, labels: Uint8Array, move: Move, weight: number): Uint8Array {
  const [a, b] = move;
  return b === undefined
    ? expanded(inputs, drawable, labels, a, weight)
    : swapped(inputs, drawable, labels, a, b, weight);
}

/** Triangles of two labels are shared out between them anew. */
function swapped(
  { areas, stands, seams }: LabelInputs,
  drawable: Drawable,
  labels: Uint8Array,
  first: number,
  second: number,
  weight: number,
): Uint8Array {
  const cut = new MinimumCut(areas.length, seams.count);
  const takesPart = (t: number) => labels[t] === first || labels[t] === second;
  for (let t = 0; t < areas.length; t++)
    if (!stands[t] && takesPart(t))
      cut.addNode(t, drawable[second]![t] ? 0 : areas[t]!, drawable[first]![t] ? 0 : areas[t]!);
  for (let e = 0; e < seams.count; e++) {
    const a = seams.one[e]!,
      b = seams.other[e]!;
    // To a third label there is a seam whichever of the two it is.
    if (takesPart(a) && takesPart(b)) cut.addEdge(a, b, weight * seams.cost[e]!, weight * seams.cost[e]!);
  }
  const other = cut.solve();
  return labels.map((was, t) => (takesPart(t) ? (other[t] ? second : first) : was));
}

function twoLabels({ areas, stands, seams }: LabelInputs, drawable: Drawable, weight: number): Uint8Array {
  const cut = new MinimumCut(areas.length, seams.count);
  for (let t = 0; t < areas.length; t++)
    if (!stands[t]) cut.addNode(t, drawable[1]![t] ? 0 : areas[t]!, drawable[0]![t] ? 0 : areas[t]!);
  for (let e = 0; e < seams.count; e++) {
    const w = weight * seams.cost[e]!;
    cut.addEdge(seams.one[e]!, seams.other[e]!, w, w);
  }
  return cut.solve();
}

/** Each triangle keeps its label or takes this one: the cheapest of all such. */
export function expanded(
  { areas, stands, seams }: LabelInputs,
  drawable: Drawable,
  labels: Uint8Array,
  label: number,
  weight: number,
): Uint8Array {
  const cut = new MinimumCut(areas.length, seams.count);
  for (let t = 0; t < areas.length; t++)
    if (!stands[t]) cut.addNode(t, drawable[label]![t] ? 0 : areas[t]!, drawable[labels[t]!]![t] ? 0 : areas[t]!);
  for (let e = 0; e < seams.count; e++) {
    const a = seams.one[e]!,
      b = seams.other[e]!;
    const w = weight * seams.cost[e]!;
    // Cost where both keep, where only b takes it, where only a does; where both do there is no seam.
    const keep = labels[a] === labels[b] ? 0 : w,
      bTakes = labels[a] === label ? 0 : w,
      aTakes = labels[b] === label ? 0 : w;
    cut.addNode(a, Math.max(0, aTakes - keep), Math.max(0, keep - aTakes));
    cut.addNode(b, 0, aTakes);
    cut.addEdge(a, b, bTakes + aTakes - keep, 0);
  }
  const taken = cut.solve();
  return labels.map((was, t) => (taken[t] ? label : was));
}
