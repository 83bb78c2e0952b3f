import { cureHours, kneadingMinutes, largestBatch, layingHours, layingRate, planBatches, workingMinutes } from '.';

test('working time halves for every ten degrees, and a large lump warms itself', () => {
  expect(workingMinutes(90, 21, 0.1)).toBe(90);
  expect(workingMinutes(90, 31, 0.1)).toBeCloseTo(45, 9);
  expect(workingMinutes(90, 11, 0.1)).toBeCloseTo(180, 9);
  expect(workingMinutes(90, 21, 0.5)).toBeCloseTo(63, 9);
  expect(cureHours(24, 21)).toBe(24);
});

test.each([
  [21, 0.025, 3],
  [30, 0.025, 3],
  [15, 0.008, 0.9],
  [35, 0.025, 1],
  [21, 0.002, 0.1],
])('batches at %d degrees and %d kg/min add up and fit their time', (celsius, rate, mass) => {
  const plan = planBatches([mass], 90, 24, celsius, rate);
  expect(plan.batches.reduce((a, b) => a + b, 0)).toBeCloseTo(mass, 9);
  for (const b of plan.batches) {
    expect(b).toBeGreaterThan(0);
    expect(b).toBeLessThanOrEqual(0.25 + 1e-9);
    expect(b).toBeLessThanOrEqual(rate * (workingMinutes(90, celsius, b) - kneadingMinutes(b)) + 1e-9);
  }
  const last = plan.batches[plan.batches.length - 1]!;
  expect(last).toBeLessThanOrEqual(plan.batches[0]! + 1e-9);
});

test('a small lump is kneaded in three minutes, the largest a hand kneads at a time in five', () => {
  expect([0.02, 0.1, 0.175, 0.25].map(kneadingMinutes)).toEqual([3, 3, expect.closeTo(4, 9), 5]);
});

test('the largest batch is what a hand kneads at a time, or less where it could not be placed while it works', () => {
  // 2 g a minute: x grams are kneaded in 3 + 2 (x - 100)/150 minutes and placed in x/2, 90 minutes in all.
  const lump = largestBatch(90, 21, 0.002) * 1000;
  expect(3 + (2 * (lump - 100)) / 150 + lump / 2).toBeCloseTo(90, 6);
  // 3 g a minute would place more than 200 g in 90 minutes, but such a lump works for 63: it stops where lumps become large.
  expect(largestBatch(90, 21, 0.003)).toBeCloseTo(0.2, 9);
  // 15 g a minute would place 870 g in a large lump's time: nobody kneads that at a time.
  expect(largestBatch(90, 21, 0.015)).toBe(0.25);
});

test('600 g and 90 g at 21 degrees: three batches and one, kneaded and placed one after another; hard a day later', () => {
  const plan = planBatches([0.6, 0.09], 90, 24, 21, 0.015);
  expect(plan.batches.map((b) => Math.round(b * 1000))).toEqual([250, 250, 100, 90]);
  expect(plan.each).toBe(0.25);
  expect(plan.workingMinutes).toBeCloseTo(63, 9);
  expect(plan.usableMinutes).toBeCloseTo(58, 9);
  // 250 g are placed in 16 min 40 s of them.
  expect(plan.softMinutes).toBeCloseTo(58 - 250 / 15, 9);
  expect(plan.cureHours).toBe(24);
  expect(plan.placingMinutes).toBeCloseTo(690 / 15 + 5 + 5 + 3 + 3, 9);
  expect(planBatches([0.6], 90, 24, 31, 0.015).cureHours).toBeCloseTo(12, 9);
  expect(planBatches([0], 90, 24, 21, 0.015).batches).toHaveLength(1);
});

test('laying: 25 g a minute of paper or earthen clay, 15 of what is kneaded first, 60 in slabs off the block', () => {
  expect(layingHours(3, 'dries')).toBeCloseTo(3 / 0.025 / 60, 9);
  expect(layingHours(0.9, 'sets')).toBeCloseTo(1, 9);
  expect(layingHours(0.9, 'bakes')).toBeCloseTo(1, 9);
  expect(layingHours(3.6, 'never')).toBeCloseTo(1, 9);
  expect(layingRate('damp')).toBe(0.06);
});
