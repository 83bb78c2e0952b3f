import type { Build, StepKind } from '../build';
import type { Weighing } from '../drying';
import { secondsOf } from '../quantity';
import type { Step } from './jobs';
import type { TimedStep } from './pace';
import type { Happened } from './plan';

/** The bench log as it is read: append-only, a correction a new entry that points at the old. */
export const logKinds = [
  'weigh-in',
  'shrink-mark',
  'photo',
  'note',
  'crack',
  'repair',
  'room',
  'step',
  'used',
  'clock',
  'clock-stop',
  'void',
] as const;
export type LogKind = (typeof logKinds)[number];

export interface LogEntry {
  readonly id: string;
  readonly kind: LogKind;
  readonly at: string;
  readonly data: Readonly<Record<string, unknown>>;
  readonly corrects: string | null;
}

export interface ReadEntry extends LogEntry {
  /** A later entry corrects or voids it. */
  readonly struck: boolean;
}

/**
 * The log as it reads today: corrected entries struck, a correction standing at the time of what it corrects
 * (it was that reading), strike-outs themselves not shown.
 */
export function effectiveLog(entries: readonly LogEntry[]): ReadEntry[] {
  const byId = new Map(entries.map((e) => [e.id, e]));
  const struck = new Set(entries.map((e) => e.corrects).filter((id): id is string => id !== null));
  const when = (e: LogEntry): string => {
    const seen = new Set<string>();
    let at = e;
    while (at.corrects !== null && !seen.has(at.id)) {
      seen.add(at.id);
      const earlier = byId.get(at.corrects);
      if (!earlier) break;
      at = earlier;
    }
    return at.at;
  };
  return entries
    .filter((e) => e.kind !== 'void')
    .map((e) => ({ ...e, at: when(e), struck: struck.has(e.id) }))
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

const standing = (entries: readonly ReadEntry[], kind: LogKind) => entries.filter((e) => e.kind === kind && !e.struck);

/** Steps that were done, each once, its last entry counting. */
export function happenedOf(entries: readonly ReadEntry[]): Happened[] {
  const out = new Map<string, Happened>();
  for (const e of standing(entries, 'step')) {
    const until = secondsOf(e.at),
      hours = Number(e.data['took'] ?? e.data['usual'] ?? 0);
    if (Number.isFinite(until))
      out.set(String(e.data['step']), {
        step: String(e.data['step']),
        from: until - Math.max(0.05, hours) * 3600,
        until,
      });
  }
  return [...out.values()];
}

/** What a log entry says of a step that is done. */
export function stepData(
  s: Pick<Step, 'id' | 'name' | 'kind' | 'hours' | 'clay'>,
  took: number | null,
): Record<string, unknown> {
  return {
    step: s.id,
    name: s.name,
    kind: s.kind,
    usual: Math.max(0.01, Math.round(s.hours * 1000) / 1000),
    ...(took ? { took } : {}),
    ...(s.clay > 0 ? { clay: Math.round(s.clay * 1e5) / 1e5 } : {}),
  };
}

/** Steps whose hours were told, against the usual ones. */
export function timedOf(entries: readonly ReadEntry[]): TimedStep[] {
  return standing(entries, 'step')
    .filter((e) => Number(e.data['took']) > 0 && Number(e.data['usual']) > 0)
    .map((e) => ({
      kind: String(e.data['kind']) as StepKind,
      usual: Number(e.data['usual']),
      took: Number(e.data['took']),
    }));
}

/** The moment the clay went on: the first laying that was logged, the earliest other entry of that day, or the hour it was to go on. */
export function clayWentOn(build: Build, entries: readonly ReadEntry[]): number {
  const laid = happenedOf(entries)
    .filter((h) => h.step.startsWith('lay/'))
    .reduce((m, h) => Math.min(m, h.until), Infinity);
  if (laid < Infinity) return laid;
  const day = build.brief.startDate;
  const first = entries.find((e) => !e.struck && e.kind !== 'step' && e.at.slice(0, 10) === day);
  return first ? secondsOf(first.at) : secondsOf(day) + build.stages.startHour * 3600;
}

/** Weighings that stand, as net weight against seconds since the clay went on. */
export function readingsOf(entries: readonly ReadEntry[], firstAt: number): Weighing[] {
  return standing(entries, 'weigh-in')
    .map((e) => ({
      time: secondsOf(e.at) - firstAt,
      mass: Number(e.data['gross']) - Number(e.data['tare']),
    }))
    .filter((r) => Number.isFinite(r.time) && Number.isFinite(r.mass))
    .sort((a, b) => a.time - b.time);
}

export interface Clock {
  readonly id: string;
  readonly name: string;
  /** Seconds since the epoch. */
  readonly started: number;
  readonly seconds: number;
  readonly stopped: number | null;
}

/** Clocks that were set, oldest first: when they began is kept, so that nothing they lived through moves them. */
export function clocksOf(entries: readonly LogEntry[]): Clock[] {
  const stopped = new Map(
    entries.filter((e) => e.kind === 'clock-stop').map((e) => [String(e.data['clock']), secondsOf(e.at)]),
  );
  const gone = new Set(entries.filter((e) => e.kind === 'void').map((e) => e.corrects));
  return entries
    .filter((e) => e.kind === 'clock' && !gone.has(e.id))
    .map((e) => ({
      id: e.id,
      name: String(e.data['name']),
      started: secondsOf(e.at),
      seconds: Number(e.data['seconds']),
      stopped: stopped.get(e.id) ?? null,
    }))
    .sort((a, b) => a.started - b.started);
}
