import type { Build } from '../../src/core/document';
import { asBriefed, type Evaluator } from '../../src/core/evaluate';
import { roomAsItIs, type LogEntry, type LogKind } from '../../src/core/log';
import { forecastOf, ResultCache } from '../../src/core/piece';
import { secondsOf } from '../../src/core/quantity';

/** A log entry as a test writes it down. */
export function entry(kind: LogKind, at: number, data: object, more: Partial<LogEntry> = {}): LogEntry {
  const id = `${kind}-${Math.round(at)}`;
  return { id, kind, at: new Date(at * 1000).toISOString(), data, corrects: null, ...more } as unknown as LogEntry;
}

/** When the first clay goes on by the brief. */
export const clayAt = (build: Build): number => secondsOf(build.brief.startDate) + build.stages.startHour * 3600;

/** Weighings as the scale would show them, dried `pace` times as fast as forecast, at these hours after the clay went on. */
export function weighings(evaluator: Evaluator, build: Build, hours: readonly number[], pace = 1): LogEntry[] {
  const piece = evaluator.piece(asBriefed(build));
  if (!piece.ok) throw new Error(piece.message);
  const mass = forecastOf(piece.value, new ResultCache())?.mass({}) ?? (() => 1);
  const start = clayAt(build);
  return hours.map((h) =>
    entry('weigh-in', start + h * 3600, {
      gross: Math.round((mass(h * 3600 * pace) + 1) * 1000) / 1000,
      tare: 1,
      finest: 0.005,
      room: roomAsItIs(build.room),
    }),
  );
}

/** A log of some length: a weighing every few hours, and notes between. */
export function longLog(evaluator: Evaluator, build: Build, entries = 40): LogEntry[] {
  const hours = Array.from({ length: entries / 2 }, (_, i) => 0.2 + i * 5);
  const start = clayAt(build);
  return [
    ...weighings(evaluator, build, hours, 0.9),
    ...hours.map((h) => entry('note', start + h * 3600 + 60, { text: 'looked at it' })),
  ];
}
