import { seeded } from '../quantity';
import { crewHours, inOrder, longestSitting, type HoursOf } from './availability';
import { beginOn, finishOf, spanAt, startToFinish, type Span } from './calendar';
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
const mostRepairs = 80,
  mendedOneByOne = 40;
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
  readonly wetters: ReadonlyMap<
    string,
    readonly { readonly task: PlanTask; readonly before: number; readonly after: number }[]
  >;
  /** By zone: tasks that may be held there. */
  readonly holders: ReadonlyMap<string, readonly PlanTask[]>;
  /** By task: those that have to follow it within a longest wait. */
  readonly windowed: ReadonlyMap<string, readonly { readonly task: PlanTask; readonly most: number }[]>;
  readonly hoursOf: HoursOf;
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
  for (const t of order)
    for (const w of t.wets)
      wetters.set(w.zone, [...(wetters.get(w.zone) ?? []), { task: t, before: w.before, after: w.after }]);
  const holders = new Map<string, PlanTask[]>();
  for (const t of order) for (const zone of t.holds ?? []) holders.set(zone, [...(holders.get(zone) ?? []), t]);
  const windowed = new Map<string, { task: PlanTask; most: number }[]>();
  for (const t of order)
    for (const w of t.after)
      if (w.most !== null) windowed.set(w.task, [...(windowed.get(w.task) ?? []), { task: t, most: w.most }]);
  return {
    problem,
    order,
    holders,
    windowed,
    byId: new Map(order.map((t) => [t.id, t])),
    tails: tailsOf(order),
    wetters,
    hoursOf,
    whole: new Map(order.map((t) => [t.id, t.whole && longestSitting(t, hoursOf) >= t.work])),
  };
}

interface Attempt {
  readonly placed: Map<string, Placed>;
  /** Longest waits that are broken: from when the tasks they count from would have to begin. */
  readonly broken: ReadonlyMap<string, number>;
  /** The same, as the task that comes too late and the one it counts from. */
  readonly late: ReadonlySet<string>;
  readonly kept: boolean;
}

/** When nothing stands in the way of `task` from `from` on, by this crew; Infinity where never. */
function earliest(
  work: Work,
  placed: ReadonlyMap<string, Placed>,
  busy: Busy,
  task: PlanTask,
  crew: readonly string[],
  from: number,
): Span {
  const hours = work.hoursOf(crew, task.build);
  const whole = work.whole.get(task.id) === true;
  const free = crew.length === 0 && task.work > 0;
  let t = from;
  for (let guard = 0; guard < 5000; guard++) {
    t = task.work === 0 ? t : beginOn(hours, t, task.work, whole);
    const until = task.work === 0 ? t : free ? t + task.work : finishOf(hours, t, task.work);
    if (until === Infinity) return { from: Infinity, until: Infinity };
    const next = Math.max(
      busy.freeFrom(crew, task.tools, t, until),
      wetUntil(work, placed, task, t, until),
      holdsUntil(work, placed, task, t, until),
    );
    if (next <= t) return { from: t, until };
    t = next;
  }
  return { from: Infinity, until: Infinity };
}

/** The first time at which one of the places to hold is dry again, should all be wet now; `t` where one is dry. `also` counts as placed. */
function holdsUntil(
  work: Work,
  placed: ReadonlyMap<string, Placed>,
  task: PlanTask,
  t: number,
  until: number,
  also?: Placed,
): number {
  if (!task.holds || task.holds.length === 0) return t;
  let first = Infinity;
  for (const zone of task.holds) {
    let wet = t;
    for (const w of work.wetters.get(zone) ?? []) {
      if (w.task.id === task.id) continue;
      const p = also?.id === w.task.id ? also : placed.get(w.task.id);
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
    for (const other of work.holders.get(wet.zone) ?? []) {
      const p = other.id === task.id ? undefined : placed.get(other.id);
      if (!p || t - wet.before >= p.until || until + wet.after <= p.from) continue;
      if (holdsUntil(work, placed, other, p.from, p.until, { id: task.id, from: t, until, crew: [] }) > p.from)
        next = Math.max(next, p.until + wet.before);
    }
  }
  return next;
}

/** Who and what is taken when: spans in order, those that touch made one. */
class Busy {
  private readonly spans = new Map<string, { from: number; until: number }[]>();

  take(names: readonly string[], { from, until }: Span): void {
    if (until <= from) return;
    for (const n of names) {
      const list = this.spans.get(n) ?? [];
      this.spans.set(n, list);
      const at = spanAt(list, from - 1);
      let to = at;
      const whole = { from, until };
      for (let s = list[to]; s && s.from <= until; s = list[++to]) {
        whole.from = Math.min(whole.from, s.from);
        whole.until = Math.max(whole.until, s.until);
      }
      list.splice(at, to - at, whole);
    }
  }

  /** `from` where all are free, else the end of what they are taken by. */
  freeFrom(crew: readonly string[], tools: readonly string[], from: number, until: number): number {
    let next = from;
    for (const names of [crew, tools]) {
      for (const n of names) {
        const list = this.spans.get(n);
        const s = list?.[spanAt(list, from)];
        if (s && s.from < until) next = Math.max(next, s.until);
      }
    }
    return next;
  }
}

function attempt(work: Work, priority: (t: PlanTask) => number, notBefore: ReadonlyMap<string, number>): Attempt {
  const placed = new Map<string, Placed>();
  const broken = new Map<string, number>();
  const late = new Set<string>();
  const closing = new Map<string, number>();
  const busy = new Busy();
  let kept = true;
  const put = (t: PlanTask, span: Span, crew: readonly string[]) => {
    placed.set(t.id, { id: t.id, from: span.from, until: span.until, crew });
    busy.take(crew, span);
    busy.take(t.tools, span);
    for (const f of work.windowed.get(t.id) ?? []) closeBy(work, placed, closing, f.task, span.until + f.most);
  };
  for (const t of work.order) if (t.fixed) put(t, t.fixed, t.crews[0] ?? []);
  const left = new Set(work.order.filter((t) => !t.fixed));
  const blocked = (t: PlanTask) =>
    t.after.some((w) => {
      const before = work.byId.get(w.task);
      return before !== undefined && left.has(before);
    });
  while (left.size > 0) {
    let chosen: PlanTask | undefined,
      best = -Infinity;
    for (const t of left) {
      if (blocked(t)) continue;
      // What has a window open comes first, with all it still waits for; that which closes first before all.
      const closes = closing.get(t.id);
      const p = closes === undefined ? priority(t) + (t.goesOn ? begunFirst : 0) : 1e15 - closes;
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
      const first = work.byId.get(w.task)!;
      if (first.fixed || from === Infinity) kept = false;
      else {
        broken.set(w.task, Math.max(broken.get(w.task) ?? -Infinity, laterStart(work, first, before, from - w.most)));
        late.add(windowKey(chosen.id, w.task));
      }
    }
    // Of few tasks each broken wait is mended before the next is looked at; of many, all that one plan shows at once.
    if (broken.size > 0 && work.order.length <= mendedOneByOne) return { placed, broken, late, kept: false };
    put(chosen, { from, until }, crew);
  }
  return { placed, broken, late, kept: kept && broken.size === 0 };
}

/** Notes until when a task has to be begun, and all that it still waits for before it. */
function closeBy(
  work: Work,
  placed: ReadonlyMap<string, Placed>,
  closing: Map<string, number>,
  task: PlanTask,
  by: number,
): void {
  if (placed.has(task.id) || by >= (closing.get(task.id) ?? Infinity)) return;
  closing.set(task.id, by);
  for (const w of task.after) {
    const before = work.byId.get(w.task);
    if (before) closeBy(work, placed, closing, before, by - w.least - before.work);
  }
}

/** The crew that is done first. */
function soonest(
  work: Work,
  placed: ReadonlyMap<string, Placed>,
  busy: Busy,
  task: PlanTask,
  notBefore: ReadonlyMap<string, number>,
): Placed {
  let from = Math.max(work.problem.from, task.notBefore, notBefore.get(task.id) ?? -Infinity);
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
  const hours = work.hoursOf(at.crew, task.build);
  const back =
    work.whole.get(task.id) || at.crew.length === 0 || task.work === 0
      ? target - task.work
      : startToFinish(hours, target, task.work);
  const reaches = task.work === 0 || at.crew.length === 0 || finishOf(hours, back, task.work) >= target;
  return Math.max(at.from + grain, reaches ? back : back + grain);
}

/** More than any way still to go, less than any window. */
const begunFirst = 1e12;

const windowKey = (task: string, from: string) => `${task} ${from}`;

/** Mends broken windows; one that cannot be kept is let go, told as such, and the others are kept all the same. */
function repaired(work: Work, priority: (t: PlanTask) => number, budget: { left: number }): Attempt {
  const given = new Set<string>();
  let open = work;
  for (let round = 0; round <= mostGiven; round++) {
    const notBefore = new Map<string, number>();
    let last = attempt(open, priority, notBefore),
      late = last.late;
    for (let i = 0; last.broken.size > 0 && i < mostRepairs && budget.left > 0; i++) {
      budget.left--;
      for (const [task, from] of last.broken) notBefore.set(task, Math.max(notBefore.get(task) ?? -Infinity, from));
      last = attempt(open, priority, notBefore);
      if (last.late.size > 0) late = last.late;
    }
    // Put off until there is no time left for it: that window is not to be kept.
    const lost = late.size > 0 && [...last.placed.values()].some((p) => p.from === Infinity);
    if (last.broken.size === 0 && !lost) return given.size === 0 ? last : { ...last, kept: false };
    if (budget.left <= 0) break;
    for (const key of late) given.add(key);
    open = withoutWindows(work, (key) => given.has(key));
  }
  return attempt(
    withoutWindows(work, () => true),
    priority,
    new Map(),
  );
}
const mostGiven = 6;

/** The same without some of its longest waits: something to show, with its clashes told. */
function withoutWindows(work: Work, given: (key: string) => boolean): Work {
  const order = work.order.map((t) => ({
    ...t,
    after: t.after.map((w) => (given(windowKey(t.id, w.task)) ? { ...w, most: null } : w)),
  }));
  const windowed = new Map(
    [...work.windowed].map(([id, all]) => [id, all.filter((f) => !given(windowKey(f.task.id, id)))]),
  );
  return { ...work, order, windowed, byId: new Map(order.map((t) => [t.id, t])) };
}

/** Orders to try: longest way first, least spare time first, and some shaken by a seed. */
function priorities(work: Work, tries: number): ((t: PlanTask) => number)[] {
  const tail = (t: PlanTask) => work.tails.get(t.id) ?? 0;
  const spare = (t: PlanTask) => (work.problem.due[t.build] ?? work.problem.until) - tail(t);
  const out = [tail, (t: PlanTask) => -spare(t)];
  const next = seeded(12345);
  while (out.length < tries) {
    const shaken = new Map(work.order.map((t) => [t.id, 0.6 + 0.8 * next()]));
    out.push((t) => tail(t) * (shaken.get(t.id) ?? 1));
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
    const whole =
      made.kept && [...made.placed.values()].every((p) => p.from < Infinity) && !breaksWindow(work, made.placed);
    const found: Schedule = {
      placed: [...made.placed.values()],
      kept: whole,
      cost: costOf(problem, finishes(problem.tasks, made.placed)),
    };
    if (!best || (found.kept && !best.kept) || (found.kept === best.kept && found.cost < best.cost - 1)) best = found;
  }
  const open = work.order.filter((t) => !t.fixed).length;
  if (open > 0 && (open <= exactUpTo || best?.kept !== true) && open <= 60) {
    const exact = searchExactly(
      problem,
      work.order,
      work.hoursOf,
      work.whole,
      best?.kept ? best.cost : Infinity,
      exactSteps(open),
    );
    if (exact)
      return {
        placed: exact,
        kept: true,
        cost: costOf(problem, finishes(problem.tasks, new Map(exact.map((p) => [p.id, p])))),
      };
  }
  return best;
}

function breaksWindow(work: Work, placed: ReadonlyMap<string, Placed>): boolean {
  return work.problem.tasks.some((t) =>
    t.after.some((w) => {
      const a = placed.get(w.task),
        b = placed.get(t.id);
      return a !== undefined && b !== undefined && w.most !== null && b.from - a.until > w.most + 1;
    }),
  );
}
