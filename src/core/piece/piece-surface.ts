import { extractSurface, onRung, voxelise, type EarlierGrids, type SurfaceMesh } from '../form';
import type { Piece } from './piece';

/** Triangles of a face that is looked at: enough for lids and lips, and drawn at once. */
const wanted = 40_000;

/** Whether the face the figures are read off is too coarse to be looked at. */
export function wantsFiner(piece: Piece): boolean {
  return piece.field.many;
}

/**
 * The face as it is looked at, each vertex with its mass. A form of many small masses is sampled again, as finely as
 * triangles allow: its figures need no lids, and the eye does. `earlier`: what was sampled lately.
 */
export function surfaceOf(piece: Piece, earlier?: EarlierGrids): SurfaceMesh {
  const coarse = extractSurface(piece.grid);
  if (!wantsFiner(piece)) return coarse;
  const step = onRung(piece.grid.step * Math.min(1, Math.sqrt(coarse.triangles.length / 3 / wanted)));
  // Nothing of the core is asked for: what lies deeper than a cell is left out.
  return extractSurface(voxelise(piece.field.byName(), { step, depth: step }, earlier));
}

/** The same with at least so many triangles. */
export function surfaceWith(piece: Piece, triangles: number): SurfaceMesh {
  const surface = surfaceOf(piece);
  const count = surface.triangles.length / 3;
  if (count >= triangles) return surface;
  const step = piece.grid.step * Math.sqrt(count / (1.1 * triangles));
  return extractSurface(voxelise(piece.field.byName(), { step, depth: step }));
}
