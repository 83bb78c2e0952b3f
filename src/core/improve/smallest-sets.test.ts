import { seeded } from '../quantity';
import { front, smallestSets, type Choice, type Found, type Outcome } from './smallest-sets';

/** Demands fall by what is chosen, with interactions that no sum foresees. */
function puzzle(seed: number, count: number, demands: number) {
  const random = seeded(seed);
  const choices: (Choice & { readonly gain: readonly number[] })[] = Array.from({ length: count }, (_, i) => ({
    id: `c${i}`,
    group: `g${Math.floor(i / 2)}`,
    gain: Array.from({ length: demands }, () => (random() < 0.45 ? random() : random() < 0.2 ? -0.4 * random() : 0)),
  }));
  const start = Array.from({ length: demands }, () => 0.2 + random());
  const clash = (a: string, b: string) => ((a + b).length % 3 === 0 ? 0.15 : 0);
  const tryOut = (set: readonly (typeof choices)[number][]): Outcome => ({
    over: start.map((s, d) =>
      set.reduce((v, c, i) => v - c.gain[d]! + set.slice(0, i).reduce((x, o) => x + clash(o.id, c.id), 0), s),
    ),
  });
  return { choices, tryOut };
}

function run<C extends Choice>(search: Parameters<typeof smallestSets<C, Outcome>>[0]): Found<C, Outcome> {
  const steps = smallestSets<C, Outcome>(search);
  for (let s = steps.next(); ; s = steps.next()) if (s.done) return s.value;
}

/** Every set of every size, in order. */
function exhaustive<C extends Choice>(
  choices: readonly C[],
  tryOut: (set: readonly C[]) => Outcome,
  largest: number,
): string[] {
  for (let size = 0; size <= largest; size++) {
    const good: string[] = [];
    const grow = (set: C[], from: number) => {
      if (set.length === size) {
        if (tryOut(set).over.every((v) => v <= 1e-9)) good.push(set.map((c) => c.id).join('+'));
        return;
      }
      for (let i = from; i < choices.length; i++) {
        const c = choices[i]!;
        if (set.some((s) => s.group === c.group)) continue;
        grow([...set, c], i + 1);
      }
    };
    grow([], 0);
    if (good.length > 0) return good.sort();
  }
  return [];
}

test('equals exhaustive search on sixty seeded cases', () => {
  let found = 0;
  for (let seed = 1; seed <= 60; seed++) {
    const { choices, tryOut } = puzzle(seed, 8 + (seed % 4), 3 + (seed % 3));
    const ours = run({ choices, tryOut, largest: 4, budget: 5000 });
    const theirs = exhaustive(choices, tryOut, 4);
    expect(ours.exhaustive).toBe(true);
    expect(ours.sets.map((s) => s.choices.map((c) => c.id).join('+')).sort()).toEqual(theirs);
    if (theirs.length > 0) found += 1;
  }
  expect(found).toBeGreaterThan(25);
});

test('on a small budget what it finds still holds, and it says that it did not try all', () => {
  let hit = 0;
  for (let seed = 1; seed <= 30; seed++) {
    const { choices, tryOut } = puzzle(seed, 20, 4);
    const ours = run({ choices, tryOut, largest: 4, budget: 90 });
    expect(ours.tried).toBeLessThanOrEqual(120);
    for (const s of ours.sets) expect(tryOut(s.choices).over.every((v) => v <= 1e-9)).toBe(true);
    if (ours.sets.length > 0) hit += 1;
    else expect(ours.nearest).not.toBeNull();
  }
  expect(hit).toBeGreaterThan(15);
});

test('stopped early it answers with what it has; nothing to mend needs nothing', () => {
  const { choices, tryOut } = puzzle(3, 10, 3);
  let asked = 0;
  const ours = run({ choices, tryOut, largest: 4, budget: 500, stop: () => ++asked > 4 });
  expect(ours.exhaustive).toBe(false);
  expect(ours.tried).toBeLessThan(8);
  expect(run({ choices, tryOut: () => ({ over: [-1] }), largest: 3, budget: 10 }).sets).toHaveLength(1);
});

test('further sets leave out what they would not need', () => {
  const choices = ['a', 'b', 'c'].map((id) => ({ id, group: id }));
  const tryOut = (set: readonly Choice[]): Outcome => ({
    over: [set.some((c) => c.id === 'a') || set.length > 1 ? 0 : 1],
  });
  expect(
    run({ choices, tryOut, largest: 3, budget: 50, further: 10 }).sets.map((s) => s.choices.map((c) => c.id).join('+')),
  ).toEqual(['a', 'b+c']);
});

test('the front is what nothing beats', () => {
  const points = [
    [1, 5],
    [2, 2],
    [5, 1],
    [3, 3],
    [2, 2],
  ];
  expect(front(points, [(p) => p[0]!, (p) => p[1]!])).toEqual([
    [1, 5],
    [2, 2],
    [5, 1],
    [2, 2],
  ]);
});
