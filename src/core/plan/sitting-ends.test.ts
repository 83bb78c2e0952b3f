import { day, hour, planTask } from '../../../tests/support/plan-task';
import { beginOn, finishOf, schedule, type PlanProblem, type Span } from '.';

/** What is begun at the end of a sitting. */
const evenings: readonly Span[] = [0, 1, 2].map((d) => ({ from: d * day + 19 * hour, until: d * day + 22 * hour }));
const minute = 60;

test('with less than twenty minutes left what may be broken off waits; what fits is done', () => {
  const late = 22 * hour - 19 * minute;
  expect(beginOn(evenings, late, 2 * hour, false)).toBe(day + 19 * hour);
  expect(beginOn(evenings, late - minute, 2 * hour, false)).toBe(late - minute);
  expect(beginOn(evenings, late, 15 * minute, false)).toBe(late);
  // In one sitting it waits for one long enough.
  expect(beginOn(evenings, 20 * hour, 2.5 * hour, true)).toBe(day + 19 * hour);
  expect(beginOn(evenings, 3 * day, hour, false)).toBe(Infinity);
});

test('where every sitting is short, it is taken up all the same', () => {
  const short = [0, 1, 2].map((d) => ({ from: d * day, until: d * day + 10 * minute }));
  expect(beginOn(short, 5 * minute, hour, false)).toBe(5 * minute);
  expect(beginOn(short, 11 * minute, 20 * minute, false)).toBe(day);
});

test('in a plan: six minutes before the end nothing long is begun, and nothing short is put off', () => {
  const problem: PlanProblem = {
    tasks: [
      planTask('a', [], { work: 3 * hour - 6 * minute, crews: [['ada']] }),
      planTask('long', [['a']], { work: 2 * hour, crews: [['ada']] }),
      planTask('short', [['a']], { work: 5 * minute, crews: [['ada']] }),
    ],
    open: { ada: evenings },
    from: 0,
    until: 30 * day,
    due: { b: null },
  };
  const placed = new Map(schedule(problem)!.placed.map((p) => [p.id, p]));
  expect(placed.get('short')!.from).toBe(22 * hour - 6 * minute);
  expect(placed.get('long')!.from).toBe(day + 19 * hour);
  expect(placed.get('long')!.until).toBe(finishOf(evenings, day + 19 * hour, 2 * hour));
});
