import type { PlanPart, StepKind } from '../document';
import type { Begun, Happened } from '../log';
import type { Range } from '../quantity';
import { crewHours } from './availability';
import { daysShared } from './share';
import { openSpans, sittings, usualHours, type Person, type Span, type Workshop } from './calendar';
import { forGroups, withChanges, without } from './changes';
import { clashesOf } from './clashes';
import { latestPlan } from './deadline';
import { decidingChain, type Link } from './deciding';
import { gapsOf, type Gap } from './gaps';
import type { Step } from './step';
import type { Pace } from './pace';
import { schedule, type Schedule } from './schedule';
import type { Clash, Placed, PlanProblem, PlanTask } from './task';
import { zoneClock, type ZoneClock } from './time-zone';

/** Builds, people and what has happened in; each build's plan out. Times are seconds since the epoch; "now" is given. */
export interface BuildToPlan {
  readonly id: string;
  readonly name: string;
  readonly steps: readonly Step[];
  readonly plan: PlanPart;
  readonly hoursPerWeek: number;
  /** YYYY-MM-DD; to be done by the end of that day. */
  readonly deadline: string | null;
  readonly happened: readonly Happened[];
  /** What was worked at and is not done. */
  readonly begun?: readonly Begun[];
}

export interface PlanInputs {
  readonly builds: readonly BuildToPlan[];
  readonly workshop: Workshop;
  readonly paces: Partial<Record<StepKind, Pace>>;
  readonly now: number;
}

export interface PlannedStep extends Step {
  /** Hours at the maker's pace; of one that was begun, those that are left. */
  readonly takes: number;
  readonly begun: Begun | null;
  readonly from: number;
  readonly until: number;
  readonly sittings: readonly Span[];
  readonly crew: readonly string[];
  /** When it ends with everything early, and with everything late. */
  readonly ends: { readonly low: number; readonly high: number };
  readonly done: boolean;
  readonly pinned: boolean;
  /** When it must be begun for the deadline; null without one, or where none is early enough. */
  readonly latest: number | null;
  readonly clashes: readonly Clash[];
}

export interface WetSpan {
  readonly zone: string;
  readonly name: string;
  readonly from: number;
  readonly until: Range;
}

export interface BuildPlan {
  readonly id: string;
  readonly name: string;
  /** Of the workshop's clocks. */
  readonly zone: string;
  readonly steps: readonly PlannedStep[];
  readonly wet: readonly WetSpan[];
  readonly finish: Range;
  readonly due: number | null;
  /** The last moment at which the next step may begin; null without a deadline or where it cannot be met. */
  readonly beginBy: number | null;
  readonly deciding: readonly Link[];
  /** Days without work at it, and why. */
  readonly gaps: readonly Gap[];
  readonly lost: readonly string[];
}

export interface WorkshopPlan {
  readonly zone: string;
  readonly now: number;
  readonly people: readonly Person[];
  readonly open: Readonly<Record<string, readonly Span[]>>;
  /** Days that are a build's own, where it has a share of them. */
  readonly days: PlanProblem['days'];
  readonly builds: readonly BuildPlan[];
}

type End = 'low' | 'nominal' | 'high';
/** What a step takes two who share it, of what it takes one: they do not halve it. */
export const byTwo = 0.55;
const day = 86400;
/** A step as short as this is not broken off. */
const unbroken = 3600;
/** How far back and ahead hours are looked up. */
const behind = 200 * day,
  ahead = 730 * day;

/** People with their hours, a build's own where nobody is named, and a person for each group of a class. */
export function peopleFor(inputs: PlanInputs): {
  readonly people: readonly Person[];
  readonly crewOf: ReadonlyMap<string, readonly string[]>;
} {
  const people: Person[] = [...inputs.workshop.people];
  const crewOf = new Map<string, readonly string[]>();
  for (const b of inputs.builds) {
    const known = b.plan.people.filter((p) => inputs.workshop.people.some((w) => w.id === p));
    const first = inputs.workshop.people[0];
    if (known.length > 0) crewOf.set(b.id, known);
    else if (first) crewOf.set(b.id, [first.id]);
    else {
      // Nobody has said when they work: one pair of hands for all builds, with the longest week any of them asks for.
      if (!people.some((p) => p.id === 'me'))
        people.push({
          id: 'me',
          name: 'you',
          hours: usualHours(Math.max(...inputs.builds.map((x) => x.hoursPerWeek))),
          away: [],
          other: [],
        });
      crewOf.set(b.id, ['me']);
    }
    const { classSet } = b.plan;
    if (classSet) {
      for (let g = 1; g <= classSet.groups; g++) {
        // Sessions go round the groups; with fewer sessions than groups, groups share them.
        const own = classSet.sessions.filter((_, i) =>
          classSet.sessions.length < classSet.groups
            ? i === (g - 1) % classSet.sessions.length
            : i % classSet.groups === g - 1,
        );
        people.push({
          id: groupId(b.id, g),
          name: `group ${g}`,
          away: inputs.workshop.people[0]?.away ?? [],
          other: [],
          hours: own.map((s) => ({ days: [s.day], from: s.from, until: Math.min(1440, s.from + classSet.minutes) })),
        });
      }
    }
  }
  return { people, crewOf };
}

function groupId(build: string, g: number): string {
  return `${build}-group-${g}`;
}

/** All sets of `count` of these people; the first ones where there are many. */
function crews(people: readonly string[], count: number): (readonly string[])[] {
  const wanted = Math.min(count, people.length);
  const out: string[][] = [];
  const go = (from: number, chosen: string[]) => {
    if (out.length >= 12) return;
    if (chosen.length === wanted) out.push(chosen);
    else for (let i = from; i < people.length; i++) go(i + 1, [...chosen, people[i]!]);
  };
  go(0, []);
  return out;
}

interface Ready {
  readonly build: BuildToPlan;
  readonly steps: readonly (Step & { readonly takes: number; readonly begun: Begun | null })[];
  readonly lost: readonly string[];
}

function readied(inputs: PlanInputs, b: BuildToPlan, off: ReadonlySet<string>): Ready {
  const changed = withChanges(b.steps, b.plan);
  const kept = without(changed.steps, off);
  const all = b.plan.classSet ? forGroups(kept, b.plan.classSet) : kept;
  const edited = (id: string) => b.plan.steps[id.replace(/^group-\d+\//, '')]?.hours !== undefined;
  return {
    build: b,
    lost: changed.lost,
    steps: all.map((s) => {
      const whole = s.hours * (edited(s.id) ? 1 : (inputs.paces[s.kind]?.factor ?? 1));
      const begun = b.begun?.find((x) => x.step === s.id) ?? null;
      return { ...s, begun, takes: begun ? hoursLeft(whole, begun) : whole };
    }),
  };
}

/** kg of each batch that what is left of a step is mixed in; none where nothing is mixed for it. */
export function batchesLeft(s: Pick<PlannedStep, 'clay' | 'material' | 'begun' | 'takes' | 'mixed'>): number[] {
  const all = leftToMix(s);
  if (!s.mixed || !(all > 0)) return [];
  const full = Math.max(0, Math.ceil(all / s.mixed.each - 1e-9) - 1);
  return [...Array.from({ length: full }, () => s.mixed!.each), all - full * s.mixed.each];
}

/** kg a step has still to put on of what is mixed for it; of what is no clay the share that is left of its hours. */
export function leftToMix(s: Pick<PlannedStep, 'clay' | 'material' | 'begun' | 'takes'>): number {
  if (s.clay > 0 || !s.material) return clayLeft(s);
  return s.begun ? (s.material.mass * s.takes) / (s.takes + s.begun.worked) : s.material.mass;
}

const beforeRefining: ReadonlySet<StepKind> = new Set(['setting-out', 'armature', 'bulk', 'ground', 'props', 'clay']);

/** Hours of work in a plan, at the maker's pace: until the clay is on, and all of them. */
export function hoursOfPlan({ steps }: Pick<BuildPlan, 'steps'>): { readonly untilClay: number; readonly all: number } {
  const hours = (s: PlannedStep) => (s.people > 0 ? s.takes + (s.begun?.worked ?? 0) : 0);
  const sum = (of: readonly PlannedStep[]) => of.reduce((all, s) => all + hours(s), 0);
  return { untilClay: sum(steps.filter((s) => beforeRefining.has(s.kind))), all: sum(steps) };
}

/** kg of clay a step has still to lay. */
export function clayLeft(s: Pick<PlannedStep, 'clay' | 'begun'>): number {
  return Math.max(0, s.clay - (s.begun?.clay ?? 0));
}

/** Until it is said to be done there is something left of it: a tenth, where it should have been done by now. */
function hoursLeft(whole: number, { worked, left }: Begun): number {
  return Math.max(1 / 12, left ?? Math.max(whole - worked, 0.1 * whole));
}

function tasksOf(
  { build, steps }: Ready,
  end: End,
  inputs: PlanInputs,
  crewOf: ReadonlyMap<string, readonly string[]>,
  together: boolean,
): PlanTask[] {
  const key = (id: string) => `${build.id}:${id}`;
  const done = new Map(build.happened.map((h) => [h.step, h]));
  return steps.flatMap((s): PlanTask[] => {
    const did = done.get(s.id);
    const group = /^group-(\d+)\//.exec(s.id);
    const people = group ? [groupId(build.id, Number(group[1]))] : (crewOf.get(build.id) ?? []);
    const two = together && s.shared === true && s.people === 1 && people.length > 1;
    const work = Math.max(60, Math.round(s.takes * (two ? byTwo : 1) * 60) * 60);
    const at = pinOf(s, work, build, inputs.now);
    const task: PlanTask = {
      id: key(s.id),
      build: build.id,
      work,
      whole: s.whole || work <= unbroken,
      tools: s.tools,
      crews: crews(people, two ? 2 : s.people),
      after: s.after.map((w) => ({
        task: key(w.task),
        least: w.least[end],
        most: w.most === null ? null : w.most[end],
        why: w.why,
      })),
      wets: s.wets.map((w) => ({ zone: key(w.zone), before: 0, after: w.after[end] })),
      holds: s.holds ? s.holds.map(key) : null,
      notBefore: inputs.now,
      ...(s.begun ? { goesOn: true } : {}),
      fixed: did ? { from: did.from, until: did.until } : at !== null ? { from: at, until: at + work } : null,
    };
    // What was laid in the hours so far has been wet since then.
    return s.begun && task.wets.length > 0 ? [laidSoFar(task, s.begun), task] : [task];
  });
}

/** When the maker put a step; null where nobody did, or where that time has passed and it is not done. */
function pinOf(
  s: { readonly id: string; readonly begun: Begun | null },
  work: number,
  build: BuildToPlan,
  now: number,
) {
  const said = build.plan.steps[s.id]?.at;
  if (said === undefined) return null;
  const at = Date.parse(said) / 1000;
  return at + work <= now || (s.begun !== null && at < now) ? null : at;
}

function laidSoFar(task: PlanTask, { from, until }: Begun): PlanTask {
  return {
    ...task,
    id: `${task.id}#so-far`,
    work: 0,
    whole: false,
    tools: [],
    crews: [[]],
    after: [],
    holds: null,
    fixed: { from, until },
  };
}

const openBefore = new Map<string, readonly Span[]>();
const mostKept = 64;

/** A person's open hours round a moment, kept: every edit of a build asks for the same ones several times. */
function hoursOpen(person: Person, zone: ZoneClock, now: number): readonly Span[] {
  const key = JSON.stringify([zone.name, now, person.hours, person.away, person.other]);
  const kept = openBefore.get(key);
  if (kept) return kept;
  if (openBefore.size >= mostKept) openBefore.clear();
  const made = openSpans(person, zone, now - behind, now + ahead);
  openBefore.set(key, made);
  return made;
}

export function problemOf(
  inputs: PlanInputs,
  end: End = 'nominal',
  off: ReadonlyMap<string, ReadonlySet<string>> = new Map(),
  together = false,
): { readonly problem: PlanProblem; readonly ready: readonly Ready[]; readonly people: readonly Person[] } {
  const { people, crewOf } = peopleFor(inputs);
  const zone = zoneClock(inputs.workshop.zone);
  const ready = inputs.builds.map((b) => readied(inputs, b, off.get(b.id) ?? new Set()));
  const open = Object.fromEntries(people.map((p) => [p.id, hoursOpen(p, zone, inputs.now)]));
  return {
    people,
    ready,
    problem: {
      tasks: ready.flatMap((r) => tasksOf(r, end, inputs, crewOf, together)),
      open,
      days: daysShared(inputs.builds, zone, inputs.now - behind, inputs.now + ahead),
      from: inputs.now,
      until: inputs.now + ahead,
      due: Object.fromEntries(
        inputs.builds.map((b) => [b.id, b.deadline === null ? null : zone.epochOf(b.deadline, 1440)]),
      ),
    },
  };
}

type Problem = ReturnType<typeof problemOf>;

/** Each step by one, or those two can stand at by two of those named for it, whichever is done sooner. */
function madeBest(
  inputs: PlanInputs,
  end: End = 'nominal',
  off: ReadonlyMap<string, ReadonlySet<string>> = new Map(),
  tries?: number,
): (Problem & { readonly made: Schedule }) | null {
  const one = problemOf(inputs, end, off);
  const made = schedule(one.problem, tries);
  if (!made) return null;
  if (inputs.workshop.people.length < 2) return { ...one, made };
  const { tasks } = one.problem;
  const two = problemOf(inputs, end, off, true);
  const shares = two.problem.tasks.some((t, i) => t.work !== tasks[i]!.work);
  const both = shares ? schedule(two.problem, tries) : null;
  const better = both && (both.kept === made.kept ? both.cost < made.cost - 60 : both.kept);
  return better ? { ...two, made: both } : { ...one, made };
}

/** When a build is done at the earliest, seconds since the epoch; Infinity where it cannot be planned. */
export function earliestFinish(inputs: PlanInputs, build: string, off: readonly Step[] = [], tries?: number): number {
  const best = madeBest(inputs, 'nominal', new Map([[build, new Set(off.map((s) => s.id))]]), tries);
  return best
    ? best.made.placed.reduce((m, p) => (p.id.startsWith(`${build}:`) ? Math.max(m, p.until) : m), -Infinity)
    : Infinity;
}

/** Null where own steps wait for each other in a ring. Without `ends` the earliest and latest finish are the likely one. */
export function planWorkshop(inputs: PlanInputs, ends = true): WorkshopPlan | null {
  const nominal = madeBest(inputs);
  if (!nominal) return null;
  const { made } = nominal;
  const early = ends ? (madeBest(inputs, 'low', undefined, 3)?.made ?? null) : null,
    late = ends ? (madeBest(inputs, 'high', undefined, 3)?.made ?? null) : null;
  const at = (s: typeof made) => new Map(s.placed.map((p) => [p.id, p]));
  const placed = at(made);
  const nameOf = (id: string) => inputs.builds.find((b) => b.id === id)?.name ?? id;
  const clashes = clashesOf(nominal.problem, made.placed, crewHours(nominal.problem), inputs.now);
  return {
    zone: inputs.workshop.zone,
    now: inputs.now,
    people: nominal.people,
    open: nominal.problem.open,
    days: nominal.problem.days,
    builds: nominal.ready.map((r) =>
      buildPlan(r, nominal.problem, placed, at(early ?? made), at(late ?? made), clashes, inputs.workshop.zone, nameOf),
    ),
  };
}

function buildPlan(
  { build, steps, lost }: Ready,
  problem: PlanProblem,
  placed: ReadonlyMap<string, Placed>,
  early: ReadonlyMap<string, Placed>,
  late: ReadonlyMap<string, Placed>,
  clashes: readonly Clash[],
  zone: string,
  nameOf: (build: string) => string,
): BuildPlan {
  const due = problem.due[build.id] ?? null;
  const own: PlanProblem = { ...problem, tasks: problem.tasks.filter((t) => t.build === build.id) };
  const latest = due === null ? null : latestPlan(own, due);
  const latestAt = new Map((latest ?? []).map((p) => [p.id, p.from]));
  const done = new Set(build.happened.map((h) => h.step));
  const hoursOf = crewHours(problem);
  const end = (map: ReadonlyMap<string, Placed>) =>
    steps.reduce((m, s) => Math.max(m, map.get(`${build.id}:${s.id}`)?.until ?? -Infinity), -Infinity);
  const nominal = end(placed);
  const planned = steps.map((s): PlannedStep => {
    const id = `${build.id}:${s.id}`;
    const p = placed.get(id) ?? { id, from: Infinity, until: Infinity, crew: [] };
    return {
      ...s,
      from: p.from,
      until: p.until,
      ends: {
        low: Math.min(p.until, early.get(id)?.until ?? p.until),
        high: Math.max(p.until, late.get(id)?.until ?? p.until),
      },
      crew: p.crew,
      done: done.has(s.id),
      pinned: !done.has(s.id) && pinOf(s, s.takes * 3600, build, problem.from) !== null,
      sittings: sittingsOf(p, done.has(s.id), hoursOf(p.crew, build.id)),
      // A plan that is in time shows itself that beginning then is early enough.
      latest: latestOf(latestAt.get(id), p.from, due !== null && nominal <= due),
      clashes: clashes.filter((c) => c.task === id),
    };
  });
  const first = planned
    .filter((s) => !s.done)
    .reduce<number | null>((m, s) => (s.latest === null ? m : Math.min(m ?? Infinity, s.latest)), null);
  return {
    id: build.id,
    name: build.name,
    zone,
    steps: planned.sort((a, b) => a.from - b.from || a.until - b.until),
    due,
    lost,
    beginBy: first,
    finish: { low: Math.min(nominal, end(early)), nominal, high: Math.max(nominal, end(late)) },
    deciding: decidingChain(problem, [...placed.values()], build.id),
    gaps: gapsOf(problem, placed, build.id, hoursOf, nameOf),
    wet: steps
      .flatMap((s) => (s.begun ? [s.id, `${s.id}#so-far`] : [s.id]).map((id) => ({ ...s, id })))
      .flatMap((s) =>
        s.wets.map((w): WetSpan => {
          const until = placed.get(`${build.id}:${s.id}`)?.until ?? Infinity,
            from = placed.get(`${build.id}:${s.id}`)?.from ?? Infinity;
          return {
            zone: w.zone,
            name: s.place,
            from,
            until: { low: until + w.after.low, nominal: until + w.after.nominal, high: until + w.after.high },
          };
        }),
      )
      .filter((w) => w.from < Infinity),
  };
}

/** What is done, or was put where nobody is there, is one sitting as it stands. */
function sittingsOf(p: Placed, done: boolean, open: readonly Span[]): readonly Span[] {
  if (p.from === Infinity) return [];
  const own = done ? [] : sittings(open, p.from, p.until);
  return own.length > 0 ? own : [{ from: p.from, until: p.until }];
}

function latestOf(back: number | undefined, from: number, inTime: boolean): number | null {
  if (!inTime) return back ?? null;
  return Math.max(back ?? from, from);
}

/** Steps to leave out so that it is done in time, what is least missed first; null where leaving all of them out is not enough. */
export function whatToLeaveOut(
  inputs: PlanInputs,
  build: string,
): { readonly steps: readonly Step[]; readonly finish: number } | null {
  const b = inputs.builds.find((x) => x.id === build);
  if (!b || b.deadline === null) return null;
  const done = new Set(b.happened.map((h) => h.step)),
    begun = new Set(b.begun?.map((x) => x.step));
  const due = zoneClock(inputs.workshop.zone).epochOf(b.deadline, 1440);
  const may = withChanges(b.steps, b.plan)
    .steps.filter((s) => s.missed < 0.7 && !done.has(s.id) && !begun.has(s.id) && s.hours > 0.1)
    .sort((x, y) => x.missed - y.missed || y.hours - x.hours);
  const finishWithout = (off: readonly Step[]): number => earliestFinish(inputs, build, off, 3);
  let out: Step[] = [],
    finish = Infinity;
  for (const s of may) {
    out.push(s);
    finish = finishWithout(out);
    if (finish <= due) break;
  }
  if (finish > due) return null;
  // What turned out not to matter stays in, what is missed most first.
  for (const s of [...out].reverse()) {
    const rest = out.filter((x) => x !== s),
      then = finishWithout(rest);
    if (then <= due) {
      out = rest;
      finish = then;
    }
  }
  return { steps: out, finish };
}
