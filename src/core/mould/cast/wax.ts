import { castKind, ranged } from './cast';

export const wax = castKind({
  id: 'wax',
  name: 'wax',
  wall: ranged([0.004, 0.005, 0.008]),
  density: ranged([880, 920, 960]),
  shrinkage: ranged([0.01, 0.02, 0.03]),
  made: [{ material: 'wax', share: 1 }],
  steps: [
    {
      id: 'lay',
      name: 'Melt the wax in a water bath, fill, pour back once a skin has set',
      share: 0.3,
      wait: 2,
      until: 'the wax is cold',
      lays: 0,
    },
    { id: 'take', name: 'Take it out, trim its seams', share: 0.15, wait: 0, until: '' },
  ],
  caution: 'Molten wax burns and catches fire: a water bath, never an open flame, and a lid at hand.',
});
