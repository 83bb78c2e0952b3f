import type { DistanceField } from './distance';
import { blockSide, distanceAtCell, type VoxelGrid } from './voxels';

/**
 * How thick the form is at each place inside it: across the largest ball that fits within and holds the place. Found
 * by painting balls from the cells that lie deepest among their neighbours (the ridge), each first moved to the deepest
 * place within its cell.
 * Hildebrand & Rüegsegger (1997), *A new method for the model-independent assessment of thickness*.
 */
export interface ThicknessField {
  /** Cells along x, y, z; x runs fastest. */
  readonly cells: readonly [number, number, number];
  /** Metres; nought outside. */
  readonly values: Float32Array;
  readonly thickest: { readonly thickness: number; readonly at: readonly [number, number, number] };
}

/** A slope seen along the nearest of 26 ways is 0.88 at least. */
const onSlope = 0.8;

/** `grid` must hold distances to the middle of `field` (`voxelise` with a depth beyond half the form). */
export function thicknessField(grid: VoxelGrid, field: DistanceField): ThicknessField {
  const cells = grid.blocks.map((b) => b * blockSide) as [number, number, number];
  const [nx, ny, nz] = cells;
  const index = (x: number, y: number, z: number) => x + nx * (y + ny * z);
  const depth = new Float32Array(nx * ny * nz);
  for (let z = 0; z < nz; z++)
    for (let y = 0; y < ny; y++)
      for (let x = 0; x < nx; x++) depth[index(x, y, z)] = Math.max(0, -distanceAtCell(grid, x, y, z));
  const ridge: number[] = [];
  for (let z = 1; z < nz - 1; z++)
    for (let y = 1; y < ny - 1; y++)
      for (let x = 1; x < nx - 1; x++) {
        const i = index(x, y, z);
        const d = depth[i]!;
        if (d <= 0) continue;
        // On the ridge between two faces depth rises to no neighbour as fast as it does on a slope.
        let held = false;
        for (let c = 0; c < 27 && !held; c++) {
          const dx = (c % 3) - 1,
            dy = (Math.floor(c / 3) % 3) - 1,
            dz = Math.floor(c / 9) - 1;
          if (dx === 0 && dy === 0 && dz === 0) continue;
          held = depth[index(x + dx, y + dy, z + dz)]! >= d + Math.hypot(dx, dy, dz) * grid.step * onSlope;
        }
        if (!held) ridge.push(i);
      }
  const balls = ridge
    .map((i) => deepestNear(grid, field, i % nx, Math.floor(i / nx) % ny, Math.floor(i / (nx * ny))))
    .sort((a, b) => b.depth - a.depth);
  const values = new Float32Array(depth.length);
  for (const ball of balls) {
    // Half a cell over: a face between middles belongs to the ball that reaches it.
    const reach = ball.depth / grid.step + 0.5;
    const [cx, cy, cz] = ball.at.map((v, k) => (v - (grid.origin[k as 0] as number)) / grid.step - 0.5) as [
      number,
      number,
      number,
    ];
    const low = (c: number) => Math.max(0, Math.ceil(c - reach)),
      high = (c: number, n: number) => Math.min(n - 1, Math.floor(c + reach));
    for (let z = low(cz); z <= high(cz, nz); z++)
      for (let y = low(cy); y <= high(cy, ny); y++)
        for (let x = low(cx); x <= high(cx, nx); x++) {
          if ((x - cx) ** 2 + (y - cy) ** 2 + (z - cz) ** 2 > reach * reach) continue;
          const j = index(x, y, z);
          if (depth[j]! > 0 && values[j]! < 2 * ball.depth) values[j] = 2 * ball.depth;
        }
  }
  const largest = balls[0];
  return {
    cells,
    values,
    thickest: largest ? { thickness: 2 * largest.depth, at: largest.at } : { thickness: 0, at: [0, 0, 0] },
  };
}

interface Ball {
  readonly depth: number;
  readonly at: readonly [number, number, number];
}

/** Climbs from a cell's middle to the deepest place within its cell, by halving steps along the axes. */
function deepestNear(grid: VoxelGrid, field: DistanceField, x: number, y: number, z: number): Ball {
  const everyone = field.all();
  let at: [number, number, number] = [
    grid.origin[0] + (x + 0.5) * grid.step,
    grid.origin[1] + (y + 0.5) * grid.step,
    grid.origin[2] + (z + 0.5) * grid.step,
  ];
  let depth = -field.at(at[0], at[1], at[2], everyone);
  for (let step = grid.step / 2; step > grid.step / 12; step /= 2) {
    for (let k = 0; k < 3; k++) {
      for (const way of [-step, step]) {
        const next: [number, number, number] = [at[0], at[1], at[2]];
        next[k] = next[k]! + way;
        const there = -field.at(next[0], next[1], next[2], everyone);
        if (there <= depth) continue;
        at = next;
        depth = there;
        break;
      }
    }
  }
  return { depth, at };
}
