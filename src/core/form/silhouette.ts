import { distanceAtCell, blockSide, type VoxelGrid } from './voxels';

/** Outline of the form from the front, for a small picture: one [height, left, right] a row, metres, from the bottom up. */
export function frontSilhouette(grid: VoxelGrid): [number, number, number][] {
  const nx = grid.blocks[0] * blockSide, ny = grid.blocks[1] * blockSide, nz = grid.blocks[2] * blockSide;
  const out: [number, number, number][] = [];
  for (let z = 0; z < nz; z++) {
    let left = nx, right = -1;
    for (let x = 0; x < nx; x++) {
      for (let y = 0; y < ny; y++) {
        if (distanceAtCell(grid, x, y, z) > 0) continue;
        if (x < left) left = x;
        if (x > right) right = x;
        break;
      }
    }
    if (right < 0) continue;
    out.push([grid.origin[2] + (z + 0.5) * grid.step, grid.origin[0] + left * grid.step, grid.origin[0] + (right + 1) * grid.step]);
  }
  return out;
}
