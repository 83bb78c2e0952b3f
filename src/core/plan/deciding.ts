import type { Placed, PlanProblem, PlanTask } from './task';

/** What decides the date: from the last task back, what each had to wait for. */
export interface Link {
  readonly task: string;
  /** What it waited for last: drying or curing, somebody busy, something in use, no dry place to hold, nobody there. */
  readonly by: 'wait' | 'person' | 'tool' | 'hold' | 'hours' | 'start';
  readonly other: string | null;
  /** Seconds of the wait itself, and of nobody being there after it. */
  readonly waited: number;
  readonly idle: number;
  readonly why: string;
}

const near = 61;

export function decidingChain(problem: PlanProblem, placed: readonly Placed[], build: string): Link[] {
  const at = new Map(placed.map((p) => [p.id, p]));
  const byId = new Map(problem.tasks.map((t) => [t.id, t]));
  let task = problem.tasks
    .filter((t) => t.build === build)
    .reduce<PlanTask | null>(
      (last, t) => (!last || (at.get(t.id)?.until ?? -Infinity) > (at.get(last.id)?.until ?? -Infinity) ? t : last),
      null,
    );
  const out: Link[] = [];
  const seen = new Set<string>();
  while (task && !seen.has(task.id) && !task.fixed) {
    seen.add(task.id);
    const link = linkOf(problem, at, byId, task);
    out.push(link);
    task = link.other === null ? null : (byId.get(link.other) ?? null);
  }
  return out.reverse();
}

function linkOf(
  problem: PlanProblem,
  at: ReadonlyMap<string, Placed>,
  byId: ReadonlyMap<string, PlanTask>,
  task: PlanTask,
): Link {
  const p = at.get(task.id)!;
  let ready = Math.max(problem.from, task.notBefore),
    wait: PlanTask['after'][number] | null = null;
  for (const w of task.after) {
    const end = (at.get(w.task)?.until ?? -Infinity) + w.least;
    if (end >= ready) {
      ready = end;
      wait = w;
    }
  }
  if (p.from - ready > near) {
    const held = task.holds ? lastWetting(problem, at, task, ready, p.from) : null;
    const busy = lastOther(at, byId, task, p, ready);
    if (held && held.until >= (busy?.until ?? -Infinity))
      return {
        task: task.id,
        by: 'hold',
        other: held.id,
        waited: held.wet,
        idle: Math.max(0, p.from - held.until),
        why: 'no place to hold it was dry',
      };
    if (busy)
      return {
        task: task.id,
        by: busy.by,
        other: busy.id,
        waited: 0,
        idle: Math.max(0, p.from - busy.until),
        why: busy.by === 'tool' ? 'what it needs was in use' : 'other work came first',
      };
  }
  if (!wait) return { task: task.id, by: 'start', other: null, waited: 0, idle: Math.max(0, p.from - ready), why: '' };
  return {
    task: task.id,
    by: wait.least > 0 ? 'wait' : 'hours',
    other: wait.task,
    waited: wait.least,
    idle: Math.max(0, p.from - ready),
    why: wait.why,
  };
}

function lastWetting(
  problem: PlanProblem,
  at: ReadonlyMap<string, Placed>,
  task: PlanTask,
  ready: number,
  from: number,
): { id: string; until: number; wet: number } | null {
  let found: { id: string; until: number; wet: number } | null = null;
  for (const t of problem.tasks) {
    for (const w of t.wets) {
      const q = at.get(t.id);
      if (!q || t.id === task.id || !task.holds?.includes(w.zone)) continue;
      const dry = q.until + w.after;
      if (dry > ready && dry <= from + near && (!found || dry > found.until))
        found = { id: t.id, until: dry, wet: w.after };
    }
  }
  return found;
}

function lastOther(
  at: ReadonlyMap<string, Placed>,
  byId: ReadonlyMap<string, PlanTask>,
  task: PlanTask,
  p: Placed,
  ready: number,
): { id: string; until: number; by: 'person' | 'tool' } | null {
  let found: { id: string; until: number; by: 'person' | 'tool' } | null = null;
  for (const q of at.values()) {
    const other = byId.get(q.id);
    if (!other || other === task || q.until <= ready || q.until > p.from + near || q.until === q.from) continue;
    const person = q.crew.some((who) => p.crew.includes(who));
    if (!person && !other.tools.some((x) => task.tools.includes(x))) continue;
    if (!found || q.until > found.until) found = { id: q.id, until: q.until, by: person ? 'person' : 'tool' };
  }
  return found;
}
