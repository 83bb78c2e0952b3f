import { mouldKind } from './kind';
import { plasterCautions } from './shared';

export const latexSkin = mouldKind({
  id: 'latex-skin',
  name: 'latex brushed on, with a shell of gauze',
  processes: ['latex-mould'],
  skin: { material: 'latex', thickness: 0.0025, coats: 8 },
  shell: { material: 'gauze', thickness: 0.0025, coats: 4 },
  block: null,
  parts: 'one',
  stretches: 5,
  shrinkage: { low: 0.01, nominal: 0.02, high: 0.04 },
  wear: { low: 5e-6, nominal: 1.5e-5, high: 4e-5 },
  takes: ['plaster-solid', 'plaster-hollow', 'cement', 'paper'],
  wants: 'Dry or set and sealed: latex does not dry on what is damp, and oil spoils it.',
  cautions: ['Latex smells of ammonia: moving air. Some people are allergic to it.', ...plasterCautions],
});
