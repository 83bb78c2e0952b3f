import type { Limbs } from '../../document';
import { add, distance, dot, scale, subtract, type Vec3 } from '../../quantity';
import { namedLimbs } from './limb-names';
import { limbsInSolid, type SolidLimbs } from './limbs-in-solid';
import type { LineTree, Path, RawJoint } from './line-tree';
import { latticeFor, latticePlace, type Lattice } from './lattice';
import { decodedSamples, sampledDistance, type SampledShape } from './sampled';
import { standsOn } from './stands-on';

const { floor, max, min } = Math;

/**
 * Joints for a mesh's limbs: where each leaves what it hangs on, where it bends, where it ends deep enough for a wire, and
 * where the piece stands on its board. They run from what stands outward, parents first, in the shape's own axes.
 */

/** Places along the longest side that limbs are looked for at. */
const alongForLimbs = 88;

/** Null where there is nothing inside. */
export function findLimbs(shape: SampledShape): Limbs | null {
  const solid = solidOfShape(shape, alongForLimbs);
  const found = limbsInSolid(solid.inside, solid.lattice, true);
  if (found.joints.length === 0) return null;
  const tree = treeOf(found);
  standsOn(tree, solid.inside, solid.lattice);
  const middle = middleOf(solid);
  const { step } = solid.lattice;
  const even = middle === null ? null : { middle, near: offMiddle * step };
  return namedLimbs(jointed(tree, step), boxOf(solid), even);
}

/** Which places lie inside, of samples read between: `along` of them on the longest side. */
export function solidOfShape(shape: SampledShape, along: number): { inside: Uint8Array; lattice: Lattice } {
  const samples = decodedSamples(shape.values);
  const info = Float64Array.of(...shape.cells, ...shape.from);
  const edge = (shape.empty ?? 3) - 1;
  const low = shape.from.map((v) => v + edge * shape.step),
    high = shape.from.map((v, k) => v + (shape.cells[k]! - 1 - edge) * shape.step);
  const corners = { positions: Float32Array.of(...low, ...high), triangles: Uint32Array.of(0, 1, 0) };
  const lattice = latticeFor(corners, along);
  const inside = new Uint8Array(lattice.cells[0] * lattice.cells[1] * lattice.cells[2]);
  for (let i = 0; i < inside.length; i++) {
    const [x, y, z] = latticePlace(lattice, i);
    inside[i] = sampledDistance(samples, info, shape.step, shape.deepest, x, y, z) < 0 ? 1 : 0;
  }
  return { inside, lattice };
}

/** Places that a line in the middle of an even piece may be found off it. */
const offMiddle = 1.5;
/** An even piece is its own reflection, left and right, but for this share of it. */
const uneven = 0.04;

/** Where the middle of an even piece is, left and right of which it is alike; null where it is not. */
function middleOf({ inside, lattice: { cells, step, from } }: ReturnType<typeof solidOfShape>): number | null {
  let low = cells[0],
    high = 0,
    all = 0;
  for (let i = 0; i < inside.length; i++) {
    if (!inside[i]) continue;
    all++;
    low = min(low, i % cells[0]);
    high = max(high, i % cells[0]);
  }
  let best = { sum: low + high, off: Infinity };
  for (let sum = low + high - 2; sum <= low + high + 2; sum++) {
    let off = 0;
    for (let i = 0; i < inside.length; i++) {
      const x = i % cells[0];
      if (inside[i] && !(sum - x >= 0 && sum - x < cells[0] && inside[i + sum - 2 * x])) off++;
    }
    if (off < best.off) best = { sum, off };
  }
  return best.off < uneven * all ? from[0] + (best.sum / 2) * step : null;
}

function boxOf({ inside, lattice }: { inside: Uint8Array; lattice: Lattice }): { low: Vec3; high: Vec3 } {
  const low = [Infinity, Infinity, Infinity],
    high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < inside.length; i++) {
    if (!inside[i]) continue;
    latticePlace(lattice, i).forEach((v, k) => {
      low[k] = min(low[k]!, v);
      high[k] = max(high[k]!, v);
    });
  }
  return { low: low as unknown as Vec3, high: high as unknown as Vec3 };
}

/** What closes a loop ends where it comes back: a wire along it ends inside what it comes back to. */
function treeOf({ joints, limbs }: SolidLimbs): LineTree {
  const nodes: LineTree['nodes'] = joints.map((j) => ({
    at: j.at,
    radius: j.radius,
    kind: j.kind === 'tip' || j.kind === 'narrow' ? j.kind : 'body',
  }));
  const lot = nodes.map((_, i) => i);
  const find = (i: number): number => (lot[i] === i ? i : (lot[i] = find(lot[i]!)));
  const edges: LineTree['edges'] = [];
  for (const l of [...limbs].sort((a, b) => thickest(b.path) - thickest(a.path))) {
    const [a, b] = [find(l.from), find(l.to)];
    if (a !== b) {
      lot[b] = a;
      edges.push({ from: l.from, to: l.to, path: l.path });
      continue;
    }
    // Where a line comes back to its own joint, it runs to a place short of it.
    const path = l.path.length > 4 ? l.path.slice(0, -1) : l.path;
    const end = path[path.length - 1]!;
    edges.push({ from: l.from, to: nodes.push({ ...end, kind: 'tip' }) - 1, path });
  }
  return { nodes, edges };
}

const thickest = (path: Path) => path.reduce((m, p) => max(m, p.radius), 0);

/** Of a node's radius: from here on a line has left what it hangs on. */
const leaves = 0.9;
/** A line strays no further from the straight between its joints than this share of how thick it is there. */
const strays = 0.3;
/** An end lies where the limb is still this share as thick as its outer half mostly is. */
const stillThick = 0.6;

function jointed(tree: LineTree, step: number): RawJoint[] {
  const feet = tree.nodes.flatMap((n, i) => (n.kind === 'foot' ? [i] : []));
  // One place to stand on carries all the rest; of several none does.
  const root =
    feet.length === 1
      ? feet[0]!
      : tree.nodes.reduce((best, n, i) => (n.kind === 'body' && better(tree, best, i) ? i : best), 0);
  const out: RawJoint[] = [];
  const walk = (node: number, parent: number | null, line: number, by: number) => {
    const { at, radius, kind } = tree.nodes[node]!;
    const own = out.push({ kind, at, radius, parent, line }) - 1;
    // The thickest first: the first of a joint's children is what its wire runs on into.
    const onward = tree.edges.flatMap((e, i) => (i !== by && (e.from === node || e.to === node) ? [i] : []));
    onward.sort((a, b) => beyond(tree, b, node) - beyond(tree, a, node));
    onward.forEach((i) => {
      const e = tree.edges[i]!;
      const outward = e.from === node ? e.path : [...e.path].reverse();
      const end = e.from === node ? e.to : e.from;
      const last = tree.nodes[end]!;
      const path = trimmed(outward, tree.nodes[node]!, last, step);
      let at = own;
      if (path.root) at = out.push({ kind: 'root', ...path.root, parent: at, line: i }) - 1;
      for (const b of path.bends) at = out.push({ kind: 'bend', ...b, parent: at, line: i }) - 1;
      if (path.end) out.push({ kind: last.kind, ...path.end, parent: at, line: i });
      else walk(end, at, i, i);
    });
  };
  walk(root, null, -1, -1);
  return out;
}

/** About how much lies along a line past what it leaves, and along all that hangs on its end. */
function beyond({ nodes, edges }: LineTree, edge: number, node: number): number {
  const { from, to, path } = edges[edge]!;
  const end = from === node ? to : from;
  const left = path.filter((p) => distance(p.at, nodes[node]!.at) > leaves * nodes[node]!.radius);
  const own = left.slice(1).reduce((sum, p, i) => sum + p.radius ** 2 * distance(p.at, left[i]!.at), 0);
  return edges.reduce(
    (sum, e, i) => sum + (i !== edge && (e.from === end || e.to === end) ? beyond({ nodes, edges }, i, end) : 0),
    own + (nodes[end]!.kind === 'body' ? nodes[end]!.radius ** 3 : 0),
  );
}

/** The thicker of two meeting places is the better middle; anything is better than an end. */
function better({ nodes }: LineTree, best: number, i: number): boolean {
  return nodes[best]!.kind !== 'body' || nodes[i]!.radius > nodes[best]!.radius;
}

interface Place {
  readonly at: Vec3;
  readonly radius: number;
}

/** A line from where it leaves its node, with its bends, to its end: an end of the piece is drawn back to where it is thick. */
function trimmed(
  line: Path,
  from: LineTree['nodes'][number],
  to: LineTree['nodes'][number],
  step: number,
): { root: Place | null; bends: Place[]; end: Place | null } {
  const path = smoothed(line);
  let first = 0;
  if (from.kind === 'body')
    while (first < path.length && distance(path[first]!.at, from.at) < leaves * from.radius) first++;
  const beyond = path.slice(first);
  const hasRoot = first > 0 && beyond.length > 3;
  const run: Place[] = hasRoot ? [...beyond] : [...path];
  let end: Place | null = null;
  if (to.kind === 'tip') {
    const outer = run.slice(floor(run.length / 2)).map((p) => p.radius);
    const least = stillThick * outer.sort((a, b) => a - b)[floor(outer.length / 2)]!;
    let last = run.length - 1;
    while (last > 1 && run[last]!.radius < least) last--;
    run.length = last + 1;
    end = run[last]!;
  } else if (to.kind === 'foot') end = { at: to.at, radius: to.radius };
  const straight = bendsOf(run, step);
  return { root: hasRoot ? run[0]! : null, bends: straight, end };
}

/** Thinning leaves a line that steps from place to place: its middle runs straighter than that. Its ends stay. */
const smoothings = 12;

function smoothed(line: Path): Path {
  let path = [...line];
  for (let n = 0; n < smoothings; n++)
    path = path.map((p, i) =>
      i === 0 || i === path.length - 1
        ? p
        : { ...p, at: scale(add(add(path[i - 1]!.at, path[i + 1]!.at), scale(p.at, 2)), 0.25) },
    );
  return path;
}

/** Places of a line between its ends that keep it from straying (Douglas and Peucker 1973). */
function bendsOf(run: readonly Place[], step: number): Place[] {
  const kept = new Set<number>();
  const part = (a: number, b: number): void => {
    let worst = -1,
      most = 1;
    for (let i = a + 1; i < b; i++) {
      const off = offLine(run[i]!.at, run[a]!.at, run[b]!.at) / max(strays * run[i]!.radius, 0.75 * step);
      if (off > most) [worst, most] = [i, off];
    }
    if (worst < 0) return;
    kept.add(worst);
    part(a, worst);
    part(worst, b);
  };
  part(0, run.length - 1);
  return [...kept].sort((a, b) => a - b).map((i) => run[i]!);
}

function offLine(p: Vec3, a: Vec3, b: Vec3): number {
  const d = subtract(b, a);
  const t = min(1, max(0, dot(subtract(p, a), d) / (dot(d, d) || 1)));
  return distance(p, add(a, scale(d, t)));
}
