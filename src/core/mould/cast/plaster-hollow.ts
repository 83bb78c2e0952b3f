import { castKind, ranged } from './cast';

export const plasterHollow = castKind({
  id: 'plaster-hollow',
  name: 'plaster, hollow',
  wall: ranged([0.008, 0.012, 0.02]),
  density: ranged([1100, 1150, 1250]),
  shrinkage: ranged([-0.003, -0.002, 0]),
  caution: 'A mask against the dust; never on skin.',
});
