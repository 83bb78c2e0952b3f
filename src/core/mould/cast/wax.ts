import { castKind, ranged } from './cast';

export const wax = castKind({
  id: 'wax',
  name: 'wax',
  wall: ranged([0.004, 0.005, 0.008]),
  density: ranged([880, 920, 960]),
  shrinkage: ranged([0.01, 0.02, 0.03]),
  caution: 'Molten wax burns and catches fire: a water bath, never an open flame, and a lid at hand.',
});
