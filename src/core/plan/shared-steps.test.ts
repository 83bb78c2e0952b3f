import { jobFacts, regionFacts } from '../../../tests/support/job-facts';
import { planPartSchema } from '../document';
import { byTwo, earliestFinish, planWorkshop, stepsOf, type BuildToPlan, type Person, type PlanInputs } from '.';

/** Two at one piece: where they share a step, and that it is worth it. */
const hour = 3600;
const now = Date.parse('2026-12-07T09:00:00Z') / 1000;
const person = (id: string, from = 1140, until = 1320): Person => ({
  id,
  name: id,
  hours: [{ days: [0, 1, 2, 3, 4, 5, 6], from, until }],
  away: [],
  other: [],
});
const buildOf = (area: number, people: string[]): BuildToPlan => ({
  id: 'b',
  name: 'Giant',
  steps: stepsOf(jobFacts({ area, regions: [regionFacts('trunk', 0.4, { area })] })),
  plan: planPartSchema.parse({ people }),
  hoursPerWeek: 10,
  deadline: null,
  happened: [],
});
const inputs = (build: BuildToPlan, people = [person('ada'), person('ben')]): PlanInputs => ({
  builds: [build],
  workshop: { zone: 'UTC', people },
  paces: {},
  now,
});
const planOf = (given: PlanInputs) => planWorkshop(given, false)!.builds[0]!;

test('what is large enough is shared by two, in 0.55 of the hours, and the piece is ready sooner', () => {
  const two = planOf(inputs(buildOf(0.8, ['ada', 'ben']))),
    one = planOf(inputs(buildOf(0.8, ['ada'])));
  expect(two.finish.nominal).toBeLessThan(one.finish.nominal);
  expect(two.steps.flatMap((s) => s.clashes)).toEqual([]);
  const refining = two.steps.find((s) => s.kind === 'refining')!;
  expect([...refining.crew].sort()).toEqual(['ada', 'ben']);
  const worked = refining.sittings.reduce((sum, s) => sum + s.until - s.from, 0);
  expect(worked).toBeCloseTo(Math.round(refining.takes * byTwo * 60) * 60, 6);
  // Measuring and fitting are nothing two can share.
  for (const s of two.steps.filter((x) => !['bulk', 'clay', 'refining', 'sanding', 'detail'].includes(x.kind)))
    expect(s.crew).toHaveLength(1);
  expect(earliestFinish(inputs(buildOf(0.8, ['ada', 'ben'])), 'b')).toBe(two.finish.nominal);
});

test('nobody shares a small place, nor one who is alone at the piece', () => {
  for (const build of [buildOf(0.15, ['ada', 'ben']), buildOf(0.8, ['ada']), buildOf(0.8, [])])
    for (const s of planOf(inputs(build)).steps) expect(s.crew.length).toBeLessThan(2);
});

test('two who are never there together share nothing', () => {
  const build = buildOf(0.8, ['ada', 'ben']);
  const plan = planOf(inputs(build, [person('ada'), person('ben', 540, 720)]));
  for (const s of plan.steps) expect(s.crew.length).toBeLessThan(2);
  expect(plan.steps.every((s) => Number.isFinite(s.until))).toBe(true);
});

test('sharing is never later than each alone', () => {
  for (const area of [0.25, 0.4, 1.2, 3]) {
    const both = buildOf(area, ['ada', 'ben']);
    const apart = { ...both, steps: both.steps.map((s) => ({ ...s, shared: false })) };
    expect(earliestFinish(inputs(both), 'b')).toBeLessThanOrEqual(earliestFinish(inputs(apart), 'b') + hour / 60);
  }
});
