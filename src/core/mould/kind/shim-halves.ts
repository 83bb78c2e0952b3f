import { mouldKind } from './kind';
import { plasterCautions, plasterSwells, plasterWears } from './shared';

export const shimHalves = mouldKind({
  id: 'shim-halves',
  name: 'two halves of plaster made at once against a shim',
  processes: ['plaster-mould'],
  skin: null,
  shell: { material: 'plaster', thickness: 0.02, coats: 2 },
  block: null,
  parts: 'two',
  stretches: 0,
  shrinkage: plasterSwells,
  wear: plasterWears,
  takes: ['latex-skin', 'latex-foam', 'paper', 'plaster-hollow', 'epoxy-glass', 'pressed-clay'],
  wants: 'Soft enough to press a shim into: damp or oil-based clay.',
  cautions: plasterCautions,
});
