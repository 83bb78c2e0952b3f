import { jobFacts, regionFacts } from '../../../tests/support/job-facts';
import { batchesLeft, clayToWarm, stepsOf, type JobFacts, type PlannedStep, type Step } from '.';

/** What is mixed a little at a time, besides two-part clay: in which steps, how much, in how many batches. */
const hour = 3600;
const steps = (more: Partial<JobFacts>): Step[] => stepsOf(jobFacts(more));
const stepIn = (all: readonly Step[], id: string): Step => {
  const found = all.find((s) => s.id === id);
  if (!found) throw new Error(`no step "${id}"`);
  return found;
};
const batches = (s: Step): number => batchesLeft({ ...s, begun: null, takes: s.hours }).length;

test('gauze is wetted 120 g at a time, wound on as part of the armature or laid as a layer', () => {
  const gauze = { id: 'gauze', name: 'plaster gauze', area: 0.3, mass: 0.33 };
  const wound = stepIn(steps({ wrap: 'gauze', wrapped: gauze }), 'bulk');
  const layer = stepIn(steps({ under: [gauze] }), 'ground/gauze');
  for (const s of [wound, layer]) {
    expect(s.mixed).toMatchObject({ id: 'plaster-gauze', each: 0.12 });
    expect(s.material).toEqual({ name: 'plaster gauze', mass: 0.33 });
    expect(batches(s)).toBe(3);
  }
  // Tape is not wetted.
  expect(stepIn(steps({ wrapped: { id: 'tape', name: 'tape', area: 0.3, mass: 0.1 } }), 'bulk').mixed).toBeUndefined();
});

test('by hand: 0.3 m2 of resin twice over is 210 g, two cups; in a hot room more of them', () => {
  const resin = (celsius: number) => stepIn(steps({ processes: ['styrene-resin'], celsius }), 'styrene-resin/resin');
  expect(resin(21).material!.mass).toBeCloseTo(0.21, 9);
  expect(batches(resin(21))).toBe(2);
  // At 36 degrees it works 15 / 2^1.5 = 5.3 minutes: 0.16 kg.
  expect(resin(36).mixed!.each).toBeCloseTo((0.03 * 15) / 2 ** 1.5, 9);
});

test('a plaster mould: each half in one sitting, 0.97 kg a litre, a tenth left in the bowl, two kilos a bowl', () => {
  const all = steps({ setting: 'damp', workable: hour, processes: ['plaster-mould'] });
  const half = stepIn(all, 'plaster-mould/coat');
  expect(half.whole).toBe(true);
  expect(half.material!.mass).toBeCloseTo((0.3 * 0.025 * 970 * 1.1) / 2, 6);
  expect(half.mixed).toMatchObject({ id: 'plaster', each: 2 });
  expect(batches(half)).toBe(3);
});

test('silicone in five coats, ten millimetres in all, each mixed for itself', () => {
  const all = steps({ processes: ['silicone-condensation'] }).filter((s) =>
    s.id.startsWith('silicone-condensation/coat'),
  );
  expect(all).toHaveLength(5);
  expect(all.reduce((sum, s) => sum + s.material!.mass, 0)).toBeCloseTo(0.3 * 0.01 * 1150 * 1.1, 6);
  expect(all.every((s) => s.mixed?.id === 'silicone' && s.whole)).toBe(true);
  expect(all[1]!.after).toMatchObject([{ task: 'silicone-condensation/coat', least: { nominal: 1.5 * hour } }]);
});

test('latex in eight coats, each when the one before is dry, a shell of gauze a day after the last', () => {
  const all = steps({ processes: ['latex-mould'] });
  const coats = all.filter((s) => s.id.startsWith('latex-mould/coat'));
  expect(coats).toHaveLength(8);
  coats.slice(1).forEach((s, i) => {
    expect(s.after.map((w) => [w.task, w.least.nominal])).toEqual([[coats[i]!.id, 3 * hour]]);
    expect(s.mixed).toBeUndefined();
  });
  expect(stepIn(all, 'latex-mould/shell').after[0]).toMatchObject({
    task: 'latex-mould/coat-8',
    least: { nominal: 24 * hour },
  });
});

describe('clay that the maker mixes', () => {
  const ownMix = { each: 2.5, mixed: 1.1, rests: 12 * hour, keeps: 120 * hour };
  const coat = regionFacts('chest', 0.2).coats[0]!;
  const twice = [1, 2].map((stage) => ({ ...coat, stage, mass: 3 }));
  const all = steps({
    ownMix,
    regions: [regionFacts('chest', 0.2, { coats: twice }), regionFacts('head', 0.6, { coats: twice })],
  });
  test('is mixed for each time round, rests in its bag, and is used while it keeps', () => {
    expect(all.filter((s) => s.id.startsWith('mix/')).map((s) => s.name)).toEqual([
      'Mix the paper clay in 3 lots, and let it rest',
      'Mix the paper clay in 3 lots, and let it rest',
    ]);
    for (const [stage, first] of [
      [1, 'lay/chest/1'],
      [2, 'lay/chest/2'],
    ] as const) {
      const wait = stepIn(all, first).after.find((w) => w.task === `mix/${stage}`)!;
      expect([wait.least.nominal, wait.most?.nominal]).toEqual([12 * hour, 132 * hour]);
      expect(stepIn(all, `mix/${stage}`).material!.mass).toBeCloseTo(6.6, 9);
    }
    expect(stepIn(all, 'lay/head/1').after.some((w) => w.task.startsWith('mix/'))).toBe(false);
  });
  test('bought ready there is nothing to mix', () => {
    expect(steps({}).some((s) => s.id.startsWith('mix/'))).toBe(false);
  });
});

test('clay that is laid warm: how much for each day, and by when it is put to warm', () => {
  const at = (text: string) => Date.parse(`2026-12-${text}:00Z`) / 1000;
  const lay = steps({ setting: 'never', warming: 2 * hour }).find((s) => s.id === 'lay/chest/1')!;
  expect(lay.warmed).toBe(2 * hour);
  const sittings = [
    { from: at('01T19:00'), until: at('01T22:00') },
    { from: at('03T19:00'), until: at('03T20:00') },
  ];
  const planned = { ...lay, clay: 4, sittings, from: sittings[0]!.from, until: sittings[1]!.until, done: false };
  const other = { ...planned, id: 'lay/head/1', clay: 1, sittings: [{ from: at('03T20:00'), until: at('03T22:00') }] };
  const plan = { zone: 'UTC', steps: [planned, other] as unknown as PlannedStep[] };
  expect(clayToWarm(plan)).toEqual([
    { date: '2026-12-01', mass: 3, from: at('01T17:00'), by: at('01T19:00'), planned: false },
    { date: '2026-12-03', mass: 2, from: at('03T17:00'), by: at('03T19:00'), planned: false },
  ]);
  expect(clayToWarm({ ...plan, steps: plan.steps.map((s) => ({ ...s, done: true })) })).toEqual([]);
  // The step that puts it to warm says its own time.
  const warm = { ...planned, id: 'warm', clay: 0, sittings: [{ from: at('01T16:30'), until: at('01T16:39') }] };
  const { warmed: _, ...step } = warm;
  const withStep = [step as unknown as PlannedStep, ...plan.steps];
  expect(clayToWarm({ ...plan, steps: withStep }).map((w) => w.planned)).toEqual([true, false]);
});
