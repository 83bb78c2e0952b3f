import type { PlanPart } from '../document';
import { merged, type Span } from './calendar';
import { dayAfter, type ZoneClock } from './time-zone';

/**
 * Days that belong to builds which take only a share of the hours there are: whole days, spread evenly, each to one such
 * build as long as their shares are no more than all of it. Days are told by their number, so that a day stays whose it
 * is, whenever it is asked.
 */
export function daysShared(
  builds: readonly { readonly id: string; readonly plan: Pick<PlanPart, 'share'> }[],
  zone: ZoneClock,
  from: number,
  until: number,
): Record<string, readonly Span[]> {
  const sharing = builds.filter((b) => b.plan.share < 1).sort((a, b) => (a.id < b.id ? -1 : 1));
  if (sharing.length === 0) return {};
  const days: Record<string, Span[]> = Object.fromEntries(sharing.map((b) => [b.id, []]));
  const last = dayAfter(zone.wallOf(until).date);
  for (let day = dayAfter(zone.wallOf(from).date, -1); day <= last; day = dayAfter(day)) {
    const at = dayNumber(day) * evenly;
    let before = 0;
    for (const { id, plan } of sharing) {
      if ((((at - before) % 1) + 1) % 1 < plan.share)
        days[id]!.push({ from: zone.epochOf(day, 0), until: zone.epochOf(day, 1440) });
      before += plan.share;
    }
  }
  return Object.fromEntries(sharing.map((b) => [b.id, merged(days[b.id]!)]));
}

const dayNumber = (date: string): number => Date.parse(`${date}T00:00:00Z`) / 86_400_000;
/** The golden section: its multiples fill the day numbers as evenly as any do, on any days of the week. */
const evenly = (Math.sqrt(5) - 1) / 2;
