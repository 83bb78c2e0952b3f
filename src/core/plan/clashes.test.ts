import { at, hour, planProblem, planTask } from '../../../tests/support/plan-task';
import { clashesOf, crewHours, inOrder, longestSitting, type Placed, type PlanTask } from '.';

/** Each thing a plan can break, on two or three tasks placed by hand. Ada is there from 8 to 12. */
const clashes = (tasks: readonly PlanTask[], placed: readonly Placed[], now?: number) => {
  const problem = planProblem(tasks);
  return clashesOf(problem, placed, crewHours(problem), now).map((c) => [c.kind, c.task, c.other, c.by / hour]);
};
const wet = (id: string, zone: string, hours: number, before = 0) =>
  planTask(id, [], { wets: [{ zone, before: before * hour, after: hours * hour }] });

test('nothing broken, nothing told', () => {
  expect(clashes([planTask('a'), planTask('b', [['a', 1, 3]])], [at('a', 8), at('b', 10)])).toEqual([]);
});

test('too soon, and by how much; to the second it is not', () => {
  const two = [planTask('a'), planTask('b', [['a', 2]])];
  expect(clashes(two, [at('a', 8), at('b', 10.5)])).toEqual([['too-soon', 'b', 'a', 0.5]]);
  expect(clashes(two, [at('a', 8), at('b', 11)])).toEqual([]);
});

test('past the last moment for it', () => {
  const two = [planTask('a'), planTask('b', [['a', 0, 1]])];
  expect(clashes(two, [at('a', 8), at('b', 10.75)])).toEqual([['window', 'b', 'a', 0.75]]);
  expect(clashes(two, [at('a', 8), at('b', 10)])).toEqual([]);
});

test('outside the hours there are, at either end; what needs nobody has none to keep', () => {
  expect(clashes([planTask('a')], [at('a', 7)]).map((c) => c[0])).toEqual(['hours']);
  expect(clashes([planTask('a')], [at('a', 11.5)]).map((c) => c[0])).toEqual(['hours']);
  expect(clashes([planTask('a', [], { crews: [[]] })], [at('a', 3, 1, [])])).toEqual([]);
  // Both of a crew have to be there: ten to twelve.
  const both = planTask('a', [], { crews: [['ada', 'ben']] });
  expect(clashes([both], [at('a', 9, 1, ['ada', 'ben'])]).map((c) => c[0])).toEqual(['hours']);
  expect(clashes([both], [at('a', 10, 1, ['ada', 'ben'])])).toEqual([]);
});

test('over a night in more than one sitting, where it should be done in one', () => {
  const long = planTask('a', [], { whole: true, work: 2 * hour });
  expect(clashes([long], [at('a', 11, 22)])).toEqual([['one-sitting', 'a', '', 20]]);
  expect(clashes([{ ...long, whole: false }], [at('a', 11, 22)])).toEqual([]);
});

test('one pair of hands, one oven', () => {
  const oven = { tools: ['oven'] };
  expect(clashes([planTask('a'), planTask('b')], [at('a', 8), at('b', 8.5)])).toEqual([['person', 'b', 'a', 0.5]]);
  expect(clashes([planTask('a'), planTask('b')], [at('a', 8), at('b', 9)])).toEqual([]);
  const ben = planTask('b', [], { crews: [['ben']], ...oven });
  expect(clashes([planTask('a', [], oven), ben], [at('a', 10), at('b', 10.5, 1, ['ben'])])).toEqual([
    ['tool', 'b', 'a', 0.5],
  ]);
});

test('a hand needs one dry place: wet before, while and after what wets it', () => {
  const holding = planTask('b', [], { holds: ['chest', 'neck'] });
  const tasks = [wet('a', 'chest', 3), wet('c', 'neck', 1), holding];
  // The neck is dry again at 11; while both are wet there is none.
  expect(clashes(tasks, [at('a', 8), at('c', 9), at('b', 10)])).toEqual([['hold', 'b', 'a', 0]]);
  expect(clashes(tasks, [at('a', 8), at('c', 9), at('b', 11)])).toEqual([]);
  expect(clashes([planTask('b', [], { holds: [] })], [at('b', 8)])).toEqual([['hold', 'b', '', 0]]);
  // Turned round in time, what was wet after is wet before.
  expect(
    clashes([wet('a', 'chest', 0, 2), planTask('b', [], { holds: ['chest'] })], [at('a', 11), at('b', 9)]),
  ).toEqual([['hold', 'b', 'a', 0]]);
});

test('no time for it at all', () => {
  expect(clashes([planTask('a')], []).map((c) => c[0])).toEqual(['never']);
  expect(clashes([planTask('a')], [{ ...at('a', 8), from: Infinity, until: Infinity }]).map((c) => c[0])).toEqual([
    'never',
  ]);
});

test('what is done is a fact, and is not held against itself; what follows it is', () => {
  const two = [planTask('a'), planTask('b', [['a', 2]])];
  expect(clashes(two, [at('a', 3), at('b', 8)], 4 * hour)).toEqual([]);
  expect(clashes(two, [at('a', 7), at('b', 9)], 8 * hour)).toEqual([['too-soon', 'b', 'a', 1]]);
});

test('the longest sitting of any of the crews', () => {
  const hours = crewHours(planProblem([]));
  expect(longestSitting(planTask('a', [], { crews: [['ada'], ['ben']] }), hours)).toBe(6 * hour);
  expect(longestSitting(planTask('a', [], { crews: [['ada', 'ben']] }), hours)).toBe(2 * hour);
  expect(longestSitting(planTask('a', [], { crews: [['nobody']] }), hours)).toBe(0);
});

test('in an order in which each follows what it waits for; a ring has none', () => {
  const order = (tasks: readonly PlanTask[]) => inOrder(tasks)?.map((t) => t.id) ?? null;
  expect(order([planTask('c', [['b']]), planTask('b', [['a']]), planTask('a')])).toEqual(['a', 'b', 'c']);
  expect(order([planTask('a', [['b']]), planTask('b', [['a']])])).toBeNull();
  // What there is not holds nothing up.
  expect(order([planTask('a', [['gone']])])).toEqual(['a']);
});
