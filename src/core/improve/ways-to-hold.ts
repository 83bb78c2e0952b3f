import type { Build } from '../document';
import type { Answer, EvaluateOptions, Evaluator, Question } from '../evaluate';
import { nightsToLay, planWorkshop, bareAtFirst, type PlanSurroundings } from '../plan';

/** What holds the piece while it is worked on, and what that does to its plan. */
export interface WayToHold {
  readonly held: 'stands' | 'hands';
  /** Between the first clay and the last. */
  readonly nights: number;
  readonly finish: number;
  /** Whether the piece is held so now. */
  readonly now: boolean;
  /** The place to leave bare at the first sitting, and the order in which places are laid. */
  readonly bare: string | null;
  readonly order: readonly string[];
}

/**
 * The same piece on a base, a stick or a loop, and in the hands: planned whole, side by side. None where no place on it
 * stays wet, so that a hand may hold it anywhere.
 */
export function waysToHold(
  evaluator: Evaluator,
  question: Question,
  answer: Answer,
  surroundings: PlanSurroundings,
  options: EvaluateOptions,
): WayToHold[] {
  const id = options.id ?? 'this';
  const { build, log, now } = question;
  const planHeld = (held: Build['plan']['held']) => {
    const own = evaluator.toPlan(
      { build: { ...build, plan: { ...build.plan, held } }, log, now },
      { ...options, known: answer.known.history, ranges: false, sizes: answer.sizes },
    );
    if (!own.ok) return null;
    const builds = [own.value, ...surroundings.others.filter((o) => o.id !== id)];
    const { workshop, paces } = surroundings;
    return planWorkshop({ builds, workshop, paces, now: answer.judging.now }, false)?.builds[0] ?? null;
  };
  const current = planHeld(build.plan.held),
    inHands = planHeld('hands');
  if (!current || !inHands?.steps.some((s) => s.holds !== null && !s.done)) return [];
  const byHand = current.steps.some((s) => s.holds !== null && !s.done);
  return (['stands', 'hands'] as const).flatMap((held): WayToHold[] => {
    const now = byHand === (held === 'hands');
    const plan = now ? current : held === 'hands' ? inHands : planHeld(held);
    if (!plan) return [];
    const laid = nightsToLay(plan);
    return [{ held, now, finish: plan.finish.nominal, ...laid, bare: held === 'hands' ? bareAtFirst(plan) : null }];
  });
}
