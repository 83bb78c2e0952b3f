import { castKind, ranged } from './cast';

export const latexFoam = castKind({
  id: 'latex-foam',
  name: 'slip latex skin backed with flexible foam',
  wall: ranged([0.002, 0.003, 0.004]),
  density: ranged([930, 950, 1000]),
  shrinkage: ranged([0.08, 0.1, 0.12]),
  gives: true,
  caution: 'Ammonia from the latex; isocyanates from the foam: a respirator for vapour, gloves, moving air.',
});
