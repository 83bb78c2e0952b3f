import { mouldKind } from './kind';
import { plasterCautions, rubberCautions, rubberShrinks, rubberWears, rubberProcesses } from './shared';

export const rubberSkin = mouldKind({
  id: 'rubber-skin',
  name: 'brushed rubber with a hard shell',
  processes: rubberProcesses,
  skin: { material: 'silicone', thickness: 0.01, coats: 5 },
  shell: { material: 'plaster', thickness: 0.012, coats: 2 },
  block: null,
  parts: 'two',
  stretches: 3,
  shrinkage: rubberShrinks,
  wear: rubberWears,
  takes: ['resin-hollow', 'plaster-solid', 'plaster-hollow', 'wax', 'cement', 'epoxy-glass', 'paper'],
  wants: 'Dry or set and sealed where it drinks; oil-based and damp clay as they are, with their release.',
  cautions: [...rubberCautions, ...plasterCautions],
});
