import type { Mass } from '../../../document';
import type { Vec3 } from '../../../quantity';
import { angle, length, share } from '../../measure';
import { ball, limb, startForm } from '../start-form';

export const fourLegged = startForm({
  kind: 'four-legged',
  name: 'creature on four legs',
  when: 'A dog, a horse, a dragon without wings: anything on four legs.',
  usualSize: 0.3,
  measures: {
    withers: length('Height at the shoulder', 0.05, 3, 0.62),
    bodyLength: length('Body, chest to rump', 0.05, 4, 0.7),
    girth: length('Chest, round', 0.05, 5, 0.72),
    neckLength: length('Neck', 0.02, 3, 0.24),
    neckRise: angle('Neck rises', -30, 85, 45),
    headLength: length('Head, nape to nose', 0.03, 1.5, 0.24),
    tailLength: length('Tail', 0, 3, 0.4),
    legs: share('Thickness of the legs against the usual', 0.4, 3, 1),
  },
  make: (m) => {
    const radius = m.girth / (2 * Math.PI);
    const half = m.bodyLength / 2 - radius * 0.8;
    const top = m.withers - radius;
    const leg = radius * 0.52 * m.legs;
    const rise = (m.neckRise * Math.PI) / 180;
    const shoulder: Vec3 = [radius * 0.6, -half, top];
    const hip: Vec3 = [radius * 0.58, half, top];
    const neckFoot: Vec3 = [0, -half - radius * 0.3, top + radius * 0.35];
    const poll: Vec3 = [0, neckFoot[1] - m.neckLength * Math.cos(rise), neckFoot[2] + m.neckLength * Math.sin(rise)];
    const nose: Vec3 = [0, poll[1] - m.headLength * 0.9, poll[2] - m.headLength * 0.32];
    const rump: Vec3 = [0, half + radius * 0.55, top + radius * 0.3];
    const tip: Vec3 = [0, rump[1] + m.tailLength * 0.6, rump[2] - m.tailLength * 0.8];
    const foreKnee: Vec3 = [shoulder[0], shoulder[1] + 0.02 * radius, top * 0.5];
    const foreFoot: Vec3 = [shoulder[0], shoulder[1] - 0.1 * radius, leg * 0.5];
    const hock: Vec3 = [hip[0], hip[1] + radius * 0.35, top * 0.45];
    const hindFoot: Vec3 = [hip[0], hip[1] + radius * 0.1, leg * 0.5];
    const c = (id: string, name: string, region: string, joint: string, blend = 0.25) => ({
      id,
      name,
      region,
      joint,
      blend: blend * radius,
    });
    const masses: Mass[] = [
      ball(c('chest', 'chest', 'trunk', 'chest', 0.6), [0, -half, top], [radius * 0.92, radius, radius]),
      limb(c('barrel', 'barrel', 'trunk', 'loin', 0.6), [0, -half, top], [0, half, top], radius * 0.92, radius * 0.8),
      ball(c('rump', 'rump', 'trunk', 'loin', 0.6), [0, half, top], [radius * 0.86, radius * 0.9, radius * 0.9]),
      limb(c('neck', 'neck', 'neck', 'neck', 0.5), neckFoot, poll, radius * 0.62, m.headLength * 0.22),
      limb(c('head', 'head', 'head', 'head', 0.2), poll, nose, m.headLength * 0.24, m.headLength * 0.13),
      ball(
        c('ear-left', 'ear, left', 'ears', 'head', 0.08),
        [m.headLength * 0.16, poll[1] + m.headLength * 0.02, poll[2] + m.headLength * 0.25],
        [m.headLength * 0.07, m.headLength * 0.05, m.headLength * 0.15],
      ),
      limb(
        c('fore-leg-left', 'foreleg, left', 'legs', 'shoulder-left', 0.5),
        shoulder,
        foreKnee,
        leg * 1.05,
        leg * 0.6,
      ),
      limb(
        c('fore-shank-left', 'fore shank, left', 'legs', 'fore-knee-left', 0.2),
        foreKnee,
        foreFoot,
        leg * 0.6,
        leg * 0.5,
      ),
      limb(c('thigh-left', 'thigh, left', 'legs', 'hip-left', 0.5), hip, hock, leg * 1.35, leg * 0.6),
      limb(c('hind-shank-left', 'hind shank, left', 'legs', 'hock-left', 0.2), hock, hindFoot, leg * 0.6, leg * 0.5),
    ];
    if (m.tailLength > 0.005)
      masses.push(limb(c('tail', 'tail', 'tail', 'tail', 0.2), rump, tip, radius * 0.2, radius * 0.07));
    return {
      masses,
      joints: [
        { id: 'loin', name: 'loins', parent: null, at: [0, half * 0.3, top] },
        { id: 'chest', name: 'chest', parent: 'loin', at: [0, -half, top] },
        { id: 'neck', name: 'foot of the neck', parent: 'chest', at: neckFoot },
        { id: 'head', name: 'head on the neck', parent: 'neck', at: poll },
        { id: 'nose', name: 'nose', parent: 'head', at: nose },
        { id: 'rump', name: 'rump', parent: 'loin', at: [0, half, top] },
        ...(m.tailLength > 0.005
          ? [
              { id: 'tail', name: 'root of the tail', parent: 'rump', at: rump },
              { id: 'tail-tip', name: 'tip of the tail', parent: 'tail', at: tip },
            ]
          : []),
        { id: 'shoulder-left', name: 'shoulder, left', parent: 'chest', at: shoulder },
        { id: 'fore-knee-left', name: 'fore knee, left', parent: 'shoulder-left', at: foreKnee },
        {
          id: 'fore-foot-left',
          name: 'fore foot, left',
          parent: 'fore-knee-left',
          at: [foreFoot[0], foreFoot[1], 0],
          ground: true,
        },
        { id: 'hip-left', name: 'hip, left', parent: 'rump', at: hip },
        { id: 'hock-left', name: 'hock, left', parent: 'hip-left', at: hock },
        {
          id: 'hind-foot-left',
          name: 'hind foot, left',
          parent: 'hock-left',
          at: [hindFoot[0], hindFoot[1], 0],
          ground: true,
        },
      ],
      landmarks: [
        {
          id: 'withers',
          name: 'height at the shoulder',
          joint: 'chest',
          at: [0, -half, m.withers],
          half: radius * 1.3,
        },
        {
          id: 'elbow',
          name: 'elbow, half the height',
          joint: 'chest',
          at: [0, -half, m.withers / 2],
          half: radius * 1.3,
        },
      ],
      envelopes: [],
    };
  },
});
