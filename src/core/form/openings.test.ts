import type { Mass } from './mass';
import { DistanceField } from './distance';
import { massDistance } from './mass-distance';
import { compile } from './compiled';
import { measureForm } from './volume';
import { cellsPerBlock, voxelise } from './voxels';

const { PI, abs, floor, max } = Math;

const common = { region: 'head', turn: [0, 0, 0] as [number, number, number], blend: 0 };
const ball = (id: string, r: number, role?: Mass['role'], at: [number, number, number] = [0, 0, 0]): Mass => ({
  ...common,
  id,
  name: id,
  at,
  shape: { kind: 'ellipsoid', radii: [r, r, r] },
  ...(role ? { role } : {}),
});
const coat = 0.01;
/** A ball of 60 mm with a centimetre of clay over it, and a ball of 24 mm cut out of the clay at one side. */
const masses = [ball('object', 0.06, 'core'), ball('hole', 0.024, 'opening', [0, -0.07, 0])];
const clay = Float64Array.of(coat, 0);
const field = () => new DistanceField(masses, clay);

test('an opening goes through the clay and stops at the object', () => {
  const f = field();
  const at = (y: number, z = 0) => f.at(0, y, z, f.all());
  // In the middle of the hole the face is the object's own.
  expect(at(-0.0601)).toBeGreaterThan(0);
  expect(at(-0.0599)).toBeLessThan(0);
  expect(at(-0.065)).toBeCloseTo(0.005, 9);
  // On the other side the clay is there.
  expect(at(0.0699)).toBeLessThan(0);
  expect(at(0.0701)).toBeGreaterThan(0);
  expect(f.box().low[1]).toBeCloseTo(-0.07, 9);
});

test('within the object no clay is looked for under an opening', () => {
  const f = field();
  f.at(0, -0.059, 0, f.all());
  expect(f.masses[f.owner]!.id).toBe('hole');
  // Beside the hole the clay's cut wall is clay.
  f.at(0, -0.0618, 0.0233, f.all());
  expect(f.masses[f.owner]!.id).toBe('object');
});

test('it takes away the clay it cuts, and none of the object', () => {
  const f = field();
  const grid = voxelise(f, { step: 0.0016, depth: coat });
  const found = measureForm(grid, Float64Array.of(coat, 0));
  const sum = (k: 'clay' | 'bulk') => found.perMass.reduce((total, m) => total + m[k], 0);
  expect(sum('bulk') / ((4 / 3) * PI * 0.06 ** 3)).toBeCloseTo(1, 2);
  // What two balls share, for the clay's outside and for the object: its lens by their radii and how far they are apart.
  const lens = (a: number, b: number, d: number) =>
    (PI * (a + b - d) ** 2 * (d * d + 2 * d * (a + b) - 3 * (a - b) ** 2)) / (12 * d);
  const cut = lens(0.07, 0.024, 0.07) - lens(0.06, 0.024, 0.07);
  const shell = (4 / 3) * PI * (0.07 ** 3 - 0.06 ** 3);
  expect(abs(sum('clay') / (shell - cut) - 1)).toBeLessThan(0.01);
});

test('left out, filled whole or cell by cell: the same as at each place by itself', () => {
  const f = field();
  const grid = voxelise(f, { step: 0.003, depth: coat });
  const slow = voxelise(f, { step: 0.003, depth: coat, everyCell: true });
  const [nx, ny] = grid.blocks;
  let worst = 0,
    read = 0;
  grid.slots.forEach((slot, b) => {
    if (slot < 0) return;
    const corner = [b % nx, floor(b / nx) % ny, floor(b / (nx * ny))].map((i) => i * 8);
    for (let c = 0; c < cellsPerBlock; c += 3) {
      const cell = [c % 8, floor(c / 8) % 8, floor(c / 64)];
      const p = [0, 1, 2].map((k) => grid.origin[k]! + (corner[k]! + cell[k]! + 0.5) * grid.step);
      const d = grid.distances[slot * cellsPerBlock + c]!;
      if (abs(d) > coat) continue;
      read += 1;
      worst = max(worst, abs(d - f.at(p[0]!, p[1]!, p[2]!, f.all())));
      worst = max(worst, abs(d - slow.distances[slow.slots[b]! * cellsPerBlock + c]!));
    }
  });
  expect(read).toBeGreaterThan(5000);
  expect(worst).toBeLessThan(1e-6);
});

test('with no object under it, it goes right through', () => {
  const f = new DistanceField([ball('solid', 0.05), ball('hole', 0.02, 'opening')]);
  expect(f.at(0, 0, 0, f.all())).toBeCloseTo(0.02, 7);
  expect(f.at(0.03, 0, 0, f.all())).toBeCloseTo(-0.01, 7);
});

test('within an ellipsoid, on a plane of its own, the nearest face is found too', () => {
  const wide: Mass = {
    ...common,
    id: 'a',
    name: 'a',
    at: [0, 0, 0],
    shape: { kind: 'ellipsoid', radii: [0.18, 0.11, 0.4] },
  };
  const fine = compile(wide, 0, true);
  for (const [x, y, z] of [
    [0.0935, 0, 0.17],
    [0.05, 0, 0.3],
    [0, 0, 0.2],
    [0.1, 0, 0],
  ] as const) {
    // The slow twin: the nearest of many places on its face.
    let nearest = Infinity;
    for (let i = 0; i <= 600; i++)
      for (let j = 0; j <= 600; j++) {
        const p = (PI * i) / 600,
          q = (PI * j) / 600;
        const d = Math.hypot(
          0.18 * Math.sin(p) * Math.cos(q) - x,
          0.11 * Math.sin(p) * Math.sin(q) - y,
          0.4 * Math.cos(p) - z,
        );
        if (d < nearest) nearest = d;
      }
    expect(-massDistance(fine, x, y, z)).toBeCloseTo(nearest, 4);
    // No jump between the plane and beside it.
    expect(massDistance(fine, x, y + 1e-5, z)).toBeCloseTo(massDistance(fine, x, y, z), 4);
  }
});
