import { length } from '../measure';
import { ball, startForm } from './start-form';

export const free = startForm({
  kind: 'free',
  name: 'free start',
  when: 'One ball to begin with; add, stretch and join masses as you like.',
  usualSize: 1,
  measures: { diameter: length('Ball to begin with', 0.01, 3, 0.2), lift: length('Above the base', 0, 3, 0.05) },
  make: (m) => ({
    masses: [
      ball(
        { id: 'lump', name: 'lump', region: 'body', joint: 'body', blend: 0.02 },
        [0, 0, m.lift + m.diameter / 2],
        [m.diameter / 2, m.diameter / 2, m.diameter / 2],
      ),
    ],
    joints: [
      { id: 'base', name: 'foot', parent: null, at: [0, 0, 0], ground: true },
      { id: 'body', name: 'middle', parent: 'base', at: [0, 0, m.lift + m.diameter / 2] },
    ],
    landmarks: [],
    envelopes: [],
  }),
});
