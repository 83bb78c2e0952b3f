import { jobFacts, regionFacts } from '../../../tests/support/job-facts';
import { planPartSchema } from '../document';
import { breaksAt, planWorkshop, stepsOf, type BuildToPlan, type WorkshopPlan } from '.';

const hour = 3600,
  day = 86400;
/** Tuesday, 1 December 2026, midnight UTC. */
const tuesday = Date.parse('2026-12-01T00:00:00Z') / 1000;
const every = {
  id: 'ada',
  name: 'Ada',
  hours: [{ days: [0, 1, 2, 3, 4, 5, 6], from: 1080, until: 1320 }],
  away: [],
  other: [],
};
const build: BuildToPlan = {
  id: 'b',
  name: 'Bust',
  steps: stepsOf(jobFacts({ regions: [regionFacts('chest', 0.2), regionFacts('head', 0.6)] })),
  plan: planPartSchema.parse({}),
  hoursPerWeek: 8,
  deadline: null,
  happened: [],
};
const whole = (b: BuildToPlan = build): WorkshopPlan =>
  planWorkshop({ builds: [b], workshop: { zone: 'UTC', people: [every] }, paces: {}, now: tuesday })!;
const withPlan = (steps: object) => whole({ ...build, plan: planPartSchema.parse({ steps }) });
const kinds = (plan: WorkshopPlan, id: string, at: number) =>
  breaksAt(plan.builds[0]!, plan, id, at).map((c) => c.kind);
const evening = (t: number) => tuesday + Math.ceil((t - tuesday - 18 * hour) / day) * day + 18 * hour;

test('where it stands it breaks nothing; nor at any later hour there is', () => {
  const plan = whole();
  for (const s of plan.builds[0]!.steps) expect([s.id, kinds(plan, s.id, s.from)]).toEqual([s.id, []]);
  const last = plan.builds[0]!.steps.findLast((s) => s.id === 'fit')!;
  expect(kinds(plan, 'fit', evening(last.from + 3 * day))).toEqual([]);
});

test('told as the plan tells it once it is there: too soon, outside the hours', () => {
  const plan = whole();
  const sand = plan.builds[0]!.steps.find((s) => s.id.startsWith('sand/'))!;
  const early = evening(plan.builds[0]!.steps.find((s) => s.id.startsWith('lay/'))!.until);
  const told = breaksAt(plan.builds[0]!, plan, sand.id, early);
  expect(told.map((c) => c.kind)).toContain('too-soon');
  // The plan made with it put there says the same of it.
  const put = withPlan({ [sand.id]: { at: new Date(early * 1000).toISOString() } });
  const there = put.builds[0]!.steps.find((s) => s.id === sand.id)!;
  expect(told.filter((c) => c.kind === 'too-soon').map((c) => c.other)).toEqual(
    there.clashes.filter((c) => c.kind === 'too-soon').map((c) => c.other),
  );
  expect(kinds(plan, 'fit', evening(plan.builds[0]!.finish.nominal) + 8 * hour)).toEqual(['hours']);
});

test('hands that are at work the maker put there', () => {
  const at = evening(tuesday + 40 * day);
  const free = whole();
  const detail = free.builds[0]!.steps.find((s) => s.id.startsWith('detail/'))!;
  expect(kinds(free, 'photograph', at)).toEqual([]);
  const put = withPlan({ [detail.id]: { at: new Date(at * 1000).toISOString() } });
  // What follows comes after it; begun at the same hour, the same hands would be at both.
  expect(kinds(put, 'sand/chest', at)).toContain('person');
});

test('a step that nobody put anywhere makes room', () => {
  const plan = whole();
  const own = plan.builds[0]!;
  const carving = own.steps.filter((s) => s.id.startsWith('refine/'));
  expect(carving.length).toBeGreaterThan(1);
  // At the hour of the other one, whose hands are the same.
  expect(kinds(plan, carving[1]!.id, carving[0]!.from)).not.toContain('person');
});
