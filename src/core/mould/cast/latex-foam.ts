import { castKind, ranged } from './cast';
import { latexLaid, latexTaken } from './latex-laid';

export const latexFoam = castKind({
  id: 'latex-foam',
  name: 'slip latex skin backed with flexible foam',
  wall: ranged([0.002, 0.003, 0.004]),
  density: ranged([930, 950, 1000]),
  shrinkage: ranged([0.08, 0.1, 0.12]),
  gives: true,
  wantsDryMould: true,
  made: [{ material: 'latex', share: 1 }],
  backing: { material: 'foam', thick: ranged([0.01, 0.015, 0.025]), density: ranged([60, 90, 140]) },
  steps: [
    latexLaid,
    {
      id: 'foam',
      name: 'Pour in the foam behind it, the mould closed',
      share: 0.3,
      wait: 2,
      until: 'the foam has set',
      lays: 'backing',
      needs: ['respirator', 'gloves', 'fresh air'],
    },
    latexTaken,
  ],
  caution: 'Ammonia from the latex; isocyanates from the foam: a respirator for vapour, gloves, moving air.',
});
