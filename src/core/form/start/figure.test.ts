import { startBuild } from '../../school';
import type { Vec3 } from '../../quantity';
import { DistanceField, distanceAtCell, findStartForm, resolveForm, voxelise, type ResolvedForm } from '..';
import { Callipers } from '../../../../tests/support/callipers';
import { segmentShares } from './human-body';
import { ownFootLength } from './human-foot';

const { abs, hypot, max } = Math;

function form(measures: Record<string, number | string | boolean> = {}, size = 1): ResolvedForm {
  const made = startBuild('A figure', '2026-12-01', 'figure', size);
  if (!made.ok) throw new Error(made.message);
  const start = { ...made.value.form.start, measures };
  const f = resolveForm({ ...made.value, form: { ...made.value.form, start } });
  if (!f.ok) throw new Error(f.message);
  return f.value;
}
const joint = (f: ResolvedForm, id: string): Vec3 => f.skeleton.joints.find((j) => j.id === id)!.at;
const apart = (a: Vec3, b: Vec3) => hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const near = (value: number, wanted: number, share = 0.03) =>
  expect([value, abs(value / wanted - 1) < share]).toEqual([value, true]);

/** Drillis and Contini (1966), as shares of the height. */
describe.each([
  ['a man of 1.72 m', 1.72, {}],
  ['a tall man', 1.95, { height: 1.95 }],
  ['a small man', 1.5, { height: 1.5 }],
] as const)('segments of %s', (_, height, measures) => {
  const f = form(measures);
  const side = new Callipers(new DistanceField(f.masses));
  test.each([
    ['upper arm', 'shoulder-left', 'elbow-left', segmentShares.upperArm],
    ['forearm', 'elbow-left', 'wrist-left', segmentShares.forearm],
    ['thigh', 'hip-left', 'knee-left', segmentShares.hip - segmentShares.knee],
    ['shank', 'knee-left', 'ankle-left', segmentShares.knee - segmentShares.ankle],
  ])('%s', (__, from, to, share) => near(apart(joint(f, from), joint(f, to)), share * height));
  test('levels: chin, shoulders, knees', () => {
    near(f.landmarks.find((l) => l.id === 'eyes')!.ends[0][2], 0.936 * height);
    near(joint(f, 'knee-left')[2], 0.285 * height);
    near(joint(f, 'ankle-left')[2], 0.039 * height);
  });
  test('shoulders and hips across, by callipers', () => {
    near(2 * side.halfBreadth([0.74 * height, 0.82 * height], [-0.05, 0.05]), 0.259 * height);
    const hips =
      2 * side.halfBreadth([0.49 * height, 0.55 * height], [-0.05, 0.06], (id) => /hand|finger|thumb|arm/.test(id));
    near(hips, 0.191 * height);
  });
  test('the foot, heel to longest toe, and its breadth', () => {
    const feet = f.masses.filter((m) => m.region === 'feet' && m.id.endsWith('-left'));
    const places = feet.flatMap((m): [Vec3, number][] =>
      m.shape.kind === 'round-cone'
        ? [
            [m.at, m.shape.radiusFrom],
            [[m.at[0] + m.shape.reach[0], m.at[1] + m.shape.reach[1], m.at[2] + m.shape.reach[2]], m.shape.radiusTo],
          ]
        : [],
    );
    // Its reach are the masses' own axes; the whole foot is turned out by 7 degrees.
    const turn = (7 * Math.PI) / 180;
    const turned = feet.map((m) => m.turn[2]);
    expect(new Set(turned.map((t) => t.toFixed(6))).size).toBe(1);
    expect(turned[0]).toBeCloseTo(7, 9);
    const ends = places.map(([p, r]) => {
      const along = -(p[1] * Math.cos(turn)) + p[0] * Math.sin(turn);
      return [along - r, along + r] as const;
    });
    // Toes run along the foot within a few degrees; their tips are off by less than a hundredth.
    const long = max(...ends.map((e) => e[1])) - Math.min(...ends.map((e) => e[0]));
    near(long, 0.152 * height, 0.12);
    near(ownFootLength, 0.152 * 1.72, 0.005);
  });
});

test('the whole body holds what its weight does, and each part its share', () => {
  // Of 68 kg at 1.72 m: Dempster's shares of weight and densities, and the density of the whole by Contini's formula.
  const height = 1.72,
    weight = 23 * height * height;
  const density = 0.69 + (0.9 * height) / Math.cbrt(weight);
  const f = form();
  const field = new DistanceField(f.masses, undefined, f.countedWith);
  const step = 0.006;
  const grid = voxelise(field, { step, depth: 10 });
  const [nx, ny, nz] = grid.blocks.map((b) => b * 8) as [number, number, number];
  const everyone = field.all();
  const sums = { leg: 0, arm: 0, rest: 0 };
  const partOf = (id = ''): keyof typeof sums =>
    /^(hip|knee|ankle)/.test(id) ? 'leg' : /^(shoulder|elbow|wrist)/.test(id) ? 'arm' : 'rest';
  for (let z = 0; z < nz; z++)
    for (let y = 0; y < ny; y++)
      for (let x = 0; x < nx; x++) {
        if (distanceAtCell(grid, x, y, z) >= 0) continue;
        const at = (k: 0 | 1 | 2, i: number) => grid.origin[k] + (i + 0.5) * step;
        field.at(at(0, x), at(1, y), at(2, z), everyone);
        sums[partOf(f.masses[field.owner]!.joint)] += step ** 3 * 1000;
      }
  near(sums.leg + sums.arm + sums.rest, weight / density, 0.03);
  near(sums.leg, 2 * weight * (0.0145 / 1.1 + 0.0465 / 1.09 + 0.1 / 1.05), 0.05);
  near(sums.arm, 2 * weight * (0.006 / 1.16 + 0.016 / 1.13 + 0.028 / 1.07), 0.05);
  near(sums.rest, weight * (0.081 / 1.11 + 0.497 / 1.03), 0.05);
});

describe('it stands', () => {
  test.each(['standing', 'kneeling', 'striding', 'balancing', 'offering'])(
    '%s: on the ground and not in it',
    (stance) => {
      const f = form({ stance });
      const low = new DistanceField(f.masses).box().low[2];
      const bulge = max(...f.masses.map((m) => m.blend)) / 2;
      expect(low + bulge).toBeGreaterThan(-0.012);
      expect(low + bulge).toBeLessThan(0.03);
    },
  );
  test('knees bend back, elbows and hips forward', () => {
    const kneeling = form({ stance: 'kneeling' });
    expect(joint(kneeling, 'ankle-left')[1]).toBeGreaterThan(joint(kneeling, 'knee-left')[1] + 0.3);
    const offering = form({ stance: 'offering' });
    expect(joint(offering, 'wrist-left')[1]).toBeLessThan(joint(offering, 'elbow-left')[1] - 0.1);
    expect(joint(offering, 'elbow-left')[1]).toBeLessThan(joint(offering, 'shoulder-left')[1] - 0.1);
    // On one leg the other is behind, and the trunk leans forward over the foot.
    const balancing = form({ stance: 'balancing' });
    expect(joint(balancing, 'ankle-right')[1]).toBeGreaterThan(joint(balancing, 'ankle-left')[1] + 0.3);
    expect(joint(balancing, 'crown')[1]).toBeLessThan(joint(balancing, 'pelvis')[1]);
  });
  test('striding, both feet come down to the ground', () => {
    const f = form({ stance: 'striding' });
    for (const side of ['left', 'right']) {
      const lowest = Math.min(
        ...f.masses
          .filter((m) => m.region === 'feet' && m.id.endsWith(side))
          .map((m) => new DistanceField([m]).box().low[2]),
      );
      expect(lowest).toBeLessThan(0.03);
    }
  });
});

describe('measures', () => {
  const reach = (f: ResolvedForm, pattern: RegExp, k: 0 | 1 | 2, end: 'low' | 'high') =>
    f.masses
      .filter((m) => pattern.test(m.id))
      .map((m) => new DistanceField([m]).box()[end][k])
      .reduce((a, b) => (end === 'low' ? Math.min(a, b) : max(a, b)));
  test('a belly stands out in front and moves no shoulder', () => {
    const [plain, stout] = [form(), form({ belly: 0.1 })];
    expect(reach(plain, /^belly/, 1, 'low') - reach(stout, /^belly/, 1, 'low')).toBeCloseTo(0.1, 6);
    expect(joint(stout, 'shoulder-left')).toEqual(joint(plain, 'shoulder-left'));
  });
  test('broader shoulders take the arms along and leave the hips', () => {
    const [plain, broad] = [form(), form({ shoulders: 1.2 })];
    const out = joint(broad, 'shoulder-left')[0] - joint(plain, 'shoulder-left')[0];
    expect(out).toBeGreaterThan(0.02);
    expect(joint(broad, 'wrist-left')[0] - joint(plain, 'wrist-left')[0]).toBeCloseTo(out, 9);
    expect(joint(broad, 'hip-left')).toEqual(joint(plain, 'hip-left'));
  });
  test('a shod foot has no toes, and a sole under it', () => {
    const [bare, shod] = [form(), form({ feet: 'shod' })];
    expect(bare.masses.filter((m) => /^toe-/.test(m.id)).length).toBe(10);
    expect(shod.masses.some((m) => /^toe-/.test(m.id))).toBe(false);
    expect(reach(shod, /^sole/, 2, 'low')).toBeCloseTo(0, 3);
  });
  test('a child of five and a half heads: its head is as large a part as it should be', () => {
    const f = form({ height: 1.16, build: 'child', face: 'child' });
    const high = reach(f, /^cranium/, 2, 'high') - reach(f, /^chin$/, 2, 'low');
    near(high, 1.16 / 5.5, 0.02);
  });
  test('every type is a set of measures that the form takes', () => {
    const figure = findStartForm('figure')!;
    for (const t of figure.types!) expect([t.id, figure.schema.safeParse(t.measures).success]).toEqual([t.id, true]);
  });
});
