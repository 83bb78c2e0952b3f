import { castKind, ranged } from './cast';

export const plasterSolid = castKind({
  id: 'plaster-solid',
  name: 'plaster, solid',
  wall: null,
  density: ranged([1100, 1150, 1250]),
  shrinkage: ranged([-0.003, -0.002, 0]),
  made: [{ material: 'plaster', share: 1 }],
  steps: [
    {
      id: 'lay',
      name: 'Mix the plaster and pour it',
      share: 0.25,
      wait: 1.5,
      until: 'the plaster has set and cooled',
      mix: 'plaster',
      lays: 0,
    },
    { id: 'take', name: 'Take it out, trim its seams', share: 0.2, wait: 0, until: '' },
  ],
  caution: 'A mask against the dust; thick plaster gets hot enough to burn.',
});
