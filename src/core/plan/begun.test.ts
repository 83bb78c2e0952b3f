import { jobFacts, regionFacts } from '../../../tests/support/job-facts';
import { planPartSchema } from '../document';
import type { Begun } from '../log';
import { exactly } from '../quantity';
import {
  batchesLeft,
  clashSentence,
  clayLeft,
  hoursOfPlan,
  planWorkshop,
  stepsOf,
  whatToLeaveOut,
  type BuildToPlan,
  type PlanInputs,
} from '.';

const hour = 3600,
  day = 86400;
/** Tuesday, 1 December 2026, midnight UTC. */
const tuesday = Date.parse('2026-12-01T00:00:00Z') / 1000;
const thursday = tuesday + 2 * day;
/** Tuesdays and Thursdays, 19 to 22. */
const me = { id: 'me-too', name: 'Me', hours: [{ days: [1, 3], from: 1140, until: 1320 }], away: [], other: [] };
const steps = stepsOf(jobFacts({ regions: [regionFacts('chest', 0.2), regionFacts('head', 0.6)] })).map((s) =>
  s.id === 'bulk' ? { ...s, hours: 7 } : s,
);
const planned = (now: number, more: Partial<BuildToPlan> = {}) => {
  const inputs: PlanInputs = {
    builds: [
      {
        id: 'b',
        name: 'Bust',
        steps,
        plan: planPartSchema.parse({}),
        hoursPerWeek: 8,
        deadline: null,
        happened: ['set-out', 'armature'].map((step) => ({ step, from: tuesday - day, until: tuesday - day + hour })),
        ...more,
      },
    ],
    workshop: { zone: 'UTC', people: [me] },
    paces: {},
    now,
  };
  const own = planWorkshop(inputs)!.builds[0]!;
  return { inputs, own, step: (id: string) => own.steps.find((s) => s.id === id)! };
};
const begun = (step: string, worked: number, more: Partial<Begun> = {}): Begun => ({
  step,
  worked,
  left: null,
  clay: 0,
  from: tuesday + 19 * hour,
  until: tuesday + 22 * hour,
  ...more,
});

test('an evening at a long step brings its end no later and takes nothing from the date', () => {
  const before = planned(tuesday);
  expect(before.step('bulk')).toMatchObject({
    takes: 7,
    from: tuesday + 19 * hour,
    until: tuesday + 7 * day + 20 * hour,
  });
  const after = planned(tuesday + 23 * hour, { begun: [begun('bulk', 3)] });
  expect(after.step('bulk')).toMatchObject({ takes: 4, from: thursday + 19 * hour, until: before.step('bulk').until });
  expect(after.own.finish.nominal).toBe(before.own.finish.nominal);
  // Unsaid, it would begin again from nothing.
  expect(planned(tuesday + 23 * hour).step('bulk').until).toBe(thursday + 7 * day + 20 * hour);
});

test('what is left is as the maker says; something is left until it is done', () => {
  const left = (b: Begun) => planned(tuesday + 23 * hour, { begun: [b] }).step('bulk').takes;
  expect(left(begun('bulk', 3, { left: 1.5 }))).toBe(1.5);
  expect(left(begun('bulk', 9))).toBeCloseTo(0.7, 9);
  expect(left(begun('bulk', 7.1, { left: 0 }))).toBeCloseTo(1 / 12, 9);
});

test('what was laid so far is wet since then, and is told of', () => {
  const done = ['set-out', 'armature', 'bulk'].map((step) => ({
    step,
    from: tuesday - day,
    until: tuesday - day + hour,
  }));
  const lay = steps.find((s) => s.id === 'lay/chest/1')!;
  const { own, step } = planned(tuesday + 23 * hour, {
    happened: done,
    begun: [begun(lay.id, 0.3, { left: 2, clay: 0.4, until: tuesday + 22 * hour })],
  });
  const wet = own.wet.filter((w) => w.zone === 'chest' && w.from === tuesday + 19 * hour);
  expect(wet).toHaveLength(1);
  expect(wet[0]!.until.nominal).toBe(tuesday + 22 * hour + lay.wets[0]!.after.nominal);
  expect(clayLeft(step(lay.id))).toBeCloseTo(lay.clay - 0.4, 9);
});

test('no hand grips what was laid so far before it is dry', () => {
  const lay = steps.find((s) => s.id === 'lay/chest/1')!;
  const wets = [{ zone: 'chest', after: exactly(100 * hour) }];
  const gripping = steps.map((s) =>
    s.id === 'lay/head/1' ? { ...s, holds: ['chest'] } : s.id === lay.id ? { ...s, wets } : s,
  );
  const { step } = planned(tuesday + 23 * hour, {
    steps: gripping,
    happened: ['set-out', 'armature', 'bulk'].map((s) => ({
      step: s,
      from: tuesday - day,
      until: tuesday - day + hour,
    })),
    begun: [begun(lay.id, 0.3, { left: 200, until: tuesday + 22 * hour })],
  });
  expect(step('lay/head/1').from).toBeGreaterThanOrEqual(tuesday + 22 * hour + 100 * hour);
});

test('a step that was put on an evening that has passed is planned again; one begun then goes on when there is time', () => {
  const at = new Date((tuesday + 19 * hour) * 1000).toISOString();
  const plan = planPartSchema.parse({ steps: { bulk: { at } } });
  expect(planned(tuesday + 10 * hour, { plan }).step('bulk')).toMatchObject({
    pinned: true,
    from: tuesday + 19 * hour,
  });
  // 7 hours from 19:00 are over at 2 in the night.
  const missed = planned(thursday, { plan }).step('bulk');
  expect(missed).toMatchObject({ pinned: false, from: thursday + 19 * hour, done: false, clashes: [] });
  const going = planned(tuesday + 22.5 * hour, { plan, begun: [begun('bulk', 3)] }).step('bulk');
  expect(going).toMatchObject({ pinned: false, from: thursday + 19 * hour, takes: 4 });
});

test('what was begun is gone on with before anything else', () => {
  const happened = steps
    .filter((s) => !/^(refine|sand|detail|fit|photograph)/.test(s.id))
    .map((s) => ({ step: s.id, from: tuesday - 40 * day, until: tuesday - 40 * day + hour }));
  const carving = steps.filter((s) => s.id.startsWith('refine/'));
  expect(carving.length).toBeGreaterThan(1);
  const first = (more: Partial<BuildToPlan>) =>
    planned(thursday, { happened, ...more }).own.steps.find((s) => !s.done)!.id;
  for (const s of carving) expect(first({ begun: [begun(s.id, 0.1)] })).toBe(s.id);
});

test('what was begun is not left out', () => {
  // Two evenings short.
  const finish = planned(tuesday).own.finish.nominal;
  const late = { deadline: new Date((finish - 4 * day) * 1000).toISOString().slice(0, 10) };
  const left = (more: Partial<BuildToPlan>) =>
    whatToLeaveOut(planned(tuesday, { ...late, ...more }).inputs, 'b')?.steps.map((s) => s.id) ?? [];
  const all = left({});
  expect(all).not.toEqual([]);
  expect(left({ begun: [begun(all[0]!, 0.2)] })).not.toContain(all[0]);
});

test('a clash with what was laid so far names its step', () => {
  const { own } = planned(tuesday);
  const words = clashSentence(own, { kind: 'hold', task: 'b:lay/head/1', other: 'b:lay/chest/1#so-far', by: 0 });
  expect(words).toContain(steps.find((s) => s.id === 'lay/chest/1')!.name);
});

test('batches of what is left: full ones and the rest, none where nothing is mixed', () => {
  const of = (clay: number, laid = 0) =>
    batchesLeft({
      clay,
      takes: 1,
      mixed: { id: 'two-part-clay', each: 0.25, works: 3600 },
      begun: laid > 0 ? begun('lay/chest/1', 1, { clay: laid }) : null,
    });
  const round = (all: readonly number[]) => all.map((m) => Math.round(m * 1e6) / 1e6);
  expect(round(of(0.687))).toEqual([0.25, 0.25, 0.187]);
  expect(round(of(0.5))).toEqual([0.25, 0.25]);
  expect(round(of(0.687, 0.5))).toEqual([0.187]);
  expect(of(0.687, 0.687)).toEqual([]);
  expect(batchesLeft({ clay: 1, begun: null, takes: 1 })).toEqual([]);
  // As many as the name of the step says.
  const f = jobFacts({ setting: 'sets', soft: 4800, cure: 24 * hour, batch: { mass: 0.25, kneading: 300 } });
  const laying = stepsOf(f).filter((s) => s.kind === 'clay');
  expect(laying.length).toBeGreaterThan(0);
  for (const s of laying) {
    const said = Number(/in (\d+) batches/.exec(s.name)?.[1] ?? 1);
    expect(batchesLeft({ ...s, begun: null, takes: s.hours })).toHaveLength(said);
  }
});

test('hours of a plan are the same before, while and after a step is worked at', () => {
  const by = (kinds: readonly string[]) =>
    steps.filter((s) => kinds.includes(s.kind) && s.people > 0).reduce((sum, s) => sum + s.hours, 0);
  const before = hoursOfPlan(planned(tuesday).own);
  expect(before.untilClay).toBeCloseTo(by(['setting-out', 'armature', 'bulk', 'ground', 'props', 'clay']), 9);
  expect(before.all).toBeCloseTo(by([...new Set(steps.map((s) => s.kind))]), 9);
  const half = hoursOfPlan(planned(tuesday + 23 * hour, { begun: [begun('bulk', 3)] }).own);
  expect(half.untilClay).toBeCloseTo(before.untilClay, 9);
  expect(half.all).toBeCloseTo(before.all, 9);
});
