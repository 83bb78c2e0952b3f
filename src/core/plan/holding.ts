import type { Span } from './calendar';
import type { BuildPlan, PlannedStep } from './plan';
import { zoneClock } from './time-zone';

/** Where a hand holds the piece while it is worked on: a place that is dry all that time, or still has no clay on it. */
export interface Hold {
  readonly zone: string;
  readonly name: string;
  /** Its clay comes later: it is left bare until then. */
  readonly bare: boolean;
  /** It lies on that place. */
  readonly lies: boolean;
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
  // The one that stays dry longest: it is held on to while others are laid.
  const laidNext = (zone: string) =>
    plan.steps.reduce(
      (t, s) => (s.kind === 'clay' && s.region === zone && s.from >= until ? Math.min(t, s.from) : t),
      Infinity,
    );
  const longest = (best: string | undefined, zone: string) =>
    best === undefined || laidNext(zone) > laidNext(best) ? zone : best;
  const zone = places.find((z) => z === before?.zone) ?? places.reduce<string | undefined>(longest, undefined);
  if (zone === undefined) return null;
  const laid = plan.steps.filter((s) => s.kind === 'clay' && s.region === zone);
  return {
    zone,
    name: laid[0]?.place ?? zone,
    bare: laid.length > 0 && laid.every((s) => s.from >= until),
    lies: step.lies === true,
  };
}

export function holdWords({ name, bare, lies }: Hold): string {
  const place = `the ${bare ? 'bare ' : ''}${name}`;
  return lies ? `let it lie on ${place}, on foam or a bag of sand` : `hold it by ${place}`;
}

/** Steps still to come that lay clay, in their order. */
const layings = (plan: BuildPlan): PlannedStep[] =>
  plan.steps.filter((s) => s.kind === 'clay' && s.region !== null && !s.done && Number.isFinite(s.until));

/** Nights from the first clay that is still to be laid until the last, and the places in the order they are laid. */
export function nightsToLay(plan: BuildPlan): { readonly nights: number; readonly order: readonly string[] } {
  const all = layings(plan);
  const last = all.reduce((until, s) => Math.max(until, s.until), -Infinity);
  const first = all[0];
  if (!first) return { nights: 0, order: [] };
  const { wallOf } = zoneClock(plan.zone);
  const days = (t: number) => Date.parse(`${wallOf(t).date}T00:00:00Z`) / 86_400_000;
  return { nights: days(last) - days(first.from), order: [...new Set(all.map((s) => s.place))] };
}

/** The place that is left bare at the first sitting, to hold the piece by; null where none has to be. */
export function bareAtFirst(plan: BuildPlan): string | null {
  const first = layings(plan)[0];
  const sitting = first?.sittings[0];
  const hold = first && sitting ? holdOf(plan, first, sitting) : null;
  return hold?.bare ? hold.name : null;
}

/** A step for which somebody has to come who is not in the workshop: when, and for what. */
export interface HelpWanted {
  readonly step: PlannedStep;
  readonly from: number;
  readonly until: number;
}

/** What is lifted or turned by two, where one works alone: help is asked for by the hour, not for the whole piece. */
export function helpWanted(plan: BuildPlan): HelpWanted[] {
  return plan.steps
    .filter((s) => !s.done && s.people > s.crew.length && s.crew.length > 0 && Number.isFinite(s.until))
    .flatMap((step) => step.sittings.map(({ from, until }) => ({ step, from, until })))
    .sort((a, b) => a.from - b.from);
}
