/**
 * Warming oil-based clay: the energy it takes, against what the heater gives it, and the time heat needs to reach the
 * middle of a lump; the longer of the two decides. Incropera, *Fundamentals of Heat and Mass Transfer*, transient
 * conduction: 0.8 L2/alpha for the middle to follow, L half the lump's thickness.
 * Left out: kneading, which mixes warm into cold; the box warming up itself.
 */
const heatCapacity = 1600; // J/kgK
const diffusivity = 1.5e-7; // m2/s
/** Of a heater's rating, in a plain box. */
const usefulShare = 0.4;
/** Skin burns above this, degrees C. */
export const burnsFrom = 50;

export interface WarmingPlan {
  /** J. */
  readonly energy: number;
  /** Seconds the heater needs, and seconds heat needs to get in. */
  readonly heating: number;
  readonly soaking: number;
  readonly time: number;
  readonly governs: 'heater' | 'lump';
  readonly lumps: number;
  /** Thickest lump that would not be what one waits for, metres. */
  readonly usefulLump: number;
  readonly burns: boolean;
}

/** `lump` is a lump's thickness, metres; `watts` the heater's rating. */
export function warmingPlan(
  mass: number,
  density: number,
  from: number,
  to: number,
  watts: number,
  lump: number,
): WarmingPlan {
  const energy = mass * heatCapacity * Math.max(0, to - from);
  const heating = energy / (usefulShare * watts);
  const soaking = to > from ? (0.8 * (lump / 2) ** 2) / diffusivity : 0;
  return {
    energy,
    heating,
    soaking,
    time: Math.max(heating, soaking),
    governs: heating > soaking ? 'heater' : 'lump',
    lumps: Math.max(1, Math.ceil(mass / density / lump ** 3 - 1e-9)),
    usefulLump: 2 * Math.sqrt((heating * diffusivity) / 0.8),
    burns: to > burnsFrom,
  };
}
