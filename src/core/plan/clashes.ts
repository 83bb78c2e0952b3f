import type { HoursOf } from './availability';
import { finishOf, startOn } from './calendar';
import type { Clash, Placed, PlanProblem, PlanTask } from './task';

/**
 * Everything a plan breaks, told from the plan alone: it knows nothing of how the plan was made. Done tasks are facts and
 * are not held against themselves; what follows them is.
 */
const slack = 1;

export function clashesOf(problem: PlanProblem, placed: readonly Placed[], hoursOf: HoursOf, now = -Infinity): Clash[] {
  const at = new Map(placed.map((p) => [p.id, p]));
  const out: Clash[] = [];
  const past = (p: Placed) => p.until <= now;
  for (const t of problem.tasks) {
    const p = at.get(t.id);
    if (!p || p.from === Infinity) {
      out.push({ kind: 'never', task: t.id, other: '', by: 0 });
      continue;
    }
    if (past(p)) continue;
    out.push(...waits(t, p, at), ...hours(t, p, hoursOf));
    if (t.holds && !t.holds.some((zone) => wetWhile(problem.tasks, at, zone, p, t.id) === null)) {
      const worst = t.holds.map((zone) => wetWhile(problem.tasks, at, zone, p, t.id)).find((w) => w !== null);
      out.push({ kind: 'hold', task: t.id, other: worst ?? '', by: 0 });
    }
  }
  out.push(...doubled(problem.tasks, at, past));
  return out;
}

function waits(t: PlanTask, p: Placed, at: ReadonlyMap<string, Placed>): Clash[] {
  const out: Clash[] = [];
  for (const w of t.after) {
    const before = at.get(w.task);
    if (!before) continue;
    const gap = p.from - before.until;
    if (gap < w.least - slack) out.push({ kind: 'too-soon', task: t.id, other: w.task, by: w.least - gap });
    if (w.most !== null && gap > w.most + slack)
      out.push({ kind: 'window', task: t.id, other: w.task, by: gap - w.most });
  }
  return out;
}

function hours(t: PlanTask, p: Placed, hoursOf: HoursOf): Clash[] {
  if (t.crews.every((c) => c.length === 0) || t.work === 0) return [];
  const open = hoursOf(p.crew, t.build);
  const needed = finishOf(open, p.from, t.work);
  if (startOn(open, p.from, 0, false) > p.from + slack || needed > p.until + slack)
    return [{ kind: 'hours', task: t.id, other: '', by: 0 }];
  return t.whole && p.until - p.from > t.work + slack
    ? [{ kind: 'one-sitting', task: t.id, other: '', by: p.until - p.from - t.work }]
    : [];
}

/** The task that wets `zone` while `p` is done; null when it is dry. */
function wetWhile(
  tasks: readonly PlanTask[],
  at: ReadonlyMap<string, Placed>,
  zone: string,
  p: Placed,
  self: string,
): string | null {
  for (const t of tasks) {
    if (t.id === self) continue;
    for (const w of t.wets) {
      if (w.zone !== zone) continue;
      const q = at.get(t.id);
      if (q && q.from - w.before < p.until - slack && q.until + w.after > p.from + slack) return t.id;
    }
  }
  return null;
}

function doubled(tasks: readonly PlanTask[], at: ReadonlyMap<string, Placed>, past: (p: Placed) => boolean): Clash[] {
  const out: Clash[] = [];
  const list = tasks
    .map((t) => ({ t, p: at.get(t.id) }))
    .filter((x): x is { t: PlanTask; p: Placed } => x.p !== undefined && !past(x.p))
    .sort((a, b) => a.p.from - b.p.from);
  list.forEach((a, i) => {
    for (let j = i + 1; j < list.length; j++) {
      const b = list[j]!;
      if (b.p.from >= a.p.until - slack) break;
      if (b.p.until <= b.p.from || a.p.until <= a.p.from) continue;
      if (a.p.crew.some((who) => b.p.crew.includes(who)))
        out.push({ kind: 'person', task: b.t.id, other: a.t.id, by: Math.min(a.p.until, b.p.until) - b.p.from });
      else if (a.t.tools.some((x) => b.t.tools.includes(x)))
        out.push({ kind: 'tool', task: b.t.id, other: a.t.id, by: Math.min(a.p.until, b.p.until) - b.p.from });
    }
  });
  return out;
}
