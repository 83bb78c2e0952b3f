import { castKind, ranged } from './cast';

export const epoxyGlass = castKind({
  id: 'epoxy-glass',
  name: 'epoxy with glass',
  wall: ranged([0.002, 0.003, 0.005]),
  density: ranged([1500, 1600, 1800]),
  shrinkage: ranged([0.002, 0.003, 0.004]),
  bears: { youngs: 6e9, strength: ranged([40e6, 80e6, 120e6]) },
  made: [
    { material: 'epoxy', share: 0.6 },
    { material: 'glass', share: 0.4 },
  ],
  steps: [
    {
      id: 'brush',
      name: 'Brush in the epoxy',
      share: 0.2,
      wait: 0,
      until: '',
      mix: 'coating-resin',
      lays: 0,
      needs: ['respirator', 'gloves', 'fresh air'],
    },
    {
      id: 'lay',
      name: 'Lay the glass into the wet epoxy, roll out the air',
      share: 0.5,
      wait: 24,
      until: 'the epoxy is hard',
      lays: 1,
      needs: ['respirator', 'gloves', 'fresh air'],
    },
    {
      id: 'take',
      name: 'Take it out, cut its edge, wet',
      share: 0.25,
      wait: 0,
      until: '',
      needs: ['respirator', 'gloves'],
    },
  ],
  caution: 'A respirator, gloves, moving air; glass dust when it is cut.',
});
