import type { Mass } from '../../document';
import type { Vec3 } from '../../quantity';
import { angle, length, share, yesNo, type MeasuresOf } from '../measure';
import type { Joint } from '../skeleton';
import { ball, limb, type Envelope, type Landmark } from './start-form';

/**
 * A human head by what callipers and tape read off it. Where nothing is said it is the mean man of Zhuang and
 * Bradtmiller, "Head-and-face anthropometric survey of U.S. respirator users", J. Occup. Environ. Hyg. 2 (2005) 567-576.
 */
export const headMeasures = {
  headHeight: length('Head, chin to crown', 0.12, 0.4, 0.232),
  headBreadth: length('Head, widest across', 0.08, 0.3, 0.153),
  headDepth: length('Head, brow to nape', 0.1, 0.35, 0.197),
  faceHeight: length('Face, chin to root of the nose', 0.06, 0.25, 0.1227),
  cheekbones: length('Across the cheekbones', 0.07, 0.3, 0.1435),
  jawBreadth: length('Across the corners of the jaw', 0.05, 0.28, 0.1204),
  chinForward: length('Chin stands forward', -0.03, 0.05, 0),
  eyesApart: length('Between the pupils', 0.03, 0.14, 0.0645),
  eyeBall: length('Ball of the eye, across', 0.01, 0.07, 0.0245),
  brow: length('Brow stands out', 0, 0.03, 0.006),
  noseLength: length('Nose, root to foot', 0.015, 0.12, 0.052),
  noseBreadth: length('Nose, across the wings', 0.012, 0.1, 0.0366),
  nose: length('Nose stands out', 0, 0.09, 0.0211),
  mouthBreadth: length('Mouth, corner to corner', 0.02, 0.14, 0.0511),
  lips: length('Lips, both together', 0, 0.05, 0.017),
  mouthOpen: angle('Mouth open', 0, 38, 0),
  cheeks: share('Cheeks: hollow below 0, full above', -1, 1, 0),
  years: share('Age in the face, from smooth to furrowed', 0, 1, 0.2),
  ears: length('Ears, top to lobe', 0, 0.2, 0.063),
  earPoint: length('Ears drawn out to a point', 0, 0.2, 0),
  muzzle: length('Muzzle drawn out', 0, 0.15, 0),
  teeth: yesNo('Teeth to be seen', false),
  bone: yesNo('Bare bone: no eyes, nose, lips, ears or cheeks', false),
  fangs: length('Fangs', 0, 0.08, 0),
  horns: length('Horns', 0, 0.6, 0),
};
export type HeadMeasures = MeasuresOf<typeof headMeasures>;

/** Levels above the chin and places from front to back that the parts of a head are set out from, life size. */
interface HeadPlaces {
  /** Lengths that no measure names go with the head's height against that of the mean man. */
  readonly u: number;
  readonly chin: number;
  readonly crown: number;
  /** Root of the nose, foot of the nose, line of the lips, pupils, brows, openings of the ears. */
  readonly root: number;
  readonly foot: number;
  readonly mouth: number;
  readonly eyes: number;
  readonly brow: number;
  readonly ear: number;
  /** Middle of the head from front to back, and its foremost place at the brows. */
  readonly axis: number;
  readonly front: number;
  /** Where the face's own plane lies at the foot of the nose. */
  readonly plane: number;
}

function placesOf(m: HeadMeasures, chin: number, axis: number): HeadPlaces {
  const u = m.headHeight / 0.232;
  const root = m.faceHeight;
  const foot = Math.max(0.1 * m.headHeight, root - m.noseLength);
  const front = axis - m.headDepth / 2;
  return {
    u,
    chin,
    crown: chin + m.headHeight,
    root: chin + root,
    foot: chin + foot,
    mouth: chin + foot * 0.68,
    eyes: chin + root - 0.007 * u,
    brow: chin + root + 0.0115 * u,
    // A child's ears stand low with its face.
    ear: chin + root * 0.823,
    axis,
    front,
    plane: front + 0.004 * u - m.muzzle,
  };
}

/** A mass of the head: name, region, what it hangs on, and how softly it runs into its neighbours. */
const part = (id: string, name: string, blend: number, region = 'head', joint = 'head') => ({
  id,
  name,
  region,
  joint,
  blend,
});

/** Brain case: three bodies, for a plain ellipsoid has too short a tape round it and too round a forehead. */
function brainCase(m: HeadMeasures, p: HeadPlaces): Mass[] {
  const { u } = p;
  const high = (p.crown - p.root) * 0.76;
  return [
    ball(
      part('cranium', 'cranium', 0.012 * u),
      [0, p.axis + 0.012 * u, p.crown - high],
      [m.headBreadth / 2, m.headDepth / 2 - 0.013 * u, high],
    ),
    ball(
      part('forehead', 'forehead', 0.03 * u),
      [0, p.front + 0.066 * u + m.brow * 0.4, p.brow + 0.026 * u],
      [m.headBreadth * 0.44, 0.064 * u, 0.058 * u],
    ),
    ball(
      part('temple-left', 'temple, left', 0.015 * u),
      [Math.min(m.headBreadth * 0.455, m.cheekbones / 2) - 0.018 * u, p.front + 0.062 * u, p.brow + 0.006 * u],
      [0.018 * u, 0.036 * u, 0.034 * u],
    ),
    ball(
      part('temporal-left', 'skull behind the ear, left', 0.015 * u),
      [m.cheekbones / 2 - 0.0315 * u, p.axis + 0.008 * u, p.ear + 0.012 * u],
      [0.026 * u, 0.045 * u, 0.045 * u],
    ),
    ball(
      part('occiput', 'occiput', 0.02 * u),
      [0, p.axis + m.headDepth / 2 - 0.055 * u, p.chin + m.headHeight * 0.58],
      [m.headBreadth * 0.44, 0.056 * u, 0.05 * u],
    ),
    // Fills the middle of the face back to the ears; the planes of the face lie over it.
    ball(
      part('face-core', 'core of the face', 0.02 * u),
      [0, p.axis - 0.026 * u, p.chin + m.headHeight * 0.36],
      [m.jawBreadth * (m.bone ? 0.3 : 0.455), m.headDepth * 0.29, m.headHeight * 0.27],
    ),
  ];
}

/** Brows, outer rims of the sockets and cheekbones: the sockets are what these leave open. */
function sockets(m: HeadMeasures, p: HeadPlaces): Mass[] {
  const { u } = p;
  const apart = m.eyesApart / 2;
  const ridge = 0.0068 * u + m.brow * 0.25;
  const browFront = p.front + ridge + 0.003 * u;
  const outer: Vec3 = [apart + 0.0165 * u, p.front + 0.029 * u, p.brow + 0.001 * u];
  const cheek: Vec3 = [apart + 0.008 * u, p.front + 0.028 * u - m.muzzle * 0.25, p.eyes - 0.026 * u];
  const thick = 0.0085 * u;
  const side: Vec3 = [m.cheekbones / 2 - thick - 0.0025 * u, p.front + 0.055 * u, p.ear + 0.004 * u];
  return [
    limb(part('brow-left', 'brow, left', 0.013 * u), [0.009 * u, browFront, p.brow], outer, ridge, 0.006 * u),
    limb(
      part('socket-left', 'outer rim of the socket, left', 0.008 * u),
      outer,
      [(outer[0] + side[0]) / 2, p.front + 0.038 * u, p.eyes - 0.016 * u],
      0.005 * u,
      0.0056 * u,
    ),
    limb(part('cheekbone-left', 'cheekbone, left', 0.01 * u), cheek, side, 0.0095 * u, thick),
    limb(
      part('arch-left', 'arch of the cheekbone, left', 0.008 * u),
      side,
      [m.cheekbones / 2 - thick - 0.0025 * u, p.axis - 0.012 * u, p.ear + 0.006 * u],
      thick,
      0.006 * u,
    ),
  ];
}

/** A ball in its bed with its lids. */
function eyes(m: HeadMeasures, p: HeadPlaces): Mass[] {
  const r = m.eyeBall / 2;
  if (m.bone) return [];
  const { u } = p;
  const at: Vec3 = [m.eyesApart / 2, p.front + 0.0125 * u + r + m.brow * 0.25, p.eyes];
  const by = (x: number, y: number, z: number): Vec3 => [at[0] + x * r, at[1] - y * r, at[2] + z * r];
  const inner = by(-1.12, 0.42, -0.12),
    outer = by(1.2, 0.2, 0.02),
    over = by(0.02, 0.98, 0.5),
    under = by(0.08, 0.92, -0.52);
  const edge = (id: string, name: string, from: Vec3, to: Vec3, thick: number) =>
    limb(part(`${id}-left`, `${name}, left`, 0.0025 * u), from, to, thick * r, thick * r);
  return [
    ball(part('eye-left', 'eye, left', 0.0015 * u), at, [r, r, r]),
    ball(part('lid-fold-left', 'fold over the lid, left', 0.004 * u), by(0.05, 0.06, 0.86), [
      r * 1.25,
      r * 0.9,
      r * 0.5,
    ]),
    ball(part('eye-bed-left', 'bed of the eye, left', 0.005 * u), by(0.05, -0.12, -0.95), [r * 1.3, r * 0.85, r * 0.5]),
    limb(
      part('socket-back-left', 'back of the socket, left', 0.003 * u),
      at,
      [at[0] * 0.8, p.front + 0.06 * u, p.eyes],
      r * 0.7,
      r * 0.9,
    ),
    edge('upper-lid-inner', 'upper lid, inner half', inner, over, 0.2),
    edge('upper-lid-outer', 'upper lid, outer half', over, outer, 0.2),
    edge('lower-lid-inner', 'lower lid, inner half', inner, under, 0.17),
    edge('lower-lid-outer', 'lower lid, outer half', under, outer, 0.17),
  ];
}

/** Without one the opening in the bone is left, under the two small bones at its root. */
function nose(m: HeadMeasures, p: HeadPlaces): Mass[] {
  if (m.bone || m.nose < 0.001) return noseOpening(m, p);
  const { u } = p;
  const long = p.root - p.foot;
  const wide = m.noseBreadth / 2;
  const wing = Math.min(wide * 0.42, long * 0.2);
  const tip = Math.min(wide * 0.52, long * 0.22);
  const ridge: Vec3 = [0, p.plane - m.nose + tip + 0.0082 * u, p.foot + tip + long * 0.04];
  const of = (id: string, name: string, blend: number) => part(id, name, blend * u, 'features');
  return [
    limb(
      of('nose-bridge', 'bridge of the nose', 0.006),
      [0, p.front + 0.013 * u + m.brow * 0.2, p.root - 0.004 * u - Math.max(0, 0.006 * u - m.brow) * 0.3],
      ridge,
      0.0068 * u,
      tip * 0.8,
    ),
    ball(of('nose-tip', 'tip of the nose', 0.004), ridge, [tip * 1.05, tip, tip * 0.95]),
    ball(
      of('nose-wing-left', 'wing of the nose, left', 0.003),
      [wide - wing, p.plane - m.nose * 0.22, p.foot + wing * 1.05],
      [wing, wing * 1.35, wing * 1.1],
    ),
    // The side planes, from the bridge down to the wings and the cheeks.
    limb(
      of('nose-body', 'body of the nose', 0.008),
      [0, p.front + 0.024 * u, p.root - long * 0.12],
      [0, p.plane + 0.006 * u - m.nose * 0.42, p.foot + Math.max(wide * 0.8, long * 0.25)],
      0.009 * u,
      Math.min(wide * 0.72, long * 0.34),
    ),
  ];
}

function noseOpening(m: HeadMeasures, p: HeadPlaces): Mass[] {
  const { u } = p;
  const long = p.root - p.foot;
  const bone = (id: string, name: string, from: Vec3, to: Vec3) =>
    limb(part(`${id}-left`, `${name}, left`, 0.005 * u), from, to, 0.0048 * u, 0.0042 * u);
  const top: Vec3 = [0.005 * u, p.front + 0.013 * u, p.root];
  const tip: Vec3 = [0.003 * u, p.front + 0.006 * u, p.root - long * 0.36];
  const side: Vec3 = [m.noseBreadth * 0.4, p.plane + 0.013 * u, p.foot + long * 0.3];
  return [
    bone('nose-bone', 'bone of the nose', top, tip),
    bone('nose-rim', 'rim of the nose opening', [0.012 * u, p.front + 0.019 * u, p.root - long * 0.2], side),
    ...(m.muzzle > 0.01
      ? []
      : [bone('nose-sill', 'sill of the nose opening', side, [0.003 * u, p.plane + 0.009 * u, p.foot])]),
    // Between the rim and the cheekbone.
    limb(
      part('upper-jaw-side-left', 'upper jaw under the eye, left', 0.008 * u),
      [m.noseBreadth * 0.62, p.plane + 0.024 * u, p.foot + long * 0.34],
      [m.mouthBreadth * 0.34, p.plane + 0.02 * u, p.mouth + 0.012 * u],
      0.0085 * u,
      0.008 * u,
    ),
  ];
}

/** Drawn out by less than this, a face has none. */
const leastMuzzle = 0.003;

/** From the cheeks out to the lips: carries nose, lips and chin where a face is drawn out. */
function muzzle(m: HeadMeasures, p: HeadPlaces): Mass[] {
  if (m.muzzle < leastMuzzle) return [];
  const { u } = p;
  const thick = m.mouthBreadth * 0.52;
  return [
    limb(
      part('muzzle', 'muzzle', 0.016 * u),
      [0, p.front + 0.05 * u, (p.eyes + p.mouth) / 2],
      [0, p.plane + thick * 0.95, p.foot * 0.6 + p.mouth * 0.4 + thick * 0.3],
      thick * 1.15,
      thick * 0.9,
    ),
    limb(
      part('under-muzzle', 'lower jaw drawn out', 0.012 * u, 'head', 'jaw'),
      [0, p.front + 0.06 * u, p.chin + 0.03 * u],
      [0, p.plane + thick * 0.62 + 0.003 * u, p.chin + thick * 0.62],
      thick * 0.85,
      thick * 0.62,
    ),
  ];
}

/** Upper and lower row of teeth with the lips over them; the lower ones go with the jaw. */
function mouth(m: HeadMeasures, p: HeadPlaces): Mass[] {
  const { u } = p;
  const half = m.mouthBreadth / 2;
  const up = p.foot - p.mouth;
  const down = p.mouth - p.chin;
  const deep = 0.03 * u + m.muzzle * 0.5;
  const masses = [
    ball(
      part('upper-jaw', 'upper jaw', 0.008 * u),
      [0, p.plane + 0.003 * u + deep, p.mouth + up * 0.66],
      [half * 1.12, deep, up * 0.74],
    ),
    ball(
      part('lower-teeth', 'lower jaw in front', 0.008 * u, 'head', 'jaw'),
      [0, p.plane + 0.005 * u + deep, p.mouth - down * 0.36],
      [half * 1.0, deep * 0.96, down * 0.4],
    ),
  ];
  // Round a drawn out muzzle the corners of the mouth lie further back.
  const corner = Math.min(m.muzzle, 0.06) * 0.5 + 0.0125 * u;
  if (!m.bone && m.lips > 0.002) {
    const full = m.lips / 2;
    // Thin lips lie back on the jaws, which fall away towards the line between them; on a muzzle they lie on that.
    const onto = (jaw: Mass, z: number, thick: number) => {
      if (m.muzzle >= leastMuzzle) return -Infinity;
      const [, half, high] = jaw.shape.kind === 'ellipsoid' ? jaw.shape.radii : [0, 0, 1];
      return jaw.at[1] - half * Math.sqrt(Math.max(0, 1 - ((z - jaw.at[2]) / high) ** 2)) - thick;
    };
    const [upper, lower] = masses as [Mass, Mass];
    const over = p.mouth + full * 0.62,
      under = p.mouth - full * 0.72;
    masses.push(
      limb(
        part('upper-lip-left', 'upper lip, left', 0.0045 * u),
        [0.004 * u, Math.max(p.plane + full * 0.42, onto(upper, over, full * 0.66)), over],
        [half - full * 0.3, p.plane + corner, p.mouth + full * 0.28],
        full * 0.66,
        full * 0.28,
      ),
      limb(
        part('lower-lip-left', 'lower lip, left', 0.0045 * u, 'head', 'jaw'),
        [0.003 * u, Math.max(p.plane + 0.002 * u + full * 0.5, onto(lower, under, full * 0.74)), under],
        [half - full * 0.45, p.plane + corner, p.mouth - full * 0.3],
        full * 0.74,
        full * 0.28,
      ),
    );
  }
  if (m.teeth || m.bone) {
    const gum = (id: string, name: string, joint: string, z: number) =>
      limb(
        part(`${id}-left`, `${name}, left`, 0.004 * u, 'head', joint),
        [0.002 * u, p.plane + 0.0095 * u, z],
        [0.021 * u, p.plane + 0.0185 * u, z],
        0.0075 * u,
        0.0075 * u,
      );
    masses.push(
      gum('upper-gum', 'upper gum', 'head', p.mouth + 0.011 * u),
      gum('lower-gum', 'lower gum', 'jaw', p.mouth - 0.011 * u),
    );
  }
  if (m.teeth || m.bone)
    for (const [k, x] of [0.004, 0.0125, 0.02].entries()) {
      const at = (z: number): Vec3 => [x * u, p.plane + (0.0035 + 0.0022 * k * k) * u, z];
      const tooth = (id: string, name: string, joint: string, z: number) =>
        ball(part(`${id}-${k + 1}-left`, `${name} ${k + 1}, left`, 0.001 * u, 'head', joint), at(z), [
          0.0042 * u,
          0.004 * u,
          0.0062 * u,
        ]);
      masses.push(
        tooth('upper-tooth', 'upper tooth', 'head', p.mouth + 0.005 * u),
        tooth('lower-tooth', 'lower tooth', 'jaw', p.mouth - 0.0058 * u),
      );
    }
  if (m.fangs > 0.003)
    masses.push(
      limb(
        part('fang-left', 'fang, left', 0.002 * u, 'features'),
        [half * 0.6, p.plane + 0.014 * u + corner * 0.2, p.mouth + 0.011 * u],
        [half * 0.66, p.plane + 0.002 * u + corner * 0.2, p.mouth + 0.002 * u - m.fangs],
        Math.max(0.0035 * u, m.fangs * 0.17),
        Math.max(0.0012, m.fangs * 0.05),
      ),
    );
  return masses;
}

/** Lower jaw from the ear to the chin, on its own joint, with the cheek over it. */
function jaw(m: HeadMeasures, p: HeadPlaces): Mass[] {
  const { u } = p;
  const of = (id: string, name: string, blend: number) => part(id, name, blend * u, 'head', 'jaw');
  const thick = 0.0088 * u;
  const corner: Vec3 = [m.jawBreadth / 2 - thick - 0.0066 * u, p.axis - 0.016 * u, p.chin + m.headHeight * 0.185];
  const chinFront = p.plane + 0.0045 * u - m.chinForward + m.muzzle * 0.12;
  const bones = [
    limb(
      of('jaw-branch-left', 'branch of the jaw, left', 0.012),
      [Math.min(m.jawBreadth, m.cheekbones) / 2 - 0.007 * u, p.axis - 0.01 * u, p.ear - 0.006 * u],
      corner,
      0.008 * u,
      thick,
    ),
    limb(
      of('jaw-left', 'jaw, left', 0.013),
      corner,
      [0.015 * u, chinFront + 0.017 * u, p.chin + 0.0115 * u],
      thick,
      0.0115 * u,
    ),
    ball(
      of('chin', 'chin', 0.008),
      [0, chinFront + 0.0125 * u, p.chin + 0.0145 * u],
      [0.0175 * u, 0.0125 * u, 0.0145 * u],
    ),
    ball(
      of('floor', 'floor of the mouth', 0.012),
      [0, p.axis - 0.04 * u - m.muzzle * 0.3, p.chin + 0.024 * u],
      [m.jawBreadth * 0.32, 0.048 * u + m.muzzle * 0.3, 0.02 * u],
    ),
  ];
  return m.bone ? bones : [...bones, ...softCheek(m, p, corner)];
}

/** The cheek between its bone and the jaw, and the muscle that shuts the jaw. */
function softCheek(m: HeadMeasures, p: HeadPlaces, corner: Vec3): Mass[] {
  const { u } = p;
  return [
    ball(
      part('cheek-left', 'cheek, left', 0.016 * u),
      [m.jawBreadth * 0.29, p.front + 0.054 * u, p.chin + m.headHeight * 0.275],
      [m.jawBreadth * (0.215 + 0.04 * m.cheeks), (0.035 + 0.004 * m.cheeks) * u, (0.036 + 0.004 * m.cheeks) * u],
    ),
    limb(
      part('chewing-muscle-left', 'chewing muscle, left', 0.014 * u),
      [m.cheekbones / 2 - 0.018 * u, p.front + 0.066 * u, p.ear - 0.006 * u],
      [corner[0] - 0.004 * u, corner[1] - 0.006 * u, corner[2] + 0.008 * u],
      0.0125 * u,
      0.0115 * u,
    ),
  ];
}

/** What years leave: folds beside the nose, bags under the eyes, a furrowed brow, jowls. */
function years(m: HeadMeasures, p: HeadPlaces): Mass[] {
  const deep = m.years - 0.35;
  if (deep <= 0 || m.bone) return [];
  const { u } = p;
  const wide = m.noseBreadth / 2,
    eye = m.eyeBall / 2;
  const r = (0.003 + 0.0045 * deep) * u;
  return [
    limb(
      part('bag-left', 'bag under the eye, left', 0.004 * u),
      [m.eyesApart / 2 - eye * 0.9, p.front + 0.0125 * u + eye * 0.85 + m.brow * 0.25, p.eyes - eye * 1.25],
      [m.eyesApart / 2 + eye * 1.05, p.front + 0.0125 * u + eye * 1.3 + m.brow * 0.25, p.eyes - eye * 1.2],
      r * 0.8,
      r * 0.7,
    ),
    limb(
      part('furrow-left', 'furrow of the brow, left', 0.007 * u),
      [0.002 * u, p.front + 0.0085 * u + m.brow * 0.4, p.brow + 0.017 * u],
      [0.032 * u, p.front + 0.0165 * u + m.brow * 0.4, p.brow + 0.022 * u],
      r * 0.8,
      r * 0.6,
    ),
    ball(
      part('jowl-left', 'jowl, left', 0.01 * u, 'head', 'jaw'),
      [m.jawBreadth * 0.27, p.front + 0.044 * u, p.chin + 0.024 * u],
      [0.012 * u + r, 0.016 * u, 0.014 * u + r],
    ),
    // A muzzle has none.
    ...(m.muzzle > 0.01
      ? []
      : [
          limb(
            part('fold-left', 'fold from nose to mouth, left', 0.009 * u),
            [wide + 0.003 * u, p.plane + 0.012 * u, p.foot + 0.013 * u],
            [m.mouthBreadth / 2 + 0.008 * u, p.plane + 0.026 * u, p.mouth + 0.002 * u],
            r,
            r * 0.9,
          ),
        ]),
  ];
}

/** A plate with a rim round it, a lobe and the lid before its opening; drawn out above where it has a point. */
function ears(m: HeadMeasures, p: HeadPlaces): Mass[] {
  if (m.bone || m.ears < 0.008) return [];
  const { u } = p;
  const e = m.ears;
  const r = Math.max(0.003 * u, e * 0.058);
  // Leaning back with the jaw's branch and standing off behind: x outward, y back, z up from its foot.
  const at = (back: number, up: number, out = 0): Vec3 => [
    m.headBreadth * 0.462 + (0.004 * u + back * 0.34 + out),
    p.axis + 0.004 * u + back + up * 0.2,
    p.ear - 0.45 * e + up,
  ];
  const of = (id: string, name: string, blend = 0.003) =>
    part(`ear-${id}-left`, `${name} of the ear, left`, blend * u, 'features');
  const rim = [
    at(0.002 * u, e * 0.66),
    at(e * 0.1, e * 0.9),
    at(e * 0.33, e * 0.93),
    at(e * 0.47, e * 0.7),
    at(e * 0.36, e * 0.36),
    at(e * 0.14, e * 0.1),
  ];
  const masses = [
    ball({ ...of('plate', 'plate', 0.004), turn: [-11, 0, -19] }, at(e * 0.2, e * 0.52, -0.001 * u), [
      Math.max(0.0036 * u, e * 0.062),
      e * 0.25,
      e * 0.42,
    ]),
    ...rim.slice(1).map((to, k) => limb(of(`rim-${k + 1}`, `rim ${k + 1}`), rim[k]!, to, r, r)),
    ball(of('lobe', 'lobe', 0.003), at(e * 0.09, e * 0.09), [r * 1.2, e * 0.1, e * 0.11]),
    ball(of('lid', 'lid before the opening', 0.003), at(-0.001 * u, e * 0.42, -0.001 * u), [r, r * 1.1, e * 0.09]),
  ];
  if (m.earPoint > 0.003)
    masses.push(
      limb(
        of('point', 'point', 0.006),
        at(e * 0.24, e * 0.66),
        at(e * 0.3 + m.earPoint * 0.55, e * 0.9 + m.earPoint * 0.8),
        e * 0.17,
        r * 0.9,
      ),
    );
  return masses;
}

function horns(m: HeadMeasures, p: HeadPlaces): Mass[] {
  if (m.horns < 0.01) return [];
  const { u } = p;
  const long = m.horns;
  const r = Math.max(0.007 * u, long * 0.085);
  const foot: Vec3 = [m.headBreadth * 0.27, p.front + 0.045 * u, p.brow + 0.05 * u];
  const bend: Vec3 = [foot[0] + long * 0.28, foot[1] + long * 0.08, foot[2] + long * 0.36];
  const tip: Vec3 = [bend[0] - long * 0.02, bend[1] + long * 0.2, bend[2] + long * 0.42];
  const of = (id: string, name: string) => part(`${id}-left`, `${name}, left`, 0.006 * u, 'features');
  return [
    limb(of('horn', 'horn'), foot, bend, r, r * 0.72),
    limb(of('horn-tip', 'tip of the horn'), bend, tip, r * 0.72, r * 0.2),
  ];
}

/** `chin` is the lowest point of the jaw, `axis` the place of the head's middle from front to back. */
export function headMasses(m: HeadMeasures, chin: number, axis: number): Mass[] {
  const p = placesOf(m, chin, axis);
  return [
    ...brainCase(m, p),
    ...sockets(m, p),
    ...jaw(m, p),
    ...muzzle(m, p),
    ...mouth(m, p),
    ...nose(m, p),
    ...eyes(m, p),
    ...years(m, p),
    ...ears(m, p),
    ...horns(m, p),
  ];
}

/**
 * Deep inside, where jaw, neck and brain case meet. A form that has a frame there needs it: without it a wire is measured
 * to the face of each of them alone.
 */
export function skullRoot(m: HeadMeasures, chin: number, axis: number): Mass {
  return ball(
    part('skull-root', 'root of the skull', 0.01),
    [0, axis + 0.002, chin + m.headHeight * 0.36],
    [m.jawBreadth * 0.44, m.headDepth * 0.27, m.headHeight * 0.24],
  );
}

/** The joint of the jaw, in front of the openings of the ears; an open mouth turns it. */
export function jawJoint(m: HeadMeasures, chin: number, axis: number): Joint {
  const p = placesOf(m, chin, axis);
  return {
    id: 'jaw',
    name: 'joint of the jaw',
    parent: 'head',
    at: [0, p.axis - 0.008 * p.u, p.ear],
    ...(m.mouthOpen > 0 ? { stance: [m.mouthOpen, 0, 0] as Vec3 } : {}),
  };
}

export function headLandmarks(m: HeadMeasures, chin: number, axis: number): Landmark[] {
  const p = placesOf(m, chin, axis);
  const line = (id: string, name: string, z: number, half: number): Landmark => ({
    id,
    name,
    joint: 'head',
    at: [0, p.front, z],
    half,
  });
  const wide = m.headBreadth * 0.62;
  return [
    line('crown', 'crown', p.crown, wide),
    line('brow', 'brow, tops of the ears', p.brow, wide),
    line('eyes', 'eyes', p.eyes, wide),
    line('nose', 'foot of nose and ears', p.foot, wide),
    line('mouth', 'mouth', p.mouth, m.headBreadth * 0.3),
    line('chin', 'chin', chin, wide),
  ];
}

/** Half a hand's breadth is left for hair and brows. */
export function headEnvelope(m: HeadMeasures, chin: number, axis: number): Envelope {
  const slack = 0.012;
  return {
    id: 'skull',
    name: 'skull',
    joint: 'head',
    low: [-m.headBreadth / 2 - slack, axis - m.headDepth / 2 - slack - m.muzzle, chin - 0.02],
    high: [m.headBreadth / 2 + slack, axis + m.headDepth / 2 + slack, chin + m.headHeight + slack],
  };
}
