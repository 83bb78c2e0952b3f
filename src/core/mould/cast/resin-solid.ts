import { castKind, ranged } from './cast';

export const resinSolid = castKind({
  id: 'resin-solid',
  name: 'polyurethane resin, solid',
  wall: null,
  density: ranged([1020, 1060, 1120]),
  shrinkage: ranged([0.003, 0.005, 0.008]),
  caution: 'Isocyanates: a respirator for vapour, gloves, moving air. Thick resin gets hot.',
});
