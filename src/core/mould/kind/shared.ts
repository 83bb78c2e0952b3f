import type { ProcessId } from '../../catalogue';
import type { Range } from '../../quantity';

/** Figures that several moulds share: what rubber and plaster do, and what can hurt at them. */
export const rubberShrinks: Range = { low: 0.001, nominal: 0.004, high: 0.006 };
/** Metres a pull, with resin in it; hot wax and coarse plaster wear it more. */
export const rubberWears: Range = { low: 2e-6, nominal: 5e-6, high: 1e-5 };
export const plasterSwells: Range = { low: -0.003, nominal: -0.002, high: 0 };
export const plasterWears: Range = { low: 1e-5, nominal: 3e-5, high: 2e-4 };

/** Rubber that cures by condensation sets on more clays; the other kind keeps its size better. */
export const rubberProcesses: readonly ProcessId[] = ['silicone-condensation', 'silicone-addition'];
export const rubberCautions = ['Gloves and moving air at the rubber; try it on a scrap of the same clay first.'];
export const plasterCautions = [
  'Never plaster on skin: as it sets it gets hot enough to burn.',
  'A mask against the dust of dry plaster and fibre.',
];
