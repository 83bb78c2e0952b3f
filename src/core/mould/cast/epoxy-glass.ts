import { castKind, ranged } from './cast';

export const epoxyGlass = castKind({
  id: 'epoxy-glass',
  name: 'epoxy with glass',
  wall: ranged([0.002, 0.003, 0.005]),
  density: ranged([1500, 1600, 1800]),
  shrinkage: ranged([0.002, 0.003, 0.004]),
  caution: 'A respirator, gloves, moving air; glass dust when it is cut.',
});
