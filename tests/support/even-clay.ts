import type { DryingCoefficients } from '../../src/core/catalogue';

/** Clay through which water moves alike wet and dry: what the series of the textbooks are for. */
export const evenClay: DryingCoefficients = {
  w0: 1,
  w_sl: 0.3,
  w_m: 0.1,
  rho_dry: 1000,
  D_wet: 1e-9,
  D_dry: 1e-9,
  shrinkage: 0.05,
  capacityWet: 0.1,
  capacityDry: 0.01,
};
