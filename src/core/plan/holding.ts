import type { Span } from './calendar';
import type { BuildPlan, PlannedStep } from './plan';

/** Where a hand holds the piece while it is worked on: a place that is dry all that time, or still has no clay on it. */
export interface Hold {
  readonly zone: string;
  readonly name: string;
  /** Its clay comes later: it is left bare until then. */
  readonly bare: boolean;
}

/** Null where no hand is needed on it, or nothing is dry. What was held before in the same hour is held on to. */
export function holdOf(
  plan: BuildPlan,
  step: PlannedStep,
  { from, until }: Span,
  before: Hold | null = null,
): Hold | null {
  const dry = (zone: string) => plan.wet.every((w) => w.zone !== zone || w.from >= until || w.until.nominal <= from);
  const places = (step.holds ?? []).filter(dry);
  const zone = places.find((z) => z === before?.zone) ?? places[0];
  if (zone === undefined) return null;
  const laid = plan.steps.filter((s) => s.kind === 'clay' && s.region === zone);
  return {
    zone,
    name: laid[0]?.place ?? zone,
    bare: laid.length > 0 && laid.every((s) => s.from >= until),
  };
}

export function holdWords({ name, bare }: Hold): string {
  return `hold it by the ${bare ? 'bare ' : ''}${name}`;
}
