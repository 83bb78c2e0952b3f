import { at, hour, planProblem, planTask } from '../../../tests/support/plan-task';
import { costOf, decidingChain, finishes, type Placed, type PlanTask } from '.';

const chain = (tasks: readonly PlanTask[], placed: readonly Placed[], build = 'b') =>
  decidingChain(planProblem(tasks), placed, build).map((l) => [l.task, l.by, l.other, l.waited / hour, l.idle / hour]);

test('from the last task back: what it waited for, how long, and how long nobody was there after', () => {
  const tasks = [planTask('a'), planTask('b', [['a', 10]]), planTask('c', [['b']]), planTask('aside')];
  // The clay is dry at 19 h; Ada is there again at 32.
  expect(chain(tasks, [at('a', 8), at('b', 32), at('c', 33), at('aside', 9)])).toEqual([
    ['a', 'start', null, 0, 8],
    ['b', 'wait', 'a', 10, 13],
    ['c', 'hours', 'b', 0, 0],
  ]);
});

test('of two waits the later one decides', () => {
  const tasks = [
    planTask('a'),
    planTask('b'),
    planTask('c', [
      ['a', 2],
      ['b', 3],
    ]),
  ];
  expect(chain(tasks, [at('a', 8), at('b', 9), at('c', 13)]).at(-1)).toEqual(['c', 'wait', 'b', 3, 0]);
});

test('the same hands at other work, of this piece or another', () => {
  const tasks = [planTask('other', [], { build: 'x' }), planTask('a')];
  expect(chain(tasks, [at('other', 8, 3), at('a', 11)])).toEqual([
    ['other', 'start', null, 0, 8],
    ['a', 'person', 'other', 0, 0],
  ]);
});

test('an oven in use', () => {
  const tasks = [planTask('baking', [], { tools: ['oven'], crews: [['ben']] }), planTask('a', [], { tools: ['oven'] })];
  expect(chain(tasks, [at('baking', 8, 2, ['ben']), at('a', 10)]).at(-1)).toEqual(['a', 'tool', 'baking', 0, 0]);
});

test('no dry place to hold', () => {
  const tasks = [
    planTask('wetting', [], { wets: [{ zone: 'chest', before: 0, after: 2 * hour }] }),
    planTask('a', [], { holds: ['chest'] }),
  ];
  expect(chain(tasks, [at('wetting', 8), at('a', 11)]).at(-1)).toEqual(['a', 'hold', 'wetting', 2, 0]);
});

test('what is done already decides nothing further back', () => {
  const tasks = [planTask('a', [], { fixed: { from: 0, until: hour } }), planTask('b', [['a', 10]])];
  expect(chain(tasks, [at('a', 0), at('b', 32)]).map((l) => l[0])).toEqual(['b']);
});

test('a build that is not there decides nothing', () => expect(chain([planTask('a')], [at('a', 8)], 'x')).toEqual([]));

test('each build ends with its last task; late is fifty times as dear as long', () => {
  const tasks = [planTask('a'), planTask('b'), planTask('x', [], { build: 'x' })];
  const ends = finishes(tasks, new Map([at('a', 8), at('b', 30), at('x', 9)].map((p) => [p.id, p])));
  expect(ends).toEqual({ b: 31 * hour, x: 10 * hour });
  expect(finishes(tasks, new Map())).toEqual({ b: Infinity, x: Infinity });
  const problem = planProblem(tasks, { due: { b: 30 * hour, x: null } });
  expect(costOf(problem, ends) / hour).toBeCloseTo(31 + 10 + 50 * 1, 9);
  expect(costOf({ ...problem, due: { b: 31 * hour } }, ends) / hour).toBeCloseTo(41, 9);
});
