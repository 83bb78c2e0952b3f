import type { PlannedStep } from './plan';

/** Work that follows on itself, one hour after another, by the same hands: what stands in a calendar as one thing. */
export interface Sitting {
  readonly from: number;
  readonly until: number;
  readonly crew: readonly string[];
  readonly parts: readonly {
    readonly step: PlannedStep;
    readonly from: number;
    readonly until: number;
    /** Which of the step's own spans it is, from 1, and of how many. */
    readonly part: number;
    readonly of: number;
  }[];
}

/** Seconds of nothing to do in which nobody goes home. */
const pause = 20 * 60;

/** Sittings still to come, in their order. */
export function sittingsOfPlan(steps: readonly PlannedStep[]): Sitting[] {
  const parts = steps
    .filter((s) => !s.done && s.from < Infinity)
    .flatMap((step) =>
      step.sittings.map(({ from, until }, i) => ({ step, from, until, part: i + 1, of: step.sittings.length })),
    )
    .sort((a, b) => a.from - b.from || a.until - b.until);
  const out: { from: number; until: number; crew: readonly string[]; parts: (typeof parts)[number][] }[] = [];
  for (const p of parts) {
    const crew = p.step.crew;
    const last = out.findLast((s) => s.crew.join() === crew.join());
    if (last && p.from - last.until <= pause) {
      last.parts.push(p);
      last.until = Math.max(last.until, p.until);
    } else out.push({ from: p.from, until: p.until, crew, parts: [p] });
  }
  return out;
}
