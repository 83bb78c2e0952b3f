import { castKind, ranged } from './cast';

export const siliconeSkin = castKind({
  id: 'silicone-skin',
  name: 'brushed silicone skin',
  wall: ranged([0.002, 0.003, 0.005]),
  density: ranged([1080, 1120, 1200]),
  shrinkage: ranged([0.001, 0.004, 0.006]),
  gives: true,
  caution: 'Gloves and moving air.',
});
