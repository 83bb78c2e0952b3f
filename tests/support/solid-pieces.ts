import { distanceAtCell, type VoxelGrid } from '../../src/core/form';

const { floor } = Math;

/** Cells of each part that hangs together, largest first: cells inside that share a face, an edge or a corner. */
export function solidPieces(grid: VoxelGrid): number[] {
  const [nx, ny, nz] = grid.blocks.map((b) => b * 8) as [number, number, number];
  const inside = new Uint8Array(nx * ny * nz);
  for (let z = 0, i = 0; z < nz; z++)
    for (let y = 0; y < ny; y++)
      for (let x = 0; x < nx; x++, i++) inside[i] = distanceAtCell(grid, x, y, z) < 0 ? 1 : 0;
  const pieces: number[] = [];
  const stack: number[] = [];
  for (let from = 0; from < inside.length; from++) {
    if (inside[from] !== 1) continue;
    inside[from] = 2;
    stack.push(from);
    let cells = 0;
    while (stack.length > 0) {
      const at = stack.pop()!;
      cells += 1;
      const x = at % nx,
        y = floor(at / nx) % ny,
        z = floor(at / (nx * ny));
      for (let k = 0; k < 27; k++) {
        const tx = x + (k % 3) - 1,
          ty = y + (floor(k / 3) % 3) - 1,
          tz = z + floor(k / 9) - 1;
        if (tx < 0 || ty < 0 || tz < 0 || tx >= nx || ty >= ny || tz >= nz) continue;
        const to = tx + nx * (ty + ny * tz);
        if (inside[to] !== 1) continue;
        inside[to] = 2;
        stack.push(to);
      }
    }
    pieces.push(cells);
  }
  return pieces.sort((a, b) => b - a);
}
