import { mouldKind } from './kind';
import { plasterCautions, plasterSwells, plasterWears } from './shared';

export const plasterOpen = mouldKind({
  id: 'plaster-open',
  name: 'plaster, one open part',
  processes: ['plaster-mould'],
  skin: null,
  shell: { material: 'plaster', thickness: 0.025, coats: 2 },
  block: null,
  parts: 'one',
  open: true,
  stretches: 0,
  shrinkage: plasterSwells,
  wear: plasterWears,
  takes: ['latex-skin', 'pressed-clay', 'paper', 'plaster-solid', 'silicone-skin'],
  wants: 'Lying on its back, kept damp or sealed and released; drawn straight up.',
  cautions: plasterCautions,
});
