import { newBust, type Room } from '../document';
import { airAtHour, airSpells, changesOf, coverAt, meanAir, nightsUntil, weekdayOf } from '.';

const plain = newBust('b', '2026-12-01').room;
const room = (more: Partial<Room>): Room => ({ ...plain, ...more });
// The first of December 2026 is a Tuesday.
const calendar = (r: Room) => ({ room: r, startHour: 9, weekday: weekdayOf('2026-12-01') });

test('weekdays: Monday is nought', () => {
  expect(weekdayOf('2026-12-01')).toBe(1);
  expect(weekdayOf('2026-11-29')).toBe(6);
});

test('a steady room is one spell without end', () => {
  expect(airSpells(calendar(plain), 'head')).toEqual([
    { until: Infinity, air: { temperature: 20, relativeHumidity: 0.5, speed: 0.1 }, cover: 0 },
  ]);
});

test('night runs over midnight, and its small hours belong to the evening before', () => {
  const night = room({ hours: [{ name: 'Night', days: 'working', from: 22, until: 7, temperature: 12 }] });
  const c = calendar(night);
  expect(airAtHour(c, 23).temperature).toBe(12);
  expect(airAtHour(c, 24 + 3).temperature).toBe(12);
  expect(airAtHour(c, 24 + 8).temperature).toBe(20);
  // Saturday at three in the morning is still Friday's night; Sunday at three is not a working day's.
  expect(airAtHour(c, 4 * 24 + 3).temperature).toBe(12);
  expect(airAtHour(c, 5 * 24 + 3).temperature).toBe(20);
});

test('a weekend is Saturday and Sunday, working days are the other five', () => {
  const on = (days: 'weekend' | 'working') => {
    const c = calendar(room({ hours: [{ name: 'Off', days, from: 8, until: 20, temperature: 12 }] }));
    // From Tuesday the first on, at noon.
    return [0, 1, 2, 3, 4, 5, 6].map((d) => airAtHour(c, d * 24 + 12).temperature);
  };
  expect(on('weekend')).toEqual([20, 20, 20, 20, 12, 12, 20]);
  expect(on('working')).toEqual([12, 12, 12, 12, 20, 20, 12]);
});

test('where two rules fit an hour the later one has the word, and leaves what it says nothing of', () => {
  const both = room({
    hours: [
      { name: 'Heating', days: 'every', from: 8, until: 20, temperature: 24, relativeHumidity: 0.4 },
      { name: 'Window', days: 'every', from: 12, until: 13, temperature: 15, airSpeed: 0.8 },
    ],
  });
  expect(airAtHour(calendar(both), 12.5)).toEqual({ temperature: 15, relativeHumidity: 0.4, speed: 0.8 });
  expect(airAtHour(calendar(both), 14)).toEqual({ temperature: 24, relativeHumidity: 0.4, speed: 0.1 });
});

test('spells follow each other, each as the hours say, and end in the week on average', () => {
  const c = calendar(room({ hours: [{ name: 'Heating', days: 'every', from: 8, until: 20, temperature: 24 }] }));
  const spells = airSpells(c, null);
  // From nine until eight in the evening, then twelve hours and twelve.
  expect(spells.slice(0, 3).map((s) => [s.until / 3600, s.air.temperature])).toEqual([
    [11, 24],
    [23, 20],
    [35, 24],
  ]);
  expect(spells[spells.length - 1]?.air.temperature).toBe(22);
  expect(meanAir(c).temperature).toBe(22);
  // Asked for from later on, the same spells less the time gone by.
  expect(airSpells(c, null, 20 * 3600)[0]).toMatchObject({ until: 3 * 3600, air: { temperature: 20 } });
});

test('covers by region and by hour', () => {
  const covers = [
    { kind: 'loose-plastic' as const, from: 0, until: 24, regions: ['ears'] },
    { kind: 'cloth' as const, from: 10, until: null, regions: [] },
  ];
  expect(coverAt(covers, 5, 'ears')).toBe(1500);
  expect(coverAt(covers, 5, 'head')).toBe(0);
  expect(coverAt(covers, 30, 'ears')).toBe(200);
  expect(airSpells(calendar(room({ covers })), 'ears').map((s) => [s.until / 3600, s.cover])).toEqual([
    [24, 1500],
    [Infinity, 200],
  ]);
});

test('a record has the word while it lasts', () => {
  const record = {
    name: 'r',
    startsAt: 9,
    stepHours: 1,
    temperature: [10, 11, 12],
    relativeHumidity: [0.6, 0.61, 0.62],
  };
  const c = calendar(room({ record }));
  expect(airAtHour(c, 9.5)).toMatchObject({ temperature: 10, relativeHumidity: 0.6 });
  expect(airAtHour(c, 11.2).temperature).toBe(12);
  expect(airAtHour(c, 12.5).temperature).toBe(20);
  expect(changesOf(c).length).toBeGreaterThan(0);
});

test('nights are from ten to six, cut off at either end', () => {
  expect(nightsUntil(9, 86400)).toEqual([{ from: 13 * 3600, until: 21 * 3600 }]);
  expect(nightsUntil(23, 3600 * 4)[0]).toEqual({ from: 0, until: 4 * 3600 });
});
