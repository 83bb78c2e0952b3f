import type { ClassSet, PlanPart } from '../document';
import { exactly, type Range } from '../quantity';
import type { Step, StepWait } from './step';

/** What the maker has changed in the steps of a job: left out, added, other hours; and a class, which goes through them in groups. */
export interface ChangedSteps {
  readonly steps: readonly Step[];
  /** Changes whose step is not there any more, or that wait for one that is not. */
  readonly lost: readonly string[];
}

export function withChanges(steps: readonly Step[], plan: PlanPart): ChangedSteps {
  const lost: string[] = [];
  const own = plan.own.map((o): Step => ({
    id: `own/${o.id}`,
    name: o.name,
    kind: o.kind,
    region: o.region,
    place: o.region?.replaceAll('-', ' ') ?? '',
    hours: o.hours,
    whole: o.whole,
    people: o.people,
    clay: 0,
    tools: o.needs.includes('oven') ? ['oven'] : [],
    needs: o.needs,
    missed: 0.5,
    wets: [],
    holds: null,
    after: o.after.map((w) => ({
      task: w.step,
      least: exactly(w.least * 3600),
      most: w.most === null ? null : exactly(w.most * 3600),
      why: w.least > 0 ? 'as you said' : '',
    })),
  }));
  const known = new Set([...steps, ...own].map((s) => s.id));
  for (const id of Object.keys(plan.steps)) if (!known.has(id)) lost.push(id);
  for (const o of plan.own)
    for (const id of [...o.after.map((w) => w.step), ...o.before]) if (!known.has(id)) lost.push(id);
  const waitsFor = new Map<string, StepWait[]>();
  for (const o of plan.own)
    for (const b of o.before)
      waitsFor.set(b, [...(waitsFor.get(b) ?? []), { task: `own/${o.id}`, least: exactly(0), most: null, why: '' }]);
  const all = [...steps, ...own].map((s): Step => {
    const edit = plan.steps[s.id];
    return {
      ...s,
      hours: edit?.hours ?? s.hours,
      people: edit?.people ?? s.people,
      after: [...s.after, ...(waitsFor.get(s.id) ?? [])].filter((w) => known.has(w.task)),
    };
  });
  return {
    steps: without(
      all,
      new Set(
        Object.entries(plan.steps)
          .filter(([, e]) => e.off)
          .map(([id]) => id),
      ),
    ),
    lost,
  };
}

/** Steps without some: what waited for one of them waits for what that waited for. */
export function without(steps: readonly Step[], off: ReadonlySet<string>): Step[] {
  if (off.size === 0) return [...steps];
  const byId = new Map(steps.map((s) => [s.id, s]));
  const through = (w: StepWait, seen: ReadonlySet<string>): StepWait[] => {
    if (!off.has(w.task)) return [w];
    const gone = byId.get(w.task);
    if (!gone || seen.has(w.task)) return [];
    return gone.after.flatMap((g) =>
      through(
        { task: g.task, least: larger(g.least, w.least), most: null, why: g.why || w.why },
        new Set([...seen, w.task]),
      ),
    );
  };
  return steps
    .filter((s) => !off.has(s.id))
    .map((s) => ({ ...s, after: s.after.flatMap((w) => through(w, new Set())) }));
}

function larger(a: Range, b: Range): Range {
  return a.nominal >= b.nominal ? a : b;
}

/** Every group goes through the steps by itself, at a learner's pace, in its own sessions; ovens are shared. */
export function forGroups(steps: readonly Step[], set: ClassSet): Step[] {
  return Array.from({ length: set.groups }, (_, g) => g + 1).flatMap((g) =>
    steps.map((s): Step => ({
      ...s,
      id: `group-${g}/${s.id}`,
      name: `${s.name}, group ${g}`,
      hours: s.hours * set.pace,
      people: 1,
      // One tub of gauze and plaster, one pot: groups take turns at it.
      tools: s.kind === 'ground' && s.people > 0 ? [...s.tools, 'tub'] : s.tools,
      after: s.after.map((w) => ({ ...w, task: `group-${g}/${w.task}` })),
      wets: s.wets.map((w) => ({ ...w, zone: `group-${g}/${w.zone}` })),
      holds: s.holds ? s.holds.map((z) => `group-${g}/${z}`) : null,
    })),
  );
}

/** Pupils of each group, as even as can be. */
export function groupSizes(set: ClassSet): number[] {
  return Array.from({ length: set.groups }, (_, g) => Math.floor((set.people + set.groups - 1 - g) / set.groups));
}
