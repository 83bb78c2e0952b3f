import type { Mass } from '../../../document';
import { choice, length } from '../../measure';
import { ball, block, drum, limb, startForm } from '../start-form';

export const foundObject = startForm({
  kind: 'found-object',
  name: 'piece on a found object',
  when: 'Clay over a bottle, a jar, a shoe or a ball that stays inside.',
  usualSize: 1,
  measures: {
    object: choice(
      'The object',
      [
        { id: 'bottle', name: 'a bottle' },
        { id: 'jar', name: 'a jar' },
        { id: 'block', name: 'a block, like a shoe' },
        { id: 'ball', name: 'a ball' },
      ],
      'bottle',
    ),
    height: length('High', 0.02, 2, 0.26),
    breadth: length('Across, at its widest', 0.02, 2, 0.085),
    depth: length('Front to back (a block)', 0.02, 2, 0.28),
    neckHeight: length('Neck, high (a bottle)', 0.005, 1, 0.08),
    neckBreadth: length('Neck, across (a bottle)', 0.005, 1, 0.03),
  },
  make: (m) => {
    const r = m.breadth / 2;
    const c = (id: string, name: string) => ({
      id,
      name,
      region: 'body',
      joint: 'object',
      blend: 0.004,
      role: 'core' as const,
    });
    const masses: Mass[] = [];
    if (m.object === 'ball') masses.push(ball(c('object', 'ball'), [0, 0, r], [r, r, m.height / 2]));
    else if (m.object === 'block')
      masses.push(
        block(
          c('object', 'block'),
          [0, 0, m.height / 2],
          [r, m.depth / 2, m.height / 2],
          Math.min(r, m.depth / 2, m.height / 2) * 0.3,
        ),
      );
    else {
      const neck = m.object === 'bottle' ? Math.min(m.neckHeight, m.height * 0.6) : 0;
      const wall = m.height - neck;
      masses.push(
        drum(
          c('object', m.object === 'jar' ? 'jar' : 'bottle'),
          [0, 0, wall / 2],
          r,
          wall / 2,
          Math.min(r, wall / 2) * 0.3,
        ),
      );
      if (neck > 0)
        masses.push(
          limb(
            { ...c('neck', 'neck of the bottle'), blend: m.neckBreadth * 0.8 },
            [0, 0, wall - r * 0.4],
            [0, 0, m.height - m.neckBreadth / 2],
            Math.max(m.neckBreadth / 2, r * 0.5),
            m.neckBreadth / 2,
          ),
        );
    }
    const middle = m.object === 'ball' ? r : m.height * 0.5;
    return {
      masses,
      landmarks: [],
      envelopes: [],
      joints: [
        { id: 'base', name: 'foot of the object', parent: null, at: [0, 0, 0], ground: true },
        { id: 'object', name: 'middle of the object', parent: 'base', at: [0, 0, middle] },
        {
          id: 'top',
          name: 'top of the object',
          parent: 'object',
          at: [0, 0, m.object === 'ball' ? r + m.height * 0.45 : m.height * 0.95],
        },
      ],
    };
  },
});
