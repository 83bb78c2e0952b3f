import type { Mass } from '../../document';
import { add, mix, scale, unit, type Vec3 } from '../../quantity';
import { angle, choice, share, type MeasuresOf } from '../measure';
import { rotate, rotationOf } from '../turn';
import { setIn } from './set-in';
import { ball, limb } from './start-form';

/**
 * An animal's head, in shares of its length from the poll to the tip of the nose. Made about the poll: the nose forward
 * (y below 0), the top of the skull level.
 */
export const creatureHeadMeasures = {
  headBreadth: share('Head across, of its length', 0.2, 1.4, 0.55),
  muzzleLength: share('Muzzle, of the head’s length', 0.12, 0.75, 0.48),
  muzzleBreadth: share('Muzzle across, of the head’s breadth', 0.2, 1.1, 0.6),
  brow: share('Brow stands over the muzzle', 0, 1, 0.35),
  eyes: share('Eyes across, of the head’s length', 0.02, 0.3, 0.09),
  ears: choice(
    'Ears',
    [
      { id: 'none', name: 'none' },
      { id: 'round', name: 'round' },
      { id: 'upright', name: 'upright, pointed' },
      { id: 'hanging', name: 'hanging' },
      { id: 'long', name: 'long' },
    ],
    'upright',
  ),
  earLength: share('Ears, of the head’s length', 0.05, 1.5, 0.4),
  whiskers: share('Pads of the whiskers', 0, 1, 0.3),
  fangs: share('Fangs or tusks, of the head’s length', 0, 1.2, 0),
  horns: choice(
    'Horns',
    [
      { id: 'none', name: 'none' },
      { id: 'straight', name: 'swept back' },
      { id: 'curled', name: 'curled' },
      { id: 'antlers', name: 'antlers' },
    ],
    'none',
  ),
  hornLength: share('Horns, of the head’s length', 0.1, 3, 0.8),
  mouthOpen: angle('Mouth open', 0, 45, 0),
};
export type CreatureHead = MeasuresOf<typeof creatureHeadMeasures>;

/** Lengths that all parts of one head are set out from, metres. */
interface Places {
  readonly long: number;
  /** Half the breadth of the skull, half its height, half the breadth of the muzzle. */
  readonly wide: number;
  readonly high: number;
  readonly muzzle: number;
  /** Where the muzzle leaves the skull, from the poll. */
  readonly stop: number;
  /** Middle line of the muzzle at the stop and at the nose. */
  readonly root: Vec3;
  readonly nose: Vec3;
  /** The joint of the jaw; both its sides turn about one line. */
  readonly hinge: Vec3;
}

function placesOf(m: CreatureHead, long: number): Places {
  const wide = (m.headBreadth * long) / 2;
  const high = Math.min(wide * 1.02, long * 0.34);
  const muzzle = Math.min(m.muzzleBreadth * wide, high * 1.05);
  const stop = long * (1 - m.muzzleLength);
  return {
    long,
    wide,
    high,
    muzzle,
    stop,
    root: [0, -stop + 0.3 * muzzle, -0.95 * high],
    nose: [0, -long + 0.7 * muzzle, -1.05 * high],
    hinge: [0, -0.42 * stop, -1.45 * high],
  };
}

const part = (id: string, name: string, blend: number, region = 'head') => ({
  id,
  name,
  region,
  joint: 'head',
  blend,
});

/** Brain case, brow, cheeks and the arch outside them. */
function skull(m: CreatureHead, p: Places): Mass[] {
  const { long, wide, high, stop } = p;
  return [
    ball(part('skull', 'skull', 0.09 * long), [0, -0.5 * stop, -0.82 * high], [wide * 0.86, stop * 0.56, high * 0.82]),
    ball(
      part('nape', 'back of the skull', 0.06 * long),
      [0, -0.12 * stop, -0.7 * high],
      [wide * 0.6, stop * 0.3, high * 0.6],
    ),
    ball(
      part('cheek-left', 'cheek, left', 0.07 * long),
      [wide * 0.55, -0.62 * stop, -1.2 * high],
      [wide * 0.42, stop * 0.36, high * 0.58],
    ),
    limb(
      part('arch-left', 'arch of the cheekbone, left', 0.06 * long),
      [wide * 0.5, -stop * 0.98, -0.95 * high],
      [wide * 0.78, -0.5 * stop, -0.9 * high],
      wide * 0.13,
      wide * 0.12,
    ),
    limb(
      part('brow-left', 'brow, left', 0.06 * long),
      [wide * 0.26, -stop * 0.94, -(0.42 - 0.2 * m.brow) * high],
      [wide * 0.7, -0.7 * stop, -(0.52 - 0.16 * m.brow) * high],
      wide * (0.15 + 0.06 * m.brow),
      wide * (0.12 + 0.03 * m.brow),
    ),
  ];
}

function eyes(m: CreatureHead, p: Places): Mass[] {
  const { long, wide, high, stop } = p;
  const r = (m.eyes * long) / 2;
  const at: Vec3 = [wide * 0.6, -stop * 0.92, -0.68 * high];
  const outward = unit([0.72, -0.66, 0.18]);
  const lid = (id: string, name: string, up: number): Mass =>
    limb(
      part(`${id}-left`, `${name}, left`, 0.3 * r),
      add(at, [-0.4 * r, -1.0 * r, up * r]),
      add(at, [0.95 * r, 0.15 * r, up * 0.9 * r]),
      0.24 * r,
      0.24 * r,
    );
  return [
    ball(part('eye-left', 'eye, left', 0.12 * r), add(at, scale(outward, 0.22 * r)), [r, r, r]),
    lid('upper-lid', 'upper lid', 0.78),
    lid('lower-lid', 'lower lid', -0.72),
  ];
}

/** Upper half of the muzzle with nose and lips; the lower jaw turned about its hinge. */
function muzzle(m: CreatureHead, p: Places): Mass[] {
  const { long, high, muzzle: w, stop, root, nose, hinge } = p;
  const upper = [
    limb(part('muzzle', 'muzzle', 0.07 * long), root, nose, w * 0.88, w * 0.72),
    limb(
      part('bridge', 'bridge of the nose', 0.05 * long),
      [0, -stop + 0.1 * w, -(0.62 - 0.14 * m.brow) * high],
      add(nose, [0, 0.05 * w, 0.3 * w]),
      w * 0.42,
      w * 0.36,
    ),
    ball(part('nose-pad', 'pad of the nose', 0.02 * long), add(nose, [0, -0.62 * w, 0.24 * w]), [
      w * 0.4,
      w * 0.22,
      w * 0.26,
    ]),
    ball(part('nostril-left', 'wing of the nostril, left', 0.015 * long), add(nose, [0.24 * w, -0.66 * w, 0.2 * w]), [
      w * 0.17,
      w * 0.15,
      w * 0.16,
    ]),
    limb(
      part('lip-left', 'upper lip, left', 0.03 * long),
      add(nose, [0.24 * w, -0.42 * w, -0.46 * w]),
      [w * 0.72, -stop * 1.02, root[2] - 0.5 * w],
      w * 0.22,
      w * 0.24,
    ),
  ];
  if (m.whiskers > 0.02)
    upper.push(
      ball(
        part('whiskers-left', 'pad of the whiskers, left', 0.04 * long),
        add(nose, [0.42 * w, -0.1 * w, -0.22 * w]),
        [w * (0.3 + 0.34 * m.whiskers), w * (0.4 + 0.3 * m.whiskers), w * (0.3 + 0.3 * m.whiskers)],
      ),
    );
  if (m.fangs > 0.01) {
    const f = m.fangs * long;
    const from = add(nose, [0.42 * w, 0.05 * w, -0.3 * w]);
    const r = Math.max(0.08 * w, Math.min(0.24 * w, 0.13 * f));
    const bend = add(from, [0.05 * f, -0.14 * f, -0.5 * f]);
    upper.push(
      limb(part('fang-left', 'fang, left', 0.012 * long, 'teeth'), from, bend, r, r * 0.8),
      limb(
        part('fang-tip-left', 'tip of the fang, left', 0.012 * long, 'teeth'),
        bend,
        add(bend, [0.04 * f, 0.08 * f, -0.46 * f]),
        r * 0.8,
        r * 0.3,
      ),
    );
  }
  const chin: Vec3 = [0, nose[1] + 0.18 * w, nose[2] - 0.78 * w];
  const lower = [
    limb(part('lower-jaw', 'lower jaw', 0.03 * long), [0, hinge[1], hinge[2] + 0.05 * high], chin, w * 0.5, w * 0.36),
    limb(
      part('jaw-left', 'branch of the jaw, left', 0.04 * long),
      [w * 0.82, hinge[1] + 0.04 * stop, hinge[2] + 0.2 * high],
      [w * 0.3, chin[1] + 0.1 * w, chin[2] + 0.04 * w],
      w * 0.3,
      w * 0.22,
    ),
    ball(part('chin', 'chin', 0.03 * long), add(chin, [0, -0.1 * w, 0.02 * w]), [w * 0.36, w * 0.34, w * 0.28]),
  ];
  return [...upper, ...turnedAbout(lower, hinge, m.mouthOpen)];
}

/** Masses of both sides alike, turned about a line across at a place; degrees, downward in front above 0. */
function turnedAbout(masses: readonly Mass[], about: Vec3, degrees: number): Mass[] {
  if (degrees === 0) return [...masses];
  const turn: Vec3 = [degrees, 0, 0];
  return setIn(masses, { at: add(about, scale(rotate(rotationOf(turn), about), -1)), turn });
}

function ears(m: CreatureHead, p: Places): Mass[] {
  const { long, wide, high, stop } = p;
  const e = m.earLength * long;
  if (m.ears === 'none') return [];
  const foot: Vec3 = [wide * 0.62, -0.22 * stop, -0.3 * high];
  const plate = (at: Vec3, radii: Vec3, turn: Vec3) =>
    ball({ ...part('ear-left', 'ear, left', 0.05 * long, 'ears'), turn }, at, radii);
  const root = ball(part('ear-root-left', 'root of the ear, left', 0.06 * long, 'ears'), foot, [
    0.2 * e,
    0.2 * e,
    0.22 * e,
  ]);
  const thick = Math.max(0.1 * e, 0.02 * long);
  if (m.ears === 'round')
    return [root, plate(add(foot, [0.16 * e, 0.02 * e, 0.34 * e]), [0.44 * e, thick, 0.44 * e], [-8, 14, 14])];
  if (m.ears === 'hanging')
    return [root, plate(add(foot, [0.24 * e, 0.04 * e, -0.4 * e]), [thick, 0.26 * e, 0.56 * e], [6, -10, 0])];
  const narrow = m.ears === 'long' ? 0.15 : 0.25;
  // Out to a point from a broad foot.
  return [
    root,
    limb(
      part('ear-tip-left', 'tip of the ear, left', 0.03 * long, 'ears'),
      add(foot, [0.07 * e, 0.03 * e, 0.4 * e]),
      add(foot, [0.2 * e, 0.06 * e, 0.96 * e]),
      thick * 1.15,
      thick * 0.45,
    ),
    plate(add(foot, [0.09 * e, 0.02 * e, 0.38 * e]), [narrow * e, thick, 0.46 * e], [-4, 12, 22]),
  ];
}

function horns(m: CreatureHead, p: Places): Mass[] {
  if (m.horns === 'none') return [];
  const { long, wide, high, stop } = p;
  const h = m.hornLength * long;
  const r = Math.max(0.03 * long, Math.min(0.1 * h, 0.14 * wide + 0.05 * h));
  const foot: Vec3 = [wide * 0.36, -0.42 * stop, -0.18 * high];
  const of = (id: string, name: string) => part(`${id}-left`, `${name}, left`, 0.025 * long, 'horns');
  const run = (id: string, name: string, places: readonly Vec3[], from: number, to: number) =>
    places
      .slice(1)
      .map((b, k) =>
        limb(
          of(`${id}-${k + 1}`, `${name}, part ${k + 1}`),
          places[k]!,
          b,
          from + ((to - from) * k) / (places.length - 1),
          from + ((to - from) * (k + 1)) / (places.length - 1),
        ),
      );
  const at = (out: number, back: number, up: number): Vec3 => add(foot, [out * h, back * h, up * h]);
  if (m.horns === 'straight')
    return run('horn', 'horn', [foot, at(0.12, 0.2, 0.3), at(0.2, 0.5, 0.5), at(0.22, 0.84, 0.52)], r, r * 0.25);
  if (m.horns === 'curled') {
    // Round beside the head and outward, most of one turn.
    const places = Array.from({ length: 8 }, (_, k): Vec3 => {
      const a = (k / 7) * 1.75 * Math.PI;
      const out = 0.1 + 0.045 * k;
      return at(out, 0.26 * Math.sin(a) * (1 - 0.05 * k) + 0.02, 0.26 * (Math.cos(a) - 1) * (1 - 0.05 * k) + 0.1);
    });
    return run('horn', 'horn', [foot, ...places], r * 1.25, r * 0.3);
  }
  const beam = [foot, at(0.2, 0.12, 0.28), at(0.38, 0.2, 0.58), at(0.36, 0.12, 0.98)];
  const thick = Math.max(r * 0.5, 0.024 * long);
  const tine = (k: number, along: number, to: Vec3): Mass =>
    limb(of(`tine-${k}`, `tine ${k}`), mix(beam[k - 1]!, beam[k]!, along), to, thick * 0.78, thick * 0.5);
  return [
    ...run('antler', 'antler', beam, thick * 1.1, thick * 0.55),
    tine(1, 0.5, at(0.14, -0.26, 0.3)),
    tine(2, 0.5, at(0.34, -0.2, 0.62)),
    tine(3, 0.4, at(0.62, 0.18, 0.86)),
  ];
}

/** About the poll and level; `long` is its length from the poll to the nose. The left of a pair stands for both. */
export function creatureHeadMasses(m: CreatureHead, long: number): Mass[] {
  const p = placesOf(m, long);
  return [...skull(m, p), ...muzzle(m, p), ...eyes(m, p), ...ears(m, p), ...horns(m, p)];
}

/** Where its parts lie, of a head of that length: for joints and landmarks. */
export function creatureHeadPlaces(m: CreatureHead, long: number) {
  const p = placesOf(m, long);
  return {
    /** Well inside the skull, and inside the muzzle near its end: what a wire through the head reaches. */
    middle: [0, -0.5 * p.stop, -0.82 * p.high] as Vec3,
    nose: mix(p.root, p.nose, 0.75),
    eyes: [0, -p.stop * 0.92, -0.68 * p.high] as Vec3,
    halfBreadth: p.wide,
    halfHeight: p.high,
  };
}
