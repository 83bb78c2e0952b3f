import type { Mass } from '../../document';
import { choice, length } from '../measure';
import { ball, block, drum, limb, startForm } from './start-form';

export const foundObject = startForm({
  kind: 'found-object',
  version: 2,
  types: [
    { id: 'bottle', name: 'a bottle', measures: {} },
    { id: 'jar', name: 'a jar', measures: { object: 'jar', height: 0.14, breadth: 0.09 } },
    { id: 'boot', name: 'a boot', measures: { object: 'boot', height: 0.26, breadth: 0.1, depth: 0.28 } },
    { id: 'ball', name: 'a ball', measures: { object: 'ball', height: 0.22, breadth: 0.22 } },
  ],
  name: 'piece on a found object',
  when: 'Clay over a bottle, a jar, a shoe or a ball that stays inside.',
  usualSize: 1,
  measures: {
    object: choice(
      'The object',
      [
        { id: 'bottle', name: 'a bottle' },
        { id: 'jar', name: 'a jar' },
        { id: 'boot', name: 'a boot' },
        { id: 'block', name: 'a block, like a box' },
        { id: 'ball', name: 'a ball' },
      ],
      'bottle',
    ),
    height: length('High', 0.02, 2, 0.26),
    breadth: length('Across, at its widest', 0.02, 2, 0.085),
    depth: length('Front to back (a boot, a block)', 0.02, 2, 0.28),
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
    if (m.object === 'ball') masses.push(ball(c('object', 'ball'), [0, 0, m.height / 2], [r, r, m.height / 2]));
    else if (m.object === 'boot') {
      const sole = Math.min(0.02, m.height * 0.12);
      // Where heel, waist and toe run into each other they swell.
      const stand = sole * 0.5 + r * 0.05;
      const heel = m.depth / 2 - r * 0.9;
      const part = (id: string, name: string, blend = r * 0.24) => ({ ...c(id, name), blend });
      masses.push(
        block(c('sole', 'sole'), [0, 0, sole / 2 + 0.001], [r, m.depth / 2, sole / 2], sole * 0.4),
        ball(
          part('object', 'toe cap'),
          [0, -m.depth / 2 + r * 1.15, stand + Math.min(r * 0.85, m.height * 0.3)],
          [r * 0.96, r * 1.2, Math.min(r * 0.85, m.height * 0.3)],
        ),
        ball(
          part('object-waist', 'waist of the boot'),
          [0, -m.depth * 0.08, stand + Math.min(r * 0.95, m.height * 0.3)],
          [r * 0.84, m.depth * 0.34, Math.min(r * 0.95, m.height * 0.3)],
        ),
        limb(
          part('instep', 'instep'),
          [0, -m.depth / 2 + r * 1.4, stand + r * 0.72],
          [0, m.depth * 0.06, Math.max(sole + r, m.height * 0.42)],
          r * 0.7,
          r * 0.84,
        ),
        ball(part('heel', 'heel'), [0, heel, stand + r * 0.96], [r * 0.86, r * 0.9, r * 0.95]),
        block(
          part('shaft', 'shaft of the boot'),
          [0, m.depth * 0.2, (sole + m.height) / 2],
          [r * 0.86, m.depth * 0.26, (m.height - sole) / 2],
          r * 0.5,
        ),
      );
    } else if (m.object === 'block')
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
      if (m.object === 'jar')
        masses.push(drum(c('lid', 'lid of the jar'), [0, 0, m.height - r * 0.12], r * 1.04, r * 0.14, r * 0.06));
      if (neck > 0)
        masses.push(
          drum(
            { ...c('lip', 'lip of the bottle'), blend: 0.002 },
            [0, 0, m.height - m.neckBreadth * 0.3],
            m.neckBreadth * 0.62,
            m.neckBreadth * 0.2,
            m.neckBreadth * 0.08,
          ),
          limb(
            { ...c('neck', 'neck of the bottle'), blend: m.neckBreadth * 0.8 },
            [0, 0, wall - r * 0.4],
            [0, 0, m.height - m.neckBreadth / 2],
            Math.max(m.neckBreadth / 2, r * 0.5),
            m.neckBreadth / 2,
          ),
        );
    }
    const middle = m.height * 0.5;
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
          at: [0, 0, m.height * 0.95],
        },
      ],
    };
  },
});
