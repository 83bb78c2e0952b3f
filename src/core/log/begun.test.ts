import { batchesMixed, begunOf, clayWentOn, effectiveLog, partData, readEntry, type LogEntry } from '.';
import { newBust } from '../document';

const id = (n: number) => `5b0c8f8e-0d2c-4c3e-9a53-5b1f0f6f${String(6000 + n)}`;
const entry = (n: number, kind: string, at: string, data: object, corrects: string | null = null): LogEntry => {
  const read = readEntry({ id: id(n), kind, at: `2026-12-${at}:00Z`, data, corrects });
  if (!read.ok) throw new Error(`${read.path}: ${read.message}`);
  return read.value;
};
const laying = { id: 'lay/legs/1', name: 'Lay the clay on the legs', kind: 'clay' as const, hours: 6, clay: 1.2 };
const part = (worked: number, left: number | null = null) => partData(laying, worked, left, null);
const at = (text: string) => Date.parse(`2026-12-${text}:00Z`) / 1000;

test('hours add up from the first hour worked to the last; the clay goes by the hours', () => {
  const log = [entry(1, 'part', '01T21:00', part(2)), entry(2, 'part', '03T22:00', part(3))];
  expect(begunOf(effectiveLog(log))).toEqual([
    { step: 'lay/legs/1', worked: 5, left: null, clay: 1, from: at('01T19:00'), until: at('03T22:00') },
  ]);
});

test('what is said to be left counts from when it was said', () => {
  const log = [entry(1, 'part', '01T21:00', part(2, 2.5)), entry(2, 'part', '03T22:00', part(1))];
  expect(begunOf(effectiveLog(log))[0]).toMatchObject({ worked: 3, left: 1.5 });
  // 2 of 4.5 hours laid 2/4.5 of it.
  expect(part(2, 2.5).clay).toBeCloseTo((1.2 * 2) / 4.5, 5);
  // Longer than it was to take: all of it.
  expect(part(7).clay).toBe(1.2);
});

test('done, it is not begun; struck, it was not worked at', () => {
  const parts = [entry(1, 'part', '01T21:00', part(2)), entry(2, 'part', '03T22:00', part(3))];
  const done = entry(3, 'step', '05T21:00', { step: 'lay/legs/1', name: 'Lay', kind: 'clay', usual: 6 });
  expect(begunOf(effectiveLog([...parts, done]))).toEqual([]);
  const struck = entry(4, 'void', '04T08:00', {}, id(1));
  expect(begunOf(effectiveLog([...parts, struck]))[0]).toMatchObject({ worked: 3, from: at('03T19:00') });
});

test('the first clay went on when the first part of a laying did', () => {
  const log = effectiveLog([entry(1, 'part', '01T21:00', part(2)), entry(2, 'part', '03T22:00', part(3))]);
  expect(clayWentOn(newBust('B', '2026-12-01'), log)).toBe(at('01T21:00'));
});

test('batches mixed for a step since it was put down last', () => {
  const batch = (n: number, when: string, step: string, mass: number) =>
    entry(n, 'clock', when, { name: `Batch ${n}`, seconds: 3000, batch: { step, mass } });
  const log = [
    batch(1, '01T19:10', 'lay/legs/1', 0.2),
    batch(2, '03T19:10', 'lay/legs/1', 0.18),
    batch(3, '03T19:40', 'lay/tail/1', 0.1),
    batch(4, '03T20:10', 'lay/legs/1', 0.07),
    entry(5, 'void', '03T20:11', {}, id(4)),
  ];
  expect(batchesMixed(log, 'lay/legs/1', at('01T21:00'))).toEqual([0.18]);
  expect(batchesMixed(log, 'lay/legs/1', -Infinity)).toEqual([0.2, 0.18]);
});
