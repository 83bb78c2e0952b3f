import type { Mass } from '../../../document';
import type { Vec3 } from '../../../quantity';
import { angle, length } from '../../measure';
import type { Joint } from '../../skeleton';
import { ball, limb, startForm } from '../start-form';

export const longNeck = startForm({
  kind: 'long-neck',
  name: 'head on a long neck, or hung out from a wall or frame',
  when: 'A swan, a serpent, a carnival head: most of the weight well in front of what holds it.',
  usualSize: 1,
  measures: {
    headLength: length('Head, nape to nose', 0.05, 3, 0.7),
    headBreadth: length('Head, across', 0.04, 3, 0.55),
    headHeight: length('Head, jaw to crown', 0.04, 3, 0.6),
    neckLength: length('Neck', 0.02, 4, 0.6),
    neckThick: length('Neck, thick', 0.02, 2, 0.34),
    neckRise: angle('Neck rises at its foot', -10, 90, 60),
    neckBend: angle('Neck bends forward on its way', 0, 150, 50),
    muzzle: length('Muzzle stands out', 0, 2, 0.18),
    footHeight: length('Foot of the neck above the base', 0, 3, 0.25),
  },
  make: (m) => {
    const parts = 3;
    const joints: Joint[] = [{ id: 'base', name: 'foot of the frame', parent: null, at: [0, 0, 0], ground: true }];
    const masses: Mass[] = [];
    let at: Vec3 = [0, 0, Math.max(0.02, m.footHeight)];
    let parent = 'base';
    const r = m.neckThick / 2;
    for (let i = 0; i < parts; i++) {
      const rise = ((m.neckRise - (m.neckBend * (i + 0.5)) / parts) * Math.PI) / 180;
      const step = m.neckLength / parts;
      const to: Vec3 = [0, at[1] - Math.cos(rise) * step, at[2] + Math.sin(rise) * step];
      const id = `neck-${i + 1}`;
      joints.push({ id, name: i === 0 ? 'foot of the neck' : `neck, joint ${i + 1}`, parent, at });
      const thick = (share: number) => r * (1.12 - 0.24 * share);
      masses.push(
        limb(
          { id, name: `neck, part ${i + 1}`, region: 'neck', joint: id, blend: r * 0.4 },
          at,
          to,
          thick(i / parts),
          thick((i + 1) / parts),
        ),
      );
      at = to;
      parent = id;
    }
    const [, y, z] = at;
    const half = m.headLength / 2;
    const middle: Vec3 = [0, y - half * 0.7, z + m.headHeight * 0.1];
    const nose: Vec3 = [0, middle[1] - half * 0.9 - m.muzzle, middle[2] - m.headHeight * 0.16];
    joints.push(
      { id: 'head', name: 'head on the neck', parent, at },
      { id: 'brow', name: 'middle of the head', parent: 'head', at: middle },
      {
        id: 'nose',
        name: 'nose',
        parent: 'brow',
        at: [0, nose[1] + m.headHeight * 0.22, nose[2] + m.headHeight * 0.02],
      },
    );
    masses.push(
      ball({ id: 'head', name: 'head', region: 'head', joint: 'head', blend: r * 0.5 }, middle, [
        m.headBreadth / 2,
        half,
        m.headHeight / 2,
      ]),
    );
    if (m.muzzle > 0.004) {
      masses.push(
        limb(
          { id: 'muzzle', name: 'muzzle', region: 'muzzle', joint: 'head', blend: m.headHeight * 0.12 },
          [0, middle[1] - half * 0.5, middle[2] - m.headHeight * 0.12],
          [0, nose[1] + m.headHeight * 0.2, nose[2]],
          m.headHeight * 0.3,
          m.headHeight * 0.22,
        ),
      );
    }
    return {
      joints,
      masses,
      envelopes: [],
      landmarks: [
        {
          id: 'eyes',
          name: 'eyes',
          joint: 'head',
          at: [0, middle[1] - half * 0.5, middle[2] + m.headHeight * 0.14],
          half: m.headBreadth * 0.6,
        },
      ],
    };
  },
});
