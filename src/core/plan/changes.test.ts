import { jobFacts } from '../../../tests/support/job-facts';
import { classSetOf } from '../../../tests/support/class-set';
import { exactly } from '../quantity';
import { forGroups, groupSizes, readSurroundings, stepsOf, without, type Step } from '.';

const hour = 3600;
const step = (id: string, after: readonly (readonly [string, number])[] = []): Step =>
  ({
    id,
    name: id,
    hours: 2,
    people: 2,
    wets: [],
    holds: null,
    after: after.map(([task, h]) => ({ task, least: exactly(h * hour), most: null, why: `${task} is dry` })),
  }) as never;
const waits = (steps: readonly Step[], id: string) =>
  steps.find((s) => s.id === id)!.after.map((w) => [w.task, w.least.nominal / hour]);

describe('left out', () => {
  const line = [step('a'), step('b', [['a', 10]]), step('c', [['b', 3]]), step('d', [['c', 0]])];
  test('what waited for it waits for what it waited for, the longer of the two waits', () => {
    expect(waits(without(line, new Set(['b'])), 'c')).toEqual([['a', 10]]);
    expect(waits(without(line, new Set(['c'])), 'd')).toEqual([['b', 3]]);
    expect(waits(without(line, new Set(['b', 'c'])), 'd')).toEqual([['a', 10]]);
    expect(without(line, new Set(['b'])).map((s) => s.id)).toEqual(['a', 'c', 'd']);
  });
  test('the first of all leaves nothing to wait for; none leaves all as it was', () => {
    expect(waits(without(line, new Set(['a'])), 'b')).toEqual([]);
    expect(without(line, new Set())).toEqual(line);
  });
  test('a ring among what is left out is gone through once', () => {
    const ring = [step('a', [['b', 1]]), step('b', [['a', 1]]), step('c', [['a', 5]])];
    expect(waits(without(ring, new Set(['a', 'b'])), 'c')).toEqual([]);
  });
});

describe('a class', () => {
  const set = classSetOf({ people: 23, groups: 3, pace: 1.5 });
  test('groups as even as can be', () => {
    expect(groupSizes(set)).toEqual([8, 8, 7]);
    expect(groupSizes(classSetOf({ people: 24, groups: 3 }))).toEqual([8, 8, 8]);
    expect(groupSizes(classSetOf({ people: 2, groups: 3 }))).toEqual([1, 1, 0]);
  });
  test('each group has every step, waits within itself, and holds its own piece', () => {
    const steps = stepsOf(jobFacts({ held: false }));
    const all = forGroups(steps, set);
    expect(all).toHaveLength(3 * steps.length);
    const of = (id: string) => all.find((s) => s.id === id)!;
    expect(of('group-2/lay/head/1').after.every((w) => w.task.startsWith('group-2/'))).toBe(true);
    expect(of('group-2/lay/head/1').holds).toEqual(['group-2/chest']);
    expect(of('group-2/lay/head/1').wets[0]?.zone).toBe('group-2/head');
    expect(of('group-2/armature').hours).toBeCloseTo(1.5 * 2, 9);
    expect(of('group-2/armature').people).toBe(1);
    // One tub of gauze between them, as there is one oven.
    const wound = forGroups(stepsOf(jobFacts({ under: [{ id: 'gauze', name: 'plaster gauze' }] })), set);
    expect(wound.filter((s) => s.tools.includes('tub')).map((s) => s.id)).toEqual(
      [1, 2, 3].map((g) => `group-${g}/ground/gauze`),
    );
  });
});

describe('what else is on the go, from a file', () => {
  test('an empty one is a workshop with nobody and nothing else', () => {
    const read = readSurroundings({});
    expect(read.ok && [read.value.paces, read.value.others]).toEqual([{}, []]);
  });
  test.each([
    [{ paces: { sanding: { factor: -1, spread: 0.1, steps: 2 } } }, /paces\.sanding\.factor/],
    [{ others: [{ id: 'x' }] }, /others\.0\.|others\[0\]/],
    [{ others: 'many' }, /others/],
    [{ workshop: { zone: 5 } }, /zone/],
    [null, /workshop/],
  ])('%j is refused where it is wrong', (input, path) => {
    const read = readSurroundings(input);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.path).toMatch(path);
  });
});
