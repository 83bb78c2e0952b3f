import type { Mass } from '../../document';
import { add, mix, type Vec3 } from '../../quantity';
import { angle, choice, length, share, type MeasuresOf } from '../measure';
import type { Joint } from '../skeleton';
import { creatureHeadMasses, creatureHeadMeasures, creatureHeadPlaces, type CreatureHead } from './creature-head';
import { headChoices, headOfType } from './head-types';
import { headMasses, skullRoot } from './human-head';
import { setIn, setInPlace } from './set-in';
import { limb, softestFirst, startForm, type FormType, type MadeForm } from './start-form';

const { headBreadth: _breadth, muzzleLength: _muzzle, ...features } = creatureHeadMeasures;

const longNeckMeasures = {
  headKind: choice(
    'Head of',
    [
      { id: 'animal', name: 'an animal' },
      { id: 'person', name: 'a person' },
    ],
    'animal',
  ),
  face: choice('Person', headChoices, 'old-man', 'Of a person’s head.'),
  headLength: length('Head, nape to nose (a person’s: chin to crown)', 0.05, 3, 0.9),
  headBreadth: length('Head, across (an animal’s)', 0.04, 3, 0.56),
  muzzle: length('Muzzle, of the head’s length', 0, 2, 0.42),
  ...features,
  earLength: share('Ears, of the head’s length', 0.05, 1.5, 0.36),
  fangs: share('Fangs or tusks, of the head’s length', 0, 1.2, 0.08),
  mouthOpen: angle('Mouth open', 0, 45, 12),
  neckLength: length('Neck', 0.02, 4, 0.6),
  neckThick: length('Neck, thick', 0.02, 2, 0.38),
  neckRise: angle('Neck rises at its foot', -10, 90, 60),
  neckBend: angle('Neck bends forward on its way', 0, 150, 50),
  headDown: angle('Nose points down', -40, 90, 12),
  crest: share('Crest along the neck, against its thickness', 0, 1.5, 0),
  footHeight: length('Foot of the neck above the base', 0, 3, 0.4),
};
type LongNeck = MeasuresOf<typeof longNeckMeasures>;

const types: readonly FormType[] = [
  { id: 'wolf', name: 'a wolf', measures: {} },
  {
    id: 'dragon',
    name: 'a dragon',
    measures: {
      ears: 'none',
      brow: 1,
      eyes: 0.08,
      whiskers: 0,
      fangs: 0.16,
      horns: 'straight',
      hornLength: 0.7,
      mouthOpen: 24,
      crest: 0.5,
      footHeight: 0.5,
    },
  },
  {
    id: 'walrus',
    name: 'a walrus',
    measures: {
      headLength: 1.05,
      headBreadth: 0.92,
      muzzle: 0.42,
      muzzleBreadth: 0.94,
      brow: 0.05,
      eyes: 0.06,
      ears: 'none',
      whiskers: 1,
      fangs: 0.62,
      neckLength: 0.5,
      neckThick: 0.62,
      neckRise: 30,
      neckBend: 26,
      headDown: 10,
      footHeight: 1,
    },
  },
  {
    id: 'horse',
    name: 'a horse',
    measures: {
      headLength: 0.9,
      headBreadth: 0.34,
      muzzle: 0.5,
      muzzleBreadth: 0.92,
      brow: 0.05,
      eyes: 0.07,
      earLength: 0.26,
      whiskers: 0.2,
      neckLength: 1,
      neckThick: 0.44,
      neckRise: 75,
      neckBend: 40,
      headDown: 46,
    },
  },
  {
    id: 'giant',
    name: 'a giant, an old man',
    measures: {
      headKind: 'person',
      headLength: 0.8,
      neckLength: 0.34,
      neckThick: 0.42,
      neckRise: 84,
      neckBend: 20,
      headDown: 0,
      footHeight: 0.3,
    },
  },
];

/** Its head about the end of the neck, with where joints and a wire through it go. */
interface Head {
  readonly masses: readonly Mass[];
  readonly middle: Vec3;
  readonly nose: Vec3;
  readonly eyes: Vec3;
  readonly half: number;
}

function animal(m: LongNeck): Head {
  const own: CreatureHead = {
    ...m,
    headBreadth: Math.min(1.4, Math.max(0.2, m.headBreadth / m.headLength)),
    muzzleLength: Math.min(0.75, Math.max(0.12, m.muzzle / m.headLength)),
  };
  const at = creatureHeadPlaces(own, m.headLength);
  // The neck comes into the skull at half its height, not at the poll.
  const down: Vec3 = [0, 0.03 * m.headLength, 0.72 * at.halfHeight];
  return {
    masses: setIn(creatureHeadMasses(own, m.headLength), { at: down }),
    middle: add(at.middle, down),
    nose: add(at.nose, down),
    eyes: add(at.eyes, down),
    half: at.halfBreadth,
  };
}

function person(m: LongNeck): Head {
  const own = headOfType(m.face);
  const size = m.headLength / own.headHeight;
  const down: Vec3 = [0, -0.08 * m.headLength, -0.2 * m.headLength];
  return {
    masses: setIn([skullRoot(own, 0, 0), ...headMasses(own, 0, 0)], { at: down, size }, { joint: 'head' }),
    middle: add(down, [0, 0, 0.55 * m.headLength]),
    nose: add(down, [0, -0.16 * m.headLength, 0.5 * m.headLength]),
    eyes: add(down, [0, -0.4 * m.headLength, 0.5 * m.headLength]),
    half: (own.headBreadth / 2) * size,
  };
}

function make(m: LongNeck): MadeForm {
  const parts = 3;
  const joints: Joint[] = [{ id: 'base', name: 'foot of the frame', parent: null, at: [0, 0, 0], ground: true }];
  const masses: Mass[] = [];
  let at: Vec3 = [0, 0, Math.max(0.02, m.footHeight)];
  let parent = 'base';
  const r = m.neckThick / 2;
  const thick = (share: number) => r * (1.12 - 0.24 * share);
  for (let i = 0; i < parts; i++) {
    const rise = ((m.neckRise - (m.neckBend * (i + 0.5)) / parts) * Math.PI) / 180;
    const step = m.neckLength / parts;
    const to: Vec3 = [0, at[1] - Math.cos(rise) * step, at[2] + Math.sin(rise) * step];
    const id = `neck-${i + 1}`;
    joints.push({ id, name: i === 0 ? 'foot of the neck' : `neck, joint ${i + 1}`, parent, at });
    masses.push(
      limb(
        { id, name: `neck, part ${i + 1}`, region: 'neck', joint: id, blend: r * 0.1 },
        at,
        to,
        thick(i / parts),
        thick((i + 1) / parts),
      ),
    );
    if (m.crest > 0.05) {
      const high = m.crest * r;
      const back: Vec3 = [0, Math.sin(rise), Math.cos(rise)];
      const top = add(mix(at, to, 0.6), [0, back[1] * thick(i / parts) * 0.82, back[2] * thick(i / parts) * 0.82]);
      masses.push(
        limb(
          { id: `crest-${i + 1}`, name: `plate ${i + 1} of the crest`, region: 'crest', joint: id, blend: 0.12 * high },
          top,
          add(top, [0, back[1] * high + 0.2 * high, back[2] * high + 0.35 * high]),
          high * 0.36,
          high * 0.1,
        ),
      );
    }
    at = to;
    parent = id;
  }
  const head = m.headKind === 'animal' ? animal(m) : person(m);
  const setting = { at, turn: [m.headDown, 0, 0] as Vec3 };
  const place = (p: Vec3) => setInPlace(p, setting);
  masses.push(
    // From the neck on into the skull.
    limb(
      { id: 'neck-head', name: 'end of the neck', region: 'neck', joint: parent, blend: r * 0.3 },
      at,
      place(mix([0, 0, 0], head.middle, 0.8)),
      thick(1),
      Math.min(thick(1), head.half * 0.86),
    ),
    ...setIn(head.masses, setting),
  );
  joints.push(
    { id: 'head', name: 'head on the neck', parent, at },
    { id: 'brow', name: 'middle of the head', parent: 'head', at: place(head.middle) },
    { id: 'nose', name: 'nose', parent: 'brow', at: place(head.nose) },
  );
  return {
    joints,
    masses: softestFirst(masses),
    envelopes: [],
    landmarks: [{ id: 'eyes', name: 'eyes', joint: 'head', at: place(head.eyes), half: head.half * 1.2 }],
  };
}

export const longNeck = startForm({
  kind: 'long-neck',
  version: 2,
  name: 'head on a long neck, or hung out from a wall or frame',
  when: 'A serpent, a walrus, a carnival giant: most of the weight well in front of what holds it.',
  usualSize: 1,
  types,
  finelyMade: true,
  measures: longNeckMeasures,
  make,
});
