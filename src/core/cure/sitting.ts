import { kneadingMinutes, largestBatch, workingMinutes } from './epoxy';

/**
 * A sitting's batches, one after another: each mixed when the one before is placed, none larger than is placed while it
 * works, and none mixed so late that it could not be placed before the sitting ends. Seconds; kg; rate in kg a minute.
 */
export interface SittingInput {
  readonly mass: number;
  /** Minutes a batch works at 21 degrees. */
  readonly reference: number;
  readonly celsius: number;
  readonly rate: number;
  readonly from: number;
  readonly until: number;
}

export interface TimedBatch {
  readonly mass: number;
  readonly mixAt: number;
  readonly placedBy: number;
  /** From here on it is no longer worked. */
  readonly stopAt: number;
}

export interface SittingBatches {
  /** kg of a full batch, and seconds it works. */
  readonly each: number;
  readonly working: number;
  readonly batches: readonly TimedBatch[];
  /** No mixing after this. */
  readonly lastMix: number;
  /** kg left for another day. */
  readonly left: number;
}

const kneading = (mass: number) => kneadingMinutes(mass) * 60;
/** Mixing less than this is not worth the gloves, kg. */
const least = 0.02;

export function batchSittings({ mass, reference, celsius, rate, from, until }: SittingInput): SittingBatches {
  const seconds = (lump: number) => workingMinutes(reference, celsius, lump) * 60;
  const each = Math.max(least, largestBatch(reference, celsius, rate));
  const batches: TimedBatch[] = [];
  let left = mass,
    at = from;
  while (left > 1e-9 && batches.length < 60) {
    // The last one fits into what is left of the sitting.
    const fits = Math.min(each, left, Math.max(0, until - at - kneading(Math.min(each, left))) * (rate / 60));
    if (fits < Math.min(least, left)) break;
    const placedBy = at + kneading(fits) + (fits / rate) * 60;
    batches.push({ mass: fits, mixAt: at, placedBy, stopAt: at + seconds(fits) });
    left -= fits;
    at = placedBy;
  }
  return {
    each,
    working: seconds(each),
    batches,
    lastMix: Math.max(from, until - kneading(least) - (least / rate) * 60),
    left: Math.max(0, left),
  };
}
