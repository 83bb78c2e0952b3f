import { castKind, ranged } from './cast';

export const latexSkin = castKind({
  id: 'latex-skin',
  name: 'slip latex skin',
  wall: ranged([0.002, 0.003, 0.004]),
  density: ranged([930, 950, 1000]),
  shrinkage: ranged([0.08, 0.1, 0.12]),
  gives: true,
  wantsDryMould: true,
  made: [{ material: 'latex', share: 1 }],
  steps: [
    {
      id: 'lay',
      name: 'Lay in the latex: filled and poured back, or some ten coats brushed in',
      share: 0.5,
      wait: 24,
      until: 'the latex is dry through',
      lays: 0,
    },
    { id: 'take', name: 'Powder it, peel it out, trim its edge', share: 0.15, wait: 0, until: '' },
  ],
  caution: 'Ammonia while it is wet: moving air. Powder it before it is peeled, or it sticks to itself.',
});
