import type { Vec3 } from '../quantity';
import { about, opposedPairs, opposite } from './directions';
import type { MasterFace } from './face';
import { HeightFields } from './height-fields';
import { costOf, labelTriangles, relabelled, seamWeight } from './labels';
import { FaceRays } from './rays';
import { roughFace } from './rough-face';

/** Directions to draw parts along, and what each draws by rays. */
export interface Chosen {
  readonly directions: readonly Vec3[];
  readonly drawable: readonly Uint8Array[];
  readonly labels: Uint8Array;
  /** Of the face, what the best direction and the best two leave undrawn; null where they were not looked for. */
  readonly undrawn: { readonly one: number; readonly two: number } | null;
  /** Of the face, what one part more would free; null where it was not looked for. */
  readonly oneMore: number | null;
}

/** What cannot be drawn is left to the knife below this share of the face. */
export const undrawnAllowed = 0.002;
/** A part more is worth making for so much of the face; less is filled with clay, or eased. */
export const worthAPart = 0.01;
export const mostPieces = 8;

/** The directions looked at, with what it draws, a bit a triangle. */
interface Looked {
  readonly directions: Vec3[];
  readonly drawn: Uint8Array[];
  /** By direction: m2 it does not draw. */
  readonly undrawn: number[];
  /** By pair: what neither draws and the seam would cost, the seam reckoned in two ways. */
  readonly pairs: { readonly along: Vec3; readonly leastSeam: number; readonly seamByFacing: number }[];
  /** Of each opposed pair, one, that was not looked along. */
  left: Vec3[];
}

/** Work that tells how far it is, 0 to 1, between parts of it. */
export type Working<T> = Generator<number, T, undefined>;

/**
 * The directions for so many pieces; for any number, as few as leave too little undrawn to matter, until one more is not
 * worth making. Two are the best opposed pair of those looked along, the cheapest cut exactly and the best moved about.
 * All that is told on the face in fewer triangles; what they draw, on the whole of it.
 */
export function* chooseDirections(
  whole: MasterFace,
  pieces: number | null,
  worth = worthAPart,
  face = roughFace(whole),
): Working<Chosen> {
  const fields = new HeightFields(face);
  // A metre of seam is worth what it is on the whole face, however large the triangles.
  const weight = seamWeight(whole);
  const looked = yield* look(face, fields, weight);
  const allowed = undrawnAllowed * face.area;
  const single = bestSingle(face, looked);
  const finely = face === whole ? fields : new HeightFields(whole);
  const pair = yield* bestPair({ face, fields }, { face: whole, fields: finely }, looked, weight);
  const undrawn = {
    one: undrawnBy(whole, finely, single) / whole.area,
    two: undrawnBy(whole, finely, pair, true) / whole.area,
  };
  const freed = (by: readonly Vec3[]) => (freesMost(face, fields, looked, by)?.freed ?? 0) / face.area;
  const settledBy = (directions: readonly Vec3[]): Chosen => ({
    ...settled(whole, new FaceRays(whole), directions, finely),
    undrawn,
    oneMore: freed(directions),
  });
  if (pieces === 1 || (pieces === null && undrawn.one <= undrawnAllowed)) return settledBy([single]);
  let directions: Vec3[] = [pair, opposite(pair)];
  while (directions.length < (pieces ?? mostPieces)) {
    const near = freesMost(face, fields, looked, directions);
    if (near) yield* lookAlong(face, fields, looked, takenBeside([near.along], looked), weight, 0.8, 0.8);
    const more = freesMost(face, fields, looked, directions);
    if (more === null || (pieces === null && (more.before <= allowed || more.freed < worth * face.area))) break;
    directions = [...directions, more.along];
    yield 0.8 + 0.01 * directions.length;
  }
  return settledBy(directions);
}

/** m2 that do not come off along a direction; with `back`, neither along it nor along its opposite. */
function undrawnBy({ count, areas, stands }: MasterFace, fields: HeightFields, d: Vec3, back = false): number {
  const along = new Uint8Array(count),
    other = new Uint8Array(count);
  fields.look(d).drawable(along, other);
  let undrawn = 0;
  for (let t = 0; t < count; t++) if (!stands[t] && !along[t] && !(back && other[t])) undrawn += areas[t]!;
  return undrawn;
}

/** By direction: what of the face it draws, by pictures. */
function drawnBy(fields: HeightFields, { count }: MasterFace, directions: readonly Vec3[]): Uint8Array[] {
  const unused = new Uint8Array(count);
  return directions.map((d) => {
    const along = new Uint8Array(count);
    fields.look(d).drawable(along, unused);
    return along;
  });
}

/**
 * Pictures tell first what each direction draws, rays for good: each triangle along the direction it is given to. Where
 * they say otherwise it may be given to another, and that is asked again.
 */
export function settled(
  face: MasterFace,
  rays: FaceRays,
  directions: readonly Vec3[],
  fields = new HeightFields(face),
): Chosen {
  const drawable = drawnBy(fields, face, directions);
  const asked = directions.map(() => new Uint8Array(face.count));
  const weight = seamWeight(face);
  let labels = labelTriangles(face, drawable, weight);
  for (let round = 0; ; round++) {
    const otherwise: number[] = [];
    for (let t = 0; t < face.count; t++) {
      const label = labels[t]!;
      if (face.stands[t] || asked[label]![t]) continue;
      asked[label]![t] = 1;
      const draws = rays.draws(t, directions[label]!) ? 1 : 0;
      if (draws !== drawable[label]![t]) otherwise.push(t);
      drawable[label]![t] = draws;
    }
    if (otherwise.length === 0 || round === rounds) break;
    labels = relabelled(face, drawable, weight, labels, otherwise);
  }
  return { directions, drawable, labels, undrawn: null, oneMore: null };
}

/** What still changes after them is a speck here and there; it stays where it is, told by rays. */
const rounds = 2;

/**
 * First the 81 pairs of a coarser ball, some sixteen degrees apart; then of the finer one those beside the best, by
 * either guess at the seam, and beside what leaves least by itself.
 */
function* look(face: MasterFace, fields: HeightFields, weight: number): Working<Looked> {
  const all = opposedPairs();
  const looked: Looked = { directions: [], drawn: [], undrawn: [], pairs: [], left: all.slice(coarsePairs) };
  yield* lookAlong(face, fields, looked, all.slice(0, coarsePairs), weight, 0, 0.25);
  yield* lookAlong(face, fields, looked, takenBeside(bestLooked(looked), looked), weight, 0.25, 0.5);
  return looked;
}

const coarsePairs = 81;
/** Of the coarser ball, by each measure: those whose neighbours are looked along too. */
const looksCloser = 8;

function bestLooked({ pairs, directions, undrawn }: Looked): Vec3[] {
  const least = <T>(all: readonly T[], cost: (it: T) => number) =>
    [...all].sort((a, b) => cost(a) - cost(b)).slice(0, looksCloser);
  const singles = directions.map((along, i) => ({ along, left: undrawn[i]! }));
  return [
    ...least(pairs, (p) => p.leastSeam),
    ...least(pairs, (p) => p.seamByFacing),
    ...least(singles, (d) => d.left),
  ].map(({ along }) => along);
}

/** Of the pairs not looked along yet, those within some ten degrees of any of these directions, taken out of them. */
function takenBeside(those: readonly Vec3[], looked: Looked): Vec3[] {
  const near = Math.cos(0.18);
  const isNear = (p: Vec3) => those.some((d) => Math.abs(p[0] * d[0] + p[1] * d[1] + p[2] * d[2]) > near);
  const taken = looked.left.filter(isNear);
  looked.left = looked.left.filter((p) => !isNear(p));
  return taken;
}

function* lookAlong(
  face: MasterFace,
  fields: HeightFields,
  looked: Looked,
  along: readonly Vec3[],
  weight: number,
  from: number,
  to: number,
): Working<void> {
  const { count, areas, stands, seams } = face;
  const there = new Uint8Array(count),
    back = new Uint8Array(count),
    faces = new Uint8Array(count);
  for (const [i, d] of along.entries()) {
    fields.look(d).drawable(there, back, faces);
    let undrawn = 0,
      notThere = 0,
      notBack = 0;
    for (let t = 0; t < count; t++) {
      if (stands[t]) continue;
      if (!there[t]) notThere += areas[t]!;
      if (!back[t]) notBack += areas[t]!;
      if (!there[t] && !back[t]) undrawn += areas[t]!;
    }
    looked.undrawn.push(notThere, notBack);
    const { least, byFacing } = seamCosts(seams, there, back, faces);
    looked.pairs.push({ along: d, leastSeam: undrawn + weight * least, seamByFacing: undrawn + weight * byFacing });
    looked.directions.push(d, opposite(d));
    looked.drawn.push(packed(there), packed(back));
    if (i % 8 === 7) yield from + (to - from) * (i / along.length);
  }
}

/**
 * Two guesses at a seam: edges between what only one and what only the other draws, of which a band that both draw leaves
 * none; and that with each triangle of the band given to the direction it looks along, of which a straight wall makes many.
 */
function seamCosts(
  { count, one, other, cost }: MasterFace['seams'],
  along: Uint8Array,
  back: Uint8Array,
  faces: Uint8Array,
): { least: number; byFacing: number } {
  let least = 0,
    byFacing = 0;
  const side = (t: number) => (along[t] === back[t] ? (along[t] ? 2 * faces[t]! - 1 : 0) : along[t]! - back[t]!);
  for (let e = 0; e < count; e++) {
    const a = one[e]!,
      b = other[e]!;
    if ((along[a]! - back[a]!) * (along[b]! - back[b]!) < 0) least += cost[e]!;
    if (side(a) * side(b) < 0) byFacing += cost[e]!;
  }
  return { least, byFacing };
}

function packed(flags: Uint8Array): Uint8Array {
  const out = new Uint8Array((flags.length + 7) >> 3);
  for (let t = 0; t < flags.length; t++) if (flags[t]) out[t >> 3]! |= 1 << (t & 7);
  return out;
}
const has = (bits: Uint8Array, t: number) => (bits[t >> 3]! >> (t & 7)) & 1;

/** Of those that leave as little, that which looks up most. */
function bestSingle({ area }: MasterFace, looked: Looked): Vec3 {
  let best = { along: looked.directions[0]!, undrawn: Infinity };
  for (const [i, along] of looked.directions.entries()) {
    const undrawn = looked.undrawn[i]!;
    const close = Math.abs(undrawn - best.undrawn) <= 1e-4 * area;
    if (close ? along[2] > best.along[2] : undrawn < best.undrawn) best = { along, undrawn };
  }
  return best.along;
}

const cutExactly = 6;
/** Of those that are cut exactly on the rough face: how many are cut on the whole. */
const cutOnTheWhole = 3;

interface Pictured {
  readonly face: MasterFace;
  readonly fields: HeightFields;
}

function* bestPair(rough: Pictured, whole: Pictured, looked: Looked, weight: number): Working<Vec3> {
  const by = (on: Pictured) => (d: Vec3) => ({ d, cost: pairCost(on.face, on.fields, d, weight) });
  const cheaper = (a: { cost: number }, b: { cost: number }) => a.cost - b.cost;
  const cheapestBy = (cost: 'leastSeam' | 'seamByFacing') =>
    [...looked.pairs].sort((a, b) => a[cost] - b[cost]).slice(0, cutExactly);
  const cheapest = new Set([...cheapestBy('leastSeam'), ...cheapestBy('seamByFacing')]);
  const cut: ReturnType<ReturnType<typeof by>>[] = [];
  for (const { along } of cheapest) {
    cut.push(by(rough)(along));
    yield 0.5 + 0.15 * (cut.length / cheapest.size);
  }
  const best = cut.sort(cheaper).slice(0, cutOnTheWhole);
  const onTheWhole = rough.face === whole.face ? best : best.map(({ d }) => by(whole)(d)).sort(cheaper);
  yield 0.72;
  // Points lie some eight degrees apart.
  let { d } = onTheWhole[0]!;
  for (const angle of [2 * closer, closer]) {
    d = beside(rough.face, rough.fields, d, angle, weight);
    yield 0.8 - angle;
  }
  if (rough.face === whole.face || d === onTheWhole[0]!.d) return d;
  return [onTheWhole[0]!, by(whole)(d)].sort(cheaper)[0]!.d;
}

/** Radians between a pair and those beside it that are tried last. */
const closer = 0.035;

/** The cheapest cut between what a direction draws and what its opposite does. */
function pairCost(face: MasterFace, fields: HeightFields, d: Vec3, weight: number): number {
  const drawable = [new Uint8Array(face.count), new Uint8Array(face.count)] as const;
  fields.look(d).drawable(...drawable);
  return costOf(face, drawable, labelTriangles(face, drawable, weight), weight);
}

/** The cheapest of a pair and six about it. */
function beside(face: MasterFace, fields: HeightFields, d: Vec3, angle: number, weight: number): Vec3 {
  const cost = (near: Vec3) => pairCost(face, fields, near, weight);
  return about(d, angle).reduce(
    (best, near) => {
      const now = cost(near);
      return now < best.cost ? { d: near, cost: now } : best;
    },
    { d, cost: cost(d) },
  ).d;
}

/** The direction that draws most of what none of these does. */
function freesMost(
  { count, areas, stands }: MasterFace,
  fields: HeightFields,
  looked: Looked,
  directions: readonly Vec3[],
): { along: Vec3; freed: number; before: number } | null {
  const along = new Uint8Array(count),
    back = new Uint8Array(count),
    drawn = new Uint8Array(count);
  for (const d of directions) {
    fields.look(d).drawable(along, back);
    for (let t = 0; t < count; t++) drawn[t]! |= along[t]!;
  }
  const left: number[] = [];
  let before = 0;
  for (let t = 0; t < count; t++)
    if (!stands[t] && !drawn[t]) {
      left.push(t);
      before += areas[t]!;
    }
  let best: { along: Vec3; freed: number; before: number } | null = null;
  for (const [i, d] of looked.directions.entries()) {
    let freed = 0;
    for (const t of left) if (has(looked.drawn[i]!, t)) freed += areas[t]!;
    if (freed > (best?.freed ?? 0)) best = { along: d, freed, before };
  }
  return best;
}
