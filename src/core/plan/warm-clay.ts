import { clayLeft, type BuildPlan } from './plan';
import { zoneClock } from './time-zone';

/** Oil-based clay that is to be warm for a day's sitting: how much, from when, and by when; kg, seconds since the epoch. */
export interface ClayToWarm {
  readonly date: string;
  readonly mass: number;
  readonly from: number;
  readonly by: number;
  /** The step that puts it to warm is planned for that day, with its own time. */
  readonly planned: boolean;
}

/** Of every day on which such clay is still laid; a laying over several days takes its share on each. */
export function clayToWarm({ steps, zone }: Pick<BuildPlan, 'steps' | 'zone'>): ClayToWarm[] {
  const { wallOf } = zoneClock(zone);
  const days = new Map<string, { mass: number; by: number; from: number }>();
  for (const s of steps) {
    if (s.warmed === undefined || s.done || !Number.isFinite(s.until)) continue;
    const all = s.sittings.reduce((sum, x) => sum + (x.until - x.from), 0);
    for (const x of s.sittings) {
      const { date } = wallOf(x.from);
      const day = days.get(date) ?? { mass: 0, by: Infinity, from: Infinity };
      day.mass += all > 0 ? (clayLeft(s) * (x.until - x.from)) / all : 0;
      day.by = Math.min(day.by, x.from);
      day.from = Math.min(day.from, x.from - s.warmed);
      days.set(date, day);
    }
  }
  const warm = steps.find((s) => s.id === 'warm' && !s.done)?.sittings[0];
  const warmedOn = warm && wallOf(warm.from).date;
  return [...days].map(([date, day]) => ({ date, ...day, planned: date === warmedOn })).sort((a, b) => a.by - b.by);
}
