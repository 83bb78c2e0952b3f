import { jobFacts, regionFacts } from '../../../tests/support/job-facts';
import { planPartSchema } from '../document';
import {
  bareAtFirst,
  helpWanted,
  holdOf,
  holdWords,
  nightsToLay,
  planWorkshop,
  stepsOf,
  type BuildPlan,
  type JobFacts,
} from '.';

/** How a piece in the hand is held: looked up again from when each place was laid and how long it stays wet. */
const hour = 3600;
const evenings = {
  id: 'ada',
  name: 'Ada',
  hours: [{ days: [0, 1, 2, 3, 4, 5, 6], from: 1140, until: 1290 }],
  away: [],
  other: [],
};
function planOf(held: boolean): BuildPlan {
  const regions = ['foot', 'chest', 'head'].map((id, i) => regionFacts(id, 0.1 + 0.2 * i));
  const plan = planWorkshop({
    builds: [
      {
        id: 'b',
        name: 'Bust',
        steps: stepsOf(jobFacts({ held, regions })),
        plan: planPartSchema.parse({}),
        hoursPerWeek: 10,
        deadline: null,
        happened: [],
      },
    ],
    workshop: { zone: 'UTC', people: [evenings] },
    paces: {},
    now: Date.parse('2026-12-07T09:00:00Z') / 1000,
  });
  return plan!.builds[0]!;
}

test('a dry place for every sitting, or one that is left bare until its clay comes', () => {
  const plan = planOf(false);
  let seen = 0,
    bare = 0;
  for (const s of plan.steps.filter((x) => x.holds !== null))
    for (const span of s.sittings) {
      const hold = holdOf(plan, s, span)!;
      expect(hold.zone).not.toBe(s.region);
      const laid = plan.steps.find((x) => x.kind === 'clay' && x.region === hold.zone)!;
      // Ten hours after a place is laid a hand may be put on it.
      const wet = laid.from < span.until && laid.until + 10 * hour > span.from;
      expect(wet).toBe(false);
      expect(hold.bare).toBe(laid.from >= span.until);
      seen++;
      if (hold.bare) bare++;
    }
  expect(seen).toBeGreaterThan(12);
  expect(bare).toBeGreaterThan(0);
  const first = plan.steps.find((s) => s.kind === 'clay')!;
  expect(holdWords(holdOf(plan, first, first.sittings[0]!)!)).toBe('hold it by the bare head');
});

test('what was held before is held on to; on a board no hand is asked; where all is wet there is none', () => {
  const plan = planOf(false);
  const last = [...plan.steps].reverse().find((s) => s.region === 'foot' && s.holds)!;
  const span = last.sittings[0]!;
  expect(holdOf(plan, last, span)?.zone).toBe('chest');
  expect(holdOf(plan, last, span, { zone: 'head', name: 'head', bare: false, lies: false })?.zone).toBe('head');
  expect(holdWords(holdOf(plan, last, span)!)).toBe('hold it by the chest');
  const range = { low: Infinity, nominal: Infinity, high: Infinity };
  const wet = ['chest', 'head'].map((zone) => ({ zone, name: zone, from: 0, until: range }));
  expect(holdOf({ ...plan, wet }, last, span)).toBeNull();
  const board = planOf(true);
  for (const s of board.steps) for (const x of s.sittings) expect(holdOf(board, s, x)).toBeNull();
});

test('nights from the first clay to the last: no fewer in the hands than on a stand; the first place left bare is told', () => {
  const inHands = planOf(false),
    stands = planOf(true);
  for (const plan of [inHands, stands]) {
    const laid = plan.steps.filter((s) => s.kind === 'clay');
    const dates = (t: number) => new Date(t * 1000).toISOString().slice(0, 10);
    const first = dates(Math.min(...laid.map((s) => s.from))),
      last = dates(Math.max(...laid.map((s) => s.until)));
    expect(nightsToLay(plan).nights).toBe((Date.parse(last) - Date.parse(first)) / 86_400_000);
    expect([...nightsToLay(plan).order].sort()).toEqual(['chest', 'foot', 'head']);
  }
  expect(nightsToLay(inHands).nights).toBeGreaterThanOrEqual(nightsToLay(stands).nights);
  expect(bareAtFirst(inHands)).toBe('head');
  expect(bareAtFirst(stands)).toBeNull();
});

test('who is wanted by the hour: only where two lift and one works alone', () => {
  const plan = planOf(true);
  expect(helpWanted(plan)).toEqual([]);
  const lift = plan.steps.find((s) => s.id === 'fit')!;
  const heavy = { ...plan, steps: plan.steps.map((s) => (s.id === 'fit' ? { ...s, people: 2 } : s)) };
  expect(helpWanted(heavy).map((w) => [w.step.id, w.from, w.until])).toEqual(
    lift.sittings.map((x) => ['fit', x.from, x.until]),
  );
  const both = { ...heavy, steps: heavy.steps.map((s) => (s.id === 'fit' ? { ...s, crew: ['ada', 'ben'] } : s)) };
  expect(helpWanted(both)).toEqual([]);
  expect(helpWanted({ ...heavy, steps: heavy.steps.map((s) => ({ ...s, done: true })) })).toEqual([]);
});

test('the place that is left bare is laid last, where nothing else holds the piece', () => {
  const laid = (more: Partial<JobFacts>) =>
    stepsOf(
      jobFacts({ regions: [regionFacts('chest', 0.2), regionFacts('neck', 0.4), regionFacts('head', 0.6)], ...more }),
    )
      .filter((s) => s.kind === 'clay')
      .map((s) => s.region);
  expect(laid({ held: false })).toEqual(['chest', 'neck', 'head']);
  expect(laid({ held: false, bareFirst: 'chest' })).toEqual(['neck', 'head', 'chest']);
  expect(laid({ held: true, bareFirst: 'chest' })).toEqual(['chest', 'neck', 'head']);
  expect(holdWords({ zone: 'chest', name: 'chest', bare: true, lies: true })).toBe(
    'let it lie on the bare chest, on foam or a bag of sand',
  );
});

test('no piece is held by an ear, unless there is nothing else', () => {
  const ear = regionFacts('ear', 0.7, { area: 0.01 });
  const chest = regionFacts('chest', 0.2),
    head = regionFacts('head', 0.6);
  const holds = (more: Partial<JobFacts>, region: string) =>
    stepsOf(jobFacts({ held: false, ...more })).find((s) => s.kind === 'clay' && s.region === region)!.holds;
  expect(holds({ regions: [chest, head, ear] }, 'chest')).toEqual(['head']);
  expect(holds({ regions: [chest, ear] }, 'chest')).toEqual(['ear']);
  expect(holds({ regions: [chest, ear], lies: true }, 'chest')).toEqual([]);
});
