import { judged } from '../../../tests/support/judged';
import { lamplighter } from '../../server/demo-builds';
import type { Ledger } from '../load';
import { weightRange } from './weight-range';

const ledger = {
  wet: 10,
  dry: 7,
  clayWet: 6,
  clayDry: 3,
  items: [
    { kind: 'clay', wet: 6, dry: 3 },
    { kind: 'bulk', wet: 2, dry: 2 },
    { kind: 'member', wet: 2, dry: 2 },
  ],
} as unknown as Ledger;

test('weight spans what hands lay and pack: 15 % of the clay and a quarter of the filling, by root sum of squares', () => {
  const { wet, dry } = weightRange(ledger, 0, false);
  expect(wet.nominal).toBe(10);
  expect(wet.high - 10).toBeCloseTo(Math.hypot(0.9, 0.5), 12);
  expect(10 - wet.low).toBeCloseTo(Math.hypot(0.9, 0.5), 12);
  expect(dry.high - 7).toBeCloseTo(Math.hypot(0.45, 0.5), 12);
  // The grid's own error comes to that; clay all through is as thick as the form.
  expect(weightRange(ledger, 1, false).wet.high - 10).toBeCloseTo(Math.hypot(0.9, 0.5, 1), 12);
  expect(weightRange({ ...ledger, items: [] }, 0.2, true).wet.high - 10).toBeCloseTo(0.2, 12);
});

test('of a bust it is told with its weight, some tenths of a kilo either way', () => {
  const { report } = judged(lamplighter('2026-12-01', null));
  const { wetRange: wet, weightRange: dry } = report;
  expect(wet.nominal).toBe(report.summary.wet);
  expect(dry.nominal).toBe(report.summary.dry);
  const clay = 0.15 * report.ledger.clayWet;
  expect(wet.high - wet.nominal).toBeGreaterThan(clay);
  expect(wet.high - wet.nominal).toBeLessThan(1.4 * clay);
});
