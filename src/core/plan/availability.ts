import { common, type Span } from './calendar';
import type { PlanProblem, PlanTask } from './task';

/** Hours in which a whole crew is there; for a build, on the days that are its own. */
export type HoursOf = (crew: readonly string[], build?: string) => readonly Span[];

/** Each crew's worked out once. An empty crew is always there. */
export function crewHours(problem: PlanProblem): HoursOf {
  const always: readonly Span[] = [{ from: problem.from, until: problem.until }];
  const made = new Map<string, readonly Span[]>();
  return (crew, build) => {
    const days = build === undefined || crew.length === 0 ? undefined : problem.days?.[build];
    const key = days ? `${crew.join()} for ${build}` : crew.join();
    const kept = made.get(key);
    if (kept) return kept;
    const all =
      crew.reduce<readonly Span[] | null>((all, who) => {
        const own = problem.open[who] ?? [];
        return all ? common(all, own) : own;
      }, null) ?? always;
    const hours = days ? common(all, days) : all;
    made.set(key, hours);
    return hours;
  };
}

/** Longest of the crews' sittings: what is to be done in one go must fit it. */
export function longestSitting(task: PlanTask, hoursOf: HoursOf): number {
  return task.crews.reduce(
    (most, crew) => hoursOf(crew, task.build).reduce((m, s) => Math.max(m, s.until - s.from), most),
    0,
  );
}

/** Tasks in an order in which each comes after what it waits for; null where they wait for each other in a ring. */
export function inOrder(tasks: readonly PlanTask[]): PlanTask[] | null {
  const byId = new Map(tasks.map((t) => [t.id, t]));
  const state = new Map<string, 'open' | 'done'>();
  const out: PlanTask[] = [];
  const visit = (t: PlanTask): boolean => {
    const s = state.get(t.id);
    if (s) return s === 'done';
    state.set(t.id, 'open');
    for (const w of t.after) {
      const before = byId.get(w.task);
      if (before && !visit(before)) return false;
    }
    state.set(t.id, 'done');
    out.push(t);
    return true;
  };
  return tasks.every(visit) ? out : null;
}
