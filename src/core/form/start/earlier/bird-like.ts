import type { Mass } from '../../../document';
import type { Vec3 } from '../../../quantity';
import { length, yesNo } from '../../measure';
import { ball, limb, startForm } from '../start-form';

export const birdLike = startForm({
  kind: 'bird-like',
  name: 'creature on two legs, like a bird',
  when: 'A heron, a raven, a dragon on its hind legs.',
  usualSize: 0.5,
  measures: {
    legLength: length('Legs, ground to body', 0.02, 2, 0.3),
    bodyLength: length('Body, breast to tail', 0.03, 2, 0.42),
    bodyBreadth: length('Body, across', 0.02, 1.5, 0.2),
    neckLength: length('Neck', 0, 2, 0.22),
    headLength: length('Head without the beak', 0.01, 0.6, 0.11),
    beakLength: length('Beak', 0, 0.8, 0.12),
    tailLength: length('Tail', 0, 1.5, 0.2),
    wings: yesNo('Wings, spread', false),
    wingSpan: length('Wings, tip to tip', 0.1, 6, 1.2),
  },
  make: (m) => {
    const r = m.bodyBreadth / 2;
    const back = m.legLength + r * 0.8;
    const half = m.bodyLength / 2;
    const breast: Vec3 = [0, -half * 0.75, back + r * 0.3];
    const poll: Vec3 = [0, breast[1] - m.neckLength * 0.35 - r * 0.1, breast[2] + r * 0.4 + m.neckLength * 0.9];
    const beak: Vec3 = [0, poll[1] - m.headLength * 0.42 - m.beakLength, poll[2] - m.beakLength * 0.12];
    const rump: Vec3 = [0, half * 0.8, back - r * 0.1];
    const tip: Vec3 = [0, rump[1] + m.tailLength, rump[2] - m.tailLength * 0.2];
    const hip: Vec3 = [r * 0.55, half * 0.1, m.legLength];
    const hock: Vec3 = [hip[0], hip[1] + m.legLength * 0.14, m.legLength * 0.55];
    const foot: Vec3 = [hip[0], hip[1] - m.legLength * 0.02, 0.02 * m.legLength];
    const thin = Math.max(0.004, m.legLength * 0.035);
    const c = (id: string, name: string, region: string, joint: string, blend = 0.3) => ({
      id,
      name,
      region,
      joint,
      blend: blend * r,
    });
    const wrist: Vec3 = [r * 0.9 + (m.wingSpan / 2 - r) * 0.45, -half * 0.3, back + r * 0.9];
    const wingTip: Vec3 = [m.wingSpan / 2, half * 0.2, back + r * 0.7];
    const masses: Mass[] = [
      ball(c('body', 'body', 'trunk', 'back', 0.6), [0, 0, back], [r, half, r * 0.95]),
      ball(
        c('breast', 'breast', 'trunk', 'back', 0.6),
        [0, breast[1], breast[2] - r * 0.2],
        [r * 0.85, r * 0.9, r * 0.9],
      ),
      ball(c('head', 'head', 'head', 'head', 0.15), poll, [m.headLength * 0.36, m.headLength / 2, m.headLength * 0.4]),
      limb(c('leg-left', 'thigh, left', 'legs', 'hip-left'), hip, hock, Math.max(r * 0.3, thin * 1.6), thin),
      limb(c('shank-left', 'shank, left', 'legs', 'hock-left', 0.05), hock, foot, thin, thin * 0.9),
      limb(
        c('toes-left', 'toes, left', 'feet', 'hock-left', 0.05),
        [foot[0], foot[1] + thin * 2, thin * 0.9],
        [foot[0], foot[1] - m.legLength * 0.3, thin * 0.9],
        thin * 0.9,
        thin * 0.7,
      ),
    ];
    if (m.neckLength > 0.004)
      masses.push(limb(c('neck', 'neck', 'neck', 'neck', 0.4), breast, poll, r * 0.5, m.headLength * 0.26));
    if (m.beakLength > 0.002)
      masses.push(
        limb(
          c('beak', 'beak', 'beak', 'head', 0.05),
          [0, poll[1] - m.headLength * 0.3, poll[2]],
          beak,
          m.headLength * 0.18,
          m.headLength * 0.03,
        ),
      );
    if (m.tailLength > 0.004) masses.push(limb(c('tail', 'tail', 'tail', 'tail'), rump, tip, r * 0.32, r * 0.18));
    if (m.wings) {
      masses.push(
        limb(
          c('wing-left', 'wing, left', 'wings', 'wing-left'),
          [r * 0.75, -half * 0.2, back + r * 0.5],
          wrist,
          r * 0.2,
          r * 0.15,
        ),
        limb(c('pinion-left', 'pinion, left', 'wings', 'pinion-left', 0.1), wrist, wingTip, r * 0.15, r * 0.05),
      );
    }
    const eyes = poll[2] + m.headLength * 0.08;
    return {
      masses,
      joints: [
        { id: 'back', name: 'back', parent: null, at: [0, hip[1], back] },
        { id: 'neck', name: 'foot of the neck', parent: 'back', at: breast },
        { id: 'head', name: 'head on the neck', parent: 'neck', at: poll },
        ...(m.beakLength > 0.002 ? [{ id: 'beak', name: 'tip of the beak', parent: 'head', at: beak }] : []),
        ...(m.tailLength > 0.004
          ? [
              { id: 'tail', name: 'root of the tail', parent: 'back', at: rump },
              { id: 'tail-tip', name: 'tip of the tail', parent: 'tail', at: tip },
            ]
          : []),
        ...(m.wings
          ? [
              {
                id: 'wing-left',
                name: 'shoulder of the wing, left',
                parent: 'back',
                at: [r * 0.75, -half * 0.2, back + r * 0.5] as Vec3,
              },
              { id: 'pinion-left', name: 'bend of the wing, left', parent: 'wing-left', at: wrist },
              { id: 'wing-tip-left', name: 'wing tip, left', parent: 'pinion-left', at: wingTip },
            ]
          : []),
        { id: 'hip-left', name: 'hip, left', parent: 'back', at: hip },
        { id: 'hock-left', name: 'hock, left', parent: 'hip-left', at: hock },
        { id: 'foot-left', name: 'foot, left', parent: 'hock-left', at: [foot[0], foot[1], 0], ground: true },
      ],
      landmarks: [
        { id: 'back', name: 'height of the back', joint: 'back', at: [0, 0, back + r * 0.95], half: r * 1.4 },
        { id: 'eyes', name: 'eyes', joint: 'head', at: [0, poll[1], eyes], half: m.headLength * 0.6 },
      ],
      envelopes: [],
    };
  },
});
