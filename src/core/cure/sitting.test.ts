import { batchSittings, workingMinutes } from '.';

const at = { mass: 1, reference: 90, celsius: 21, rate: 0.025, from: 0, until: 4 * 3600 };

test('by hand: 250 g kneaded in 5 minutes and placed in 10, at 25 g a minute; the last is smaller', () => {
  const plan = batchSittings({ ...at, mass: 0.6 });
  expect(plan.each).toBe(0.25);
  expect(plan.working / 60).toBeCloseTo(63, 9);
  expect(plan.batches.map((b) => b.mass)).toEqual([0.25, 0.25, expect.closeTo(0.1, 9)]);
  expect(plan.batches[1]?.mixAt).toBeCloseTo(15 * 60, 6);
  expect(plan.batches[2]?.placedBy).toBeCloseTo((30 + 3 + 4) * 60, 6);
  expect(plan.left).toBeCloseTo(0, 9);
});

test.each([
  [15, 0.008, 1],
  [21, 0.025, 3],
  [30, 0.025, 3],
  [35, 0.002, 0.4],
])(
  'at %d degrees and %d kg a minute every batch is placed while it works and before the sitting ends',
  (celsius, rate, mass) => {
    const plan = batchSittings({ ...at, celsius, rate, mass });
    expect(plan.batches.reduce((sum, b) => sum + b.mass, 0) + plan.left).toBeCloseTo(mass, 9);
    for (const b of plan.batches) {
      expect(b.placedBy).toBeLessThanOrEqual(at.until + 1e-6);
      expect(b.placedBy).toBeLessThanOrEqual(b.mixAt + workingMinutes(90, celsius, b.mass) * 60 + 1e-6);
      expect(b.mixAt).toBeLessThanOrEqual(plan.lastMix + 1e-6);
    }
    plan.batches.forEach((b, i) => {
      if (i > 0) expect(b.mixAt).toBeCloseTo(plan.batches[i - 1]?.placedBy ?? 0, 6);
    });
  },
);

test('where the evening is nearly over nothing is mixed', () => {
  const plan = batchSittings({ ...at, until: 200 });
  expect(plan.batches).toEqual([]);
  expect(plan.left).toBe(1);
});
