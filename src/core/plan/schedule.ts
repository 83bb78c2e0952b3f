import { crewHours, inOrder, longestSitting } from './availability';
import { finishOf, startOn, startToFinish, type Span } from './calendar';
import { searchExactly } from './exact';
import { costOf, finishes, type Placed, type PlanProblem, type PlanTask } from './task';

/**
 * Serial schedule generation (Kolisch): tasks one by one, that with the longest way still before it first, each as early
 * as its waits, its people, its tools and a dry place to hold allow. A longest wait that would be broken moves what it
 * counts from to later, and the plan is made again. A few orders are tried and the best kept; where there are few tasks,
 * or none of the orders gives a plan, all orders that matter are searched (`exact.ts`).
 */
export interface Schedule {
  readonly placed: readonly Placed[];
  /** Whether every wait, hour and hold is kept; where not, `clashesOf` says what is broken. */
  readonly kept: boolean;
  readonly cost: number;
}

const grain = 60;
const mostRepairs = 80;
/** Plans made in all, times tasks. */
const mostPlans = 9000;
const exactUpTo = 9;
/** Looks in the exact search; for many tasks only as many as a first way down takes. */
const exactSteps = (open: number) => (open <= exactUpTo ? 6000 : Math.floor(120_000 / open ** 2));

interface Work {
  readonly problem: PlanProblem;
  readonly order: readonly PlanTask[];
  readonly byId: ReadonlyMap<string, PlanTask>;
  readonly tails: ReadonlyMap<string, number>;
  readonly wetters: ReadonlyMap<string, readonly { readonly task: PlanTask; readonly before: number; readonly after: number }[]>;
  readonly hoursOf: (crew: readonly string[]) => readonly Span[];
  /** In one sitting, where there is a sitting long enough. */
  readonly whole: ReadonlyMap<string, boolean>;
}

/** Longest way from a task's start to the end of its build: work and least waits. */
export function tailsOf(order: readonly PlanTask[]): Map<string, number> {
  const tails = new Map<string, number>();
  for (const t of [...order].reverse()) {
    const own = t.work + (tails.get(t.id) ?? 0);
    tails.set(t.id, own);
    for (const w of t.after) tails.set(w.task, Math.max(tails.get(w.task) ?? 0, w.least + own));
  }
  return tails;
}

export function prepare(problem: PlanProblem): Work | null {
  const order = inOrder(problem.tasks);
  if (!order) return null;
  const hoursOf = crewHours(problem);
  const wetters = new Map<string, { task: PlanTask; before: number; after: number }[]>();
  for (const t of order) for (const w of t.wets) wetters.set(w.zone, [...(wetters.get(w.zone) ?? []), { task: t, before: w.before, after: w.after }]);
  return {
    problem, order, byId: new Map(order.map((t) => [t.id, t])), tails: tailsOf(order), wetters, hoursOf,
    whole: new Map(order.map((t) => [t.id, t.whole && longestSitting(t, hoursOf) >= t.work])),
  };
}

interface Attempt {
  readonly placed: Map<string, Placed>;
  /** A longest wait that is broken: from when the task it counts from would have to begin. */
  readonly broken: { readonly task: string; readonly from: number } | null;
  readonly kept: boolean;
}

/** When nothing stands in the way of `task` from `from` on, by this crew; Infinity where never. */
function earliest(work: Work, placed: ReadonlyMap<string, Placed>, busy: Busy, task: PlanTask, crew: readonly string[], from: number): Span {
  const hours = work.hoursOf(crew);
  const whole = work.whole.get(task.id) === true;
  const free = crew.length === 0 && task.work > 0;
  let t = from;
  for (let guard = 0; guard < 5000; guard++) {
    t = task.work === 0 ? t : startOn(hours, t, task.work, whole);
    const until = task.work === 0 ? t : free ? t + task.work : finishOf(hours, t, task.work);
    if (until === Infinity) return { from: Infinity, until: Infinity };
    const next = Math.max(busy.freeFrom(crew, task.tools, t, until), wetUntil(work, placed, task, t, until), holdsUntil(work, placed, task, t, until));
    if (next <= t) return { from: t, until };
    t = next;
  }
  return { from: Infinity, until: Infinity };
}

/** The first time at which one of the places to hold is dry again, should all be wet now; `t` where one is dry. */
function holdsUntil(work: Work, placed: ReadonlyMap<string, Placed>, task: PlanTask, t: number, until: number): number {
  if (!task.holds || task.holds.length === 0) return t;
  let first = Infinity;
  for (const zone of task.holds) {
    let wet = t;
    for (const w of work.wetters.get(zone) ?? []) {
      const p = w.task.id === task.id ? undefined : placed.get(w.task.id);
      if (p && p.from - w.before < until && p.until + w.after > t) wet = Math.max(wet, p.until + w.after);
    }
    if (wet <= t) return t;
    first = Math.min(first, wet);
  }
  return first;
}

/** Where this task would wet the last place that some task already placed is held by: when that one is over. */
function wetUntil(work: Work, placed: ReadonlyMap<string, Placed>, task: PlanTask, t: number, until: number): number {
  let next = t;
  for (const wet of task.wets) {
    for (const p of placed.values()) {
      const other = work.byId.get(p.id);
      if (!other?.holds?.includes(wet.zone) || other.id === task.id) continue;
      if (t - wet.before >= p.until || until + wet.after <= p.from) continue;
      const elsewhere = new Map(placed);
      elsewhere.set(task.id, { id: task.id, from: t, until, crew: [] });
      if (holdsUntil(work, elsewhere, other, p.from, p.until) > p.from) next = Math.max(next, p.until + wet.before);
    }
  }
  return next;
}

/** Who and what is taken when. */
class Busy {
  private readonly spans = new Map<string, Span[]>();

  take(names: readonly string[], span: Span): void {
    if (span.until <= span.from) return;
    for (const n of names) {
      const list = this.spans.get(n) ?? [];
      list.push(span);
      this.spans.set(n, list);
    }
  }

  /** `from` where all are free, else the end of what they are taken by. */
  freeFrom(crew: readonly string[], tools: readonly string[], from: number, until: number): number {
    let next = from;
    for (const names of [crew, tools]) for (const n of names) for (const s of this.spans.get(n) ?? []) if (s.from < until && s.until > from) next = Math.max(next, s.until);
    return next;
  }
}

function attempt(work: Work, priority: (t: PlanTask) => number, notBefore: ReadonlyMap<string, number>): Attempt {
  const placed = new Map<string, Placed>();
  const busy = new Busy();
  let kept = true;
  const put = (t: PlanTask, span: Span, crew: readonly string[]) => {
    placed.set(t.id, { id: t.id, from: span.from, until: span.until, crew });
    busy.take(crew, span);
    busy.take(t.tools, span);
  };
  for (const t of work.order) if (t.fixed) put(t, t.fixed, t.crews[0] ?? []);
  const left = new Set(work.order.filter((t) => !t.fixed));
  const blocked = (t: PlanTask) => t.after.some((w) => { const before = work.byId.get(w.task); return before !== undefined && left.has(before); });
  while (left.size > 0) {
    let chosen: PlanTask | undefined, best = -Infinity;
    for (const t of left) {
      if (blocked(t)) continue;
      const p = priority(t);
      if (p > best) {
        best = p;
        chosen = t;
      }
    }
    if (!chosen) break;
    left.delete(chosen);
    const { from, until, crew } = soonest(work, placed, busy, chosen, notBefore);
    if (from === Infinity) kept = false;
    for (const w of chosen.after) {
      const before = placed.get(w.task);
      if (!before || w.most === null || from - before.until <= w.most + 1) continue;
      const first = work.byId.get(w.task) as PlanTask;
      if (first.fixed || from === Infinity) kept = false;
      else return { placed, broken: { task: w.task, from: laterStart(work, first, before, from - w.most) }, kept: false };
    }
    put(chosen, { from, until }, crew);
  }
  return { placed, broken: null, kept };
}

/** The crew that is done first. */
function soonest(work: Work, placed: ReadonlyMap<string, Placed>, busy: Busy, task: PlanTask, notBefore: ReadonlyMap<string, number>): Placed {
  let from = Math.max(work.problem.from, task.notBefore, notBefore.get(task.id) ?? 0);
  for (const w of task.after) {
    const before = placed.get(w.task);
    if (before) from = Math.max(from, before.until + w.least);
  }
  let best: Placed = { id: task.id, from: Infinity, until: Infinity, crew: [] };
  for (const crew of task.crews.length > 0 ? task.crews : [[]]) {
    const span = earliest(work, placed, busy, task, crew, from);
    if (span.until < best.until) best = { id: task.id, ...span, crew };
  }
  return best;
}

/** From when a task has to begin so that it does not end before `target`. */
function laterStart(work: Work, task: PlanTask, at: Placed, target: number): number {
  const hours = work.hoursOf(at.crew);
  const back = work.whole.get(task.id) || at.crew.length === 0 || task.work === 0 ? target - task.work : startToFinish(hours, target, task.work);
  const reaches = task.work === 0 || at.crew.length === 0 || finishOf(hours, back, task.work) >= target;
  return Math.max(at.from + grain, reaches ? back : back + grain);
}

function repaired(work: Work, priority: (t: PlanTask) => number, budget: { left: number }): Attempt {
  const notBefore = new Map<string, number>();
  let last = attempt(work, priority, notBefore);
  for (let i = 0; last.broken && i < mostRepairs && budget.left > 0; i++) {
    budget.left--;
    notBefore.set(last.broken.task, Math.max(notBefore.get(last.broken.task) ?? 0, last.broken.from));
    last = attempt(work, priority, notBefore);
  }
  return last.broken ? attempt(relaxed(work), priority, new Map()) : last;
}

/** The same without longest waits: something to show, with its clashes told. */
function relaxed(work: Work): Work {
  const order = work.order.map((t) => ({ ...t, after: t.after.map((w) => ({ ...w, most: null })) }));
  return { ...work, order, byId: new Map(order.map((t) => [t.id, t])) };
}

/** Orders to try: longest way first, what has a longest wait at once, least spare time first, and some shaken by a seed. */
function priorities(work: Work, tries: number): ((t: PlanTask) => number)[] {
  const tail = (t: PlanTask) => work.tails.get(t.id) ?? 0;
  const urgent = new Set(work.order.filter((t) => t.after.some((w) => w.most !== null)).map((t) => t.id));
  const spare = (t: PlanTask) => (work.problem.due[t.build] ?? work.problem.until) - tail(t);
  const out = [(t: PlanTask) => tail(t) + (urgent.has(t.id) ? 1e9 : 0), (t: PlanTask) => -spare(t) + (urgent.has(t.id) ? 1e12 : 0), tail];
  let seed = 12345;
  const next = () => (seed = (Math.imul(seed, 1103515245) + 12345) >>> 0) / 2 ** 32;
  while (out.length < tries) {
    const shaken = new Map(work.order.map((t) => [t.id, 0.6 + 0.8 * next()]));
    out.push((t) => tail(t) * (shaken.get(t.id) ?? 1) + (urgent.has(t.id) ? 1e9 : 0));
  }
  return out;
}

/** Null where tasks wait for each other in a ring. `tries` orders at most; fewer for many tasks. */
export function schedule(problem: PlanProblem, tries = 24): Schedule | null {
  const work = prepare(problem);
  if (!work) return null;
  let best: Schedule | null = null;
  // Counted in plans made, so that the same problem gives the same plan on every machine.
  const budget = { left: Math.max(30, Math.floor(mostPlans / Math.max(1, work.order.length))) };
  for (const priority of priorities(work, tries)) {
    if (best && budget.left <= 0) break;
    budget.left--;
    const made = repaired(work, priority, budget);
    const whole = made.kept && [...made.placed.values()].every((p) => p.from < Infinity) && !breaksWindow(work, made.placed);
    const found: Schedule = { placed: [...made.placed.values()], kept: whole, cost: costOf(problem, finishes(problem.tasks, made.placed)) };
    if (!best || (found.kept && !best.kept) || (found.kept === best.kept && found.cost < best.cost - 1)) best = found;
  }
  const open = work.order.filter((t) => !t.fixed).length;
  if (open > 0 && (open <= exactUpTo || best?.kept !== true) && open <= 60) {
    const exact = searchExactly(problem, work.order, work.hoursOf, work.whole, best?.kept ? best.cost : Infinity, exactSteps(open));
    if (exact) return { placed: exact, kept: true, cost: costOf(problem, finishes(problem.tasks, new Map(exact.map((p) => [p.id, p])))) };
  }
  return best;
}

function breaksWindow(work: Work, placed: ReadonlyMap<string, Placed>): boolean {
  return work.problem.tasks.some((t) => t.after.some((w) => {
    const a = placed.get(w.task), b = placed.get(t.id);
    return a !== undefined && b !== undefined && w.most !== null && b.from - a.until > w.most + 1;
  }));
}
