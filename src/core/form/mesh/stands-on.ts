import { distance, type Vec3 } from '../../quantity';
import { depthInSolid } from './depth-in-solid';
import type { LineTree } from './line-tree';
import { latticePlace, type Lattice } from './lattice';
import { wayFrom } from './ways-in-solid';

const { floor, max, PI, round, sqrt } = Math;

/** What lies this near to the lowest place stands on the board, as a share of the height. */
const near = 0.03;
/** A footprint smaller than this share of all there is carries nothing. */
const leastPrint = 0.08;
/** An end within so many of the footprint's radii of its middle is what stands there. */
const ownEnd = 0.75;

/**
 * Where a solid stands: a foot for every footprint, at its middle. A limb that ends on it stands on its end; where none
 * does, a line goes up from it the shortest way to the lines there are.
 */
export function standsOn(tree: LineTree, inside: Uint8Array, lattice: Lattice): void {
  const { cells, step } = lattice;
  const layer = cells[0] * cells[1];
  const lowest = floor(inside.findIndex((v) => v === 1) / layer),
    highest = floor(inside.lastIndexOf(1) / layer);
  const until = lowest + max(1, round(near * (highest - lowest)));
  const height = (highest - lowest) * step;
  const bottom = lattice.from[2] + lowest * step;
  withoutCorners(tree, bottom + lowTip * height);
  for (const print of footprints(inside, cells, lowest, until).flatMap((p) => soles(p, cells))) {
    const middle = print.reduce((s, i) => latticePlace(lattice, i).map((v, k) => s[k]! + v / print.length), [0, 0, 0]);
    const at = print.reduce((best, i) =>
      distance(latticePlace(lattice, i), middle as unknown as Vec3) <
      distance(latticePlace(lattice, best), middle as unknown as Vec3)
        ? i
        : best,
    );
    const place = latticePlace(lattice, at);
    const foot: Vec3 = [place[0], place[1], bottom];
    const broad = sqrt(print.length / PI) * step;
    const end = tree.nodes.find((n, i) => {
      if (n.kind !== 'tip' || n.at[2] - foot[2] > 0.15 * height) return false;
      const lines = tree.edges.filter((e) => e.from === i || e.to === i);
      if (lines.length > 0 && distance(n.at, foot) < max(ownEnd * broad, 3 * step)) return true;
      return lines.some(({ path }) => path.some((p) => isEndOver(p, n.at, foot)));
    });
    if (end) Object.assign(end, { kind: 'foot', at: foot, radius: max(end.radius, step) });
    else stood(tree, at, foot, inside, lattice);
  }
}

/** A round end stands on a small print, and its line may run out to one side of it: place of a line that has both within its ball. */
function isEndOver({ at, radius }: LineTree['edges'][number]['path'][number], end: Vec3, foot: Vec3): boolean {
  const aside = Math.hypot(at[0] - foot[0], at[1] - foot[1]);
  return distance(at, end) <= radius && aside < ownEnd * radius && at[2] - foot[2] < standsLow * radius;
}
const standsLow = 1.5;

/** An end is on the board within this share of the height; what stands out there no further than this share of its root's thickness is a corner. */
const lowTip = 0.06;
const cornerLong = 1.3;

/** Corners that a broad foot has on the board are no limbs. */
function withoutCorners(tree: LineTree, below: number): void {
  tree.edges = tree.edges.filter(({ from, to, path }) => {
    const end = tree.nodes[to]!.kind === 'tip' ? to : tree.nodes[from]!.kind === 'tip' ? from : -1;
    if (end < 0 || tree.nodes[end]!.at[2] > below) return true;
    const meets = tree.nodes[end === to ? from : to]!;
    const root = path.find((p) => distance(p.at, meets.at) > 0.9 * meets.radius);
    return root !== undefined && distance(tree.nodes[end]!.at, root.at) > cornerLong * root.radius + root.radius;
  });
}

/** Lots of the lowest places that hang together, as seen from above; each place the lowest of its column. */
function footprints(inside: Uint8Array, [nx, ny]: Lattice['cells'], lowest: number, until: number): number[][] {
  const column = new Int32Array(nx * ny).fill(-1);
  for (let z = until; z >= lowest; z--)
    for (let c = 0; c < nx * ny; c++) if (inside[c + nx * ny * z]) column[c] = c + nx * ny * z;
  const seen = new Uint8Array(nx * ny);
  const lots: number[][] = [];
  let all = 0;
  for (let start = 0; start < column.length; start++) {
    if (column[start]! < 0 || seen[start]) continue;
    const lot: number[] = [];
    const stack = [start];
    seen[start] = 1;
    while (stack.length > 0) {
      const c = stack.pop()!;
      lot.push(column[c]!);
      for (const n of [c - 1, c + 1, c - nx, c + nx])
        if (column[n]! >= 0 && !seen[n]) {
          seen[n] = 1;
          stack.push(n);
        }
    }
    all += lot.length;
    lots.push(lot);
  }
  return lots.filter((l) => l.length >= leastPrint * all).sort((a, b) => b.length - a.length);
}

/** Feet that touch each other at their edges are two: of a footprint, the lots that lie this deep in it, of the deepest. */
const soleDepth = 0.6;

function soles(print: readonly number[], [nx, ny]: Lattice['cells']): number[][] {
  const flat = new Map(print.map((i) => [i % (nx * ny), i]));
  const plan = new Uint8Array(nx * ny);
  for (const c of flat.keys()) plan[c] = 1;
  const depth = depthInSolid(plan, { cells: [nx, ny, 1] });
  const deepest = depth.reduce((a, b) => max(a, b), 0);
  const seen = new Uint8Array(plan.length);
  const lots: number[][] = [];
  for (const start of flat.keys()) {
    if (seen[start] || depth[start]! < soleDepth * deepest) continue;
    const lot: number[] = [];
    const stack = [start];
    seen[start] = 1;
    while (stack.length > 0) {
      const c = stack.pop()!;
      lot.push(flat.get(c)!);
      for (const n of [c - 1, c + 1, c - nx, c + nx])
        if (plan[n] && !seen[n] && depth[n]! >= soleDepth * deepest) {
          seen[n] = 1;
          stack.push(n);
        }
    }
    lots.push(lot);
  }
  const largest = max(...lots.map((l) => l.length));
  return lots.filter((l) => l.length > 0.25 * largest);
}

/** A foot with a line of its own, to the nearest place of the lines there are; there it meets them in a joint. */
function stood(tree: LineTree, from: number, foot: Vec3, inside: Uint8Array, lattice: Lattice): void {
  const { cost } = wayFrom([[from, 0]], inside, lattice, () => 1);
  const index = (p: Vec3): number => {
    const [x, y, z] = p.map((v, k) => round((v - lattice.from[k as 0]) / lattice.step)) as [number, number, number];
    return x + lattice.cells[0] * (y + lattice.cells[1] * z);
  };
  let best = { edge: -1, place: 0, cost: Infinity };
  tree.edges.forEach((e, edge) =>
    e.path.forEach((p, place) => {
      // What is thick is as good as near: the line is to come up into the middle of what it carries.
      const c = (cost[index(p.at)] ?? Infinity) - p.radius / lattice.step;
      if (c < best.cost) best = { edge, place, cost: c };
    }),
  );
  const { nodes } = tree;
  const own = nodes.push({ at: foot, radius: lattice.step, kind: 'foot' }) - 1;
  if (best.edge < 0) {
    tree.edges.push({ from: own, to: 0, path: [nodes[own]!, nodes[0]!] });
    return;
  }
  const edge = tree.edges[best.edge]!;
  const place = edge.path[best.place]!;
  const meeting = [edge.from, edge.to].find(
    (n) => nodes[n]!.kind === 'body' && distance(nodes[n]!.at, place.at) < max(nodes[n]!.radius, place.radius),
  );
  const to = meeting ?? nodes.push({ ...place, kind: 'body' }) - 1;
  if (meeting === undefined) {
    tree.edges = tree.edges.filter((e) => e !== edge);
    tree.edges.push({ from: edge.from, to, path: edge.path.slice(0, best.place + 1) });
    tree.edges.push({ from: to, to: edge.to, path: edge.path.slice(best.place) });
  }
  tree.edges.push({ from: to, to: own, path: [nodes[to]!, nodes[own]!] });
}
