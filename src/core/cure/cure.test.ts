import { cureHours, planBatches, workingMinutes } from '.';

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
