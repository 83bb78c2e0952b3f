import { castKind, ranged } from './cast';

export const plasterSolid = castKind({
  id: 'plaster-solid',
  name: 'plaster, solid',
  wall: null,
  density: ranged([1100, 1150, 1250]),
  shrinkage: ranged([-0.003, -0.002, 0]),
  caution: 'A mask against the dust; thick plaster gets hot enough to burn.',
});
