import { common, type Span } from './calendar';
import type { PlanProblem, PlanTask } from './task';

/** Hours in which a whole crew is there, each crew's worked out once. An empty crew is always there. */
export function crewHours(problem: PlanProblem): (crew: readonly string[]) => readonly Span[] {
  const always: readonly Span[] = [{ from: problem.from, until: problem.until }];
  const made = new Map<string, readonly Span[]>();
  return (crew) => {
    const key = crew.join();
    const kept = made.get(key);
    if (kept) return kept;
    const hours =
      crew.reduce<readonly Span[] | null>((all, who) => {
        const own = problem.open[who] ?? [];
        return all ? common(all, own) : own;
      }, null) ?? always;
    made.set(key, hours);
    return hours;
  };
}

/** Longest of the crews' sittings: what is to be done in one go must fit it. */
export function longestSitting(task: PlanTask, hoursOf: (crew: readonly string[]) => readonly Span[]): number {
  return task.crews.reduce((most, crew) => hoursOf(crew).reduce((m, s) => Math.max(m, s.until - s.from), most), 0);
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
