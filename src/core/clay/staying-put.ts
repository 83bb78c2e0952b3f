import { gravity } from '../quantity';

/**
 * Soft clay staying where it is put. Thickness that hangs = min(yield, grip x yield/2) / (rho g sin slope) / 1.5.
 * Left out: time (soft clay creeps below this), vibration, a wet core.
 */
const margin = 1.5;

export const gripKinds = {
  plasticFilm: 0.2,
  bareMetal: 0.3,
  foil: 0.4,
  tape: 0.7,
  plasterOrPrimer: 1,
  dryClay: 0.8,
  dryClayWithSlip: 1.2,
  scoredAndSlipped: 1.3,
  clothOrTwine: 1.4,
  wireMesh: 2.5,
} as const;

/** Metres of clay that stay on a face at `slopeDegrees` from level (90 upright, more under an overhang). */
export function thicknessThatHangs(yieldStress: number, grip: number, density: number, slopeDegrees: number): number {
  const slope = Math.sin((Math.min(90, slopeDegrees) * Math.PI) / 180);
  if (slope <= 0) return Infinity;
  return Math.min(yieldStress, (grip * yieldStress) / 2) / (density * gravity * slope) / margin;
}

/** Steepest slope, degrees from level, on which a coat stays; null where it stays on an upright face and under it. */
export function slidesFrom(hangsUpright: number, coat: number): number | null {
  return coat <= hangsUpright ? null : (Math.asin(hangsUpright / coat) * 180) / Math.PI;
}

/**
 * Height of solid soft clay that stands under its own weight: 2 x yield / (rho g) / 1.5, the load at which its foot
 * flows (Tresca). Left out: what the armature in it carries.
 */
export function heightThatStands(yieldStress: number, density: number): number {
  return (2 * yieldStress) / (density * gravity) / margin;
}

/** Yield stress of a clay in the oven, Pa: polymer goes soft before it sets. */
export const yieldInOven = 1500;
