import type { Span } from './calendar';
import { schedule, type Schedule } from './schedule';
import type { Placed, PlanProblem, PlanTask } from './task';

/**
 * Backwards from the day it is due: the plan is turned round in time (what waited for a task is now waited for, what was
 * wet after is now wet before) and made forwards. What comes out, turned back, are the latest times at which each task
 * may still be begun.
 */
const turned = (s: Span): Span => ({ from: -s.until, until: -s.from });

export function mirrored(problem: PlanProblem, due: number): PlanProblem {
  const followers = new Map<string, PlanTask['after'][number][]>();
  for (const t of problem.tasks)
    for (const w of t.after) followers.set(w.task, [...(followers.get(w.task) ?? []), { ...w, task: t.id }]);
  return {
    tasks: problem.tasks.map((t) => ({
      ...t,
      after: followers.get(t.id) ?? [],
      wets: t.wets.map((w) => ({ zone: w.zone, before: w.after, after: w.before })),
      fixed: t.fixed ? turned(t.fixed) : null,
      notBefore: -Infinity,
    })),
    open: Object.fromEntries(
      Object.entries(problem.open).map(([who, spans]) => [who, [...spans].reverse().map(turned)]),
    ),
    from: -due,
    until: -earliestOpen(problem),
    due: Object.fromEntries(Object.keys(problem.due).map((b) => [b, null])),
  };
}

function earliestOpen(problem: PlanProblem): number {
  return Object.values(problem.open).reduce((m, spans) => Math.min(m, spans[0]?.from ?? m), problem.from);
}

/** Latest times for what is not fixed, to be done by `due`; null where no plan reaches it, however early it is begun. */
export function latestPlan(problem: PlanProblem, due: number, tries = 8): Placed[] | null {
  const free: PlanProblem = { ...problem, tasks: problem.tasks.filter((t) => !t.fixed) };
  const back: Schedule | null = schedule(mirrored(free, due), tries);
  if (!back || back.placed.some((p) => p.until === Infinity)) return null;
  return back.placed.map((p) => ({ ...p, from: -p.until, until: -p.from }));
}
