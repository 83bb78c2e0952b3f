import { castKind, ranged } from './cast';

export const siliconeSkin = castKind({
  id: 'silicone-skin',
  name: 'brushed silicone skin',
  wall: ranged([0.002, 0.003, 0.005]),
  density: ranged([1080, 1120, 1200]),
  shrinkage: ranged([0.001, 0.004, 0.006]),
  gives: true,
  made: [{ material: 'silicone', share: 1 }],
  steps: [
    {
      id: 'lay',
      name: 'Brush in the silicone, three coats',
      share: 0.6,
      wait: 16,
      until: 'the silicone has set',
      mix: 'silicone',
      lays: 0,
    },
    { id: 'take', name: 'Peel it out, trim its edge', share: 0.15, wait: 0, until: '' },
  ],
  caution: 'Gloves and moving air.',
});
