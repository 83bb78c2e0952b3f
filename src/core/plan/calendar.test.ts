import {
  common,
  dayAfter,
  finishOf,
  isTimeZone,
  merged,
  openSpans,
  personSchema,
  sittings,
  startOn,
  startToFinish,
  usualHours,
  withBreak,
  weekdayOfDate,
  workshopSchema,
  zoneClock,
  type Person,
} from '.';

const rome = zoneClock('Europe/Rome'),
  hour = 3600;
const utc = (text: string) => Date.parse(text) / 1000;
const person = (hours: Person['hours'], more: Partial<Person> = {}): Person => ({
  id: 'a',
  name: 'A',
  hours,
  away: [],
  other: [],
  ...more,
});

describe('wall clocks', () => {
  test('a wall time is the same moment there and back, the year through', () => {
    for (let d = 0; d < 800; d++) {
      for (const minutes of [0, 61, 600, 1439]) {
        const date = dayAfter('2025-12-30', d);
        const back = rome.wallOf(rome.epochOf(date, minutes));
        expect(back).toEqual({ date, minutes });
      }
    }
  });

  test('hours that are skipped or come twice', () => {
    // 2027-03-28, 02:00 in Rome is 03:00; 2026-10-25, 03:00 is 02:00 again.
    expect(rome.epochOf('2027-03-28', 119)).toBe(utc('2027-03-28T00:59:00Z'));
    expect(rome.epochOf('2027-03-28', 180)).toBe(utc('2027-03-28T01:00:00Z'));
    expect(rome.wallOf(rome.epochOf('2027-03-28', 150))).toEqual({ date: '2027-03-28', minutes: 210 });
    expect(rome.epochOf('2026-10-25', 150)).toBe(utc('2026-10-25T00:30:00Z'));
    expect(rome.epochOf('2026-10-25', 180)).toBe(utc('2026-10-25T02:00:00Z'));
    expect(rome.epochOf('2026-10-26', 0) - rome.epochOf('2026-10-25', 0)).toBe(25 * hour);
  });

  test('zones far from noon, with half hours, and those there are not', () => {
    for (const [zone, at] of [
      ['Pacific/Kiritimati', '2026-12-31T10:00:00Z'],
      ['Pacific/Pago_Pago', '2027-01-01T11:00:00Z'],
      ['Asia/Kolkata', '2026-12-31T18:30:00Z'],
    ] as const)
      expect(zoneClock(zone).epochOf('2027-01-01', 0)).toBe(utc(at));
    expect(isTimeZone('Europe/Rome')).toBe(true);
    expect(isTimeZone('Europe/Atlantis')).toBe(false);
    expect(workshopSchema.safeParse({ zone: 'Europe/Atlantis' }).success).toBe(false);
  });

  test('days and weekdays over the ends of months and years', () => {
    expect([dayAfter('2026-12-31'), dayAfter('2028-02-28'), dayAfter('2027-03-01', -1)]).toEqual([
      '2027-01-01',
      '2028-02-29',
      '2027-02-28',
    ]);
    expect(['2026-11-23', '2026-11-29', '2028-02-29'].map(weekdayOfDate)).toEqual([0, 6, 1]);
  });
});

describe('hours there are', () => {
  test('hours within longer hours, or over their end, are counted once', () => {
    const on = (...hours: readonly (readonly [number, number])[]) =>
      openSpans(
        person(hours.map(([from, until]) => ({ days: [1], from: from * 60, until: until * 60 }))),
        rome,
        utc('2027-02-02T00:00:00Z'),
        utc('2027-02-03T00:00:00Z'),
      ).map((s) => (s.until - s.from) / hour);
    expect(on([9, 17], [10, 12])).toEqual([8]);
    expect(on([9, 12], [11, 15], [18, 19])).toEqual([6, 1]);
  });
  test('evenings stay at their hour over a change of the clocks, and are as long', () => {
    const spans = openSpans(
      person([{ days: [0, 1, 2, 3, 4, 5, 6], from: 1140, until: 1260 }]),
      rome,
      utc('2027-03-26T00:00:00Z'),
      utc('2027-03-31T00:00:00Z'),
    );
    expect(spans.map((s) => new Date(s.from * 1000).toISOString().slice(5, 16))).toEqual([
      '03-26T18:00',
      '03-27T18:00',
      '03-28T17:00',
      '03-29T17:00',
      '03-30T17:00',
    ]);
    expect(spans.every((s) => s.until - s.from === 2 * hour)).toBe(true);
    // A sitting through the night of the change is an hour shorter in the clock's own count.
    const night = openSpans(
      person([{ days: [6], from: 0, until: 360 }]),
      rome,
      utc('2027-03-27T00:00:00Z'),
      utc('2027-03-29T00:00:00Z'),
    );
    expect(night.map((s) => s.until - s.from)).toEqual([5 * hour]);
  });

  test('away days are empty; a day with other hours has those alone; over the end of a month', () => {
    const p = person([{ days: [0, 1, 2, 3, 4], from: 600, until: 660 }], {
      away: [{ from: '2026-11-30', until: '2026-12-02' }],
      other: [
        { date: '2026-12-03', from: 900, until: 960 },
        { date: '2026-12-05', from: 0, until: 60 },
      ],
    });
    const spans = openSpans(p, zoneClock('UTC'), utc('2026-11-27T00:00:00Z'), utc('2026-12-07T00:00:00Z'));
    expect(spans.map((s) => new Date(s.from * 1000).toISOString().slice(5, 13))).toEqual([
      '11-27T10',
      '12-03T15',
      '12-04T10',
      '12-05T00',
    ]);
  });

  test('merging and what two have in common', () => {
    expect(
      merged([
        { from: 5, until: 7 },
        { from: 1, until: 3 },
        { from: 3, until: 4 },
        { from: 9, until: 9 },
      ]),
    ).toEqual([
      { from: 1, until: 4 },
      { from: 5, until: 7 },
    ]);
    expect(
      common(
        [
          { from: 0, until: 4 },
          { from: 6, until: 9 },
        ],
        [
          { from: 3, until: 7 },
          { from: 8, until: 20 },
        ],
      ),
    ).toEqual([
      { from: 3, until: 4 },
      { from: 6, until: 7 },
      { from: 8, until: 9 },
    ]);
  });

  test('work begins, goes over a night and ends; backwards is forwards', () => {
    const open = [
      { from: 10, until: 14 },
      { from: 20, until: 23 },
      { from: 30, until: 40 },
    ];
    expect([
      startOn(open, 0, 4, true),
      startOn(open, 11, 4, true),
      startOn(open, 15, 0, false),
      startOn(open, 41, 1, false),
    ]).toEqual([10, 30, 20, Infinity]);
    expect([finishOf(open, 12, 2), finishOf(open, 12, 3), finishOf(open, 12, 6), finishOf(open, 12, 40)]).toEqual([
      14,
      21,
      31,
      Infinity,
    ]);
    expect(startToFinish(open, 21, 3)).toBe(12);
    expect(startToFinish(open, 15, 9)).toBe(-Infinity);
    for (const work of [1, 2, 3, 5, 8])
      for (const target of [13, 14, 22, 31, 39]) {
        const start = startToFinish(open, target, work);
        if (start > -Infinity) expect(finishOf(open, start, work)).toBeLessThanOrEqual(target);
      }
    expect(sittings(open, 12, 31)).toEqual([
      { from: 12, until: 14 },
      { from: 20, until: 23 },
      { from: 30, until: 31 },
    ]);
  });

  test('usual hours come to the week that was asked for', () => {
    for (const week of [2, 3, 8, 10, 16, 20, 30, 40]) {
      const hours = usualHours(week).reduce((sum, h) => sum + (h.days.length * (h.until - h.from)) / 60, 0);
      expect(Math.abs(hours - week)).toBeLessThanOrEqual(Math.max(0.8, week * 0.05));
      expect(personSchema.safeParse({ id: 'me', name: 'me', hours: usualHours(week) }).success).toBe(true);
    }
  });

  test('hours that end before they begin, and a day there is not, are refused', () => {
    expect(personSchema.safeParse({ id: 'a', name: 'A', hours: [{ days: [0], from: 600, until: 600 }] }).success).toBe(
      false,
    );
    expect(personSchema.safeParse({ id: 'a', name: 'A', hours: [{ days: [0], from: 600, until: 500 }] }).success).toBe(
      false,
    );
    expect(
      personSchema.safeParse({ id: 'a', name: 'A', away: [{ from: '2026-02-30', until: '2026-03-02' }] }).success,
    ).toBe(false);
    expect(
      workshopSchema.safeParse({
        people: [
          { id: 'a', name: 'A' },
          { id: 'a', name: 'B' },
        ],
      }).success,
    ).toBe(false);
  });
});

test('a break leaves half an hour out in the middle of a long line, on a quarter of an hour', () => {
  const line = (from: number, until: number) => ({ days: [5], from, until });
  expect(withBreak(line(600, 1020))).toEqual([line(600, 795), line(825, 1020)]);
  expect(withBreak(line(1140, 1320))).toEqual([line(1140, 1215), line(1245, 1320)]);
  expect(withBreak(line(1140, 1200))).toEqual([line(1140, 1200)]);
});
