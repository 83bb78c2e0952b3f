import { asBriefed } from '../evaluate';
import { cutList, pathLength } from '../armature';
import type { Build } from '../document';
import { stocks } from '../catalogue';
import { startForms } from '../form';
import { schools, startBuild } from '../school';
import { setOutWell } from '../../../tests/support/set-out';
import { resolveForm } from '../form';
import { Evaluator } from '../evaluate';

/** Every school on every form it suits, at the form's usual size, and at three times that for what is made large. */
function builds(): [string, Build][] {
  return startForms.flatMap((form) => {
    const made = [form.usualSize, form.usualSize * 3].flatMap((size, i) => {
      const build = startBuild(form.name, '2026-12-01', form.kind, Math.min(5, size));
      return build.ok ? [{ build: build.value, large: i === 1 }] : [];
    });
    return made.flatMap(({ build, large }) => {
      const resolved = resolveForm(build);
      if (!resolved.ok) throw new Error(resolved.message);
      return schools
        .filter((s) => s.fits(resolved.value) && (!large || s.kind === 'steel-mesh-foam'))
        .map((s): [string, Build] => [
          `${form.kind}, ${s.kind}${large ? ', large' : ''}`,
          { ...build, armature: { ...build.armature, school: { kind: s.kind, parameters: {} } } },
        ]);
    });
  });
}

const numbersIn = (value: unknown): number[] =>
  typeof value === 'number'
    ? [value]
    : value !== null && typeof value === 'object'
      ? Object.values(value).flatMap(numbersIn)
      : [];

test('every school suits some form', () => {
  const used = new Set(builds().map(([, b]) => b.armature.school.kind));
  expect(schools.map((s) => s.kind).filter((k) => !used.has(k))).toEqual([]);
});

describe.each(builds())('%s', (_, build) => {
  const { armature, depthAt, form } = setOutWell(build);
  const evaluator = new Evaluator();

  test('all finite, every bone between two joints, every mass hung, every member along bones there are', () => {
    expect(numbersIn(armature).every(Number.isFinite)).toBe(true);
    const joints = new Set(armature.nodes.map((n) => n.id)),
      bones = new Set(armature.bones.map((b) => b.id));
    expect(joints.size).toBe(armature.nodes.length);
    expect(bones.size).toBe(armature.bones.length);
    expect(armature.bones.filter((b) => !joints.has(b.from) || !joints.has(b.to)).map((b) => b.id)).toEqual([]);
    expect(armature.members.flatMap((m) => m.bones).filter((b) => !bones.has(b))).toEqual([]);
    const hung = new Set(armature.bones.flatMap((b) => b.masses));
    expect(form.masses.filter((m) => !hung.has(m.id)).map((m) => m.id)).toEqual([]);
  });

  test('once a member has gone into the form it stays in, unless it is meant to stand bare', () => {
    const extent = Math.max(...form.masses.map((m) => Math.abs(m.at[2]))) || 1;
    const piece = evaluator.piece(asBriefed(build));
    if (!piece.ok) throw new Error(piece.message);
    const out = piece.value.armature.members
      .filter((m) => !m.bare)
      .flatMap((m) => {
        const depths = m.path.map(depthAt);
        const first = depths.findIndex((d) => d > 0),
          last = depths.length - 1 - [...depths].reverse().findIndex((d) => d > 0);
        if (first < 0) return [];
        const worst = Math.min(...depths.slice(first, last + 1));
        return worst < -0.01 * extent ? [`${m.id} ${(worst * 1000).toFixed(1)} mm`] : [];
      });
    expect(out).toEqual([]);
  });

  test('the cut list adds up', () => {
    for (const cut of cutList(armature.members, stocks)) {
      const member = armature.members.find((m) => m.id === cut.member);
      expect(cut.netLength).toBeCloseTo(pathLength(member?.path ?? []), 9);
      expect(cut.cutLength).toBeCloseTo(cut.netLength + cut.allowances.reduce((s, a) => s + a.length, 0), 9);
      expect(cut.cutLength).toBeGreaterThan(0);
    }
  });

  test('a whole report: finite, and the ledger is the voxels times their densities', () => {
    const report = evaluator.evaluate(asBriefed(build));
    if (!report.ok) throw new Error(`${report.path}: ${report.message}`);
    const piece = evaluator.piece(asBriefed(build));
    if (!piece.ok) throw new Error(piece.message);
    const { ledger, members, summary } = report.value;
    expect(numbersIn(ledger).every(Number.isFinite)).toBe(true);
    expect(numbersIn(members).every((v) => !Number.isNaN(v))).toBe(true);
    expect(Number.isFinite(summary.utilisation) && Number.isFinite(summary.tipAngle)).toBe(true);
    const of = (kind: string) => ledger.items.filter((i) => i.kind === kind).reduce((s, i) => s + i.wet, 0);
    const { perMass } = piece.value.volumes;
    const clay = perMass.reduce((s, m) => s + m.clay, 0),
      bulk = perMass.reduce((s, m) => s + m.bulk, 0);
    const near = (a: number, b: number) => expect(Math.abs(a - b)).toBeLessThanOrEqual(0.005 * Math.max(b, 1e-6));
    near(of('clay'), clay * piece.value.mixed.wetDensity);
    near(of('bulk'), piece.value.face.solid ? 0 : bulk * piece.value.bulk.density);
    near(
      of('wrap'),
      piece.value.face.solid ? 0 : perMass.reduce((s, m) => s + (m.clay > 0 ? m.area : 0), 0) * piece.value.wrapPerArea,
    );
  });
});
