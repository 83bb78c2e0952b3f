import type { PlanProblem, PlanTask } from '../../src/core/plan';

export const hour = 3600,
  day = 86400;

/** An hour of Ada's on build "b", waiting for others by their id and the hours after them, and at most. */
export function planTask(
  id: string,
  after: readonly (readonly [task: string, least?: number, most?: number | null])[] = [],
  more: Partial<PlanTask> = {},
): PlanTask {
  return {
    id,
    build: 'b',
    work: hour,
    whole: false,
    crews: [['ada']],
    tools: [],
    wets: [],
    holds: null,
    notBefore: 0,
    fixed: null,
    after: after.map(([task, least = 0, most = null]) => ({
      task,
      least: least * hour,
      most: most === null ? null : most * hour,
      why: least > 0 ? `${task} is dry` : '',
    })),
    ...more,
  };
}

/** Ada is there from eight to twelve each day, from the first; ten days. */
export function planProblem(tasks: readonly PlanTask[], more: Partial<PlanProblem> = {}): PlanProblem {
  return {
    tasks,
    open: {
      ada: Array.from({ length: 10 }, (_, d) => ({ from: d * day + 8 * hour, until: d * day + 12 * hour })),
      ben: Array.from({ length: 10 }, (_, d) => ({ from: d * day + 10 * hour, until: d * day + 16 * hour })),
    },
    from: 0,
    until: 10 * day,
    due: { b: null },
    ...more,
  };
}

/** Placed at an hour of the whole plan for as long as its work is. */
export function at(id: string, from: number, hours = 1, crew: readonly string[] = ['ada']) {
  return { id, from: from * hour, until: (from + hours) * hour, crew };
}
