import type { Mass } from '../../document';
import { add, scale, type Vec3 } from '../../quantity';
import { angle, choice, length, share, type MeasuresOf } from '../measure';
import { mirrorMass } from '../mirror';
import type { Joint } from '../skeleton';
import { handBreadth, handHolds, handMasses, palmMiddle } from './human-hand';
import { pawKinds, pawMasses } from './paws';
import { rotate, rotationOf } from '../turn';
import { setIn } from './set-in';
import { limb, softestFirst, startForm, type FormType, type MadeForm } from './start-form';

/** A hand or a paw that stands on its wrist, fingers up: a master for gloves and casts, or a study. A pair stands side by side. */
const handMeasures = {
  what: choice('What it is', [{ id: 'hand', name: 'a hand' }, ...pawKinds], 'hand'),
  sides: choice(
    'Which',
    [
      { id: 'pair', name: 'a left and a right' },
      { id: 'left', name: 'a left' },
      { id: 'right', name: 'a right' },
    ],
    'left',
  ),
  hold: choice('Hand held', handHolds, 'open', 'A paw is held as it is.'),
  handLength: length('Wrist to the furthest tip', 0.05, 0.6, 0.19),
  plump: share('Thick, against the usual', 0.7, 1.6, 1),
  wrist: length('Wrist showing', 0.02, 0.3, 0.05),
  leans: angle('Turned about its wrist', -90, 90, 0),
  apart: length('Between two, at their widest', 0.01, 0.5, 0.05),
  standHeight: length('Bare upright below', 0.01, 0.5, 0.06),
};
type Hand = MeasuresOf<typeof handMeasures>;

const types: readonly FormType[] = [
  { id: 'hand', name: 'a hand', measures: {} },
  { id: 'pointing', name: 'a hand that points', measures: { hold: 'pointing' } },
  {
    id: 'paws',
    name: 'a pair of paws, to wear',
    measures: { what: 'paws', sides: 'pair', handLength: 0.22, wrist: 0.07 },
  },
  {
    id: 'webbed',
    name: 'a pair of webbed paws, to wear',
    measures: { what: 'webbed', sides: 'pair', handLength: 0.22, wrist: 0.07 },
  },
  { id: 'claws', name: 'a paw with claws', measures: { what: 'claws', handLength: 0.24, wrist: 0.08 } },
];

/** A paw's length from its wrist to its tips, in radii of the leg that it is made for. */
const pawLong = 3.2;

/** Its back looks forward, its wrist is at the origin; of the left side. How wide it is to each side, and where it comes out below. */
function standing(m: Hand): { masses: Mass[]; half: number; thick: number } {
  const of = { joint: 'hand', region: 'hand' };
  if (m.what === 'hand') {
    const place = { wrist: [0, 0, 0] as Vec3, along: [0, 0, 1] as Vec3, palm: [0, 1, 0] as Vec3, ...of };
    const half = handBreadth(m.handLength) / 2;
    return { masses: handMasses(place, m.handLength, m.hold, m.plump), half: half * 1.25, thick: half * 0.6 * m.plump };
  }
  const thick = (m.handLength / pawLong) * m.plump;
  const flat = pawMasses(m.what, [0, 0, 0], thick, { id: 'paw', name: 'paw', ...of });
  // Stood up on its heel: what was forward is up, its sole behind.
  const up = setIn(flat, { at: [0, thick * 0.9, thick * 0.55], turn: [-90, 0, 180] });
  const half = thick * (m.what === 'webbed' ? 2 : 1.55);
  return { masses: up, half, thick: thick * 0.68 };
}

function make(m: Hand): MadeForm {
  const { masses, half, thick } = standing(m);
  const pair = m.sides === 'pair';
  const aside = pair ? half + m.apart / 2 : 0;
  const foot = m.standHeight + m.wrist;
  const at: Vec3 = [aside, 0, foot];
  const wrist = limb(
    { id: 'wrist-left', name: 'wrist, left', region: 'wrist', joint: 'hand', blend: thick * 0.5 },
    [0, 0, thick * 0.95 - m.wrist],
    [0, 0, thick * 0.5],
    thick * 0.95,
    thick,
  );
  const placed = setIn([wrist, ...masses], { at, turn: [0, 0, m.leans] });
  const tip = m.handLength * 0.4;
  const middle = middleOf(m, at);
  const joints: Joint[] = [
    { id: 'stand-left', name: 'foot of the upright, left', parent: null, at: [aside, 0, 0], ground: true },
    { id: 'hand-left', name: 'wrist, left', parent: 'stand-left', at },
    { id: 'palm-left', name: 'middle of the hand, left', parent: 'hand-left', at: middle },
    ...fingerJoints(placed),
  ];
  const jointIds = new Set(joints.map((j) => j.id));
  const jointOf = ({ id }: Mass) => {
    const finger = `${fingerOf(id)}-left`;
    return jointIds.has(finger) ? finger : 'hand-left';
  };
  const own = { joints, masses: softestFirst(placed.map((mass) => ({ ...mass, joint: jointOf(mass) }))) };
  return {
    ...(pair ? own : alone(own, m.sides === 'right')),
    landmarks: [
      {
        id: 'knuckles',
        name: 'half way up the hand',
        joint: pair ? 'hand-left' : 'hand',
        at: add(at, [0, 0, tip]),
        half: half * 1.4,
      },
    ],
    envelopes: [],
  };
}

/** In the middle of what a wire can run in. */
function middleOf(m: Hand, at: Vec3): Vec3 {
  if (m.what !== 'hand') return add(at, [0, 0, m.handLength * 0.4]);
  return palmMiddle({ wrist: at, along: [0, 0, 1], palm: [0, 1, 0] }, m.handLength);
}

/** Whose bone a mass is: "finger-index" of "finger-index-2-left". */
const fingerOf = (id: string): string => /^(finger-[a-z]+|thumb)-(?:\d|ball)/.exec(id)?.[1] ?? '';

/** A joint at each knuckle and one near each tip. */
function fingerJoints(masses: readonly Mass[]): Joint[] {
  const fingers = [...new Set(masses.map((mass) => fingerOf(mass.id)))].filter((f) => f !== '');
  return fingers.flatMap((finger): Joint[] => {
    const bones = masses.filter((mass) => fingerOf(mass.id) === finger);
    const first = bones[0]!,
      last = bones[bones.length - 1]!;
    if (last.shape.kind !== 'round-cone') return [];
    const name = last.name.split(',')[0]!;
    return [
      {
        id: `${finger}-left`,
        name: `root of the ${name}, left`,
        parent: finger === 'thumb' ? 'hand-left' : 'palm-left',
        at: first.at,
      },
      ...bones.slice(1).map((bone, k): Joint => ({
        id: `${finger}-${k + 2}-left`,
        name: `${name}, joint ${k + 2}, left`,
        parent: k === 0 ? `${finger}-left` : `${finger}-${k + 1}-left`,
        at: bone.at,
      })),
      {
        id: `${finger}-tip-left`,
        name: `tip of the ${name}, left`,
        parent: `${finger}-${bones.length}-left`,
        at: add(last.at, rotate(rotationOf(last.turn), scale(last.shape.reach, 0.7))),
      },
    ];
  });
}

/** One by itself is no half of a pair: it has no side in its names, and its mirror image is another piece. */
function alone(
  { joints, masses }: Pick<MadeForm, 'joints' | 'masses'>,
  right: boolean,
): Pick<MadeForm, 'joints' | 'masses'> {
  const plain = (id: string) => id.replace(/-left$/, '');
  const named = (name: string) => name.replace(/, left$/, '');
  return {
    joints: joints.map((j) => ({
      ...j,
      id: plain(j.id),
      name: named(j.name),
      parent: j.parent === null ? null : plain(j.parent),
    })),
    masses: masses.map((mass) => ({
      ...(right ? mirrorMass(mass, (id) => id) : mass),
      id: plain(mass.id),
      name: named(mass.name),
      joint: plain(mass.joint ?? 'hand'),
    })),
  };
}

export const hand = startForm({
  kind: 'hand',
  name: 'hand or paw',
  when: 'A hand or a paw on its wrist, or a pair of them: gloves, casts, studies.',
  usualSize: 1,
  types,
  finelyMade: true,
  measures: handMeasures,
  make,
});
