import { ballMesh, together, without } from '../../../../tests/support/meshes';
import {
  feetTogether,
  fourLegs,
  headAndShoulders,
  longEars,
  meshOf,
  oneBall,
  scanOf,
  shapeOf,
} from '../../../../tests/support/scans';
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

test.each([
  ['ragged, drawn twice and with a lump in it', 118],
  ['of which one leg was found with a bend more than its like', 80],
])('an even piece %s gets joints that are each other’s reflection', (which, along) => {
  const whole = meshOf(fourLegs, along === 80 ? 80 : 90);
  const ragged = without(whole, (f) => f % 12 === 5),
    half = without(whole, (f) => f % 2 === 0);
  const mesh = which.startsWith('ragged') ? together(ragged, half, ballMesh(0.03, 14, [0, 0.05, 0.3])) : whole;
  const limbs = findLimbs(shapeOf(mesh, along))!;
  expect(feet(limbs)).toHaveLength(4);
  expect(tips(limbs)).toHaveLength(1);
  const middle = limbs.find((j) => j.parent === null)!.at[0];
  const sides = limbs.filter((j) => Math.abs(j.at[0] - middle) > 0.01);
  const twins = sides.filter((j) => j.twinOf !== undefined);
  expect(twins).toHaveLength(sides.length / 2);
  for (const own of twins) {
    const other = limbs.find((j) => j.id === own.twinOf)!;
    expect(distance([2 * middle - other.at[0], other.at[1], other.at[2]], own.at)).toBeLessThan(1e-9);
    expect([own.kind, own.radius]).toEqual([other.kind, other.radius]);
    // They hang on one joint, or on two that are each other's reflection.
    const above = limbs.find((j) => j.id === own.parent)!;
    expect([above.twinOf ?? above.id, above.id]).toContain(other.parent);
  }
});

test('a round end that its line runs out of to one side stands on its own foot', () => {
  // A leg with a knob at its end, beside what it stands on.
  const limbs = limbsOf([
    ...fourLegs,
    {
      ...fourLegs[2]!,
      id: 'knob',
      at: [-0.078, -0.1526, 0.03],
      shape: { kind: 'ellipsoid', radii: [0.016, 0.016, 0.016] },
    },
  ]);
  expect(feet(limbs)).toHaveLength(4);
  expect(tips(limbs)).toHaveLength(1);
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
