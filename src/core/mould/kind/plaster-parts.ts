import { mouldKind } from './kind';
import { plasterCautions, plasterSwells, plasterWears } from './shared';

export const plasterParts = mouldKind({
  id: 'plaster-parts',
  name: 'plaster in two or more parts',
  processes: ['plaster-mould'],
  skin: null,
  shell: { material: 'plaster', thickness: 0.025, coats: 2 },
  block: null,
  parts: 'more',
  stretches: 0,
  shrinkage: plasterSwells,
  wear: plasterWears,
  takes: ['latex-skin', 'latex-foam', 'pressed-clay', 'paper', 'plaster-hollow', 'wax', 'epoxy-glass'],
  wants: 'Kept damp, or sealed and released; no undercut at all in the way a part is drawn.',
  cautions: plasterCautions,
});
