import { planPartSchema } from '../document';
import { jobFacts } from '../../../tests/support/job-facts';
import { planWorkshop, stepsOf, workshopSchema, zoneClock, type BuildPlan } from '.';
import { daysShared } from './share';

/** A share of the hours: whole days, evenly spread, no day given twice. */
const at = (date: string) => Date.parse(`${date}T00:00:00Z`) / 1000;
const from = at('2026-12-01'),
  until = at('2027-12-01');
const builds = (shares: Readonly<Record<string, number>>) =>
  Object.entries(shares).map(([id, share]) => ({ id, plan: planPartSchema.parse({ share }) }));
const daysOf = (shares: Readonly<Record<string, number>>, id: string): Set<string> => {
  const spans = daysShared(builds(shares), zoneClock('UTC'), from, until)[id] ?? [];
  const out = new Set<string>();
  for (const s of spans)
    for (let t = s.from; t < s.until; t += 86400) out.add(new Date(t * 1000).toISOString().slice(0, 10));
  return out;
};

test.each([0.25, 0.5, 0.7])('a share of %d is that share of the days, on every weekday and in every month', (share) => {
  const days = [...daysOf({ a: share }, 'a')];
  expect(days.length / 367).toBeCloseTo(share, 1);
  for (let weekday = 0; weekday < 7; weekday++) {
    const own = days.filter((d) => new Date(`${d}T00:00:00Z`).getUTCDay() === weekday).length;
    expect(Math.abs(own / 52 - share)).toBeLessThan(0.08);
  }
  for (let month = 1; month <= 11; month++) {
    const own = days.filter((d) => d.startsWith(`2027-${String(month).padStart(2, '0')}`)).length;
    expect(Math.abs(own / 30 - share)).toBeLessThan(0.1);
  }
});

test('two pieces with half each have no day in common and leave none; all of it is no share', () => {
  const a = daysOf({ a: 0.5, b: 0.5 }, 'a'),
    b = daysOf({ a: 0.5, b: 0.5 }, 'b');
  expect([...a].filter((d) => b.has(d))).toEqual([]);
  expect(a.size + b.size).toBeGreaterThanOrEqual(366);
  expect(daysShared(builds({ a: 1 }), zoneClock('UTC'), from, until)).toEqual({});
});

test('a piece is worked at on its own days alone, and is ready later; its plan breaks nothing', () => {
  const ada = { id: 'ada', name: 'Ada', hours: [{ days: [0, 1, 2, 3, 4, 5, 6], from: 1140, until: 1320 }] };
  const planned = (share: number): BuildPlan => {
    const plan = planWorkshop({
      builds: [
        {
          id: 'b',
          name: 'Bust',
          steps: stepsOf(jobFacts()),
          plan: planPartSchema.parse({ share }),
          hoursPerWeek: 8,
          deadline: null,
          happened: [],
        },
      ],
      workshop: workshopSchema.parse({ zone: 'UTC', people: [ada] }),
      paces: {},
      now: from,
    });
    return plan!.builds[0]!;
  };
  const whole = planned(1),
    half = planned(0.5);
  const own = daysOf({ b: 0.5 }, 'b');
  const sittings = half.steps.flatMap((s) => (s.crew.length > 0 ? s.sittings : []));
  expect(sittings.length).toBeGreaterThan(5);
  for (const s of sittings) expect(own.has(new Date(s.from * 1000).toISOString().slice(0, 10))).toBe(true);
  expect(half.finish.nominal).toBeGreaterThan(whole.finish.nominal);
  expect(half.steps.flatMap((s) => s.clashes)).toEqual([]);
  expect(half.gaps.every((g) => g.why !== 'nobody has hours')).toBe(true);
});
