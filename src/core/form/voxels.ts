import { type Box, DistanceField } from './distance';

const { cbrt, ceil, floor, max, sqrt } = Math;

/**
 * The voxel grid, and the one file that owns its layout. Cells are cubes of side `step`, samples at their middles,
 * stored in blocks of 8 x 8 x 8. A block whose middle is further from the surface than its half diagonal cannot
 * change sign and is not evaluated.
 */
export const blockSide = 8;
export const cellsPerBlock = blockSide ** 3;

const outside = -1;
/** Whole blocks deep inside one mass are kept as `deepInside - massIndex`. */
const deepInside = -2;

export interface VoxelGrid {
  readonly origin: readonly [number, number, number];
  readonly step: number;
  /** Blocks along x, y, z. */
  readonly blocks: readonly [number, number, number];
  /** Slot of an evaluated block, or a code below zero. */
  readonly slots: Int32Array;
  /** Signed distance at cell middles of evaluated blocks. */
  readonly distances: Float32Array;
  /** Index of the nearest mass, likewise. */
  readonly owners: Uint16Array;
  readonly evaluated: number;
}

export function blockIndex(grid: Pick<VoxelGrid, 'blocks'>, bx: number, by: number, bz: number): number {
  return bx + grid.blocks[0] * (by + grid.blocks[1] * bz);
}

export function cellInBlock(x: number, y: number, z: number): number {
  return x + blockSide * (y + blockSide * z);
}

export function isOutside(slot: number): boolean {
  return slot === outside;
}

/** Mass index of a block wholly inside it, or -1. */
export function deepOwner(slot: number): number {
  return slot <= deepInside ? deepInside - slot : -1;
}

export interface GridOptions {
  readonly step: number;
  /** Distances are wanted down to this depth under the surface, metres. */
  readonly depth: number;
  /** Evaluate every cell: the slow twin for tests and the benchmark. */
  readonly everyCell?: boolean;
}

/** Room for one empty cell all round. Throws when the grid would pass 64 million cells: the caller chose the step. */
export function voxelise(field: DistanceField, options: GridOptions): VoxelGrid {
  const { step } = options;
  const box: Box = field.box();
  const blocks = box.high.map((v, k) => max(1, ceil((v - (box.low[k] as number) + 4 * step) / (step * blockSide)))) as [number, number, number];
  // The grid is centred on the form, so that a form with two like halves gives two like answers.
  const origin = box.high.map((v, k) => (v + (box.low[k] as number) - (blocks[k] as number) * step * blockSide) / 2) as [number, number, number];
  const total = blocks[0] * blocks[1] * blocks[2];
  if (!(total * cellsPerBlock < 64e6)) throw new Error('voxel step too fine for this form');
  const slots = new Int32Array(total).fill(outside);
  const half = (blockSide * step) / 2;
  const radius = half * sqrt(3);
  const everyone = field.all();
  const candidates = new Int32Array(everyone.length);
  let distances = new Float32Array(256 * cellsPerBlock);
  let owners = new Uint16Array(256 * cellsPerBlock);
  let evaluated = 0;
  for (let bz = 0; bz < blocks[2]; bz++) {
    for (let by = 0; by < blocks[1]; by++) {
      for (let bx = 0; bx < blocks[0]; bx++) {
        const index = blockIndex({ blocks }, bx, by, bz);
        const cornerX = origin[0] + bx * blockSide * step;
        const cornerY = origin[1] + by * blockSide * step;
        const cornerZ = origin[2] + bz * blockSide * step;
        let list = everyone;
        let count = everyone.length;
        if (!options.everyCell) {
          const p = field.prune(cornerX + half, cornerY + half, cornerZ + half, radius, everyone, everyone.length, candidates);
          if (p.distance > radius + step) continue;
          if (p.distance + radius < -(options.depth + step) && p.nearestGap > 2 * radius) {
            slots[index] = deepInside - field.owner;
            continue;
          }
          list = candidates;
          count = p.count;
        }
        if ((evaluated + 1) * cellsPerBlock > distances.length) {
          distances = grown(distances, Float32Array);
          owners = grown(owners, Uint16Array);
        }
        slots[index] = evaluated;
        let cell = evaluated * cellsPerBlock;
        for (let z = 0; z < blockSide; z++) {
          const pz = cornerZ + (z + 0.5) * step;
          for (let y = 0; y < blockSide; y++) {
            const py = cornerY + (y + 0.5) * step;
            for (let x = 0; x < blockSide; x++, cell++) {
              distances[cell] = field.at(cornerX + (x + 0.5) * step, py, pz, list, count);
              owners[cell] = field.owner;
            }
          }
        }
        evaluated += 1;
      }
    }
  }
  return { origin, step, blocks, slots, distances, owners, evaluated };
}

function grown<T extends Float32Array | Uint16Array>(old: T, Kind: new (length: number) => T): T {
  const bigger = new Kind(old.length * 2);
  bigger.set(old);
  return bigger;
}

/** Cells for a good live answer; a life-size bust comes to about 6 mm. */
const liveCells = 160_000;

export function chooseStep(field: DistanceField, cells = liveCells): number {
  const { low, high } = field.box();
  const volume = (high[0] - low[0]) * (high[1] - low[1]) * (high[2] - low[2]);
  return cbrt(volume / cells);
}

/** Distance at a cell by whole-grid indices; large and positive outside, large and negative deep inside. */
export function distanceAtCell(grid: VoxelGrid, x: number, y: number, z: number): number {
  const bx = x >> 3, by = y >> 3, bz = z >> 3;
  if (x < 0 || y < 0 || z < 0 || bx >= grid.blocks[0] || by >= grid.blocks[1] || bz >= grid.blocks[2]) return grid.step * blockSide;
  const slot = grid.slots[blockIndex(grid, bx, by, bz)] as number;
  if (slot === outside) return grid.step * blockSide;
  if (slot <= deepInside) return -grid.step * blockSide;
  return grid.distances[slot * cellsPerBlock + cellInBlock(x & 7, y & 7, z & 7)] as number;
}

/** Box of the cells inside the form, to one cell. A corner at the origin when nothing is inside. */
export function solidExtent(grid: VoxelGrid): Box {
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  const [nx, ny] = grid.blocks;
  grid.slots.forEach((slot, b) => {
    if (slot < 0) return;
    const corner = [b % nx, floor(b / nx) % ny, floor(b / (nx * ny))].map((i) => i * blockSide) as [number, number, number];
    for (let c = 0; c < cellsPerBlock; c++) {
      if ((grid.distances[slot * cellsPerBlock + c] as number) > 0) continue;
      const cell = [c % blockSide, floor(c / blockSide) % blockSide, floor(c / blockSide ** 2)];
      for (let k = 0; k < 3; k++) {
        const at = grid.origin[k as 0 | 1 | 2] + ((corner[k] as number) + (cell[k] as number)) * grid.step;
        if (at < (low[k] as number)) low[k] = at;
        if (at + grid.step > (high[k] as number)) high[k] = at + grid.step;
      }
    }
  });
  return high[0] >= low[0] ? { low, high } : { low: [0, 0, 0], high: [0, 0, 0] };
}
