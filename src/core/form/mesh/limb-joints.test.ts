import { feetTogether, fourLegs, headAndShoulders, longEars, oneBall, scanOf } from '../../../../tests/support/scans';
import { limbsSchema, type Limbs } from '../../document';
import { distance } from '../../quantity';
import { findLimbs } from './limb-joints';

const limbsOf = (masses: Parameters<typeof scanOf>[0]): Limbs => {
  const found = findLimbs(scanOf(masses));
  if (!found) throw new Error('no limbs');
  expect(limbsSchema.safeParse(found).success).toBe(true);
  return found;
};
const tips = (limbs: Limbs) => limbs.filter((j) => j.kind === 'tip');
const feet = (limbs: Limbs) => limbs.filter((j) => j.kind === 'foot');

describe('joints of a sitting animal', () => {
  const limbs = limbsOf(longEars);
  test('two ears and a tail, each with its tip short of the end and inside', () => {
    expect(tips(limbs)).toHaveLength(3);
    for (const end of [
      [0.075, -0.03, 0.43],
      [-0.075, -0.03, 0.43],
      [0, 0.24, 0.12],
    ] as const) {
      const nearest = Math.min(...tips(limbs).map((t) => distance(t.at, end)));
      expect(nearest).toBeLessThan(0.025);
    }
  });
  test('the ears are each other’s reflection, share a number, and the right follows the left', () => {
    const ears = tips(limbs).filter((t) => t.at[2] > 0.3);
    const [left, right] = ears[0]!.at[0] > 0 ? [ears[0]!, ears[1]!] : [ears[1]!, ears[0]!];
    expect(left.limb).toMatch(/^limb \d+, left, top$/);
    expect(right.limb).toBe(left.limb.replace('left', 'right'));
    expect(right.twinOf).toBe(left.id);
    expect(left.twinOf).toBeUndefined();
  });
  test('it stands on one foot in the middle of what is on the board, and all hangs on that', () => {
    expect(feet(limbs)).toHaveLength(1);
    const foot = feet(limbs)[0]!;
    expect(foot.parent).toBeNull();
    expect(Math.hypot(foot.at[0], foot.at[1] - 0.03)).toBeLessThan(0.02);
    expect(foot.at[2]).toBeLessThan(0.012);
  });
});

test('a head on a neck is a head, its neck a joint where it is thinnest, its shoulders limbs', () => {
  const limbs = limbsOf(headAndShoulders);
  const neck = limbs.find((j) => j.kind === 'narrow')!;
  expect(neck.limb).toBe('head');
  expect(neck.at[2]).toBeGreaterThan(0.17);
  expect(neck.at[2]).toBeLessThan(0.25);
  expect(limbs.some((j) => j.limb === 'head' && j.at[2] > 0.3)).toBe(true);
  const sides = tips(limbs).filter((t) => Math.abs(t.at[0]) > 0.15);
  expect(sides.map((t) => t.limb.split(', ')[1]).sort()).toEqual(['left', 'right']);
});

test('four legs are four feet on the board; none carries all the rest', () => {
  const limbs = limbsOf(fourLegs);
  expect(feet(limbs)).toHaveLength(4);
  for (const x of [-0.065, 0.065])
    for (const y of [-0.13, 0.13])
      expect(Math.min(...feet(limbs).map((f) => Math.hypot(f.at[0] - x, f.at[1] - y)))).toBeLessThan(0.012);
  expect(limbs[0]!.kind).toBe('body');
  expect(limbs.filter((j) => j.kind === 'foot').every((f) => f.limb.startsWith('limb '))).toBe(true);
  expect(tips(limbs)).toHaveLength(1);
});

test('feet that touch each other are two all the same', () => {
  const limbs = limbsOf(feetTogether);
  expect(feet(limbs)).toHaveLength(2);
  expect(
    feet(limbs)
      .map((f) => Math.sign(f.at[0]))
      .sort(),
  ).toEqual([-1, 1]);
});

test('a lump without limbs has a middle and a foot under it', () => {
  const limbs = limbsOf(oneBall);
  expect(limbs.map((j) => j.kind)).toEqual(['foot', 'body']);
  expect(distance(limbs[1]!.at, [0, 0, 0.1])).toBeLessThan(0.012);
});
