import { bundleAcross, sectionAcross, tubeMesh } from '../armature';
import type { Build } from '../document';
import { extractSurface, voxelise, writeMesh, type MeshFormat, type NamedMesh } from '../form';
import { failure, success, type Result } from '../quantity';
import { asBriefed, type Evaluator } from '../evaluate';
import type { Piece } from '../piece';

export const exportedParts = ['form', 'core', 'armature'] as const;
export type ExportedPart = (typeof exportedParts)[number];

/** The form, the core under its clay, and the armature, as closed meshes; those asked for, each by its name. */
export function exportMesh(
  build: Build,
  parts: readonly ExportedPart[],
  format: MeshFormat,
  evaluator: Evaluator,
): Result<Uint8Array> {
  const made = evaluator.piece(asBriefed(build));
  if (!made.ok) return made;
  const piece = made.value;
  const meshes: NamedMesh[] = [];
  if (parts.includes('form') || parts.includes('core')) {
    const deepest = piece.coreDepths.reduce((most, d) => (d < Infinity ? Math.max(most, d) : most), 0);
    const grid = voxelise(piece.field, { step: finerStep(piece), depth: deepest });
    if (parts.includes('form')) meshes.push({ name: 'form', ...extractSurface(grid) });
    // One depth for all of it: the thickest clay, so that what is made from it is never too large.
    if (parts.includes('core') && deepest > 0) meshes.push({ name: 'core', ...extractSurface(grid, deepest) });
  }
  if (parts.includes('armature'))
    for (const m of piece.armature.members) meshes.push({ name: m.name, ...memberMesh(piece, m) });
  const held = meshes.filter((m) => m.triangles.length > 0);
  if (held.length === 0)
    return failure(
      'empty',
      parts.join(', '),
      'there is nothing of it to take out: the piece has no core, or no members',
    );
  return success(writeMesh(format, held));
}

/** A member as thick as its strands lie together. */
export function memberMesh(piece: Piece, m: Piece['armature']['members'][number]) {
  const size = piece.stockOf(m.stock)?.sizes.find((s) => s.id === m.size);
  return tubeMesh(m.path, bundleAcross(size ? sectionAcross(size.section) : 0.004, m.strands));
}

/** Finer than the figures need, as far as there is room: what goes out is looked at. */
function finerStep(piece: Piece): number {
  const blocks = piece.grid.evaluated;
  const room = Math.sqrt(3000 / Math.max(1, blocks));
  return piece.grid.step / Math.min(4, Math.max(1, room));
}
