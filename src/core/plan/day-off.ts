import type { Person, Workshop } from './calendar';

/** Days that a maker turns out not to be there: each is one press on the plan or the bench card, and one to take it back. */
const mostDays = 60;

/**
 * The workshop without a day of these people. Where nobody has said when they work, the hours the plan took for them
 * (`planned`) are written down with it. A group of a class is away with the first of the workshop, who teaches it.
 */
export function withDayOff(
  workshop: Workshop,
  planned: readonly Person[],
  crew: readonly string[],
  date: string,
): Workshop {
  const known = workshop.people.length > 0;
  const first = known
    ? workshop.people[0]!
    : { id: 'person-1', name: 'Me', hours: planned.find((p) => p.id === 'me')?.hours ?? [], away: [], other: [] };
  const people = known ? workshop.people : [first];
  const gone = new Set(crew.map((id) => (people.some((p) => p.id === id) ? id : first.id)));
  return {
    ...workshop,
    people: people.map((p) => (gone.has(p.id) && !isAway(p, date) ? { ...p, away: withDay(p.away, date) } : p)),
  };
}

/** There after all: single days alone are taken back, a holiday is not. */
export function withoutDayOff(workshop: Workshop, date: string): Workshop {
  return {
    ...workshop,
    people: workshop.people.map((p) => ({ ...p, away: p.away.filter((a) => a.from !== date || a.until !== date) })),
  };
}

/** Single days that somebody is away on, from a date on, in order. */
export function daysOff(workshop: Workshop, from: string): string[] {
  const days = workshop.people.flatMap((p) => p.away.filter((a) => a.from === a.until).map((a) => a.from));
  return [...new Set(days)].filter((d) => d >= from).sort();
}

const isAway = (p: Person, date: string): boolean => p.away.some((a) => date >= a.from && date <= a.until);

/** Past days make room for the new one. */
function withDay(away: Person['away'], date: string): Person['away'] {
  const all = [...away].sort((a, b) => (a.until < b.until ? -1 : 1));
  return [...all.slice(Math.max(0, all.length - mostDays + 1)), { from: date, until: date }];
}
