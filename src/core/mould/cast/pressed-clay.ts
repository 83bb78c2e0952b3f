import { castKind, ranged } from './cast';

export const pressedClay = castKind({
  id: 'pressed-clay',
  name: 'clay pressed in',
  wall: ranged([0.006, 0.008, 0.012]),
  density: ranged([1700, 1850, 1950]),
  shrinkage: ranged([0.04, 0.06, 0.08]),
  gives: true,
  caution: 'Dust of dry clay: wipe wet, never sweep.',
});
