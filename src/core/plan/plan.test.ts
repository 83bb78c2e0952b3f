import { jobFacts, regionFacts } from '../../../tests/support/job-facts';
import { planTask } from '../../../tests/support/plan-task';
import { planPartSchema } from '../document';
import type { Range } from '../quantity';
import {
  clashSentence,
  decidingSentence,
  latestPlan,
  mirrored,
  nextStep,
  cardFor,
  paceOf,
  planVerdict,
  planWorkshop,
  problemOf,
  schedule,
  stepsOf,
  tailsOf,
  whatToLeaveOut,
  withChanges,
  clashesOf,
  crewHours,
  type BuildToPlan,
  type JobFacts,
  type PlanInputs,
  type PlanProblem,
  type PlanTask,
  type RegionFacts,
} from '.';

const hour = 3600,
  day = 86400;
/** Monday, 23 November 2026, midnight UTC. */
const monday = Date.parse('2026-11-23T00:00:00Z') / 1000;
const range = (h: number, spread = 1.2): Range => ({
  low: (h / spread) * hour,
  nominal: h * hour,
  high: h * spread * hour,
});

const coat = {
  stage: 1,
  mass: 1.5,
  thickness: 0.01,
  smoothUntil: range(6),
  hold: range(40),
  through: range(90),
  steady: range(100),
  next: range(90),
};
const region = (id: string, height: number, more: Partial<RegionFacts> = {}) =>
  regionFacts(id, height, { crack: 0.3, coats: [coat], ...more });
const facts = (more: Partial<JobFacts> = {}) =>
  jobFacts({ regions: [region('chest', 0.2), region('head', 0.6)], ...more });
const planned = (more: Partial<BuildToPlan> = {}, f = facts()): BuildToPlan => ({
  id: 'b',
  name: 'Bust',
  steps: stepsOf(f),
  plan: planPartSchema.parse({}),
  hoursPerWeek: 10,
  deadline: null,
  happened: [],
  ...more,
});
const evenings = {
  id: 'ada',
  name: 'Ada',
  hours: [{ days: [0, 1, 2, 3, 4, 5, 6], from: 1080, until: 1320 }],
  away: [],
  other: [],
};
const inputs = (builds: readonly BuildToPlan[], people = [evenings]): PlanInputs => ({
  builds,
  workshop: { zone: 'UTC', people },
  paces: {},
  now: monday,
});

describe('steps of a job', () => {
  test('from the base up, each after what it waits for; every wait names a step there is', () => {
    const steps = stepsOf(
      facts({
        under: [{ id: 'sealing-primer', name: 'primer' }],
        over: [{ id: 'shellac', name: 'shellac' }],
        processes: ['spray-paint', 'silicone-addition'],
        props: 2,
        letGo: { when: 'after', after: 90 * hour, why: 'it carries itself' },
      }),
    );
    const ids = steps.map((s) => s.id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const s of steps) for (const w of s.after) expect(ids).toContain(w.task);
    expect(ids.indexOf('lay/chest/1')).toBeLessThan(ids.indexOf('lay/head/1'));
    expect(ids).toEqual(
      expect.arrayContaining([
        'ground/sealing-primer',
        'props',
        'props-away',
        'smooth/head',
        'refine/head',
        'sand/chest',
        'seal/shellac',
        'spray-paint/varnish',
        'silicone-addition/open',
        'fit',
      ]),
    );
    const lay = steps.find((s) => s.id === 'lay/chest/1');
    expect(lay?.after.find((w) => w.task === 'ground/sealing-primer')?.least.nominal).toBe(24 * hour);
    // 1.5 kg at 0.6 h a kg, and a tenth of an hour for laying out.
    expect(lay?.hours).toBeCloseTo(1.5 * 0.6 + 0.1, 9);
    expect(steps.find((s) => s.id === 'sand/head')?.needs).toContain('respirator');
  });

  test('what is seen least is missed least', () => {
    const steps = stepsOf(facts());
    const missed = (id: string) => steps.find((s) => s.id === id)?.missed ?? NaN;
    expect(missed('sand/chest')).toBeLessThan(missed('sand/head'));
    expect(missed('detail/chest')).toBeLessThan(missed('detail/head'));
    expect(missed('lay/head/1')).toBe(1);
  });

  test.each([
    [
      'sets',
      facts({ setting: 'sets', soft: 4800, cure: 24 * hour, batch: { mass: 0.25, kneading: 300 } }),
      ['smooth/head'],
      24,
    ],
    ['bakes', facts({ setting: 'bakes', bakes: [1800] }), ['bake/1', 'smooth/head'], 0],
    ['never', facts({ setting: 'never', warming: 3 * hour }), ['warm', 'smooth/head', 'refine/head'], 0],
    ['damp', facts({ setting: 'damp', workable: 20 * day }), ['smooth/head', 'refine/head'], 0],
  ] as const)('a clay that %s has its own steps and waits', (_, f, wanted, waits) => {
    const steps = stepsOf(f);
    for (const id of wanted) expect(steps.map((s) => s.id)).toContain(id);
    const refine = steps.find((s) => s.id === 'refine/head');
    expect((refine?.after[0]?.least.nominal ?? NaN) / hour).toBe(waits);
    expect(schedule(problemOf(inputs([planned({}, f)])).problem)?.kept).toBe(true);
  });

  test('a piece in the hand is worked on region by region, with a dry one to hold', () => {
    const free = stepsOf(facts({ held: true })),
      hands = stepsOf(facts({ held: false }));
    expect(free.every((s) => s.holds === null)).toBe(true);
    expect(hands.find((s) => s.id === 'lay/head/1')?.holds).toEqual(['chest']);
    const plan = planWorkshop(inputs([planned({}, facts({ held: false }))]));
    const own = plan?.builds[0];
    const at = (id: string) => own?.steps.find((s) => s.id === id);
    // The head is laid only when the chest can be held: forty hours after it was laid.
    expect((at('lay/head/1')?.from ?? 0) - (at('lay/chest/1')?.until ?? 0)).toBeGreaterThanOrEqual(40 * hour);
    expect(own?.steps.flatMap((s) => s.clashes)).toEqual([]);
  });

  test('one region in the hand has no place to hold: it is said, with what would help', () => {
    const own = planWorkshop(inputs([planned({}, facts({ held: false, regions: [region('head', 0.3)] }))]))?.builds[0];
    const clash = own?.steps.find((s) => s.id === 'lay/head/1')?.clashes.find((c) => c.kind === 'hold');
    expect(clash).toBeDefined();
    expect(own && clash ? clashSentence(own, clash) : '').toMatch(/stand or a skewer would help/);
  });
});

describe('a plan', () => {
  test('nights are for drying: waits run on, work keeps to the hours', () => {
    const own = planWorkshop(inputs([planned()]))?.builds[0];
    if (!own) throw new Error('no plan');
    for (const s of own.steps)
      for (const x of s.sittings) {
        const from = (x.from - monday) % day,
          until = (x.until - monday) % day;
        expect(from).toBeGreaterThanOrEqual(18 * hour);
        expect(until === 0 ? day : until).toBeLessThanOrEqual(22 * hour);
      }
    const at = (id: string) => own.steps.find((s) => s.id === id);
    expect((at('refine/chest')?.from ?? 0) - (at('lay/chest/1')?.until ?? 0)).toBeGreaterThanOrEqual(90 * hour);
    expect((at('smooth/head')?.from ?? 0) - (at('lay/head/1')?.until ?? 0)).toBeLessThanOrEqual(6 * hour);
    expect(own.finish.low).toBeLessThanOrEqual(own.finish.nominal);
    expect(own.finish.high).toBeGreaterThan(own.finish.low);
    expect(decidingSentence(own)).toMatch(/3\.8 days until the .+ is dry through/);
    expect(planVerdict(own, 'UTC', monday)).toMatchObject({
      status: 'sound',
      sentence: expect.stringMatching(/^Ready on /),
    });
  });

  test('what was done is a fact, and what follows waits from it', () => {
    const before = planWorkshop(inputs([planned()]))?.builds[0];
    const lay = monday + 6 * day;
    const happened = ['set-out', 'armature', 'bulk', 'lay/chest/1', 'smooth/chest', 'lay/head/1', 'smooth/head'].map(
      (step) => ({ step, from: lay - hour, until: lay }),
    );
    const after = planWorkshop({ ...inputs([planned({ happened })]), now: lay + hour })?.builds[0];
    expect(after?.steps.find((s) => s.id === 'refine/chest')?.from).toBeGreaterThanOrEqual(lay + 90 * hour);
    expect(after?.finish.nominal).not.toBe(before?.finish.nominal);
    expect(after?.steps.filter((s) => s.done)).toHaveLength(7);
  });

  test('a lift-off window that closed is shouted about; one that nobody is there for too', () => {
    const f = facts({ lift: { least: 10 * hour, most: 16 * hour } });
    const laid = monday + 19 * hour;
    const happened = ['set-out', 'armature', 'bulk', 'lay/chest/1', 'lay/head/1'].map((step) => ({
      step,
      from: laid - hour,
      until: laid,
    }));
    const missed = planWorkshop({ ...inputs([planned({ happened }, f)]), now: laid + 30 * hour })?.builds[0];
    if (!missed) throw new Error('no plan');
    expect(planVerdict(missed, 'UTC', laid + 30 * hour)).toMatchObject({
      status: 'fails',
      sentence: 'Too late: “Lift it off its form” had to be begun by Tue 24 Nov, 11:00.',
    });
    const ahead = planWorkshop({ ...inputs([planned({ happened }, f)]), now: laid + hour })?.builds[0];
    if (!ahead) throw new Error('no plan');
    expect(planVerdict(ahead, 'UTC', laid + hour).sentence).toMatch(
      /^Nobody is there in time: “Lift it off its form” has to be begun by Tue 24 Nov, 11:00/,
    );
    // With nothing laid yet, the plan lays it so that somebody is there.
    const morning = { ...evenings, hours: [...evenings.hours, { days: [5], from: 480, until: 1320 }] };
    const free = planWorkshop(inputs([planned({}, f)], [morning]))?.builds[0];
    expect(free?.steps.flatMap((s) => s.clashes)).toEqual([]);
    expect(free?.steps.find((s) => s.id === 'lift')?.sittings).toHaveLength(1);
  });

  test('put somewhere by the maker it stays there, and what it breaks is told', () => {
    const at = '2026-11-24T08:00:00Z';
    const own = planWorkshop(inputs([planned({ plan: planPartSchema.parse({ steps: { 'refine/head': { at } } }) })]))
      ?.builds[0];
    const moved = own?.steps.find((s) => s.id === 'refine/head');
    expect(moved?.from).toBe(Date.parse(at) / 1000);
    expect(moved?.pinned).toBe(true);
    expect(moved?.clashes.map((c) => c.kind).sort()).toEqual(['hours', 'too-soon']);
  });

  test('two builds share one pair of hands', () => {
    const plan = planWorkshop(inputs([planned(), planned({ id: 'c', name: 'Mask' })]));
    const spans = plan?.builds.flatMap((b) => b.steps.flatMap((s) => s.sittings)).sort((a, b) => a.from - b.from) ?? [];
    spans.forEach((s, i) => {
      if (i > 0) expect(s.from).toBeGreaterThanOrEqual((spans[i - 1] as { until: number }).until - 1);
    });
    const alone = planWorkshop(inputs([planned()]))?.builds[0]?.finish.nominal ?? 0;
    expect(Math.max(...(plan?.builds.map((b) => b.finish.nominal) ?? []))).toBeGreaterThan(alone);
  });

  test('steps of one’s own come between; left out, what waited goes through', () => {
    const part = planPartSchema.parse({
      own: [
        { id: 'photo', name: 'Photograph', hours: 0.5, after: [{ step: 'refine/head', least: 10 }], before: ['fit'] },
        { id: 'lost', name: 'Lost', after: [{ step: 'no-such' }] },
      ],
      steps: { 'sand/head': { off: true }, gone: { off: true } },
    });
    const changed = withChanges(stepsOf(facts()), part);
    expect(changed.lost).toEqual(['gone', 'no-such']);
    expect(changed.steps.find((s) => s.id === 'fit')?.after.map((w) => w.task)).toEqual(
      expect.arrayContaining(['own/photo', 'photograph']),
    );
    expect(changed.steps.some((s) => s.id === 'sand/head')).toBe(false);
    const own = planWorkshop(inputs([planned({ plan: part })]))?.builds[0];
    const at = (id: string) => own?.steps.find((s) => s.id === id);
    expect((at('own/photo')?.from ?? 0) - (at('refine/head')?.until ?? 0)).toBeGreaterThanOrEqual(10 * hour);
  });

  test('steps that wait for each other in a ring give no plan', () => {
    const part = planPartSchema.parse({
      own: [
        { id: 'a', name: 'A', after: [{ step: 'own/b' }] },
        { id: 'b', name: 'B', after: [{ step: 'own/a' }] },
      ],
    });
    expect(planWorkshop(inputs([planned({ plan: part })]))).toBeNull();
  });

  test('a class goes through it group by group, in its own sessions, at a learner’s pace', () => {
    const part = planPartSchema.parse({
      classSet: {
        people: 23,
        groups: 2,
        minutes: 90,
        pace: 2,
        sessions: [
          { day: 0, from: 900 },
          { day: 2, from: 900 },
        ],
      },
    });
    const own = planWorkshop(inputs([planned({ plan: part })]))?.builds[0];
    if (!own) throw new Error('no plan');
    expect(own.steps).toHaveLength(2 * stepsOf(facts()).length);
    for (const s of own.steps)
      for (const x of s.sittings) {
        const weekday = Math.floor((x.from - monday) / day) % 7;
        expect(weekday).toBe(s.id.startsWith('group-1/') ? 0 : 2);
        expect(x.until - x.from).toBeLessThanOrEqual(90 * 60);
      }
    const single = stepsOf(facts()).find((s) => s.id === 'armature')?.hours ?? 0;
    expect(own.steps.find((s) => s.id === 'group-2/armature')?.takes).toBeCloseTo(2 * single, 9);
  });

  test('late: what to leave out is what is missed least, no more than is needed, and it is then in time', () => {
    const all = planWorkshop(inputs([planned({ deadline: '2026-12-31' })]))?.builds[0]?.finish.nominal ?? 0;
    const deadline = new Date((all - day) * 1000).toISOString().slice(0, 10);
    const late = planned({ deadline });
    const own = planWorkshop(inputs([late]))?.builds[0];
    if (!own) throw new Error('no plan');
    const due = Date.parse(`${deadline}T24:00:00Z`) / 1000;
    if (own.finish.nominal <= due) throw new Error('the case is not late');
    const left = whatToLeaveOut(inputs([late]), 'b');
    if (!left) throw new Error('nothing to leave out');
    expect(left.finish).toBeLessThanOrEqual(due);
    const off = { steps: Object.fromEntries(left.steps.map((s) => [s.id, { off: true }])) };
    expect(
      planWorkshop(inputs([planned({ deadline, plan: planPartSchema.parse(off) })]))?.builds[0]?.finish.nominal,
    ).toBeLessThanOrEqual(due);
    expect(left.steps.every((s) => s.missed < 0.7)).toBe(true);
    expect(whatToLeaveOut(inputs([planned({ deadline: '2026-11-24' })]), 'b')).toBeNull();
  });

  test('backwards from the deadline nothing is begun after its latest time, and the plan still holds', () => {
    const own = planWorkshop(inputs([planned({ deadline: '2026-12-20' })]))?.builds[0];
    if (!own) throw new Error('no plan');
    const due = Date.parse('2026-12-21T00:00:00Z') / 1000;
    for (const s of own.steps) expect(s.latest ?? -1).toBeGreaterThanOrEqual(s.from);
    const { problem } = problemOf(inputs([planned({ deadline: '2026-12-20' })]));
    const latest = latestPlan(problem, due);
    if (!latest) throw new Error('no latest plan');
    expect(clashesOf(problem, latest, crewHours(problem))).toEqual([]);
    expect(Math.max(...latest.map((p) => p.until))).toBeLessThanOrEqual(due);
    expect(own.beginBy).toBeGreaterThan(monday + 10 * day);
  });

  test('backwards a hand finds a dry place too', () => {
    const { problem } = problemOf(
      inputs([
        planned(
          { deadline: '2027-01-20' },
          facts({ held: false, regions: [region('chest', 0.2), region('neck', 0.4), region('head', 0.6)] }),
        ),
      ]),
    );
    const latest = latestPlan(problem, Date.parse('2027-01-21T00:00:00Z') / 1000);
    expect(latest).not.toBeNull();
    expect(clashesOf(problem, latest ?? [], crewHours(problem))).toEqual([]);
  });

  test('turned round twice a problem is what it was', () => {
    const { problem } = problemOf(inputs([planned({}, facts({ held: false }))]));
    const twice = mirrored(mirrored(problem, 1e9), -problem.from);
    const bare = (p: PlanProblem) =>
      p.tasks.map((t: PlanTask) => ({
        id: t.id,
        wets: t.wets,
        after: [...t.after].sort((a, b) => (a.task < b.task ? -1 : 1)),
      }));
    expect(bare(twice)).toEqual(bare(problem));
    expect(twice.open).toEqual(problem.open);
  });

  test('the tail of a task is the longest way from it to the end', () => {
    const t = (id: string, work: number, after: readonly [string, number][]) =>
      planTask(id, after, { work: work * hour });
    const tails = tailsOf([
      t('a', 1, []),
      t('b', 2, [['a', 10]]),
      t('c', 5, [['a', 1]]),
      t('d', 1, [
        ['b', 0],
        ['c', 0],
      ]),
    ]);
    expect(['a', 'b', 'c', 'd'].map((id) => tails.get(id)! / hour)).toEqual([14, 3, 6, 1]);
  });

  test('the bench card has the day’s steps, the first one big', () => {
    const own = planWorkshop(inputs([planned()]))?.builds[0];
    if (!own) throw new Error('no plan');
    expect(nextStep(own, monday)?.id).toBe('set-out');
    const card = cardFor(own, 'UTC', monday);
    expect(card.date).toBe('2026-11-23');
    expect(card.steps.map((s) => s.id)).toEqual(expect.arrayContaining(['set-out', 'armature']));
    expect(cardFor(own, 'UTC', own.finish.nominal + day).steps).toEqual([]);
  });
});

test('pace: ten steps that took twice as long say nearly two, and how surely; one says little', () => {
  const ten = paceOf(Array.from({ length: 10 }, () => ({ kind: 'sanding' as const, usual: 1, took: 2 })));
  expect(ten.sanding?.factor).toBeGreaterThan(1.85);
  expect(ten.sanding?.spread).toBeLessThan(0.12);
  const one = paceOf([{ kind: 'sanding', usual: 1, took: 2 }]);
  // Precisions 4 and 8.16: exp(ln 2 x 8.16 / 12.16).
  expect(one.sanding?.factor).toBeCloseTo(Math.exp((Math.log(2) * 8.1633) / 12.1633), 3);
  expect(paceOf([{ kind: 'sanding', usual: 0, took: 2 }])).toEqual({});
  const slow = planWorkshop({ ...inputs([planned()]), paces: ten })?.builds[0];
  const usual = planWorkshop(inputs([planned()]))?.builds[0];
  expect(
    (slow?.steps.find((s) => s.id === 'sand/head')?.takes ?? 0) /
      (usual?.steps.find((s) => s.id === 'sand/head')?.takes ?? 1),
  ).toBeCloseTo(ten.sanding?.factor ?? 0, 9);
});
