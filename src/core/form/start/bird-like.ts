import type { Mass } from '../../document';
import { add, mix, scale, type Vec3 } from '../../quantity';
import { angle, choice, length, share, yesNo, type MeasuresOf } from '../measure';
import { rotate, rotationOf } from '../turn';
import { birdHeadEnd, birdHeadMasses, birdHeadMeasures } from './bird-head';
import { creatureHeadMasses, creatureHeadMeasures, creatureHeadPlaces, type CreatureHead } from './creature-head';
import { setIn, setInPlace } from './set-in';
import { ball, jointAt, limb, softestFirst, startForm, type FormType, type MadeForm } from './start-form';
import { foldedWing, spreadWing, wingHolds, wingKinds } from './wings';

export const birdMeasures = {
  legLength: length('Legs, ground to body', 0.02, 2, 0.3),
  legThick: share('Thickness of the legs against the usual', 0.5, 4, 1),
  bodyLength: length('Body, breast to tail', 0.03, 2, 0.38),
  bodyBreadth: length('Body, across', 0.02, 1.5, 0.16),
  lean: angle('Body carried, from level to upright', -20, 75, 24),
  neckLength: length('Neck', 0, 2, 0.26),
  neckThick: share('Thickness of the neck against the usual', 0.4, 2.5, 1),
  headKind: choice(
    'Head',
    [
      { id: 'beak', name: 'with a beak' },
      { id: 'muzzle', name: 'with a muzzle, as a dragon’s' },
    ],
    'beak',
  ),
  ...birdHeadMeasures,
  crestLength: length('Crest on the head', 0, 0.4, 0.1),
  tailLength: length('Tail', 0, 1.5, 0.14),
  tailBreadth: share('Breadth of the tail against its length', 0.1, 1.6, 0.5),
  wing: choice('Wings', wingHolds, 'folded'),
  wingKind: choice('Wings of', wingKinds, 'feathers'),
  wingSpan: length('Wings, tip to tip when spread', 0.1, 6, 1.2),
  webbed: yesNo('Webbed feet', false),
};
type Bird = MeasuresOf<typeof birdMeasures>;

export const birdTypes: readonly FormType[] = [
  { id: 'heron', name: 'a heron', measures: {} },
  {
    id: 'raven',
    name: 'a raven',
    measures: {
      crestLength: 0,
      legLength: 0.1,
      legThick: 1.6,
      bodyLength: 0.28,
      bodyBreadth: 0.14,
      lean: 26,
      neckLength: 0.05,
      neckThick: 1.5,
      headLength: 0.08,
      beakLength: 0.07,
      beakThick: 0.42,
      tailLength: 0.2,
      tailBreadth: 0.4,
      wingSpan: 1.1,
    },
  },
  {
    id: 'owl',
    name: 'an owl',
    measures: {
      crestLength: 0,
      legLength: 0.14,
      legThick: 2.2,
      bodyLength: 0.32,
      bodyBreadth: 0.2,
      lean: 60,
      neckLength: 0.02,
      neckThick: 2.2,
      headLength: 0.15,
      beakLength: 0.03,
      beakThick: 0.26,
      beakShape: 'hooked',
      birdEyes: 0.3,
      faceDisc: 1,
      tailLength: 0.08,
      tailBreadth: 0.8,
      wingSpan: 1.2,
    },
  },
  {
    id: 'swan',
    name: 'a swan',
    measures: {
      crestLength: 0,
      legLength: 0.16,
      legThick: 1.6,
      bodyLength: 0.66,
      bodyBreadth: 0.34,
      lean: 6,
      neckLength: 0.62,
      neckThick: 0.8,
      headLength: 0.12,
      beakLength: 0.1,
      beakThick: 0.4,
      beakShape: 'flat',
      tailLength: 0.15,
      tailBreadth: 0.9,
      wingSpan: 2.2,
      webbed: true,
    },
  },
  {
    id: 'eagle',
    name: 'an eagle, wings spread',
    measures: {
      crestLength: 0,
      legLength: 0.15,
      legThick: 2.4,
      bodyLength: 0.42,
      bodyBreadth: 0.2,
      lean: 48,
      neckLength: 0.07,
      neckThick: 1.5,
      headLength: 0.105,
      beakLength: 0.065,
      beakThick: 0.5,
      beakShape: 'hooked',
      birdEyes: 0.22,
      tailLength: 0.26,
      tailBreadth: 0.7,
      wing: 'spread',
      wingSpan: 2,
    },
  },
  {
    id: 'dragon',
    name: 'a dragon on two legs',
    measures: {
      crestLength: 0,
      legLength: 0.34,
      legThick: 3,
      bodyLength: 0.7,
      bodyBreadth: 0.34,
      lean: 36,
      neckLength: 0.5,
      neckThick: 1.2,
      headKind: 'muzzle',
      headLength: 0.34,
      tailLength: 0.9,
      tailBreadth: 0.1,
      wing: 'spread',
      wingKind: 'skin',
      wingSpan: 2.2,
    },
  },
];

/** The head of a dragon on two legs: what a maker does not set is as on one of four. */
const dragonHead: CreatureHead = {
  ...(Object.fromEntries(
    Object.entries(creatureHeadMeasures).map(([key, measure]) => [key, measure.start]),
  ) as unknown as CreatureHead),
  brow: 1,
  ears: 'none',
  eyes: 0.08,
  whiskers: 0,
  fangs: 0.14,
  horns: 'straight',
  hornLength: 0.8,
  muzzleBreadth: 0.64,
  mouthOpen: 20,
};

/** `perched`: what it sits on is not the ground, so its tail may hang below its feet. */
export function makeBird(m: Bird, perched = false): MadeForm {
  const r = m.bodyBreadth / 2;
  const half = m.bodyLength / 2;
  const thin = Math.max(0.004, m.legLength * 0.042 * m.legThick, 0.02 * m.bodyLength);
  // As upright as asked for, or as far as the end of the body stays clear of the ground.
  const clear = m.legLength + 0.16 * r - 0.3 * r;
  const most = (Math.asin(Math.min(1, Math.max(0, clear / (0.9 * half)))) * 180) / Math.PI;
  const lean: Vec3 = [-(perched ? m.lean : Math.min(m.lean, most)), 0, 0];
  const rotation = rotationOf(lean);
  // The body is turned about its hips, which stand over the feet.
  const hipOwn: Vec3 = [r * 0.5, half * 0.1, -r * 0.42];
  const middle: Vec3 = add([0, 0, m.legLength + 0.16 * r], scale(rotate(rotation, [0, hipOwn[1], hipOwn[2]]), -1));
  const body = { at: middle, turn: lean };
  const on = (p: Vec3) => setInPlace(p, body);
  const part = (id: string, name: string, region: string, joint: string, blend: number) => ({
    id,
    name,
    region,
    joint,
    blend: blend * r,
  });

  // Up from the breast and over at the top.
  const neckFoot = on([0, -0.7 * half, 0.3 * r]);
  const bend = add(neckFoot, [0, -0.1 * r - 0.05 * m.neckLength, 0.2 * r + 0.36 * m.neckLength]);
  const top = add(bend, [0, 0.01 * m.neckLength, 0.1 * r + 0.36 * m.neckLength]);
  const poll = add(top, [0, -0.28 * m.neckLength, 0.1 * r + 0.16 * m.neckLength]);
  const head = { at: poll, turn: [m.headKind === 'beak' ? 4 : 14, 0, 0] as Vec3 };
  const muzzled = m.headKind === 'muzzle';
  const skullHalf = muzzled ? creatureHeadPlaces(dragonHead, m.headLength).halfBreadth * 0.75 : m.headLength * 0.36;
  const skull = muzzled
    ? setInPlace(creatureHeadPlaces(dragonHead, m.headLength).middle, head)
    : setInPlace([0, -0.4 * m.headLength, 0], head);
  const end = muzzled
    ? setInPlace(creatureHeadPlaces(dragonHead, m.headLength).nose, head)
    : setInPlace(birdHeadEnd(m), head);

  const hip = on(hipOwn);
  const hock: Vec3 = [hip[0], hip[1] + m.legLength * 0.16, hip[2] * 0.5];
  const foot: Vec3 = [hip[0], hip[1] - m.legLength * 0.02, thin * 1.2];
  const tailRoot = on([0, 0.8 * half, 0.02 * r]);
  // A tail that would run into the ground lies along it.
  const straight = on([0, 0.86 * half + m.tailLength, -0.08 * r]);
  const tailTip: Vec3 = perched
    ? straight
    : [0, straight[1], Math.max(straight[2], Math.min(tailRoot[2], 0.12 * r + 0.05 * m.tailLength))];
  const wingRoot = on([0.72 * r, -0.42 * half, 0.42 * r]);

  const masses: Mass[] = [
    ...setIn(
      [
        ball(part('body', 'body', 'trunk', 'back', 0.4), [0, 0, 0], [r, half * 0.94, r * 0.98]),
        ball(
          part('breast', 'breast', 'trunk', 'back', 0.4),
          [0, -0.48 * half, -0.24 * r],
          [r * 0.86, half * 0.5, r * 0.84],
        ),
        ball(
          part('keel', 'keel of the breast', 'trunk', 'back', 0.35),
          [0, -0.3 * half, -0.72 * r],
          [r * 0.36, half * 0.5, r * 0.36],
        ),
        ball(part('back', 'back', 'trunk', 'back', 0.4), [0, 0, 0.44 * r], [r * 0.7, half * 0.74, r * 0.54]),
        limb(
          part('rump', 'rump', 'trunk', 'back', 0.4),
          [0, 0.42 * half, 0.02 * r],
          [0, 0.92 * half, 0.02 * r],
          r * 0.6,
          r * 0.3,
        ),
        ball(
          part('shoulder-left', 'shoulder, left', 'trunk', 'back', 0.3),
          [0.66 * r, -0.42 * half, 0.3 * r],
          [r * 0.34, half * 0.36, r * 0.42],
        ),
      ],
      body,
    ),
    ...legs(m, r, thin, { hip, hock, foot }),
  ];
  const neckThick = r * 0.42 * m.neckThick,
    upper = Math.min(neckThick, skullHalf * 0.86 * Math.max(1, m.neckThick * 0.8));
  const mid = (share: number) => neckThick + (upper - neckThick) * share;
  masses.push(
    limb(part('neck', 'foot of the neck', 'neck', 'neck', 0.3), neckFoot, bend, neckThick, mid(0.36)),
    limb(part('neck-middle', 'middle of the neck', 'neck', 'neck-bend', 0.03), bend, top, mid(0.36), mid(0.72)),
    limb(part('neck-upper', 'top of the neck', 'neck', 'neck-top', 0.03), top, poll, mid(0.72), upper),
    limb(part('neck-head', 'nape', 'neck', 'neck-top', 0.1), poll, skull, upper, skullHalf * 0.8),
    ...setIn(muzzled ? creatureHeadMasses(dragonHead, m.headLength) : birdHeadMasses(m), head),
  );
  if (m.tailLength > 0.004) masses.push(...tail(m, r, tailRoot, tailTip));
  const wingOf = {
    root: wingRoot,
    joint: 'back',
    reach: Math.max(0.1 * r, m.wingSpan / 2 - wingRoot[0]),
    thick: r * 0.24,
  };
  const wing =
    m.wing === 'none'
      ? null
      : m.wing === 'spread'
        ? spreadWing(m.wingKind, wingOf)
        : foldedWing(
            m.wingKind,
            { ...wingOf, root: on([0.97 * r, -0.5 * half, 0.34 * r]), reach: 0.62 * m.bodyLength + 0.42 * half },
            rotate(rotation, [-0.16, 1, 0]),
            rotate(rotation, [0.1, 0, -1]),
          );
  if (wing) masses.push(...wing.masses);
  return {
    masses: softestFirst(masses),
    joints: [
      jointAt('back', 'back', null, on([0, hipOwn[1], 0])),
      jointAt('neck', 'foot of the neck', 'back', neckFoot),
      jointAt('neck-bend', 'bend of the neck', 'neck', bend),
      jointAt('neck-top', 'top of the neck', 'neck-bend', top),
      jointAt('head', 'head on the neck', 'neck-top', poll),
      jointAt('beak', muzzled ? 'inside the muzzle' : 'root of the beak', 'head', end),
      ...(m.tailLength > 0.004
        ? [
            jointAt('tail', 'root of the tail', 'back', tailRoot),
            jointAt('tail-tip', 'end of the tail', 'tail', mix(tailRoot, tailTip, 0.8)),
          ]
        : []),
      ...(wing?.joints ?? []),
      jointAt('hip-left', 'hip, left', 'back', hip),
      jointAt('hock-left', 'hock, left', 'hip-left', hock),
      jointAt('foot-left', 'foot, left', 'hock-left', [foot[0], foot[1], 0], true),
    ],
    landmarks: [
      { id: 'back', name: 'height of the back', joint: 'back', at: on([0, 0, 0.96 * r]), half: r * 1.4 },
      { id: 'eyes', name: 'eyes', joint: 'head', at: [0, skull[1], skull[2]], half: skullHalf * 1.6 },
    ],
    envelopes: [],
  };
}

/** Thigh in the feathers of the flank, shank, and a foot of three toes before and one behind. */
function legs(m: Bird, r: number, thin: number, at: { hip: Vec3; hock: Vec3; foot: Vec3 }): Mass[] {
  const { hip, hock, foot } = at;
  const part = (id: string, name: string, region: string, joint: string, blend: number) => ({
    id: `${id}-left`,
    name: `${name}, left`,
    region,
    joint: `${joint}-left`,
    blend,
  });
  const toe = Math.max(m.legLength * 0.3, thin * 4.5, m.bodyBreadth * 0.3);
  const masses: Mass[] = [
    limb(part('leg', 'thigh', 'legs', 'hip', 0.2 * r), hip, hock, Math.max(r * 0.42, thin * 1.5), thin * 1.15),
    limb(part('shank', 'shank', 'legs', 'hock', 0.5 * thin), hock, foot, thin * 1.12, thin),
    ball(
      part('foot', 'foot', 'feet', 'hock', 0.8 * thin),
      [foot[0], foot[1] - 0.3 * thin, thin],
      [thin * 1.3, thin * 1.5, thin],
    ),
  ];
  const toes = [
    { id: 'inner', name: 'inner toe', turn: -34, long: 0.86 },
    { id: 'middle', name: 'middle toe', turn: 3, long: 1 },
    { id: 'outer', name: 'outer toe', turn: 40, long: 0.88 },
    { id: 'hind', name: 'hind toe', turn: 180, long: 0.5 },
  ];
  for (const t of toes) {
    const a = (t.turn * Math.PI) / 180;
    const way: Vec3 = [Math.sin(a), -Math.cos(a), 0];
    const from: Vec3 = [foot[0], foot[1], thin * 0.95];
    const knuckle = add(from, scale(way, toe * t.long * 0.72));
    const tip = add(from, scale(way, toe * t.long));
    masses.push(
      limb(
        part(`toe-${t.id}`, t.name, 'feet', 'hock', 0.3 * thin),
        from,
        [knuckle[0], knuckle[1], thin * 0.8],
        thin * 0.85,
        thin * 0.72,
      ),
      limb(
        part(`claw-${t.id}`, `claw of the ${t.name}`, 'feet', 'hock', 0.2 * thin),
        [knuckle[0], knuckle[1], thin * 0.9],
        [tip[0], tip[1], thin * 0.35],
        thin * 0.6,
        thin * 0.3,
      ),
    );
  }
  if (m.webbed)
    masses.push(
      ball(
        part('web', 'web', 'feet', 'hock', 0.3 * thin),
        [foot[0] + 0.04 * toe, foot[1] - 0.42 * toe, thin * 0.5],
        [toe * 0.42, toe * 0.42, thin * 0.45],
      ),
    );
  return masses;
}

/** Five feathers spread as broad as said; a narrow tail is a plain one. */
function tail(m: Bird, r: number, root: Vec3, tip: Vec3): Mass[] {
  const long = m.tailLength;
  const part = (id: string, name: string, blend: number) => ({ id, name, region: 'tail', joint: 'tail', blend });
  const thick = Math.min(r * 0.38, Math.max(0.08 * long, 0.2 * r));
  const masses: Mass[] = [
    limb(
      part('tail', 'root of the tail', 0.2 * r),
      root,
      mix(root, tip, m.tailBreadth < 0.2 ? 1 : 0.4),
      r * 0.34,
      m.tailBreadth < 0.2 ? r * 0.09 : thick,
    ),
  ];
  if (m.tailBreadth < 0.2) return masses;
  const spread = Math.atan(m.tailBreadth / 2);
  for (const k of [0, 1, 2]) {
    const a = (spread * k) / 2;
    const way = add(tip, scale(root, -1));
    const end: Vec3 = [Math.sin(a) * long, root[1] + way[1] * Math.cos(a), root[2] + way[2] * Math.cos(a)];
    const dip = (Math.atan2(-way[2], way[1]) * 180) / Math.PI;
    masses.push(
      ball(
        {
          ...part(
            k === 0 ? 'tail-feather' : `tail-feather-${k}-left`,
            k === 0 ? 'middle feather of the tail' : `feather ${k} of the tail, left`,
            thick * 0.3,
          ),
          turn: [-dip, 0, (-a * 180) / Math.PI],
        },
        mix(root, end, 0.56),
        [Math.max(thick * 1.4, long * m.tailBreadth * 0.16), long * 0.46, thick],
      ),
    );
  }
  return masses;
}

export const birdLike = startForm({
  kind: 'bird-like',
  version: 2,
  name: 'creature on two legs, like a bird',
  when: 'A heron, a raven, an owl, a swan, a dragon on its hind legs.',
  usualSize: 0.5,
  types: birdTypes,
  finelyMade: true,
  measures: birdMeasures,
  make: (m) => makeBird(m),
});
