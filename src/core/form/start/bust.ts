import type { Mass } from '../../document';
import { unit, type Vec3 } from '../../quantity';
import { choice, length, yesNo, type MeasuresOf } from '../measure';
import type { Joint } from '../skeleton';
import { bustLevels, type BustLevels } from './bust-levels';
import { handHolds, handMasses } from './human-hand';
import { headTypes } from './head-types';
import { headEnvelope, headLandmarks, headMasses, headMeasures, jawJoint } from './human-head';
import { neckMasses } from './human-neck';
import { ball, block, limb, softestFirst, startForm } from './start-form';

/** A bust from what a maker takes with callipers and tape, at life size. */
const bustMeasures = {
  ...headMeasures,
  headForward: length('Head hangs forward', -0.1, 0.25, 0.03),
  neckGirth: length('Neck, round', 0.15, 0.7, 0.38),
  neckLength: length('Neck showing', 0.01, 0.25, 0.06),
  throat: length('Throat stands out', 0, 0.02, 0.005),
  shoulders: yesNo('Shoulders', true, 'Arms bring them along.'),
  arms: choice(
    'Arms',
    [
      { id: 'none', name: 'none' },
      { id: 'upper', name: 'to above the elbow' },
      { id: 'whole', name: 'whole, with hands' },
    ],
    'none',
  ),
  hands: choice('Hands', handHolds, 'relaxed', 'Of whole arms.'),
  handLength: length('Hand, wrist to longest finger', 0.1, 0.3, 0.19),
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
  // The breast muscles stand out before it.
  const trunk: Vec3 = [breadth * 0.34, deep * 0.95, high / 2];
  const part = (id: string, name: string, blend: number) => ({ id, name, region: 'chest', joint: 'chest', blend });
  const masses = [
    block(
      part('chest', 'chest', 0.02),
      [0, deep * 0.05, at.bottom + high / 2 - 0.004],
      trunk,
      0.8 * Math.min(...trunk),
    ),
  ];
  // The two bones meet in the pit of the throat and run out to the points of the shoulders.
  const pit: Vec3 = [0.013, -deep * 0.7, at.collar - 0.012];
  const out = m.shoulders ? m.shoulderBreadth * 0.36 : breadth * 0.3;
  masses.push(
    limb(
      part('collarbone-left', 'collar bone, left', 0.008),
      pit,
      [out, -deep * 0.2, at.collar - 0.022],
      0.0072,
      0.0065,
    ),
    ball(
      { ...part('breast-left', 'breast muscle, left', 0.03), turn: [0, 12, 0] },
      [breadth * 0.18, -deep * 0.7, at.bottom + high * 0.46],
      [breadth * 0.16, deep * 0.3, high * 0.3],
    ),
  );
  if (!m.shoulders) return masses;
  // Shoulders slope from the collar down to the point of each shoulder, thinner than the chest is deep.
  const thick = Math.min(high * 0.34, deep * 0.62);
  const outer = m.shoulderBreadth / 2 - thick;
  masses.push(
    limb(
      part('shoulder-left', 'shoulder, left', 0.045),
      [m.shoulderBreadth * 0.13, 0.01, at.collar - thick * 0.95],
      [outer, 0.004, at.bottom + high * 0.44],
      thick * 0.9,
      thick,
    ),
    ball(
      { ...part('deltoid-left', 'cap of the shoulder, left', 0.035), turn: [0, -16, 0] },
      [outer + thick * 0.1, 0.002, at.bottom + high * 0.5],
      [thick * 0.82, thick * 0.98, high * 0.34],
    ),
  );
  return masses;
}

/** Upper arm, forearm and hand hang from the point of the shoulder. */
function arms(m: BustMeasures, at: BustLevels): { masses: Mass[]; joints: Joint[] } {
  if (m.arms === 'none') return { masses: [], joints: [] };
  const x = m.shoulderBreadth / 2 - 0.035;
  const shoulder: Vec3 = [x, 0.004, at.bottom + m.chestHeight * 0.5];
  const whole = m.arms === 'whole';
  const elbow: Vec3 = [x + 0.02, 0.006, shoulder[2] - (whole ? 0.29 : 0.17)];
  const wrist: Vec3 = [x + 0.03, -0.02, elbow[2] - 0.24];
  const along = unit([0, -0.12, -1]);
  const inward: Vec3 = [-1, 0, 0];
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
      ...handMasses(
        // It hangs with the palm to the body, and so the thumb in front.
        { wrist, along, palm: inward, joint: 'wrist-left', region: 'hands' },
        m.handLength,
        m.hands,
      ),
    );
  }
  return { masses, joints };
}

export const bust = startForm({
  kind: 'bust',
  version: 2,
  name: 'bust',
  when: 'A portrait or fantasy head on its neck and chest, with or without shoulders and arms.',
  usualSize: 1,
  measures: bustMeasures,
  types: headTypes,
  finelyMade: true,
  make: (given) => {
    const m = given.arms === 'none' ? given : { ...given, shoulders: true };
    const at = bustLevels(m);
    const limbs = arms(m, at);
    const slope: Vec3 | null = m.shoulders ? [m.shoulderBreadth * 0.27, 0.02, at.collar - 0.034] : null;
    return {
      joints: [
        { id: 'stand', name: 'foot of the upright', parent: null, at: [0, 0.012, 0], ground: true },
        { id: 'chest', name: 'chest', parent: 'stand', at: [0, 0.012, at.shoulder] },
        ...limbs.joints,
        { id: 'neck', name: 'foot of the neck', parent: 'chest', at: [0, 0.012, at.collar - 0.03] },
        { id: 'head', name: 'head on the neck', parent: 'neck', at: [0, 0.007 - m.headForward * 0.6, at.chin + 0.03] },
        { id: 'crown', name: 'crown', parent: 'head', at: [0, -m.headForward, at.crown - 0.02] },
        jawJoint(m, at.chin, -m.headForward),
      ],
      masses: softestFirst([
        ...chestMasses(m, at),
        ...limbs.masses,
        ...neckMasses(m, at.collar, at.chin, slope),
        ...headMasses(m, at.chin, -m.headForward),
      ]),
      landmarks: headLandmarks(m, at.chin, -m.headForward),
      envelopes: [headEnvelope(m, at.chin, -m.headForward)],
    };
  },
});
