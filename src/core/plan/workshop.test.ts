import { jobFacts, regionFacts } from '../../../tests/support/job-facts';
import { classSetOf } from '../../../tests/support/class-set';
import { planPartSchema } from '../document';
import { peopleFor, planWorkshop, problemOf, stepsOf, type BuildPlan, type BuildToPlan, type PlanInputs } from '.';

/** Who does what when: people, their pace, what is done, what was put somewhere, and what a plan says of each step. */
const hour = 3600,
  day = 86400;
/** Monday, 23 November 2026, midnight UTC. */
const monday = Date.parse('2026-11-23T00:00:00Z') / 1000;
const evenings = [{ days: [0, 1, 2, 3, 4, 5, 6], from: 18 * 60, until: 22 * 60 }];
const person = (id: string, more = {}) => ({ id, name: id, hours: evenings, away: [], other: [], ...more });
const build = (more: Partial<BuildToPlan> = {}, part: object = {}): BuildToPlan => ({
  id: 'b',
  name: 'Bust',
  steps: stepsOf(jobFacts()),
  plan: planPartSchema.parse(part),
  hoursPerWeek: 10,
  deadline: null,
  happened: [],
  ...more,
});
const inputs = (
  builds: readonly BuildToPlan[],
  people = [person('ada')],
  more: Partial<PlanInputs> = {},
): PlanInputs => ({
  builds,
  workshop: { zone: 'UTC', people },
  paces: {},
  now: monday,
  ...more,
});
const planOf = (b: BuildToPlan, people?: ReturnType<typeof person>[], more: Partial<PlanInputs> = {}): BuildPlan =>
  planWorkshop(inputs([b], people, more))!.builds.find((x) => x.id === b.id)!;
const step = (plan: BuildPlan, id: string) => plan.steps.find((s) => s.id === id)!;

describe('people', () => {
  const crew = (i: PlanInputs, id = 'b') => peopleFor(i).crewOf.get(id);
  test('those a build names; else the first of the workshop; else one pair of hands with the longest week', () => {
    expect(crew(inputs([build({}, { people: ['ben'] })], [person('ada'), person('ben')]))).toEqual(['ben']);
    expect(crew(inputs([build()], [person('ada'), person('ben')]))).toEqual(['ada']);
    // One who has left is not waited for.
    expect(crew(inputs([build({}, { people: ['cy'] })], [person('ada')]))).toEqual(['ada']);
    const nobody = inputs([build(), build({ id: 'c', hoursPerWeek: 20 })], []);
    expect(crew(nobody)).toEqual(['me']);
    const { people } = peopleFor(nobody);
    expect(people).toHaveLength(1);
    const week = people[0]!.hours.reduce((sum, h) => sum + (h.days.length * (h.until - h.from)) / 60, 0);
    expect(week).toBeCloseTo(20, 0);
  });
  test('a class has a hand for each group; sessions go round, and are shared where there are fewer', () => {
    const sessions = (groups: number) =>
      peopleFor(inputs([build({ plan: planPartSchema.parse({ classSet: classSetOf({ groups }) }) })]))
        .people.filter((p) => p.id.startsWith('b-group-'))
        .map((p) => p.hours.map((h) => h.days[0]));
    expect(sessions(1)).toEqual([[0, 2, 4]]);
    expect(sessions(2)).toEqual([[0, 4], [2]]);
    expect(sessions(3)).toEqual([[0], [2], [4]]);
    expect(sessions(4)).toEqual([[0], [2], [4], [0]]);
  });
});

describe('the tasks of a problem', () => {
  const task = (i: PlanInputs, id: string, end: 'low' | 'nominal' | 'high' = 'nominal') =>
    problemOf(i, end).problem.tasks.find((t) => t.id === `b:${id}`)!;
  const hours = stepsOf(jobFacts()).find((s) => s.id === 'sand/head')!.hours;

  test('at the maker’s pace, but for hours they have set themselves; to the minute', () => {
    const slow = { sanding: { factor: 2, spread: 0.1, steps: 9 } };
    expect(task(inputs([build()]), 'sand/head').work).toBe(Math.round(hours * 60) * 60);
    expect(task(inputs([build()], undefined, { paces: slow }), 'sand/head').work).toBe(Math.round(hours * 120) * 60);
    const own = build({}, { steps: { 'sand/head': { hours: 3 } } });
    expect(task(inputs([own], undefined, { paces: slow }), 'sand/head').work).toBe(3 * hour);
  });
  test('done it is where it was, put somewhere it is there, and nothing else is before now', () => {
    const at = '2026-11-25T19:00:00Z';
    const b = build(
      { happened: [{ step: 'set-out', from: monday - 5 * hour, until: monday - 4 * hour }] },
      { steps: { armature: { at } } },
    );
    expect(task(inputs([b]), 'set-out').fixed).toEqual({ from: monday - 5 * hour, until: monday - 4 * hour });
    expect(task(inputs([b]), 'armature').fixed).toEqual({
      from: Date.parse(at) / 1000,
      until: Date.parse(at) / 1000 + 2 * hour,
    });
    expect(task(inputs([b]), 'bulk')).toMatchObject({ fixed: null, notBefore: monday });
    // Done counts more than where it was to be.
    const done = { ...b, happened: [...b.happened, { step: 'armature', from: monday - hour, until: monday }] };
    expect(task(inputs([done]), 'armature').fixed?.until).toBe(monday);
  });
  test('early and late its waits are those of the ends', () => {
    const range = { low: 40 * hour, nominal: 48 * hour, high: 90 * hour };
    const head = regionFacts('head', 0.6);
    const ranged = build({
      steps: stepsOf(jobFacts({ regions: [{ ...head, coats: [{ ...head.coats[0]!, through: range, hold: range }] }] })),
    });
    for (const end of ['low', 'nominal', 'high'] as const) {
      expect(task(inputs([ranged]), 'refine/head', end).after[0]?.least).toBe(range[end]);
      expect(task(inputs([ranged]), 'lay/head/1', end).wets[0]?.after).toBe(range[end]);
    }
  });
  test('two people are any two there are, and all there are where there are fewer', () => {
    const heavy = build({ steps: stepsOf(jobFacts({ heavy: true })) }, { people: ['ada', 'ben', 'cy'] });
    const three = [person('ada'), person('ben'), person('cy')];
    expect(task(inputs([heavy], three), 'fit').crews).toEqual([
      ['ada', 'ben'],
      ['ada', 'cy'],
      ['ben', 'cy'],
    ]);
    expect(task(inputs([build({ steps: stepsOf(jobFacts({ heavy: true })) })]), 'fit').crews).toEqual([['ada']]);
  });
  test('what takes an hour or less is not broken off', () => {
    for (const t of problemOf(inputs([build()])).problem.tasks)
      if (t.work <= hour) expect([t.id, t.whole]).toEqual([t.id, true]);
    expect(task(inputs([build()]), 'armature').whole).toBe(false);
  });
  test('a deadline is the end of its day on the workshop’s clock', () => {
    const due = (zone: string) =>
      problemOf({ ...inputs([build({ deadline: '2026-12-10' })]), workshop: { zone, people: [person('ada')] } }).problem
        .due['b'];
    expect(due('UTC')).toBe(Date.parse('2026-12-11T00:00:00Z') / 1000);
    expect(due('Europe/Rome')).toBe(Date.parse('2026-12-10T23:00:00Z') / 1000);
  });
});

describe('the plan', () => {
  test('work that takes more than an evening goes on the next, in sittings within the hours there are', () => {
    const long = planOf(build({}, { steps: { armature: { hours: 6 } } }));
    const { sittings } = step(long, 'armature');
    expect(sittings.length).toBe(2);
    expect(sittings.reduce((sum, s) => sum + s.until - s.from, 0)).toBe(6 * hour);
    for (const s of sittings) {
      const from = (s.from - monday) % day;
      expect(from).toBeGreaterThanOrEqual(18 * hour);
      expect(from + s.until - s.from).toBeLessThanOrEqual(22 * hour);
    }
  });
  test('clay on a region is laid in one go: where the evening is too short for what is left of it, on the next', () => {
    // Half an hour is left of the first evening once the core is filled; laying the chest takes two and a half hours.
    const plan = planOf(
      build(
        {},
        {
          steps: {
            'set-out': { hours: 1 },
            armature: { hours: 2 },
            bulk: { hours: 0.5 },
            'lay/chest/1': { hours: 2.5 },
          },
        },
      ),
    );
    const lay = step(plan, 'lay/chest/1');
    expect(lay.takes).toBeCloseTo(2.5, 6);
    expect((step(plan, 'bulk').until - monday) / hour).toBeCloseTo(21.5, 6);
    expect(lay.sittings).toHaveLength(1);
    expect(new Set(plan.steps.filter((s) => s.kind === 'clay').map((s) => s.sittings.length))).toEqual(new Set([1]));
    expect(lay.from - lay.until).toBeCloseTo(-lay.takes * hour, 6);
  });
  test('what was done, or put where nobody is there, is one sitting as it stands', () => {
    const at = '2026-11-24T06:00:00Z';
    const moved = planOf(
      build(
        { happened: [{ step: 'set-out', from: monday - 20 * hour, until: monday - 18 * hour }] },
        { steps: { 'sand/head': { at } } },
      ),
    );
    expect(step(moved, 'set-out')).toMatchObject({
      done: true,
      pinned: false,
      sittings: [{ from: monday - 20 * hour, until: monday - 18 * hour }],
    });
    expect(step(moved, 'sand/head')).toMatchObject({ pinned: true, from: Date.parse(at) / 1000 });
    expect(step(moved, 'sand/head').sittings).toHaveLength(1);
  });
  test('a place is wet from when its clay goes on, by the step’s own range', () => {
    const head = regionFacts('head', 0.6);
    const hold = { low: 6 * hour, nominal: 10 * hour, high: 20 * hour };
    const plan = planOf(
      build({ steps: stepsOf(jobFacts({ regions: [{ ...head, coats: [{ ...head.coats[0]!, hold }] }] })) }),
    );
    const lay = step(plan, 'lay/head/1');
    expect(plan.wet).toEqual([
      {
        zone: 'head',
        name: 'head',
        from: lay.from,
        until: { low: lay.until + hold.low, nominal: lay.until + hold.nominal, high: lay.until + hold.high },
      },
    ]);
  });
  test('steps in the order they come; its finish is that of the last, between early and late', () => {
    const plan = planOf(build());
    plan.steps.slice(1).forEach((s, i) => expect(s.from).toBeGreaterThanOrEqual(plan.steps[i]!.from));
    expect(plan.finish.nominal).toBe(Math.max(...plan.steps.map((s) => s.until)));
    expect(plan.finish.low).toBeLessThanOrEqual(plan.finish.nominal);
    expect(plan.finish.high).toBeGreaterThanOrEqual(plan.finish.nominal);
    for (const s of plan.steps) expect([s.ends.low <= s.until, s.ends.high >= s.until]).toEqual([true, true]);
  });
  test('without a deadline nothing has a latest time; with one, the next step may wait until then', () => {
    const free = planOf(build());
    expect([free.due, free.beginBy, free.steps.every((s) => s.latest === null)]).toEqual([null, null, true]);
    const due = planOf(build({ deadline: '2026-12-20' }));
    expect(due.beginBy).toBe(Math.min(...due.steps.map((s) => s.latest!)));
    expect(due.beginBy).toBeGreaterThan(monday + 10 * day);
  });
  test('away, nothing is done; a day with other hours has those', () => {
    const away = person('ada', { away: [{ from: '2026-11-23', until: '2026-11-26' }] });
    expect(Math.min(...planOf(build(), [away]).steps.map((s) => s.from))).toBe(monday + 4 * day + 18 * hour);
    const early = person('ada', { other: [{ date: '2026-11-23', from: 8 * 60, until: 12 * 60 }] });
    expect(Math.min(...planOf(build(), [early]).steps.map((s) => s.from))).toBe(monday + 8 * hour);
  });
  test('changes that hold on to nothing are told, and the plan is made without them', () => {
    const plan = planOf(build({}, { steps: { 'sand/tail': { hours: 2 }, 'sand/head': { off: true } } }));
    expect(plan.lost).toEqual(['sand/tail']);
    expect(plan.steps.some((s) => s.id === 'sand/head')).toBe(false);
  });
  test('another build’s work keeps the hands busy, and its name out of this plan', () => {
    const two = planWorkshop(inputs([build(), build({ id: 'c', name: 'Mask' })]))!;
    expect(two.builds.map((b) => b.name)).toEqual(['Bust', 'Mask']);
    for (const b of two.builds) expect(b.steps.map((s) => s.id).every((id) => !id.includes(':'))).toBe(true);
    const all = two.builds.flatMap((b) => b.steps.flatMap((s) => s.sittings)).sort((x, y) => x.from - y.from);
    all.slice(1).forEach((s, i) => expect(s.from).toBeGreaterThanOrEqual(all[i]!.until - 1));
  });
});
