import { readMoment, readRoomRecord, type RecordRow } from '.';

const rows = (text: string): RecordRow[] =>
  text.split('\n').map((line, i) => ({ line: i + 1, fields: line.split(/[;,\t](?=\S)/) }));
const read = (text: string) => readRoomRecord(rows(text));
const begin = Date.UTC(2026, 11, 1, 9);
const iso = (minutes: number) => new Date(begin + minutes * 60_000).toISOString().slice(0, 16).replace('T', ' ');

test.each([
  ['2026-12-03 14:05', Date.UTC(2026, 11, 3, 14, 5)],
  ['2026-12-03T14:05:30Z', Date.UTC(2026, 11, 3, 14, 5, 30)],
  ['03.12.2026 14:05', Date.UTC(2026, 11, 3, 14, 5)],
  ['12/28/2026 2:05 PM', Date.UTC(2026, 11, 28, 14, 5)],
  ['1764770700', 1764770700000],
  ['1764770700000', 1764770700000],
  ['yesterday', NaN],
  ['2026-13-40', NaN],
])('a moment written as %s', (text, wanted) => {
  const got = readMoment(text) * 1000;
  if (Number.isNaN(wanted)) expect(got).toBeNaN();
  else expect(got).toBe(wanted);
});

test('plain columns with headings, evened out to hours', () => {
  const record = read(
    [
      'time,temperature,humidity',
      ...Array.from({ length: 120 }, (_, i) => `${iso(i * 2)},${20 + i * 0.01},${50 + i * 0.1}`),
    ].join('\n'),
  );
  if (!record.ok) throw new Error(record.message);
  expect(record.value.from).toBe(begin / 1000);
  expect(record.value.temperature).toHaveLength(4);
  expect(record.value.temperature[0]).toBeCloseTo(20.1, 1);
  expect(record.value.relativeHumidity[0]).toBeCloseTo(0.515, 2);
});

test('400 000 lines with gaps, swapped columns and Fahrenheit are read, and what was done is told', () => {
  const lines = ['Timestamp;Temp;RH'];
  for (let i = 0; i < 400_000; i++) {
    // A fortnight's holiday in the middle, and a line of noise every now and then.
    const minutes = i * 0.25 + (i > 200_000 ? 14 * 1440 : 0);
    const f = 66 + 5 * Math.sin((minutes / 1440) * 2 * Math.PI),
      rh = 52 + 8 * Math.cos((minutes / 1440) * 2 * Math.PI);
    lines.push(i % 9973 === 9972 ? 'no signal;;' : `${iso(minutes)};${rh.toFixed(1)};${f.toFixed(1)}`);
  }
  const record = read(lines.join('\n'));
  if (!record.ok) throw new Error(`${record.path} ${record.message}`);
  const { temperature, relativeHumidity, notes } = record.value;
  expect(notes.join(' ')).toMatch(/changed places/);
  expect(notes.join(' ')).toMatch(/Fahrenheit/);
  expect(notes.join(' ')).toMatch(/gap/);
  expect(notes.join(' ')).toMatch(/could not be read/);
  expect(Math.min(...temperature)).toBeGreaterThan(15);
  expect(Math.max(...temperature)).toBeLessThan(23);
  expect(Math.max(...relativeHumidity)).toBeLessThan(0.62);
  expect(temperature.length).toBeGreaterThan(80 * 24);
});

test('a file that is something else is refused with its line', () => {
  expect(read('name,price\nclay,4\nwire,2')).toMatchObject({ ok: false, path: 'line 2' });
  expect(read('')).toMatchObject({ ok: false });
  const bad = read(
    [
      'time,t,rh',
      ...Array.from({ length: 50 }, (_, i) => `${iso(i)},20,50`),
      ...Array.from({ length: 20 }, () => 'lost,,'),
      '',
    ].join('\n'),
  );
  expect(bad).toMatchObject({ ok: false, code: 'broken-lines', path: 'line 52' });
  const hot = read(['time,t,rh', ...Array.from({ length: 50 }, (_, i) => `${iso(i)},900,50`)].join('\n'));
  expect(hot).toMatchObject({ ok: false, code: 'not-a-room', path: 'line 2' });
});

test('date and time in columns of their own, decimal commas, humidity as a share, lines out of order', () => {
  const record = readRoomRecord(
    [
      ['Datum', 'Uhrzeit', 'Temp', 'Feuchte'],
      ['02.12.2026', '10:00', '19,5', '0,55'],
      ['01.12.2026', '10:00', '20,5', '0,45'],
    ].map((fields, i) => ({ line: i + 1, fields })),
  );
  if (!record.ok) throw new Error(record.message);
  expect(record.value.temperature[0]).toBe(20.5);
  expect(record.value.relativeHumidity[24]).toBe(0.55);
  expect(record.value.notes.join(' ')).toMatch(/put in order/);
  expect(record.value.notes.join(' ')).toMatch(/gap/);
});

test('noise of any kind is read or refused, never thrown', () => {
  const marks = ['2026-12-01', '12:00', '20', '-3', '55 %', '68°F', 'NaN', '', '1e9', ';', '\u0000', '"'];
  for (let k = 0; k < 300; k++) {
    const fields = Array.from({ length: 1 + (k % 5) }, (_, i) => marks[(k * 7 + i * 5) % marks.length]!);
    const result = readRoomRecord(Array.from({ length: 4 }, (_, line) => ({ line: line + 1, fields })));
    if (result.ok) expect(result.value.temperature.every(Number.isFinite)).toBe(true);
    else expect(result.message.length).toBeGreaterThan(5);
  }
});

test.each([
  ['Temp (°F)', 41, 5],
  ['Temperature F', 41, 5],
  ['Fahrenheit', 50, 10],
  // Without a word of it 41 could be nothing but Celsius, and 68 nothing but Fahrenheit.
  ['Temperature', 41, 41],
  ['Temperature', 68, 20],
] as const)('a column headed "%s" that reads %d is %d degrees', (title, shown, celsius) => {
  const record = read(
    [`time,${title},humidity`, ...Array.from({ length: 30 }, (_, i) => `${iso(i * 60)},${shown},50`)].join('\n'),
  );
  if (!record.ok) throw new Error(record.message);
  expect(record.value.temperature[0]).toBeCloseTo(celsius, 1);
  expect(record.value.notes.some((n) => /Fahrenheit/.test(n))).toBe(shown !== celsius);
});

test('readings that no room has are left out and counted; humidity is kept off nought and full', () => {
  const lines = Array.from({ length: 100 }, (_, i) => `${iso(i * 30)},${i === 40 ? 85 : 20},${i < 2 ? 100 : 0.4}`);
  const record = read(['time,temperature,humidity', ...lines].join('\n'));
  if (!record.ok) throw new Error(record.message);
  // Most lines have humidity as a share: 100 is then a slip, and so is 85 degrees.
  expect(record.value.notes.join(' ')).toMatch(/3 readings lie outside/);
  expect(Math.max(...record.value.temperature)).toBe(20);
  const wet = read(['time,temperature,humidity', ...lines.map((_, i) => `${iso(i * 30)},20,100`)].join('\n'));
  expect(wet.ok && wet.value.relativeHumidity.every((h) => h === 0.99)).toBe(true);
});

test('more than a hundred days: the last of them are kept, and that is said', () => {
  const record = read(
    ['time,t,rh', ...Array.from({ length: 130 }, (_, i) => `${iso(i * 1440)},${15 + i / 10},50`)].join('\n'),
  );
  if (!record.ok) throw new Error(record.message);
  expect(record.value.temperature).toHaveLength(2400);
  expect(record.value.from).toBe(begin / 1000 + 29 * 86400);
  expect(record.value.temperature.at(-1)).toBeCloseTo(27.9, 1);
  expect(record.value.notes.join(' ')).toMatch(/longer than 100 days/);
});
