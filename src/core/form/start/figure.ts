import type { Mass } from '../../document';
import { unit, type Vec3 } from '../../quantity';
import { choice, length, share, type MeasuresOf } from '../measure';
import type { Joint } from '../skeleton';
import { headChoices, headOfType } from './head-types';
import {
  armMasses,
  bodyNeck,
  bodyPlaces,
  headForward,
  legMasses,
  segmentShares,
  trunkMasses,
  type BodyMeasures,
  type BodyPlaces,
} from './human-body';
import { footMasses, footWear, ownFootLength } from './human-foot';
import { handHolds, handMasses, palmMiddle } from './human-hand';
import { headMasses, skullRoot } from './human-head';
import { setIn } from './set-in';
import { jointAt, softestFirst, startForm, type FormType, type Landmark, type MadeForm } from './start-form';

/** A person in heads: the head is one part of the height, the body below the chin keeps its own shares. */
const builds = [
  { id: 'adult', name: 'adult, seven and a half heads' },
  { id: 'heroic', name: 'heroic, eight heads' },
  { id: 'child', name: 'child, five and a half heads' },
  { id: 'stylised', name: 'stylised, four heads' },
] as const;
const headsOf: Readonly<Record<(typeof builds)[number]['id'], number>> = {
  adult: 7.5,
  heroic: 8,
  child: 5.5,
  stylised: 4,
};

const stances = [
  { id: 'standing', name: 'standing' },
  { id: 'kneeling', name: 'kneeling upright' },
  { id: 'striding', name: 'striding' },
  { id: 'reaching', name: 'arms held up' },
  { id: 'balancing', name: 'balancing on one leg' },
  { id: 'offering', name: 'one arm held out' },
] as const;
type StanceId = (typeof stances)[number]['id'];

/**
 * Degrees about x, y, z by joint; those of a left joint hold for its twin unless the twin is named. About x, a limb that
 * hangs swings forward below 0: so hips and elbows bend below 0, knees above it.
 */
const turns: Readonly<Record<StanceId, Readonly<Record<string, Vec3>>>> = {
  standing: {},
  kneeling: { 'knee-left': [92, 0, 0], 'ankle-left': [58, 0, 0] },
  striding: {
    'hip-left': [24, 0, 0],
    'hip-right': [-24, 0, 0],
    'knee-left': [2, 0, 0],
    'knee-right': [6, 0, 0],
    'ankle-left': [-12, 0, 0],
    'ankle-right': [18, 0, 0],
    'shoulder-left': [-26, 0, 0],
    'shoulder-right': [24, 0, 0],
    'elbow-left': [-26, 0, 0],
    'elbow-right': [-16, 0, 0],
  },
  reaching: { 'shoulder-left': [0, -150, 0], 'elbow-left': [0, -12, 0] },
  balancing: {
    pelvis: [16, 0, 0],
    'hip-left': [-16, 0, 0],
    'hip-right': [40, 0, 0],
    'knee-right': [16, 0, 0],
    'ankle-right': [34, 0, 0],
    'shoulder-left': [0, -84, 0],
    'shoulder-right': [0, 84, 0],
  },
  offering: { 'shoulder-left': [-42, 0, 0], 'elbow-left': [-48, 0, 0], 'shoulder-right': [4, 0, 0] },
};

const figureMeasures = {
  height: length('Height, standing', 0.3, 3, 1.72),
  build: choice('Proportions', builds, 'adult'),
  heft: share('Heft: thickness against the usual', 0.4, 2, 1),
  shoulders: share('Shoulders against the usual', 0.6, 1.6, 1),
  hips: share('Hips against the usual', 0.6, 1.6, 1),
  muscle: share('Muscles, from smooth to hard', 0, 1, 0.4),
  breasts: length('Breasts stand out', 0, 0.1, 0),
  belly: length('Belly stands out', 0, 0.25, 0),
  face: choice('Head of', headChoices, 'man'),
  stance: choice('Stance', stances, 'standing'),
  hands: choice('Hands', handHolds, 'relaxed'),
  feet: choice('Feet', footWear, 'bare'),
};
type FigureMeasures = MeasuresOf<typeof figureMeasures>;

const figureTypes: readonly FormType[] = [
  { id: 'man', name: 'a man', measures: {} },
  {
    id: 'woman',
    name: 'a woman',
    measures: { height: 1.62, heft: 0.96, shoulders: 0.9, hips: 1.09, muscle: 0.1, breasts: 0.03, face: 'woman' },
  },
  {
    id: 'child',
    name: 'a child of six',
    measures: { height: 1.16, build: 'child', heft: 0.98, shoulders: 0.94, hips: 0.94, muscle: 0, face: 'child' },
  },
  {
    id: 'old-man',
    name: 'an old man',
    measures: { height: 1.68, heft: 0.98, muscle: 0.15, belly: 0.05, face: 'old-man', feet: 'shod' },
  },
  {
    id: 'giant',
    name: 'a giant',
    measures: {
      height: 2.6,
      build: 'heroic',
      heft: 1.35,
      shoulders: 1.22,
      muscle: 1,
      face: 'brute',
      hands: 'fist',
    },
  },
  {
    id: 'puppet',
    name: 'a puppet',
    measures: { height: 1.1, build: 'stylised', heft: 0.9, muscle: 0, face: 'elf', hands: 'open', feet: 'shod' },
  },
];

/** What of a head shows at the size it has on a figure; lids, rims and teeth are a portrait's. */
const tooFine = /^(upper|lower)-(lid|gum|tooth)|^(lid-fold|eye-bed|ear-rim|ear-lid|bag|furrow|fold)-/;

function headOn(m: FigureMeasures, chin: number, high: number, s: number): Mass[] {
  const own = headOfType(m.face);
  return setIn(
    [skullRoot(own, 0, 0), ...headMasses(own, 0, 0).filter((mass) => !tooFine.test(mass.id))],
    { at: [0, -headForward * s, chin], size: high / own.headHeight },
    { region: 'head', joint: 'head' },
  );
}

/** Toes turn out by that much. */
const toeOut = 7;

function make(m: FigureMeasures): MadeForm {
  const head = m.height / headsOf[m.build];
  const chin = m.height - head;
  const s = chin / segmentShares.chin;
  const body: BodyMeasures = { ...m, s };
  const p = bodyPlaces(body);
  const k = Math.sqrt(m.heft);
  const hand = {
    wrist: p.wrist,
    along: unit(p.hand),
    palm: palmIn(p.hand),
    joint: 'wrist-left',
    region: 'hands',
  };
  return {
    joints: jointsOf(m, p, palmMiddle(hand, segmentShares.hand * s), head, s),
    masses: softestFirst([
      ...trunkMasses(body),
      ...bodyNeck(body, p),
      ...headOn(m, chin, head, s),
      ...armMasses(body, p),
      ...handMasses(hand, segmentShares.hand * s, m.hands, 1.28 * k),
      ...legMasses(body, p),
      ...setIn(footMasses(m.feet), {
        at: [p.ankle[0], p.ankle[1], 0],
        size: (segmentShares.foot * s * (0.7 + 0.3 * k)) / ownFootLength,
        turn: [0, 0, toeOut],
      }),
    ]),
    landmarks: landmarksOf(m, p, head, s),
    envelopes: [
      {
        id: 'skull',
        name: 'skull',
        joint: 'head',
        low: [-0.4 * head, -0.56 * head - headForward * s, chin - 0.06 * head],
        high: [0.4 * head, 0.52 * head, chin + 1.06 * head],
      },
    ],
  };
}

/** Arms hang with the palms to the body. */
function palmIn(along: Vec3): Vec3 {
  const [x, , z] = along;
  return unit([z, 0, -x]);
}

function jointsOf(m: FigureMeasures, p: BodyPlaces, palm: Vec3, head: number, s: number): Joint[] {
  const own = turns[m.stance];
  const j: typeof jointAt = (id, ...where) => ({ ...jointAt(id, ...where), ...(own[id] ? { stance: own[id] } : {}) });
  const front = -headForward * s;
  const made: Joint[] = [
    j('pelvis', 'pelvis', null, [0, 0.004 * s, 0.545 * s]),
    j('spine', 'waist', 'pelvis', [0, 0.008 * s, p.waist]),
    j('chest', 'chest', 'spine', [0, 0.012 * s, 0.782 * s]),
    j('neck', 'foot of the neck', 'chest', p.neck),
    j('head', 'head on the neck', 'neck', [0, 0.6 * front, p.chin + 0.2 * head]),
    j('crown', 'crown', 'head', [0, front, p.chin + 0.76 * head]),
    j('shoulder-left', 'shoulder, left', 'chest', p.shoulder),
    j('elbow-left', 'elbow, left', 'shoulder-left', p.elbow),
    j('wrist-left', 'wrist, left', 'elbow-left', p.wrist),
    j('fingers-left', 'palm, left', 'wrist-left', palm),
    j('hip-left', 'hip, left', 'pelvis', p.hip),
    j('knee-left', 'knee, left', 'hip-left', p.knee),
    j('ankle-left', 'ankle, left', 'knee-left', p.ankle),
    j('sole-left', 'sole, left', 'ankle-left', [p.ankle[0], p.ankle[1], 0], true),
  ];
  // A stance that names a right joint has its sides apart: both are made, and neither follows the other.
  return Object.keys(own).some((id) => id.endsWith('-right')) ? made.flatMap((joint) => bothSides(joint, own)) : made;
}

function bothSides(joint: Joint, own: Readonly<Record<string, Vec3>>): Joint[] {
  if (!joint.id.endsWith('-left')) return [joint];
  const right = joint.id.replace(/-left$/, '-right');
  const { stance: _, ...rest } = joint;
  return [
    joint,
    {
      ...rest,
      id: right,
      name: joint.name.replace(/left$/, 'right'),
      at: [-joint.at[0], joint.at[1], joint.at[2]],
      parent: joint.parent?.replace(/-left$/, '-right') ?? null,
      ...(own[right] ? { stance: own[right] } : {}),
    },
  ];
}

function landmarksOf(m: FigureMeasures, p: BodyPlaces, head: number, s: number): Landmark[] {
  const line = (id: string, name: string, joint: string, height: number, half: number): Landmark => ({
    id,
    name,
    joint,
    at: [0, -0.08 * s, height],
    half,
  });
  const breadth = segmentShares.shoulderBreadth * s * m.shoulders;
  const heads = Array.from({ length: Math.floor(headsOf[m.build]) }, (_, i): Landmark => ({
    ...line(`head-${i + 1}`, String(i + 1), 'pelvis', m.height - (i + 1) * head, 0.12 * s),
    right: true,
  }));
  return [
    ...heads,
    line('shoulders', 'shoulders', 'chest', 0.818 * s, breadth * 0.55),
    line('hips', 'hips', 'pelvis', segmentShares.hip * s, 0.1 * s),
    line('knees', 'knees', 'pelvis', segmentShares.knee * s, 0.1 * s),
    line('reach', 'reach of the hands', 'chest', p.wrist[2] - 0.1 * s, breadth * 0.6),
    line('eyes', 'eyes, half way up the head', 'head', p.chin + head / 2, 0.45 * head),
  ];
}

export const figure = startForm({
  kind: 'figure',
  version: 2,
  name: 'person, standing or posed',
  when: 'A whole figure in heads: an acrobat, a saint, a puppet, a giant.',
  usualSize: 0.2,
  types: figureTypes,
  finelyMade: true,
  measures: figureMeasures,
  make,
});
