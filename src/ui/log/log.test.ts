import { asBriefed } from '../../core/evaluate';
import { newBust } from '../../core/document';
import { Evaluator } from '../../core/evaluate';
import { effectiveLog, weighingsOf, type LogEntry } from '../../core/log';

const entry = (
  id: string,
  at: string,
  gross: number,
  corrects: string | null = null,
  kind: LogEntry['kind'] = 'weigh-in',
): LogEntry => ({ id, kind, at, data: { gross, tare: 1 }, corrects }) as LogEntry;

test('a correction stands at the time of what it corrects; the old one stays, struck', () => {
  const read = effectiveLog([
    entry('a', '2026-12-01T09:00:00Z', 8),
    entry('b', '2026-12-02T09:00:00Z', 7),
    entry('c', '2026-12-03T10:00:00Z', 7.5, 'a'),
    entry('d', '2026-12-03T11:00:00Z', 7.4, 'c'),
  ]);
  expect(read.map((e) => [e.id, e.struck])).toEqual([
    ['a', true],
    ['c', true],
    ['d', false],
    ['b', false],
  ]);
  expect(weighingsOf(read, Date.parse('2026-12-01T09:00:00Z') / 1000).readings).toEqual([
    { time: 0, mass: 6.4 },
    { time: 86400, mass: 6 },
  ]);
});

test('a struck entry is not counted, and the striking is not shown', () => {
  const read = effectiveLog([
    entry('a', '2026-12-01T09:00:00Z', 8),
    entry('v', '2026-12-01T10:00:00Z', 0, 'a', 'void'),
  ]);
  expect(read).toHaveLength(1);
  expect(weighingsOf(read, 0).readings).toEqual([]);
});

test('entries that correct each other in a ring do not hang', () => {
  expect(
    effectiveLog([entry('a', '2026-12-01T09:00:00Z', 8, 'b'), entry('b', '2026-12-01T10:00:00Z', 8, 'a')]),
  ).toHaveLength(2);
});

test('the forecast starts at the wet weight less the board, ends dry, and lies in its band', () => {
  const build = newBust('b', '2026-12-01');
  const report = new Evaluator().evaluate(asBriefed(build), { ranges: true });
  if (!report.ok) throw new Error(report.message);
  const curve = report.value.scale?.curve ?? [];
  const board = report.value.ledger.items.find((i) => i.kind === 'base')?.wet ?? 0;
  // Solids and water are tabulated apart, so they meet the density as laid to a quarter of a percent.
  expect(Math.abs(curve[0]!.at / (report.value.ledger.wet - board) - 1)).toBeLessThan(0.003);
  expect(curve[curve.length - 1]!.at).toBeLessThan(curve[0]!.at - 1);
  for (const p of curve) {
    expect(p.low).toBeLessThanOrEqual(p.at + 1e-9);
    expect(p.high).toBeGreaterThanOrEqual(p.at - 1e-9);
  }
});
