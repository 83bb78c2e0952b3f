import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { dot, scale, unit, type Vec3 } from '../quantity';

/**
 * A mould that is open behind lies over one side of the piece, which lies on its back. Which side that is, and how much
 * of the face it is.
 */
export interface OpenSide {
  /** The way it is drawn. */
  readonly draw: Vec3;
  /** Of the face a mould may lie on, what looks that way. */
  readonly share: number;
}

/** A face by triangles: outward normals, three each, and m2. */
export interface FaceByTriangles {
  readonly normals: Float32Array;
  readonly areas: Float64Array;
  /** No mould lies there: it stands on the board, or bears no clay. */
  readonly stands: Uint8Array;
  /** A seam is least wanted there: it looks out of the mould. */
  readonly kept: Uint8Array;
}

/** Less than this from square to the way it is drawn, a face still comes off: the sine of two degrees. */
export const leansBack = Math.sin((2 * Math.PI) / 180);

/**
 * Square to what is broadest of it, about the way its face looks where it has one. Else the front is what looks away from
 * where it stands or bears nothing; else what looks up, or forward.
 */
export function openSide(face: FaceByTriangles): OpenSide {
  const looks = wayOf(face, (stands, kept) => kept && !stands);
  const draw = looks ? towards(face, looks) : frontOf(face, broadside(face));
  let seen = 0,
    all = 0;
  each(face, (n, area, stands) => {
    if (stands) return;
    all += area;
    if (dot(n, draw) > -leansBack) seen += area;
  });
  return { draw, share: all > 0 ? seen / all : 1 };
}

/** Broadside on, where that is near the way its face looks; a head is broader seen from the side, and faces forward. */
function towards(face: FaceByTriangles, looks: Vec3): Vec3 {
  const along = broadside(face);
  const near = dot(along, looks);
  return Math.abs(near) > Math.SQRT1_2 ? scale(along, Math.sign(near)) : looks;
}

/** The way that most of its face looks, or looks away from: of a plate, square to it. */
function broadside(face: FaceByTriangles): Vec3 {
  const sum = Matrix.zeros(3, 3);
  each(face, (n, area, stands) => {
    if (stands) return;
    for (const i of [0, 1, 2] as const)
      for (const k of [0, 1, 2] as const) sum.set(i, k, sum.get(i, k) + area * n[i] * n[k]);
  });
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(sum, { assumeSymmetric: true });
  const most = realEigenvalues.indexOf(Math.max(...realEigenvalues));
  return unit([0, 1, 2].map((i) => eigenvectorMatrix.get(i, most)) as unknown as Vec3);
}

/** `along`, or the other way, whichever looks out of the front. */
function frontOf(face: FaceByTriangles, along: Vec3): Vec3 {
  const left = wayOf(face, (stands) => stands);
  const away = left ? -dot(left, along) : 0;
  if (Math.abs(away) > clearly) return scale(along, Math.sign(away));
  const [x, y, z] = along;
  if (Math.abs(z) > Math.SQRT1_2) return scale(along, Math.sign(z));
  return scale(along, Math.abs(y) > Math.abs(x) ? -Math.sign(y) : Math.sign(x));
}

/** A part of a face looks one way where its normals add up to this share of its area; a closed one looks none. */
const clearly = 0.2;

/** The way in which these triangles look; null where they look every way, or there are none. */
function wayOf(face: FaceByTriangles, counts: (stands: boolean, kept: boolean) => boolean): Vec3 | null {
  const sum: [number, number, number] = [0, 0, 0];
  let all = 0;
  each(face, (n, area, stands, kept) => {
    if (!counts(stands, kept)) return;
    all += area;
    for (const k of [0, 1, 2] as const) sum[k] += area * n[k];
  });
  return all > 0 && Math.hypot(...sum) > clearly * all ? unit(sum) : null;
}

function each(
  { normals: n, areas, stands, kept }: FaceByTriangles,
  see: (normal: Vec3, area: number, stands: boolean, kept: boolean) => void,
): void {
  for (let t = 0; t < areas.length; t++)
    see([n[3 * t]!, n[3 * t + 1]!, n[3 * t + 2]!], areas[t]!, stands[t] === 1, kept[t] === 1);
}
