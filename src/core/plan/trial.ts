import { crewHours } from './availability';
import { finishOf } from './calendar';
import { clashesOf } from './clashes';
import { byTwo, type BuildPlan, type WorkshopPlan } from './plan';
import type { Clash, Placed, PlanProblem, PlanTask } from './task';

/**
 * What a step would break if it were begun at another time, told before it is let go. What follows it moves along and is
 * not counted; what it waits for, the hours there are and a dry place to hold are. Steps that were done or put somewhere
 * by the maker stay, and their hands with them.
 */
export function breaksAt(plan: BuildPlan, whole: WorkshopPlan, stepId: string, at: number): Clash[] {
  const key = (id: string) => `${plan.id}:${id}`;
  const moved = plan.steps.find((s) => s.id === stepId);
  if (!moved) return [];
  const tasks = plan.steps.map((s): PlanTask => {
    const two = s.crew.length > s.people && s.shared === true;
    const work = Math.max(60, Math.round(s.takes * (two ? byTwo : 1) * 60) * 60);
    return {
      id: key(s.id),
      build: plan.id,
      work,
      whole: s.whole,
      tools: s.tools,
      crews: [s.crew],
      after: s.after.map((w) => ({
        task: key(w.task),
        least: w.least.nominal,
        most: w.most?.nominal ?? null,
        why: w.why,
      })),
      wets: s.wets.map((w) => ({ zone: key(w.zone), before: 0, after: w.after.nominal })),
      holds: s.holds?.map(key) ?? null,
      notBefore: -Infinity,
      fixed: null,
    };
  });
  const problem: PlanProblem = {
    tasks,
    open: whole.open,
    ...(whole.days ? { days: whole.days } : {}),
    from: whole.now,
    until: Infinity,
    due: { [plan.id]: plan.due },
  };
  const hoursOf = crewHours(problem);
  const own = tasks.find((t) => t.id === key(stepId))!;
  const until = own.crews[0]!.length === 0 ? at + own.work : finishOf(hoursOf(moved.crew, plan.id), at, own.work);
  const placed = plan.steps.map((s): Placed =>
    s.id === stepId
      ? { id: key(s.id), from: at, until: until === Infinity ? at + own.work : until, crew: s.crew }
      : { id: key(s.id), from: s.from, until: s.until, crew: s.crew },
  );
  const stays = new Set(plan.steps.filter((s) => s.done || s.pinned).map((s) => key(s.id)));
  return clashesOf(problem, placed, hoursOf, whole.now).flatMap((c) => {
    if (c.kind !== 'person' && c.kind !== 'tool') return c.task === own.id ? [c] : [];
    // Of two at one time either may be named first.
    const other = c.task === own.id ? c.other : c.other === own.id ? c.task : null;
    return other !== null && stays.has(other) ? [{ ...c, task: own.id, other }] : [];
  });
}
