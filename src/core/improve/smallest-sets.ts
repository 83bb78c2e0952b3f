/**
 * The smallest sets of choices after which nothing is left wanting. Choices that exclude each other share a group. A
 * case tells how far each demand is over its limit (above zero fails); what one choice does to each demand by itself
 * predicts what sets do, and decides which are tried first. Where every set of a size can be tried, all are: then the
 * answer is that of an exhaustive search.
 */
export interface Choice {
  readonly id: string;
  readonly group: string;
}

export interface Outcome {
  /** By demand: how far over its limit, as a logarithm or any measure that adds up; at or below zero is met. */
  readonly over: readonly number[];
}

export interface Search<C extends Choice, O extends Outcome> {
  readonly choices: readonly C[];
  /** Null when the set cannot be made. */
  readonly tryOut: (set: readonly C[]) => O | null;
  readonly largest: number;
  /** Sets tried at the most. */
  readonly budget: number;
  /** Asked between tries: true stops the search with what it has. */
  readonly stop?: () => boolean;
  /** Once the smallest are found, this many of one choice more are tried, for other trade-offs. */
  readonly further?: number;
}

export interface Found<C extends Choice, O extends Outcome> {
  readonly sets: readonly { readonly choices: readonly C[]; readonly outcome: O }[];
  /** True when every smaller set, and every set of the smallest size that is enough, was tried. */
  readonly exhaustive: boolean;
  readonly tried: number;
  /** The set that came nearest, when none is enough. */
  readonly nearest: { readonly choices: readonly C[]; readonly outcome: O } | null;
}

const shortfall = (over: readonly number[]) => over.reduce((sum, v) => sum + Math.max(0, v), 0);
const met = (o: Outcome) => o.over.every((v) => v <= 1e-9);

/** Yields how many sets were tried, for progress; returns what was found, the smallest first. */
export function* smallestSets<C extends Choice, O extends Outcome>(
  search: Search<C, O>,
): Generator<number, Found<C, O>> {
  const { choices, tryOut, largest, budget, stop = () => false, further = 0 } = search;
  let tried = 0;
  const start = tryOut([]);
  if (!start) return { sets: [], exhaustive: false, tried: 0, nearest: null };
  let nearest: Found<C, O>['nearest'] = { choices: [], outcome: start };
  if (met(start)) return { sets: [nearest], exhaustive: true, tried: 1, nearest };
  const effects: (readonly number[] | null)[] = choices.map(() => null);
  const good: { choices: readonly C[]; outcome: O }[] = [];
  const attempt = (set: readonly C[]): O | null => {
    tried += 1;
    const outcome = tryOut(set);
    if (!outcome) return null;
    if (!nearest || shortfall(outcome.over) < shortfall(nearest.outcome.over)) nearest = { choices: set, outcome };
    if (met(outcome)) good.push({ choices: set, outcome });
    return outcome;
  };
  let stopped = false;
  for (const [i, choice] of choices.entries()) {
    if ((stopped = stop())) break;
    const outcome = attempt([choice]);
    effects[i] = outcome ? outcome.over.map((v, d) => v - (start.over[d] ?? 0)) : null;
    yield tried;
  }
  let exhaustive = !stopped;
  let last = good.length > 0 ? 1 : largest;
  for (let size = 2; size <= Math.min(largest, last + (further > 0 ? 1 : 0)) && !stopped; size++) {
    const beyond = good.length > 0;
    // What is left is shared among the sizes still to come, so that larger sets get their turn.
    const share = Math.ceil(Math.max(0, budget - tried) / (largest - size + 1));
    const whole = setsOf(
      choices,
      effects,
      size,
      start.over,
      beyond ? further : Math.max(0, budget - tried),
      beyond ? good.map((g) => g.choices) : [],
    );
    const sets = whole.all || beyond ? whole : { list: whole.list.slice(0, share), all: false };
    if (!beyond) exhaustive &&= sets.all;
    for (const set of sets.list) {
      if ((stopped = stop())) break;
      attempt(set);
      yield tried;
      // Where not every set can be tried, a handful that are enough is what is wanted.
      if (!sets.all && !beyond && good.length >= enough) break;
    }
    if (stopped && !beyond) exhaustive = false;
    if (good.length > 0) last = Math.min(last, beyond ? last : size);
    if (!beyond && good.length === 0 && tried >= budget) break;
  }
  return { sets: good, exhaustive, tried, nearest };
}

const enough = 12;
/** More sets than this are not even listed: the most promising are grown from those of one choice less. */
const mostListed = 60_000;

/** Sets of a size, the most promising first; at most `limit`. `all` tells whether any was left out. */
function setsOf<C extends Choice>(
  choices: readonly C[],
  effects: readonly (readonly number[] | null)[],
  size: number,
  start: readonly number[],
  limit: number,
  without: readonly (readonly C[])[],
): { list: C[][]; all: boolean } {
  const scored: { set: number[]; score: number }[] = [];
  let all = true;
  const predicted = (set: readonly number[]) =>
    start.reduce(
      (sum, s, d) =>
        sum +
        Math.max(
          0,
          set.reduce((v, c) => v + (effects[c]?.[d] ?? 0), s),
        ),
      0,
    );
  const grow = (set: number[], from: number) => {
    if (scored.length > mostListed) {
      all = false;
      return;
    }
    if (set.length === size) {
      // One that holds a smaller set that is enough has a choice it does not need.
      if (without.some((w) => w.every((c) => set.some((s) => choices[s] === c)))) return;
      scored.push({ set: [...set], score: predicted(set) });
      return;
    }
    for (let c = from; c < choices.length; c++) {
      if (effects[c] === null || set.some((s) => choices[s]?.group === choices[c]?.group)) continue;
      set.push(c);
      grow(set, c + 1);
      set.pop();
    }
  };
  grow([], 0);
  scored.sort((a, b) => a.score - b.score);
  if (scored.length > limit) all = false;
  return { list: scored.slice(0, limit).map((s) => s.set.map((c) => choices[c]!)), all };
}

/** Those no other beats in every measure; less is better. */
export function front<T>(all: readonly T[], measures: readonly ((t: T) => number)[]): T[] {
  const beats = (a: T, b: T) =>
    measures.every((m) => m(a) <= m(b) + 1e-12) && measures.some((m) => m(a) < m(b) - 1e-12);
  return all.filter((t) => !all.some((o) => o !== t && beats(o, t)));
}
