import {
  buildWithScan,
  fourLegs,
  headAndShoulders,
  longEars,
  oneBall,
  scanOf,
  thinEars,
} from '../../../tests/support/scans';
import { bundleAcross, sectionAcross } from '../armature';
import type { Build } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { findLimbs, resolveForm } from '../form';
import { mix } from '../quantity';
import { bringIn, schools, startBuild } from '.';

/** Every way of building on meshes that came in with limbs. */
const scans = { longEars, headAndShoulders, fourLegs, oneBall };
const formOf = (b: Build) => {
  const form = resolveForm(b);
  if (!form.ok) throw new Error(form.message);
  return form.value;
};
const under = (b: Build, kind: string): Build => ({
  ...b,
  armature: { ...b.armature, school: { kind, parameters: {} } },
  regions: { ...b.regions, everywhere: { coats: [0.005] } },
});
const evaluator = new Evaluator();
const judged = (b: Build) => {
  const out = evaluator.evaluate(asBriefed(b));
  if (!out.ok) throw new Error(`${out.path}: ${out.message}`);
  return out.value;
};
const pieceOf = (b: Build) => {
  const out = evaluator.piece(asBriefed(b));
  if (!out.ok) throw new Error(`${out.path}: ${out.message}`);
  return out.value;
};

describe.each(Object.entries(scans))('%s', (_, masses) => {
  const build = buildWithScan(scanOf(masses));
  const fitting = schools.filter((s) => s.fits(formOf(build))).map((s) => s.kind);
  test.each(fitting)('is worked out as %s, its clay all counted, and nothing sound hangs on nothing', (kind) => {
    const piece = pieceOf(under(build, kind));
    const clay = piece.volumes.perMass.reduce((sum, m) => sum + m.clay, 0);
    expect(clay).toBeGreaterThan(1e-4);
    expect(piece.form.regions.every((r) => r !== 'mesh')).toBe(true);
    const load = judged(under(build, kind)).findings.filter((f) => f.station === 'load');
    expect(load.length).toBeGreaterThan(0);
  });
});

test.each([
  ['longEars', 'wire-figure'],
  ['headAndShoulders', 'wire-figure'],
  ['headAndShoulders', 'stuffed'],
  ['fourLegs', 'wire-figure'],
] as const)('%s as %s: every wire runs inside, and all of it is held', (which, kind) => {
  const b = under(buildWithScan(scanOf(scans[which])), kind);
  const { armature, field, stockOf } = pieceOf(b);
  const all = field.all();
  for (const m of armature.members) {
    const { section } = stockOf(m.stock)!.sizes.find((s) => s.id === m.size)!;
    const half = bundleAcross(sectionAcross(section), m.strands) / 2;
    for (let i = 1; i < m.path.length; i++)
      for (const t of [0.25, 0.5, 0.75]) {
        const p = mix(m.path[i - 1]!, m.path[i]!, t);
        // The upright and a leg leave it where they stand.
        if (p[2] > 0.03) expect(-field.at(...p, all)).toBeGreaterThan(half);
      }
  }
  expect(judged(b).findings.filter((f) => f.id.startsWith('unsupported') && f.status === 'fails')).toEqual([]);
});

test('a wire is thinner where a limb leaves less room, and stops short of its end sooner than show', () => {
  const { armature, cover } = pieceOf(under(buildWithScan(scanOf(thinEars)), 'wire-figure'));
  const ears = armature.members.filter((m) => m.name.includes('top'));
  const trunk = armature.members.find((m) => m.name.includes('body'))!;
  expect(ears).toHaveLength(2);
  for (const ear of ears)
    expect(parseFloat(ear.size) * ear.strands).toBeLessThan(parseFloat(trunk.size) * trunk.strands);
  expect(cover.every((c) => c.least > 0)).toBe(true);
});

describe('which way of building a mesh begins with', () => {
  const begun = (kind: string) => {
    const b = startBuild('x', '2026-12-01', kind, 0.5);
    if (!b.ok) throw new Error(b.message);
    return b.value;
  };
  const changes = (b: Build, masses: Parameters<typeof scanOf>[0], limbs = true) => {
    const shape = scanOf(masses);
    const made = bringIn(b, { shape, limbs: limbs ? findLimbs(shape) : null, name: 's', role: 'face', alone: true })!;
    return new Map(made.edit.changes.map((c) => [c.path.join('.'), c.value]));
  };
  test('a head on a neck a stuffed frame, limbs wire, a lump a post; what was chosen stays', () => {
    expect(changes(begun('free'), headAndShoulders).get('armature.school')).toEqual({
      kind: 'stuffed',
      parameters: {},
    });
    expect(changes(begun('free'), longEars).has('armature.school')).toBe(false);
    expect(changes(begun('head'), longEars).get('armature.school')).toEqual({ kind: 'wire-figure', parameters: {} });
    expect(changes(begun('free'), oneBall).get('armature.school')).toEqual({ kind: 'object-core', parameters: {} });
    const chosen = under(begun('free'), 'jointed');
    expect(changes(chosen, longEars).has('armature.school')).toBe(false);
  });
  test('at half of life size it is kept twice as large, its joints too; what was there is hidden', () => {
    const made = changes(begun('free'), longEars);
    const mass = made.get('form.added.0') as Build['form']['added'][number];
    const shape = scanOf(longEars);
    expect(mass.shape.kind === 'sampled' && mass.shape.step / shape.step).toBeCloseTo(2, 9);
    const limbs = findLimbs(shape)!;
    expect(mass.shape.kind === 'sampled' && mass.shape.limbs![1]!.at[2] / limbs[1]!.at[2]).toBeCloseTo(2, 9);
    expect(made.get('form.edits.lump')).toEqual({ hidden: true });
  });
  test('without limbs the armature stays as it was', () => {
    expect([...changes(begun('head'), longEars, false).keys()].some((k) => k.startsWith('armature'))).toBe(false);
  });
});

test('a post comes up under the thickest of a mesh, not under the middle of its box', () => {
  const piece = pieceOf(under(buildWithScan(scanOf(longEars)), 'object-core'));
  const post = piece.armature.members.find((m) => m.name === 'post')!;
  const body = piece.form.skeleton.joints.find((j) => j.name === 'middle of lower body')!;
  const [x, y] = post.path[0]!;
  expect(Math.hypot(x - body.at[0], y - body.at[1])).toBeLessThan(0.002);
  expect(
    judged(under(buildWithScan(scanOf(longEars)), 'object-core')).findings.filter(
      (f) => f.id.startsWith('cover') && f.status === 'fails',
    ),
  ).toEqual([]);
});

test('a bust whose masses are hidden lends a mesh neither its head nor its shoulders', () => {
  const form = formOf(buildWithScan(scanOf(longEars), true, 'bust'));
  expect(form.bust).toBeNull();
  expect(form.head).toBeNull();
  const head = formOf(buildWithScan(scanOf(headAndShoulders), true, 'bust')).head!;
  expect(head.crown).toBeGreaterThan(0.38);
  expect(head.chin).toBeGreaterThan(0.16);
  expect(head.chin).toBeLessThan(0.26);
  expect(head.crown - head.chin).toBeCloseTo(head.height, 9);
});
