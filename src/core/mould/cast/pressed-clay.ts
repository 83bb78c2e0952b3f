import { castKind, ranged } from './cast';

export const pressedClay = castKind({
  id: 'pressed-clay',
  name: 'clay pressed in',
  wall: ranged([0.006, 0.008, 0.012]),
  density: ranged([1700, 1850, 1950]),
  shrinkage: ranged([0.04, 0.06, 0.08]),
  gives: true,
  made: [{ material: 'clay', share: 1 }],
  steps: [
    {
      id: 'lay',
      name: 'Press in the clay, even all over',
      share: 0.4,
      wait: 3,
      until: 'the clay has come off the mould',
      lays: 0,
    },
    { id: 'take', name: 'Take it out, close its seams', share: 0.2, wait: 0, until: '' },
  ],
  caution: 'Dust of dry clay: wipe wet, never sweep.',
});
