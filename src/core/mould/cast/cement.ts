import { castKind, ranged } from './cast';

export const cement = castKind({
  id: 'cement',
  name: 'cement',
  wall: ranged([0.015, 0.02, 0.03]),
  density: ranged([2000, 2200, 2350]),
  shrinkage: ranged([0.0004, 0.0008, 0.0015]),
  caution: 'Wet cement burns the skin: gloves and goggles. A mask against the dust.',
});
