import { mouldKind } from './kind';
import { rubberCautions, rubberShrinks, rubberWears, rubberProcesses } from './shared';

export const rubberPress = mouldKind({
  id: 'rubber-press',
  name: 'small rubber mould to press clay in',
  processes: rubberProcesses,
  skin: { material: 'silicone', thickness: 0.008, coats: 1 },
  shell: null,
  block: null,
  parts: 'one',
  open: true,
  stretches: 3,
  shrinkage: rubberShrinks,
  wear: rubberWears,
  takes: ['pressed-clay', 'wax', 'resin-solid'],
  wants: 'Small and open behind; set, baked or oil-based.',
  cautions: rubberCautions,
});
