/**
 * Clocks of things that set. Working time t = t_ref 2^((21 - T)/10), x 0.7 for a lump above 200 g, which warms itself.
 * Left out: humidity, stale stock, a mix that is off ratio.
 */
const referenceTemperature = 21;
const largeLump = 0.2;
/** Minutes to knead the two parts of a batch into one. */
export const mixingMinutes = 3;

/**
 * kg a minute that ordinary hands lay, by how a clay sets: what is conditioned or kneaded first goes on slowly, what comes
 * off the block in slabs quickly. Refining is work of its own. A maker's own rate replaces it when it is known.
 */
const layingRates = { dries: 0.025, sets: 0.015, bakes: 0.015, never: 0.06, damp: 0.06 } as const;
export type Setting = keyof typeof layingRates;

export function layingRate(setting: Setting): number {
  return layingRates[setting];
}

/** Hours to put so many kg of clay on. */
export function layingHours(mass: number, setting: Setting): number {
  return mass / layingRates[setting] / 60;
}

function warmth(celsius: number): number {
  return 2 ** ((referenceTemperature - celsius) / 10);
}

/** Minutes before it stiffens. */
export function workingMinutes(reference: number, celsius: number, lump: number): number {
  return reference * warmth(celsius) * (lump > largeLump ? 0.7 : 1);
}

/** Hours until it is hard through. */
export function cureHours(reference: number, celsius: number): number {
  return reference * warmth(celsius);
}

/** kg that can be placed while they work. A lump above 200 g works for less time: found from both sides of that step. */
export function largestBatch(reference: number, celsius: number, rate: number): number {
  const placed = (lump: number) => rate * (workingMinutes(reference, celsius, lump) - mixingMinutes);
  const large = placed(largeLump * 1.01);
  return large > largeLump ? large : Math.min(largeLump, placed(0));
}

export interface BatchPlan {
  /** kg each, the last one smaller. */
  readonly batches: readonly number[];
  readonly workingMinutes: number;
  readonly usableMinutes: number;
  /** Minutes of placing, all batches. */
  readonly placingMinutes: number;
  readonly cureHours: number;
}

/** Batches no larger than can be placed while they work: rate x (working time less mixing). */
export function planBatches(
  mass: number,
  reference: number,
  referenceCure: number,
  celsius: number,
  rate: number,
): BatchPlan {
  const each = Math.max(largestBatch(reference, celsius, rate), 1e-6);
  const working = workingMinutes(reference, celsius, each);
  const count = Math.max(1, Math.ceil(mass / each - 1e-9));
  const batches = Array.from({ length: count }, (_, i) => (i < count - 1 ? each : mass - each * (count - 1)));
  return {
    batches,
    workingMinutes: working,
    usableMinutes: Math.max(0, working - mixingMinutes),
    placingMinutes: mass / rate + count * mixingMinutes,
    cureHours: cureHours(referenceCure, celsius),
  };
}
