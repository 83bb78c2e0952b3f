import { distanceAtCell, blockSide, type VoxelGrid } from './voxels';

/** Outline of the form from the front, for a small picture: one [height, left, right] a row, metres, from the bottom up. */
export function frontSilhouette(grid: VoxelGrid): [number, number, number][] {
  const nx = grid.blocks[0] * blockSide,
    ny = grid.blocks[1] * blockSide,
    nz = grid.blocks[2] * blockSide;
  const out: [number, number, number][] = [];
  for (let z = 0; z < nz; z++) {
    let left = nx,
      right = -1;
    for (let y = 0; y < ny; y++) {
      // Where the face crosses a row of cells, between the two middles it passes.
      let before = distanceAtCell(grid, 0, y, z);
      for (let x = 1; x < nx; x++) {
        const here = distanceAtCell(grid, x, y, z);
        if (before > 0 !== here > 0) {
          const at = x - 1 + before / (before - here) + 0.5;
          if (here <= 0) left = Math.min(left, at);
          else right = Math.max(right, at);
        }
        before = here;
      }
    }
    if (right < 0) continue;
    out.push([
      grid.origin[2] + (z + 0.5) * grid.step,
      grid.origin[0] + left * grid.step,
      grid.origin[0] + right * grid.step,
    ]);
  }
  return out;
}
