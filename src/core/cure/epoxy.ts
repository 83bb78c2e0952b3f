/**
 * Clocks of things that set. Working time t = t_ref 2^((21 - T)/10), x 0.7 for a lump above 200 g, which warms itself.
 * Left out: humidity, stale stock, a mix that is off ratio.
 */
const referenceTemperature = 21;
const largeLump = 0.2;
/** kg that a hand kneads into one at a time, and minutes it takes: from three for a small lump to five for the largest. */
const smallLump = 0.1,
  mostKneaded = 0.25;
export function kneadingMinutes(mass: number): number {
  return 3 + 2 * Math.min(1, Math.max(0, (mass - smallLump) / (mostKneaded - smallLump)));
}

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

/** By how much time there is shorter or longer than at 21 degrees. */
export function warmth(celsius: number): number {
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

/**
 * kg that a hand can knead at a time and place while they work. A lump above 200 g works for less time: the largest is
 * looked for on both sides of that step.
 */
export function largestBatch(reference: number, celsius: number, rate: number): number {
  const placed = (lump: number) => lump <= rate * (workingMinutes(reference, celsius, lump) - kneadingMinutes(lump));
  const most = (from: number, to: number): number => {
    if (placed(to)) return to;
    for (let i = 0; i < 60; i++) {
      const middle = (from + to) / 2;
      if (placed(middle)) from = middle;
      else to = middle;
    }
    return from;
  };
  const large = most(largeLump, mostKneaded);
  return large > largeLump * 1.0001 ? large : most(0, largeLump);
}

export interface BatchPlan {
  /** kg of a full one. */
  readonly each: number;
  /** kg of every one, the last of each laying smaller. */
  readonly batches: readonly number[];
  readonly workingMinutes: number;
  readonly usableMinutes: number;
  /** Minutes a full batch still works once it is kneaded and placed: in these it is smoothed. */
  readonly softMinutes: number;
  /** Minutes of kneading and placing, all batches. */
  readonly placingMinutes: number;
  readonly cureHours: number;
}

/** Batches no larger than are kneaded and placed while they work; `masses` are laid one after another, each in batches of its own, kg. */
export function planBatches(
  masses: readonly number[],
  reference: number,
  referenceCure: number,
  celsius: number,
  rate: number,
): BatchPlan {
  const each = Math.max(largestBatch(reference, celsius, rate), 1e-6);
  const working = workingMinutes(reference, celsius, each);
  const batches = masses.flatMap((mass) => {
    const count = Math.max(1, Math.ceil(mass / each - 1e-9));
    return Array.from({ length: count }, (_, i) => (i < count - 1 ? each : mass - each * (count - 1)));
  });
  return {
    each,
    batches,
    workingMinutes: working,
    usableMinutes: Math.max(0, working - kneadingMinutes(each)),
    softMinutes: Math.max(0, working - kneadingMinutes(each) - each / rate),
    placingMinutes: batches.reduce((sum, b) => sum + b / rate + kneadingMinutes(b), 0),
    cureHours: cureHours(referenceCure, celsius),
  };
}
