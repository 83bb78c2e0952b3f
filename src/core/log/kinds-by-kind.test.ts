import {
  clocksOf,
  effectiveLog,
  entryWords,
  finestOf,
  kindOf,
  openDamage,
  readEntry,
  readLogFile,
  roomHistory,
  scaleOf,
  tareToOffer,
  usualFinest,
  weighingsOf,
} from '.';
import type { DraftContext, DraftValues, LogEntry, LogKind } from '.';

/** What each kind takes, and what it says no to, by the field. */
const id = (n: number) => `5b0c8f8e-0d2c-4c3e-9a53-5b1f0f6f${String(5000 + n)}`;
const context: DraftContext = { units: 'metric', tare: 1.25, room: null, steps: [], items: [], damage: [] };
const read = (kind: LogKind, values: DraftValues, more: Partial<DraftContext> = {}) =>
  kindOf(kind).read(values, { ...context, ...more });
const room = { temperature: 20, relativeHumidity: 0.5, airSpeed: 0.1, hours: [], covers: [] };

describe('the finest a scale shows, as far as what was written tells', () => {
  test.each([
    ['6.85', 'kg', 0.01],
    ['6.853', 'kg', 0.001],
    ['6,853', 'kg', 0.001],
    ['850 g', 'kg', 0.001],
    ['850.5 g', 'kg', 1e-4],
    ['15 lb 2 oz', 'lb', 0.0283495],
    ['15 lb 2.4 oz', 'lb', 0.00283495],
    ['15.2', 'lb', 0.04536],
    ['6.85 kg', 'lb', 0.01],
    // A round figure is one that was not written out.
    ['7', 'kg', usualFinest],
    ['15', 'lb', usualFinest],
    ['6.8', 'kg', usualFinest],
  ] as const)('"%s" in %s: %d kg', (text, bare, finest) => expect(finestOf(text, bare)).toBeCloseTo(finest, 7));
});

describe('a cast', () => {
  test('its number is enough; it is as sharp as the first unless it is said otherwise', () =>
    expect(read('pull', { number: '2' })).toEqual({ ok: true, value: { number: 2, detail: 'sharp', faults: '' } }));
  test.each([
    [{ number: '' }, 'number'],
    [{ number: '0' }, 'number'],
    [{ number: '2.5' }, 'number'],
    [{ number: '99999' }, 'number'],
    [{ number: '1', weight: 'light' }, 'weight'],
    [{ number: '1', weight: '-1' }, 'weight'],
    [{ number: '1', wall: '3 m' }, 'wall'],
  ])('%j is refused at %s', (values, path) => expect(read('pull', values)).toMatchObject({ ok: false, path }));
});

describe('weighing', () => {
  test('without a tare the usual one is taken off; its own goes before', () => {
    expect(read('weigh-in', { gross: '7.35', tare: '' })).toMatchObject({
      ok: true,
      value: { gross: 7.35, tare: 1.25 },
    });
    expect(read('weigh-in', { gross: '7.35', tare: '900 g' })).toMatchObject({ ok: true, value: { tare: 0.9 } });
  });
  test.each([
    [{ gross: '1.2', tare: '' }, 'gross'],
    [{ gross: 'heavy', tare: '' }, 'gross'],
    [{ gross: '7', tare: 'a board' }, 'tare'],
    [{ gross: '6000', tare: '' }, 'gross'],
    [{ gross: '7', tare: '-1' }, 'gross'],
  ])('%j is refused at %s', (values, path) => expect(read('weigh-in', values)).toMatchObject({ ok: false, path }));
  test('the room it dried in comes along where it is known', () => {
    expect(read('weigh-in', { gross: '7', tare: '1' }, { room })).toMatchObject({ value: { room } });
    expect(read('weigh-in', { gross: '7', tare: '1' })).not.toHaveProperty('value.room');
  });
});

test.each([
  ['crack', { width: '0.5', where: '' }, 'where'],
  ['crack', { width: '120', where: 'head' }, 'width'],
  ['crack', { width: '-1', where: 'head' }, 'width'],
  ['shrink-mark', { laid: '100', now: '111' }, 'now'],
  ['shrink-mark', { laid: '0', now: '0' }, 'now'],
  ['shrink-mark', { laid: 'far', now: '96' }, 'laid'],
  ['room', { temperature: '80', humidity: '50' }, 'temperature'],
  ['room', { temperature: '20', humidity: '101' }, 'humidity'],
  ['room', { temperature: 'warm', humidity: '50' }, 'temperature'],
  ['note', { text: '   ' }, 'text'],
  ['step', { step: '' }, 'step'],
  ['part', { step: '' }, 'step'],
  ['step', { step: 'bulk', took: 'long' }, 'took'],
  ['step', { step: 'bulk', took: '401' }, 'took'],
  ['part', { step: 'bulk', worked: '' }, 'worked'],
  ['part', { step: 'bulk', worked: '0' }, 'worked'],
  ['part', { step: 'bulk', worked: '2', left: '-1' }, 'left'],
  ['used', { item: '' }, 'item'],
  ['used', { item: 'clay', amount: '0' }, 'amount'],
  ['used', { item: 'clay', amount: 'some' }, 'amount'],
  ['clock', {}, 'kind'],
  ['clock-stop', {}, 'kind'],
  ['void', {}, 'kind'],
] as const)('%s %j is refused at "%s"', (kind, values, path) =>
  expect(
    read(kind, values, {
      items: [{ item: 'clay', name: 'paper clay', unit: 'kg' }],
      steps: [{ id: 'bulk', name: 'Stuff the core', kind: 'bulk', hours: 2, clay: 0 }],
    }),
  ).toMatchObject({
    ok: false,
    path,
  }),
);

test('marks may lie a tenth further apart, as clay that was pressed does; no further', () => {
  expect(read('shrink-mark', { laid: '100', now: '109' })).toMatchObject({ ok: true });
  expect(readEntry(entryOf('shrink-mark', 1, '2026-12-01T10:00:00Z', { laid: 0.1, now: 0.12 })).ok).toBe(false);
});

test('hours a step took: a number, "1.5 h" too, four hundred at the most; clay and its room only where it laid any', () => {
  const step = { id: 'lay/head/1', name: 'Lay', kind: 'clay' as const, hours: 2, clay: 1.2 };
  const of = (took: string, more: Partial<DraftContext> = {}) =>
    read('step', { step: step.id, took }, { steps: [step], room, ...more });
  expect(of('1.5 h')).toMatchObject({ value: { took: 1.5, usual: 2, clay: 1.2, room } });
  expect(of('')).not.toHaveProperty('value.took');
  for (const bad of ['0', '-1', '401', 'long']) expect(of(bad)).toMatchObject({ ok: false, path: 'took' });
  const carve = of('1', { steps: [{ ...step, clay: 0 }] });
  expect(carve).not.toHaveProperty('value.clay');
  expect(carve).not.toHaveProperty('value.room');
});

test('words: what it weighs without its tare, how much shorter, what was mended', () => {
  const words = (kind: LogKind, data: object) => entryWords(entryOf(kind, 1, '2026-12-01T10:00:00Z', data), 'metric');
  expect(words('weigh-in', { gross: 7.353, tare: 1.05 }).main).toMatch(/^6[.]303 kg$/);
  expect(words('shrink-mark', { laid: 0.1, now: 0.0965, where: '' }).main).toBe('3.5 % shorter');
  expect(words('crack', { where: 'ear', width: 0.0005, through: true, what: 'crack' })).toEqual({
    main: 'Crack: ear',
    more: '0.5 mm wide, right through',
  });
  expect(words('repair', { of: null, where: 'ear', how: 'slip' })).toEqual({ main: 'Mended: ear', more: 'slip' });
  expect(words('room', { temperature: 19, relativeHumidity: 0.55 }).main).toBe('19 °C · 55 %');
});

function entryOf(kind: LogKind, n: number, at: string, data: object, corrects: string | null = null): LogEntry {
  return { id: id(n), kind, at, data, corrects } as unknown as LogEntry;
}
const seconds = (at: string) => Date.parse(at) / 1000;

describe('the log as it is read', () => {
  const weigh = (n: number, at: string, gross: number, tare = 1, more = {}) =>
    entryOf('weigh-in', n, at, { gross, tare, ...more });
  const first = seconds('2026-12-01T09:00:00Z');

  test('weighings after the clay, those before it apart; tare and finest of the last', () => {
    const log = effectiveLog([
      weigh(1, '2026-11-30T09:00:00Z', 3),
      weigh(2, '2026-12-01T10:00:00Z', 8),
      weigh(3, '2026-12-02T09:00:00Z', 7.5, 1.2, { finest: 0.001 }),
    ]);
    const read = weighingsOf(log, first);
    expect(read.readings).toEqual([
      { time: 3600, mass: 7 },
      { time: 86400, mass: expect.closeTo(6.3, 9) as number },
    ]);
    expect(read.before.map((e) => e.id)).toEqual([id(1)]);
    expect([read.tare, read.finest]).toEqual([1.2, 0.001]);
    expect(scaleOf(effectiveLog([]))).toEqual({ tare: 0, finest: usualFinest });
    expect([tareToOffer(effectiveLog([]), 2.5), tareToOffer(log, 2.5)]).toEqual([2.5, 1.2]);
  });

  test('the room as it was until each weighing; how far off a reading was from what was said', () => {
    const log = effectiveLog([
      // Before the clay there is nothing for it to dry.
      entryOf('step', 4, '2026-11-30T09:00:00Z', { step: 'bulk', name: 'Fill', kind: 'bulk', usual: 1, room }),
      weigh(1, '2026-12-02T09:00:00Z', 7, 1, { room }),
      entryOf('room', 2, '2026-12-03T09:00:00Z', { temperature: 17, relativeHumidity: 0.6, room }),
      entryOf('room', 3, '2026-12-04T09:00:00Z', { temperature: 16, relativeHumidity: 0.7 }),
    ]);
    const { spells, off } = roomHistory(log, first);
    expect(spells.map((s) => s.until / 86400)).toEqual([1, 2]);
    // One that does not say what was said then cannot be held against it.
    expect(off).toEqual([{ from: 2 * 86400, temperature: -3, relativeHumidity: expect.closeTo(0.1, 9) as number }]);
  });

  test('a clock runs for forty days at the longest, and not for nothing', () => {
    const takes = (seconds: number) => kindOf('clock').schema.safeParse({ name: 'batch', seconds }).success;
    expect([40 * 86400, 40 * 86400 + 1, 0, -60].map(takes)).toEqual([true, false, false, false]);
  });
  test('a clock runs from its entry until it is stopped; struck, it never was', () => {
    const clock = (n: number, at: string) => entryOf('clock', n, at, { name: 'batch', seconds: 600 });
    const log = [
      clock(2, '2026-12-01T11:00:00Z'),
      clock(1, '2026-12-01T10:00:00Z'),
      clock(3, '2026-12-01T12:00:00Z'),
      entryOf('clock-stop', 4, '2026-12-01T10:05:00Z', { clock: id(1) }),
      entryOf('void', 5, '2026-12-01T12:01:00Z', {}, id(3)),
    ];
    expect(clocksOf(log).map((c) => [c.id, c.stopped])).toEqual([
      [id(1), seconds('2026-12-01T10:05:00Z')],
      [id(2), null],
    ]);
  });

  test('damage is open until something says that it was mended', () => {
    const log = [
      entryOf('crack', 1, '2026-12-01T10:00:00Z', { where: 'ear', width: 0.001, through: false, what: 'crack' }),
      entryOf('crack', 2, '2026-12-01T11:00:00Z', { where: 'nose', width: 0.001, through: false, what: 'crack' }),
      entryOf('repair', 3, '2026-12-02T11:00:00Z', { of: id(1), where: 'ear', how: '' }),
    ];
    expect(openDamage(effectiveLog(log)).map((e) => e.id)).toEqual([id(2)]);
    const undone = [...log, entryOf('void', 4, '2026-12-02T12:00:00Z', {}, id(3))];
    expect(openDamage(effectiveLog(undone)).map((e) => e.id)).toEqual([id(1), id(2)]);
  });

  test('a file of entries: the one that is wrong is named by its place; pictures’ names are passed over', () => {
    const good = { id: id(1), kind: 'note', at: '2026-12-01T10:00:00Z', data: { text: 'x' } };
    expect(readLogFile([good, { ...good, id: id(2), picture: 'abc' }]).ok).toBe(true);
    expect(readLogFile([good, { ...good, data: {} }])).toMatchObject({ ok: false, path: '[1].data.text' });
    expect(readLogFile([good, 5])).toMatchObject({ ok: false, path: expect.stringMatching(/^\[1\]\./) as string });
    expect(readLogFile({})).toMatchObject({ ok: false, code: 'not-a-log' });
    expect(readLogFile([{ ...good, kind: 'poem' }])).toMatchObject({ ok: false, path: '[0].kind' });
  });
});
