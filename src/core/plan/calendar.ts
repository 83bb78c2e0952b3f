import { z } from 'zod';
import { dayAfter, isTimeZone, weekdayOfDate, type ZoneClock } from './time-zone';

/** Who works, and when: hours by weekday, days away, days with hours of their own. Wall-clock times in the workshop's zone. */
const date = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/, 'a date as YYYY-MM-DD')
  .refine(
    (d) => !Number.isNaN(Date.parse(`${d}T00:00:00Z`)) && new Date(`${d}T00:00:00Z`).toISOString().startsWith(d),
    'there is no such day',
  );
const minutes = z.number().int().min(0).max(1440);
const id = z
  .string()
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'lower-case words joined by hyphens')
  .max(40);

const hoursSchema = z
  .strictObject({
    /** 0 Monday to 6 Sunday. */
    days: z.array(z.number().int().min(0).max(6)).min(1).max(7),
    from: minutes,
    until: minutes,
  })
  .refine((h) => h.until > h.from, { path: ['until'], message: 'the end comes after the beginning' });

export const personSchema = z.strictObject({
  id,
  name: z.string().trim().min(1).max(60),
  hours: z.array(hoursSchema).max(14).default([]),
  away: z
    .array(
      z
        .strictObject({ from: date, until: date })
        .refine((a) => a.until >= a.from, { path: ['until'], message: 'the last day comes after the first' }),
    )
    .max(60)
    .default([]),
  /** Days with other hours than usual: these alone count. */
  other: z
    .array(z.strictObject({ date, from: minutes, until: minutes }))
    .max(120)
    .default([]),
});
export type Person = z.infer<typeof personSchema>;

export const workshopSchema = z.strictObject({
  zone: z.string().max(60).refine(isTimeZone, 'there is no such time zone').default('UTC'),
  people: z
    .array(personSchema)
    .max(20)
    .refine((p) => new Set(p.map((x) => x.id)).size === p.length, 'two people have the same id')
    .default([]),
});
export type Workshop = z.infer<typeof workshopSchema>;

/** Minutes of a break, and of a line of hours that is long enough to have one. */
const breakMinutes = 30;
const longEnough = 120;

/** A line of hours with half an hour left out in its middle; the line as it is where it is short. */
export function withBreak(line: Person['hours'][number]): Person['hours'] {
  if (line.until - line.from < longEnough) return [line];
  const at = line.from + Math.round((line.until - line.from - breakMinutes) / 2 / 15) * 15;
  return [
    { ...line, until: at },
    { ...line, from: at + breakMinutes },
  ];
}

/** Seconds since the epoch, from before until. */
export interface Span {
  readonly from: number;
  readonly until: number;
}

/** Open spans in order, no two touching. */
export function openSpans(person: Person, zone: ZoneClock, from: number, until: number): Span[] {
  const out: Span[] = [];
  const last = dayAfter(zone.wallOf(until).date);
  for (let day = dayAfter(zone.wallOf(from).date, -1); day <= last; day = dayAfter(day)) {
    if (person.away.some((a) => day >= a.from && day <= a.until)) continue;
    const other = person.other.filter((o) => o.date === day);
    const weekday = weekdayOfDate(day);
    const hours = other.length > 0 ? other : person.hours.filter((h) => h.days.includes(weekday));
    for (const h of hours) out.push({ from: zone.epochOf(day, h.from), until: zone.epochOf(day, h.until) });
  }
  return merged(out)
    .map((s) => ({ from: Math.max(from, s.from), until: Math.min(until, s.until) }))
    .filter((s) => s.until > s.from);
}

export function merged(spans: readonly Span[]): Span[] {
  const out: { from: number; until: number }[] = [];
  for (const s of [...spans].filter((x) => x.until > x.from).sort((a, b) => a.from - b.from)) {
    const before = out[out.length - 1];
    if (before && s.from <= before.until) before.until = Math.max(before.until, s.until);
    else out.push({ ...s });
  }
  return out;
}

export function common(a: readonly Span[], b: readonly Span[]): Span[] {
  const out: Span[] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const x = a[i]!,
      y = b[j]!;
    const from = Math.max(x.from, y.from),
      until = Math.min(x.until, y.until);
    if (until > from) out.push({ from, until });
    if (x.until < y.until) i++;
    else j++;
  }
  return out;
}

/** Index of the first span that ends after `t`. */
export function spanAt(spans: readonly Span[], t: number): number {
  let low = 0,
    high = spans.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (spans[middle]!.until > t) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The first time from `t` on at which `work` can begin; in one sitting where `whole`. Infinity when there is none. */
export function startOn(spans: readonly Span[], t: number, work: number, whole: boolean): number {
  for (let i = spanAt(spans, t); i < spans.length; i++) {
    const s = spans[i]!;
    const at = Math.max(t, s.from);
    if (!whole || s.until - at >= work) return at;
  }
  return Infinity;
}

/** What may be broken off is not taken up for the last minutes of a sitting, seconds. */
export const worthBeginning = 20 * 60;

/** The first time from `t` on at which `work` is begun: in one sitting where `whole`, else where enough of a sitting is left. */
export function beginOn(spans: readonly Span[], t: number, work: number, whole: boolean): number {
  if (whole) return startOn(spans, t, work, true);
  const at = startOn(spans, t, Math.min(work, worthBeginning), true);
  // Where no sitting is as long as that, any will do.
  return at < Infinity ? at : startOn(spans, t, work, false);
}

/** When work begun at an open time is done, going on in the next open span where the hours run out. */
export function finishOf(spans: readonly Span[], start: number, work: number): number {
  let left = work,
    at = start;
  for (let i = spanAt(spans, start); i < spans.length; i++) {
    const s = spans[i]!;
    at = Math.max(at, s.from);
    if (s.until - at >= left) return at + left;
    left -= s.until - at;
  }
  return Infinity;
}

/** The latest start from which work that may be split is done by `target`. -Infinity when there is none. */
export function startToFinish(spans: readonly Span[], target: number, work: number): number {
  let left = work;
  for (let i = Math.min(spanAt(spans, target), spans.length - 1); i >= 0; i--) {
    const s = spans[i]!;
    const until = Math.min(target, s.until);
    if (until <= s.from) continue;
    if (until - s.from >= left) return until - left;
    left -= until - s.from;
  }
  return -Infinity;
}

/** The sittings work begun at `start` takes. */
export function sittings(spans: readonly Span[], start: number, finish: number): Span[] {
  return common(spans, [{ from: start, until: finish }]);
}

/** Where nobody has said when they work: three evenings and a Saturday for spare time, weekdays for those who live by it. */
export function usualHours(hoursPerWeek: number): Person['hours'] {
  const quarters = (minutes: number, most: number) => Math.min(most, Math.max(30, Math.round(minutes / 15) * 15));
  const week = hoursPerWeek * 60;
  if (hoursPerWeek > 20) return [{ days: [0, 1, 2, 3, 4], from: 540, until: 540 + quarters(week / 5, 720) }];
  const evening = quarters(week / 4, 240);
  return [
    { days: [0, 2, 3], from: 1140, until: 1140 + evening },
    { days: [5], from: 570, until: 570 + quarters(week - 3 * evening, 600) },
  ];
}
