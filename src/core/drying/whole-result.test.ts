import { middle, stage, whole } from '../../../tests/support/three-cells';
import { curveAt, nearestCell, slicePlane } from '.';

test('a cut across each axis shows the water of the cells it passes, and nothing where there is no clay', () => {
  const level = slicePlane(whole, 1, 2, 0);
  expect([level.width, level.height]).toEqual([4, 3]);
  expect([...level.values].map((v) => Math.round(v * 10) / 10)).toEqual([
    -1, -1, -1, -1, -1, 0.5, 0.4, -1, -1, -1, -1, -1,
  ]);
  const front = slicePlane(whole, 1, 1, 1);
  expect([front.width, front.height]).toEqual([4, 2]);
  expect(front.values[2 + 4]).toBeCloseTo(0.8, 6);
  expect(slicePlane(whole, 1, 0, 2).values[1]).toBeCloseTo(0.4, 6);
  expect(slicePlane(whole, 9, 0, 2)).toMatchObject({ width: 0, height: 0 });
});

describe('a place', () => {
  test('the cell it is in, else the nearest within three; further off there is none', () => {
    expect(nearestCell(stage, middle(1, 1, 0))).toBe(0);
    expect(nearestCell(stage, middle(2, 1, 1))).toBe(2);
    expect(nearestCell(stage, middle(0, 1, 0))).toBe(0);
    expect(nearestCell(stage, [-0.019, 0.015, 0.005])).toBe(0);
    expect(nearestCell(stage, [0.5, 0.5, 0.5])).toBe(-1);
  });
  test('its water from frame to frame', () => {
    expect(curveAt(whole, middle(2, 1, 1)).map((p) => [p.time, p.wet && Math.round(p.wet * 10) / 10])).toEqual([
      [0, 1],
      [5000, 0.8],
      [90_000, 0],
    ]);
    expect(curveAt(whole, [9, 9, 9]).map((p) => p.wet)).toEqual([null, null, null]);
  });
});
