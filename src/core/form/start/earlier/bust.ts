import type { Mass } from '../../../document';
import type { Vec3 } from '../../../quantity';
import { choice, length, yesNo, type MeasuresOf } from '../../measure';
import type { Joint } from '../../skeleton';
import { bustLevels, type BustLevels } from '../bust-levels';
import { ball, block, limb, startForm } from '../start-form';
import { headEnvelope, headLandmarks, headMasses, headMeasures } from './human-head';

/** A bust from a few measures a maker takes with callipers and tape, at life size. */
const bustMeasures = {
  ...headMeasures,
  headForward: length('Head hangs forward', -0.1, 0.25, 0.03),
  neckGirth: length('Neck, round', 0.15, 0.7, 0.37),
  neckLength: length('Neck showing', 0.01, 0.25, 0.06),
  shoulders: yesNo('Shoulders', true),
  arms: choice(
    'Arms',
    [
      { id: 'none', name: 'none' },
      { id: 'upper', name: 'to above the elbow' },
      { id: 'whole', name: 'whole, with hands' },
    ],
    'none',
  ),
  shoulderBreadth: length('Shoulders, across', 0.2, 0.7, 0.42),
  chestDepth: length('Chest, front to back', 0.1, 0.4, 0.22),
  chestHeight: length('Chest, edge to collar', 0.06, 0.45, 0.17),
  standHeight: length('Bare upright below', 0.01, 0.5, 0.07),
};
type BustMeasures = MeasuresOf<typeof bustMeasures>;

function chestMasses(m: BustMeasures, at: BustLevels): Mass[] {
  const high = m.chestHeight;
  const deep = m.chestDepth / 2;
  const breadth = m.shoulders ? m.shoulderBreadth : m.shoulderBreadth * 0.62;
  const trunk: Vec3 = [breadth * 0.34, deep, high / 2];
  const chest = block(
    { id: 'chest', name: 'chest', region: 'chest', joint: 'chest', blend: 0.02 },
    [0, 0, at.bottom + high / 2 - 0.004],
    trunk,
    0.8 * Math.min(...trunk),
  );
  if (!m.shoulders) return [chest];
  // Shoulders slope from the collar down to the point of each shoulder, thinner than the chest is deep.
  const thick = Math.min(high * 0.34, deep * 0.62);
  const inner = m.shoulderBreadth * 0.13;
  const outer = m.shoulderBreadth / 2 - thick;
  const top: Vec3 = [inner, 0.008, at.collar - thick * 0.95];
  return [
    chest,
    limb(
      { id: 'shoulder-left', name: 'shoulder, left', region: 'chest', joint: 'chest', blend: 0.05 },
      top,
      [outer, 0.004, at.bottom + high * 0.44],
      thick * 0.9,
      thick,
    ),
  ];
}

/** Upper arm, forearm and hand hang from the point of the shoulder. */
function arms(m: BustMeasures, at: BustLevels): { masses: Mass[]; joints: Joint[] } {
  if (m.arms === 'none') return { masses: [], joints: [] };
  const x = m.shoulderBreadth / 2 - 0.035;
  const shoulder: Vec3 = [x, 0.004, at.bottom + m.chestHeight * 0.5];
  const whole = m.arms === 'whole';
  const elbow: Vec3 = [x + 0.02, 0.006, shoulder[2] - (whole ? 0.29 : 0.17)];
  const wrist: Vec3 = [x + 0.03, -0.02, elbow[2] - 0.24];
  const finger: Vec3 = [x + 0.03, -0.04, wrist[2] - 0.17];
  const part = (id: string, name: string, region: string, joint: string) => ({
    id: `${id}-left`,
    name: `${name}, left`,
    region,
    joint,
    blend: 0.02,
  });
  const joints: Joint[] = [{ id: 'shoulder-left', name: 'shoulder, left', parent: 'chest', at: shoulder }];
  const masses = [limb(part('upper-arm', 'upper arm', 'arms', 'shoulder-left'), shoulder, elbow, 0.05, 0.043)];
  if (whole) {
    joints.push(
      { id: 'elbow-left', name: 'elbow, left', parent: 'shoulder-left', at: elbow },
      { id: 'wrist-left', name: 'wrist, left', parent: 'elbow-left', at: wrist },
    );
    masses.push(
      limb(part('forearm', 'forearm', 'arms', 'elbow-left'), elbow, wrist, 0.042, 0.028),
      ball(
        part('hand', 'hand', 'hands', 'wrist-left'),
        [wrist[0], (wrist[1] + finger[1]) / 2, (wrist[2] + finger[2]) / 2],
        [0.02, 0.04, 0.09],
      ),
    );
  }
  return { masses, joints };
}

export function neckMass(
  m: { readonly neckGirth: number; readonly headForward: number },
  collar: number,
  chin: number,
): Mass {
  const radius = m.neckGirth / (2 * Math.PI);
  return limb(
    { id: 'neck', name: 'neck', region: 'neck', joint: 'neck', blend: 0.045 },
    [0, 0.012, collar - 0.03],
    [0, 0.007 - m.headForward * 0.6, chin + 0.03],
    radius * 1.06,
    radius * 0.94,
  );
}

export const bust = startForm({
  kind: 'bust',
  version: 1,
  name: 'bust',
  when: 'A portrait or fantasy head on its neck and chest, with or without shoulders and arms.',
  usualSize: 1,
  measures: bustMeasures,
  make: (m) => {
    const at = bustLevels(m);
    const limbs = arms(m, at);
    return {
      joints: [
        { id: 'stand', name: 'foot of the upright', parent: null, at: [0, 0.012, 0], ground: true },
        { id: 'chest', name: 'chest', parent: 'stand', at: [0, 0.012, at.shoulder] },
        ...limbs.joints,
        { id: 'neck', name: 'foot of the neck', parent: 'chest', at: [0, 0.012, at.collar - 0.03] },
        { id: 'head', name: 'head on the neck', parent: 'neck', at: [0, 0.007 - m.headForward * 0.6, at.chin + 0.03] },
        { id: 'crown', name: 'crown', parent: 'head', at: [0, -m.headForward, at.crown - 0.02] },
      ],
      masses: [
        ...chestMasses(m, at),
        ...limbs.masses,
        neckMass(m, at.collar, at.chin),
        ...headMasses(m, at.chin, -m.headForward),
      ],
      landmarks: headLandmarks(m, at.chin, -m.headForward),
      envelopes: [headEnvelope(m, at.chin, -m.headForward)],
    };
  },
});
