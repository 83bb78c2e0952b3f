import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import { masterFace, type MasterFace } from './face';

/** Triangles on which directions are told apart; what they draw is settled on the whole face. */
export const enough = 10_000;
/** Less to take away is not worth the while. */
const worthIt = 1.3;

/** To be waited for before anything is parted: what makes faces rough is made ready on its own time. */
export function readyToPart(): Promise<void> {
  return MeshoptSimplifier.ready;
}

/**
 * The face in fewer triangles, of nearly the same size, with corners among its own: shortest changes first, by the
 * quadrics of Garland and Heckbert (1997), *Surface Simplification Using Quadric Error Metrics*. What is painted, and what
 * bears no clay or stands, is what most of a triangle's corners touch. The face itself where it has few. Throws where
 * `readyToPart` was not waited for.
 */
export function roughFace(face: MasterFace, triangleCount = enough): MasterFace {
  if (face.count < worthIt * triangleCount) return face;
  const { positions, triangles, count } = face;
  const [kept, stands] = [new Uint8Array(positions.length / 3), new Uint8Array(positions.length / 3).fill(1)];
  for (let t = 0; t < count; t++)
    for (let k = 3 * t; k < 3 * t + 3; k++) {
      if (face.kept[t]) kept[triangles[k]!] = 1;
      if (!face.stands[t]) stands[triangles[k]!] = 0;
    }
  const [corners] = MeshoptSimplifier.simplify(triangles, positions, 3, 3 * triangleCount, 1, ['Regularize']);
  const most = (of: Uint8Array) =>
    new Uint8Array(corners.length / 3).map((_, t) =>
      of[corners[3 * t]!]! + of[corners[3 * t + 1]!]! + of[corners[3 * t + 2]!]! >= 2 ? 1 : 0,
    );
  const options = { board: null, kept: most(kept), bare: most(stands) };
  // The corners that are left, numbered anew in place.
  const [numbers, left] = MeshoptSimplifier.compactMesh(corners);
  const corner = new Float32Array(3 * left);
  for (const [i, n] of numbers.entries()) if (n < left) corner.set(positions.subarray(3 * i, 3 * i + 3), 3 * n);
  const rough = masterFace({ positions: corner, triangles: Uint32Array.from(corners) }, options);
  return rough.ok && rough.value.area > 0 ? rough.value : face;
}
