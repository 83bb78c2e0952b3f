import { newBust } from '../document';
import {
  clayWentOn,
  clocksOf,
  firstClay,
  effectiveLog,
  happenedOf,
  standing,
  stepData,
  timedOf,
  weighingsOf,
  type LogEntry,
  type LogKind,
} from '../log';

const entry = (
  id: string,
  kind: LogKind,
  at: string,
  data: Record<string, unknown> = {},
  corrects: string | null = null,
): LogEntry => ({ id, kind, at, data, corrects }) as unknown as LogEntry;
const seconds = (t: string) => Date.parse(t) / 1000;

test('a step is done when it was last said to be; taken back, it is not', () => {
  const log = [
    entry('a', 'step', '2026-12-01T20:00:00Z', { step: 'bulk', usual: 2, took: 3, kind: 'bulk' }),
    entry('b', 'step', '2026-12-02T20:00:00Z', { step: 'bulk', usual: 2, kind: 'bulk' }),
    entry('c', 'step', '2026-12-02T21:00:00Z', { step: 'props', usual: 1, took: 1, kind: 'props' }),
    entry('d', 'void', '2026-12-02T22:00:00Z', {}, 'c'),
  ];
  const read = effectiveLog(log);
  // What strikes an entry is not shown; what it struck is, as struck.
  expect(read.map((e) => [e.id, e.struck])).toEqual([
    ['a', false],
    ['b', false],
    ['c', true],
  ]);
  expect(happenedOf(read)).toEqual([
    { step: 'bulk', from: seconds('2026-12-02T18:00:00Z'), until: seconds('2026-12-02T20:00:00Z') },
  ]);
  expect(timedOf(read)).toEqual([{ kind: 'bulk', usual: 2, took: 3 }]);
});

test('put right, an entry stands at the time of the one it corrects, unless its time was put right too', () => {
  const first = entry('a', 'weigh-in', '2026-12-02T09:00:00.000Z', { gross: 8, tare: 1 });
  const digit = entry('b', 'weigh-in', '2026-12-03T12:00:00.000Z', { gross: 7, tare: 1 }, 'a');
  const times = (log: readonly LogEntry[]) => standing(effectiveLog(log), 'weigh-in').map((e) => [e.id, e.at]);
  expect(times([first, digit])).toEqual([['b', '2026-12-02T09:00:00.000Z']]);
  const night = { ...digit, at: '2026-12-01T21:00:00.000Z', ownTime: true };
  expect(times([first, night])).toEqual([['b', '2026-12-01T21:00:00.000Z']]);
  // Put right once more, only in its digits: the time that was put right stays.
  const again = entry('c', 'weigh-in', '2026-12-04T12:00:00.000Z', { gross: 7.1, tare: 1 }, 'b');
  expect(times([first, night, again])).toEqual([['c', '2026-12-01T21:00:00.000Z']]);
});

test('the clay went on when it was first laid, else at the first entry of its day, else at its hour', () => {
  const build = newBust('b', '2026-12-01');
  const lay = entry('l', 'step', '2026-12-03T20:00:00Z', { step: 'lay/head/1', usual: 1, kind: 'clay' });
  const note = entry('n', 'note', '2026-12-01T11:00:00Z', { text: 'clay' });
  expect(clayWentOn(build, effectiveLog([note, lay]))).toBe(seconds('2026-12-03T20:00:00Z'));
  const weighed = entry('w', 'weigh-in', '2026-12-02T11:00:00Z', { gross: 3, tare: 1 });
  expect(clayWentOn(build, effectiveLog([note, weighed]))).toBe(seconds('2026-12-01T11:00:00Z'));
  expect(clayWentOn(build, effectiveLog([note]))).toBeNull();
  expect(firstClay(build, [])).toBe(seconds('2026-12-01T09:00:00Z'));
});

test('clocks run from when they were set, whatever is read later; stopped or struck, they do not', () => {
  const log = [
    entry('b', 'clock', '2026-12-01T20:10:00Z', { name: 'Coat', seconds: 1800 }),
    entry('a', 'clock', '2026-12-01T20:00:00Z', { name: 'Batch', seconds: 3600 }),
    entry('c', 'clock', '2026-12-01T20:20:00Z', { name: 'Slip', seconds: 60 }),
    entry('s', 'clock-stop', '2026-12-01T20:40:00Z', { clock: 'b' }),
    entry('v', 'void', '2026-12-01T20:41:00Z', {}, 'c'),
  ];
  expect(clocksOf(log)).toEqual([
    { id: 'a', name: 'Batch', started: seconds('2026-12-01T20:00:00Z'), seconds: 3600, stopped: null },
    {
      id: 'b',
      name: 'Coat',
      started: seconds('2026-12-01T20:10:00Z'),
      seconds: 1800,
      stopped: seconds('2026-12-01T20:40:00Z'),
    },
  ]);
});

test('what is logged of a step carries its clay and its hours only where there are any', () => {
  const step = { id: 'lay/head/1', name: 'Lay', kind: 'clay' as const, hours: 1.23456, clay: 0.5 };
  expect(stepData(step, 2, null)).toEqual({
    step: 'lay/head/1',
    name: 'Lay',
    kind: 'clay',
    usual: 1.235,
    took: 2,
    clay: 0.5,
  });
  expect(stepData({ ...step, hours: 0, clay: 0 }, null, null)).toEqual({
    step: 'lay/head/1',
    name: 'Lay',
    kind: 'clay',
    usual: 0.01,
  });
});

test('weighed before the clay went on: asked about, and no reading of how it dries', () => {
  const lay = entry('l', 'step', '2026-12-02T20:00:00Z', { step: 'lay/head/1', usual: 1, kind: 'clay' });
  const at = (id: string, when: string, gross: number) =>
    entry(id, 'weigh-in', when, { gross, tare: 1, finest: 0.005 });
  const log = effectiveLog([
    at('bare', '2026-12-02T08:00:00Z', 3.2),
    lay,
    at('wet', '2026-12-02T20:30:00Z', 6.4),
    at('night', '2026-12-03T08:00:00Z', 6.1),
  ]);
  const read = weighingsOf(log, firstClay(newBust('b', '2026-12-01'), log));
  expect(read.readings.map((r) => [r.time, Math.round(r.mass * 1000)])).toEqual([
    [1800, 5400],
    [12 * 3600, 5100],
  ]);
  expect(read.before.map((e) => e.id)).toEqual(['bare']);
  expect([read.tare, read.finest]).toEqual([1, 0.005]);
});
