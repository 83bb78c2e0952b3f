import { castKind, ranged } from './cast';

export const paper = castKind({
  id: 'paper',
  name: 'paper laid in',
  wall: ranged([0.002, 0.003, 0.005]),
  density: ranged([500, 600, 700]),
  shrinkage: ranged([0.01, 0.02, 0.05]),
  bears: { youngs: 1.5e9, strength: ranged([5e6, 10e6, 15e6]) },
  made: [
    { material: 'paper', share: 0.75 },
    { material: 'paste', share: 0.25 },
  ],
  steps: [
    { id: 'paste', name: 'Tear the paper, cook the paste', share: 0.2, wait: 0, until: '', lays: 1 },
    {
      id: 'lay',
      name: 'Lay in torn paper and paste, six layers',
      share: 0.6,
      wait: 48,
      until: 'the paper is dry',
      lays: 0,
    },
    { id: 'take', name: 'Take it out, trim its edge', share: 0.15, wait: 0, until: '' },
  ],
  caution: 'It grows mould if it stays damp: dry it in moving air.',
});
