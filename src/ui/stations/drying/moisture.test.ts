import type { RegionReport } from '../../../core/piece';
import { moistureShare } from './moisture';

/** A coat that falls from w0 to the room's 0.1 in ten days, in a straight line, laid at `start`. */
const day = 86400;
const coat = (start: number, w0: number) => ({
  start,
  course: {
    equilibrium: 0.1,
    history: [
      { time: 0, meanMoisture: w0, surfaceMoisture: w0, massPerArea: 1 },
      { time: 10 * day, meanMoisture: 0.1, surfaceMoisture: 0.1, massPerArea: 1 },
    ],
  },
});
const region = (...coats: ReturnType<typeof coat>[]) => ({ coats }) as unknown as RegionReport;

test('one as laid, nought when it is dry, half in between', () => {
  expect([0, 5, 10].map((d) => moistureShare(region(coat(0, 0.9)), d * day))).toEqual([
    expect.closeTo(1, 9),
    expect.closeTo(0.5, 9),
    expect.closeTo(0, 9),
  ]);
});

test('of several coats the one that lies outermost then', () => {
  const two = region(coat(0, 0.9), coat(4 * day, 0.9));
  expect(moistureShare(two, 3 * day)).toBeCloseTo(0.7, 9);
  expect(moistureShare(two, 4 * day)).toBeCloseTo(1, 9);
});

test('before anything is laid it is as it will be laid; without clay there is none', () => {
  expect(moistureShare(region(coat(2 * day, 0.9)), 0)).toBeCloseTo(1, 9);
  expect(moistureShare(region(), 5)).toBe(0);
});
