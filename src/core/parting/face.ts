import { edgesOf, measureTriangles, type TriangleMesh } from '../form';
import { failure, success, type Result } from '../quantity';

/**
 * The face a mould is taken of: triangles with what is asked of each again and again. Those it stands on, or that bear no
 * clay, are left out of every piece, and still stand in the way of what is drawn. SI, outward normals.
 */
export interface MasterFace {
  readonly positions: Float32Array;
  readonly triangles: Uint32Array;
  readonly count: number;
  /** Three a triangle. */
  readonly normals: Float32Array;
  readonly centres: Float32Array;
  readonly areas: Float64Array;
  /** No mould lies there: it stands on the board, or bears no clay. */
  readonly stands: Uint8Array;
  /** "No seam here". */
  readonly kept: Uint8Array;
  readonly seams: Seams;
  /** Without what it stands on, m2. */
  readonly area: number;
  readonly medianEdge: number;
  readonly diagonal: number;
  readonly low: readonly [number, number, number];
  readonly high: readonly [number, number, number];
}

/** Edges between two triangles that both lie under the mould. */
export interface Seams {
  readonly count: number;
  /** Triangles on its sides. */
  readonly one: Uint32Array;
  readonly other: Uint32Array;
  readonly from: Uint32Array;
  readonly to: Uint32Array;
  readonly length: Float64Array;
  /** Its length as a seam costs: dear on what was painted, cheap along an edge of the form. */
  readonly cost: Float64Array;
}

export interface FaceOptions {
  /** Height of the board; null for a piece that hangs free. */
  readonly board: number | null;
  /** By triangle: no seam is wanted there. */
  readonly kept?: Uint8Array;
  /** By triangle: what no clay lies on, and no mould is taken of. */
  readonly bare?: Uint8Array;
}

/** A seam over what is to be kept free of it is worth this many times its length of detour. */
export const keptFree = 30;
/** Along an outward edge of the form a seam is hidden, and cleaned off with ease. */
const alongAnEdge = 0.5,
  edgeTurns = Math.cos((30 * Math.PI) / 180);
/** More of them tell nothing that a caster could follow. */
export const mostTrianglesParted = 120_000;

/** `mesh` closed and welded. Fails where it has no face, or too many triangles for an answer in seconds. */
export function masterFace(mesh: TriangleMesh, { board, kept, bare }: FaceOptions): Result<MasterFace> {
  const { positions, triangles } = mesh;
  const count = triangles.length / 3;
  if (count === 0) return failure('nothing-there', 'the face', 'there is nothing to take a mould of');
  if (count > mostTrianglesParted)
    return failure('too-large', 'the face', `it has ${count} triangles; up to ${mostTrianglesParted} are parted`);
  const { normals, centres, areas } = measureTriangles(mesh);
  const low: [number, number, number] = [Infinity, Infinity, Infinity],
    high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < positions.length; i++) {
    low[(i % 3) as 0] = Math.min(low[(i % 3) as 0], positions[i]!);
    high[(i % 3) as 0] = Math.max(high[(i % 3) as 0], positions[i]!);
  }
  const edges = edgesOf(mesh);
  const lengths = new Float64Array(edges.count).map((_, e) =>
    between(positions, edges.ends[2 * e]!, edges.ends[2 * e + 1]!),
  );
  const medianEdge = lengths.slice().sort()[edges.count >> 1]!;
  const diagonal = Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  if (!(diagonal > 0 && medianEdge > 0)) return failure('no-size', 'the face', 'all its points are in one place');
  const stands = standingOn({ normals, centres, areas, count, medianEdge }, board);
  if (bare) for (let t = 0; t < count; t++) if (bare[t]) stands[t] = 1;
  const keptHere = kept ?? new Uint8Array(count);
  const seams = seamsOf(mesh, edges, lengths, { normals, centres, stands, kept: keptHere });
  let area = 0;
  for (let t = 0; t < count; t++) if (!stands[t]) area += areas[t]!;
  const known = { positions, triangles, count, normals, centres, areas, stands, kept: keptHere };
  return success({ ...known, seams, area, medianEdge, diagonal, low, high });
}

function between(p: Float32Array, a: number, b: number): number {
  return Math.hypot(p[3 * a]! - p[3 * b]!, p[3 * a + 1]! - p[3 * b + 1]!, p[3 * a + 2]! - p[3 * b + 2]!);
}

/** A face that stands is flat, and more of it than what of a ball is nearly level. */
const flat = -0.998,
  leastFlat = 0.005;

/** What looks straight down within half an edge's length of the board, where that is enough to stand on. */
function standingOn(
  face: Pick<MasterFace, 'normals' | 'centres' | 'areas' | 'count' | 'medianEdge'>,
  board: number | null,
): Uint8Array {
  const stands = new Uint8Array(face.count);
  if (board === null) return stands;
  let standing = 0,
    all = 0;
  for (let t = 0; t < face.count; t++) {
    all += face.areas[t]!;
    if (face.normals[3 * t + 2]! > flat || face.centres[3 * t + 2]! > board + face.medianEdge / 2) continue;
    stands[t] = 1;
    standing += face.areas[t]!;
  }
  return standing < leastFlat * all ? stands.fill(0) : stands;
}

function seamsOf(
  { positions, triangles }: TriangleMesh,
  edges: ReturnType<typeof edgesOf>,
  lengths: Float64Array,
  face: Pick<MasterFace, 'normals' | 'centres' | 'stands' | 'kept'>,
): Seams {
  const first = new Int32Array(edges.count).fill(-1);
  const one: number[] = [],
    other: number[] = [],
    from: number[] = [],
    to: number[] = [],
    length: number[] = [],
    cost: number[] = [];
  for (let corner = 0; corner < triangles.length; corner++) {
    const e = edges.ofCorner[corner]!,
      t = Math.floor(corner / 3);
    const s = first[e]!;
    if (s < 0) {
      first[e] = t;
      continue;
    }
    if (s === t || face.stands[s] || face.stands[t]) continue;
    one.push(s);
    other.push(t);
    from.push(edges.ends[2 * e]!);
    to.push(edges.ends[2 * e + 1]!);
    length.push(lengths[e]!);
    const dear = face.kept[s] || face.kept[t] ? keptFree : 1;
    cost.push(lengths[e]! * dear * (isOutwardEdge(face, s, t, positions, edges.ends[2 * e]!) ? alongAnEdge : 1));
  }
  return {
    count: one.length,
    one: Uint32Array.from(one),
    other: Uint32Array.from(other),
    from: Uint32Array.from(from),
    to: Uint32Array.from(to),
    length: Float64Array.from(length),
    cost: Float64Array.from(cost),
  };
}

/** Two triangles that turn from each other by 30 degrees or more, outward. */
function isOutwardEdge(
  { normals: n, centres: c }: Pick<MasterFace, 'normals' | 'centres'>,
  s: number,
  t: number,
  p: Float32Array,
  point: number,
): boolean {
  const turn = n[3 * s]! * n[3 * t]! + n[3 * s + 1]! * n[3 * t + 1]! + n[3 * s + 2]! * n[3 * t + 2]!;
  if (turn > edgeTurns) return false;
  let below = 0;
  for (let k = 0; k < 3; k++) below += n[3 * s + k]! * (c[3 * t + k]! - p[3 * point + k]!);
  return below < 0;
}
