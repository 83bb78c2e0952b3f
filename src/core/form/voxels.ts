import type { Vec3 } from '../quantity';
import { Changes } from './changed';
import { cubeSide } from './cube';
import type { Box, DistanceField } from './distance';

const { cbrt, ceil, floor, log2, max, min, round, sqrt } = Math;

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

/** A grid as it was sampled, kept for the next form that differs from it in little. */
interface Sampled {
  readonly field: DistanceField;
  readonly depth: number;
  readonly grid: VoxelGrid;
  readonly first: Vec3;
  /** By block: how far the nearest mass is from its middle. */
  readonly nearest: Float64Array;
  /** By eighth of an evaluated block: how far beyond the union a mass is felt there; -1 where it was not gone into. */
  readonly beyond: Float64Array;
  /** By eighth that was not gone into: how far the nearest mass is from its middle. */
  readonly partNearest: Float64Array;
}

/** The last few grids: blocks in which nothing is felt of what has changed since are taken over as they were. */
export class EarlierGrids {
  private readonly kept: Sampled[] = [];

  keep(sampled: Sampled): void {
    this.kept.unshift(sampled);
    this.kept.length = min(this.kept.length, 4);
  }

  find(field: DistanceField, step: number, depth: number): { before: Sampled; changes: Changes } | null {
    for (const before of this.kept) {
      if (before.grid.step !== step || before.depth !== depth) continue;
      const changes = Changes.between(before.field, field);
      if (changes) return { before, changes };
    }
    return null;
  }
}

/**
 * Room for one empty cell all round. Throws when the grid would pass 64 million cells: the caller chose the step. From
 * `earlier`, and of a finely made form alone, what has not changed is taken over: the grid is the same as without, bit
 * by bit.
 */
export function voxelise(field: DistanceField, options: GridOptions, earlier?: EarlierGrids): VoxelGrid {
  const { step } = options;
  const { blocks, origin, first } = layOut(field, step);
  const side = blockSide * step;
  const total = blocks[0] * blocks[1] * blocks[2];
  if (!(total * cellsPerBlock < 64e6)) throw new Error('voxel step too fine for this form');
  const slots = new Int32Array(total).fill(outside);
  const half = side / 2;
  const radius = half * sqrt(3) * field.slope;
  // A cell under the core's face nothing is partial any more, and its curvature has been read.
  const deepest = -(options.depth + step);
  const everyone = field.all();
  const candidates = new Int32Array(everyone.length);
  const partCandidates = new Int32Array(everyone.length);
  let distances = new Float32Array(256 * cellsPerBlock);
  let owners = new Uint16Array(256 * cellsPerBlock);
  let evaluated = 0;
  const again = first && !options.everyCell && earlier ? earlier.find(field, step, options.depth) : null;
  const nearest = new Float64Array(total);
  let beyond = new Float64Array(256 * 8);
  let partNearest = new Float64Array(256 * 8);
  for (let bz = 0; bz < blocks[2]; bz++) {
    for (let by = 0; by < blocks[1]; by++) {
      for (let bx = 0; bx < blocks[0]; bx++) {
        const index = blockIndex({ blocks }, bx, by, bz);
        const cornerX = first ? (first[0] + bx) * side : origin[0] + bx * blockSide * step;
        const cornerY = first ? (first[1] + by) * side : origin[1] + by * blockSide * step;
        const cornerZ = first ? (first[2] + bz) * side : origin[2] + bz * blockSide * step;
        const was = again && first ? blockBefore(again.before, first, bx, by, bz) : -1;
        const slotBefore = was >= 0 ? again!.before.grid.slots[was]! : outside;
        if ((evaluated + 1) * cellsPerBlock > distances.length) {
          distances = grown(distances, Float32Array);
          owners = grown(owners, Uint16Array);
          beyond = grown(beyond, Float64Array);
          partNearest = grown(partNearest, Float64Array);
        }
        if (
          was >= 0 &&
          again!.changes.farFrom(cornerX + half, cornerY + half, cornerZ + half, radius, again!.before.nearest[was]!)
        ) {
          nearest[index] = again!.before.nearest[was]!;
          slots[index] = slotBefore < 0 ? slotBefore : evaluated;
          if (slotBefore < 0) continue;
          takeOver(again!.before.grid.distances, slotBefore, distances, evaluated, cellsPerBlock);
          takeOver(again!.before.grid.owners, slotBefore, owners, evaluated, cellsPerBlock);
          takeOver(again!.before.beyond, slotBefore, beyond, evaluated, 8);
          takeOver(again!.before.partNearest, slotBefore, partNearest, evaluated, 8);
          evaluated += 1;
          continue;
        }
        let candidateCount = 0;
        if (!options.everyCell) {
          field.prune(cornerX + half, cornerY + half, cornerZ + half, radius, everyone, everyone.length, candidates);
          const { distance, nearestGap } = field.pruned;
          candidateCount = field.pruned.count;
          nearest[index] = field.pruned.nearest;
          if (distance > radius + step) continue;
          if (distance + radius < deepest && nearestGap > 2 * radius) {
            slots[index] = deepInside - field.countedWith[field.owner]!;
            continue;
          }
        }
        slots[index] = evaluated;
        const start = evaluated * cellsPerBlock;
        for (let part = 0; part < 8; part++) {
          const sx = (part & 1) * cubeSide,
            sy = ((part >> 1) & 1) * cubeSide,
            sz = (part >> 2) * cubeSide;
          const x0 = cornerX + sx * step,
            y0 = cornerY + sy * step,
            z0 = cornerZ + sz * step;
          const to = start + cellInBlock(sx, sy, sz);
          beyond[evaluated * 8 + part] = -1;
          if (slotBefore >= 0) {
            const { changes, before } = again!;
            const felt = before.beyond[slotBefore * 8 + part]!,
              near = before.partNearest[slotBefore * 8 + part]!;
            const from = slotBefore * cellsPerBlock + cellInBlock(sx, sy, sz);
            const same =
              felt >= 0
                ? changes.clearOf(x0, y0, z0, step, before.grid.distances, from, blockSide, blockSide ** 2, felt)
                : changes.farFrom(x0 + half / 2, y0 + half / 2, z0 + half / 2, radius / 2, near);
            if (same) {
              beyond[evaluated * 8 + part] = felt;
              partNearest[evaluated * 8 + part] = near;
              takeOverCube(before.grid, from, distances, owners, to);
              continue;
            }
          }
          let list = everyone;
          let count = everyone.length;
          let fill = NaN;
          if (!options.everyCell) {
            field.prune(
              x0 + half / 2,
              y0 + half / 2,
              z0 + half / 2,
              radius / 2,
              candidates,
              candidateCount,
              partCandidates,
              radius / 2,
            );
            const { distance, nearestGap } = field.pruned;
            list = partCandidates;
            count = field.pruned.count;
            partNearest[evaluated * 8 + part] = field.pruned.nearest;
            const outsideWhole = distance > radius / 2 + step;
            const insideWhole = distance + radius / 2 < deepest && nearestGap > radius;
            if (outsideWhole || insideWhole) fill = distance;
          }
          if (Number.isNaN(fill)) {
            beyond[evaluated * 8 + part] = field.fillCube(
              x0,
              y0,
              z0,
              step,
              list,
              count,
              !options.everyCell,
              distances,
              owners,
              to,
              blockSide,
              blockSide * blockSide,
            );
            continue;
          }
          const owner = field.countedWith[field.owner]!;
          for (let z = 0; z < cubeSide; z++) {
            for (let y = 0; y < cubeSide; y++) {
              const row = to + cellInBlock(0, y, z);
              for (let x = 0; x < cubeSide; x++) {
                distances[row + x] = fill;
                owners[row + x] = owner;
              }
            }
          }
        }
        evaluated += 1;
      }
    }
  }
  const grid = { origin, step, blocks, slots, distances, owners, evaluated };
  if (earlier && first) earlier.keep({ field, depth: options.depth, grid, first, nearest, beyond, partNearest });
  return grid;
}

/**
 * Where the blocks stand. They are centred on the form, so that a form with two like halves gives two like answers; of
 * a finely made one they stand where the world's do, its middle between two: so that a nose made longer leaves the
 * shoulders in the cells they were in. `first`: the place of the first of them then, in blocks.
 */
function layOut(field: DistanceField, step: number): { blocks: Vec3; origin: Vec3; first: Vec3 | null } {
  const { low, high } = field.box();
  const side = blockSide * step;
  const mapped = (of: (k: 0 | 1 | 2) => number): Vec3 => [of(0), of(1), of(2)];
  if (!field.many) {
    const blocks = mapped((k) => max(1, ceil((high[k] - low[k] + 4 * step) / (step * blockSide))));
    return { blocks, origin: mapped((k) => (high[k] + low[k] - blocks[k] * step * blockSide) / 2), first: null };
  }
  const first = mapped((k) => floor((low[k] - 2 * step) / side));
  return {
    blocks: mapped((k) => max(1, ceil((high[k] + 2 * step) / side) - first[k])),
    origin: mapped((k) => first[k] * side),
    first,
  };
}

/** Index of the same block in an earlier grid; -1 where it had none. */
function blockBefore(before: Sampled, first: Vec3, bx: number, by: number, bz: number): number {
  const x = bx + first[0] - before.first[0],
    y = by + first[1] - before.first[1],
    z = bz + first[2] - before.first[2];
  const { blocks } = before.grid;
  if (x < 0 || y < 0 || z < 0 || x >= blocks[0] || y >= blocks[1] || z >= blocks[2]) return -1;
  return blockIndex(before.grid, x, y, z);
}

function takeOver<T extends Float32Array | Float64Array | Uint16Array>(
  from: T,
  slot: number,
  into: T,
  toSlot: number,
  each: number,
): void {
  into.set(from.subarray(slot * each, (slot + 1) * each), toSlot * each);
}

function takeOverCube(grid: VoxelGrid, from: number, distances: Float32Array, owners: Uint16Array, to: number): void {
  for (let z = 0; z < cubeSide; z++)
    for (let y = 0; y < cubeSide; y++) {
      const row = cellInBlock(0, y, z);
      for (let x = 0; x < cubeSide; x++) {
        distances[to + row + x] = grid.distances[from + row + x]!;
        owners[to + row + x] = grid.owners[from + row + x]!;
      }
    }
}

function grown<T extends Float32Array | Float64Array | Uint16Array>(old: T, Kind: new (length: number) => T): T {
  const bigger = new Kind(old.length * 2);
  bigger.set(old);
  return bigger;
}

/** Of a form of many small masses counted together: their face takes most of the time, whatever the cells. */
const finelyMadeCells = 70_000;

/**
 * Cells of the box for a good live answer: a life-size bust comes to about 10 mm and its volume to a third of a
 * percent. Many masses cost more a cell, so they get fewer, and half a percent.
 */
export function chooseStep(
  field: DistanceField,
  cells = field.many ? finelyMadeCells : min(80_000, max(28_000, 1_600_000 / field.measured)),
): number {
  const { low, high } = field.box();
  const volume = (high[0] - low[0]) * (high[1] - low[1]) * (high[2] - low[2]);
  const step = cbrt(volume / cells);
  return field.many ? onRung(step) : step;
}

/** Sizes of cell that a finely made form is sampled with, to the doubling: it keeps its cells while it changes a little. */
const rungs = 6;

/** The nearest of those sizes. */
export function onRung(step: number): number {
  return 2 ** (round(log2(step) * rungs) / rungs);
}

/** Volume lost or won at the face, as a share of a cell over the whole face: half as much again as was seen over seeded forms of known volume. */
export const faceError = 0.006;
/** Volumes are to be good to this share; thin pieces get finer cells for it, as far as there is room. */
const wantedError = 0.005;
const mostCells = 1_500_000;

/**
 * The grid a build is measured on. A piece with much face for its volume (a shell, thin branches) is sampled again,
 * finer: its error goes with step x face / volume.
 */
export function sampleForm(field: DistanceField, depth: number, earlier?: EarlierGrids): VoxelGrid {
  const step = chooseStep(field);
  const first = voxelise(field, { step, depth }, earlier);
  const { area, volume } = roughSize(first, field.underShells);
  const error = (faceError * step * area) / Math.max(volume, 1e-12);
  if (error <= wantedError) return first;
  // Blocks that hold the face grow with the square of the fineness.
  const finest = step * sqrt((first.evaluated * cellsPerBlock) / mostCells);
  const finer = max(finest, step * max(0.2, wantedError / error));
  return voxelise(field, { step: field.many ? onRung(finer) : finer, depth }, earlier);
}

/** Face and volume to a few percent, enough to choose a step by; of what is not left out. */
function roughSize(grid: VoxelGrid, leftOut: ReadonlySet<number>): { area: number; volume: number } {
  let near = 0,
    inside = 0;
  for (let i = 0; i < grid.evaluated * cellsPerBlock; i++) {
    if (leftOut.size > 0 && leftOut.has(grid.owners[i]!)) continue;
    const d = grid.distances[i]! / grid.step;
    if (d > -1 && d < 1) near += 1 - Math.abs(d);
    inside += d >= 0.5 ? 0 : d <= -0.5 ? 1 : 0.5 - d;
  }
  for (const slot of grid.slots) if (slot <= deepInside && !leftOut.has(deepInside - slot)) inside += cellsPerBlock;
  return { area: near * grid.step ** 2, volume: inside * grid.step ** 3 };
}

/** Distance at a cell by whole-grid indices; large and positive outside, large and negative deep inside. */
export function distanceAtCell(grid: VoxelGrid, x: number, y: number, z: number): number {
  const bx = x >> 3,
    by = y >> 3,
    bz = z >> 3;
  if (x < 0 || y < 0 || z < 0 || bx >= grid.blocks[0] || by >= grid.blocks[1] || bz >= grid.blocks[2])
    return grid.step * blockSide;
  const slot = grid.slots[blockIndex(grid, bx, by, bz)]!;
  if (slot === outside) return grid.step * blockSide;
  if (slot <= deepInside) return -grid.step * blockSide;
  return grid.distances[slot * cellsPerBlock + cellInBlock(x & 7, y & 7, z & 7)]!;
}

/** Level places of the cells inside the form in its lowest `within` metres: where it touches the ground. Corners of cells. */
export function footprint(grid: VoxelGrid, bottom: number, within: number): (readonly [number, number])[] {
  const out: (readonly [number, number])[] = [];
  const [nx, ny] = grid.blocks;
  grid.slots.forEach((slot, b) => {
    if (slot < 0) return;
    const corner = [b % nx, floor(b / nx) % ny, floor(b / (nx * ny))].map((i) => i * blockSide) as [
      number,
      number,
      number,
    ];
    if (grid.origin[2] + corner[2] * grid.step > bottom + within) return;
    for (let c = 0; c < cellsPerBlock; c++) {
      if (grid.distances[slot * cellsPerBlock + c]! > 0) continue;
      const z = grid.origin[2] + (corner[2] + floor(c / blockSide ** 2) + 0.5) * grid.step;
      if (z > bottom + within) continue;
      const x = grid.origin[0] + (corner[0] + (c % blockSide) + 0.5) * grid.step,
        y = grid.origin[1] + (corner[1] + (floor(c / blockSide) % blockSide) + 0.5) * grid.step;
      out.push([x, y]);
    }
  });
  return out;
}

/** Box of the cells inside the form, to one cell. A corner at the origin when nothing is inside. */
export function solidExtent(grid: VoxelGrid): Box {
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  const [nx, ny] = grid.blocks;
  grid.slots.forEach((slot, b) => {
    if (slot < 0) return;
    const corner = [b % nx, floor(b / nx) % ny, floor(b / (nx * ny))].map((i) => i * blockSide) as [
      number,
      number,
      number,
    ];
    for (let c = 0; c < cellsPerBlock; c++) {
      if (grid.distances[slot * cellsPerBlock + c]! > 0) continue;
      const cell = [c % blockSide, floor(c / blockSide) % blockSide, floor(c / blockSide ** 2)];
      for (let k = 0; k < 3; k++) {
        const at = grid.origin[k as 0 | 1 | 2] + (corner[k]! + cell[k]!) * grid.step;
        if (at < low[k]!) low[k] = at;
        if (at + grid.step > high[k]!) high[k] = at + grid.step;
      }
    }
  });
  return high[0] >= low[0] ? { low, high } : { low: [0, 0, 0], high: [0, 0, 0] };
}

/** The grid laid out cell by cell, x fastest: distances, with markers of eight cells where a block is all outside or deep inside, and owners. */
export function denseGrid(grid: VoxelGrid): {
  readonly size: [number, number, number];
  readonly distances: Float32Array;
  readonly owners: Uint16Array;
} {
  const size = grid.blocks.map((b) => b * blockSide) as [number, number, number];
  const distances = new Float32Array(size[0] * size[1] * size[2]).fill(grid.step * blockSide);
  const owners = new Uint16Array(distances.length);
  const row = new Float32Array(blockSide),
    deepRow = new Float32Array(blockSide).fill(-grid.step * blockSide);
  grid.slots.forEach((slot, b) => {
    if (slot === outside) return;
    const bx = b % grid.blocks[0],
      by = floor(b / grid.blocks[0]) % grid.blocks[1],
      bz = floor(b / (grid.blocks[0] * grid.blocks[1]));
    for (let z = 0; z < blockSide; z++)
      for (let y = 0; y < blockSide; y++) {
        const to = bx * blockSide + size[0] * (by * blockSide + y + size[1] * (bz * blockSide + z));
        if (slot <= deepInside) {
          distances.set(deepRow, to);
          owners.fill(deepInside - slot, to, to + blockSide);
          continue;
        }
        const from = slot * cellsPerBlock + cellInBlock(0, y, z);
        row.set(grid.distances.subarray(from, from + blockSide));
        distances.set(row, to);
        owners.set(grid.owners.subarray(from, from + blockSide), to);
      }
  });
  return { size, distances, owners };
}
