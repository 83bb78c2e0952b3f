import type { Range } from '../quantity';

/** Casts until a groove so deep is gone, the wear of a pull being what it is; metres. A rule of thumb, with its range. */
export function pullsUntilGone(depth: number, wear: Range): Range {
  return { low: depth / wear.high, nominal: depth / wear.nominal, high: depth / wear.low };
}
