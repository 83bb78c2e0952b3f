import type { CoverSpell, Room } from '../document';
import { coverResistance } from '../catalogue';
import type { RoomHistory } from '../log';
import type { RoomAir } from './air';

const { floor, max, min, round } = Math;

/**
 * The weather of the room, hour by hour: as it mostly is, with hours of the day at which it is otherwise, or as a
 * hygrometer recorded it; and what the piece is covered with. Spells of one air and one cover follow each other.
 */
export interface AirSpell {
  /** Seconds from the first clay. */
  readonly until: number;
  readonly air: RoomAir;
  /** s/m. */
  readonly cover: number;
}

/** After so many days the room is taken as it is on the average: nobody plans its hours further. */
const plannedDays = 90;
const day = 86400;

export interface RoomCalendar {
  readonly room: Room;
  /** Hour of the day of the first clay. */
  readonly startHour: number;
  /** 0 Monday .. 6 Sunday, of the first day. */
  readonly weekday: number;
  /** As the log knows it: the room that was, and how far off what was said it was read to be. */
  readonly history?: RoomHistory;
}

/** The room so many hours after the first clay: as it was where the log knows, else as the build says. */
function roomAt({ room, history }: RoomCalendar, hoursAfter: number): Room {
  const was = history?.spells.find((s) => hoursAfter * 3600 < s.until);
  return was ? { ...room, ...was.room } : room;
}

/** How far the room is off what is said of it; before the first reading of it as at that. */
function offAt({ history }: RoomCalendar, hoursAfter: number): { temperature: number; relativeHumidity: number } {
  const all = history?.off ?? [];
  return all.filter((o) => o.from <= hoursAfter * 3600).pop() ?? all[0] ?? { temperature: 0, relativeHumidity: 0 };
}

/** The air so many hours after the first clay. */
export function airAt(calendar: RoomCalendar, hoursAfter: number): RoomAir {
  const room = roomAt(calendar, hoursAfter);
  return read(airOfHour(room, calendar.weekday, hoursAfter + calendar.startHour), offAt(calendar, hoursAfter));
}

/** s/m: what lies over a region (or the whole) so many hours after the first clay. */
export function coverOver(calendar: RoomCalendar, hoursAfter: number, region: string | null): number {
  return coverAt(roomAt(calendar, hoursAfter).covers, hoursAfter, region);
}

/** 0 Monday .. 6 Sunday of an ISO date. */
export function weekdayOf(isoDate: string): number {
  return (new Date(`${isoDate}T00:00:00Z`).getUTCDay() + 6) % 7;
}

/** The air at `hour` hours after midnight of the first day, by what is said of the room. The last rule that fits has the word. */
export function airAtHour({ room, weekday }: Pick<RoomCalendar, 'room' | 'weekday'>, hour: number): RoomAir {
  return read(airOfHour(room, weekday, hour), { temperature: 0, relativeHumidity: 0 });
}

function airOfHour(room: Room, weekday: number, hour: number): RoomAir {
  let { temperature, relativeHumidity, airSpeed } = room;
  const { record } = room;
  if (record) {
    const i = floor((hour - record.startsAt) / record.stepHours);
    if (i >= 0 && i < record.temperature.length) {
      temperature = record.temperature[i]!;
      relativeHumidity = record.relativeHumidity[i]!;
    }
  }
  const clock = ((hour % 24) + 24) % 24;
  const dayOfWeek = (((weekday + floor(hour / 24)) % 7) + 7) % 7;
  for (const rule of room.hours) {
    const overnight = rule.from > rule.until;
    const within =
      rule.from === rule.until
        ? true
        : overnight
          ? clock >= rule.from || clock < rule.until
          : clock >= rule.from && clock < rule.until;
    if (!within) continue;
    // The small hours belong to the evening before.
    const counted = overnight && clock < rule.until ? (dayOfWeek + 6) % 7 : dayOfWeek;
    if (rule.days === 'weekend' ? counted < 5 : rule.days === 'working' ? counted > 4 : false) continue;
    temperature = rule.temperature ?? temperature;
    relativeHumidity = rule.relativeHumidity ?? relativeHumidity;
    airSpeed = rule.airSpeed ?? airSpeed;
  }
  return { temperature, relativeHumidity, speed: airSpeed };
}

/** Read no finer than a room is known: like hours are then the same air, and are worked out once. */
function read(air: RoomAir, off: { readonly temperature: number; readonly relativeHumidity: number }): RoomAir {
  return {
    temperature: round((air.temperature + off.temperature) * 2) / 2,
    relativeHumidity: min(0.99, max(0.02, round((air.relativeHumidity + off.relativeHumidity) * 100) / 100)),
    speed: max(0.02, round(air.speed * 100) / 100),
  };
}

export function coverAt(covers: readonly CoverSpell[], hoursAfter: number, region: string | null): number {
  let most = 0;
  for (const c of covers) {
    const over = c.regions.length === 0 || (region !== null && c.regions.includes(region));
    if (over && hoursAfter >= c.from && (c.until === null || hoursAfter < c.until))
      most = max(most, coverResistance(c.kind));
  }
  return most;
}

/** Hours after the first clay at which the air or a cover may change, rising, up to the last planned day. */
export function changesOf(calendar: RoomCalendar): number[] {
  const at = new Set<number>();
  const spells = calendar.history?.spells ?? [];
  const known = spells[spells.length - 1]?.until ?? -Infinity;
  // A room that was counts only while it was.
  let from = 0;
  for (const s of spells) {
    for (const h of changesIn({ ...calendar.room, ...s.room }, calendar.startHour))
      if (h * 3600 > from && h * 3600 < s.until) at.add(h);
    at.add(s.until / 3600);
    from = s.until;
  }
  for (const h of changesIn(calendar.room, calendar.startHour)) if (h * 3600 > known) at.add(h);
  for (const o of calendar.history?.off.slice(1) ?? []) at.add(o.from / 3600);
  return [...at].filter((h) => h > 1e-9 && h < plannedDays * 24).sort((a, b) => a - b);
}

function changesIn(room: Room, startHour: number): Set<number> {
  const at = new Set<number>();
  for (const rule of room.hours)
    for (let d = -1; d <= plannedDays; d++) for (const h of [rule.from, rule.until]) at.add(d * 24 + h - startHour);
  if (room.hours.some((r) => r.days !== 'every')) for (let d = 0; d <= plannedDays; d++) at.add(d * 24 - startHour);
  if (room.record) {
    const step = max(room.record.stepHours, 3);
    const from = room.record.startsAt - startHour;
    const count = Math.ceil((room.record.temperature.length * room.record.stepHours) / step);
    for (let i = 0; i <= count; i++) at.add(from + i * step);
  }
  for (const c of room.covers) {
    at.add(c.from);
    if (c.until !== null) at.add(c.until);
  }
  return at;
}

/** The room on the average of a week, for what lies beyond the planned days, and for what it all settles at. */
export function meanAir(calendar: RoomCalendar): RoomAir {
  const room = { ...calendar.room, record: null };
  const off = offAt(calendar, plannedDays * 24);
  if (room.hours.length === 0) return read(airOfHour(room, calendar.weekday, 0), off);
  const sum = { temperature: 0, relativeHumidity: 0, speed: 0 };
  for (let h = 0; h < 168; h++) {
    const air = airOfHour(room, calendar.weekday, h + 0.5);
    sum.temperature += air.temperature / 168;
    sum.relativeHumidity += air.relativeHumidity / 168;
    sum.speed += air.speed / 168;
  }
  return read(sum, off);
}

/** Spells over one region (or the whole) from `from` seconds after the first clay, counted from there. */
export function airSpells(calendar: RoomCalendar, region: string | null, from = 0): AirSpell[] {
  const { room } = calendar;
  const out: AirSpell[] = [];
  const changes = changesOf(calendar)
    .map((h) => h * 3600)
    .filter((t) => t > from);
  const ends = [...changes, Infinity];
  let begun = from;
  const last = meanAir(calendar);
  for (const end of ends) {
    const middle = end === Infinity ? begun : (begun + end) / 2;
    const constant = end === Infinity && room.hours.length > 0;
    const hours = middle / 3600 + (end === Infinity ? 1e-6 : 0);
    const air = constant ? last : airAt(calendar, hours);
    const cover = coverOver(calendar, hours, region);
    const before = out[out.length - 1];
    if (before && before.cover === cover && sameAir(before.air, air))
      out[out.length - 1] = { ...before, until: end === Infinity ? Infinity : end - from };
    else out.push({ until: end === Infinity ? Infinity : end - from, air, cover });
    begun = end;
  }
  return out;
}

function sameAir(a: RoomAir, b: RoomAir): boolean {
  return a.temperature === b.temperature && a.relativeHumidity === b.relativeHumidity && a.speed === b.speed;
}

/** Nights: from ten in the evening to six in the morning, seconds after the first clay. */
export function nightsUntil(startHour: number, until: number): { readonly from: number; readonly until: number }[] {
  const out: { from: number; until: number }[] = [];
  for (let d = -1; d * day < until; d++) {
    const from = d * day + (22 - startHour) * 3600,
      to = from + 8 * 3600;
    if (to > 0 && from < until) out.push({ from: max(0, from), until: min(until, to) });
  }
  return out;
}
