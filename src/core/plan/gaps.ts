import type { HoursOf } from './availability';
import { common, sittings, type Span } from './calendar';
import type { Placed, PlanProblem, PlanTask } from './task';

/** Days on which nothing is done at a piece, and why: from one sitting at it to the next, or from now to the first. */
export interface Gap extends Span {
  readonly why: string;
  /** Builds that the same hands are at meanwhile. */
  readonly others: readonly string[];
}

/** Shorter than this it is the week as it goes. */
const shortest = 3 * 86400;

export function gapsOf(
  problem: PlanProblem,
  at: ReadonlyMap<string, Placed>,
  build: string,
  hoursOf: HoursOf,
  nameOf: (build: string) => string,
): Gap[] {
  const own = problem.tasks
    .filter((t) => t.build === build)
    .flatMap((task) => {
      const p = at.get(task.id);
      if (!p || p.from === Infinity || p.until <= problem.from) return [];
      const spans = p.crew.length === 0 ? [] : sittings(hoursOf(p.crew, build), p.from, p.until);
      return (spans.length > 0 ? spans : [{ from: p.from, until: p.until }]).map((span) => ({ task, p, span }));
    })
    .sort((a, b) => a.span.from - b.span.from);
  const out: Gap[] = [];
  let end = problem.from;
  for (const { task, p, span } of own) {
    if (span.from - end >= shortest)
      out.push({
        from: end,
        until: span.from,
        ...reason(problem, at, task, p, { from: end, until: span.from }, hoursOf, nameOf),
      });
    end = Math.max(end, span.until);
  }
  return out;
}

/** What the step that ends it had to wait for longest. */
function reason(
  problem: PlanProblem,
  at: ReadonlyMap<string, Placed>,
  task: PlanTask,
  p: Placed,
  gap: Span,
  hoursOf: HoursOf,
  nameOf: (build: string) => string,
): Pick<Gap, 'why' | 'others'> {
  const half = (gap.until - gap.from) / 2;
  if (task.fixed) return { why: 'put there by you', others: [] };
  const waits = p.from < gap.until ? null : lastWait(problem, at, task);
  if (waits && waits.until - gap.from >= half) return { why: waits.why, others: [] };
  const left: Span = { from: Math.max(gap.from, waits?.until ?? gap.from), until: gap.until };
  const open = common(hoursOf(p.crew, task.build), [left]);
  const others = new Map<string, number>();
  for (const t of problem.tasks) {
    const q = t.build === task.build ? undefined : at.get(t.id);
    if (!q || !q.crew.some((who) => p.crew.includes(who))) continue;
    const taken = hoursIn(common(sittings(hoursOf(q.crew, t.build), q.from, q.until), [left]));
    if (taken > 0) others.set(t.build, (others.get(t.build) ?? 0) + taken);
  }
  if (others.size > 0) {
    const ids = [...others].sort((a, b) => b[1] - a[1]).map(([id]) => id);
    const names = ids.slice(0, 2).map((id) => `“${nameOf(id)}”`);
    return {
      why: `the evenings go to ${names.join(' and ')}${ids.length > 2 ? ` and ${ids.length - 2} more` : ''}`,
      others: ids,
    };
  }
  if (hoursIn(open) === 0) {
    const some = hoursIn(common(hoursOf(p.crew), [left])) > 0;
    return { why: some ? 'these days are left for other work' : 'nobody has hours', others: [] };
  }
  return task.whole && open.every((s) => s.until - s.from < task.work)
    ? { why: 'no sitting is long enough before', others: [] }
    : { why: 'begun later, so that what follows it comes in its time', others: [] };
}

const hoursIn = (spans: readonly Span[]): number => spans.reduce((sum, s) => sum + s.until - s.from, 0);

/** Until when it waits for other steps or for a dry place to hold it by, and for what. */
function lastWait(
  problem: PlanProblem,
  at: ReadonlyMap<string, Placed>,
  task: PlanTask,
): { readonly until: number; readonly why: string } | null {
  let last: { until: number; why: string } | null = null;
  for (const w of task.after) {
    const until = (at.get(w.task)?.until ?? -Infinity) + w.least;
    if (w.least > 0 && until > (last?.until ?? -Infinity)) last = { until, why: w.why ? `until ${w.why}` : 'it waits' };
  }
  if (!task.holds || task.holds.length === 0) return last;
  const dry = (zone: string) =>
    problem.tasks.reduce((until, t) => {
      const q = at.get(t.id);
      const wet = t.id === task.id ? undefined : t.wets.find((w) => w.zone === zone);
      return q && wet && q.from < (at.get(task.id)?.from ?? 0) ? Math.max(until, q.until + wet.after) : until;
    }, -Infinity);
  const held = task.holds.reduce((first, zone) => Math.min(first, dry(zone)), Infinity);
  return held > (last?.until ?? -Infinity) && held < Infinity
    ? { until: held, why: 'until there is a dry place to hold it by' }
    : last;
}
