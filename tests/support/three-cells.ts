import { wetScale, type WholeDrying, type WholeStage } from '../../src/core/drying';

/**
 * A lattice of 4 by 3 by 2 cells of a centimetre with clay in three of them: at (1,1,0), (2,1,0) and (2,1,1); the first two
 * have a face. Three moments: as laid, half way, dry.
 */
const size = [4, 3, 2] as const;
const cells = [
  [1, 1, 0],
  [2, 1, 0],
  [2, 1, 1],
] as const;
const latticeOf = Int32Array.from(cells, ([x, y, z]) => x + 4 * (y + 3 * z));
const indexOf = new Int32Array(24).fill(-1);
latticeOf.forEach((l, c) => (indexOf[l] = c));
export const stage = {
  size,
  origin: [0, 0, 0],
  step: 0.01,
  latticeOf,
  indexOf,
  face: {
    cell: Uint32Array.of(0, 1, 1),
    crack: Float32Array.of(0.2, 0.9, 0.4),
    holdAt: Float32Array.of(3600, 7200, 5400),
  },
} as unknown as WholeStage;
const frame = (time: number, ...wet: number[]) => ({ time, stage: 0, wet: Uint8Array.from(wet, (w) => w * wetScale) });
export const whole = {
  stages: [stage],
  frames: [frame(0, 1, 1, 1), frame(5000, 0.5, 0.4, 0.8), frame(90_000, 0, 0, 0)],
} as unknown as WholeDrying;
export const middle = (x: number, y: number, z: number) => [(x + 0.5) / 100, (y + 0.5) / 100, (z + 0.5) / 100] as const;
