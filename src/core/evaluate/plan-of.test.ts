import { asBriefed } from '.';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import { applyEdit, planPartSchema, type Build } from '../document';
import { clashesOf, crewHours, planWorkshop, problemOf, stepsOf, type BuildToPlan, type PlanInputs } from '../plan';
import type { LogEntry } from '../log';
import { Evaluator, type Question } from '.';
import { jobFacts } from '../plan';
import { needsOf } from '../sheet';
import { waysToBeSooner } from '../improve';

const evaluator = new Evaluator();
const hour = 3600,
  day = 86400;
const now = Date.parse('2026-11-30T12:00:00Z') / 1000;
const demo: readonly Build[] = [
  lamplighter('2026-12-01', '2026-12-24'),
  ...otherDemoBuilds('2026-12-01', '2026-12-30'),
];
const named = (name: string) => demo.find((b) => b.name === name)!;

function input(build: Build, log: readonly LogEntry[] = [], ranges = false): BuildToPlan {
  const made = evaluator.toPlan({ build, log, now }, { id: 'b', ranges });
  if (!made.ok) throw new Error(`${made.path} ${made.message}`);
  return made.value;
}

const around = (own: BuildToPlan): PlanInputs => ({
  builds: [own],
  workshop: { zone: 'Europe/Rome', people: [] },
  paces: {},
  now,
});
const entry = (kind: LogEntry['kind'], at: number, data: Record<string, unknown>): LogEntry =>
  ({ id: `${kind}-${at}`, kind, at: new Date(at * 1000).toISOString(), data, corrects: null }) as unknown as LogEntry;
/** Ways to be sooner of one build by itself. */
const waysOf = (build: Build, log: readonly LogEntry[]) => {
  const question: Question = { build, log, now };
  const surroundings = { workshop: { zone: 'Europe/Rome', people: [] }, paces: {}, others: [] };
  const options = { id: 'b', surroundings };
  const answer = evaluator.judge(question, options);
  if (!answer.ok) throw new Error(answer.message);
  return [...waysToBeSooner(evaluator, question, answer.value, surroundings, options)].filter((w) => w !== null);
};

test('a piece is planned once, also where it stands among the others', () => {
  const [own, other] = [input(named('Whelk pauldron')), { ...input(named('Acrobats')), id: 'other' }];
  const ready = (others: readonly BuildToPlan[]) => {
    const surroundings = { workshop: { zone: 'Europe/Rome', people: [] }, paces: {}, others };
    const made = evaluator.evaluate({ build: named('Whelk pauldron'), log: [], now }, { id: 'b', surroundings });
    if (!made.ok) throw new Error(made.message);
    return [made.value.plan?.finish.nominal, made.value.workshop?.builds.map((b) => b.id)];
  };
  expect(ready([own, other])).toEqual(ready([other]));
  expect(ready([other])[1]).toEqual(['b', 'other']);
});

test.each(demo.map((b) => [b.name, b] as const))(
  '%s: every step it needs, in a plan that keeps what it has to keep to',
  (_, build) => {
    const own = input(build, [], true);
    const ids = own.steps.map((s) => s.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toContain('set-out');
    // A soft master is taken apart once its mould is there; everything else is set up.
    expect(ids.includes('fit') !== ids.includes('reclaim')).toBe(true);
    for (const s of own.steps) {
      expect(s.hours).toBeGreaterThan(0);
      for (const w of s.after) {
        expect(ids).toContain(w.task);
        expect(w.least.low).toBeLessThanOrEqual(w.least.nominal);
        expect(w.least.high).toBeGreaterThanOrEqual(w.least.nominal);
        if (w.most) expect(w.most.nominal).toBeGreaterThanOrEqual(w.least.nominal);
      }
    }
    const plan = planWorkshop(around(own))?.builds[0];
    expect(Number.isFinite(plan?.finish.nominal)).toBe(true);
    // All of its clay is laid.
    const report = evaluator.evaluate(asBriefed(build));
    const laid = own.steps.reduce((sum, s) => sum + s.clay, 0);
    expect(report.ok && Math.abs(laid / report.value.ledger.clayWet - 1)).toBeLessThan(0.02);
    // What it breaks, if anything, is told on the step itself; a sitting too short for a large piece is the only thing.
    for (const s of plan?.steps ?? []) for (const c of s.clashes) expect(c.kind).toBe('one-sitting');
  },
);

test('waits are the drying’s own: the Lamplighter’s head is refined when it is dry through', () => {
  const build = named('The Lamplighter');
  const report = evaluator.evaluate(asBriefed(build));
  if (!report.ok) throw new Error(report.message);
  const head = report.value.regions.find((r) => r.id === 'head');
  const wait = input(build)
    .steps.find((s) => s.id === 'refine/head')
    ?.after.find((w) => w.task === 'lay/head/1');
  expect(wait?.least.nominal).toBeCloseTo((head?.throughDry ?? NaN) - (head?.lastStart ?? 0), 3);
  const ranged = input(build, [], true).steps.find((s) => s.id === 'refine/head')?.after[0]?.least;
  expect(ranged?.low).toBeLessThan(wait?.least.nominal ?? 0);
  expect(ranged?.high).toBeGreaterThan(wait?.least.nominal ?? Infinity);
});

test('pieces of each kind have the steps of their kind', () => {
  const ids = (name: string) => input(named(name)).steps.map((s) => s.id);
  expect(ids('Coral candelabrum')).toContain('join-sections');
  expect(ids('Harbour master')).toEqual(expect.arrayContaining(['lift', 'uncover/1']));
  expect(ids('Walrus')).toContain('warm');
  expect(ids('Walrus').some((i) => i.startsWith('sand/'))).toBe(false);
  expect(ids('Otter mask').some((i) => i.startsWith('sand/'))).toBe(false);
  expect(ids('Acrobats')).toEqual(expect.arrayContaining(['lay/head/1', 'lay/head/2']));
  const held = (b: Build) => input(b).steps.find((s) => s.id === 'lay/head/1')?.holds;
  expect(held(named('Acrobats'))).toBeNull();
  expect(held({ ...named('Acrobats'), plan: planPartSchema.parse({ held: 'hands' }) })?.length).toBeGreaterThan(3);
  expect(held(named('Whelk pauldron'))).toBeUndefined();
  expect(input(named('Whelk pauldron')).steps.find((s) => s.id.startsWith('lay/'))?.holds).not.toBeNull();
  expect(held({ ...named('Acrobats'), plan: planPartSchema.parse({ held: 'skewer' }) })).toBeNull();
});

test('the lift-off window of the Harbour master lies between its skin setting and its going hard', () => {
  const lift = input(named('Harbour master')).steps.find((s) => s.id === 'lift');
  const window = lift?.after.find((w) => w.most !== null);
  expect(window?.task).toBe('lay/head/1');
  expect((window?.least.nominal ?? 0) / hour).toBeCloseTo(14, 6);
  expect(window?.most?.nominal ?? 0).toBeGreaterThan(14 * hour);
});

test('weighings move the waits: lighter than forecast, they shorten; heavier, they lengthen', () => {
  const build = named('The Lamplighter');
  const start = Date.parse('2026-12-01T09:00:00Z') / 1000;
  const through = (log: readonly LogEntry[]) =>
    input(build, log).steps.find((s) => s.id === 'refine/chest')?.after[0]?.least.nominal ?? NaN;
  const base = through([]);
  const weighed = (perDay: number) =>
    [0.05, 1, 2, 3].map((d) => entry('weigh-in', start + d * day, { gross: 6.35 - perDay * d + 1, tare: 1 }));
  expect(through([entry('note', start, { text: 'on' }), ...weighed(0.2)])).toBeGreaterThan(base * 1.1);
  expect(through([entry('note', start, { text: 'on' }), ...weighed(0.55)])).toBeLessThan(base * 0.95);
  // One weighing alone, just after the clay, hardly says how fast.
  expect(Math.abs(through(weighed(0.2).slice(0, 1)) / base - 1)).toBeLessThan(0.05);
});

test.each(['The Lamplighter', 'Coral candelabrum'])('every way to be sooner gives %s what it promised', (name) => {
  const build = named(name),
    own = input(build);
  const inputs = around(own);
  const finishOf = (b: Build): number => {
    const { problem } = problemOf({ ...inputs, builds: [input(b)] });
    const made = planWorkshop({ ...inputs, builds: [input(b)] })?.builds[0];
    expect(clashesOf(problem, [], crewHours(problem)).every((c) => c.kind === 'never')).toBe(true);
    return made?.finish.nominal ?? Infinity;
  };
  const now0 = finishOf(build);
  const ways = waysOf(build, []);
  expect(ways.length).toBeGreaterThan(1);
  for (const w of ways) {
    expect(w.gains).toBeGreaterThan(0);
    if (!w.edit) continue;
    const edited = applyEdit(build, w.edit);
    if (!edited.ok) throw new Error(edited.message);
    const then = finishOf(edited.value);
    // Planned as the plan on screen is: what comes is what was promised.
    expect(then).toBe(w.finish);
    expect(then).toBeLessThan(now0);
  }
});

test('what is laid is not made thinner nor of another clay', () => {
  const build = named('The Lamplighter');
  const log = [entry('step', now, { step: 'lay/chest/1', name: 'Lay', kind: 'clay', usual: 1 })];
  const ids = waysOf(build, log).map((w) => w.id);
  expect(ids.some((i) => i === 'thinner' || i.startsWith('clay/'))).toBe(false);
});

test('a class set needs for all, with its spares', () => {
  const acrobats = named('Acrobats');
  const one = needsOf(evaluator, 'b', { ...acrobats, plan: planPartSchema.parse({}) }),
    all = needsOf(evaluator, 'b', acrobats);
  if (!one.ok || !all.ok) throw new Error('no needs');
  const clay = (n: typeof one.value) => n.find((x) => x.item === 'clay/paper-clay')?.amount ?? NaN;
  // 24 and one more of every twelve.
  expect(clay(all.value) / clay(one.value)).toBeCloseTo(26, 6);
  expect(all.value.every((n) => n.amount > 0)).toBe(true);
});

test('facts say nothing the report does not: areas and weights add up', () => {
  const build = named('Coral candelabrum');
  const piece = evaluator.piece(asBriefed(build)),
    report = evaluator.evaluate(asBriefed(build));
  if (!piece.ok || !report.ok) throw new Error('no report');
  const facts = jobFacts(piece.value, report.value);
  expect(facts.regions.reduce((sum, r) => sum + r.area, 0)).toBeCloseTo(
    report.value.regions.reduce((sum, r) => sum + r.area, 0),
    9,
  );
  expect(facts.regions.reduce((sum, r) => sum + r.bulkShare, 0)).toBeCloseTo(1, 9);
  expect(facts.regions.map((r) => r.height)).toEqual([...facts.regions.map((r) => r.height)].sort((a, b) => a - b));
  expect(stepsOf(facts).map((s) => s.id)).toEqual(input(build).steps.map((s) => s.id));
});

test('props go when the armature carries it or the clay is hard; where it never does, and in clay that stays soft, they stay', () => {
  const letGoOf = (name: string, letGo: object) => {
    const build = named(name);
    const piece = evaluator.piece(asBriefed(build)),
      report = evaluator.evaluate(asBriefed(build));
    if (!piece.ok || !report.ok) throw new Error('no report');
    return jobFacts(piece.value, { ...report.value, letGo: { ...report.value.letGo, ...letGo } }).letGo;
  };
  const lamp = (letGo: object) => letGoOf('The Lamplighter', letGo);
  expect(lamp({ when: 'never', after: null })).toBeNull();
  expect(lamp({ when: 'after', after: 7200, sags: 0 })).toMatchObject({ when: 'after', after: 7200 });
  expect(lamp({ when: 'after', after: 7200, sags: 0.05 })).toMatchObject({ when: 'hard' });
  // Borne from the first: a prop is there to keep its place until it is hard, and not for a quarter of an hour.
  expect(lamp({ when: 'at-once', after: 0, sags: 0 })).toMatchObject({ when: 'hard' });
  expect(letGoOf('Walrus', { when: 'at-once', after: 0, sags: 0 })).toBeNull();
});

test('what sets is worked while it works: the minutes that are left once it is mixed and placed', () => {
  const build = named('Whelk pauldron');
  const piece = evaluator.piece(asBriefed(build)),
    report = evaluator.evaluate(asBriefed(build));
  if (!piece.ok || !report.ok) throw new Error('no report');
  const cure = report.value.cure!;
  const { soft, batch, hoursPerKg } = jobFacts(piece.value, report.value);
  // From the first knead: kneaded, placed, and smoothed in what is left of its time.
  expect(batch!.kneading + batch!.mass * hoursPerKg * 3600 + soft!).toBeCloseTo(cure.workingMinutes * 60, 6);
});

test('a deadline is the end of its day on the workshop’s clock, and no step is put before now', () => {
  const { problem } = problemOf(around(input(named('The Lamplighter'))));
  // Rome is an hour ahead of UTC in December.
  expect(problem.due['b']).toBe(Date.parse('2026-12-24T23:00:00Z') / 1000);
  const plan = planWorkshop(around(input(named('The Lamplighter'))))!.builds[0]!;
  expect(Math.min(...plan.steps.map((s) => s.from))).toBeGreaterThanOrEqual(now);
  expect(problem.tasks.every((t) => t.notBefore === now)).toBe(true);
});
