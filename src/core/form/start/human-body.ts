import type { Mass } from '../../document';
import { add, mix, type Vec3 } from '../../quantity';
import { ball, limb } from './start-form';

/**
 * A grown body in shares of its height: Drillis and Contini, *Body Segment Parameters* (New York University 1966), as
 * David Winter gives them in *Biomechanics and Motor Control of Human Movement*. Where a head is more or less than
 * theirs, what is below the chin keeps these shares of the height it would have with theirs.
 */
export const segmentShares = {
  chin: 0.87,
  hip: 0.53,
  knee: 0.285,
  ankle: 0.039,
  upperArm: 0.186,
  forearm: 0.146,
  hand: 0.108,
  foot: 0.152,
  shoulderBreadth: 0.259,
  hipBreadth: 0.191,
} as const;

/** What a body is made by, metres; `s` is the height of a grown body that stands as high to the chin. */
export interface BodyMeasures {
  readonly s: number;
  /** Against the usual: how thick it is all through, its shoulders and its hips. */
  readonly heft: number;
  readonly shoulders: number;
  readonly hips: number;
  readonly muscle: number;
  readonly breasts: number;
  readonly belly: number;
}

/** Places of the joints of the left side and the levels of the middle, metres; y to the back. */
export interface BodyPlaces {
  readonly shoulder: Vec3;
  readonly elbow: Vec3;
  readonly wrist: Vec3;
  readonly hip: Vec3;
  readonly knee: Vec3;
  readonly ankle: Vec3;
  /** Direction of the hand from the wrist. */
  readonly hand: Vec3;
  readonly chin: number;
  readonly collar: number;
  readonly chest: number;
  readonly waist: number;
  readonly neck: Vec3;
}

/** How far a head stands before the line of the ankles. */
export const headForward = 0.012;

export function bodyPlaces({ s, shoulders, hips }: Pick<BodyMeasures, 's' | 'shoulders' | 'hips'>): BodyPlaces {
  const at = (x: number, y: number, z: number): Vec3 => [x * s, y * s, z * s];
  const shoulder = at(0.0975 * shoulders, 0.004, 0.8);
  const elbow = add(shoulder, at(0.036, 0.008, -0.1823));
  const wrist = add(elbow, at(0.012, -0.034, -0.1415));
  const hand: Vec3 = [-0.03, -0.15, -0.988];
  const { hip, knee, ankle } = segmentShares;
  return {
    shoulder,
    elbow,
    wrist,
    hand,
    hip: at(0.048 * hips, 0, hip),
    knee: at(0.046 * hips, -0.004, knee),
    ankle: at(0.044 * hips, 0.013, ankle),
    chin: segmentShares.chin * s,
    collar: 0.806 * s,
    chest: 0.72 * s,
    waist: 0.625 * s,
    neck: at(0, 0.016, 0.81),
  };
}

type Part = (id: string, name: string, joint: string, blend: number, region?: string) => Parameters<typeof ball>[0];

/** Ribs, breast, belly, back and pelvis, with what of them shows at the surface. */
export function trunkMasses(m: BodyMeasures): Mass[] {
  const { s, shoulders, hips, muscle } = m;
  const k = Math.sqrt(m.heft);
  /** Across the chest, across the hips, and from front to back. */
  const a = s * k * (0.45 + 0.55 * shoulders),
    h = s * k * (0.2 + 0.8 * hips),
    d = 1.17 * s * k;
  const part: Part = (id, name, joint, blend) => ({ id, name, region: 'trunk', joint, blend: blend * s });
  const out = 0.85 + 0.3 * muscle;
  const masses = [
    // Pelvis: its bowl, the crests of the hip bones, the seat.
    ball(part('pelvis', 'pelvis', 'pelvis', 0.03), [0, 0.002 * d, 0.54 * s], [0.081 * h, 0.054 * d, 0.052 * s]),
    limb(
      part('hip-bone-left', 'crest of the hip bone, left', 'pelvis', 0.02),
      [0.03 * h, 0.034 * d, 0.578 * s],
      [0.062 * h, -0.022 * d, 0.562 * s],
      0.011 * s,
      0.007 * s,
    ),
    ball(
      part('lower-belly', 'lower belly', 'pelvis', 0.025),
      [0, -0.02 * d, 0.553 * s],
      [0.062 * h, 0.034 * d, 0.05 * s],
    ),
    ball(
      part('buttock-left', 'buttock, left', 'pelvis', 0.02),
      [0.043 * h, 0.03 * d, 0.506 * s],
      [0.041 * h, 0.034 * d, 0.046 * s],
    ),
    ball(part('groin', 'groin', 'pelvis', 0.024), [0, -0.006 * d, 0.496 * s], [0.03 * h, 0.03 * d, 0.022 * s]),
    // Waist between ribs and pelvis, the long muscles of the back beside the spine.
    ball(
      part('waist', 'waist', 'spine', 0.03),
      [0, 0.003 * d, 0.628 * s],
      [0.086 * (0.5 * a + 0.5 * h), 0.0545 * d, 0.08 * s],
    ),
    ball(
      part('belly', 'belly', 'spine', 0.025),
      [0, -0.018 * d - 0.55 * m.belly, 0.612 * s],
      [0.056 * d + 0.25 * m.belly, 0.034 * d + 0.45 * m.belly, 0.062 * s + 0.2 * m.belly],
    ),
    limb(
      part('back-muscle-left', 'long muscle of the back, left', 'spine', 0.014),
      [0.02 * d, 0.036 * d, 0.565 * s],
      [0.024 * d, 0.043 * d, 0.69 * s],
      0.016 * d * out,
      0.016 * d * out,
    ),
    // Rib cage, wider below than above, and its lower edge in front.
    ball(part('ribcage', 'rib cage', 'chest', 0.03), [0, 0.006 * d, 0.712 * s], [0.0905 * a, 0.064 * d, 0.107 * s]),
    limb(
      part('rib-edge-left', 'lower edge of the ribs, left', 'chest', 0.022),
      [0.012 * a, -0.046 * d, 0.684 * s],
      [0.064 * a, -0.022 * d, 0.636 * s],
      0.008 * s,
      0.006 * s,
    ),
    ball(
      { ...part('breast-muscle-left', 'breast muscle, left', 'chest', 0.024), turn: [12, 0, -22] },
      [0.044 * a, -0.04 * d, 0.754 * s],
      [0.046 * a, 0.018 * d * (0.6 + muscle), 0.033 * s],
    ),
    ball(
      { ...part('shoulder-blade-left', 'shoulder blade, left', 'chest', 0.012), turn: [-8, 0, 22] },
      [0.05 * a, 0.052 * d, 0.75 * s],
      [0.03 * a, 0.013 * d, 0.043 * s],
    ),
    ball(
      part('side-muscle-left', 'broad muscle of the back, left', 'chest', 0.022),
      [0.069 * a, 0.022 * d, 0.725 * s],
      [0.024 * a * out, 0.034 * d, 0.068 * s],
    ),
    // The yoke that the arms hang from: collar bones in front, the slope of the neck behind.
    limb(
      part('collar-bone-left', 'collar bone, left', 'chest', 0.011),
      [0.009 * s, -0.036 * d, 0.803 * s],
      [0.086 * a, -0.004 * d, 0.81 * s],
      0.0072 * s,
      0.0068 * s,
    ),
    limb(
      part('slope-left', 'slope of the neck, left', 'chest', 0.02),
      [0.016 * s, 0.02 * d, 0.846 * s],
      [0.084 * a, 0.01 * d, 0.797 * s],
      0.019 * d * out,
      0.016 * d * out,
    ),
    limb(
      part('shoulder-girdle-left', 'girdle of the shoulder, left', 'chest', 0.025),
      [0.03 * a, 0.006 * d, 0.776 * s],
      [0.088 * a, 0.004 * d, 0.784 * s],
      0.034 * d,
      0.025 * d,
    ),
  ];
  if (m.breasts > 0.002)
    masses.push(
      ball(
        { ...part('breast-left', 'breast, left', 'chest', 0.012), turn: [0, 0, -14] },
        [0.044 * a, -0.05 * d - 0.35 * m.breasts, 0.732 * s - 0.1 * m.breasts],
        [0.026 * a + 0.3 * m.breasts, 0.014 * d + 0.6 * m.breasts, 0.024 * s + 0.4 * m.breasts],
      ),
    );
  return masses;
}

/** From the collar to under the skull: a column with its nape, throat and the two muscles to the pit of the collar bones. */
export function bodyNeck(m: BodyMeasures, p: BodyPlaces): Mass[] {
  const { s } = m;
  const d = s * Math.sqrt(m.heft);
  const part = (id: string, name: string, blend: number) => ({
    id,
    name,
    region: 'head',
    joint: 'neck',
    blend: blend * s,
  });
  const front = -headForward * s;
  return [
    limb(part('neck', 'neck', 0.018), p.neck, [0, 0.6 * front, p.chin + 0.016 * s], 0.0335 * d, 0.0315 * d),
    limb(
      part('nape', 'nape', 0.018),
      add(p.neck, [0, 0.012 * s, 0]),
      [0, front + 0.032 * s, p.chin + 0.05 * s],
      0.028 * d,
      0.024 * d,
    ),
    limb(
      part('neck-muscle-left', 'neck muscle, left', 0.006),
      [0.035 * s, front + 0.014 * s, p.chin + 0.044 * s],
      [0.007 * s, -0.028 * d, p.collar + 0.004 * s],
      0.0085 * s,
      0.0065 * s,
    ),
  ];
}

export function armMasses(m: BodyMeasures, p: BodyPlaces): Mass[] {
  const { s, muscle } = m;
  const d = s * Math.sqrt(m.heft);
  const out = 0.85 + 0.3 * muscle;
  const part = (id: string, name: string, joint: string, blend: number) => ({
    id: `${id}-left`,
    name: `${name}, left`,
    region: 'arms',
    joint: `${joint}-left`,
    blend: blend * s,
  });
  const by = (from: Vec3, to: Vec3, share: number, x: number, y: number): Vec3 =>
    add(mix(from, to, share), [x * d, y * d, 0]);
  return [
    ball(part('deltoid', 'cap of the shoulder', 'shoulder', 0.016), add(p.shoulder, [0.0035 * d, 0, -0.016 * s]), [
      0.03 * d,
      0.034 * d,
      0.036 * s,
    ]),
    limb(part('upper-arm', 'upper arm', 'shoulder', 0.012), p.shoulder, p.elbow, 0.0228 * d, 0.019 * d),
    ball(part('biceps', 'biceps', 'shoulder', 0.01), by(p.shoulder, p.elbow, 0.56, -0.002, -0.0085), [
      0.0185 * d * out,
      0.0185 * d * out,
      0.05 * s,
    ]),
    ball(part('triceps', 'triceps', 'shoulder', 0.01), by(p.shoulder, p.elbow, 0.5, 0.001, 0.0085), [
      0.0185 * d * out,
      0.018 * d * out,
      0.056 * s,
    ]),
    ball(part('elbow', 'elbow', 'elbow', 0.008), add(p.elbow, [0, 0.008 * d, 0]), [0.016 * d, 0.014 * d, 0.016 * s]),
    limb(part('forearm', 'forearm', 'elbow', 0.01), p.elbow, p.wrist, 0.0203 * d, 0.0142 * d),
    ball(part('forearm-muscle', 'muscle of the forearm', 'elbow', 0.012), by(p.elbow, p.wrist, 0.26, 0.004, -0.002), [
      0.0222 * d * out,
      0.0228 * d * out,
      0.05 * s,
    ]),
  ];
}

export function legMasses(m: BodyMeasures, p: BodyPlaces): Mass[] {
  const { s, hips, muscle } = m;
  const d = s * Math.sqrt(m.heft);
  const h = d * (0.4 + 0.6 * hips);
  const out = 0.85 + 0.3 * muscle;
  const part = (id: string, name: string, joint: string, blend: number) => ({
    id: `${id}-left`,
    name: `${name}, left`,
    region: 'legs',
    joint: `${joint}-left`,
    blend: blend * s,
  });
  const by = (from: Vec3, to: Vec3, share: number, x: number, y: number): Vec3 =>
    add(mix(from, to, share), [x * h, y * d, 0]);
  const foot: Vec3 = [p.ankle[0], p.ankle[1], p.ankle[2] + 0.006 * s];
  return [
    limb(part('thigh', 'thigh', 'hip', 0.02), p.hip, p.knee, 0.0445 * h, 0.0275 * d),
    ball(part('outer-thigh', 'outer thigh', 'hip', 0.02), by(p.hip, p.knee, 0.1, 0.009, 0.002), [
      0.0375 * h,
      0.04 * d,
      0.08 * s,
    ]),
    ball(part('front-thigh', 'front of the thigh', 'hip', 0.016), by(p.hip, p.knee, 0.5, 0.004, -0.015), [
      0.033 * h * out,
      0.031 * d * out,
      0.095 * s,
    ]),
    ball(part('back-thigh', 'back of the thigh', 'hip', 0.016), by(p.hip, p.knee, 0.5, -0.002, 0.014), [
      0.031 * h * out,
      0.028 * d * out,
      0.095 * s,
    ]),
    ball(part('inner-thigh', 'inner thigh', 'hip', 0.016), by(p.hip, p.knee, 0.24, -0.016, 0.002), [
      0.028 * h,
      0.036 * d,
      0.07 * s,
    ]),
    ball(part('kneecap', 'knee cap', 'knee', 0.012), add(p.knee, [0, -0.0185 * d, 0.002 * s]), [
      0.0125 * d,
      0.012 * d,
      0.019 * s,
    ]),
    limb(part('calf', 'lower leg', 'knee', 0.014), p.knee, foot, 0.0288 * d, 0.018 * d),
    limb(
      part('heel-cord', 'tendon of the heel', 'knee', 0.008),
      by(p.knee, foot, 0.6, 0, 0.02),
      by(p.knee, foot, 1, 0, 0.0175),
      0.009 * d,
      0.0062 * d,
    ),
    ball(part('calf-muscle-outer', 'calf, outer', 'knee', 0.014), by(p.knee, foot, 0.28, 0.009, 0.011), [
      0.0225 * d * out,
      0.0262 * d * out,
      0.066 * s,
    ]),
    ball(part('calf-muscle-inner', 'calf, inner', 'knee', 0.014), by(p.knee, foot, 0.32, -0.009, 0.011), [
      0.0225 * d * out,
      0.0272 * d * out,
      0.07 * s,
    ]),
  ];
}
