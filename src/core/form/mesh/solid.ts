import { failure, success, type Range, type Result } from '../../quantity';
import { dropCrumbs, fillCavities, outerFaces, windingInside, type Lump } from './inside';
import { latticeFor, latticeIndex, latticePlace, latticeSize, type Lattice } from './lattice';
import { withLids, type Opening } from './lids';
import { sizeOfMesh } from './measure-mesh';
import { mendMesh } from './mend';
import { nearestFaces } from './nearest-face';
import type { Progress, TriangleMesh } from './triangle-mesh';

const { floor, hypot, max, min, PI, round, sqrt } = Math;

/** What a mesh encloses, as places of a lattice and the face about them. */
export interface MeshSolid {
  readonly lattice: Lattice;
  readonly inside: Uint8Array;
  /** The faces that part inside from outside, with what was put across holes. */
  readonly surface: TriangleMesh;
  /** Closed, each face where inside meets outside: nothing was added or left out. */
  readonly clean: boolean;
  /** Cubed unit of the mesh. Its range is nought where it is clean. */
  readonly volume: Range;
  /** Share of the inside that is in doubt. */
  readonly unsure: number;
  /** Share of the solid that was hollow and open to one side, and was filled. */
  readonly filled: number;
  /** Openings that were closed across, largest first. */
  readonly openings: readonly Opening[];
  /** Pieces that hang together with nothing else, largest first; and how many crumbs were left out. */
  readonly lumps: readonly Lump[];
  readonly crumbs: number;
  readonly facesTurned: number;
  readonly doubled: number;
  readonly openEdges: number;
  readonly crowdedEdges: number;
}

export interface SolidOptions {
  /** Whether a hollow that is open at one end is filled: a skin scanned from outside is, a pot is not. */
  readonly fillHollow?: boolean;
  readonly progress?: Progress;
}

/** More doubt than this and what it encloses would be invented. */
const mostUnsure = 0.1;
const nothingSure = 0.9;
/** A face is in reach of the nearest place along any row, slanting ones too. */
const wallReach = sqrt(3) / 2;

/** Finds what a mesh encloses, however it comes; `along`: places on its longest side. Fails with what is wrong, and where. */
export function solidOfMesh(given: TriangleMesh, along: number, options: SolidOptions = {}): Result<MeshSolid> {
  const mended = mendMesh(given);
  if (!mended.ok) return mended;
  const { mesh, ...report } = mended.value;
  const lattice = latticeFor(mesh, along);
  const { inside, doubt, filled, overlaps, openings, mesh: faces } = insideOf(mesh, lattice, options);
  const closed = report.openEdges === 0 && report.crowdedEdges === 0;
  const cavities = fillCavities(inside, lattice);
  const { kept, dropped } = dropCrumbs(inside, lattice);
  const { sure, out, within, at } = doubtsOf(inside, doubt, lattice);
  const count = sure + within;
  const unsure = (out + within) / max(1, count + out);
  if (closed && count === 0)
    return failure('no-inside', 'the mesh', 'it is so thin everywhere that no cell of it comes to lie inside');
  if (unsure > nothingSure || (!closed && !hasDepth(inside, lattice)))
    return failure('no-inside', 'the mesh', 'its faces do not go round anything: it encloses nothing');
  if (unsure > mostUnsure) {
    const place = at.map((v) => Number(v.toPrecision(3))).join(', ');
    return failure(
      'no-inside',
      'the mesh',
      `for ${round(unsure * 100)} % of it inside and outside cannot be told apart, most of that about ${place} in its own unit: too much of its face is missing there. Scan that side again, or close it where it was made`,
    );
  }
  const cell = lattice.step ** 3;
  const clean = closed && filled === 0 && cavities === 0 && dropped === 0 && !overlaps;
  const surface = clean ? mesh : parting(faces, lattice, inside);
  // A lid may bulge in or out by an eighth of its breadth: a cap as high as that holds half its base times it.
  const bulge = openings.reduce((sum, { area }) => sum + (area * sqrt(area / PI)) / 8, 0);
  options.progress?.(1);
  return success({
    ...report,
    lattice,
    inside,
    surface,
    clean,
    unsure,
    filled: filled / count,
    openings,
    lumps: kept,
    crumbs: dropped,
    volume: clean
      ? exactly(sizeOfMesh(mesh).volume)
      : { low: max(0, sure * cell - bulge), nominal: count * cell, high: (count + out) * cell + bulge },
  });
}

/** As the mesh goes round it, each opening closed; where it is a skin about a hollow, as its outer faces do. */
function insideOf(mesh: TriangleMesh, lattice: Lattice, { fillHollow, progress }: SolidOptions) {
  const told = (from: number) => (progress ? { progress: (s: number) => progress(from + s * 0.4) } : {});
  const closed = withLids(mesh);
  const whole = windingInside(closed.mesh, lattice, told(0));
  const asItIs = { ...whole, ...closed, filled: 0 };
  if (fillHollow === false) return asItIs;
  const { away } = nearestFaces(mesh, lattice, true);
  // What lies close about a face is wall, as what is inside is.
  const wall = whole.inside.map((v, i) => (v || away[i]! < wallReach * lattice.step ? 1 : 0));
  const outer = outerFaces(mesh, wall, lattice);
  if (!outer) return asItIs;
  const lidded = withLids(outer);
  const found = windingInside(lidded.mesh, lattice, told(0.4));
  let filled = 0;
  for (let i = 0; i < wall.length; i++)
    if (whole.inside[i]) {
      found.inside[i] = 1;
      found.doubt[i] = 0;
    } else filled += found.inside[i]!;
  return { ...found, ...lidded, filled };
}

/**
 * The pieces of a welded mesh that lie about what it encloses, and how many do not: crumbs are nothing to stand on, and add
 * no height.
 * A whisker too thin for any place to lie in it stays with the piece that it grows from.
 */
export function withoutCrumbs(
  mesh: TriangleMesh,
  { lattice, inside }: MeshSolid,
): { readonly mesh: TriangleMesh; readonly crumbs: number } {
  const { positions: p, triangles: t } = mesh;
  const { cells, step, from } = lattice;
  const parent = Int32Array.from({ length: p.length / 3 }, (_, v) => v);
  const pieceOf = (v: number): number => {
    let at = v;
    while (parent[at] !== at) at = parent[at] = parent[parent[at]!]!;
    return at;
  };
  for (let f = 0; f < t.length; f += 3) for (let k = 1; k < 3; k++) parent[pieceOf(t[f + k]!)] = pieceOf(t[f]!);
  const near = new Uint8Array(parent.length);
  for (let v = 0; v < parent.length; v++) {
    const piece = pieceOf(v);
    const [x, y, z] = [0, 1, 2].map((k) => round((p[v * 3 + k]! - from[k as 0]) / step)) as [number, number, number];
    for (let dz = -1; dz <= 1 && !near[piece]; dz++)
      for (let dy = -1; dy <= 1 && !near[piece]; dy++)
        for (let dx = -1; dx <= 1 && !near[piece]; dx++)
          near[piece] = inside[x + dx + cells[0] * (y + dy + cells[1] * (z + dz))] ?? 0;
  }
  const kept = near.map((_, v) => near[pieceOf(v)]!);
  const gone = new Set<number>();
  for (let f = 0; f < t.length; f += 3) if (!kept[t[f]!]) gone.add(pieceOf(t[f]!));
  return {
    mesh: { positions: p.filter((_, i) => kept[floor(i / 3)]), triangles: renumbered(t, kept) },
    crumbs: gone.size,
  };
}

function renumbered(t: Uint32Array, kept: Uint8Array): Uint32Array {
  let n = 0;
  const to = Uint32Array.from(kept, (k) => (k ? n++ : 0));
  const out: number[] = [];
  for (let f = 0; f < t.length; f += 3)
    if (kept[t[f]!] && kept[t[f + 1]!] && kept[t[f + 2]!]) out.push(to[t[f]!]!, to[t[f + 1]!]!, to[t[f + 2]!]!);
  return Uint32Array.from(out);
}

/** Whether any place inside has all its neighbours inside: a sheet has none. */
function hasDepth(inside: Uint8Array, { cells: [nx, ny] }: Lattice): boolean {
  const steps = [1, -1, nx, -nx, nx * ny, -nx * ny];
  return inside.some((v, i) => v === 1 && steps.every((s) => inside[i + s] === 1));
}

/** Places that are inside for sure; those in doubt, taken for inside and for outside; and the middle of the doubt. */
function doubtsOf(inside: Uint8Array, doubt: Uint8Array, lattice: Lattice) {
  let sure = 0,
    out = 0,
    within = 0;
  const at = [0, 0, 0];
  for (let i = 0; i < inside.length; i++) {
    if (!doubt[i]) sure += inside[i]!;
    else {
      if (inside[i]) within++;
      else out++;
      latticePlace(lattice, i).forEach((v, k) => (at[k]! += v));
    }
  }
  return { sure, out, within, at: at.map((v) => v / max(1, out + within)) };
}

const exactly = (v: number): Range => ({ low: v, nominal: v, high: v });

/** The faces with inside behind them and outside before, and flat pieces across what they leave open. */
function parting(mesh: TriangleMesh, lattice: Lattice, inside: Uint8Array): TriangleMesh {
  const { positions: p, triangles: t } = mesh;
  const kept: number[] = [];
  for (let f = 0; f < t.length; f += 3) if (parts(p, t, f, lattice, inside)) kept.push(t[f]!, t[f + 1]!, t[f + 2]!);
  const open = { positions: p, triangles: Uint32Array.from(kept) };
  const { away } = nearestFaces(open, lattice, true);
  return withCaps(open, lattice, inside, away);
}

/** How far on either side of a face inside and outside are looked for, in steps. */
const lookAside = 1;

/** Whether a face looks outward from the inside, at its middle or between that and a corner. */
function parts(p: Float32Array, t: Uint32Array, f: number, lattice: Lattice, inside: Uint8Array): boolean {
  const a = t[f]! * 3,
    b = t[f + 1]! * 3,
    c = t[f + 2]! * 3;
  const ux = p[b]! - p[a]!,
    uy = p[b + 1]! - p[a + 1]!,
    uz = p[b + 2]! - p[a + 2]!;
  const vx = p[c]! - p[a]!,
    vy = p[c + 1]! - p[a + 1]!,
    vz = p[c + 2]! - p[a + 2]!;
  const nx = uy * vz - uz * vy,
    ny = uz * vx - ux * vz,
    nz = ux * vy - uy * vx;
  const k = (lookAside * lattice.step) / (hypot(nx, ny, nz) || 1);
  for (let corner = -1; corner < 3; corner++) {
    const wa = corner < 0 ? 1 / 3 : corner === 0 ? 2 / 3 : 1 / 6,
      wb = corner < 0 ? 1 / 3 : corner === 1 ? 2 / 3 : 1 / 6;
    const wc = 1 - wa - wb;
    const x = p[a]! * wa + p[b]! * wb + p[c]! * wc,
      y = p[a + 1]! * wa + p[b + 1]! * wb + p[c + 1]! * wc,
      z = p[a + 2]! * wa + p[b + 2]! * wb + p[c + 2]! * wc;
    const before = shareInside(lattice, inside, x + k * nx, y + k * ny, z + k * nz) > 0.5,
      behind = shareInside(lattice, inside, x - k * nx, y - k * ny, z - k * nz) > 0.5;
    if (behind && !before) return true;
  }
  return false;
}

/** Between the eight places about one: 1 where all are inside. */
function shareInside(lattice: Lattice, inside: Uint8Array, x: number, y: number, z: number): number {
  const { cells, step, from } = lattice;
  const u = [(x - from[0]) / step, (y - from[1]) / step, (z - from[2]) / step].map((v, k) =>
    min((cells[k as 0] as number) - 1.001, max(0, v)),
  ) as [number, number, number];
  const i = u.map(floor) as [number, number, number];
  let sum = 0;
  for (let c = 0; c < 8; c++) {
    const dx = c & 1,
      dy = (c >> 1) & 1,
      dz = c >> 2;
    const w =
      (dx ? u[0] - i[0] : 1 - u[0] + i[0]) *
      (dy ? u[1] - i[1] : 1 - u[1] + i[1]) *
      (dz ? u[2] - i[2] : 1 - u[2] + i[2]);
    sum += w * inside[latticeIndex(lattice, i[0] + dx, i[1] + dy, i[2] + dz)]!;
  }
  return sum;
}

/** Inside meets outside with no face this near, in steps: a hole, and a piece is put across it. */
const uncovered = 0.55;

/** A square of two triangles across each bare step from inside to outside, its corners in the cubes about that step. */
function withCaps(mesh: TriangleMesh, lattice: Lattice, inside: Uint8Array, away: Float32Array): TriangleMesh {
  const { cells, step, from } = lattice;
  const [nx, ny, nz] = cells;
  const along = [1, nx, nx * ny];
  const soft = softened(inside, lattice);
  const positions: number[] = [];
  const triangles: number[] = [];
  const corners = new Map<number, number>();
  const first = mesh.positions.length / 3;
  // The middle of where the edges of a cube cross from inside to outside.
  const cornerOf = (cube: number): number => {
    const known = corners.get(cube);
    if (known !== undefined) return known;
    const x = cube % nx,
      y = floor(cube / nx) % ny,
      z = floor(cube / (nx * ny));
    const sum = [0, 0, 0];
    let n = 0;
    for (let k = 0; k < 3; k++)
      for (let c = 0; c < 4; c++) {
        const at = [0, 0, 0];
        at[(k + 1) % 3] = c & 1;
        at[(k + 2) % 3] = c >> 1;
        const i = cube + at[0]! + nx * (at[1]! + ny * at[2]!);
        const j = i + along[k]!;
        if (inside[i] === inside[j]) continue;
        const t = min(0.9, max(0.1, (0.5 - soft[i]!) / (soft[j]! - soft[i]!)));
        at[k] = Number.isFinite(t) ? t : 0.5;
        for (let q = 0; q < 3; q++) sum[q]! += at[q]!;
        n++;
      }
    const place = [x, y, z].map((v, q) => from[q as 0] + (v + sum[q]! / n) * step);
    positions.push(...place);
    corners.set(cube, first + positions.length / 3 - 1);
    return first + positions.length / 3 - 1;
  };
  for (let z = 1; z < nz - 1; z++)
    for (let y = 1; y < ny - 1; y++)
      for (let x = 1; x < nx - 1; x++) {
        const i = x + nx * (y + ny * z);
        for (let k = 0; k < 3; k++) {
          const j = i + along[k]!;
          if (inside[i] === inside[j] || min(away[i]!, away[j]!) <= uncovered * step) continue;
          const u = along[(k + 1) % 3]!,
            v = along[(k + 2) % 3]!;
          const square = [i, i - u, i - u - v, i - v].map(cornerOf) as [number, number, number, number];
          const [a, b, c, d] = inside[i] ? square : [square[3], square[2], square[1], square[0]];
          triangles.push(a, b, c, a, c, d);
        }
      }
  if (triangles.length === 0) return mesh;
  const all = new Float32Array(mesh.positions.length + positions.length);
  all.set(mesh.positions);
  all.set(positions, mesh.positions.length);
  const faces = new Uint32Array(mesh.triangles.length + triangles.length);
  faces.set(mesh.triangles);
  faces.set(triangles, mesh.triangles.length);
  return { positions: all, triangles: faces };
}

/** Each place with half of what its neighbours are, along each axis in turn, twice over. */
export function softened(inside: ArrayLike<number>, lattice: Lattice, times = 2): Float32Array {
  const [nx, ny] = lattice.cells;
  let now = Float32Array.from(inside);
  for (let n = 0; n < times; n++)
    for (const step of [1, nx, nx * ny]) {
      const next = now.slice();
      for (let i = step; i < latticeSize(lattice) - step; i++)
        next[i] = now[i]! / 2 + (now[i - step]! + now[i + step]!) / 4;
      now = next;
    }
  return now;
}
