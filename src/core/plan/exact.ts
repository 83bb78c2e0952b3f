import type { HoursOf } from './availability';
import { beginOn, finishOf, startToFinish, type Span } from './calendar';
import { costOf, finishes, type Placed, type PlanProblem, type PlanTask } from './task';

/**
 * Branch and bound over what stands in each other's way. With the order of those fixed, every wait says "not before" as a
 * function that rises with the other's start, so the earliest plan is their least fixed point, and a bound for all plans
 * with that order. Where two still overlap, both orders are tried; where nothing is dry to hold, each place and each order.
 */
interface Node {
  /** Earliest starts so far, by index. */
  readonly lows: Float64Array;
  readonly edges: readonly Edge[];
  readonly crews: readonly number[];
  /** Place a task has settled on holding. */
  readonly places: ReadonlyMap<number, string>;
}

interface Edge {
  readonly from: number;
  readonly to: number;
  readonly least: number;
}

const grain = 60;

export function searchExactly(
  problem: PlanProblem,
  tasks: readonly PlanTask[],
  hoursOf: HoursOf,
  wholes: ReadonlyMap<string, boolean>,
  bound: number,
  steps: number,
): Placed[] | null {
  const n = tasks.length;
  const index = new Map(tasks.map((t, i) => [t.id, i]));
  const crewsOf = tasks.map((t) => (t.crews.length > 0 ? t.crews : [[]]));
  const wetters = new Map<string, { task: number; before: number; after: number }[]>();
  tasks.forEach((t, i) =>
    t.wets.forEach((w) =>
      wetters.set(w.zone, [...(wetters.get(w.zone) ?? []), { task: i, before: w.before, after: w.after }]),
    ),
  );
  const ends = new Float64Array(n);
  let best: Placed[] | null = null,
    bestCost = bound,
    left = steps;

  const span = (i: number, low: number, crew: readonly string[]): Span => {
    const t = tasks[i]!;
    if (t.fixed) return t.fixed;
    if (t.work === 0) return { from: low, until: low };
    if (crew.length === 0) return { from: low, until: low + t.work };
    const hours = hoursOf(crew, t.build);
    const from = beginOn(hours, low, t.work, wholes.get(t.id) === true);
    return { from, until: from === Infinity ? Infinity : finishOf(hours, from, t.work) };
  };

  /** Least start from which the task does not end before `target`. */
  const lowFor = (i: number, target: number, crew: readonly string[]): number => {
    const t = tasks[i]!;
    if (wholes.get(t.id) || crew.length === 0 || t.work === 0) return target - t.work;
    const hours = hoursOf(crew, t.build);
    const back = startToFinish(hours, target, t.work);
    return back === -Infinity || finishOf(hours, back, t.work) >= target ? back : back + grain;
  };

  /** Raises starts until every wait holds; false where one cannot. */
  const settle = (node: Node): boolean => {
    const { lows, edges, crews } = node;
    for (let changed = true, rounds = 0; changed; rounds++) {
      if (rounds > 400) return false;
      changed = false;
      const raise = (i: number, to: number): boolean => {
        if (to <= lows[i]! + 1e-6) return true;
        const t = tasks[i]!;
        if (t.fixed) return t.fixed.from + 1 >= to;
        lows[i] = to;
        changed = true;
        return to < problem.until;
      };
      for (let i = 0; i < n; i++) {
        const s = span(i, lows[i]!, crewsOf[i]?.[crews[i]!] ?? []);
        if (s.until === Infinity) return false;
        lows[i] = s.from;
        ends[i] = s.until;
      }
      for (let i = 0; i < n; i++) {
        for (const w of tasks[i]!.after) {
          const p = index.get(w.task);
          if (p === undefined) continue;
          if (!raise(i, ends[p]! + w.least)) return false;
          const target = lows[i]! - (w.most ?? Infinity);
          if (ends[p]! < target - 1e-6) {
            if (tasks[p]!.fixed) return false;
            if (!raise(p, lowFor(p, target, crewsOf[p]?.[crews[p]!] ?? []))) return false;
          }
        }
      }
      for (const e of edges) if (!raise(e.to, ends[e.from]! + e.least)) return false;
    }
    return true;
  };

  const clash = (node: Node): Node[] | null => {
    const { lows, crews } = node;
    const ordered = (a: number, b: number, least = 0): Node => ({
      ...node,
      lows: lows.slice(),
      edges: [...node.edges, { from: a, to: b, least }],
    });
    for (let i = 0; i < n; i++) {
      const a = tasks[i]!,
        crewA = crewsOf[i]?.[crews[i]!] ?? [];
      if (a.work === 0) continue;
      for (let j = i + 1; j < n; j++) {
        const b = tasks[j]!;
        if (b.work === 0 || (a.fixed && b.fixed)) continue;
        if (lows[i]! >= ends[j]! - 1e-6 || lows[j]! >= ends[i]! - 1e-6) continue;
        const crewB = crewsOf[j]?.[crews[j]!] ?? [];
        if (crewA.some((w) => crewB.includes(w)) || a.tools.some((x) => b.tools.includes(x)))
          return lows[i]! <= lows[j]! ? [ordered(i, j), ordered(j, i)] : [ordered(j, i), ordered(i, j)];
      }
    }
    for (let i = 0; i < n; i++) {
      const t = tasks[i]!;
      if (!t.holds || t.holds.length === 0 || t.fixed) continue;
      const settled = node.places.get(i);
      const wetting = (zone: string) =>
        (wetters.get(zone) ?? []).find(
          (w) =>
            w.task !== i && lows[w.task]! - w.before < ends[i]! - 1e-6 && ends[w.task]! + w.after > lows[i]! + 1e-6,
        );
      const zones = settled === undefined ? t.holds : [settled];
      if (zones.some((z) => !wetting(z))) continue;
      return zones.flatMap((zone) => {
        const w = wetting(zone)!;
        const places = new Map(node.places).set(i, zone);
        return [
          { ...ordered(i, w.task, w.before), places },
          { ...ordered(w.task, i, w.after), places },
        ];
      });
    }
    return null;
  };

  const search = (node: Node): void => {
    if (left-- <= 0 || !settle(node)) return;
    const placed = tasks.map((t, i): Placed => ({
      id: t.id,
      from: node.lows[i]!,
      until: ends[i]!,
      crew: crewsOf[i]?.[node.crews[i]!] ?? [],
    }));
    const cost = costOf(problem, finishes(tasks, new Map(placed.map((p) => [p.id, p]))));
    if (cost >= bestCost - 1) return;
    const branches = clash(node);
    if (!branches) {
      best = placed;
      bestCost = cost;
      return;
    }
    for (const b of branches) search(b);
  };

  // Who does what: every choice where there are few, the first named otherwise.
  const choices = tasks.map((t, i) => (t.fixed ? 1 : (crewsOf[i]?.length ?? 1)));
  const count = choices.reduce((m, c) => m * c, 1);
  for (let k = 0; k < (count <= 300 ? count : 1) && left > 0; k++) {
    let rest = k;
    const crews = choices.map((c) => {
      const chosen = rest % c;
      rest = Math.floor(rest / c);
      return chosen;
    });
    search({
      lows: Float64Array.from(tasks, (t) => (t.fixed ? t.fixed.from : Math.max(problem.from, t.notBefore))),
      edges: [],
      crews,
      places: new Map(),
    });
  }
  return best;
}
