import { bakingPlan, minutesFor, warmingPlan } from '.';

test('a lump of 0.2 m takes about fifteen hours however strong the heater', () => {
  // 0.8 x 0.1^2 / 1.5e-7 = 53 333 s.
  const strong = warmingPlan(11.6, 1450, 20, 40, 5000, 0.2);
  expect(strong.soaking).toBeCloseTo(53_333, 0);
  expect(strong.time / 3600).toBeCloseTo(14.8, 1);
  expect(strong.governs).toBe('lump');
});

test('2 kg in lumps of 50 mm take about an hour', () => {
  // 0.8 x 0.025^2 / 1.5e-7 = 3333 s; 2 x 1600 x 20 = 64 kJ from 0.4 x 150 W takes 1067 s.
  const plan = warmingPlan(2, 1450, 20, 40, 150, 0.05);
  expect(plan.energy).toBe(64_000);
  expect(plan.heating).toBeCloseTo(1066.7, 0);
  expect(plan.time).toBeCloseTo(3333, 0);
  expect(plan.lumps).toBe(12);
  // Lumps that are warm when the heater is: 2 sqrt(1066.7 x 1.5e-7 / 0.8) = 28 mm.
  expect(plan.usefulLump).toBeCloseTo(0.0283, 4);
});

test('a weak heater decides; nothing to warm takes no time; over fifty it burns', () => {
  expect(warmingPlan(20, 1450, 20, 40, 60, 0.03)).toMatchObject({ governs: 'heater', burns: false });
  expect(warmingPlan(20, 1450, 40, 40, 60, 0.03).time).toBe(0);
  expect(warmingPlan(1, 1450, 20, 55, 60, 0.03).burns).toBe(true);
});

test('a quarter of an hour for each quarter inch, at every bake, of all that is there by then', () => {
  expect([0.003, 0.00635, 0.0064, 0.0127, 0.02].map(minutesFor)).toEqual([15, 15, 30, 30, 60]);
  const plan = bakingPlan([0.006, 0.004, 0.005], 135, [], 0.02);
  expect(plan.bakes.map((b) => [b.thickest, b.minutes])).toEqual([
    [0.006, 15],
    [0.01, 30],
    [0.015, 45],
  ]);
  expect(plan.minutes).toBe(90);
});

test('what cannot stand the oven is named', () => {
  const inside = [
    { name: 'foam', standsTo: 75 },
    { name: 'foil', standsTo: 600 },
    { name: 'tape', standsTo: 120 },
  ];
  expect(bakingPlan([0.005], 135, inside, 0.02).cannot.map((c) => c.name)).toEqual(['foam', 'tape']);
  expect(bakingPlan([0.005], 110, inside, 0.02).cannot.map((c) => c.name)).toEqual(['foam']);
});
