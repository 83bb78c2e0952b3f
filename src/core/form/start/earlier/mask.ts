import type { Mass } from '../../../document';
import { choice, length, yesNo } from '../../measure';
import { ball, limb, startForm } from '../start-form';

/** Breadth of a head of a given girth, taking it for an ellipse 0.78 as broad as it is deep. */
export function breadthOfGirth(girth: number): { breadth: number; depth: number } {
  const ratio = 0.78;
  // Ramanujan's first formula for the girth of an ellipse.
  const h = 3 * (1 + ratio) - Math.sqrt((3 + ratio) * (1 + 3 * ratio));
  const depth = (2 * girth) / (Math.PI * h);
  return { breadth: depth * ratio, depth };
}

export const mask = startForm({
  kind: 'mask',
  name: 'mask on a head form',
  when: 'A mask master built out over a life form, to the wearer’s girths.',
  usualSize: 1,
  measures: {
    cover: choice(
      'Covers',
      [
        { id: 'full', name: 'the whole face' },
        { id: 'half', name: 'brow to upper lip' },
      ],
      'full',
    ),
    headGirth: length('Wearer’s head, round above the brows', 0.45, 0.7, 0.57),
    chinToCrown: length('Wearer’s head, chin to crown', 0.17, 0.3, 0.228),
    neckGirth: length('Wearer’s neck, round', 0.22, 0.55, 0.36),
    muzzle: length('Muzzle stands out', 0, 0.35, 0.05),
    muzzleBreadth: length('Muzzle, across', 0.02, 0.25, 0.095),
    brow: length('Brow stands out', 0, 0.08, 0.012),
    cheeks: length('Cheeks stand out', 0, 0.08, 0.012),
    ears: yesNo('Round ears', true),
    standHeight: length('Stand under the form', 0.02, 0.5, 0.12),
  },
  make: (m) => {
    const { breadth, depth } = breadthOfGirth(m.headGirth);
    const chin = m.standHeight + 0.07;
    const high = m.chinToCrown;
    const at = (share: number) => chin + high * share;
    const neck = m.neckGirth / (2 * Math.PI);
    const front = -depth * 0.12;
    const clay = (id: string, name: string, region = 'mask') => ({ id, name, region, joint: 'head', blend: 0.014 });
    const core = (id: string, name: string, role: 'core' | 'bare') => ({
      id,
      name,
      region: role === 'core' ? 'mask' : 'head-form',
      joint: 'head',
      blend: 0.02,
      role,
    });
    const masses: Mass[] = [
      limb(
        { ...core('form-neck', 'neck of the form', 'bare'), joint: 'stand' },
        [0, 0.02, m.standHeight],
        [0, 0.01, chin + 0.03],
        neck,
        neck,
      ),
      ball(
        core('form-back', 'back of the form', 'bare'),
        [0, depth * 0.1, at(0.62)],
        [breadth / 2, depth * 0.4, high * 0.38],
      ),
      ball(
        core('form-brow', 'brow of the form', 'core'),
        [0, front + depth * 0.06, at(0.66)],
        [breadth * 0.47, depth * 0.4, high * 0.3],
      ),
    ];
    const jaw = ball(
      core('form-face', 'face of the form', m.cover === 'full' ? 'core' : 'bare'),
      [0, front - depth * 0.02, at(0.38)],
      [breadth * 0.41, depth * 0.37, high * 0.38],
    );
    masses.push(jaw);
    if (m.cover === 'half')
      masses.push(
        ball(
          core('form-nose', 'nose of the form', 'core'),
          [0, front - depth * 0.1, at(0.47)],
          [breadth * 0.38, depth * 0.3, high * 0.16],
        ),
      );
    const face = front - depth * 0.33;
    if (m.muzzle > 0.001) {
      const across = m.muzzleBreadth / 2;
      masses.push(
        limb(
          clay('muzzle', 'muzzle', 'muzzle'),
          [0, face + 0.03, at(0.36)],
          [0, face - m.muzzle + across * 0.55, at(0.31)],
          across,
          across * 0.72,
        ),
      );
      masses.push(
        ball(
          clay('nose-pad', 'nose pad', 'muzzle'),
          [0, face - m.muzzle + across * 0.05, at(0.37)],
          [across * 0.42, across * 0.35, across * 0.3],
        ),
      );
    }
    if (m.brow > 0.001)
      masses.push(
        ball(
          clay('brow-left', 'brow, left'),
          [breadth * 0.22, face + 0.03 - m.brow * 0.5, at(0.66)],
          [breadth * 0.2, 0.016 + m.brow * 0.6, high * 0.07],
        ),
      );
    if (m.cheeks > 0.001)
      masses.push(
        ball(
          clay('cheek-left', 'cheek, left'),
          [breadth * 0.28, face + 0.045 - m.cheeks * 0.5, at(0.37)],
          [breadth * 0.17, 0.02 + m.cheeks * 0.6, high * 0.14],
        ),
      );
    if (m.ears)
      masses.push(ball(clay('ear-left', 'ear, left', 'ears'), [breadth * 0.5, 0.0, at(0.82)], [0.026, 0.012, 0.026]));
    return {
      joints: [
        { id: 'stand', name: 'foot of the stand', parent: null, at: [0, 0.02, 0], ground: true },
        { id: 'head', name: 'head of the form', parent: 'stand', at: [0, 0.01, at(0.4)] },
        { id: 'crown', name: 'crown of the form', parent: 'head', at: [0, 0.01, at(0.8)] },
      ],
      masses,
      landmarks: [
        { id: 'eyes', name: 'eyes, half way up', joint: 'head', at: [0, -depth * 0.5, at(0.5)], half: breadth * 0.6 },
        { id: 'nose', name: 'foot of the nose', joint: 'head', at: [0, -depth * 0.5, at(0.31)], half: breadth * 0.4 },
        { id: 'mouth', name: 'mouth', joint: 'head', at: [0, -depth * 0.5, at(0.2)], half: breadth * 0.3 },
        {
          id: 'girth',
          name: 'girth above the brows',
          joint: 'head',
          at: [0, -depth * 0.5, at(0.68)],
          half: breadth * 0.6,
        },
      ],
      envelopes: [],
    };
  },
});
