import { failure, success, type Result } from '../quantity';

/**
 * A hygrometer's record, read row by row: which column is what, in which units, with what gaps, evened out to steps.
 * Rows come with the number of the line they stood on, so that a refusal can name it.
 */
export interface RecordRow {
  readonly line: number;
  readonly fields: readonly string[];
}

export interface RoomReadings {
  /** Seconds since 1970 of the first step. */
  readonly from: number;
  readonly stepHours: number;
  /** degrees C and 0..1, one a step; steps without readings hold the ones before. */
  readonly temperature: number[];
  readonly relativeHumidity: number[];
  /** What was made of it, in words for the maker. */
  readonly notes: readonly string[];
}

export const mostRows = 1_000_000;
const mostSteps = 2400;
/** A gap longer than this is told. */
const longGap = 6 * 3600;
/** Rows that cannot be read are passed over up to this share; more, and it is another kind of file. */
const mostBroken = 0.02;

type Column = 'time' | 'temperature' | 'humidity';
const heading: Readonly<Record<Column, RegExp>> = {
  time: /time|date|when|stamp|zeit|datum|heure|ora\b|data\b/i,
  temperature: /temp|°\s*[cf]|deg|celsius|fahrenheit/i,
  humidity: /hum|\brh\b|r\.h|feucht|umid/i,
};

interface Layout {
  readonly time: readonly number[];
  readonly temperature: number;
  readonly humidity: number;
  readonly fahrenheit: boolean;
  readonly swapped: boolean;
}

interface Reading {
  readonly line: number;
  readonly time: number;
  readonly a: number;
  readonly b: number;
}

function numberOf(text: string | undefined): number {
  if (text === undefined) return NaN;
  const clean = text
    .trim()
    .replace(/[%°]|deg|[CF]$/gi, '')
    .trim();
  if (!/^[-+]?(\d+([.,]\d*)?|[.,]\d+)$/.test(clean)) return NaN;
  return Number(clean.replace(',', '.'));
}

/** ISO, "2026-12-03 14:05", "03.12.2026 14:05", "3/12/2026 14:05" (day first, unless the second figure is over 12), or seconds since 1970. */
export function readMoment(text: string): number {
  const t = text.trim();
  if (/^\d{9,10}(\.\d+)?$/.test(t)) return Number(t);
  if (/^\d{12,13}$/.test(t)) return Number(t) / 1000;
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ,]+(\d{1,2}):(\d{2})(?::(\d{2}))?)?/.exec(t);
  const other = iso
    ? null
    : /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{2,4})(?:[T ,]+(\d{1,2}):(\d{2})(?::(\d{2}))?\s*([AP]M)?)?/i.exec(t);
  const m = iso ?? other;
  if (!m) return NaN;
  let [year, month, day] = iso
    ? [Number(m[1]), Number(m[2]), Number(m[3])]
    : [Number(m[3]), Number(m[2]), Number(m[1])];
  if (!iso && month > 12 && day <= 12) [month, day] = [day, month];
  if (year < 100) year += 2000;
  let hour = Number(m[4] ?? 0);
  const half = iso ? '' : (m[7] ?? '').toUpperCase();
  if (half === 'PM' && hour < 12) hour += 12;
  if (half === 'AM' && hour === 12) hour = 0;
  if (month < 1 || month > 12 || day < 1 || day > 31 || hour > 24) return NaN;
  return Date.UTC(year, month - 1, day, hour, Number(m[5] ?? 0), Number(m[6] ?? 0)) / 1000;
}

/** Reads the whole record, or refuses it with the line and why. `rows` may be long: they are gone through once. */
export function readRoomRecord(rows: Iterable<RecordRow>): Result<RoomReadings> {
  const notes: string[] = [];
  let layout: Layout | null = null;
  let header: RecordRow | null = null;
  const readings: Reading[] = [];
  let broken = 0,
    firstBroken = 0,
    count = 0;
  for (const row of rows) {
    if (row.fields.every((f) => f.trim() === '')) continue;
    count += 1;
    if (count > mostRows) return failure('too-long', `line ${row.line}`, `a record is at most ${mostRows} lines`);
    if (!layout) {
      const found = layoutOf(row, header);
      if (!found.ok) {
        if (header) return found;
        header = row;
        continue;
      }
      layout = found.value;
    }
    const time = readMoment(layout.time.map((c) => row.fields[c] ?? '').join(' '));
    const a = numberOf(row.fields[layout.temperature]),
      b = numberOf(row.fields[layout.humidity]);
    if (Number.isFinite(time) && Number.isFinite(a) && Number.isFinite(b))
      readings.push({ line: row.line, time, a, b });
    else {
      broken += 1;
      firstBroken ||= row.line;
    }
  }
  if (!layout || readings.length === 0)
    return failure('no-readings', `line ${header?.line ?? 1}`, 'no line has a moment, a temperature and a humidity');
  if (broken > 3 && broken > mostBroken * (broken + readings.length))
    return failure('broken-lines', `line ${firstBroken}`, `${broken} lines cannot be read, the first of them this one`);
  if (broken > 0)
    notes.push(
      `${broken} ${broken === 1 ? 'line' : 'lines'} could not be read and ${broken === 1 ? 'was' : 'were'} passed over; the first is line ${firstBroken}.`,
    );
  return evenOut(readings, layout, notes);
}

/** Columns by their headings, or by what stands in the first line of figures. */
function layoutOf(row: RecordRow, header: RecordRow | null): Result<Layout> {
  const { fields } = row;
  const times = fields
    .map((f, i) => ({ i, ok: Number.isFinite(readMoment(f)) && !/^\d{1,2}([.,]\d+)?$/.test(f.trim()) }))
    .filter((t) => t.ok)
    .map((t) => t.i);
  const split =
    times.length === 0 ? fields.findIndex((f, i) => Number.isFinite(readMoment(`${f} ${fields[i + 1] ?? ''}`))) : -1;
  let time = times.slice(0, 1);
  if (time.length === 1 && /^\d{1,2}:\d{2}/.test((fields[time[0]! + 1] ?? '').trim())) time = [time[0]!, time[0]! + 1];
  else if (split >= 0) time = [split, split + 1];
  if (time.length === 0)
    return failure('no-moment', `line ${row.line}`, 'no column reads as a date and time, as in 2026-12-03 14:05');
  const figures = fields
    .map((f, i) => ({ i, v: numberOf(f) }))
    .filter((x) => Number.isFinite(x.v) && !time.includes(x.i));
  if (figures.length < 2)
    return failure('too-few-columns', `line ${row.line}`, 'there are not two columns of figures beside the moment');
  const titles = header?.fields.map((f) => f.trim()) ?? [];
  const byTitle = (kind: Column) => figures.find((x) => heading[kind].test(titles[x.i] ?? ''))?.i;
  const temperature = byTitle('temperature'),
    humidity = byTitle('humidity');
  const first = temperature ?? figures.find((x) => x.i !== humidity)?.i ?? 0;
  const second = humidity ?? figures.find((x) => x.i !== first)?.i ?? 1;
  return success({
    time,
    temperature: first,
    humidity: second,
    fahrenheit: /°\s*F|\bF\b|fahrenheit/i.test(titles[first] ?? ''),
    swapped: false,
  });
}

const quantile = (values: readonly number[], share: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
};

/** Units and order of the columns by what they hold; then steps. */
function evenOut(readings: Reading[], layout: Layout, notes: string[]): Result<RoomReadings> {
  const sample = readings.filter((_, i) => i % Math.max(1, Math.floor(readings.length / 4000)) === 0);
  let pick = { t: (r: Reading) => r.a, h: (r: Reading) => r.b };
  const fits = (t: number[], h: number[]) => {
    const humid = quantile(h, 0.98),
      low = quantile(h, 0.02);
    const warm = quantile(t, 0.5);
    return low >= 0 && humid <= 105 && warm > -30 && warm < 130;
  };
  const a = sample.map((r) => r.a),
    b = sample.map((r) => r.b);
  // A room is between 5 and 35 degrees and 20 to 95 %: swapped columns show in which of the two moves like which.
  const likely = (t: number[], h: number[]) => {
    const m = quantile(t, 0.5),
      hm = quantile(h, 0.5);
    const percent = hm <= 1.2 ? hm * 100 : hm;
    const celsius = layout.fahrenheit || m > 45 ? ((m - 32) * 5) / 9 : m;
    return Math.abs(celsius - 20) / 15 + Math.abs(percent - 50) / 30 + (m > 45 && !layout.fahrenheit ? 0.4 : 0);
  };
  if (likely(b, a) + 0.25 < likely(a, b)) {
    pick = { t: (r) => r.b, h: (r) => r.a };
    notes.push('The columns of temperature and humidity had changed places; they were read the other way round.');
  }
  const t = sample.map(pick.t),
    h = sample.map(pick.h);
  if (!fits(t, h)) {
    const bad =
      readings.find((r) => pick.h(r) < 0 || pick.h(r) > 105 || pick.t(r) < -40 || pick.t(r) > 140) ?? readings[0]!;
    return failure(
      'not-a-room',
      `line ${bad.line}`,
      `${pick.t(bad)} and ${pick.h(bad)} are no temperature and humidity of a room`,
    );
  }
  const fraction = quantile(h, 0.95) <= 1.2;
  const fahrenheit = layout.fahrenheit || quantile(t, 0.5) > 45;
  if (fahrenheit) notes.push('Temperatures are in Fahrenheit and were brought to Celsius.');
  const celsius = (r: Reading) => (fahrenheit ? ((pick.t(r) - 32) * 5) / 9 : pick.t(r));
  const share = (r: Reading) => (fraction ? pick.h(r) : pick.h(r) / 100);
  let kept = readings.filter((r) => celsius(r) >= -15 && celsius(r) <= 60 && share(r) >= 0 && share(r) <= 1.05);
  if (kept.length < readings.length)
    notes.push(`${readings.length - kept.length} readings lie outside what a room can be and were left out.`);
  const rising = kept.every((r, i) => i === 0 || r.time >= kept[i - 1]!.time);
  if (!rising) {
    kept = [...kept].sort((x, y) => x.time - y.time);
    notes.push('Its lines were not in order of time; they were put in order.');
  }
  return stepped(kept, celsius, share, notes);
}

function stepped(
  readings: readonly Reading[],
  celsius: (r: Reading) => number,
  share: (r: Reading) => number,
  notes: string[],
): Result<RoomReadings> {
  const last = readings[readings.length - 1]!.time;
  let first = readings[0]!.time;
  const stepHours = 1;
  if (last - first > mostSteps * 3600) {
    first = last - mostSteps * 3600;
    notes.push(`It is longer than ${mostSteps / 24} days: the last of them were kept.`);
  }
  const from = Math.floor(first / 3600) * 3600;
  const steps = Math.max(1, Math.min(mostSteps, Math.floor((last - from) / 3600) + 1));
  const sums = new Float64Array(steps),
    humid = new Float64Array(steps),
    counts = new Int32Array(steps);
  let before = NaN,
    gaps = 0,
    longest = 0;
  for (const r of readings) {
    if (r.time < from) continue;
    if (Number.isFinite(before) && r.time - before > longGap) {
      gaps += 1;
      longest = Math.max(longest, r.time - before);
    }
    before = r.time;
    const i = Math.min(steps - 1, Math.floor((r.time - from) / 3600));
    sums[i] = sums[i]! + celsius(r);
    humid[i] = humid[i]! + share(r);
    counts[i] = counts[i]! + 1;
  }
  if (gaps > 0)
    notes.push(
      `There ${gaps === 1 ? 'is a gap' : `are ${gaps} gaps`} in it, the longest of ${Math.round(longest / 3600)} hours: the reading before was held.`,
    );
  const temperature: number[] = [],
    relativeHumidity: number[] = [];
  const firstFull = counts.findIndex((c) => c > 0);
  let t = sums[firstFull]! / counts[firstFull]!,
    h = humid[firstFull]! / counts[firstFull]!;
  for (let i = 0; i < steps; i++) {
    if (counts[i]! > 0) {
      t = sums[i]! / counts[i]!;
      h = humid[i]! / counts[i]!;
    }
    temperature.push(Math.round(t * 10) / 10);
    relativeHumidity.push(Math.min(0.99, Math.max(0.02, Math.round(h * 1000) / 1000)));
  }
  notes.unshift(
    `${readings.length} readings over ${Math.round(((last - from) / 86400) * 10) / 10} days, evened out to hours.`,
  );
  return success({ from, stepHours, temperature, relativeHumidity, notes });
}
