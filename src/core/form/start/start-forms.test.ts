import { asBriefed } from '../../evaluate';
import { findStartForm, resolveForm, startForms, twinId } from '..';
import { startBuild } from '../../school';
import type { Build } from '../../document';
import { Evaluator } from '../../evaluate';

/** Litres at life size, and kg of clay wet, set down from arithmetic on the measures before the forms were ever run. */
const bounds: Readonly<Record<string, { litres: readonly [number, number]; clay: readonly [number, number] }>> = {
  bust: { litres: [12, 25], clay: [2, 8] },
  head: { litres: [4.5, 7.5], clay: [1, 2.5] },
  hand: { litres: [0.25, 0.5], clay: [0.25, 0.6] },
  mask: { litres: [5, 10], clay: [1.2, 4.5] },
  figure: { litres: [52, 85], clay: [8, 40] },
  'four-legged': { litres: [22, 55], clay: [4, 25] },
  'bird-like': { litres: [4, 11], clay: [0.8, 5] },
  branching: { litres: [0.8, 4], clay: [0.5, 4] },
  relief: { litres: [3, 9], clay: [2, 7] },
  ringed: { litres: [4, 16], clay: [2, 10] },
  'long-neck': { litres: [120, 240], clay: [30, 120] },
  'worn-shell': { litres: [1.5, 5], clay: [0.4, 1.4] },
  'found-object': { litres: [1.1, 2], clay: [0.25, 0.8] },
  free: { litres: [4.1, 4.25], clay: [0.6, 1.3] },
};

const evaluator = new Evaluator();
function at(kind: string, size: number, change: (b: Build) => Build = (b) => b) {
  const made = startBuild('A piece', '2026-12-01', kind, size);
  if (!made.ok) throw new Error(made.message);
  const build = change(made.value);
  const report = evaluator.evaluate(asBriefed(build));
  const piece = evaluator.piece(asBriefed(build));
  if (!report.ok) throw new Error(`${kind}: ${report.path} ${report.message}`);
  if (!piece.ok) throw new Error(piece.message);
  return { build, report: report.value, piece: piece.value };
}
const measured = (kind: string, measures: Build['form']['start']['measures'], size = 1) =>
  at(kind, size, (b) => ({ ...b, form: { ...b.form, start: { ...b.form.start, measures } } }));

test('every start form has its bounds', () =>
  expect(Object.keys(bounds).sort()).toEqual(startForms.map((s) => s.kind).sort()));

describe.each(startForms.map((s) => [s.kind]))('%s', (kind) => {
  const want = bounds[kind]!;
  const full = at(kind, 1);
  test('volume and weight at life size', () => {
    const litres = full.report.size.volume * 1000;
    expect(litres).toBeGreaterThan(want.litres[0]);
    expect(litres).toBeLessThan(want.litres[1]);
    expect(full.report.ledger.clayWet).toBeGreaterThan(want.clay[0]);
    expect(full.report.ledger.clayWet).toBeLessThan(want.clay[1]);
    expect(full.report.size.volumeError / full.report.size.volume).toBeLessThan(0.012);
  });
  test('at the size a newcomer would start with, everything is a figure', () => {
    const { report, piece } = at(kind, findStartForm(kind)?.usualSize ?? 1);
    for (const v of [report.summary.wet, report.summary.dry, report.summary.tipAngle, report.summary.utilisation])
      expect(Number.isFinite(v)).toBe(true);
    expect(report.members.length).toBeGreaterThan(0);
    expect(piece.armature.nodes.some((n) => n.held)).toBe(true);
    expect(report.regions.every((r) => r.area > 0)).toBe(true);
  });
  test('its right is the reflection of its left', () => {
    const { masses, twinOf } = full.piece.form;
    for (const [right, left] of twinOf) {
      const a = masses.find((m) => m.id === left),
        b = masses.find((m) => m.id === right);
      expect(right).toBe(twinId(left));
      expect(b?.at[0]).toBeCloseTo(-(a?.at[0] ?? NaN), 9);
      expect(b?.at[2]).toBeCloseTo(a?.at[2] ?? NaN, 9);
    }
  });
  test('double the size, eight times the volume', () => {
    const form = resolveForm({
      ...full.build,
      form: { ...full.build.form, start: { ...full.build.form.start, size: 2 } },
    });
    if (!form.ok) throw new Error(form.message);
    full.piece.form.masses.forEach((m, i) => {
      for (const k of [0, 1, 2] as const) expect(form.value.masses[i]?.at[k]).toBeCloseTo(2 * m.at[k], 9);
    });
  });
  test('every measure at both its ends makes a form, or says why not', () => {
    const asked = Object.entries(findStartForm(kind)?.measures ?? {});
    for (const [at, [key, m]] of asked.entries()) {
      const ends =
        m.kind === 'choice' ? m.options.map((o) => o.id) : m.kind === 'yes-no' ? [true, false] : [m.low, m.high];
      // Each makes a form and an armature; that of the last measure is worked out whole.
      for (const end of ends) {
        const build = { ...full.build.form.start, size: 0.5, measures: { [key]: end } };
        const piece = evaluator.piece(asBriefed({ ...full.build, form: { ...full.build.form, start: build } }));
        expect([key, end, piece.ok && piece.value.volumes.outerVolume > 0]).toEqual([key, end, true]);
      }
      if (at < asked.length - 1) continue;
      const { report } = measured(kind, { [key]: ends[ends.length - 1]! }, 0.5);
      expect([key, Number.isFinite(report.summary.wet) && report.size.volume > 0]).toEqual([key, true]);
    }
  });
});

describe('a figure', () => {
  const litres = (measures: Build['form']['start']['measures']) =>
    measured('figure', measures).report.size.volume * 1000;
  test('a child of 1.1 m', () => {
    const v = litres({ height: 1.1, build: 'child' });
    expect(v).toBeGreaterThan(12);
    expect(v).toBeLessThan(26);
  });
  test.each(['kneeling', 'reaching'])('%s keeps its volume within 2 %% and its mirror', (stance) => {
    const standing = measured('figure', {}),
      other = measured('figure', { stance });
    expect(Math.abs(other.report.size.volume / standing.report.size.volume - 1)).toBeLessThan(0.02);
    const { masses, twinOf } = other.piece.form;
    expect(twinOf.size).toBeGreaterThan(5);
    for (const [right, left] of twinOf) {
      const a = masses.find((m) => m.id === left),
        b = masses.find((m) => m.id === right);
      expect(b?.at).toEqual([
        expect.closeTo(-(a?.at[0] ?? NaN), 9),
        expect.closeTo(a?.at[1] ?? NaN, 9),
        expect.closeTo(a?.at[2] ?? NaN, 9),
      ]);
    }
    expect(Math.abs(other.piece.extent.low[2] - standing.piece.extent.low[2])).toBeLessThan(standing.piece.grid.step);
  });
  test('kneeling, it is lower by about the shins', () => {
    const drop =
      measured('figure', {}).report.size.height - measured('figure', { stance: 'kneeling' }).report.size.height;
    expect(drop).toBeGreaterThan(0.25);
    expect(drop).toBeLessThan(0.5);
  });
});

test('clay over an object stands outside it; clay on a bust goes inward', () => {
  const thicker = (kind: string) => (coat: number) =>
    at(kind, 1, (b) => ({ ...b, regions: { ...b.regions, everywhere: { coats: [coat] } } })).report;
  const bottle = thicker('found-object'),
    free = thicker('free');
  expect(bottle(0.02).size.volume).toBeGreaterThan(bottle(0.005).size.volume * 1.2);
  const inside = (r: ReturnType<typeof bottle>) => r.regions.reduce((sum, x) => sum + x.bulkVolume, 0);
  expect(inside(bottle(0.02)) / inside(bottle(0.005))).toBeCloseTo(1, 1);
  expect(free(0.02).size.volume / free(0.005).size.volume).toBeCloseTo(1, 3);
});

test('a shell is its clay through and through, as thick as its coats', () => {
  const { report } = measured('worn-shell', { ridges: 0, spike: 0, rim: 0, breadth: 0.2, depth: 0.2, height: 0.1 });
  // Half a ball of 100 mm less half one of 96 mm.
  const analytic = (2 / 3) * Math.PI * (0.1 ** 3 - 0.096 ** 3);
  const of = (id: string) => report.regions.find((r) => r.id === id);
  expect(Math.abs((of('shell')?.clayVolume ?? 0) / analytic - 1)).toBeLessThan(0.012);
  expect(of('shell')?.bulkVolume).toBe(0);
  // The wearer's shoulder under it has no clay on it.
  expect(of('wearer')?.clayVolume ?? 0).toBe(0);
});
