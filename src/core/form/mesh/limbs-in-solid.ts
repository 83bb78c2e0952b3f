import { distance, type Vec3 } from '../../quantity';
import { depthInSolid } from './depth-in-solid';
import { latticePlace, type Lattice } from './lattice';
import { softened } from './solid';
import { thin } from './thinning';
import { around, wayFrom } from './ways-in-solid';

const { max, min, round } = Math;

/**
 * The limbs of a solid: lines in its middle from where limbs meet to their tips, how thick it is along each, and loops
 * where it has them. Tips are where the way through the solid from its thickest place is longest, as far as they stand out
 * from what is there already; the lines are what thinning leaves between them.
 */
export interface SolidLimbs {
  readonly joints: readonly SolidJoint[];
  readonly limbs: readonly Limb[];
}

export interface SolidJoint {
  readonly at: Vec3;
  /** Radius of the largest ball about it that lies within. */
  readonly radius: number;
  /** An end of a limb, a place where limbs meet, or the thickest place of all. */
  readonly kind: 'tip' | 'fork' | 'middle' | 'narrow';
}

export interface Limb {
  /** Indices of joints; the nearer to the thickest place first. */
  readonly from: number;
  readonly to: number;
  /** From joint to joint, the ends among them, with the radius of the ball at each. */
  readonly path: readonly { readonly at: Vec3; readonly radius: number }[];
}

/** A tip stands out by so many steps, and by so many of the radii of what it stands on. */
const leastSteps = 3;
const leastPersistence = 1;
const leastLength = 1.25;

/** `scan`: from a scan, whose face is rough: smoothed once, which takes away what is under three places thick. */
export function limbsInSolid(given: Uint8Array, lattice: Lattice, scan: boolean): SolidLimbs {
  const inside = scan ? smooth(given, lattice) : given.slice();
  const depth = depthInSolid(inside, lattice);
  const root = middlePlace(inside, depth, lattice);
  if (root < 0) return { joints: [], limbs: [] };
  keepJoined(inside, root, lattice);
  const away = wayFrom([[root, 0]], inside, lattice, () => 1).cost;
  const tips = tipsOf(inside, depth, away, root, lattice);
  const left = inside.slice();
  thin(left, depth, new Set([root, ...tips]), lattice);
  return withNarrows(graphOf(left, depth, new Set(tips), root, lattice));
}

/** A neck, a waist, a wrist: thinner than this share of what lies thicker on either side of it. */
const narrow = 0.7;

/** A joint in the narrowest place of each limb that grows thicker again beyond it. */
function withNarrows({ joints: given, limbs: whole }: SolidLimbs): SolidLimbs {
  const joints = [...given];
  const limbs: Limb[] = [];
  const split = (limb: Limb): void => {
    const at = narrowest(limb.path);
    if (at < 0) {
      limbs.push(limb);
      return;
    }
    const { at: place, radius } = limb.path[at]!;
    const joint = joints.push({ at: place, radius, kind: 'narrow' }) - 1;
    split({ from: limb.from, to: joint, path: limb.path.slice(0, at + 1) });
    split({ from: joint, to: limb.to, path: limb.path.slice(at) });
  };
  whole.forEach(split);
  return { joints, limbs };
}

function narrowest(path: Limb['path']): number {
  let best = -1,
    least = narrow;
  for (let i = 1; i < path.length - 1; i++) {
    const before = path.slice(0, i).reduce((m, p) => max(m, p.radius), 0),
      after = path.slice(i + 1).reduce((m, p) => max(m, p.radius), 0);
    const share = path[i]!.radius / min(before, after);
    if (share < least) [best, least] = [i, share];
  }
  return best;
}

function smooth(inside: Uint8Array, lattice: Lattice): Uint8Array {
  return Uint8Array.from(softened(inside, lattice, 1), (v) => (v > 0.5 ? 1 : 0));
}

/** Places nearly as deep as the deepest are as good a middle; the one nearest to the middle of all is taken, not the end of a trunk. */
const nearlyAsDeep = 0.9;

/** Where everything is reckoned from: -1 where there is nothing. */
function middlePlace(inside: Uint8Array, depth: Float32Array, lattice: Lattice): number {
  let most = 0,
    n = 0;
  const sum = [0, 0, 0];
  for (let i = 0; i < inside.length; i++) {
    if (!inside[i]) continue;
    most = max(most, depth[i]!);
    latticePlace(lattice, i).forEach((v, k) => (sum[k]! += v));
    n++;
  }
  const middle = sum.map((v) => v / max(1, n)) as unknown as Vec3;
  let best = -1,
    least = Infinity;
  for (let i = 0; i < inside.length; i++) {
    if (!inside[i] || depth[i]! < nearlyAsDeep * most) continue;
    const d = distance(latticePlace(lattice, i), middle);
    if (d < least) [best, least] = [i, d];
  }
  return best;
}

/** What does not hang together with a place goes. */
function keepJoined(inside: Uint8Array, from: number, { cells: [nx, ny] }: Lattice): void {
  const steps = around.map(([x, y, z]) => x + nx * (y + ny * z));
  const seen = new Uint8Array(inside.length);
  const stack = [from];
  seen[from] = 1;
  while (stack.length > 0) {
    const i = stack.pop()!;
    for (const s of steps)
      if (inside[i + s] && !seen[i + s]) {
        seen[i + s] = 1;
        stack.push(i + s);
      }
  }
  for (let i = 0; i < inside.length; i++) if (!seen[i]) inside[i] = 0;
}

/** Places furthest from the root of all about them, each with how far it stands out: down to where its lot meets one that goes further. */
function outstanding(
  inside: Uint8Array,
  away: Float64Array,
  { cells: [nx, ny] }: Lattice,
): { at: number; by: number }[] {
  const steps = around.map(([x, y, z]) => x + nx * (y + ny * z));
  const order: number[] = [];
  for (let i = 0; i < inside.length; i++) if (inside[i]) order.push(i);
  order.sort((a, b) => away[b]! - away[a]!);
  const lot = new Int32Array(inside.length).fill(-1);
  const find = (i: number) => {
    while (lot[i] !== i) i = lot[i] = lot[lot[i]!]!;
    return i;
  };
  const out: { at: number; by: number }[] = [];
  for (const i of order) {
    lot[i] = i;
    for (const s of steps) {
      const j = i + s;
      if (lot[j]! < 0) continue;
      const a = find(i),
        b = find(j);
      if (a === b) continue;
      // A lot is named by its furthest place; the nearer one ends where they meet.
      const [keep, end] = away[a]! >= away[b]! ? [a, b] : [b, a];
      const by = away[end]! - away[i]!;
      if (by > 0) out.push({ at: end, by });
      lot[end] = keep;
    }
  }
  if (order.length > 0) out.push({ at: order[0]!, by: away[order[0]!]! });
  return out.sort((a, b) => b.by - a.by);
}

function tipsOf(inside: Uint8Array, depth: Float32Array, away: Float64Array, root: number, lattice: Lattice): number[] {
  const { before } = wayFrom([[root, 0]], inside, lattice, (i) => 1 / depth[i]! ** 2);
  const where = (i: number) => latticePlace({ ...lattice, step: 1, from: [0, 0, 0] }, i);
  // Balls along the lines there are: a tip within one of them is no tip.
  const lines: { at: Vec3; radius: number }[] = [{ at: where(root), radius: depth[root]! }];
  const tips: number[] = [];
  for (const { at, by } of outstanding(inside, away, lattice)) {
    if (by < leastSteps) break;
    const tip = where(at);
    const out = lines.reduce((least, l) => min(least, distance(l.at, tip) - l.radius), Infinity);
    if (out < leastSteps) continue;
    const thickest = (within: number) => {
      let most = 0;
      for (let i = at; i >= 0; i = before[i]!) {
        if (distance(where(i), tip) > within) break;
        most = max(most, depth[i]!);
      }
      return most;
    };
    if (by < leastPersistence * thickest(by) || out < leastLength * thickest(out)) continue;
    tips.push(at);
    for (let i = at; i >= 0; i = before[i]!) lines.push({ at: where(i), radius: depth[i]! });
  }
  return tips;
}

interface Node {
  places: number[];
  kind: SolidJoint['kind'];
}

/** Joints where lines end or meet, limbs between them. */
function graphOf(
  line: Uint8Array,
  depth: Float32Array,
  tips: ReadonlySet<number>,
  root: number,
  lattice: Lattice,
): SolidLimbs {
  const [nx, ny] = lattice.cells;
  const steps = around.map(([x, y, z]) => x + nx * (y + ny * z));
  const next = (i: number) => steps.map((s) => i + s).filter((j) => line[j]);
  const all: number[] = [];
  for (let i = 0; i < line.length; i++) if (line[i]) all.push(i);
  const nodeOf = new Map<number, number>();
  const nodes: Node[] = [];
  for (const i of all) {
    const kind = tips.has(i) ? 'tip' : i === root ? 'middle' : next(i).length > 2 ? 'fork' : null;
    if (!kind || nodeOf.has(i)) continue;
    const node: Node = { places: [i], kind };
    nodeOf.set(i, nodes.length);
    // Places beside each other where lines meet are one joint.
    if (kind === 'fork')
      for (let n = 0; n < node.places.length; n++)
        for (const j of next(node.places[n]!))
          if (!nodeOf.has(j) && !tips.has(j) && j !== root && next(j).length > 2) {
            nodeOf.set(j, nodes.length);
            node.places.push(j);
          }
    nodes.push(node);
  }
  const strokes = strokesOf(nodes, nodeOf, next);
  return joined(nodes, strokes, depth, lattice, nodeOf.get(root) ?? 0);
}

interface Stroke {
  from: number;
  to: number;
  places: number[];
}

/** Every line from joint to joint, its ends' places among it. */
function strokesOf(
  nodes: readonly Node[],
  nodeOf: ReadonlyMap<number, number>,
  next: (i: number) => number[],
): Stroke[] {
  const out: Stroke[] = [];
  const walked = new Set<number>();
  nodes.forEach((node, n) => {
    for (const start of node.places)
      for (const first of next(start)) {
        if (nodeOf.get(first) === n || walked.has(first)) continue;
        const places = [start];
        let at = first,
          before = start;
        while (!nodeOf.has(at)) {
          walked.add(at);
          places.push(at);
          const on = next(at).filter((j) => j !== before && !places.includes(j));
          // At a bend a place may see one that lies beyond the next: the nearer comes first, a joint before all.
          const to = on.find((j) => nodeOf.has(j) && (nodeOf.get(j) !== n || places.length > 2)) ?? on[0];
          if (to === undefined) break;
          before = at;
          at = to;
        }
        const to = nodeOf.get(at);
        if (to === undefined) continue;
        places.push(at);
        // A step straight from joint to joint is seen from both.
        if (places.length === 2 && out.some((s) => s.places.length === 2 && s.from === to && s.to === n)) continue;
        out.push({ from: n, to, places });
      }
  });
  return out;
}

/** Loops shorter than this many steps, or than once round the thickest place of them, are none. */
const leastLoop = 12;

/** Joints within each other's balls made one; short loops dropped; limbs turned to run from the thickest place outward. */
function joined(
  nodes: readonly Node[],
  given: readonly Stroke[],
  depth: Float32Array,
  lattice: Lattice,
  root: number,
): SolidLimbs {
  const { step } = lattice;
  const place = (i: number): Vec3 => latticePlace(lattice, i);
  const middleOf = (n: Node) => n.places.reduce((a, b) => (depth[b]! > depth[a]! ? b : a));
  const at = nodes.map((n) => place(middleOf(n)));
  const radius = nodes.map((n) => max(...n.places.map((p) => depth[p]!)) * step);
  const parent = nodes.map((_, i) => i);
  const find = (i: number): number => (parent[i] === i ? i : (parent[i] = find(parent[i]!)));
  const length = (s: Stroke) =>
    s.places.slice(1).reduce((sum, p, i) => sum + distance(place(s.places[i]!), place(p)), 0);
  const isTip = (i: number) => nodes[i]!.kind === 'tip';
  // Where a loop closes the way round is longest too, and it is no tip: what stands out no further than its joint is thick.
  const stub = (s: Stroke) => {
    const [tip, foot] = isTip(s.to) ? [s.to, s.from] : [s.from, s.to];
    return isTip(tip) && !isTip(foot) && length(s) <= max(leastSteps * step, leastLength * radius[foot]!);
  };
  let strokes = runOn(
    given.filter((s) => !stub(s)),
    root,
  ).sort((a, b) => length(a) - length(b));
  for (const s of strokes) {
    const a = find(s.from),
      b = find(s.to);
    if (a === b || isTip(a) || isTip(b)) continue;
    if (distance(at[a]!, at[b]!) >= max(radius[a]!, radius[b]!)) continue;
    // The root keeps its place; else the thicker one does.
    const keep = find(root) === a ? a : find(root) === b ? b : radius[a]! >= radius[b]! ? a : b;
    parent[keep === a ? b : a] = keep;
  }
  strokes = strokes.filter((s) => {
    const a = find(s.from),
      b = find(s.to);
    if (a !== b) return true;
    const thick = max(...s.places.map((p) => depth[p]!)) * step;
    return length(s) > max(leastLoop * step, 2 * Math.PI * thick);
  });
  strokes = withoutDoubles(strokes, find, length, (s) => max(...s.places.map((p) => depth[p]!)) * step, step);
  return outward(nodes, strokes, find, at, radius, depth, lattice, root);
}

/** Lines that only run on through a joint, but for the middle, are one. */
function runOn(given: readonly Stroke[], root: number): Stroke[] {
  let strokes = [...given];
  for (;;) {
    const meeting = new Map<number, Stroke[]>();
    for (const s of strokes) for (const n of new Set([s.from, s.to])) meeting.set(n, [...(meeting.get(n) ?? []), s]);
    const through = [...meeting].find(
      ([n, m]) => n !== root && m.length === 2 && m[0] !== m[1] && m.every((s) => s.from !== s.to),
    );
    if (!through) return strokes;
    const [n, [a, b]] = through as [number, [Stroke, Stroke]];
    const first = a.to === n ? a.places : [...a.places].reverse();
    const second = b.from === n ? b.places : [...b.places].reverse();
    const one: Stroke = {
      from: a.to === n ? a.from : a.to,
      to: b.from === n ? b.to : b.from,
      places: [...first, ...(second[0] === first[first.length - 1] ? second.slice(1) : second)],
    };
    strokes = [...strokes.filter((s) => s !== a && s !== b), one];
  }
}

/** Of two lines between the same joints that go round less than a loop does the shorter stays. */
function withoutDoubles(
  strokes: readonly Stroke[],
  find: (i: number) => number,
  length: (s: Stroke) => number,
  thick: (s: Stroke) => number,
  step: number,
): Stroke[] {
  const out: Stroke[] = [];
  for (const s of strokes) {
    const [a, b] = [find(s.from), find(s.to)];
    const twin = out.find(
      (o) => a !== b && min(find(o.from), find(o.to)) === min(a, b) && max(find(o.from), find(o.to)) === max(a, b),
    );
    if (twin && length(twin) + length(s) <= max(leastLoop * step, 2 * Math.PI * max(thick(twin), thick(s)))) continue;
    out.push(s);
  }
  return out;
}

function outward(
  nodes: readonly Node[],
  strokes: readonly Stroke[],
  find: (i: number) => number,
  at: readonly Vec3[],
  radius: readonly number[],
  depth: Float32Array,
  lattice: Lattice,
  root: number,
): SolidLimbs {
  const step = lattice.step;
  const ends = strokes.map((s) => [find(s.from), find(s.to)] as const);
  const hops = new Map<number, number>([[find(root), 0]]);
  for (let grew = true; grew;) {
    grew = false;
    for (const [a, b] of ends)
      for (const [x, y] of [
        [a, b],
        [b, a],
      ] as const)
        if (hops.has(x) && !hops.has(y)) {
          hops.set(y, hops.get(x)! + 1);
          grew = true;
        }
  }
  // A joint on a line that only runs on through it is none, but for the root.
  const used = [...new Set([find(root), ...ends.flat()])].sort(
    (a, b) => (hops.get(a) ?? 0) - (hops.get(b) ?? 0) || a - b,
  );
  const number = new Map(used.map((n, i) => [n, i]));
  const limbs = strokes.map((s, k): Limb => {
    const [a, b] = ends[k]!;
    const turned = (hops.get(a) ?? 0) > (hops.get(b) ?? 0);
    const places = turned ? [...s.places].reverse() : s.places;
    const [from, to] = turned ? [b, a] : [a, b];
    const path = places.map((p) => ({ at: latticePlace(lattice, p) as Vec3, radius: depth[p]! * step }));
    // Where joints were made one, the line is led to the one that stayed.
    if (distance(path[0]!.at, at[from]!) > step / 2) path.unshift({ at: at[from]!, radius: radius[from]! });
    if (distance(path[path.length - 1]!.at, at[to]!) > step / 2) path.push({ at: at[to]!, radius: radius[to]! });
    return { from: number.get(from)!, to: number.get(to)!, path };
  });
  return {
    joints: used.map((n) => ({ at: at[n]!, radius: radius[n]!, kind: n === find(root) ? 'middle' : nodes[n]!.kind })),
    limbs,
  };
}

/**
 * Which limb each place belongs to: the one whose line it is nearest to along the inside, less how thick the limb is
 * there. 0 outside and in the balls about joints where limbs meet, which belong to none of them; else the limb's index and one.
 */
export function limbOfPlace(inside: Uint8Array, lattice: Lattice, { joints, limbs }: SolidLimbs): Uint16Array {
  const { cells, step, from } = lattice;
  const starts: [number, number][] = [];
  const limbAt = new Map<number, { limb: number; cost: number }>();
  const thickest = max(0, ...limbs.flatMap((l) => l.path.map((p) => p.radius)));
  limbs.forEach((l, limb) => {
    for (const { at, radius } of l.path) {
      const [x, y, z] = at.map((v, k) => round((v - from[k as 0]) / step)) as [number, number, number];
      const place = x + cells[0] * (y + cells[1] * z);
      const cost = (thickest - radius) / step;
      if (!inside[place] || (limbAt.get(place)?.cost ?? Infinity) <= cost) continue;
      limbAt.set(place, { limb, cost });
      starts.push([place, cost]);
    }
  });
  const { cost, before } = wayFrom(starts, inside, lattice, () => 1);
  const out = new Uint16Array(inside.length);
  const order = [...inside.keys()].filter((i) => inside[i] && cost[i]! < Infinity).sort((a, b) => cost[a]! - cost[b]!);
  for (const i of order) out[i] = before[i]! < 0 ? limbAt.get(i)!.limb + 1 : out[before[i]!]!;
  const meets = joints.map((_, j) => limbs.filter((l) => l.from === j || l.to === j).length > 2);
  joints.forEach((j, n) => {
    if (!meets[n]) return;
    for (const i of order) if (out[i] && distance(latticePlace(lattice, i), j.at) < j.radius) out[i] = 0;
  });
  return out;
}
