import { planTask } from '../../../tests/support/plan-task';
import { crewHours, gapsOf, schedule, type PlanProblem, type PlanTask, type Span } from '.';

const hour = 3600,
  day = 86400;
/** Evenings of three hours from the first day's 19:00 on, those of the days left out missing. */
const evenings = (days: number, out: readonly number[] = []): Span[] =>
  Array.from({ length: days }, (_, d) => d)
    .filter((d) => !out.includes(d))
    .map((d) => ({ from: d * day + 19 * hour, until: d * day + 22 * hour }));

function gaps(tasks: readonly PlanTask[], open: readonly Span[] = evenings(40)) {
  const problem: PlanProblem = { tasks, open: { ada: open }, from: 0, until: 60 * day, due: { a: null, b: null } };
  const made = schedule(problem)!;
  return gapsOf(problem, new Map(made.placed.map((p) => [p.id, p])), 'a', crewHours(problem), (id) => `the ${id}`);
}
const wait = (task: string, days: number, why = 'it is dry through') => ({
  task,
  least: days * day,
  most: null,
  why,
});
const task = (id: string, more: Partial<PlanTask> = {}): PlanTask =>
  planTask(id, [], { build: 'a', work: hour, crews: [['ada']], ...more });

test('a week that goes as it goes has none', () => {
  expect(gaps([task('x'), task('y', { after: [wait('x', 2)] })])).toEqual([]);
});

test('it dries: the reason is what the step waits for', () => {
  const found = gaps([task('x'), task('y', { after: [wait('x', 9)] })]);
  expect(found).toEqual([{ from: 20 * hour, until: 9 * day + 20 * hour, why: 'until it is dry through', others: [] }]);
});

test('nobody has hours, from now to the first step too', () => {
  const found = gaps([task('x')], evenings(20, [0, 1, 2, 3, 4, 5]));
  expect(found).toEqual([{ from: 0, until: 6 * day + 19 * hour, why: 'nobody has hours', others: [] }]);
});

test('hands at another piece: it is named, that with the most hours first', () => {
  const busy = Array.from({ length: 5 }, (_, d) =>
    task(`b${d}`, { build: d === 2 ? 'c' : 'b', fixed: { from: d * day + 19 * hour, until: d * day + 22 * hour } }),
  );
  const found = gaps([task('x'), ...busy]);
  expect(found).toEqual([
    { from: 0, until: 5 * day + 19 * hour, why: 'the evenings go to “the b” and “the c”', others: ['b', 'c'] },
  ]);
});

test('put there by the maker; kept for what has to follow it closely; too long for the evenings there are', () => {
  const fixed = { from: 8 * day + 19 * hour, until: 8 * day + 20 * hour };
  expect(gaps([task('x', { fixed })])[0]).toMatchObject({ why: 'put there by you' });
  // The next has to follow within two days, and can only be on the tenth.
  const late = task('z', { notBefore: 10 * day });
  const soon = task('y', { after: [] });
  const close = gaps([soon, { ...late, after: [{ task: 'y', least: 0, most: 2 * day, why: '' }] }]);
  expect(close[0]).toMatchObject({ why: 'begun later, so that what follows it comes in its time' });
  const long = task('x', { work: 5 * hour, whole: true });
  const saturday = [...evenings(6), { from: 6 * day + 10 * hour, until: 6 * day + 18 * hour }];
  expect(gaps([long], saturday)[0]).toMatchObject({ why: 'no sitting is long enough before' });
});

test('no dry place to hold it by', () => {
  const lay = task('x', { wets: [{ zone: 'head', before: 0, after: 7 * day }] });
  const found = gaps([lay, task('y', { after: [wait('x', 0, '')], holds: ['head'] })]);
  expect(found[0]).toMatchObject({ why: 'until there is a dry place to hold it by', until: 7 * day + 20 * hour });
});

test('a night of drying is not the reason for a week: it is who is there', () => {
  const found = gaps([task('x'), task('y', { after: [wait('x', 1)] })], evenings(40, [1, 2, 3, 4, 5, 6, 7]));
  expect(found).toEqual([{ from: 20 * hour, until: 8 * day + 19 * hour, why: 'nobody has hours', others: [] }]);
});
