import type { Mass } from '../../../document';
import type { Vec3 } from '../../../quantity';
import { length } from '../../measure';
import { ball, type Envelope, type Landmark } from '../start-form';

/**
 * A human head by three callipers readings. Landmarks: the eyes half way up; the foot of the nose half way from brow
 * to chin; the mouth a third of the way from nose to chin; ears between brow and nose; breadth about two thirds of height.
 */
export const headMeasures = {
  headHeight: length('Head, chin to crown', 0.12, 0.4, 0.232),
  headBreadth: length('Head, ear to ear', 0.08, 0.3, 0.156),
  headDepth: length('Head, brow to nape', 0.1, 0.35, 0.196),
};

export interface HeadMeasures {
  readonly headHeight: number;
  readonly headBreadth: number;
  readonly headDepth: number;
}

/** `chin` is the lowest point of the jaw, `axis` the place of the head's middle from front to back. */
export function headMasses(m: HeadMeasures, chin: number, axis: number): Mass[] {
  const crown = chin + m.headHeight;
  const skullRadii: Vec3 = [m.headBreadth / 2, (m.headDepth / 2) * 0.95, m.headHeight * 0.37];
  return [
    ball(
      { id: 'skull', name: 'skull', region: 'head', joint: 'head', blend: 0.02 },
      [0, axis + m.headDepth * 0.04, crown - skullRadii[2]],
      skullRadii,
    ),
    ball(
      { id: 'face', name: 'face and jaw', region: 'head', joint: 'head', blend: 0.03, turn: [-8, 0, 0] },
      [0, axis - m.headDepth * 0.12, chin + m.headHeight * 0.39],
      [m.headBreadth * 0.42, m.headDepth * 0.36, m.headHeight * 0.4],
    ),
  ];
}

export function headLandmarks(m: HeadMeasures, chin: number, axis: number): Landmark[] {
  const brow = chin + m.headHeight * 0.62;
  const nose = chin + m.headHeight * 0.31;
  const line = (id: string, name: string, z: number, half: number): Landmark => ({
    id,
    name,
    joint: 'head',
    at: [0, axis - m.headDepth * 0.5, z],
    half,
  });
  const wide = m.headBreadth * 0.62;
  return [
    line('crown', 'crown', chin + m.headHeight, wide),
    line('brow', 'brow, tops of the ears', brow, wide),
    line('eyes', 'eyes, half way up', chin + m.headHeight / 2, wide),
    line('nose', 'foot of nose and ears', nose, wide),
    line('mouth', 'mouth', nose - (nose - chin) / 3, m.headBreadth * 0.3),
    line('chin', 'chin', chin, wide),
  ];
}

/** Half a hand's breadth is left for hair and brows. */
export function headEnvelope(m: HeadMeasures, chin: number, axis: number): Envelope {
  const slack = 0.012;
  return {
    id: 'skull',
    name: 'skull',
    joint: 'head',
    low: [-m.headBreadth / 2 - slack, axis - m.headDepth / 2 - slack, chin - 0.02],
    high: [m.headBreadth / 2 + slack, axis + m.headDepth / 2 + slack, chin + m.headHeight + slack],
  };
}
