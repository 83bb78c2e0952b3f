import { seeded } from '../quantity';
import { costOf, expanded, labelTriangles, relabelled, type LabelInputs } from './labels';

/** Cuts against every labelling there is. */
interface Case {
  readonly inputs: LabelInputs;
  readonly drawable: Uint8Array[];
  readonly weight: number;
}

/** Triangles in a strip, with some more that meet across it. */
function small(seed: number, count: number, labels: number): Case {
  const random = seeded(seed);
  const one: number[] = [],
    other: number[] = [],
    cost: number[] = [];
  for (let i = 1; i < count; i++) {
    one.push(i - 1);
    other.push(i);
    cost.push(0.2 + random());
    if (i > 3 && random() < 0.5) {
      one.push(i - 3);
      other.push(i);
      cost.push(0.2 + random());
    }
  }
  const flags = Array.from({ length: labels }, () => new Uint8Array(count).map(() => (random() < 0.5 ? 1 : 0)));
  const stands = new Uint8Array(count).map(() => (random() < 0.1 ? 1 : 0));
  const kept = one.map((a, e) => !stands[a] && !stands[other[e]!]);
  const only = (list: number[]) => list.filter((_, e) => kept[e]);
  return {
    inputs: {
      areas: new Float64Array(count).map(() => 0.2 + random()),
      stands,
      seams: {
        count: only(one).length,
        one: Uint32Array.from(only(one)),
        other: Uint32Array.from(only(other)),
        cost: Float64Array.from(only(cost)),
      },
    },
    drawable: flags,
    weight: 0.1 + 0.6 * random(),
  };
}

function cheapest({ inputs, drawable, weight }: Case): number {
  const count = inputs.areas.length;
  let best = Infinity;
  for (let n = 0; n < drawable.length ** count; n++) {
    const labels = new Uint8Array(count).map((_, t) => Math.floor(n / drawable.length ** t) % drawable.length);
    best = Math.min(best, costOf(inputs, drawable, labels, weight));
  }
  return best;
}

test('two labels cost what the cheapest of all labellings costs, sixty times', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const it = small(seed, 8 + (seed % 7), 2);
    const found = costOf(it.inputs, it.drawable, labelTriangles(it.inputs, it.drawable, it.weight), it.weight);
    expect(found).toBeCloseTo(cheapest(it), 9);
  }
});

test('three labels cost at most a twentieth more', () => {
  for (let seed = 101; seed <= 130; seed++) {
    const it = small(seed, 8, 3);
    const found = costOf(it.inputs, it.drawable, labelTriangles(it.inputs, it.drawable, it.weight), it.weight);
    expect(found).toBeLessThanOrEqual(cheapest(it) * 1.05 + 1e-12);
  }
});

test('one label is one label', () => {
  const it = small(1, 10, 1);
  expect(new Set(labelTriangles(it.inputs, it.drawable, it.weight))).toEqual(new Set([0]));
});

test('where it has come to, no taking of one label by any triangles lowers the cost', () => {
  for (let seed = 201; seed <= 225; seed++) {
    const it = small(seed, 9, 4);
    const labels = labelTriangles(it.inputs, it.drawable, it.weight);
    const found = costOf(it.inputs, it.drawable, labels, it.weight);
    for (let label = 0; label < 4; label++)
      for (let takers = 0; takers < 2 ** 9; takers++) {
        const other = labels.map((was, t) => ((takers >> t) & 1 ? label : was));
        expect(costOf(it.inputs, it.drawable, other, it.weight)).toBeGreaterThanOrEqual(found - 1e-9);
      }
  }
});

test('one label taken by those whom it lowers the cost for: as cheap as the best of all takings, from anywhere', () => {
  for (let seed = 301; seed <= 340; seed++) {
    const it = small(seed, 9, 4);
    const random = seeded(seed);
    const labels = new Uint8Array(9).map(() => Math.floor(4 * random()));
    for (let label = 0; label < 4; label++) {
      let best = Infinity;
      for (let takers = 0; takers < 2 ** 9; takers++) {
        const other = labels.map((was, t) => ((takers >> t) & 1 ? label : was));
        best = Math.min(best, costOf(it.inputs, it.drawable, other, it.weight));
      }
      const taken = expanded(it.inputs, it.drawable, labels, label, it.weight);
      expect(costOf(it.inputs, it.drawable, taken, it.weight)).toBeCloseTo(best, 9);
    }
  }
});

/** Squares in rows, each beside the next and the one above. */
function squares(side: number, random: () => number): LabelInputs {
  const count = side * side;
  const one: number[] = [],
    other: number[] = [];
  for (let t = 0; t < count; t++)
    for (const [next, there] of [
      [t + 1, t % side < side - 1],
      [t + side, t < count - side],
    ] as const)
      if (there) {
        one.push(t);
        other.push(next);
      }
  return {
    areas: new Float64Array(count).map(() => 0.5 + random()),
    stands: new Uint8Array(count),
    seams: {
      count: one.length,
      one: Uint32Array.from(one),
      other: Uint32Array.from(other),
      cost: Float64Array.from(one, () => 0.5 + random()),
    },
  };
}

test('where some are drawn otherwise, going through what lies about them finds what going through the whole does', () => {
  const side = 90,
    count = side * side;
  const random = seeded(7);
  const inputs = squares(side, random);
  // Quarters, each drawn by one, with specks and a band that two draw.
  const quarter = (t: number) => (t % side < side / 2 ? 0 : 1) + (t < count / 2 ? 0 : 2);
  const drawable = [0, 1, 2, 3].map((label) =>
    new Uint8Array(count).map((_, t) =>
      Number(quarter(t) === label || random() < 0.1 || Math.abs((t % side) - side / 2) < 5),
    ),
  );
  const weight = 0.7;
  const labels = labelTriangles(inputs, drawable, weight);
  const otherwise = Array.from({ length: count }, (_, t) => t).filter(() => random() < 0.01);
  for (const t of otherwise) drawable[labels[t]!]![t] = 1 - drawable[labels[t]!]![t]!;
  let whole = labels,
    cost = costOf(inputs, drawable, labels, weight);
  for (let inVain = 0, label = 0; inVain < 4; label = (label + 1) % 4) {
    const taken = expanded(inputs, drawable, whole, label, weight);
    const now = costOf(inputs, drawable, taken, weight);
    inVain = now < cost - 1e-9 ? 0 : inVain + 1;
    if (inVain === 0) [whole, cost] = [taken, now];
  }
  const before = costOf(inputs, drawable, labels, weight);
  expect(cost).toBeLessThan(before - 1);
  const found = costOf(inputs, drawable, relabelled(inputs, drawable, weight, labels, otherwise), weight);
  expect((found - cost) / (before - cost)).toBeLessThan(0.02);
});

test('what lies farther off keeps its label: a seam that leans stays whole where a piece of it is looked at again', () => {
  const side = 90,
    count = side * side;
  const inputs = squares(side, () => 0.5);
  // Along the first row one label draws from the left to 15, along the last to 75; between them both draw all.
  const only = (t: number, left: boolean) => {
    const x = t % side;
    if (t < side) return x < 15 === left;
    return t < count - side || x < 75 === left;
  };
  const drawable = [true, false].map((left) => new Uint8Array(count).map((_, t) => Number(only(t, left))));
  drawable.push(new Uint8Array(count));
  const labels = new Uint8Array(count).map((_, t) => Number(t % side >= 15 + (60 * Math.floor(t / side)) / (side - 1)));
  // In the middle of the seam one turns out not to be drawn as it was thought.
  const changed = 45 * side + 45;
  drawable[labels[changed]!]![changed] = 0;
  const before = costOf(inputs, drawable, labels, 0.7);
  const after = costOf(inputs, drawable, relabelled(inputs, drawable, 0.7, labels, [changed]), 0.7);
  expect(after).toBeLessThanOrEqual(before);
});
