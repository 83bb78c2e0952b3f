import type { ClayFamily, DryingCoefficients } from '../catalogue';

/**
 * Clay with water worked in: `share` kg of water to each kg of clay as supplied.
 * Moisture rises, the solids are thinned out, and shrinkage grows with the water above the shrinkage limit:
 * shrinkage x (w0' - w_sl)/(w0 - w_sl), never beyond the water there is. Its yield stress falls a hundredfold over the
 * plastic range, yield x exp(-4.6 (w0' - w0)/range); past it there is no clay left, but slip. The strain it takes before it
 * tears is left as tabulated.
 * Its solids are what it weighs as laid less its water, so that the scale, the beam and the drying begin with one weight,
 * also where a maker has corrected it; the solids tabulated with the drying come to that within three parts in a hundred.
 */
export interface MixedClay {
  readonly drying: DryingCoefficients | null;
  readonly tabulatedW0: number;
  /** kg/m3 as laid. */
  readonly wetDensity: number;
  /** Dry mass over wet mass. */
  readonly dryShare: number;
  /** Pa, for a second and at 20 degrees. */
  readonly yieldStress: number;
  /** Of the water that would make slip of it, what is worked in: 1 and more runs. */
  readonly towardsSlip: number;
}

const water = 1000;
/** Logarithm of how much softer clay is at the wet end of its plastic range. */
const softerAtTheEnd = 4.6;
/** Of its water as supplied, the plastic range of a clay that does not say its own. */
const usualPlasticRange = 0.6;

/**
 * Linear shrinkage at which the volume lost is the volume of the water lost above the shrinkage limit,
 * 1 - (1 - s)^3 = solids (w0 - w_sl)/1000; solids in kg to a m3 as laid.
 */
export function mostShrinkage(c: Pick<DryingCoefficients, 'w0' | 'w_sl' | 'rho_dry'>): number {
  return 1 - Math.cbrt(1 - Math.min(1, (c.rho_dry * (c.w0 - c.w_sl)) / water));
}

export function mixClay(clay: ClayFamily, share: number): MixedClay {
  const swell = 1 + (share * clay.wetDensity) / water;
  const wetDensity = (clay.wetDensity * (1 + share)) / swell;
  const c = clay.drying;
  if (!c)
    return {
      drying: null,
      tabulatedW0: 1,
      wetDensity: clay.wetDensity,
      dryShare: 1,
      yieldStress: clay.yieldStress,
      towardsSlip: 0,
    };
  const w0 = c.w0 + share * (1 + c.w0);
  const rho_dry = wetDensity / (1 + w0);
  const shrinkage = Math.min(
    mostShrinkage({ w0, w_sl: c.w_sl, rho_dry }),
    (c.shrinkage * (w0 - c.w_sl)) / (c.w0 - c.w_sl),
  );
  const towardsSlip = (w0 - c.w0) / (clay.plasticRange ?? usualPlasticRange * c.w0);
  return {
    drying: { ...c, w0, rho_dry, shrinkage },
    tabulatedW0: c.w0,
    wetDensity,
    dryShare: 1 / (1 + w0),
    yieldStress: clay.yieldStress * Math.exp(-softerAtTheEnd * towardsSlip),
    towardsSlip,
  };
}
