import { castKind, ranged } from './cast';

export const cement = castKind({
  id: 'cement',
  name: 'cement',
  wall: ranged([0.015, 0.02, 0.03]),
  density: ranged([2000, 2200, 2350]),
  shrinkage: ranged([0.0004, 0.0008, 0.0015]),
  made: [{ material: 'cement', share: 1 }],
  steps: [
    {
      id: 'lay',
      name: 'Lay in the cement, pressed into every corner, and keep it covered',
      share: 0.5,
      wait: 48,
      until: 'the cement bears being moved',
      lays: 0,
    },
    { id: 'take', name: 'Take it out, trim its seams, keep it damp a week', share: 0.2, wait: 0, until: '' },
  ],
  caution: 'Wet cement burns the skin: gloves and goggles. A mask against the dust.',
});
