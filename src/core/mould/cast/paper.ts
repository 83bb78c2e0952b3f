import { castKind, ranged } from './cast';

export const paper = castKind({
  id: 'paper',
  name: 'paper laid in',
  wall: ranged([0.002, 0.003, 0.005]),
  density: ranged([500, 600, 700]),
  shrinkage: ranged([0.01, 0.02, 0.05]),
  caution: 'It grows mould if it stays damp: dry it in moving air.',
});
