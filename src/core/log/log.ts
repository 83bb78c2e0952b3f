import type { Build, StepKind } from '../document';
import { secondsOf } from '../quantity';
import type { DataOf, EntryOf, LogEntry, LogKind } from './kinds';
import type { RoomAsItWas } from './room-as-it-was';
import { usualFinest } from './weigh-in';

/** The log as it is read: what stands, what was done when, what was weighed, and the room it dried in. */
export type ReadEntry<K extends LogKind = LogKind> = EntryOf<K> & {
  /** A later entry corrects or voids it. */
  readonly struck: boolean;
};

/**
 * The log as it reads today: corrected entries struck, a correction standing at its own time where it was given one and
 * else at that of what it corrects (it was that reading), strike-outs themselves not shown.
 */
export function effectiveLog(entries: readonly LogEntry[]): ReadEntry[] {
  const byId = new Map(entries.map((e) => [e.id, e]));
  const struck = new Set(entries.map((e) => e.corrects).filter((id): id is string => id !== null));
  const when = (e: LogEntry): string => {
    const seen = new Set<string>();
    let at = e;
    while (at.corrects !== null && at.ownTime !== true && !seen.has(at.id)) {
      seen.add(at.id);
      const earlier = byId.get(at.corrects);
      if (!earlier) break;
      at = earlier;
    }
    return at.at;
  };
  return entries
    .filter((e) => e.kind !== 'void')
    .map((e) => ({ ...e, at: when(e), struck: struck.has(e.id) }) as ReadEntry)
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

/** Entries of a kind that stand, oldest first. */
export function standing<K extends LogKind>(entries: readonly ReadEntry[], kind: K): ReadEntry<K>[] {
  return entries.filter((e) => e.kind === kind && !e.struck) as unknown as ReadEntry<K>[];
}

/** The picture that belongs to an entry; null where it has none. */
export function pictureOf(entry: { readonly data: object }): string | null {
  const id = (entry.data as { readonly photoId?: unknown }).photoId;
  return typeof id === 'string' && id !== '' ? id : null;
}

export function lastStanding<K extends LogKind>(entries: readonly ReadEntry[], kind: K): ReadEntry<K> | undefined {
  return standing(entries, kind).pop();
}

/** A step that was done; seconds since the epoch. */
export interface Happened {
  readonly step: string;
  readonly from: number;
  readonly until: number;
}

/** Steps that were done, each once, its last entry counting. */
export function happenedOf(entries: readonly ReadEntry[]): Happened[] {
  const out = new Map<string, Happened>();
  for (const { at, data } of standing(entries, 'step')) {
    const until = secondsOf(at),
      hours = data.took ?? data.usual ?? 0;
    if (Number.isFinite(until))
      out.set(data.step, { step: data.step, from: until - Math.max(0.05, hours) * 3600, until });
  }
  return [...out.values()];
}

/** A step that was worked at and is not done. */
export interface Begun {
  readonly step: string;
  /** Hours worked at it so far. */
  readonly worked: number;
  /** Hours the maker says are left of it; null where nobody said. */
  readonly left: number | null;
  /** kg laid so far. */
  readonly clay: number;
  /** Seconds since the epoch: from the first hour worked at it until the last. */
  readonly from: number;
  readonly until: number;
}

/** Steps that were worked at and are not done. What was said to be left counts from when it was said. */
export function begunOf(entries: readonly ReadEntry[]): Begun[] {
  const done = new Set(standing(entries, 'step').map((e) => e.data.step));
  const out = new Map<string, Begun>();
  for (const { at, data } of standing(entries, 'part')) {
    const until = secondsOf(at);
    if (done.has(data.step) || !Number.isFinite(until)) continue;
    const before = out.get(data.step);
    const saidBefore = before?.left ?? null;
    out.set(data.step, {
      step: data.step,
      worked: (before?.worked ?? 0) + data.worked,
      left: data.left ?? (saidBefore === null ? null : Math.max(0, saidBefore - data.worked)),
      clay: (before?.clay ?? 0) + (data.clay ?? 0),
      from: Math.min(before?.from ?? Infinity, until - data.worked * 3600),
      until: Math.max(before?.until ?? -Infinity, until),
    });
  }
  return [...out.values()];
}

/** A step with the hours it takes usually and those it took. */
export interface TimedStep {
  readonly kind: StepKind;
  readonly usual: number;
  readonly took: number;
}

export function timedOf(entries: readonly ReadEntry[]): TimedStep[] {
  return standing(entries, 'step').flatMap(({ data: { kind, usual, took } }) =>
    took !== undefined && usual !== undefined ? [{ kind, usual, took }] : [],
  );
}

/** Seconds since the epoch at which the first clay went on; null where the log does not say that any did. */
export function clayWentOn(build: Build, entries: readonly ReadEntry[]): number | null {
  const laid = [
    ...happenedOf(entries),
    ...standing(entries, 'part').map((e) => ({ step: e.data.step, until: secondsOf(e.at) })),
  ]
    .filter((h) => h.step.startsWith('lay/'))
    .reduce((m, h) => Math.min(m, h.until), Infinity);
  if (laid < Infinity) return laid;
  // Whoever weighs has clay on: the day it was to go on counts, from the first thing written down on it.
  if (standing(entries, 'weigh-in').length === 0) return null;
  const day = build.brief.startDate;
  const first = entries.find((e) => !e.struck && e.kind !== 'step' && e.at.slice(0, 10) === day);
  return first ? secondsOf(first.at) : secondsOf(day) + build.stages.startHour * 3600;
}

/** The hour the first clay went on, or is to go on by the brief. */
export function firstClay(build: Build, entries: readonly ReadEntry[]): number {
  return clayWentOn(build, entries) ?? secondsOf(build.brief.startDate) + build.stages.startHour * 3600;
}

/** A weighing: kg without board and tare, against seconds after the first clay. */
export interface Weighing {
  readonly time: number;
  readonly mass: number;
}

export interface Weighings {
  readonly readings: readonly Weighing[];
  /** Taken before the clay went on: asked about, not fitted. */
  readonly before: readonly ReadEntry<'weigh-in'>[];
  /** kg: what is taken off, and the finest the scale shows. */
  readonly tare: number;
  readonly finest: number;
}

export function weighingsOf(entries: readonly ReadEntry[], firstAt: number): Weighings {
  const all = standing(entries, 'weigh-in').map((e) => ({
    e,
    time: secondsOf(e.at) - firstAt,
    mass: e.data.gross - e.data.tare,
  }));
  const after = all.filter((r) => r.time >= 0);
  return {
    readings: after.map(({ time, mass }) => ({ time, mass })),
    before: all.filter((r) => r.time < 0).map((r) => r.e),
    ...scaleOf(entries),
  };
}

/** The scale as the last weighing knows it; nothing is taken off where there is none. */
export function scaleOf(entries: readonly ReadEntry[]): { readonly tare: number; readonly finest: number } {
  const last = lastStanding(entries, 'weigh-in')?.data;
  return { tare: last?.tare ?? 0, finest: last?.finest ?? usualFinest };
}

/** The tare to offer: the last one, else what the board weighs; kg. */
export function tareToOffer(entries: readonly ReadEntry[], board: number): number {
  return lastStanding(entries, 'weigh-in')?.data.tare ?? board;
}

/** A room that held until so many seconds after the first clay. */
export interface RoomSpell {
  readonly until: number;
  readonly room: RoomAsItWas;
}

/** From so many seconds after the first clay on the room was read to be this much off what the build said. */
export interface RoomOff {
  readonly from: number;
  readonly temperature: number;
  readonly relativeHumidity: number;
}

export interface RoomHistory {
  readonly spells: readonly RoomSpell[];
  readonly off: readonly RoomOff[];
}

/** The room as it really was, as far as the log knows: between two entries it was as the later one says. */
export function roomHistory(entries: readonly ReadEntry[], firstAt: number): RoomHistory {
  const spells: RoomSpell[] = [];
  for (const e of entries) {
    const was = e.struck ? undefined : roomOf(e);
    const until = secondsOf(e.at) - firstAt;
    if (was && until > 0) spells.push({ until, room: was });
  }
  // One that does not tell what the build said of the room then cannot say how far off it was.
  const off = standing(entries, 'room').flatMap(({ at, data: { room, temperature, relativeHumidity } }): RoomOff[] =>
    room
      ? [
          {
            from: secondsOf(at) - firstAt,
            temperature: temperature - room.temperature,
            relativeHumidity: relativeHumidity - room.relativeHumidity,
          },
        ]
      : [],
  );
  return { spells, off };
}

function roomOf(e: ReadEntry): RoomAsItWas | undefined {
  return e.kind === 'weigh-in' || e.kind === 'step' || e.kind === 'part' || e.kind === 'room'
    ? (e.data as DataOf<'room'>).room
    : undefined;
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
  const of = <K extends LogKind>(kind: K) => entries.filter((e) => e.kind === kind) as unknown as EntryOf<K>[];
  const stopped = new Map(of('clock-stop').map((e) => [e.data.clock, secondsOf(e.at)]));
  const gone = new Set(of('void').map((e) => e.corrects));
  return of('clock')
    .filter((e) => !gone.has(e.id))
    .map((e) => ({
      id: e.id,
      name: e.data.name,
      started: secondsOf(e.at),
      seconds: e.data.seconds,
      stopped: stopped.get(e.id) ?? null,
    }))
    .sort((a, b) => a.started - b.started);
}

/** kg of each batch mixed for a step after a moment, in order. */
export function batchesMixed(entries: readonly LogEntry[], step: string, after: number): number[] {
  const gone = new Set(entries.filter((e) => e.kind === 'void').map((e) => e.corrects));
  return entries.flatMap((e) =>
    e.kind === 'clock' && e.data.batch?.step === step && !gone.has(e.id) && secondsOf(e.at) > after
      ? [e.data.batch.mass]
      : [],
  );
}

/** Damage that nothing says was mended. */
export function openDamage(entries: readonly ReadEntry[]): ReadEntry<'crack'>[] {
  const mended = new Set(standing(entries, 'repair').map((e) => e.data.of));
  return standing(entries, 'crack').filter((e) => !mended.has(e.id));
}
