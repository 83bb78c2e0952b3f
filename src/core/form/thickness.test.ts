import type { Mass, MassShape } from '../document';
import { DistanceField, thicknessField, voxelise } from '.';

const mass = (id: string, shape: MassShape, at: [number, number, number] = [0, 0, 0]): Mass => ({
  id,
  name: id,
  region: 'r',
  at,
  turn: [0, 0, 0],
  blend: 0,
  shape,
});
const step = 0.004;
const fieldOf = (masses: Mass[]) => {
  const distances = new DistanceField(masses);
  const grid = voxelise(distances, { step, depth: 1 });
  const field = thicknessField(grid, distances);
  return {
    ...field,
    at: (x: number, y: number, z: number) => {
      const [i, j, k] = [x, y, z].map((v, n) => Math.floor((v - (grid.origin[n as 0] as number)) / step)) as [
        number,
        number,
        number,
      ];
      return field.values[i + field.cells[0] * (j + field.cells[1] * k)]!;
    },
  };
};

test('a ball is as thick everywhere as it is across', () => {
  const f = fieldOf([mass('ball', { kind: 'ellipsoid', radii: [0.05, 0.05, 0.05] })]);
  for (const x of [0, 0.02, 0.04]) expect(Math.abs(f.at(x, 0, 0) - 0.1)).toBeLessThan(step);
  expect(f.at(0.07, 0, 0)).toBe(0);
  expect(Math.hypot(...f.thickest.at)).toBeLessThan(2 * step);
});

test('a slab is as thick as it is, not as wide', () => {
  const f = fieldOf([mass('slab', { kind: 'rounded-box', half: [0.08, 0.08, 0.012], rounding: 0 })]);
  for (const [x, z] of [
    [0, 0],
    [0.05, 0.006],
    [-0.04, -0.008],
  ] as const)
    expect(Math.abs(f.at(x, 0.01, z) - 0.024)).toBeLessThan(step);
});

test('a limb on a body is thin where it is thin', () => {
  const f = fieldOf([
    mass('body', { kind: 'ellipsoid', radii: [0.06, 0.06, 0.06] }),
    mass('limb', { kind: 'round-cone', reach: [0.16, 0, 0], radiusFrom: 0.016, radiusTo: 0.016 }),
  ]);
  expect(Math.abs(f.at(0.12, 0, 0) - 0.032)).toBeLessThan(step);
  expect(Math.abs(f.at(0, 0, 0) - 0.12)).toBeLessThan(step);
  expect(f.thickest.thickness).toBeCloseTo(0.12, 2);
});
