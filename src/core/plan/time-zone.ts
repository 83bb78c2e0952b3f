import { isoDateOf, secondsOf } from '../quantity';

/**
 * Wall clocks and seconds. Waits run in real seconds; people keep wall clocks, which jump twice a year in many places.
 * The rules of a zone are those of the platform's own tables (ECMAScript Internationalization, zone names of the IANA).
 */
export interface WallTime {
  /** YYYY-MM-DD */
  readonly date: string;
  /** Minutes after midnight on the wall clock. */
  readonly minutes: number;
}

export interface ZoneClock {
  readonly name: string;
  /** Seconds since the epoch. An hour that is skipped reads as if the clock had not jumped yet; one that comes twice is its first. */
  epochOf(date: string, minutes: number): number;
  wallOf(epoch: number): WallTime;
}

const made = new Map<string, ZoneClock>();

export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** Throws a RangeError for a zone the platform does not know: ask `isTimeZone` first. */
export function zoneClock(name: string): ZoneClock {
  const kept = made.get(name);
  if (kept) return kept;
  const format = new Intl.DateTimeFormat('en-GB', {
    timeZone: name,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
  });
  /** Seconds the wall clock is ahead of UTC. Kept by the quarter of an hour: zones change on such. */
  const offsets = new Map<number, number>();
  const offsetAt = (epoch: number): number => {
    const quarter = Math.floor(epoch / 900);
    const known = offsets.get(quarter);
    if (known !== undefined) return known;
    const at: Record<string, string> = {};
    for (const { type, value } of format.formatToParts(quarter * 900_000)) at[type] = value;
    const wall =
      Date.UTC(
        Number(at['year']),
        Number(at['month']) - 1,
        Number(at['day']),
        Number(at['hour']),
        Number(at['minute']),
        Number(at['second']),
      ) / 1000;
    const offset = wall - quarter * 900;
    offsets.set(quarter, offset);
    return offset;
  };
  const clock: ZoneClock = {
    name,
    epochOf: (date, minutes) => {
      const wall = secondsOf(date) + minutes * 60;
      const before = offsetAt(wall - 86400),
        after = offsetAt(wall + 86400);
      const first = wall - before;
      return offsetAt(first) === before ? first : offsetAt(wall - after) === after ? wall - after : first;
    },
    wallOf: (epoch) => {
      const wall = epoch + offsetAt(epoch);
      const date = isoDateOf(wall);
      return { date, minutes: (wall - secondsOf(date)) / 60 };
    },
  };
  made.set(name, clock);
  return clock;
}

/** "19:05"; "24:00" for the end of a day. */
export function clockText(minutes: number): string {
  const m = Math.round(minutes);
  return `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`;
}

export function dayAfter(date: string, days = 1): string {
  return isoDateOf(secondsOf(date) + days * 86400);
}

/** 0 for Monday to 6 for Sunday. */
export function weekdayOfDate(date: string): number {
  return (new Date(secondsOf(date) * 1000).getUTCDay() + 6) % 7;
}
