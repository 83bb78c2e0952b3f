import {
  fitsIn,
  liftOf,
  pushEach,
  recommendedWeight,
  throughDoor,
  turnOver,
  uprightThroughDoor,
  vehicles,
  type Carry,
} from '.';

const box = (width: number, depth: number, height: number, mass = 1): Carry => ({ width, depth, height, mass });

describe('lifting', () => {
  test('twenty-three kilograms at the best there is, and less by each multiplier of the equation', () => {
    // 25 cm away, hands at 75 cm, 25 cm up: every multiplier is 1.
    const best = { hold: 0.25, from: 0.75, rise: 0.25 };
    const whole = recommendedWeight(best);
    expect(recommendedWeight({ ...best, hold: 0.5 }) / whole).toBeCloseTo(0.5, 9);
    expect(recommendedWeight({ ...best, from: 0 }) / whole).toBeCloseTo(1 - 0.003 * 75, 9);
    expect(recommendedWeight({ ...best, rise: 1 }) / whole).toBeCloseTo((0.82 + 4.5 / 100) / (0.82 + 4.5 / 25), 9);
    // Past what arms reach nothing is recommended.
    expect(recommendedWeight({ ...best, hold: 0.64 })).toBe(0);
    expect(recommendedWeight({ ...best, from: 1.76 })).toBe(0);
  });
  test('the wider the piece, the further off the hands, and the less one person should take; past 86 cm no less', () => {
    const limit = (wide: number) => liftOf(box(wide, wide, 0.5)).limit;
    // Hands at 20 cm and half the width: 25 cm off at 10 cm, 40 at 40.
    expect(limit(0.4) / limit(0.1)).toBeCloseTo(0.25 / 0.4, 9);
    expect(limit(0.05)).toBe(limit(0.1));
    expect(limit(0.9)).toBe(limit(0.86));
  });
  test('two lift two thirds of what each would alone, three half of it; past that it wants something else', () => {
    const alone = liftOf(box(0.3, 0.3, 0.5)).limit;
    const people = (share: number) => liftOf(box(0.3, 0.3, 0.5, alone * share)).people;
    expect([0.2, 1, 1.01, 4 / 3, 1.34, 1.5, 1.51, 4].map(people)).toEqual([1, 1, 2, 2, 3, 3, Infinity, Infinity]);
    // By hand: held 35 cm off, from 25 cm up to a table: 23 x 25/35 x 0.85 x 0.88 x 0.95 = 11.67 kg; two bear 15.6, three 17.5.
    expect(alone).toBeCloseTo(11.67, 1);
    expect([15.5, 15.7, 17.4, 17.6].map((kg) => liftOf(box(0.3, 0.3, 0.5, kg)).people)).toEqual([2, 3, 3, Infinity]);
  });
});

describe('doors and vehicles', () => {
  const door = { width: 0.76, height: 1.98 };
  test('three centimetres are kept free, on both sides of the opening', () => {
    expect(throughDoor(box(0.729, 2.5, 1.949), door)).toBe(true);
    expect(throughDoor(box(0.731, 2.5, 1.949), door)).toBe(false);
    expect(throughDoor(box(0.729, 2.5, 1.951), door)).toBe(false);
    expect(uprightThroughDoor(box(0.9, 0.729, 1.949), door)).toBe(true);
    expect(uprightThroughDoor(box(0.9, 0.731, 1.9), door)).toBe(false);
    expect(uprightThroughDoor(box(0.9, 0.7, 1.951), door)).toBe(false);
  });
  test('four centimetres in a vehicle, and it is loaded through its opening', () => {
    const van = vehicles.find((v) => v.id === 'small-van')!;
    // 1.8 by 1.2 inside and 1.15 high, through 1.15 by 1.1.
    expect(fitsIn(box(1.759, 1.109, 1.059), van)).toBe(true);
    expect(fitsIn(box(1.109, 1.759, 1.059), van)).toBe(true);
    expect(fitsIn(box(1.761, 1.1, 1), van)).toBe(false);
    expect(fitsIn(box(1.7, 1.111, 1), van)).toBe(false);
    expect(fitsIn(box(1.7, 1.1, 1.061), van)).toBe(false);
  });
});

test('two people push 250 N each, and no more is asked of anybody', () => expect(pushEach).toBe(250));

test('turned over on a bench half of it is lifted: by hand, hands 300 mm off, up as high as it is broad', () => {
  const limit = 23 * (25 / 30) * (0.82 + 4.5 / 40) * 0.95;
  const turn = (mass: number) => turnOver({ mass, breadth: 0.4 });
  expect(turn(1).limit).toBeCloseTo(2 * limit, 9);
  expect([limit * 1.9, limit * 2.6, limit * 2.9, limit * 3.1].map((kg) => turn(kg).people)).toEqual([
    1,
    2,
    3,
    Infinity,
  ]);
});
