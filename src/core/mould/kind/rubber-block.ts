import { mouldKind } from './kind';
import { rubberCautions, rubberShrinks, rubberWears, rubberProcesses } from './shared';

export const rubberBlock = mouldKind({
  id: 'rubber-block',
  name: 'poured rubber, one block cut open',
  processes: rubberProcesses,
  skin: null,
  shell: null,
  block: { material: 'silicone', margin: 0.015 },
  parts: 'one',
  stretches: 3,
  shrinkage: rubberShrinks,
  wear: rubberWears,
  takes: ['resin-solid', 'resin-hollow', 'plaster-solid', 'wax', 'epoxy-glass'],
  wants: 'Dry or set, sealed where it drinks, and nothing in it that stops rubber setting.',
  cautions: rubberCautions,
});
