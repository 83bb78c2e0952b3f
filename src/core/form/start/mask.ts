import type { Mass } from '../../document';
import { add, mix, type Vec3 } from '../../quantity';
import { choice, length, share, yesNo, type MeasuresOf } from '../measure';
import { ball, limb, softestFirst, startForm, type FormType, type MadeForm } from './start-form';
import { facePlaces, lifeForm } from './wearer';

const maskMeasures = {
  cover: choice(
    'Covers',
    [
      { id: 'full', name: 'the whole face' },
      { id: 'half', name: 'brow to upper lip' },
      { id: 'head', name: 'the whole head' },
    ],
    'full',
  ),
  headGirth: length('Wearer’s head, round above the brows', 0.45, 0.7, 0.57),
  chinToCrown: length('Wearer’s head, chin to crown', 0.17, 0.3, 0.228),
  neckGirth: length('Wearer’s neck, round', 0.22, 0.55, 0.36),
  muzzle: length('Muzzle stands out', 0, 0.35, 0),
  muzzleBreadth: length('Muzzle, across', 0.02, 0.25, 0.095),
  muzzleTip: share('Muzzle’s end against its root', 0.1, 1.2, 0.75),
  muzzleDrop: length('Muzzle’s end hangs', -0.1, 0.2, 0.012),
  nosePad: yesNo('Pad of an animal’s nose', false),
  whiskers: share('Pads of the whiskers', 0, 1, 0),
  nose: length('Nose stands out', 0, 0.2, 0.014),
  noseHook: share('Nose hooked', 0, 1, 0.2),
  brow: length('Brow stands out', 0, 0.08, 0.012),
  browRise: share('Brow, from knit to raised', -1, 1, 0),
  cheeks: length('Cheeks stand out', 0, 0.08, 0.012),
  chin: length('Chin stands out', 0, 0.15, 0.008),
  bowl: length('Bowl of a helmet stands off the head', 0.004, 0.12, 0.018),
  visor: length('Slit before the eyes, wide', 0, 0.2, 0),
  crest: length('Crest along the top', 0, 0.2, 0),
  earKind: choice(
    'Ears',
    [
      { id: 'none', name: 'none' },
      { id: 'round', name: 'round' },
      { id: 'pointed', name: 'pointed' },
    ],
    'none',
  ),
  earLength: length('Ears stand up', 0.01, 0.3, 0.05),
  horns: length('Horns', 0, 0.5, 0),
  eyeHole: length('Holes of the eyes, high', 0, 0.05, 0.02),
  mouthHole: length('Hole of the mouth, high', 0, 0.06, 0.012),
  nostrils: yesNo('Holes of the nostrils', true),
  standHeight: length('Stand under the form', 0.02, 0.5, 0.12),
};
type Mask = MeasuresOf<typeof maskMeasures>;

const types: readonly FormType[] = [
  { id: 'plain', name: 'a plain face', measures: {} },
  {
    id: 'otter',
    name: 'an otter',
    measures: {
      muzzle: 0.06,
      muzzleBreadth: 0.105,
      muzzleTip: 0.8,
      nosePad: true,
      whiskers: 1,
      nose: 0,
      brow: 0.012,
      cheeks: 0.026,
      chin: 0.004,
      earKind: 'round',
      earLength: 0.036,
    },
  },
  {
    id: 'fox',
    name: 'a fox',
    measures: {
      muzzle: 0.13,
      muzzleBreadth: 0.09,
      muzzleTip: 0.38,
      muzzleDrop: 0.02,
      nosePad: true,
      nose: 0,
      cheeks: 0.035,
      brow: 0.014,
      browRise: -0.4,
      chin: 0,
      earKind: 'pointed',
      earLength: 0.13,
    },
  },
  {
    id: 'bull',
    name: 'a bull',
    measures: {
      muzzle: 0.16,
      muzzleBreadth: 0.13,
      muzzleTip: 0.86,
      muzzleDrop: 0.05,
      nosePad: true,
      nose: 0,
      brow: 0.03,
      cheeks: 0.01,
      chin: 0,
      earKind: 'pointed',
      earLength: 0.09,
      horns: 0.24,
    },
  },
  {
    id: 'beak',
    name: 'a beak',
    measures: {
      cover: 'half',
      muzzle: 0.22,
      muzzleBreadth: 0.075,
      muzzleTip: 0.16,
      muzzleDrop: 0.08,
      nose: 0,
      brow: 0.014,
      cheeks: 0.004,
      mouthHole: 0,
      nostrils: false,
    },
  },
  {
    id: 'long-nose',
    name: 'a half mask with a long nose',
    measures: { cover: 'half', nose: 0.07, noseHook: 0.8, brow: 0.03, browRise: 0.5, cheeks: 0.026, mouthHole: 0 },
  },
  {
    id: 'devil',
    name: 'a devil',
    measures: {
      nose: 0.035,
      noseHook: 0.9,
      brow: 0.034,
      browRise: -1,
      cheeks: 0.022,
      chin: 0.032,
      earKind: 'pointed',
      earLength: 0.06,
      horns: 0.13,
      mouthHole: 0.02,
    },
  },
  {
    id: 'helmet',
    name: 'a helmet',
    measures: {
      cover: 'head',
      bowl: 0.02,
      visor: 0.13,
      crest: 0.035,
      nose: 0,
      brow: 0,
      cheeks: 0,
      chin: 0,
      eyeHole: 0.022,
      mouthHole: 0,
      nostrils: false,
    },
  },
];

/** Parts of the form that have clay over them, by their ids without what stands before them. */
const upperFace =
  /^form-(forehead|temple|brow|socket|cheekbone|arch|eye|nose|upper-jaw|upper-lip|upper-lid|lower-lid|eye-bed|socket-back)/;
const offTheHead = /^form-(neck|skull-root)/;
const ear = /^form-ear-/;
const lowerFace = /^form-(jaw|chin|floor|lower-teeth|lower-lip|cheek-|chewing-muscle)/;

function make(m: Mask): MadeForm {
  const chin = m.standHeight + 0.07;
  const axis = 0.01;
  const f = facePlaces(m, chin, axis);
  const covered = (id: string) =>
    m.cover === 'head'
      ? !offTheHead.test(id)
      : upperFace.test(id) || (m.cover === 'full' ? lowerFace.test(id) : /^form-cheek-/.test(id));
  // Under a helmet ears lie flat.
  const form = lifeForm(m, chin, axis, m.standHeight)
    .filter(({ id }) => m.cover !== 'head' || !ear.test(id))
    .map((mass): Mass => (covered(mass.id) ? { ...mass, role: 'core', region: 'mask' } : mass));
  return {
    joints: [
      { id: 'stand', name: 'foot of the stand', parent: null, at: [0, axis + 0.03, 0], ground: true },
      { id: 'head', name: 'head of the form', parent: 'stand', at: [0, axis + 0.02, chin + 0.4 * m.chinToCrown] },
      { id: 'crown', name: 'crown of the form', parent: 'head', at: [0, axis, chin + 0.8 * m.chinToCrown] },
    ],
    masses: [...softestFirst([...form, ...clayOf(m, f)]), ...openingsOf(m, f)],
    landmarks: (
      [
        ['eyes', 'eyes', f.eye[2]],
        ['nose', 'foot of the nose', f.noseFoot],
        ['mouth', 'mouth', f.mouth],
        ['girth', 'girth above the brows', f.brow + 0.012],
      ] as const
    ).map(([id, name, z]) => ({ id, name, joint: 'head', at: [0, f.front, z], half: f.own.headBreadth * 0.6 })),
    envelopes: [],
  };
}

type Places = ReturnType<typeof facePlaces>;

/** What is built out of clay alone: muzzle, nose, brows, cheeks, chin, ears and horns. */
function clayOf(m: Mask, f: Places): Mass[] {
  const { own, front } = f;
  const part = (id: string, name: string, region = 'mask', blend = 0.016) => ({
    id,
    name,
    region,
    joint: 'head',
    blend,
  });
  const masses: Mass[] = [];
  if (m.muzzle > 0.002) {
    const across = m.muzzleBreadth / 2;
    const tip = across * m.muzzleTip;
    const root: Vec3 = [0, front + 0.035, (f.noseFoot * 2 + f.mouth) / 3];
    const end: Vec3 = [0, front - m.muzzle + tip * 0.6, root[2] - m.muzzleDrop];
    masses.push(
      limb(part('muzzle', 'muzzle', 'muzzle', 0.03), root, end, across, tip),
      // From between the brows down to its end.
      limb(
        part('muzzle-bridge', 'bridge of the muzzle', 'muzzle', 0.022),
        [0, front + 0.012, f.eye[2] + 0.004],
        add(end, [0, 0.01, tip * 0.42]),
        0.016,
        Math.max(0.006, tip * 0.6),
      ),
    );
    if (m.cover === 'full' && m.muzzleTip > 0.3)
      masses.push(
        limb(
          part('muzzle-jaw', 'lower jaw of the muzzle', 'muzzle', 0.012),
          [0, front + 0.03, f.mouth - 0.03],
          add(end, [0, tip * 0.1, -tip * 0.8]),
          across * 0.62,
          tip * 0.4,
        ),
      );
    if (m.nosePad)
      masses.push(
        ball(part('nose-pad', 'pad of the nose', 'muzzle', 0.005), add(end, [0, -tip * 0.86, tip * 0.42]), [
          tip * 0.5,
          tip * 0.3,
          tip * 0.34,
        ]),
      );
    if (m.whiskers > 0.02)
      masses.push(
        ball(
          part('whiskers-left', 'pad of the whiskers, left', 'muzzle', 0.01),
          add(end, [tip * 0.52, -tip * 0.28, -tip * 0.24]),
          [tip * (0.36 + 0.26 * m.whiskers), tip * (0.42 + 0.2 * m.whiskers), tip * (0.34 + 0.24 * m.whiskers)],
        ),
      );
  }
  if (m.nose > 0.002) {
    const tip: Vec3 = [0, f.noseTip - m.nose * 0.86, f.noseFoot + 0.014 - m.nose * 0.5 * m.noseHook];
    const bend: Vec3 = [0, f.front - m.nose * 0.62, (f.noseFoot + f.eye[2]) / 2 + 0.12 * m.nose];
    masses.push(
      limb(
        part('nose-bridge', 'bridge of the nose', 'mask', 0.012),
        [0, front + 0.006, f.eye[2] + 0.004],
        bend,
        0.011,
        0.013,
      ),
      limb(part('nose-tip', 'tip of the nose', 'mask', 0.008), bend, tip, 0.013, 0.0125 + 0.05 * m.nose),
      // Under the bridge, back to the face.
      limb(
        part('nose-body', 'body of the nose', 'mask', 0.014),
        [0, front + 0.006, f.noseFoot + 0.016],
        mix(bend, tip, 0.55),
        0.017,
        0.013 + 0.04 * m.nose,
      ),
      ball(
        part('nose-wing-left', 'wing of the nose, left', 'mask', 0.006),
        [0.017 + 0.04 * m.nose, front - 0.006 - m.nose * 0.4, f.noseFoot + 0.012],
        [0.01 + 0.03 * m.nose, 0.014 + 0.05 * m.nose, 0.01],
      ),
    );
  }
  if (m.brow > 0.001)
    masses.push(
      limb(
        part('brow-left', 'brow, left', 'mask', 0.014),
        [0.014, front + 0.004 - m.brow * 0.55, f.brow + 0.006 + Math.min(0, m.browRise) * 0.01],
        [own.eyesApart / 2 + 0.026, front + 0.028 - m.brow * 0.4, f.brow + 0.006 - m.browRise * -0.012],
        0.008 + 0.3 * m.brow,
        0.006 + 0.2 * m.brow,
      ),
    );
  if (m.cheeks > 0.001)
    masses.push(
      ball(
        part('cheek-left', 'cheek, left', 'mask', 0.02),
        [own.cheekbones * 0.27, front + 0.036 - m.cheeks * 0.5, (f.noseFoot + f.mouth) / 2 + 0.008],
        [0.027 + 0.3 * m.cheeks, 0.018 + 0.6 * m.cheeks, 0.026 + 0.2 * m.cheeks],
      ),
    );
  if (m.chin > 0.001 && m.cover === 'full') {
    const foot = f.mouth - (f.noseFoot - f.mouth) * 1.9;
    masses.push(
      limb(
        part('chin', 'chin', 'mask', 0.016),
        [0, front + 0.026, foot + 0.014],
        [0, front + 0.012 - m.chin, foot + 0.006 - 0.1 * m.chin],
        0.024,
        0.013 + 0.08 * m.chin,
      ),
    );
  }
  if (m.cover === 'head') masses.push(...bowlOf(m, f));
  const side: Vec3 = [own.headBreadth * 0.44, axisOf(f) - 0.012, f.brow + 0.052];
  const e = m.earLength;
  if (m.earKind === 'round')
    masses.push(
      ball({ ...part('ear-left', 'ear, left', 'ears', 0.012), turn: [-6, 22, 10] }, add(side, [e * 0.3, 0, e * 0.25]), [
        e * 0.55,
        Math.max(0.009, e * 0.22),
        e * 0.55,
      ]),
      ball(
        part('ear-root-left', 'root of the ear, left', 'ears', 0.014),
        add(side, [-0.006, 0, -0.006]),
        [0.022, 0.018, 0.022],
      ),
    );
  if (m.earKind === 'pointed')
    masses.push(
      ball(
        { ...part('ear-left', 'ear, left', 'ears', 0.014), turn: [-4, 14, 16] },
        add(side, [e * 0.12, 0, e * 0.36]),
        [Math.max(0.014, e * 0.26), Math.max(0.008, e * 0.1), e * 0.46],
      ),
      limb(
        part('ear-tip-left', 'tip of the ear, left', 'ears', 0.01),
        add(side, [e * 0.1, 0, e * 0.36]),
        add(side, [e * 0.26, 0.01, e * 0.96]),
        Math.max(0.009, e * 0.11),
        Math.max(0.0045, e * 0.045),
      ),
      ball(
        part('ear-root-left', 'root of the ear, left', 'ears', 0.016),
        add(side, [-0.006, 0, -0.004]),
        [0.024, 0.02, 0.024],
      ),
    );
  if (m.horns > 0.01) {
    const h = m.horns;
    const r = Math.max(0.011, 0.085 * h);
    const foot: Vec3 = [own.headBreadth * 0.28, front + 0.034, f.brow + 0.036];
    const bend = add(foot, [h * 0.36, 0.02, h * 0.22]);
    masses.push(
      limb(part('horn-left', 'horn, left', 'horns', 0.012), foot, bend, r * 1.2, r),
      limb(
        part('horn-tip-left', 'tip of the horn, left', 'horns', 0.006),
        bend,
        add(bend, [h * 0.12, -0.03, h * 0.62]),
        r,
        r * 0.36,
      ),
    );
  }
  return masses;
}

/** Of a helmet: bowl, neck guard, cheek guards and what hangs before the face, all so far off the head; its crest. */
function bowlOf(m: Mask, f: Places): Mass[] {
  const { own, front } = f;
  const axis = axisOf(f);
  const off = m.bowl;
  const [half, deep, high] = [own.headBreadth / 2 + off, own.headDepth / 2 + off, own.headHeight * 0.5 + off];
  const middle = f.crown - own.headHeight * 0.5;
  const part = (id: string, name: string, blend: number) => ({ id, name, region: 'mask', joint: 'head', blend });
  const masses: Mass[] = [
    ball(part('bowl', 'bowl', 0.03), [0, axis, middle], [half, deep, high]),
    limb(
      part('neck-guard', 'neck guard', 0.03),
      [0, axis + own.headDepth * 0.2, middle],
      [0, axis + own.headDepth * 0.22, f.mouth],
      own.headDepth * 0.26 + off,
      own.headDepth * 0.24 + off,
    ),
    limb(
      part('cheek-guard-left', 'cheek guard, left', 0.03),
      [own.headBreadth * 0.3, axis - own.headDepth * 0.1, f.eye[2]],
      [own.headBreadth * 0.3, axis - own.headDepth * 0.14, f.mouth - 0.008],
      own.headBreadth * 0.2 + off,
      own.headBreadth * 0.18 + off,
    ),
    limb(
      part('face-guard', 'face guard', 0.03),
      [0, front + 0.06, f.eye[2]],
      [0, front + 0.055, f.mouth - 0.012],
      0.058 + off,
      0.05 + off,
    ),
  ];
  // A plate on edge that comes out of the bowl from brow to nape.
  const up = 0.3 * high;
  if (m.crest > 0.002)
    masses.push(
      ball(
        part('crest', 'crest', 0.01),
        [0, axis + 0.006, middle + up],
        [0.008 + 0.12 * m.crest, deep + 0.5 * m.crest, high - up + m.crest],
      ),
    );
  return masses;
}

const axisOf = (f: Places): number => f.front + f.own.headDepth / 2;

/** Cut out of the clay, down to the form. */
function openingsOf(m: Mask, f: Places): Mass[] {
  const part = (id: string, name: string) => ({
    id,
    name,
    region: 'head-form',
    joint: 'head',
    blend: 0,
    role: 'opening' as const,
  });
  const deep = 0.05 + m.brow + m.muzzle * 0.3 + (m.cover === 'head' ? m.bowl : 0);
  const masses: Mass[] = [];
  // Guards end round below, where a head would not come in: they are cut off where they are widest.
  if (m.cover === 'head') {
    const flat = 0.5;
    masses.push(ball(part('rim', 'rim'), [0, axisOf(f), f.mouth - 0.006 - flat], [1, 1, flat]));
  }
  if (m.visor > 0.002)
    masses.push(
      ball(
        part('visor', 'slit before the eyes'),
        [0, f.front - 0.4 * deep, f.eye[2]],
        [m.visor / 2, deep, Math.max(0.004, m.eyeHole / 2)],
      ),
    );
  else if (m.eyeHole > 0.002)
    masses.push(
      ball(
        part('eye-hole-left', 'hole of the eye, left'),
        [f.eye[0], f.front - 0.4 * deep, f.eye[2]],
        [Math.max(m.eyeHole * 0.5, Math.min(m.eyeHole * 0.85, f.own.eyesApart * 0.34)), deep, m.eyeHole / 2],
      ),
    );
  if (m.mouthHole > 0.002 && m.cover === 'full') {
    // Under a muzzle it runs out to the muzzle's end.
    const z = f.mouth - (m.muzzle > 0.002 ? m.muzzleDrop * 0.6 + m.muzzleBreadth * 0.2 : 0);
    masses.push(
      ball(
        part('mouth-hole', 'hole of the mouth'),
        [0, f.front - m.muzzle * 0.5, z],
        [f.own.mouthBreadth * 0.44, 0.04 + m.muzzle * 0.62, m.mouthHole / 2],
      ),
    );
  }
  if (m.nostrils && m.muzzle < 0.002)
    masses.push(
      limb(
        part('nostril-left', 'hole of the nostril, left'),
        [0.0075, f.front + 0.004, f.noseFoot + 0.012],
        [0.0085 + 0.04 * m.nose, f.front - 0.016 - m.nose * 0.55, f.noseFoot - 0.016 - m.nose * 0.2],
        0.0042,
        0.0046,
      ),
    );
  return masses;
}

export const mask = startForm({
  kind: 'mask',
  version: 2,
  name: 'mask on a head form',
  when: 'A mask or helmet master built out over a life form, to the wearer’s girths.',
  usualSize: 1,
  types,
  finelyMade: true,
  measures: maskMeasures,
  make,
});
