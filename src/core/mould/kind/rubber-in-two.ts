import { mouldKind } from './kind';
import { rubberCautions, rubberShrinks, rubberWears, rubberProcesses } from './shared';

export const rubberInTwo = mouldKind({
  id: 'rubber-in-two',
  name: 'poured rubber in two parts',
  processes: rubberProcesses,
  skin: null,
  shell: null,
  block: { material: 'silicone', margin: 0.015 },
  parts: 'two',
  stretches: 3,
  shrinkage: rubberShrinks,
  wear: rubberWears,
  takes: ['resin-solid', 'resin-hollow', 'plaster-solid', 'wax', 'cement', 'epoxy-glass'],
  wants: 'Dry or set, sealed where it drinks, bedded to its parting line in clay.',
  cautions: rubberCautions,
});
