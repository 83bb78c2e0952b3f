import type { Mass } from '../../../document';
import type { Vec3 } from '../../../quantity';
import { choice, length, share, type MeasuresOf } from '../../measure';
import type { Joint } from '../../skeleton';
import { ball, limb, startForm, type Landmark, type MadeForm } from '../start-form';

/**
 * A person in heads. The head is one part of the height; below the chin the joints stand at fixed shares of what is
 * left (shoulders 0.08, hips 0.47, knees 0.73, ankles 0.96), and breadths go by the head of a grown body that tall.
 */
const builds = [
  { id: 'adult', name: 'adult, seven and a half heads' },
  { id: 'heroic', name: 'heroic, eight heads' },
  { id: 'child', name: 'child, five and a half heads' },
  { id: 'stylised', name: 'stylised, four heads' },
] as const;
export const headsOf: Readonly<Record<(typeof builds)[number]['id'], number>> = {
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
] as const;
type StanceId = (typeof stances)[number]['id'];

/** Degrees about x, y, z by joint; those of a left joint hold for its twin unless the twin is named. */
const turns: Readonly<Record<StanceId, Readonly<Record<string, Vec3>>>> = {
  standing: {},
  kneeling: { 'knee-left': [-92, 0, 0], 'ankle-left': [-60, 0, 0] },
  striding: {
    'hip-left': [24, 0, 0],
    'hip-right': [-22, 0, 0],
    'knee-left': [-6, 0, 0],
    'knee-right': [-12, 0, 0],
    'shoulder-left': [-24, 0, 0],
    'shoulder-right': [26, 0, 0],
    'elbow-left': [18, 0, 0],
    'elbow-right': [24, 0, 0],
  },
  reaching: { 'shoulder-left': [0, -150, 0], 'elbow-left': [0, -12, 0] },
  balancing: {
    'hip-right': [-46, 0, 0],
    'knee-right': [-30, 0, 0],
    'shoulder-left': [0, -84, 0],
    'shoulder-right': [0, 84, 0],
    pelvis: [16, 0, 0],
    'hip-left': [-16, 0, 0],
  },
};

export const figureMeasures = {
  height: length('Height, standing', 0.3, 3, 1.72),
  build: choice('Proportions', builds, 'adult'),
  heft: share('Heft: thickness against the usual', 0.4, 2, 1),
  stance: choice('Stance', stances, 'standing'),
  shoulderBreadth: share('Shoulders, in heads across', 1, 3, 1.85),
};
export type FigureMeasures = MeasuresOf<typeof figureMeasures>;

/** Heights of a standing figure above the ground, and the unit its breadths go by. */
export function figureLevels(m: Pick<FigureMeasures, 'height' | 'build'>) {
  const head = m.height / headsOf[m.build];
  const body = m.height - head;
  const at = (share: number) => body * (1 - share);
  return {
    head,
    chin: body,
    shoulder: at(0.085),
    chest: at(0.19),
    waist: at(0.335),
    hip: at(0.475),
    knee: at(0.735),
    ankle: at(0.962),
    /** A head of a grown body with this body length. */
    unit: body / 6.5,
  };
}

/** Radii go by the square root of heft; at 1 a grown body of 1.72 m comes to about what it weighs in water, 65 to 70 l. */
const thickness = (heft: number) => 1.12 * Math.sqrt(heft);

interface Places {
  readonly shoulder: Vec3;
  readonly elbow: Vec3;
  readonly wrist: Vec3;
  readonly finger: Vec3;
  readonly hip: Vec3;
  readonly knee: Vec3;
  readonly ankle: Vec3;
  readonly toe: Vec3;
}

function placesOf(m: FigureMeasures): Places {
  const z = figureLevels(m);
  const u = z.unit;
  const x = (m.shoulderBreadth * z.unit) / 2 - 0.2 * u;
  const shoulder: Vec3 = [x, 0, z.shoulder];
  const elbow: Vec3 = [x + 0.14 * u, 0.02 * u, z.shoulder - 1.32 * u];
  const wrist: Vec3 = [x + 0.2 * u, -0.1 * u, elbow[2] - 1.08 * u];
  return {
    shoulder,
    elbow,
    wrist,
    finger: [wrist[0], wrist[1] - 0.06 * u, wrist[2] - 0.66 * u],
    hip: [0.42 * u, 0, z.hip],
    knee: [0.4 * u, 0, z.knee],
    ankle: [0.38 * u, 0.08 * u, z.ankle],
    toe: [0.42 * u, -0.72 * u, 0.09 * u],
  };
}

function trunk(m: FigureMeasures): Mass[] {
  const z = figureLevels(m);
  const u = z.unit,
    k = thickness(m.heft);
  const part = (id: string, name: string, region: string, joint: string, blend = 0.14) => ({
    id,
    name,
    region,
    joint,
    blend: blend * u,
  });
  return [
    ball(
      part('pelvis', 'pelvis', 'trunk', 'pelvis'),
      [0, 0.04 * u, z.hip + 0.16 * u],
      [0.64 * u * k, 0.44 * u * k, 0.44 * u],
    ),
    ball(part('waist', 'waist', 'trunk', 'spine'), [0, 0, z.waist], [0.5 * u * k, 0.36 * u * k, 0.6 * u]),
    ball(
      part('ribcage', 'rib cage', 'trunk', 'chest'),
      [0, 0.02 * u, z.chest - 0.05 * u],
      [0.62 * u * k, 0.44 * u * k, 0.78 * u],
    ),
    limb(
      part('collar-left', 'collar and shoulder, left', 'trunk', 'chest'),
      [0.15 * u, 0.02 * u, z.shoulder + 0.1 * u],
      [(m.shoulderBreadth * u) / 2 - 0.2 * u, 0, z.shoulder],
      0.17 * u * k,
      0.2 * u * k,
    ),
    limb(
      part('neck', 'neck', 'head', 'neck', 0.1),
      [0, 0.04 * u, z.shoulder + 0.05 * u],
      [0, -0.02 * u, z.chin + 0.12 * u],
      0.24 * u * k,
      0.22 * u * k,
    ),
  ];
}

function headOf(m: FigureMeasures): Mass[] {
  const z = figureLevels(m);
  const h = z.head;
  return [
    ball(
      { id: 'skull', name: 'skull', region: 'head', joint: 'head', blend: 0.08 * h },
      [0, 0.03 * h, z.chin + 0.63 * h],
      [0.335 * h, 0.405 * h, 0.37 * h],
    ),
    ball(
      { id: 'face', name: 'face and jaw', region: 'head', joint: 'head', blend: 0.12 * h, turn: [-8, 0, 0] },
      [0, -0.11 * h, z.chin + 0.39 * h],
      [0.28 * h, 0.31 * h, 0.4 * h],
    ),
  ];
}

function limbs(m: FigureMeasures, p: Places): Mass[] {
  const u = figureLevels(m).unit,
    k = thickness(m.heft);
  const part = (id: string, name: string, region: string, joint: string) => ({
    id: `${id}-left`,
    name: `${name}, left`,
    region,
    joint: `${joint}-left`,
    blend: 0.07 * u,
  });
  const cone = (id: string, name: string, region: string, joint: string, from: Vec3, to: Vec3, a: number, b: number) =>
    limb(part(id, name, region, joint), from, to, a * u * k, b * u * k);
  return [
    cone('thigh', 'thigh', 'legs', 'hip', p.hip, p.knee, 0.38, 0.245),
    cone('calf', 'calf', 'legs', 'knee', p.knee, p.ankle, 0.245, 0.15),
    cone('foot', 'foot', 'feet', 'ankle', [p.ankle[0], p.ankle[1] + 0.04 * u, 0.16 * u], p.toe, 0.16, 0.09),
    cone('upper-arm', 'upper arm', 'arms', 'shoulder', p.shoulder, p.elbow, 0.205, 0.165),
    cone('forearm', 'forearm', 'arms', 'elbow', p.elbow, p.wrist, 0.165, 0.105),
    ball(
      part('hand', 'hand', 'hands', 'wrist'),
      [(p.wrist[0] + p.finger[0]) / 2, (p.wrist[1] + p.finger[1]) / 2, (p.wrist[2] + p.finger[2]) / 2],
      [0.09 * u, 0.16 * u, 0.38 * u],
    ),
  ];
}

function jointsOf(m: FigureMeasures, p: Places): Joint[] {
  const z = figureLevels(m);
  const own = turns[m.stance];
  const stance = (id: string) => (own[id] ? { stance: own[id] } : {});
  const j = (id: string, name: string, parent: string | null, at: Vec3, ground = false): Joint => ({
    id,
    name,
    parent,
    at,
    ...stance(id),
    ...(ground ? { ground } : {}),
  });
  const middle: Joint[] = [
    j('pelvis', 'pelvis', null, [0, 0, z.hip + 0.1 * z.unit]),
    j('spine', 'waist', 'pelvis', [0, 0.05 * z.unit, z.waist]),
    j('chest', 'chest', 'spine', [0, 0.05 * z.unit, z.shoulder - 0.12 * z.unit]),
    j('neck', 'foot of the neck', 'chest', [0, 0.04 * z.unit, z.shoulder + 0.05 * z.unit]),
    j('head', 'head on the neck', 'neck', [0, 0, z.chin + 0.2 * z.head]),
    j('crown', 'crown', 'head', [0, 0.02 * z.head, z.chin + 0.72 * z.head]),
  ];
  const sides: Joint[] = [
    j('shoulder-left', 'shoulder, left', 'chest', p.shoulder),
    j('elbow-left', 'elbow, left', 'shoulder-left', p.elbow),
    j('wrist-left', 'wrist, left', 'elbow-left', p.wrist),
    j('fingers-left', 'fingertips, left', 'wrist-left', [
      p.finger[0],
      p.finger[1] + 0.02 * z.unit,
      p.finger[2] + 0.3 * z.unit,
    ]),
    j('hip-left', 'hip, left', 'pelvis', p.hip),
    j('knee-left', 'knee, left', 'hip-left', p.knee),
    j('ankle-left', 'ankle, left', 'knee-left', p.ankle),
    j('sole-left', 'sole, left', 'ankle-left', [p.ankle[0], p.ankle[1], 0], true),
  ];
  const made = [...middle, ...sides];
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

function landmarksOf(m: FigureMeasures, p: Places): Landmark[] {
  const z = figureLevels(m);
  const u = z.unit;
  const line = (id: string, name: string, joint: string, height: number, half: number): Landmark => ({
    id,
    name,
    joint,
    at: [0, -0.5 * u, height],
    half,
  });
  const heads = Array.from({ length: Math.floor(headsOf[m.build]) }, (_, i): Landmark => ({
    ...line(`head-${i + 1}`, String(i + 1), 'pelvis', m.height - (i + 1) * z.head, 0.9 * u),
    right: true,
  }));
  return [
    ...heads,
    line('shoulders', 'shoulders', 'chest', z.shoulder, m.shoulderBreadth * u * 0.55),
    line('hips', 'hips', 'pelvis', z.hip, 0.75 * u),
    line('knees', 'knees', 'pelvis', z.knee, 0.75 * u),
    line('reach', 'reach of the hands', 'chest', p.finger[2], m.shoulderBreadth * u * 0.6),
    line('eyes', 'eyes, half way up the head', 'head', z.chin + z.head / 2, 0.45 * z.head),
  ];
}

function make(m: FigureMeasures): MadeForm {
  const p = placesOf(m);
  const z = figureLevels(m);
  const slack = 0.06 * z.head;
  return {
    joints: jointsOf(m, p),
    masses: [...trunk(m), ...headOf(m), ...limbs(m, p)],
    landmarks: landmarksOf(m, p),
    envelopes: [
      {
        id: 'skull',
        name: 'skull',
        joint: 'head',
        low: [-0.335 * z.head - slack, -0.46 * z.head, z.chin - slack],
        high: [0.335 * z.head + slack, 0.46 * z.head, z.chin + z.head + slack],
      },
    ],
  };
}

export const figure = startForm({
  kind: 'figure',
  name: 'person, standing or posed',
  when: 'A whole figure in heads: an acrobat, a saint, a puppet, a giant.',
  usualSize: 0.2,
  measures: figureMeasures,
  make,
});
