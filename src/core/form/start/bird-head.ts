import type { Mass } from '../../document';
import { add, mix, type Vec3 } from '../../quantity';
import { choice, length, share, type MeasuresOf } from '../measure';
import { ball, limb, ring } from './start-form';

/** A bird's head, about the place where the neck comes into the skull: the beak forward (y below 0), level. */
export const birdHeadMeasures = {
  headLength: length('Head without the beak', 0.01, 0.6, 0.11),
  beakLength: length('Beak', 0, 0.8, 0.12),
  beakThick: share('Beak, thick at its root, of the head', 0.1, 0.8, 0.34),
  beakShape: choice(
    'Shape of the beak',
    [
      { id: 'straight', name: 'straight' },
      { id: 'hooked', name: 'hooked' },
      { id: 'flat', name: 'broad and flat' },
    ],
    'straight',
  ),
  beakOpen: share('Beak open', 0, 1, 0),
  birdEyes: share('Eyes across, of the head', 0.05, 0.6, 0.2),
  faceDisc: share('Face flat round the eyes, as an owl’s', 0, 1, 0),
  crestLength: length('Crest on the head', 0, 0.4, 0),
};
export type BirdHead = MeasuresOf<typeof birdHeadMeasures>;

const part = (id: string, name: string, blend: number, region = 'head') => ({ id, name, region, joint: 'head', blend });

/** Root and tip of the beak and its middle line between. */
function beakLine(m: BirdHead): { root: Vec3; tip: Vec3 } {
  const l = m.headLength;
  const drop = m.beakShape === 'hooked' ? 0.1 : 0.06;
  return { root: [0, -0.74 * l, -0.06 * l], tip: [0, -0.86 * l - m.beakLength, -0.06 * l - drop * m.beakLength] };
}

/** Where a wire through the head ends: inside the beak while it is thick enough for one, else in the skull. */
export function birdHeadEnd(m: BirdHead): Vec3 {
  const { root, tip } = beakLine(m);
  return m.beakLength > 0.3 * m.headLength ? mix(root, tip, 0.3) : [0, -0.5 * m.headLength, 0];
}

export function birdHeadMasses(m: BirdHead): Mass[] {
  const l = m.headLength;
  const disc = m.faceDisc;
  const r = (m.birdEyes * l) / 2;
  // An owl's eyes look forward, another bird's to the side.
  const eye: Vec3 = [(0.33 - 0.11 * disc) * l, (-0.56 - 0.24 * disc) * l, 0.07 * l];
  const masses: Mass[] = [
    ball(part('skull', 'skull', 0.08 * l), [0, -0.42 * l, 0.03 * l], [(0.36 + 0.12 * disc) * l, 0.48 * l, 0.4 * l]),
    ball(
      part('cheek-left', 'cheek, left', 0.08 * l),
      [0.18 * l, -0.5 * l, -0.14 * l],
      [(0.19 + 0.1 * disc) * l, 0.28 * l, 0.22 * l],
    ),
    limb(
      part('brow-left', 'brow, left', 0.04 * l),
      [0.1 * l, -0.82 * l, (0.12 + 0.06 * disc) * l],
      [eye[0] + 0.01 * l, -0.4 * l - 0.3 * disc * l, eye[2] + r * 1.1],
      0.055 * l,
      0.06 * l,
    ),
    ball(part('eye-left', 'eye, left', 0.02 * r), eye, [r, r, r]),
    ring(
      { ...part('eye-ring-left', 'rim of the eye, left', 0.3 * r), turn: [0, 90 - 30 * disc, -14 - 50 * disc] },
      add(eye, [0.35 * r * (1 - disc), -0.5 * r * disc, 0]),
      r * 0.98,
      r * 0.24,
    ),
  ];
  if (disc > 0.2)
    masses.push(
      ring(
        { ...part('face-disc-left', 'edge of the face, left', 0.05 * l), turn: [90, 0, -28] },
        add(eye, [0.02 * l, 0.1 * l, -0.02 * l]),
        0.25 * l,
        0.05 * l,
      ),
    );
  if (m.beakLength > 0.002) masses.push(...beak(m));
  if (m.crestLength > 0.004)
    for (const [k, back] of [0.2, 0.45, 0.7].entries()) {
      const from: Vec3 = [0, -(0.62 - 0.22 * k) * l, 0.36 * l];
      masses.push(
        limb(
          part(`crest-${k + 1}`, `feather ${k + 1} of the crest`, 0.05 * l),
          from,
          add(from, [0, m.crestLength * back, m.crestLength * (0.75 - 0.2 * k)]),
          0.085 * l,
          0.045 * l,
        ),
      );
    }
  return masses;
}

function beak(m: BirdHead): Mass[] {
  const l = m.headLength;
  const { root, tip } = beakLine(m);
  const r = (m.beakThick * l) / 2;
  const of = (id: string, name: string, blend = 0.04) => part(id, name, blend * l, 'beak');
  const open = m.beakOpen * 0.35 * m.beakLength;
  const lower = (thick: number): Mass =>
    limb(
      of('beak-lower', 'lower beak'),
      add(root, [0, 0, -0.75 * r]),
      add(mix(root, tip, 0.86), [0, 0.4 * open, -0.45 * r - open]),
      thick * 0.62,
      thick * 0.22,
    );
  if (m.beakShape === 'flat')
    return [
      limb(of('beak', 'beak'), root, mix(root, tip, 0.7), r, r * 0.52),
      ball(of('beak-tip', 'end of the beak'), mix(root, tip, 0.66), [r * 1.15, m.beakLength * 0.36, r * 0.5]),
      lower(r * 0.8),
    ];
  if (m.beakShape === 'hooked') {
    const bend = add(mix(root, tip, 0.62), [0, 0, 0.05 * m.beakLength]);
    return [
      limb(of('beak', 'beak'), root, bend, r, r * 0.64),
      limb(
        of('beak-tip', 'hook of the beak', 0.02),
        bend,
        add(tip, [0, 0.1 * m.beakLength, -0.34 * m.beakLength]),
        r * 0.62,
        r * 0.16,
      ),
      lower(r),
    ];
  }
  return [limb(of('beak', 'beak'), root, tip, r, r * 0.2), lower(r)];
}
