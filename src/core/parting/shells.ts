import { flangeAbout } from '../mould';
import { surfaceNet, type TriangleMesh } from '../form';
import { failure, success, type Result, type Vec3 } from '../quantity';
import type { MasterFace } from './face';
import type { Parting } from './parting';
import { NearTriangles, type TriangleList } from './near-triangles';
import type { Working } from './search';

/**
 * The hard parts of a mould as closed bodies, to be printed: a wall over each part's face, beyond the skin where there is
 * one, turned out along the seams, keyed to its neighbours, cut level at the board. Each is where a function of place is
 * below zero; its face is found by `surfaceNet`.
 */
export interface ShellAsked {
  /** Metres of skin that lies between; nought for a wall right on the face. */
  readonly skin: number;
  readonly shell: number;
  /** Height of the board; null for a piece that hangs free. */
  readonly board: number | null;
}

export interface ShellPart extends TriangleMesh {
  /** Index of the part. */
  readonly part: number;
}

export interface Shells {
  readonly parts: readonly ShellPart[];
  readonly keys: readonly Key[];
  /** Metres: what is finer is not in them. */
  readonly step: number;
}

/** Points of the lattice about the walls: more take longer than they show. */
const mostAsked = 250_000;
const coarsest = 0.006,
  finest = 0.0008;
/** Round a key its seat is so much wider, metres, or it would not go in. */
const play = 0.0003;
const keyEvery = 0.1;
/** Points along a block, and along those that are looked at first: a block is halved until it is small. */
const blockSide = 4,
  largest = 64;

/** Fails for a mould that has no hard wall, or in one part that could never come off. */
export function checkShells(parting: Parting, { shell }: ShellAsked, stands: Uint8Array): Result<true> {
  if (!(shell > 0)) return failure('no-shell', 'shell', 'this mould has no hard wall');
  if (parting.pieces.length < 2 && parting.behind === null && !stands.includes(1))
    return failure('one-part', 'parts', 'one hard part all round never comes off: make it in two or more');
  return success(true);
}

/** `points`: of the lattice, about. */
export function* shellsOf(face: MasterFace, parting: Parting, asked: ShellAsked, points = mostAsked): Working<Shells> {
  const { skin, shell, board } = asked;
  const flange = flangeAbout(shell);
  const reach = skin + shell + flange.width;
  const count = parting.pieces.length;
  // The parts' own, and last what no mould lies on.
  const sets = Array.from({ length: count + 1 }, (_, i) => new NearTriangles(face, (t) => ownerOf(t) === i));
  const step = stepFor(face, reach, skin + shell, points);
  const low = face.low.map((v) => v - reach - 2 * step) as [number, number, number];
  if (board !== null) low[2] = Math.max(low[2], board - 2 * step);
  const size = face.high.map((v, k) => Math.ceil((v + reach + 2 * step - low[k]!) / step) + 1);
  const lattice = new Blocks(size, count);
  const keys = count > 1 ? keysAlong(parting, face, skin + shell + flange.width / 2, sets.slice(0, count)) : [];
  const body = new Body(sets, { ...asked, ...flange, reach, keys });
  yield 0.02;
  const everything = sets.map((set) => set.all);
  const many = lattice.blocks.map((b) => Math.ceil((b * blockSide) / largest));
  for (let z = 0; z < many[2]!; z++)
    for (let y = 0; y < many[1]!; y++) {
      for (let x = 0; x < many[0]!; x++) fill([x, y, z], largest, everything);
      yield 0.02 + (0.78 * (z + (y + 1) / many[1]!)) / many[2]!;
    }
  const parts: ShellPart[] = [];
  for (let i = 0; i < count; i++) {
    const { positions, triangles } = surfaceNet({
      size: lattice.blocks.map((b) => b * blockSide) as [number, number, number],
      origin: low,
      step,
      value: (x, y, z) => lattice.value(i, x, y, z),
      eachCell: (see) => lattice.each(see),
    });
    parts.push({ part: i, positions, triangles });
    yield 0.8 + (0.2 * (i + 1)) / count;
  }
  return { parts, keys, step };

  function ownerOf(t: number): number {
    return face.stands[t] ? count : Math.min(count, parting.labels[t]!);
  }

  function fill(block: Vec3, side: number, lists: readonly TriangleList[]): void {
    if (block.some((v, i) => v * side >= lattice.blocks[i]! * blockSide)) return;
    const near = look(lists, block, side);
    if (!near || near.asked === null) return;
    if (side > blockSide) {
      for (let k = 0; k < 8; k++)
        fill([2 * block[0] + (k & 1), 2 * block[1] + ((k >> 1) & 1), 2 * block[2] + (k >> 2)], side / 2, near.lists);
      return;
    }
    const { asked: only } = near;
    // Eight points have fewer to choose from than sixty-four.
    const eighths = Array.from({ length: 8 }, (_, k) => eighth(block, k, near.lists, only));
    lattice.fill(block, (x, y, z) => {
      const k = ((x >> 1) & 1) | (((y >> 1) & 1) << 1) | (((z >> 1) & 1) << 2);
      return body.at(low[0] + x * step, low[1] + y * step, low[2] + z * step, eighths[k]!, only);
    });
  }

  function eighth(block: Vec3, k: number, lists: readonly TriangleList[], only: number | 'all'): TriangleList[] {
    const middle = [k & 1, (k >> 1) & 1, k >> 2].map(
      (half, i) => low[i]! + (block[i]! * blockSide + 2 * half + 0.5) * step,
    ) as [number, number, number];
    return sets.map((set, i) => {
      const list = lists[i]!;
      if (list.length === 0 || (only !== 'all' && only !== i)) return noTriangles;
      return set.thinned(list, ...middle, set.distance(list, ...middle), (Math.sqrt(3) / 2) * step);
    });
  }

  /**
   * What can be nearest within a block, and what is to be asked there: one part alone where its border is further off than
   * its flange is thick, null where that has no wall there, else all. Nothing where no wall comes at all.
   */
  function look(
    lists: readonly TriangleList[],
    block: Vec3,
    side: number,
  ): { readonly lists: TriangleList[]; readonly asked: number | 'all' | null } | null {
    const half = ((side - 1) * step) / 2;
    // With a layer of points past all that is inside, so that no face runs into a block that was left out.
    const radius = half * Math.sqrt(3) + step;
    const middle = block.map((b, k) => low[k]! + b * side * step + half) as [number, number, number];
    const most = reach + flange.thickness + 2 * radius;
    const far = sets.map((s, i) => s.distance(lists[i]!, ...middle, most));
    const near = Math.min(...far);
    if (near > reach + radius) return null;
    const thinned = sets.map((s, i) =>
      far[i]! < Infinity ? s.thinned(lists[i]!, ...middle, far[i]!, radius - step) : noTriangles,
    );
    const own = far.indexOf(near);
    const other = Math.min(most, ...far.filter((_, i) => i !== own)) - radius;
    const alone = other > 0 && other ** 2 - (near + radius) ** 2 > (flange.thickness + step) ** 2;
    const walled = own < count && near <= skin + shell + radius;
    return { lists: thinned, asked: alone ? (walled ? own : null) : 'all' };
  }
}

const noTriangles: TriangleList = new Int32Array(0);

function stepFor({ area }: MasterFace, reach: number, wall: number, points: number): number {
  // The wall, with a layer of points about it, and the flanges with theirs.
  const volume = area * (wall + 0.3 * reach);
  return Math.min(coarsest, Math.max(finest, Math.cbrt(volume / points)));
}

/** A round key on the seam between two parts. */
export interface Key {
  readonly at: Vec3;
  /** The part it stands on, and the one it goes into. */
  readonly of: number;
  readonly into: number;
}

/** Half way out on the flange, one every ten centimetres of each seam between two parts. */
function keysAlong(parting: Parting, face: MasterFace, out: number, parts: readonly NearTriangles[]): Key[] {
  const keys: Key[] = [];
  for (const line of parting.lines) {
    const many = Math.max(line.closed ? 3 : 1, Math.round(line.length / keyEvery));
    for (let k = 0; k < many; k++) {
      const found = alongLine(line.points, ((k + 0.5) / many) * line.length);
      const n = normalNear(face, found);
      const at = found.map((v, i) => v + out * n[i]!) as unknown as Vec3;
      const far = parts.map((p, i) => ({ i, d: p.distance(p.all, ...at, 4 * out) })).sort((a, b) => a.d - b.d);
      const [one, other] = [far[0], far[1]];
      // Where the seam's own neighbours are not what is nearest, two flanges would run into each other.
      if (!one || !other || !Number.isFinite(other.d) || other.d - one.d > 0.25 * out) continue;
      keys.push({ at, of: Math.min(one.i, other.i), into: Math.max(one.i, other.i) });
    }
  }
  return keys;
}

function alongLine(points: readonly Vec3[], length: number): Vec3 {
  let left = length;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const own = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
    if (left <= own && own > 0)
      return [0, 1, 2].map((k) => a[k as 0] + (left / own) * (b[k as 0] - a[k as 0])) as never;
    left -= own;
  }
  return points[points.length - 1]!;
}

/** The way the face looks about a place on it: of all triangles within three edges, by their size. */
function normalNear({ centres, normals, areas, count, medianEdge }: MasterFace, at: Vec3): Vec3 {
  const sum: [number, number, number] = [0, 0, 0];
  const within = (3 * medianEdge) ** 2;
  for (let t = 0; t < count; t++) {
    const d = (centres[3 * t]! - at[0]) ** 2 + (centres[3 * t + 1]! - at[1]) ** 2 + (centres[3 * t + 2]! - at[2]) ** 2;
    if (d <= within) for (const k of [0, 1, 2] as const) sum[k] += areas[t]! * normals[3 * t + k]!;
  }
  const l = Math.hypot(...sum) || 1;
  return [sum[0] / l, sum[1] / l, sum[2] / l];
}

interface BodyAsked extends ShellAsked {
  readonly width: number;
  readonly thickness: number;
  readonly keyAcross: number;
  readonly reach: number;
  readonly keys: readonly Key[];
}

/** Of each part at a place: below zero inside it. Metres from its faces, near them. */
class Body {
  private readonly out: Float64Array;
  private readonly away: Float64Array;

  /** `sets`: the faces of the parts, and last what no mould lies on. */
  constructor(
    private readonly sets: readonly NearTriangles[],
    private readonly asked: BodyAsked,
  ) {
    this.out = new Float64Array(sets.length - 1);
    this.away = new Float64Array(sets.length);
  }

  /** `only`: the one part it can be in, or all. */
  at(x: number, y: number, z: number, lists: readonly TriangleList[], only: number | 'all'): Float64Array {
    const { out, asked } = this;
    if (only === 'all') this.ofAll(x, y, z, lists);
    else {
      const set = this.sets[only]!;
      const far = set.distance(lists[only]!, x, y, z);
      const height = set.behind(x, y, z) ? -far : far;
      out.fill(1);
      out[only] = Math.max(asked.skin - height, height - asked.skin - asked.shell);
    }
    if (asked.board !== null) for (let i = 0; i < out.length; i++) out[i] = Math.max(out[i]!, asked.board - z);
    return out;
  }

  private ofAll(x: number, y: number, z: number, lists: readonly TriangleList[]): void {
    const { sets, away, out } = this;
    const { skin, shell, width, thickness } = this.asked;
    let nearest = Infinity,
      inside = false;
    for (let i = 0; i < sets.length; i++) {
      const set = sets[i]!;
      const d = lists[i]!.length > 0 ? set.distance(lists[i]!, x, y, z) : Infinity;
      away[i] = d;
      if (d < nearest) {
        nearest = d;
        inside = set.behind(x, y, z);
      }
    }
    const height = inside ? -nearest : nearest;
    const free = away[out.length]!;
    for (let i = 0; i < out.length; i++) {
      let others = Infinity;
      for (let j = 0; j < out.length; j++) if (j !== i) others = Math.min(others, away[j]!);
      const pastOthers = past(away[i]!, others);
      const within = Math.max(skin - height, pastOthers, past(away[i]!, free));
      const wall = height - skin - shell;
      // Only so far in from the seam.
      const flange = others < Infinity ? Math.max(wall - width, -pastOthers - thickness) : Infinity;
      out[i] = this.keyed(i, x, y, z, Math.max(within, Math.min(wall, flange)));
    }
  }

  private keyed(part: number, x: number, y: number, z: number, value: number): number {
    const { keys, keyAcross } = this.asked;
    let s = value;
    for (const key of keys) {
      if (key.of !== part && key.into !== part) continue;
      const far = Math.hypot(x - key.at[0], y - key.at[1], z - key.at[2]);
      s = key.of === part ? Math.min(s, far - keyAcross / 2) : Math.max(s, keyAcross / 2 + play - far);
    }
    return s;
  }
}

/**
 * How far past the border of what is nearer to one face than to another: at height h over a border it is h from its own and
 * the root of h2 + x2 from the other's, on either side.
 */
function past(own: number, other: number): number {
  if (own === Infinity) return 1;
  if (other === Infinity) return -1;
  const squares = own * own - other * other;
  return Math.sign(squares) * Math.sqrt(Math.abs(squares));
}

/** Values of every part on a lattice, in blocks of which only those near a wall are kept. */
class Blocks {
  readonly blocks: readonly [number, number, number];
  private readonly slots: Int32Array;
  private readonly kept: Float32Array[] = [];

  constructor(
    size: readonly number[],
    private readonly parts: number,
  ) {
    this.blocks = size.map((v) => Math.ceil(v / blockSide)) as [number, number, number];
    this.slots = new Int32Array(this.blocks[0] * this.blocks[1] * this.blocks[2]).fill(-1);
  }

  private index(bx: number, by: number, bz: number): number {
    return bx + this.blocks[0] * (by + this.blocks[1] * bz);
  }

  fill([bx, by, bz]: Vec3, evaluate: (x: number, y: number, z: number) => Float64Array): void {
    const block = new Float32Array(blockSide ** 3 * this.parts);
    let at = 0;
    for (let z = 0; z < blockSide; z++)
      for (let y = 0; y < blockSide; y++)
        for (let x = 0; x < blockSide; x++, at++) {
          const own = evaluate(bx * blockSide + x, by * blockSide + y, bz * blockSide + z);
          for (let i = 0; i < this.parts; i++) block[at * this.parts + i] = own[i]!;
        }
    this.slots[this.index(bx, by, bz)] = this.kept.push(block) - 1;
  }

  /** Outside wherever nothing is kept. */
  value(part: number, x: number, y: number, z: number): number {
    const [nx, ny, nz] = this.blocks;
    const bx = Math.floor(x / blockSide),
      by = Math.floor(y / blockSide),
      bz = Math.floor(z / blockSide);
    if (bx < 0 || by < 0 || bz < 0 || bx >= nx || by >= ny || bz >= nz) return 1;
    const slot = this.slots[this.index(bx, by, bz)]!;
    if (slot < 0) return 1;
    const at = x - bx * blockSide + blockSide * (y - by * blockSide + blockSide * (z - bz * blockSide));
    return this.kept[slot]![at * this.parts + part]!;
  }

  each(see: (x: number, y: number, z: number) => void): void {
    const [nx, ny, nz] = this.blocks;
    for (let bz = 0; bz < nz; bz++)
      for (let by = 0; by < ny; by++)
        for (let bx = 0; bx < nx; bx++) {
          if (this.slots[this.index(bx, by, bz)]! < 0) continue;
          for (let z = 0; z < blockSide; z++)
            for (let y = 0; y < blockSide; y++)
              for (let x = 0; x < blockSide; x++) see(bx * blockSide + x, by * blockSide + y, bz * blockSide + z);
        }
  }
}
