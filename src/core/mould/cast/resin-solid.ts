import { castKind, ranged } from './cast';

export const resinSolid = castKind({
  id: 'resin-solid',
  name: 'polyurethane resin, solid',
  wall: null,
  density: ranged([1020, 1060, 1120]),
  shrinkage: ranged([0.003, 0.005, 0.008]),
  made: [{ material: 'resin', share: 1 }],
  steps: [
    {
      id: 'lay',
      name: 'Mix the resin and pour it',
      share: 0.25,
      wait: 4,
      until: 'the resin has set and cooled',
      lays: 0,
      needs: ['respirator', 'gloves', 'fresh air'],
    },
    { id: 'take', name: 'Take it out, trim its seams', share: 0.2, wait: 0, until: '' },
  ],
  caution: 'Isocyanates: a respirator for vapour, gloves, moving air. Thick resin gets hot.',
});
