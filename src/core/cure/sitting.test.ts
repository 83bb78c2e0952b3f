import { batchingOf, batchSittings, kneadedClay, mixes, workingMinutes, type MixId } from '.';

const at = { mass: 1, of: kneadedClay(90, 21, 0.025), from: 0, until: 4 * 3600 };

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
    const plan = batchSittings({ ...at, of: kneadedClay(90, celsius, rate), mass });
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

test('by hand: 0.4 kg of gauze in four lots of 120 g, each wetted in half a minute and laid in four of the five it works', () => {
  const plan = batchSittings({ mass: 0.4, of: batchingOf('plaster-gauze', 21), from: 0, until: 3600 });
  expect(plan.batches.map((b) => b.mass)).toEqual([0.12, 0.12, 0.12, expect.closeTo(0.04, 9)]);
  expect(plan.batches[0]).toMatchObject({ mixAt: 0, placedBy: 270, stopAt: 330 });
  expect(plan.batches[3]!.placedBy).toBeCloseTo(3 * 270 + 30 + 80, 6);
});

test('resin at 31 degrees works half as long as at 21, plaster as long', () => {
  const seconds = (id: MixId, celsius: number) => batchingOf(id, celsius).works(0.1) - mixes[id].ready * 60;
  expect(seconds('coating-resin', 31)).toBeCloseTo(seconds('coating-resin', 21) / 2, 6);
  expect(seconds('silicone', 11)).toBeCloseTo(2 * seconds('silicone', 21), 6);
  expect(seconds('plaster', 31)).toBe(seconds('plaster', 21));
});

test.each(Object.keys(mixes) as MixId[])('every batch of %s is on before it goes off, cold and warm', (id) => {
  for (const celsius of [10, 21, 33]) {
    const { batches, left } = batchSittings({ mass: 3, of: batchingOf(id, celsius), from: 0, until: 20 * 3600 });
    expect(batches.reduce((sum, b) => sum + b.mass, 0) + left).toBeCloseTo(3, 9);
    for (const b of batches) expect(b.placedBy).toBeLessThanOrEqual(b.stopAt + 1e-6);
  }
});
