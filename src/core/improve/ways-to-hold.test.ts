import { otherDemoBuilds } from '../../server/demo-builds';
import { newBust } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { workshopSchema, type PlanSurroundings } from '../plan';
import { waysToHold } from '.';

/** Held in the hands and on a base, beside the plan that is shown. */
const evening = { days: [0, 1, 2, 3, 4, 5, 6], from: 1140, until: 1320 };
const person = { id: 'ada', name: 'Ada', hours: [evening], away: [], other: [] };
const surroundings: PlanSurroundings = {
  workshop: workshopSchema.parse({ zone: 'UTC', people: [person] }),
  paces: {},
  others: [],
};
const ask = (held: 'auto' | 'hands' | 'skewer', clay = 'paper-clay') => {
  const bust = newBust('Held', '2026-12-01', 0.5);
  const build = { ...bust, brief: { ...bust.brief, clay }, plan: { ...bust.plan, held } };
  const evaluator = new Evaluator();
  const question = asBriefed(build);
  const options = { id: 'this', surroundings };
  const answer = evaluator.judge(question, options);
  if (!answer.ok) throw new Error(answer.message);
  return { answer: answer.value, ways: waysToHold(evaluator, question, answer.value, surroundings, options) };
};

test('on a base it takes fewer nights than in the hands; the one that is planned is as the plan has it', () => {
  const { answer, ways } = ask('auto');
  expect(ways.map((w) => [w.held, w.now])).toEqual([
    ['stands', true],
    ['hands', false],
  ]);
  const [stands, hands] = ways as [(typeof ways)[0], (typeof ways)[0]];
  expect(stands.finish).toBe(answer.judging.plan!.finish.nominal);
  expect(stands.bare).toBeNull();
  expect(hands.nights).toBeGreaterThan(stands.nights);
  expect(hands.finish).toBeGreaterThanOrEqual(stands.finish);
  expect(hands.order).toContain(hands.bare);
});

test('the other way round it is the same two, and a skewer is as good as a base', () => {
  const byHand = ask('hands'),
    auto = ask('auto');
  expect(byHand.ways.map(({ now: _, ...w }) => w)).toEqual(auto.ways.map(({ now: _, ...w }) => w));
  expect(byHand.ways.map((w) => w.now)).toEqual([false, true]);
  expect(byHand.ways[1]!.finish).toBe(byHand.answer.judging.plan!.finish.nominal);
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
  const ways = waysToHold(evaluator, question, answer.value, surroundings, { id: 'this', surroundings });
  expect(ways.map((w) => [w.held, w.now])).toEqual([
    ['stands', false],
    ['hands', true],
  ]);
  expect(ways[1]!.finish).toBe(answer.value.judging.plan!.finish.nominal);
});
