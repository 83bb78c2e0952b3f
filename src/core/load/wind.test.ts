import { convexHull, gravity } from '../quantity';
import { hungInWind, stanceInWind, stanceOn, windOn, windPressure, windSides } from '.';

/** A board of 0.6 by 0.6 m, 60 kg, half a square metre seen from every side, its middle 1 m up. */
const board = convexHull([
  [-0.3, -0.3],
  [0.3, -0.3],
  [0.3, 0.3],
  [-0.3, 0.3],
]);
const stance = (mass = 60) => stanceOn(board, mass, [0, 0, 0.8], 0, 2);
const sides = (gust: number, area = 0.5) =>
  windOn(
    gust,
    windSides.map(() => ({ area, at: [0, 0, 1] as const })),
  );
const judged = (gust: number, mass = 60, standing: 'flat' | 'casters' = 'flat') =>
  stanceInWind(sides(gust), stance(mass), 0, standing, [0, 0], 2);

test('a gale presses with half a kilonewton on a square metre: 1.3 x 0.625 v2', () => {
  expect(windPressure(25)).toBeCloseTo(507.8, 1);
  expect(windPressure(15)).toBeCloseTo(182.8, 1);
  expect(windPressure(35)).toBeCloseTo(995.3, 1);
  expect(sides(25)[0]!.force).toBeCloseTo(253.9, 1);
});

test('worked by hand: what tips it, slides it, and each way of holding it', () => {
  // Asked 1.5 x 253.9 x 1 = 380.9 Nm; its weight holds 60 x 9.81 x 0.3 = 176.5.
  const w = judged(25);
  expect(w.tips).toBeCloseTo(380.86 / 176.52, 2);
  expect(w.slides).toBeCloseTo(380.86 / (0.4 * 60 * gravity), 3);
  expect(w.ballast).toBeCloseTo((380.86 - 176.52) / (gravity * 0.3), 0);
  expect(w.guyPull).toBeCloseTo((380.86 / 2) * Math.SQRT2, 0);
  expect(w.anchorPull).toBeCloseTo((380.86 - 176.52) / 0.6, 0);
});

test('the weight it asks for is just enough', () => {
  const { ballast } = judged(25);
  const held = stanceInWind(sides(25), stanceOn(board, 60 + ballast, [0, 0, 0.4], 0, 2), 0, 'flat', [0, 0], 2);
  expect(Math.max(held.tips, held.slides)).toBeCloseTo(1, 2);
  expect(held.ballast).toBeLessThan(0.1);
  // Wide and light it slides before it tips: then it is friction that asks for the weight.
  const wide = convexHull(board.map(([x, y]) => [x * 8, y * 8] as const));
  const light = stanceInWind(sides(25), stanceOn(wide, 20, [0, 0, 0.8], 0, 2), 0, 'flat', [0, 0], 2);
  expect(light.tips).toBeLessThan(1);
  expect(light.slides).toBeGreaterThan(1);
  expect(light.ballast).toBeCloseTo(380.86 / 0.4 / gravity - 20, 0);
});

test('twice the wind asks four times as much; half the weight holds half; from a corner it turns about neither side harder', () => {
  expect(judged(30).tips / judged(15).tips).toBeCloseTo(4, 6);
  expect(judged(25, 30).tips / judged(25).tips).toBeCloseTo(2, 6);
  const straight = stanceInWind(
    sides(25).filter((_, i) => i % 2 === 0),
    stance(),
    0,
    'flat',
    [0, 0],
    2,
  );
  const corner = stanceInWind(
    sides(25).filter((_, i) => i % 2 === 1),
    stance(),
    0,
    'flat',
    [0, 0],
    2,
  );
  expect(corner.tips / straight.tips).toBeCloseTo(Math.SQRT1_2, 6);
});

test('on casters it rolls away; what stands on nothing falls', () => {
  expect(judged(15, 60, 'casters').slides).toBeGreaterThan(3);
  const line = stanceOn([[0, 0]], 60, [0, 0, 0.8], 0, 2);
  expect(stanceInWind(sides(15), line, 0, 'own', [0, 0], 2)).toMatchObject({ tips: 99, ballast: Infinity });
});

test('hung it swings until wind and weight are in line', () => {
  const { swing, pull } = hungInWind(sides(25), 253.9 / gravity);
  expect(swing).toBeCloseTo(45, 1);
  expect(pull).toBeCloseTo(253.9 * Math.SQRT2, 0);
});
