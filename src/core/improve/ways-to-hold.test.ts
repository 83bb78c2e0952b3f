import { otherDemoBuilds } from '../../server/demo-builds';
import { newBust, type Build } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { workshopSchema, type PlanSurroundings } from '../plan';
import { waysToHold, type WayToHold } from '.';

/** Held in the hands and on a base, beside the plan that is shown. */
const evening = { days: [0, 1, 2, 3, 4, 5, 6], from: 1140, until: 1320 };
const person = { id: 'ada', name: 'Ada', hours: [evening], away: [], other: [] };
const surroundings: PlanSurroundings = {
  workshop: workshopSchema.parse({ zone: 'UTC', people: [person] }),
  paces: {},
  others: [],
};
const drained = (ways: Generator<null, WayToHold[]>): WayToHold[] => {
  for (;;) {
    const step = ways.next();
    if (step.done) return step.value;
  }
};
const ask = (
  held: 'auto' | 'hands' | 'skewer' | 'cradle',
  clay = 'paper-clay',
  more: (bust: Build) => Build = (b) => b,
) => {
  const bust = newBust('Held', '2026-12-01', 0.5);
  const build = more({ ...bust, brief: { ...bust.brief, clay }, plan: { ...bust.plan, held } });
  const evaluator = new Evaluator();
  const question = asBriefed(build);
  const options = { id: 'this', surroundings };
  const answer = evaluator.judge(question, options);
  if (!answer.ok) throw new Error(answer.message);
  return { answer: answer.value, ways: drained(waysToHold(evaluator, question, answer.value, surroundings, options)) };
};

test('on a base it takes fewer nights than in the hands; the one that is planned is as the plan has it', () => {
  const { answer, ways } = ask('auto');
  expect(ways.map((w) => [w.held, w.now])).toEqual([
    ['stands', true],
    ['cradle', false],
    ['hands', false],
  ]);
  const [stands, , hands] = ways as [(typeof ways)[0], (typeof ways)[0], (typeof ways)[0]];
  expect(stands.finish).toBe(answer.judging.plan!.finish.nominal);
  expect(stands.bare).toBeNull();
  expect(hands.nights).toBeGreaterThan(stands.nights);
  expect(hands.finish).toBeGreaterThanOrEqual(stands.finish);
  expect(hands.order).toContain(hands.bare);
});

test('the other way round they are the same, and a skewer is as good as a base', () => {
  const byHand = ask('hands'),
    auto = ask('auto');
  expect(byHand.ways.map(({ now: _, ...w }) => w)).toEqual(auto.ways.map(({ now: _, ...w }) => w));
  expect(byHand.ways.map((w) => w.now)).toEqual([false, false, true]);
  expect(byHand.ways[2]!.finish).toBe(byHand.answer.judging.plan!.finish.nominal);
  expect(ask('skewer').ways[0]).toMatchObject({ now: true, finish: auto.ways[0]!.finish });
});

test('nothing to choose where no place stays wet', () => {
  expect(ask('auto', 'oil-medium').ways).toEqual([]);
});

test('what is worn has no base: as the armature says, it is in the hands', () => {
  const worn = otherDemoBuilds('2026-12-01', '2027-03-01').find((b) => b.name === 'Whelk pauldron')!;
  expect(worn.plan.held).toBe('auto');
  const evaluator = new Evaluator();
  const question = asBriefed(worn);
  const answer = evaluator.judge(question, { id: 'this', surroundings });
  if (!answer.ok) throw new Error(answer.message);
  const ways = drained(waysToHold(evaluator, question, answer.value, surroundings, { id: 'this', surroundings }));
  expect(ways.map((w) => [w.held, w.now])).toEqual([
    ['stands', false],
    ['cradle', false],
    ['hands', true],
  ]);
  expect(ways[2]!.finish).toBe(answer.value.judging.plan!.finish.nominal);
});

test('where the base dries slowest it is laid last: the piece is held there, and it takes fewer nights', () => {
  const thickBelow = (b: Build): Build => ({
    ...b,
    regions: {
      ...b.regions,
      everywhere: { ...b.regions.everywhere, coats: [0.004] },
      own: { chest: { coats: [0.02] } },
    },
  });
  const { ways } = ask('hands', 'paper-clay', thickBelow);
  const hands = ways.filter((w) => w.held === 'hands');
  expect(hands.map((w) => [w.bareFirst, w.now])).toEqual([
    [null, true],
    ['chest', false],
  ]);
  expect(hands[1]!.nights).toBeLessThan(hands[0]!.nights);
  expect(hands[1]!.bare).toBe('shoulders and chest');
  expect(hands[1]!.order.at(-1)).toBe('shoulders and chest');
  // Taken, it is the one as it is planned, and its plan is the one that was told.
  const taken = ask('hands', 'paper-clay', (b) => {
    const thick = thickBelow(b);
    return { ...thick, plan: { ...thick.plan, bareFirst: 'chest' } };
  });
  expect(taken.ways.find((w) => w.now)).toMatchObject({ held: 'hands', bareFirst: 'chest', finish: hands[1]!.finish });
  expect(taken.answer.judging.plan!.finish.nominal).toBe(hands[1]!.finish);
});

test('in a cradle it lies on a broad place, not on a small one', () => {
  const { answer } = ask('cradle');
  const laying = answer.judging.plan!.steps.filter((s) => s.kind === 'clay');
  expect(laying.length).toBeGreaterThan(1);
  const areas = new Map(answer.judging.report.regions.map((r) => [r.id, r.area]));
  const whole = [...areas.values()].reduce((sum, a) => sum + a, 0);
  for (const s of laying) {
    expect(s.lies).toBe(true);
    for (const zone of s.holds!) expect(areas.get(zone)! / whole).toBeGreaterThanOrEqual(0.15);
  }
});

test('it gives way between plans: an edit that comes meanwhile does not wait for all of them', () => {
  const evaluator = new Evaluator();
  const bust = newBust('Held', '2026-12-01', 0.5);
  const question = asBriefed({ ...bust, plan: { ...bust.plan, held: 'hands' } });
  const answer = evaluator.judge(question, { id: 'this', surroundings });
  if (!answer.ok) throw new Error(answer.message);
  const toPlan = jest.spyOn(evaluator, 'toPlan');
  const ways = waysToHold(evaluator, question, answer.value, surroundings, { id: 'this', surroundings });
  for (let before = 0; !ways.next().done; before = toPlan.mock.calls.length)
    expect(toPlan.mock.calls.length - before).toBeLessThanOrEqual(1);
  expect(toPlan.mock.calls.length).toBeGreaterThan(5);
});
