import { cureHours, largestBatch, layingHours, layingRate, planBatches, workingMinutes } from '.';

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
  const plan = planBatches(mass, 90, 24, celsius, rate);
  expect(plan.batches.reduce((a, b) => a + b, 0)).toBeCloseTo(mass, 9);
  for (const b of plan.batches) {
    expect(b).toBeGreaterThan(0);
    expect(b).toBeLessThanOrEqual(rate * (workingMinutes(90, celsius, b) - 3) + 1e-9);
  }
  const last = plan.batches[plan.batches.length - 1]!;
  expect(last).toBeLessThanOrEqual(plan.batches[0]! + 1e-9);
});

test('the largest batch is placed as it stops working: a small lump for its whole time, a large one for seven tenths', () => {
  // 2 g a minute for 87 minutes is 174 g, a small lump; 3 g would be 261 g in that time, but only 180 g in a large
  // lump's 60 minutes: the batch stops where lumps become large.
  expect(largestBatch(90, 21, 0.002)).toBeCloseTo(0.174, 9);
  expect(largestBatch(90, 21, 0.003)).toBeCloseTo(0.2, 9);
  expect(largestBatch(90, 21, 0.025)).toBeCloseTo(0.025 * (63 - 3), 9);
});

test('3 kg at 21 degrees and 25 g a minute: two batches, two hours at it, hard a day later; at 31 half of that day', () => {
  const plan = planBatches(3, 90, 24, 21, 0.025);
  expect(plan.batches).toEqual([expect.closeTo(1.5, 9), expect.closeTo(1.5, 9)]);
  expect([plan.workingMinutes, plan.usableMinutes, plan.cureHours].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
    63, 60, 24,
  ]);
  expect(plan.placingMinutes).toBeCloseTo(120 + 2 * 3, 9);
  expect(planBatches(3, 90, 24, 31, 0.025).cureHours).toBeCloseTo(12, 9);
  expect(planBatches(0, 90, 24, 21, 0.025).batches).toHaveLength(1);
});

test('laying: 25 g a minute of paper or earthen clay, 15 of what is kneaded first, 60 in slabs off the block', () => {
  expect(layingHours(3, 'dries')).toBeCloseTo(3 / 0.025 / 60, 9);
  expect(layingHours(0.9, 'sets')).toBeCloseTo(1, 9);
  expect(layingHours(0.9, 'bakes')).toBeCloseTo(1, 9);
  expect(layingHours(3.6, 'never')).toBeCloseTo(1, 9);
  expect(layingRate('damp')).toBe(0.06);
});
