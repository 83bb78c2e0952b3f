import { castKind, ranged } from './cast';

export const resinHollow = castKind({
  id: 'resin-hollow',
  name: 'polyurethane resin rolled round inside',
  wall: ranged([0.003, 0.004, 0.006]),
  density: ranged([1020, 1060, 1120]),
  shrinkage: ranged([0.003, 0.005, 0.008]),
  caution: 'Isocyanates: a respirator for vapour, gloves, moving air.',
});
