import type { Vec3 } from '../quantity';
import { drawDirections } from './directions';
import type { MasterFace } from './face';

/** A place of the cavity where what rises stays: the pour hole is at the highest, the others want a vent. */
export interface Trap {
  readonly at: Vec3;
  /** Metres it stands above the way out; Infinity at the highest. */
  readonly height: number;
  /** On the open side, where the mould has no wall. */
  readonly open: boolean;
}

/** Lower ones fill as the mould is tapped and rolled. */
const persistence = 0.003;

/**
 * Where air stays while the cavity is filled, `up` being up as it stands then. Heights are gone through from the top:
 * each peak that the face closes from above begins a pocket, and where two meet the lower has its height over that
 * saddle. A peak that looks down has the piece's inside above it and holds no air. Highest first. Edelsbrunner and Harer,
 * *Computational Topology*, on merge trees.
 */
export function airTraps(face: MasterFace, up: Vec3, near = neighbours(face)): Trap[] {
  const { positions: p, triangles, count } = face;
  const points = p.length / 3;
  const height = new Float64Array(points);
  for (let i = 0; i < points; i++) height[i] = p[3 * i]! * up[0] + p[3 * i + 1]! * up[1] + p[3 * i + 2]! * up[2];
  const looksUp = upwardAt(face, up, points);
  const open = new Uint8Array(points);
  for (let t = 0; t < count; t++) if (face.stands[t]) for (let c = 0; c < 3; c++) open[triangles[3 * t + c]!] = 1;
  const order = fromTheTop(height);
  const group = new Int32Array(points).fill(-1);
  /** By the head of a group: its highest peak that looks up; -1 where it has none. */
  const peak = new Int32Array(points).fill(-1);
  const find = (i: number): number => {
    let root = i;
    while (group[root] !== root) root = group[root]!;
    while (group[i] !== root) [group[i], i] = [root, group[i]!];
    return root;
  };
  const found: Trap[] = [];
  const trap = (i: number, over: number): Trap => ({
    at: [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!],
    height: over,
    open: open[i] === 1,
  });
  // Of the pockets about a point, their heads: one list for all points, a set for each takes most of the time.
  const roots: number[] = [];
  for (let n = 0; n < points; n++) {
    const i = order[n]!;
    group[i] = i;
    roots.length = 0;
    for (let k = near.from[i]!; k < near.from[i + 1]!; k++) {
      const j = near.to[k]!;
      if (group[j]! < 0 || j === i) continue;
      const root = find(j);
      if (!roots.includes(root)) roots.push(root);
    }
    // Nearly all points lie in the slope of one pocket.
    if (roots.length === 1) {
      group[i] = roots[0]!;
      continue;
    }
    if (roots.length === 0) {
      if (near.from[i] !== near.from[i + 1] && looksUp[i]! > 0) peak[i] = i;
      continue;
    }
    let elder = -1;
    for (const r of roots) if (elder < 0 || isHigher(peak[r]!, peak[elder]!, height)) elder = r;
    for (const r of roots) {
      if (r === elder) continue;
      const own = peak[r]!;
      if (own >= 0 && height[own]! - height[i]! > persistence) found.push(trap(own, height[own]! - height[i]!));
      group[r] = elder;
    }
    group[i] = elder;
  }
  const heads = new Set<number>();
  for (let i = 0; i < points; i++) if (group[i]! >= 0) heads.add(find(i));
  for (const r of heads) if (peak[r]! >= 0) found.push(trap(peak[r]!, Infinity));
  const rise = (t: Trap) => t.at[0] * up[0] + t.at[1] * up[1] + t.at[2] * up[2];
  return found.sort((a, b) => rise(b) - rise(a));
}

function isHigher(a: number, b: number, height: Float64Array): boolean {
  if (a < 0) return false;
  return b < 0 || height[a]! > height[b]!;
}

/** Points by height, highest first, those within a billionth of the whole in their own order. */
function fromTheTop(height: Float64Array): Uint32Array {
  let low = Infinity,
    high = -Infinity;
  for (const h of height) {
    if (h < low) low = h;
    if (h > high) high = h;
  }
  const k = high > low ? (2 ** (digits * passes) - 1) / (high - low) : 0;
  const points = height.length;
  const keys = new Uint32Array(points);
  let order = new Uint32Array(points),
    next = new Uint32Array(points);
  for (let i = 0; i < points; i++) {
    keys[i] = Math.floor((high - height[i]!) * k);
    order[i] = i;
  }
  // By one group of digits after another, the last first: each keeps the order of those before where it finds none.
  for (let pass = 0; pass < passes; pass++) {
    const shift = digits * pass;
    const from = new Uint32Array(2 ** digits + 1);
    for (let i = 0; i < points; i++) from[((keys[i]! >>> shift) & most) + 1]!++;
    for (let d = 0; d < most; d++) from[d + 1]! += from[d]!;
    for (let n = 0; n < points; n++) {
      const i = order[n]!;
      next[from[(keys[i]! >>> shift) & most]!++] = i;
    }
    [order, next] = [next, order];
  }
  return order;
}

const digits = 10,
  passes = 3,
  most = 2 ** digits - 1;

interface Near {
  readonly from: Uint32Array;
  readonly to: Uint32Array;
}

function neighbours({ triangles, positions }: MasterFace): Near {
  const points = positions.length / 3;
  const from = new Uint32Array(points + 1);
  for (let c = 0; c < triangles.length; c++) from[triangles[c]! + 1]! += 2;
  for (let i = 0; i < points; i++) from[i + 1]! += from[i]!;
  const at = from.slice(0, points);
  const to = new Uint32Array(triangles.length * 2);
  for (let t = 0; t < triangles.length; t += 3)
    for (let c = 0; c < 3; c++) {
      const i = triangles[t + c]!;
      to[at[i]!++] = triangles[t + ((c + 1) % 3)]!;
      to[at[i]!++] = triangles[t + ((c + 2) % 3)]!;
    }
  return { from, to };
}

/** How much the face about each point looks up. */
function upwardAt({ triangles, normals, areas, count }: MasterFace, up: Vec3, points: number): Float64Array {
  const out = new Float64Array(points);
  for (let t = 0; t < count; t++) {
    const k = 3 * t;
    const lean = (normals[k]! * up[0] + normals[k + 1]! * up[1] + normals[k + 2]! * up[2]) * areas[t]!;
    for (let c = 0; c < 3; c++) out[triangles[k + c]!]! += lean;
  }
  return out;
}

export interface Pour {
  readonly up: Vec3;
  readonly traps: readonly Trap[];
  /** To pour through: one at the top of every cavity that is closed there. */
  readonly holes: number;
  /** For air besides. */
  readonly vents: number;
}

/** What is open needs neither; each cavity's highest place is poured through, the others let air out. */
export function pouredWith(up: Vec3, traps: readonly Trap[]): Pour {
  const closed = traps.filter((t) => !t.open);
  const holes = closed.filter(isTop).length;
  return { up, traps, holes, vents: closed.length - holes };
}

/** The highest place of its cavity. */
const isTop = (trap: Trap): boolean => trap.height === Infinity;

/**
 * The way to stand it while it is poured: fewest holes through the mould, then turned over from how it stood. Ways are
 * told apart on `rough`, the same face in fewer triangles; the best of them are gone through on the whole.
 */
export function* bestPour(face: MasterFace, rough: MasterFace): Generator<number, Pour, undefined> {
  const all = drawDirections().slice(0, firstSubdivision);
  if (rough === face) return (yield* poured(face, all, 0, 1))[0]!;
  const told = yield* poured(rough, all, 0, 0.6);
  return (yield* poured(
    face,
    told.slice(0, looksCloser).map((p) => p.up),
    0.6,
    1,
  ))[0]!;
}

function* poured(
  face: MasterFace,
  ways: readonly Vec3[],
  from: number,
  to: number,
): Generator<number, Pour[], undefined> {
  const out: Pour[] = [];
  const near = neighbours(face);
  for (const [i, up] of ways.entries()) {
    out.push(pouredWith(up, airTraps(face, up, near)));
    if (i % 4 === 3) yield from + (to - from) * (i / ways.length);
  }
  const through = (w: Pour) => w.holes + w.vents;
  return out.sort((a, b) => through(a) - through(b) || a.up[2] - b.up[2]);
}

/** Of the ways that are told apart roughly. */
const looksCloser = 8;

/** Corners and middles of the edges of an icosahedron: 42 directions, the axes among them. */
const firstSubdivision = 42;
