import type { Span } from './calendar';

/** What a plan is made of. Seconds throughout; times are seconds since the epoch. */
export interface Wait {
  /** The task that comes before. */
  readonly task: string;
  /** From its end to this one's start, at least and at most. */
  readonly least: number;
  readonly most: number | null;
  /** Why: "the first coat is dry through", "it is still soft enough to smooth". */
  readonly why: string;
}

/** A place on the piece that no hand may grip from some time before the task begins until some time after it ends. */
export interface Wet {
  readonly zone: string;
  readonly before: number;
  readonly after: number;
}

export interface PlanTask {
  readonly id: string;
  readonly build: string;
  /** Seconds of work. */
  readonly work: number;
  /** In one sitting. */
  readonly whole: boolean;
  /** Any one of these sets of people does it; an empty set where it needs nobody. */
  readonly crews: readonly (readonly string[])[];
  /** Things there is one of: an oven, a stand. */
  readonly tools: readonly string[];
  readonly after: readonly Wait[];
  readonly wets: readonly Wet[];
  /** Places any of which, dry, gives a hand a hold; null where no hand is needed on the piece. */
  readonly holds: readonly string[] | null;
  readonly notBefore: number;
  /** Begun in an earlier sitting: gone on with before anything else is begun. */
  readonly goesOn?: boolean;
  /** Done, or put there by the maker. */
  readonly fixed: Span | null;
}

export interface PlanProblem {
  readonly tasks: readonly PlanTask[];
  /** Open hours by person. */
  readonly open: Readonly<Record<string, readonly Span[]>>;
  /** By build, the days that are its own; every day where it has none of its own. */
  readonly days?: Readonly<Record<string, readonly Span[]>>;
  readonly from: number;
  readonly until: number;
  /** By build; null where it has none. */
  readonly due: Readonly<Record<string, number | null>>;
}

export interface Placed {
  readonly id: string;
  readonly from: number;
  readonly until: number;
  readonly crew: readonly string[];
}

export type ClashKind = 'too-soon' | 'window' | 'person' | 'tool' | 'hold' | 'hours' | 'one-sitting' | 'never';

/** What a plan breaks: a task, what stands against it, and by how much where that can be said. */
export interface Clash {
  readonly kind: ClashKind;
  readonly task: string;
  readonly other: string;
  /** Seconds. */
  readonly by: number;
}

/** By build: when its last task ends. */
export function finishes(tasks: readonly PlanTask[], placed: ReadonlyMap<string, Placed>): Record<string, number> {
  const out: Record<string, number> = {};
  for (const t of tasks) out[t.build] = Math.max(out[t.build] ?? -Infinity, placed.get(t.id)?.until ?? Infinity);
  return out;
}

/** Later is dearer, and past its day much dearer. */
export function costOf(problem: PlanProblem, ends: Readonly<Record<string, number>>): number {
  let sum = 0;
  for (const [build, end] of Object.entries(ends)) {
    const due = problem.due[build] ?? null;
    sum += end - problem.from + (due === null ? 0 : 50 * Math.max(0, end - due));
  }
  return sum;
}
