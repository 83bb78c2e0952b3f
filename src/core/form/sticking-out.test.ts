import { dot, norm, scale, subtract, unit, type Vec3 } from '../quantity';
import { stickingOut, withoutSlips, type CutAcross, type StickingOut } from './sticking-out';
import { surfaceNet } from './surface-net';

/** Rods, bars and cones on a ball, against their own sections. */
type Solid = (p: Vec3) => number;
const ball =
  (radius: number, middle: Vec3 = [0, 0, 0]): Solid =>
  (p) =>
    norm(subtract(p, middle)) - radius;

/** Along a direction from the middle, so long; its sides by `outside` of what is across, in two directions, and along. */
function standing(along: Vec3, length: number, outside: (x: number, y: number, s: number) => number): Solid {
  const d = unit(along);
  const aside: Vec3 = Math.abs(d[0]) < 0.7 ? [1, 0, 0] : [0, 1, 0];
  const x = unit(subtract(aside, scale(d, dot(aside, d))));
  const y: Vec3 = [d[1] * x[2] - d[2] * x[1], d[2] * x[0] - d[0] * x[2], d[0] * x[1] - d[1] * x[0]];
  return (p) => {
    const s = dot(p, d);
    return Math.max(outside(dot(p, x), dot(p, y), s), s - length, -s);
  };
}
const rod = (along: Vec3, length: number, radius: number) =>
  standing(along, length, (x, y) => Math.hypot(x, y) - radius);

function face(solids: readonly Solid[], reach: number, step = 0.0025) {
  const n = Math.ceil((2 * reach) / step);
  return surfaceNet({
    size: [n, n, n],
    origin: [-reach, -reach, -reach],
    step,
    value: (x, y, z) => {
      const p: Vec3 = [x * step - reach, y * step - reach, z * step - reach];
      return solids.reduce((least, s) => Math.min(least, s(p)), Infinity);
    },
    eachCell: (see) => {
      for (let z = 0; z < n - 1; z++) for (let y = 0; y < n - 1; y++) for (let x = 0; x < n - 1; x++) see(x, y, z);
    },
    onVertex: () => undefined,
  });
}
const lowest = ({ positions }: { positions: Float32Array }): number[] => {
  let best = 0;
  for (let i = 0; i < positions.length / 3; i++) if (positions[3 * i + 2]! < positions[3 * best + 2]!) best = i;
  return [best];
};
const nearest = (found: readonly StickingOut[], to: Vec3): StickingOut =>
  [...found].sort((a, b) => norm(subtract(a.tip, to)) - norm(subtract(b.tip, to)))[0]!;

describe('two rods and a bar on a ball', () => {
  const [up, aside, out]: Vec3[] = [unit([0.3, 0.1, 1]), unit([-1, 0.2, 0.3]), unit([0.5, -1, 0.2])] as Vec3[] as [
    Vec3,
    Vec3,
    Vec3,
  ];
  const mesh = face(
    [
      ball(0.05),
      rod(up, 0.13, 0.008),
      rod(aside, 0.12, 0.01),
      standing(out, 0.12, (x, y) => Math.max(Math.abs(x) - 0.006, Math.abs(y) - 0.012)),
    ],
    0.14,
  );
  const { ends: found } = stickingOut(mesh, lowest(mesh));

  test('the three are found, each once, with its end', () => {
    expect(found).toHaveLength(3);
    for (const [d, length] of [
      [up, 0.13],
      [aside, 0.12],
      [out, 0.12],
    ] as const) {
      const tip = nearest(found, scale(d, length)).tip;
      expect(norm(subtract(tip, scale(d, length)))).toBeLessThan(0.016);
    }
  });

  test.each([
    ['a rod of 16 mm', up, 0.13, Math.PI * 0.008 ** 2, (Math.PI * 0.008 ** 3) / 4, 0.016],
    ['a rod of 20 mm', aside, 0.12, Math.PI * 0.01 ** 2, (Math.PI * 0.01 ** 3) / 4, 0.02],
    ['a bar of 12 by 24 mm', out, 0.12, 0.012 * 0.024, (0.024 * 0.012 ** 2) / 6, 0.012],
  ] as const)('%s is as thick and as strong as it is', (_, d, length, area, modulus, across) => {
    const { cuts } = nearest(found, scale(d, length));
    const out = length - 0.05;
    const half = (c: CutAcross) => Math.abs(c.arm - out / 2);
    const middle = cuts.reduce((a, b) => (half(b) < half(a) ? b : a));
    expect(Math.abs(middle.area / area - 1)).toBeLessThan(0.05);
    expect(Math.abs(middle.modulus / modulus - 1)).toBeLessThan(0.1);
    expect(Math.abs(middle.across / across - 1)).toBeLessThan(0.05);
    expect(dot(middle.along, d)).toBeGreaterThan(0.999);
    // As thick all the way to where it goes into the ball.
    const thin = cuts.filter((c) => c.area < 1.15 * area);
    expect(Math.max(...thin.map((c) => c.arm))).toBeGreaterThan(0.75 * out);
    expect(Math.max(...thin.map((c) => c.arm))).toBeLessThan(out + 0.005);
  });
});

test('a ball has nothing that sticks out, nor has a knob as thick as it is long', () => {
  expect(stickingOut(face([ball(0.05)], 0.06)).ends).toEqual([]);
  expect(stickingOut(face([ball(0.05), rod([0, 0, 1], 0.065, 0.012)], 0.07)).ends).toEqual([]);
});

test('a cone is weakest near its tip, and its cuts grow towards its root', () => {
  const cone = (d: Vec3) => standing(d, 0.16, (x, y, s) => Math.hypot(x, y) - 0.003 - 0.02 * (1 - s / 0.16));
  const mesh = face([ball(0.05), cone([0, 0.3, 1]), cone([0, -1, 0.3])], 0.17, 0.003);
  const { finest, ends } = stickingOut(mesh, lowest(mesh));
  const [one] = ends;
  const areas = one!.cuts.map((c) => c.area);
  for (let i = 1; i < areas.length; i++) expect(areas[i]!).toBeGreaterThan(0.98 * areas[i - 1]!);
  for (const c of one!.cuts) {
    expect(c.arm).toBeGreaterThanOrEqual(Math.max(c.across, 0.01));
    expect(c.across).toBeGreaterThanOrEqual(finest);
  }
});

test('a thin neck under a knob is where it breaks', () => {
  const neck = standing([0, 0.2, 1], 0.15, (x, y, s) => Math.hypot(x, y) - (s > 0.12 ? 0.014 : 0.006));
  const mesh = face([ball(0.05), neck, rod([0, -1, 0.3], 0.11, 0.01)], 0.16, 0.003);
  const found = nearest(stickingOut(mesh, lowest(mesh)).ends, scale(unit([0, 0.2, 1]), 0.15));
  const worst = found.cuts.reduce((a, b) => (b.arm / b.modulus > a.arm / a.modulus ? b : a));
  expect(worst.across / 0.012).toBeCloseTo(1, 0);
  expect(worst.across).toBeLessThan(0.015);
  // The lever is longest where the neck goes into the ball.
  expect(worst.arm).toBeGreaterThan(0.07);
});

test('a rod that is hollow from its end down is a tube there', () => {
  const d = unit([0, 0.2, 1]);
  const tube = standing(d, 0.15, (x, y, s) =>
    Math.max(Math.hypot(x, y) - 0.012, s > 0.08 ? 0.007 - Math.hypot(x, y) : -1),
  );
  const mesh = face([ball(0.05), tube, rod([0, -1, 0.3], 0.11, 0.01)], 0.16);
  const { cuts } = nearest(stickingOut(mesh, lowest(mesh)).ends, scale(d, 0.15));
  const hollow = cuts.filter((c) => dot(c.at, d) > 0.09 && dot(c.at, d) < 0.12);
  expect(hollow.length).toBeGreaterThan(1);
  for (const c of hollow) {
    expect(c.area / (Math.PI * (0.012 ** 2 - 0.007 ** 2))).toBeCloseTo(1, 0);
    expect(c.modulus / ((Math.PI * (0.012 ** 4 - 0.007 ** 4)) / 4 / 0.012)).toBeGreaterThan(0.85);
    expect(c.modulus / ((Math.PI * 0.012 ** 3) / 4)).toBeLessThan(0.95);
  }
});

test('a cut that has slipped off what it goes through is left out, and a neck is not', () => {
  const areas = (...all: number[]) => withoutSlips(all.map((area) => ({ area }))).map((c) => c.area);
  expect(areas(493, 12, 127, 464, 380)).toEqual([493, 464, 380]);
  expect(areas(400, 100, 90, 110, 500)).toEqual([400, 100, 90, 110, 500]);
  expect(areas(10, 30, 60)).toEqual([10, 30, 60]);
});

test('what tapers to nothing is told as far as the face tells it', () => {
  const d = unit([0, 0.2, 1]);
  const blade = standing(d, 0.16, (x, y, s) =>
    Math.max(Math.abs(x) - 0.0005 - 0.006 * (1 - s / 0.16), Math.abs(y) - 0.014),
  );
  const mesh = face([ball(0.05), blade, rod([0, -1, 0.3], 0.11, 0.01)], 0.17, 0.003);
  const { finest, ends } = stickingOut(mesh, lowest(mesh));
  const { cuts } = nearest(ends, scale(d, 0.16));
  expect(cuts.length).toBeGreaterThan(3);
  for (const c of cuts) expect(c.across).toBeGreaterThanOrEqual(finest);
  // Its own thickness where that is told.
  const thick = cuts.filter((c) => dot(c.at, d) > 0.07 && dot(c.at, d) < 0.09);
  expect(thick.length).toBeGreaterThan(0);
  for (const c of thick) expect(c.across / (2 * (0.0005 + 0.006 * (1 - dot(c.at, d) / 0.16)))).toBeCloseTo(1, 0);
});
