import type { Build } from '../document';
import type { Answer, EvaluateOptions, Evaluator, Question } from '../evaluate';
import { bareAtFirst, nightsToLay, planWorkshop, type BuildPlan, type PlanSurroundings } from '../plan';

/** What holds the piece while it is worked on, and what that does to its plan. */
export interface WayToHold {
  readonly held: 'stands' | 'hands' | 'cradle';
  /** Region that is laid last, where that is not the last from the base up. */
  readonly bareFirst: string | null;
  /** Between the first clay and the last. */
  readonly nights: number;
  readonly finish: number;
  /** Whether the piece is held so now. */
  readonly now: boolean;
  /** The place to leave bare at the first sitting, and the order in which places are laid. */
  readonly bare: string | null;
  readonly order: readonly string[];
}

/** No more regions than this are tried as the one that is laid last. */
const mostTried = 12;

/**
 * The same piece on a base, a stick or a loop, in a cradle and in the hands, from the base up and with the place laid last
 * that costs the fewest nights: planned whole, side by side. None where no place on it stays wet, so that a hand may hold
 * it anywhere. Gives way after every plan: whoever asked may stop there.
 */
export function* waysToHold(
  evaluator: Evaluator,
  question: Question,
  answer: Answer,
  surroundings: PlanSurroundings,
  options: EvaluateOptions,
): Generator<null, WayToHold[]> {
  const id = options.id ?? 'this';
  const { build, log, now } = question;
  const planHeld = (held: Build['plan']['held'], bareFirst: string | null): BuildPlan | null => {
    const own = evaluator.toPlan(
      { build: { ...build, plan: { ...build.plan, held, bareFirst } }, log, now },
      { ...options, known: answer.known.history, ranges: false, sizes: answer.sizes },
    );
    if (!own.ok) return null;
    const builds = [own.value, ...surroundings.others.filter((o) => o.id !== id)];
    const { workshop, paces } = surroundings;
    return planWorkshop({ builds, workshop, paces, now: answer.judging.now }, false)?.builds[0] ?? null;
  };
  const holdsLeft = (plan: BuildPlan | null) => plan?.steps.some((s) => s.holds !== null && !s.done) === true;
  const current = planHeld(build.plan.held, build.plan.bareFirst);
  yield null;
  const inHands = planHeld('hands', null);
  yield null;
  if (!current || !inHands || !holdsLeft(inHands)) return [];
  const isNow = !holdsLeft(current) ? 'stands' : build.plan.held === 'cradle' ? 'cradle' : 'hands';
  const wayOf = (held: WayToHold['held'], bareFirst: string | null, plan: BuildPlan): WayToHold => ({
    held,
    bareFirst,
    now: isNow === held && (held === 'stands' || (build.plan.bareFirst ?? null) === bareFirst),
    finish: plan.finish.nominal,
    ...nightsToLay(plan),
    bare: held === 'stands' ? null : bareAtFirst(plan),
  });
  const better = (a: WayToHold, b: WayToHold) =>
    a.nights < b.nights || (a.nights === b.nights && a.finish < b.finish - hour);
  const ways: WayToHold[] = [];
  const stands = isNow === 'stands' ? current : planHeld('stands', null);
  if (stands) ways.push(wayOf('stands', null, stands));
  yield null;
  const laid = [...new Set(inHands.steps.filter((s) => s.kind === 'clay').map((s) => s.region))].filter(
    (r) => r !== null,
  );
  for (const held of ['cradle', 'hands'] as const) {
    const fromBase = held === 'hands' ? inHands : planHeld(held, null);
    yield null;
    if (!fromBase || fromBase.steps.some((s) => s.holds?.length === 0 && !s.done)) continue;
    const usual = wayOf(held, null, fromBase);
    ways.push(usual);
    let best = usual;
    for (const region of laid.slice(0, mostTried)) {
      const plan = planHeld(held, region);
      const way = plan && wayOf(held, region, plan);
      if (way && better(way, best)) best = way;
      yield null;
    }
    if (best !== usual) ways.push(best);
    // What the maker chose stands beside them.
    if (isNow === held && !ways.some((w) => w.now)) ways.push(wayOf(held, build.plan.bareFirst, current));
  }
  return ways;
}
const hour = 3600;
