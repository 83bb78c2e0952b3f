import type { ClayFamily, DryingCoefficients } from '../catalogue';

/**
 * Clay with water worked in: `share` kg of water to each kg of clay as supplied.
 * Moisture rises, the solids are thinned out, and shrinkage grows with the water above the shrinkage limit:
 * shrinkage x (w0' - w_sl)/(w0 - w_sl). The strain it takes is left as tabulated.
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
}

const water = 1000;

export function mixClay(clay: ClayFamily, share: number): MixedClay {
  const swell = 1 + (share * clay.wetDensity) / water;
  const wetDensity = (clay.wetDensity * (1 + share)) / swell;
  const c = clay.drying;
  if (!c) return { drying: null, tabulatedW0: 1, wetDensity: clay.wetDensity, dryShare: 1 };
  const w0 = c.w0 + share * (1 + c.w0);
  const shrinkage = Math.min(0.4, (c.shrinkage * (w0 - c.w_sl)) / (c.w0 - c.w_sl));
  return {
    drying: { ...c, w0, rho_dry: wetDensity / (1 + w0), shrinkage },
    tabulatedW0: c.w0,
    wetDensity,
    dryShare: 1 / (1 + w0),
  };
}
