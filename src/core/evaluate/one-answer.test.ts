import { asBriefed, Evaluator, type Report } from '.';
import { clays } from '../catalogue';
import { applyEdit, type Build, type Change } from '../document';
import { resolveForm, startForms } from '../form';
import { seeded } from '../quantity';
import { schools, startBuild } from '../school';
import { clayAt, weighings } from '../../../tests/support/weighed-log';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';

/** The same question has the same answer, however it is come by. */
const demos = [lamplighter('2026-12-01', '2026-12-24'), ...otherDemoBuilds('2026-12-01', '2026-12-24')];
const named = (name: string): Build => demos.find((b) => b.name === name)!;
const told = (build: Build, evaluator = new Evaluator()): Report => {
  const r = evaluator.evaluate(asBriefed(build), { ranges: true });
  if (!r.ok) throw new Error(`${build.name}: ${r.path} ${r.message}`);
  return r.value;
};
const withChanges = (build: Build, changes: readonly Change[]): Build => {
  const next = applyEdit(build, { label: 'test', changes });
  if (!next.ok) throw new Error(`${next.path}: ${next.message}`);
  return next.value;
};

test.each(demos.map((b) => [b.name, b] as const))('%s in its clay copied as one’s own is told the same', (_, build) => {
  const clay = build.materials.values.clays[build.brief.clay] ?? clays.get(build.brief.clay)!;
  const own: Build = {
    ...build,
    brief: { ...build.brief, clay: 'my-own' },
    materials: {
      ...build.materials,
      values: {
        ...build.materials.values,
        clays: { ...build.materials.values.clays, 'my-own': { ...clay, id: 'my-own' } },
      },
    },
  };
  const plain = (r: Report) =>
    JSON.stringify({ findings: r.findings, dates: r.dates, summary: r.summary, plan: r.plan }).replaceAll(
      'my-own',
      build.brief.clay,
    );
  expect(plain(told(own))).toBe(plain(told(build)));
});

test('an evaluator that has answered a hundred things answers as one that has answered none', () => {
  const warm = new Evaluator();
  const steps: readonly Change[][] = [
    [{ path: ['room', 'relativeHumidity'], value: 0.7 }],
    [{ path: ['regions', 'everywhere', 'coats'], value: [0.006, 0.006] }],
    [{ path: ['brief', 'clay'], value: 'earthen-air-dry' }],
    [{ path: ['form', 'start', 'size'], value: 0.6 }],
    [{ path: ['armature', 'school', 'parameters', 'frameSize'], value: '3mm' }],
    [{ path: ['brief', 'situation'], value: 'moved' }],
  ];
  let build = lamplighter('2026-12-01', '2026-12-24');
  for (const changes of steps) {
    build = withChanges(build, changes);
    // The build stands in the report as it is; what is compared is what was worked out of it.
    expect(JSON.stringify(told(build, warm))).toBe(JSON.stringify(told(build)));
    expect(JSON.stringify(told(named('Harbour master'), warm).dates)).toBe(
      JSON.stringify(told(named('Harbour master')).dates),
    );
  }
});

/** Edits that any build takes, drawn at random; some fall back on what was there a moment ago. */
function anyEdit(random: () => number): Change[] {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  return pick<() => Change[]>([
    () => [{ path: ['room', 'relativeHumidity'], value: pick([0.4, 0.55, 0.7]) }],
    () => [{ path: ['room', 'airSpeed'], value: pick([0.1, 1.5]) }],
    () => [{ path: ['regions', 'everywhere', 'coats'], value: pick([[0.004], [0.006], [0.004, 0.004]]) }],
    () => [{ path: ['brief', 'clay'], value: pick(['paper-clay', 'earthen-air-dry', 'epoxy-clay', 'oil-medium']) }],
    () => [{ path: ['brief', 'situation'], value: pick(['bench', 'moved', 'worn']) }],
    () => [{ path: ['stages', 'apart'], value: pick([true, false]) }],
    () => [{ path: ['stages', 'lift'], value: pick([null, { when: 'leather-hard', hours: 0 }]) }],
    () => [{ path: ['materials', 'waterWorkedIn'], value: pick([0, 0.05]) }],
    () => [{ path: ['armature', 'mount'], value: pick([{ kind: 'stands' }, { kind: 'wall' }]) }],
    () => [{ path: ['brief', 'deadline'], value: pick([null, '2026-12-24']) }],
  ])();
}

/** One evaluator over a chain of edits of many builds, against a fresh one for each; equal to the last bit. */
const everySchool = process.env['SOSTEGNO_EVERY_SCHOOL'] === 'yes';
test.each(startForms.map((f) => [f.kind, f.usualSize] as const))(
  '%s, edited at random: a warm evaluator says what a fresh one does',
  (kind, size) => {
    const made = startBuild('piece', '2026-12-01', kind, size);
    if (!made.ok) throw new Error(made.message);
    const form = resolveForm(made.value);
    if (!form.ok) throw new Error(form.message);
    const fitting = schools.filter((s) => s.fits(form.value)).map((s) => s.kind);
    const warm = new Evaluator();
    const random = seeded(startForms.findIndex((f) => f.kind === kind) + 1);
    let asked = 0;
    for (const school of everySchool ? fitting : fitting.slice(0, 1)) {
      let build: Build = {
        ...made.value,
        armature: { ...made.value.armature, school: { kind: school, parameters: {} } },
      };
      for (let i = 0; i < (everySchool ? 6 : 4); i++) {
        const next = applyEdit(build, { label: 'any', changes: anyEdit(random) });
        if (!next.ok) continue;
        build = next.value;
        const [a, b] = [warm, new Evaluator()].map((e) =>
          JSON.stringify(e.evaluate(asBriefed(build), { ranges: true })),
        );
        expect([kind, school, i, a === b]).toEqual([kind, school, i, true]);
        asked += 1;
      }
    }
    expect(asked).toBeGreaterThan(everySchool ? 5 * fitting.length : 2);
  },
);

describe('two dates', () => {
  test('clay that dries has both, and is never ready before it is dry through', () => {
    for (const name of ['The Lamplighter', 'Coral candelabrum', 'Harbour master', 'Acrobats']) {
      const { dryThrough, ready } = told(named(name)).dates;
      for (const range of [dryThrough!, ready!]) {
        expect(range.earliest <= range.likely && range.likely <= range.latest).toBe(true);
      }
      expect(ready!.likely >= dryThrough!.likely.slice(0, 10)).toBe(true);
    }
  });
  test('clay that sets, bakes or stays as it is has no day on which it is dry, and is ready when its plan ends', () => {
    for (const name of ['Walrus', 'Whelk pauldron', 'The net that failed']) {
      const r = told(named(name));
      expect(r.dates.dryThrough).toBeNull();
      const last = r.plan!.steps.reduce((m, s) => Math.max(m, s.until), 0);
      expect(r.dates.ready!.likely).toBe(new Date(last * 1000).toISOString().slice(0, 10));
    }
    const baked = told(
      withChanges(lamplighter('2026-12-01', null), [{ path: ['brief', 'clay'], value: 'oven-polymer' }]),
    );
    expect(baked.dates.dryThrough).toBeNull();
  });
});

test('what weighings taught of one clay is not held against another that is only tried', () => {
  const build = lamplighter('2026-12-01', null);
  const evaluator = new Evaluator();
  const log = weighings(evaluator, build, [1, 12, 24, 36, 48], 0.6);
  const now = clayAt(build) + 49 * 3600;
  const known = evaluator.knownOf({ build, log, now }, undefined);
  if (!known.ok) throw new Error(known.message);
  const { history } = known.value;
  const factors = (changes: readonly Change[]) => {
    const piece = evaluator.piece({ build: withChanges(build, changes), log, now }, { known: history });
    if (!piece.ok) throw new Error(piece.message);
    return piece.value.factors;
  };
  expect(factors([]).evaporation).toBeLessThan(0.9);
  expect(factors([{ path: ['room', 'airSpeed'], value: 1.5 }])).toEqual(factors([]));
  expect(factors([{ path: ['brief', 'clay'], value: 'earthen-air-dry' }])).toEqual({
    evaporation: 1,
    diffusion: 1,
    covariance: null,
  });
});
