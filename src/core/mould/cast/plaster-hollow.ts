import { castKind, ranged } from './cast';

export const plasterHollow = castKind({
  id: 'plaster-hollow',
  name: 'plaster, hollow',
  wall: ranged([0.008, 0.012, 0.02]),
  density: ranged([1100, 1150, 1250]),
  shrinkage: ranged([-0.003, -0.002, 0]),
  bears: { youngs: 3e9, strength: ranged([2.5e6, 5e6, 7.5e6]) },
  made: [{ material: 'plaster', share: 1 }],
  steps: [
    {
      id: 'lay',
      name: 'Lay in the plaster with fibre, or roll it round',
      share: 0.5,
      wait: 1.5,
      until: 'the plaster has set and cooled',
      mix: 'plaster',
      lays: 0,
    },
    { id: 'take', name: 'Take it out, trim its seams', share: 0.2, wait: 0, until: '' },
  ],
  caution: 'A mask against the dust; never on skin.',
});
