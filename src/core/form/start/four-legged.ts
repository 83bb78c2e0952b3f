import type { Mass } from '../../document';
import { add, mix, type Vec3 } from '../../quantity';
import { angle, choice, length, share, type MeasuresOf } from '../measure';
import type { Joint } from '../skeleton';
import { creatureHeadMasses, creatureHeadMeasures, creatureHeadPlaces } from './creature-head';
import { pawKinds, pawMasses } from './paws';
import { setIn, setInPlace } from './set-in';
import { ball, jointAt, limb, softestFirst, startForm, type FormType, type MadeForm } from './start-form';

/** Heights above the ground, as shares of the height at the shoulder, of what a rider calls knee and hock. */
const joints = {
  paws: { knee: 0.2, hock: 0.27 },
  claws: { knee: 0.2, hock: 0.27 },
  hooves: { knee: 0.33, hock: 0.39 },
  webbed: { knee: 0.22, hock: 0.25 },
} as const;

const fourLeggedMeasures = {
  withers: length('Height at the shoulder', 0.05, 3, 0.62),
  bodyLength: length('Body, chest to rump', 0.05, 4, 0.7),
  girth: length('Chest, round', 0.05, 5, 0.72),
  tuck: share('Belly drawn up behind the ribs', 0, 1, 0.5),
  neckLength: length('Neck', 0.02, 3, 0.24),
  neckThick: share('Thickness of the neck against the usual', 0.4, 2, 1),
  neckRise: angle('Neck rises', -30, 85, 45),
  headLength: length('Head, nape to nose', 0.03, 1.5, 0.24),
  headDown: angle('Nose points down', -40, 90, 20),
  ...creatureHeadMeasures,
  legs: share('Thickness of the legs against the usual', 0.4, 3, 1),
  feet: choice('Feet', pawKinds, 'paws'),
  tailLength: length('Tail', 0, 3, 0.4),
  tailThick: share('Thickness of the tail against the usual', 0.3, 6, 1.3),
  tailRise: angle('Tail carried, from hanging to upright', -70, 80, -45),
  crest: length('Crest along neck and back', 0, 0.6, 0),
};
type FourLegged = MeasuresOf<typeof fourLeggedMeasures>;

const types: readonly FormType[] = [
  { id: 'dog', name: 'a dog', measures: {} },
  {
    id: 'cat',
    name: 'a cat',
    measures: {
      withers: 0.25,
      bodyLength: 0.32,
      girth: 0.34,
      tuck: 0.25,
      neckLength: 0.08,
      headLength: 0.095,
      headDown: 12,
      headBreadth: 0.86,
      muzzleLength: 0.3,
      muzzleBreadth: 0.5,
      eyes: 0.2,
      earLength: 0.5,
      whiskers: 0.7,
      legs: 0.85,
      tailLength: 0.3,
      tailThick: 1.7,
      tailRise: 20,
    },
  },
  {
    id: 'otter',
    name: 'an otter',
    measures: {
      withers: 0.22,
      bodyLength: 0.52,
      girth: 0.46,
      tuck: 0,
      neckLength: 0.11,
      neckThick: 1.25,
      neckRise: 38,
      headLength: 0.13,
      headDown: 10,
      headBreadth: 0.86,
      muzzleLength: 0.34,
      muzzleBreadth: 0.72,
      brow: 0.1,
      eyes: 0.1,
      ears: 'round',
      earLength: 0.16,
      whiskers: 1,
      legs: 1.05,
      feet: 'webbed',
      tailLength: 0.45,
      tailThick: 2.4,
      tailRise: -20,
    },
  },
  {
    id: 'bear',
    name: 'a bear',
    measures: {
      withers: 0.95,
      bodyLength: 1.25,
      girth: 1.6,
      tuck: 0,
      neckLength: 0.26,
      neckThick: 1.2,
      neckRise: 15,
      headLength: 0.4,
      headDown: 18,
      headBreadth: 0.66,
      muzzleLength: 0.42,
      muzzleBreadth: 0.5,
      brow: 0.6,
      eyes: 0.05,
      ears: 'round',
      earLength: 0.3,
      whiskers: 0.1,
      legs: 1.25,
      feet: 'claws',
      tailLength: 0.1,
      tailThick: 1.5,
    },
  },
  {
    id: 'horse',
    name: 'a horse',
    measures: {
      withers: 1.6,
      bodyLength: 1.45,
      girth: 1.9,
      tuck: 0.25,
      neckLength: 0.75,
      neckThick: 0.9,
      neckRise: 48,
      headLength: 0.62,
      headDown: 52,
      headBreadth: 0.36,
      muzzleLength: 0.56,
      muzzleBreadth: 0.92,
      brow: 0.05,
      eyes: 0.07,
      earLength: 0.26,
      whiskers: 0.2,
      legs: 0.62,
      feet: 'hooves',
      tailLength: 0.95,
      tailThick: 3.2,
      tailRise: -70,
    },
  },
  {
    id: 'stag',
    name: 'a stag',
    measures: {
      withers: 1.2,
      bodyLength: 1.15,
      girth: 1.3,
      tuck: 0.45,
      neckLength: 0.5,
      neckThick: 0.95,
      neckRise: 58,
      headLength: 0.38,
      headDown: 34,
      headBreadth: 0.42,
      muzzleLength: 0.55,
      muzzleBreadth: 0.72,
      brow: 0.1,
      eyes: 0.09,
      ears: 'long',
      earLength: 0.5,
      whiskers: 0.1,
      horns: 'antlers',
      hornLength: 2.1,
      legs: 0.6,
      feet: 'hooves',
      tailLength: 0.15,
      tailThick: 1.4,
    },
  },
  {
    id: 'dragon',
    name: 'a dragon without wings',
    measures: {
      withers: 0.8,
      bodyLength: 1.3,
      girth: 1.15,
      tuck: 0.4,
      neckLength: 0.8,
      neckThick: 0.85,
      neckRise: 55,
      headLength: 0.46,
      headDown: 14,
      headBreadth: 0.5,
      muzzleLength: 0.52,
      muzzleBreadth: 0.62,
      brow: 1,
      eyes: 0.07,
      ears: 'none',
      whiskers: 0,
      fangs: 0.16,
      horns: 'straight',
      hornLength: 0.8,
      mouthOpen: 22,
      legs: 1.15,
      feet: 'claws',
      tailLength: 1.5,
      tailThick: 2.6,
      tailRise: -28,
      crest: 0.12,
    },
  },
];

function make(m: FourLegged): MadeForm {
  const r = m.girth / (2 * Math.PI);
  const half = Math.max(r * 0.4, m.bodyLength / 2 - r * 0.85);
  const top = m.withers;
  // A chest that would touch the ground is drawn up: the legs of the shortest still show.
  const deep = Math.min(1.15 * r, top * 0.42);
  const { knee, hock } = joints[m.feet];
  const leg = Math.min(r * 0.52 * m.legs, r * 1.1);
  const chest: Vec3 = [0, -half, top - deep];
  const loins: Vec3 = [0, half * 0.75, top - 0.92 * r + 0.1 * r * m.tuck];
  const belly = top - 2 * deep;

  const shoulder: Vec3 = [r * 0.56, -half - 0.2 * r, top - 1.05 * deep];
  const elbow: Vec3 = [r * 0.6, -half + 0.32 * r, Math.max(belly + 0.22 * r, top * (knee + 0.16))];
  const foreKnee: Vec3 = [r * 0.55, -half + 0.16 * r, top * knee];
  const foreFoot: Vec3 = [r * 0.55, -half + 0.1 * r, leg * 0.5];
  const hip: Vec3 = [r * 0.5, half + 0.2 * r, top - 0.62 * r];
  const stifle: Vec3 = [r * 0.66, half - 0.3 * r, Math.max(top * (hock + 0.14), belly + 0.12 * r)];
  const hockAt: Vec3 = [r * 0.54, half + 0.62 * r, top * hock];
  const hindFoot: Vec3 = [r * 0.54, half + 0.42 * r, leg * 0.5];

  const rise = (m.neckRise * Math.PI) / 180;
  const neckFoot: Vec3 = [0, -half - 0.4 * r, top - 0.55 * r];
  const poll: Vec3 = add(neckFoot, [0, -m.neckLength * Math.cos(rise), m.neckLength * Math.sin(rise) + 0.1 * r]);
  const setting = { at: poll, turn: [m.headDown, 0, 0] as Vec3 };
  const head = creatureHeadPlaces(m, m.headLength);
  const [middle, nose] = [setInPlace(head.middle, setting), setInPlace(head.nose, setting)];
  // The neck comes into the skull behind its middle.
  const joinHead = setInPlace([0, 0.02 * m.headLength, -0.75 * head.halfHeight], setting);

  const part = (id: string, name: string, region: string, joint: string, blend: number) => ({
    id,
    name,
    region,
    joint,
    blend: blend * r,
  });
  const masses: Mass[] = [
    ball(part('chest', 'chest', 'trunk', 'chest', 0.5), chest, [r * 0.84, r * 0.95, deep]),
    ball(part('breast', 'breast', 'trunk', 'chest', 0.45), add(chest, [0, -0.5 * r, -0.15 * r]), [
      r * 0.55,
      r * 0.5,
      deep * 0.66,
    ]),
    ball(part('withers', 'withers', 'trunk', 'chest', 0.5), add(chest, [0, 0.25 * r, deep * 0.62]), [
      r * 0.34,
      r * 0.62,
      deep * 0.36,
    ]),
    limb(
      part('barrel', 'barrel', 'trunk', 'loin', 0.5),
      add(chest, [0, 0.25 * r, 0]),
      loins,
      Math.min(r * 0.9, deep * 0.98),
      r * (0.84 - 0.26 * m.tuck),
    ),
    limb(
      part('back', 'back', 'trunk', 'loin', 0.5),
      [0, -half, top - 0.42 * r],
      [0, half, top - 0.36 * r],
      r * 0.36,
      r * 0.36,
    ),
    ball(
      part('rump', 'rump', 'trunk', 'rump', 0.5),
      [0, half + 0.1 * r, top - 0.78 * r],
      [r * 0.72, r * 0.82, r * 0.76],
    ),
    ball(
      { ...part('shoulder-blade-left', 'shoulder blade, left', 'trunk', 'chest', 0.3), turn: [-16, 0, 0] },
      [r * 0.56, -half + 0.06 * r, top - 0.8 * deep],
      [r * 0.24, r * 0.42, deep * 0.68],
    ),
    // Neck: its column, the crest over it, the muscle from behind the ear to the shoulder.
    limb(
      part('neck', 'neck', 'neck', 'neck', 0.4),
      add(neckFoot, [0, 0.1 * r, -0.1 * r]),
      joinHead,
      r * 0.6 * m.neckThick,
      Math.min(head.halfBreadth * 0.78, head.halfHeight * 0.8) * Math.min(1.3, m.neckThick),
    ),
    limb(
      part('nape-muscle', 'top of the neck', 'neck', 'neck', 0.35),
      [0, -half + 0.1 * r, top - 0.3 * r],
      mix(joinHead, poll, 0.5),
      r * 0.36 * m.neckThick,
      head.halfBreadth * 0.4,
    ),
    limb(
      part('throat', 'throat', 'neck', 'neck', 0.35),
      add(chest, [0, -0.62 * r, 0.1 * r]),
      setInPlace([0, -0.12 * m.headLength, -1.25 * head.halfHeight], setting),
      r * 0.42 * m.neckThick,
      head.halfBreadth * 0.46,
    ),
    ...setIn(creatureHeadMasses(m, m.headLength), setting),
    ...foreLeg(m, r, leg, { shoulder, elbow, knee: foreKnee, foot: foreFoot }),
    ...hindLeg(m, r, leg, { hip, stifle, hock: hockAt, foot: hindFoot }),
  ];
  const tail = tailOf(m, r, [0, half + 0.72 * r, top - 0.5 * r]);
  masses.push(...tail.masses);
  if (m.crest > 0.004) masses.push(...crestOf(m, poll, [0, -half, top], [0, half + 0.5 * r, top - 0.1 * r]));
  return {
    masses: softestFirst(masses),
    joints: [
      jointAt('loin', 'loins', null, [0, half * 0.3, top - 0.8 * r]),
      jointAt('chest', 'chest', 'loin', [0, -half, top - 0.7 * r]),
      jointAt('neck', 'foot of the neck', 'chest', neckFoot),
      jointAt('head', 'head on the neck', 'neck', joinHead),
      jointAt('brow', 'middle of the skull', 'head', middle),
      jointAt('nose', 'nose', 'brow', nose),
      jointAt('rump', 'rump', 'loin', [0, half, top - 0.7 * r]),
      ...tail.joints,
      jointAt('shoulder-left', 'shoulder, left', 'chest', shoulder),
      jointAt('elbow-left', 'elbow, left', 'shoulder-left', elbow),
      jointAt('fore-knee-left', 'fore knee, left', 'elbow-left', foreKnee),
      jointAt('fore-foot-left', 'fore foot, left', 'fore-knee-left', [foreFoot[0], foreFoot[1], 0], true),
      jointAt('hip-left', 'hip, left', 'rump', hip),
      jointAt('stifle-left', 'stifle, left', 'hip-left', stifle),
      jointAt('hock-left', 'hock, left', 'stifle-left', hockAt),
      jointAt('hind-foot-left', 'hind foot, left', 'hock-left', [hindFoot[0], hindFoot[1], 0], true),
    ],
    landmarks: [
      { id: 'withers', name: 'height at the shoulder', joint: 'chest', at: [0, -half, top], half: r * 1.3 },
      { id: 'elbow', name: 'elbow', joint: 'chest', at: [0, -half, elbow[2]], half: r * 1.3 },
      { id: 'eyes', name: 'eyes', joint: 'head', at: setInPlace(head.eyes, setting), half: head.halfBreadth * 1.4 },
    ],
    envelopes: [],
  };
}

type Leg = (
  id: string,
  name: string,
  joint: string,
  from: Vec3,
  to: Vec3,
  a: number,
  b: number,
  blend?: number,
) => Mass;

function legPart(r: number): Leg {
  return (id, name, joint, from, to, a, b, blend = 0.1) =>
    limb(
      { id: `${id}-left`, name: `${name}, left`, region: 'legs', joint: `${joint}-left`, blend: blend * r },
      from,
      to,
      a,
      b,
    );
}

function foreLeg(
  m: FourLegged,
  r: number,
  leg: number,
  at: { shoulder: Vec3; elbow: Vec3; knee: Vec3; foot: Vec3 },
): Mass[] {
  const of = legPart(r);
  return [
    of('upper-foreleg', 'upper foreleg', 'shoulder', at.shoulder, at.elbow, leg * 1.0, leg * 0.82, 0.3),
    of('fore-leg', 'foreleg', 'elbow', at.elbow, at.knee, leg * 0.84, leg * 0.55),
    of('fore-shank', 'fore shank', 'fore-knee', at.knee, at.foot, leg * 0.55, leg * 0.53),
    ball(
      { id: 'fore-knee-left', name: 'fore knee, left', region: 'legs', joint: 'fore-knee-left', blend: 0.06 * r },
      add(at.knee, [0, -0.08 * leg, 0]),
      [leg * 0.56, leg * 0.58, leg * 0.7],
    ),
    ...pawMasses(m.feet, at.foot, leg * 0.55, {
      id: 'fore',
      name: 'forefoot',
      joint: 'fore-knee-left',
      region: 'feet',
    }),
  ];
}

function hindLeg(
  m: FourLegged,
  r: number,
  leg: number,
  at: { hip: Vec3; stifle: Vec3; hock: Vec3; foot: Vec3 },
): Mass[] {
  const of = legPart(r);
  const thigh = Math.min(leg * 1.5, r * 0.62);
  return [
    of('thigh', 'thigh', 'hip', at.hip, at.stifle, thigh, leg * 0.95, 0.35),
    ball(
      { id: 'haunch-left', name: 'haunch, left', region: 'legs', joint: 'hip-left', blend: 0.3 * r },
      add(mix(at.hip, at.stifle, 0.35), [0.02 * r, 0.22 * r, -0.02 * r]),
      [thigh * 0.72, r * 0.5, Math.max(r * 0.62, thigh)],
    ),
    of('hind-leg', 'hind leg', 'stifle', at.stifle, at.hock, leg * 0.9, leg * 0.56),
    of('hind-shank', 'hind shank', 'hock', at.hock, at.foot, leg * 0.56, leg * 0.53),
    ball(
      { id: 'hock-left', name: 'hock, left', region: 'legs', joint: 'hock-left', blend: 0.06 * r },
      add(at.hock, [0, 0.12 * leg, 0.04 * leg]),
      [leg * 0.52, leg * 0.62, leg * 0.64],
    ),
    ...pawMasses(m.feet, at.foot, leg * 0.55, { id: 'hind', name: 'hind foot', joint: 'hock-left', region: 'feet' }),
  ];
}

/** In three parts, from how it leaves the rump round to level. */
function tailOf(m: FourLegged, r: number, root: Vec3): { masses: Mass[]; joints: Joint[] } {
  if (m.tailLength < 0.006) return { masses: [], joints: [] };
  const thick = Math.min(r * 0.185 * m.tailThick, r * 0.6, m.tailLength * 0.45);
  const step = m.tailLength / 3;
  const places: Vec3[] = [root];
  for (let k = 0; k < 3; k++) {
    // Low tails bend up towards the tip, high ones over.
    const a = (m.tailRise * (1 - 0.22 * k) * Math.PI) / 180;
    const from = places[k]!;
    const to = add(from, [0, step * Math.cos(a), step * Math.sin(a)]);
    places.push([to[0], to[1], Math.max(thick * (1 - 0.25 * (k + 1)), to[2])]);
  }
  const ids = ['tail', 'tail-middle', 'tail-end'];
  const names = ['root of the tail', 'middle of the tail', 'end of the tail'];
  return {
    masses: ids.map((id, k) =>
      limb(
        { id, name: names[k]!, region: 'tail', joint: id, blend: 0.06 * r },
        places[k]!,
        places[k + 1]!,
        thick * (1 - 0.2 * k),
        thick * (1 - 0.2 * (k + 1)),
      ),
    ),
    joints: [
      ...ids.map((id, k): Joint => ({ id, name: names[k]!, parent: k === 0 ? 'rump' : ids[k - 1]!, at: places[k]! })),
      { id: 'tail-tip', name: 'tip of the tail', parent: 'tail-end', at: mix(places[2]!, places[3]!, 0.85) },
    ],
  };
}

/** Plates that stand in a row from the poll to the rump, highest over the shoulders. */
function crestOf(m: FourLegged, poll: Vec3, withers: Vec3, rump: Vec3): Mass[] {
  const places = [mix(poll, withers, 0.12), mix(poll, withers, 0.45), mix(poll, withers, 0.78), withers];
  for (const t of [0.25, 0.5, 0.75, 0.95]) places.push(mix(withers, rump, t));
  return places.map((at, k) => {
    const high = m.crest * (1 - 0.1 * Math.abs(k - 3));
    const neck = k < 3;
    return limb(
      {
        id: `crest-${k + 1}`,
        name: `plate ${k + 1} of the crest`,
        region: 'crest',
        joint: neck ? 'neck' : k < 5 ? 'chest' : 'loin',
        blend: 0.12 * high,
      },
      add(at, [0, 0, -0.45 * high]),
      add(at, [0, 0.5 * high, high]),
      high * 0.36,
      high * 0.1,
    );
  });
}

export const fourLegged = startForm({
  kind: 'four-legged',
  version: 2,
  name: 'creature on four legs',
  when: 'A dog, a horse, an otter, a dragon without wings: anything on four legs.',
  usualSize: 0.3,
  types,
  finelyMade: true,
  measures: fourLeggedMeasures,
  make,
});
