import { mix, type Vec3 } from '../quantity';
import {
  bundleAcross,
  coverOfMember,
  coverOnFace,
  coverWanted,
  drawnPath,
  tooThinOver,
  type CoverInputs,
  type FaceDistance,
} from './cover';
import type { Member } from './types';

const member = (path: Vec3[], strands = 1): Member => ({
  id: 'm',
  name: 'wire',
  stock: 'aluminium-annealed',
  size: '4mm',
  strands,
  bonded: false,
  path,
  bones: [],
  allowances: [],
});
/** A ball of 100 mm about the origin. */
const ball = (p: Vec3) => Math.hypot(...p) - 0.1;
const near = () => (p: Vec3) => ({ distance: ball(p), mass: 0 });
const inputs = (held: Vec3[]): CoverInputs => ({
  held,
  near,
  clayOver: () => 0.01,
  acrossOf: (m) => ({ strand: 0.004, whole: bundleAcross(0.004, m.strands) }),
});

const coverOf = (path: Vec3[], held: Vec3[] = []) => coverOfMember(member(path), inputs(held));

test('a chord of a ball: least at its ends, less half the wire', () => {
  const c = coverOf([
    [-0.06, 0, 0.05],
    [0.06, 0, 0.05],
  ]);
  expect(c?.least).toBeCloseTo(0.1 - Math.hypot(0.06, 0.05) - 0.002, 9);
  expect(Math.abs(c?.at[0] ?? 0)).toBeCloseTo(0.06, 9);
  expect(c?.wanted).toBe(0.008);
  expect(c?.short).toBe(0);
});

test('one that stands out is below nothing, and how much of it is short is told', () => {
  const c = coverOf([
    [0, 0, 0],
    [0, 0, 0.12],
  ]);
  expect(c?.least).toBeCloseTo(-0.022, 6);
  // From 90 mm out (8 mm and half the wire under the face) to the end at 120.
  expect(c?.short).toBeGreaterThan(0.026);
  expect(c?.short).toBeLessThan(0.036);
});

test('an upright that comes out of the board is not thin where it enters', () => {
  const foot: Vec3 = [0, 0, -0.2];
  const c = coverOf([foot, [0, 0, 0.02]], [foot]);
  expect(c?.least).toBeCloseTo(0.1 - 0.02 - 0.002, 3);
  // Told from its other end it is the same upright.
  expect(coverOf([[0, 0, 0.02], foot], [foot])?.least).toBeCloseTo(c!.least, 9);
  const loose = coverOf([foot, [0, 0, 0.02]]);
  expect(loose?.least).toBeLessThan(0);
});

test('an upright that grazes a rim by less than half of itself has not come in there; one that goes deeper has', () => {
  // A bead on its way, 50 mm up, and a ball of 80 mm round a place 200 mm up.
  const past = (bead: number) =>
    coverOfMember(
      member([
        [0, 0, 0],
        [0, 0, 0.24],
      ]),
      {
        ...inputs([[0, 0, 0]]),
        near: () => (p: Vec3) => ({
          distance: Math.min(Math.hypot(p[0], p[1], p[2] - 0.05) - bead, Math.hypot(p[0], p[1], p[2] - 0.2) - 0.08),
          mass: 0,
        }),
      },
    )!;
  // Half of 4 mm wire is 2 mm: what it passes 1.2 mm deep is a notch, what is 14 mm deep it comes out of again.
  const bar = (bead: number) => past(bead).least;
  expect(bar(0.0012)).toBeGreaterThan(0);
  for (const bead of [0.0045, 0.014]) expect(bar(bead)).toBeLessThan(-0.02);
});

test('bundles are as thick as circles packed in a circle', () => {
  expect([1, 2, 3, 4, 7].map((n) => bundleAcross(1, n))).toEqual([1, 2, 2.155, 2.414, 3]);
  for (let n = 2; n <= 24; n++) expect(bundleAcross(1, n)).toBeGreaterThanOrEqual(bundleAcross(1, n - 1));
  expect(coverWanted(0.002, 0.03)).toBe(0.015);
  expect(coverWanted(0.0213, 0.01)).toBe(0.016);
});

test('bent inward, it lies as deep as asked, and only where it did not', () => {
  const path: Vec3[] = [
    [-0.095, 0, 0],
    [0, 0, 0.02],
    [0.095, 0, 0],
  ];
  const drawn = drawnPath(path, 0.02, [], near);
  for (const p of drawn) expect(ball(p)).toBeLessThan(-0.0199);
  expect(drawn.some((p) => Math.abs(p[0]) < 0.004 && Math.abs(p[2] - 0.02) < 0.002)).toBe(true);
  const held: Vec3 = [-0.095, 0, 0];
  expect(drawnPath(path, 0.02, [held], near)[0]).toEqual(held);
  // Deeper than the ball is thick: it goes to the middle and no further.
  for (const p of drawnPath(path, 0.5, [], near)) expect(p.every(Number.isFinite)).toBe(true);
});

test('bent inward across a hollow between two balls, no straight of it comes nearer than asked', () => {
  const depth = 0.02;
  const twoBalls: FaceDistance = ([x, y, z]) => {
    const from = (cx: number) => Math.hypot(x - cx, y, z) - 0.1;
    return { distance: Math.min(from(-0.07), from(0.07)), mass: 0 };
  };
  // Along the waist's edge: 71 mm high there, so straights between bends either side cut the corner.
  const over: Vec3[] = Array.from({ length: 9 }, (_, i) => [-0.12 + 0.03 * i, 0, 0.07]);
  const drawn = drawnPath(over, depth, [], () => twoBalls);
  for (let i = 1; i < drawn.length; i++)
    for (let t = 0; t <= 1; t += 0.125)
      expect(twoBalls(mix(drawn[i - 1]!, drawn[i]!, t)).distance).toBeLessThan(-depth * 0.8);
});

test('cover seen from the face', () => {
  const face = Float32Array.from([0, 0, 0.1, 0.1, 0, 0, 0, 0.1, 0]);
  const values = coverOnFace(
    face,
    [
      member([
        [0, 0, -0.05],
        [0, 0, 0.05],
      ]),
    ],
    () => 0.01,
  );
  expect([...values].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0.045, 0.095, 0.095]);
});

test('cover is twice the wire, half the clay, and six millimetres at the least; a pipe asks for no more than a thick wire', () => {
  expect(coverWanted(0.001, 0.004)).toBe(0.006);
  expect(coverWanted(0.005, 0.004)).toBe(0.01);
  expect(coverWanted(0.005, 0.03)).toBe(0.015);
  expect(coverWanted(0.034, 0.01)).toBe(0.016);
  // In a limb 12 mm across a third of that is enough; half the clay and twice the wire still count.
  expect(coverWanted(0.001, 0.004, undefined, 0.012)).toBeCloseTo(0.004, 12);
  expect(coverWanted(0.001, 0.012, undefined, 0.012)).toBe(0.006);
  expect(coverWanted(0.0025, 0.004, undefined, 0.012)).toBe(0.005);
});

test('a third of the limb is of the limb: near the face of something thick six millimetres are wanted as ever', () => {
  const along = (radius: number, off: number): { least: number; wanted: number } => {
    // A rod along x, the wire so far off its axis.
    const c = coverOfMember(
      member([
        [-0.05, off, 0],
        [0.05, off, 0],
      ]),
      {
        acrossOf: () => ({ strand: 0.001, whole: 0.001 }),
        held: [],
        near: () => (p) => ({ distance: Math.hypot(p[1], p[2]) - radius, mass: 0 }),
        clayOver: () => 0.002,
      },
    )!;
    return c;
  };
  expect(along(0.006, 0).wanted).toBeCloseTo(0.004, 9);
  expect(along(0.006, 0.002).wanted).toBeCloseTo(0.004, 4);
  expect(along(0.05, 0.046).least).toBeCloseTo(0.0035, 6);
  expect(along(0.05, 0.046).wanted).toBe(0.006);
  expect(along(0.05, 0.0495).wanted).toBe(0.006);
});

test('clay over a member is held back where there is too little of it, not where filling lies between', () => {
  // 4 mm wire: eight millimetres are wanted, ten under clay of twenty.
  expect(tooThinOver(0.005, 0.004, 0.02)).toBe(true);
  expect(tooThinOver(0.01, 0.004, 0.02)).toBe(false);
  expect(tooThinOver(0.005, 0.004, 0.003)).toBe(false);
});
