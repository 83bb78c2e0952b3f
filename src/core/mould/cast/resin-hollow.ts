import { castKind, ranged } from './cast';

export const resinHollow = castKind({
  id: 'resin-hollow',
  name: 'polyurethane resin rolled round inside',
  wall: ranged([0.003, 0.004, 0.006]),
  density: ranged([1020, 1060, 1120]),
  shrinkage: ranged([0.003, 0.005, 0.008]),
  bears: { youngs: 1.5e9, strength: ranged([22e6, 45e6, 67e6]) },
  made: [{ material: 'resin', share: 1 }],
  steps: [
    {
      id: 'lay',
      name: 'Roll the resin round inside, two or three lots',
      share: 0.4,
      wait: 4,
      until: 'the resin has set and cooled',
      lays: 0,
      needs: ['respirator', 'gloves', 'fresh air'],
    },
    { id: 'take', name: 'Take it out, trim its seams', share: 0.2, wait: 0, until: '' },
  ],
  caution: 'Isocyanates: a respirator for vapour, gloves, moving air.',
});
