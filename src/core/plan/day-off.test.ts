import { daysOff, openSpans, usualHours, withDayOff, withoutDayOff, workshopSchema, zoneClock, type Person } from '.';

const person = (id: string, more: Partial<Person> = {}): Person => ({
  id,
  name: id,
  hours: [{ days: [1, 3], from: 1140, until: 1320 }],
  away: [],
  other: [],
  ...more,
});
const workshop = (...people: Person[]) => workshopSchema.parse({ zone: 'UTC', people });
const utc = zoneClock('UTC');
/** Tuesday, 1 December 2026, for two weeks. */
const from = utc.epochOf('2026-12-01', 0);
const days = (p: Person) => openSpans(p, utc, from, from + 14 * 86400).map((s) => utc.wallOf(s.from).date);

test('the day falls away, and comes back', () => {
  const before = workshop(person('ada'), person('ben'));
  const after = withDayOff(before, before.people, ['ada'], '2026-12-03');
  expect(days(after.people[0]!)).toEqual(['2026-12-01', '2026-12-08', '2026-12-10']);
  expect(after.people[1]).toEqual(before.people[1]);
  expect(daysOff(after, '2026-12-01')).toEqual(['2026-12-03']);
  expect(daysOff(after, '2026-12-04')).toEqual([]);
  expect(withoutDayOff(after, '2026-12-03')).toEqual(before);
  expect(workshopSchema.parse(after)).toEqual(after);
});

test('where nobody has said when they work, the hours the plan took are kept', () => {
  const me = { ...person('me'), hours: usualHours(8) };
  const after = withDayOff(workshop(), [me], ['me'], '2026-12-02');
  expect(after.people).toEqual([
    {
      id: 'person-1',
      name: 'Me',
      hours: usualHours(8),
      away: [{ from: '2026-12-02', until: '2026-12-02' }],
      other: [],
    },
  ]);
});

test('a group is away with its teacher; who is on holiday is not away twice; a holiday stays', () => {
  const holiday = { from: '2026-12-01', until: '2026-12-09' };
  const shop = workshop(person('ada', { away: [holiday] }));
  expect(withDayOff(shop, shop.people, ['ada'], '2026-12-03')).toEqual(shop);
  expect(withDayOff(shop, shop.people, ['b-group-2'], '2026-12-10').people[0]!.away).toEqual([
    holiday,
    { from: '2026-12-10', until: '2026-12-10' },
  ]);
  expect(withoutDayOff(shop, '2026-12-01')).toEqual(shop);
});

test('the list of days stays within its bounds: the oldest goes', () => {
  const away = Array.from({ length: 60 }, (_, i) => {
    const d = new Date(Date.UTC(2026, 8, 1 + i)).toISOString().slice(0, 10);
    return { from: d, until: d };
  });
  const after = withDayOff(workshop(person('ada', { away })), [], ['ada'], '2026-12-03').people[0]!.away;
  expect(after).toHaveLength(60);
  expect([after[0]!.from, after[59]!.from]).toEqual(['2026-09-02', '2026-12-03']);
});
