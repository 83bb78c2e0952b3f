import { buildWithScan, fourLegs, longEars, scanOf } from '../../../../tests/support/scans';
import type { Build } from '../../document';
import { seeded } from '../../quantity';
import { DistanceField, distanceAtCell, resolveForm, voxelise, type ResolvedForm, type VoxelGrid } from '..';

const resolved = (b: Build): ResolvedForm => {
  const form = resolveForm(b);
  if (!form.ok) throw new Error(`${form.path}: ${form.message}`);
  return form.value;
};
const fieldOf = (b: Build) => new DistanceField(resolved(b).masses);
const posed = (b: Build, pose: Build['form']['pose']): Build => ({ ...b, form: { ...b.form, pose } });
const insideOf = (grid: VoxelGrid): Uint8Array => {
  const [nx, ny, nz] = grid.blocks.map((n) => n * 8) as [number, number, number];
  return Uint8Array.from({ length: nx * ny * nz }, (_, i) =>
    distanceAtCell(grid, i % nx, Math.floor(i / nx) % ny, Math.floor(i / (nx * ny))) < 0 ? 1 : 0,
  );
};
/** Litres, by the share of each cell at the face. */
const litres = (grid: VoxelGrid): number => {
  const [nx, ny, nz] = grid.blocks.map((n) => n * 8) as [number, number, number];
  let sum = 0;
  for (let z = 0; z < nz; z++)
    for (let y = 0; y < ny; y++)
      for (let x = 0; x < nx; x++) {
        const d = distanceAtCell(grid, x, y, z) / grid.step;
        sum += d >= 0.5 ? 0 : d <= -0.5 ? 1 : 0.5 - d;
      }
  return sum * grid.step ** 3 * 1e3;
};
const lumps = (grid: VoxelGrid): number[] => {
  const inside = insideOf(grid);
  const [nx, ny] = grid.blocks.map((n) => n * 8) as [number, number, number];
  const out: number[] = [];
  for (let start = 0; start < inside.length; start++) {
    if (!inside[start]) continue;
    let n = 0;
    const stack = [start];
    inside[start] = 0;
    while (stack.length > 0) {
      const i = stack.pop()!;
      n++;
      for (const s of [1, -1, nx, -nx, nx * ny, -nx * ny])
        if (inside[i + s]) {
          inside[i + s] = 0;
          stack.push(i + s);
        }
    }
    out.push(n);
  }
  return out.sort((a, b) => b - a);
};
const step = 0.004;
const gridOf = (b: Build, everyCell = false) => voxelise(fieldOf(b), { step, depth: 0.02, everyCell });

const shape = scanOf(longEars);
const build = buildWithScan(shape);
const ears = resolved(build).skeleton.joints.filter((j) => j.limb?.includes('top') && j.name.startsWith('root'));
const left = ears.find((j) => j.at[0] > 0)!;

test('at rest it is the mesh it came from, to rounding', () => {
  const plain = fieldOf(buildWithScan(shape, false));
  const limbed = fieldOf(build);
  const random = seeded(5);
  for (let i = 0; i < 4000; i++) {
    const p = [0.3 * random() - 0.15, 0.5 * random() - 0.2, 0.5 * random() - 0.03] as const;
    expect(Math.abs(limbed.at(...p, limbed.all()) - plain.at(...p, plain.all()))).toBeLessThan(1e-12);
  }
});

test('every place belongs to a part, and the ears to their own', () => {
  const field = fieldOf(build);
  const { masses } = resolved(build);
  field.at(0.06, -0.045, 0.4, field.all());
  expect(masses[field.owner]!.region).toMatch(/^limb-\d+-left-top$/);
  field.at(-0.06, -0.045, 0.4, field.all());
  expect(masses[field.owner]!.region).toMatch(/^limb-\d+-right-top$/);
  field.at(0, 0.03, 0.11, field.all());
  expect(masses[field.owner]!.region).toContain('body');
});

describe.each([
  ['forward', [40, 0, 0]],
  ['outward', [0, 40, 0]],
  ['round', [0, 0, 40]],
  ['backward', [-40, 0, 0]],
] as const)('an ear bent by 40 degrees %s', (_, turned) => {
  const bent = posed(build, { [left.id]: { turned: [...turned] } });
  const grid = gridOf(bent);
  test('keeps its volume within 3 % of the ear and does not tear', () => {
    const ear = (Math.PI * 0.162 * (0.022 ** 2 + 0.022 * 0.017 + 0.017 ** 2)) / 3;
    expect(Math.abs(litres(grid) - litres(gridOf(build)))).toBeLessThan(2 * 0.03 * ear * 1e3);
    const [main, ...rest] = lumps(grid);
    expect(main).toBeGreaterThan(1000);
    expect(rest).toEqual([]);
  });
  test('cells skipped are cells that every cell looked at would give', () => {
    const full = gridOf(bent, true);
    expect([...full.origin, ...full.blocks]).toEqual([...grid.origin, ...grid.blocks]);
    const [a, b] = [insideOf(grid), insideOf(full)];
    expect(a.every((v, i) => v === b[i])).toBe(true);
  });
  test('the other ear does the same, reflected', () => {
    const field = fieldOf(bent);
    const random = seeded(9);
    let off = 0;
    for (let i = 0; i < 3000; i++) {
      const [x, y, z] = [0.2 * random(), 0.3 * random() - 0.2, 0.25 + 0.25 * random()];
      const [a, b] = [field.at(x, y, z, field.all()), field.at(-x, y, z, field.all())];
      // Far off a distance is a bound only.
      if (Math.abs(a) < 0.01) off = Math.max(off, Math.abs(a - b));
    }
    // Samples themselves differ by so much, left and right.
    expect(off).toBeLessThan(0.001);
  });
});

test('distances change no faster than their slope says', () => {
  const field = fieldOf(posed(build, { [left.id]: { turned: [50, 20, 0] } }));
  expect(field.slope).toBeGreaterThan(1);
  const random = seeded(2);
  for (let i = 0; i < 12_000; i++) {
    const p = [0.3 * random() - 0.15, 0.4 * random() - 0.2, 0.2 + 0.3 * random()] as const;
    const q = p.map((v) => v + 0.004 * (random() - 0.5)) as unknown as typeof p;
    const way = Math.hypot(...p.map((v, k) => v - q[k]!));
    const [a, b] = [field.at(...p, field.all()), field.at(...q, field.all())];
    if (Math.abs(a) < 0.02) expect(Math.abs(a - b)).toBeLessThanOrEqual(field.slope * way + 1e-4);
  }
});

test('a leg lifted takes its foot along, and the piece stands where it stood', () => {
  const b = buildWithScan(scanOf(fourLegs));
  const root = resolved(b).skeleton.joints.find(
    (j) => j.name.startsWith('root of limb') && j.at[0] > 0.02 && j.at[1] < -0.05,
  )!;
  const lifted = posed(b, { [root.id]: { turned: [-40, 0, 0] } });
  const foot = (form: ResolvedForm) => form.skeleton.joints.find((j) => j.limb === root.limb && j.ground)!;
  expect(foot(resolved(lifted)).at[1]).toBeLessThan(foot(resolved(b)).at[1] - 0.05);
  const [low, lowBefore] = [fieldOf(lifted).box().low[2], fieldOf(b).box().low[2]];
  expect(Math.abs(low - lowBefore)).toBeLessThan(0.02);
  // Where it was cut off the belly a crumb of a cell may be left.
  expect(lumps(gridOf(lifted)).filter((n) => n > 3)).toHaveLength(1);
});

test('a part that is hidden is gone, and can be shown again', () => {
  const part = resolved(build).masses.find((m) => m.joint === left.id)!;
  const without = { ...build, form: { ...build.form, edits: { ...build.form.edits, [part.id]: { hidden: true } } } };
  expect(litres(gridOf(without))).toBeLessThan(litres(gridOf(build)) - 0.05);
  expect(resolved(without).hidden).toContainEqual({ id: part.id, name: part.name });
  expect(resolved(without).lostEdits).toEqual([]);
});
