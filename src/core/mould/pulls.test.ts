import type { LogEntry } from '../log';
import { costByLog, pullsExpected, pullsOf } from '.';

const cast = (number: number, detail: 'sharp' | 'softer' | 'gone', weight?: number): LogEntry => ({
  id: `5b0c8f8e-0d2c-4c3e-9a53-5b1f0f6f${String(6000 + number)}`,
  kind: 'pull',
  at: `2026-12-${String(number).padStart(2, '0')}T10:00:00.000Z`,
  data: { number, detail, faults: '', ...(weight === undefined ? {} : { weight }) },
  corrects: null,
});
const wear = { low: 1e-5, nominal: 3e-5, high: 2e-4 };
const depth = 0.0003;

test('without a log the rule of thumb', () => {
  const pulls = pullsOf([]);
  expect(pulls).toEqual({ count: 0, weight: null, sharpUntil: 0, goneAt: null });
  const expected = pullsExpected(depth, wear, pulls);
  expect(expected.low).toBeCloseTo(1.5, 9);
  expect(expected.nominal).toBeCloseTo(10, 9);
});

test('a twelfth that is as sharp as the first: it lasts longer than that', () => {
  const pulls = pullsOf([cast(1, 'sharp', 0.4), cast(12, 'sharp', 0.44), cast(6, 'softer', 0.41)]);
  expect(pulls).toMatchObject({ count: 3, sharpUntil: 12, weight: { low: 0.4, nominal: 0.41, high: 0.44 } });
  const expected = pullsExpected(depth, wear, pulls);
  expect(expected.low).toBe(12);
  expect(expected.nominal).toBe(12);
  expect(expected.high).toBeCloseTo(30, 9);
});

test('gone at the fifth, sharp at the second: between the two', () => {
  const pulls = pullsOf([cast(1, 'sharp'), cast(2, 'sharp'), cast(5, 'gone'), cast(7, 'gone')]);
  expect(pullsExpected(depth, wear, pulls)).toEqual({ low: 2, nominal: 5, high: 5 });
});

test('an entry that was struck is not counted', () => {
  const first = cast(1, 'gone');
  const struck: LogEntry = {
    id: '5b0c8f8e-0d2c-4c3e-9a53-5b1f0f6f7999',
    kind: 'void',
    at: '2026-12-09T10:00:00.000Z',
    data: {},
    corrects: first.id,
  };
  expect(pullsOf([first, struck]).count).toBe(0);
});

test('casts that were weighed say what one costs: half as heavy again, half as dear again', () => {
  const price = { low: 2, nominal: 4, high: 6 };
  const needs = [{ price }, { price: { low: 0, nominal: 1, high: 3 } }];
  const reckoned = { low: 0.2, nominal: 0.3, high: 0.5 };
  const pulls = pullsOf([cast(1, 'sharp', 0.4), cast(2, 'sharp', 0.45), cast(3, 'sharp', 0.6)]);
  expect(costByLog(needs, reckoned, pulls)).toEqual({ low: 3, nominal: 7.5, high: 13.5 });
  expect(costByLog(needs, reckoned, pullsOf([cast(1, 'sharp')]))).toBeNull();
  expect(costByLog(needs, { low: 0, nominal: 0, high: 0 }, pulls)).toBeNull();
});
