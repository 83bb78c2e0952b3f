import { coverWanted, thickestWithCover } from '../armature';
import { startBuild } from '../school';
import { asBriefed, Evaluator } from '../evaluate';
import { limbRooms, stretchesOf } from './limb-room';
import type { PosedJoint } from '../form';
import type { Vec3 } from '../quantity';

test('the thickest wire is the one that has just the cover it should', () => {
  for (const depth of [0.004, 0.0065, 0.009, 0.015, 0.02, 0.03, 0.06])
    for (const clay of [0.002, 0.012, 0.04]) {
      const d = thickestWithCover(depth, clay);
      if (d > 0) expect(depth - d / 2 - coverWanted(d, clay, undefined, 2 * depth)).toBeCloseTo(0, 9);
      // A thicker one has less than it should; where there is none, the thinnest has too little.
      expect(depth - (d + 1e-4) / 2).toBeLessThan(coverWanted(d + 1e-4, clay, undefined, 2 * depth));
    }
});

const joint = (id: string, parent: string | null, at: Vec3, ground = false): PosedJoint => ({
  id,
  name: id,
  parent,
  ground,
  at,
  rest: at,
  turn: [0, 0, 0],
  twinOf: null,
  rotation: [1, 0, 0, 0, 1, 0, 0, 0, 1],
});

test('a cone between two joints: as thick as it is at its thinner end, short of its tip', () => {
  // Radius 30 mm at the foot, 10 mm at the top, a metre up; distance as of a cone that thin.
  const radius = (z: number) => 0.03 - 0.02 * z;
  const near = () => (p: Vec3) => ({ distance: 0.9 * (Math.hypot(p[0], p[1]) - radius(p[2])), mass: 0 });
  const joints = [joint('a', null, [0, 0, 0]), joint('b', 'a', [0, 0, 0.5]), joint('c', 'b', [0, 0, 1])];
  const [first, last] = limbRooms(stretchesOf({ skeleton: { joints } as never }, near), { clayOver: () => 0.004 });
  expect(first!.thinnest).toBeCloseTo(2 * radius(0.5), 3);
  expect(last!.thinnest).toBeCloseTo(2 * radius(0.5 + 0.85 * 0.5), 3);
  expect(first!.wire).toBeCloseTo(thickestWithCover(radius(0.5), 0.004), 3);
});

test('on a figure: more room in a thigh than in a wrist, alike left and right, by half at half the size', () => {
  const rooms = (size: number) => {
    const made = startBuild('A figure', '2026-12-01', 'figure', size);
    if (!made.ok) throw new Error(made.message);
    const r = new Evaluator().evaluate(asBriefed(made.value), { ranges: true });
    if (!r.ok) throw new Error(r.message);
    return new Map(r.value.limbs!.map((l) => [l.to, l]));
  };
  const whole = rooms(1),
    half = rooms(0.5);
  expect(whole.get('knee-left')!.thinnest).toBeGreaterThan(1.8 * whole.get('wrist-left')!.thinnest);
  for (const id of ['elbow', 'wrist', 'knee', 'ankle']) {
    expect(whole.get(`${id}-left`)!.thinnest).toBeCloseTo(whole.get(`${id}-right`)!.thinnest, 6);
    expect(half.get(`${id}-left`)!.thinnest / whole.get(`${id}-left`)!.thinnest).toBeCloseTo(0.5, 2);
  }
  // A waist of that body is some 180 mm from front to back.
  expect(whole.get('chest')!.thinnest).toBeGreaterThan(0.15);
  expect(whole.get('chest')!.thinnest).toBeLessThan(0.22);
  // A forearm of 1.72 m is some 50 mm across at the wrist.
  expect(whole.get('wrist-left')!.thinnest).toBeGreaterThan(0.04);
  expect(whole.get('wrist-left')!.thinnest).toBeLessThan(0.065);
});
