import { castKind, ranged } from './cast';
import { latexLaid, latexTaken } from './latex-laid';

export const latexSkin = castKind({
  id: 'latex-skin',
  name: 'slip latex skin',
  wall: ranged([0.002, 0.003, 0.004]),
  density: ranged([930, 950, 1000]),
  shrinkage: ranged([0.08, 0.1, 0.12]),
  gives: true,
  wantsDryMould: true,
  made: [{ material: 'latex', share: 1 }],
  steps: [latexLaid, latexTaken],
  caution: 'Ammonia while it is wet: moving air. Powder it before it is peeled, or it sticks to itself.',
});
