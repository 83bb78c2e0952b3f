import type { Batching } from './mixes';

/**
 * A sitting's batches, one after another: each made ready when the one before is placed, none larger than is placed while
 * it works, and none begun so late that it could not be placed before the sitting ends. Seconds; kg.
 */
export interface SittingInput {
  readonly mass: number;
  readonly of: Batching;
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

export function batchSittings({ mass, of, from, until }: SittingInput): SittingBatches {
  const { each, rate, least } = of;
  const batches: TimedBatch[] = [];
  let left = mass,
    at = from;
  while (left > 1e-9 && batches.length < 60) {
    // The last one fits into what is left of the sitting.
    const ready = of.ready(Math.min(each, left));
    const fits = Math.min(each, left, Math.max(0, until - at - ready) * (rate / 60));
    if (fits < Math.min(least, left)) break;
    const placedBy = at + of.ready(fits) + (fits / rate) * 60;
    batches.push({ mass: fits, mixAt: at, placedBy, stopAt: at + of.works(fits) });
    left -= fits;
    at = placedBy;
  }
  return {
    each,
    working: of.works(each),
    batches,
    lastMix: Math.max(from, until - of.ready(least) - (least / rate) * 60),
    left: Math.max(0, left),
  };
}
