import type { StepKind } from '../document';
import type { TimedStep } from '../log';

/**
 * The maker's own rates. The log of a factor (their hours over the usual ones) is taken to be normal: beforehand nought
 * with a spread of a half, each step logged tells it with a spread of 0.35 (days differ). The mean of many is theirs.
 */
export interface Pace {
  readonly factor: number;
  /** One standard deviation, as a share. */
  readonly spread: number;
  readonly steps: number;
}

const before = 0.5,
  each = 0.35;

export const usualPace: Pace = { factor: 1, spread: before, steps: 0 };

export function paceOf(timed: readonly TimedStep[]): Partial<Record<StepKind, Pace>> {
  const logs = new Map<StepKind, number[]>();
  for (const t of timed)
    if (t.usual > 0 && t.took > 0) logs.set(t.kind, [...(logs.get(t.kind) ?? []), Math.log(t.took / t.usual)]);
  const out: Partial<Record<StepKind, Pace>> = {};
  for (const [kind, values] of logs) {
    const weight = 1 / before ** 2 + values.length / each ** 2;
    const mean = values.reduce((sum, v) => sum + v, 0) / each ** 2 / weight;
    out[kind] = { factor: Math.exp(mean), spread: Math.sqrt(1 / weight), steps: values.length };
  }
  return out;
}
