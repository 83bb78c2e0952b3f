import type { Mass } from '../../document';
import type { Vec3 } from '../../quantity';
import type { HeadMeasures } from './human-head';
import { ball, limb } from './start-form';

type NeckMeasures = HeadMeasures & {
  readonly neckGirth: number;
  readonly headForward: number;
  readonly throat?: number;
};

/**
 * The neck as a column with what stands out on it: nape, the two muscles from behind the ears to the pit of the collar
 * bones, and the throat. `collar` and `chin` are heights; `shoulder` is where its slope meets the shoulders, if it has any.
 */
export function neckMasses(m: NeckMeasures, collar: number, chin: number, shoulder: Vec3 | null): Mass[] {
  const u = m.headHeight / 0.232;
  // The muscles make up a part of what the tape goes round.
  const radius = (m.neckGirth / (2 * Math.PI)) * 0.94;
  const axis = -m.headForward;
  const lean = 0.007 - m.headForward * 0.6;
  const part = (id: string, name: string, blend: number) => ({
    id,
    name,
    region: 'neck',
    joint: 'neck',
    blend: blend * u,
  });
  const foot = collar - 0.03;
  const ear = chin + m.headHeight * 0.4;
  const masses = [
    limb(
      part('neck', 'neck', 0.03),
      [0, 0.012, foot],
      [0, lean + 0.012 * u, chin + 0.03 * u],
      radius * 1.04,
      radius * 0.95,
    ),
    limb(
      part('nape', 'nape', 0.03),
      [0, 0.012 + radius * 0.3, foot],
      [0, axis + m.headDepth * 0.24, chin + m.headHeight * 0.4],
      radius * 0.78,
      radius * 0.66,
    ),
  ];
  if (!m.bone)
    masses.push(
      limb(
        part('neck-muscle-left', 'neck muscle, left', 0.008),
        [Math.min(m.headBreadth * 0.37, m.cheekbones * 0.4), axis + 0.016 * u, ear],
        [0.013 * u, 0.012 - radius * 0.84, collar - 0.016],
        0.0095 * u,
        0.008 * u,
      ),
    );
  if ((m.throat ?? 0) > 0.001) {
    const way = 0.45;
    const z = foot + (chin + 0.03 * u - foot) * way;
    const y = 0.012 + (lean + 0.012 * u - 0.012) * way - radius;
    masses.push(
      ball(part('throat', 'throat', 0.014), [0, y + 0.008 * u - (m.throat ?? 0), z], [0.008 * u, 0.008 * u, 0.014 * u]),
    );
  }
  if (shoulder)
    masses.push(
      limb(
        part('slope-left', 'slope of the neck, left', 0.022),
        [0.024 * u, axis * 0.6 + m.headDepth * 0.2, chin + m.headHeight * 0.08],
        shoulder,
        0.019 * u,
        0.017 * u,
      ),
    );
  return masses;
}
