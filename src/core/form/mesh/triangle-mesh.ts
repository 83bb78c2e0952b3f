import { failure, type Failure } from '../../quantity';

/** Triangles over shared or unshared points: three numbers a point in the file's own unit, three indices a triangle. */
export interface TriangleMesh {
  readonly positions: Float32Array;
  readonly triangles: Uint32Array;
}

/** A reader's progress, 0..1; it may stop the reading by throwing. */
export type Progress = (share: number) => void;

export const largestMeshFile = 512 * 1024 * 1024;
export const mostTriangles = 5_000_000;
/** What its inside can be found of in a minute or so. */
export const mostBroughtIn = 2_000_000;

export function tooMany(count: number): Failure {
  return failure('too-large', 'the triangles', `it claims ${count} triangles; at most ${mostTriangles} are read`);
}

/** Beyond this a mesh is in no unit of length that people use. */
export const farthest = 1e9;
export const notAPlace = 'a coordinate there is not a number, or far too large';

/** The first point that is no place, as a failure naming it; null when all are. */
export function checkPoints(positions: Float32Array, what: (point: number) => string): Failure | null {
  for (let i = 0; i < positions.length; i++) {
    const v = positions[i]!;
    if (!(v > -farthest && v < farthest)) return failure('not-a-place', what(Math.floor(i / 3)), notAPlace);
  }
  return null;
}
