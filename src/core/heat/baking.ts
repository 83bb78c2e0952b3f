/**
 * Baking polymer clay: fifteen minutes at 135 degrees for each quarter inch of the thickest section, at every bake,
 * whatever is inside it. Everything in the oven has to stand it.
 * Left out: how true the oven is (hang a thermometer in it), and how slowly a heavy armature warms.
 */
export const bakingTemperature = 135;
const minutesPer = 15;
const thicknessPer = 0.00635;

export interface Bake {
  readonly name: string;
  /** Thickest section there is in the oven, metres. */
  readonly thickest: number;
  readonly minutes: number;
}

export interface BakingPlan {
  readonly temperature: number;
  readonly bakes: readonly Bake[];
  readonly minutes: number;
  /** What inside cannot stand it, and what it stands. */
  readonly cannot: readonly { readonly name: string; readonly standsTo: number }[];
  /** Thickness that does not sag off an upright face while it is soft in the oven, metres. */
  readonly holdsInOven: number;
  readonly thickestCoat: number;
}

export function minutesFor(thickest: number): number {
  return Math.ceil(thickest / thicknessPer - 1e-9) * minutesPer;
}

/** `coats` metres, each baked before the next goes on over it: every bake counts all that is there by then. */
export function bakingPlan(
  coats: readonly number[],
  temperature: number,
  inside: readonly { readonly name: string; readonly standsTo: number }[],
  holdsInOven: number,
): BakingPlan {
  let there = 0;
  const bakes = coats.map((t, k): Bake => {
    there += t;
    return {
      name: coats.length > 1 ? `after coat ${k + 1}` : 'when it is shaped',
      thickest: there,
      minutes: minutesFor(there),
    };
  });
  return {
    temperature,
    bakes,
    minutes: bakes.reduce((sum, b) => sum + b.minutes, 0),
    cannot: inside.filter((p) => p.standsTo < temperature),
    holdsInOven,
    thickestCoat: Math.max(0, ...coats),
  };
}
