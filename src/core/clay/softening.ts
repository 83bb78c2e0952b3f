import type { ClayFamily } from '../catalogue';
import type { MixedClay } from './water';

/**
 * What soft clay yields at: by warmth, by how long it is pushed, and with what is left to hold. Oil-based clay never stops
 * giving: its flow stress goes with the rate of strain to a power of 0.15, so that what it bears for a second it does not
 * bear for a day. Left out: how the second becomes the day; clay that stiffens while it is worked.
 */

/** Warmth softens some clays. Yield stress at a temperature: it falls by e for every `softens` degrees; Pa, degrees C. */
export function yieldAt(clay: Pick<ClayFamily, 'yieldStress' | 'softens'>, celsius: number): number {
  return clay.softens === null ? clay.yieldStress : clay.yieldStress * Math.exp((20 - celsius) / clay.softens);
}

/** Of what clay that creeps bears for a second, what it bears for a minute and for a day. */
export const creepShare = { minute: 0.54, day: 0.18 } as const;

/** What other clay bears for a moment, over what it bears for hours. */
const stiffClayCreep = 1.5;

type Softened = Pick<ClayFamily, 'setting' | 'softens'>;

/** Pa under a tool: for a second, as mixed and as warm as it is. */
export function yieldUnderTool(clay: Softened, mixed: Pick<MixedClay, 'yieldStress'>, celsius: number): number {
  return yieldAt({ yieldStress: mixed.yieldStress, softens: clay.softens }, celsius);
}

/** What fresh clay holds with from one day to the next. */
export interface ClayHold {
  /** Pa it yields at. */
  readonly yieldStress: number;
  /** What it can carry is this much less: it gives with the hours, where that is not in its yield stress already. */
  readonly margin: number;
}

export function holdOf(clay: Softened, mixed: Pick<MixedClay, 'yieldStress'>, celsius: number): ClayHold {
  const quick = yieldUnderTool(clay, mixed, celsius);
  return clay.setting === 'never'
    ? { yieldStress: quick * creepShare.day, margin: 1 }
    : { yieldStress: quick, margin: stiffClayCreep };
}
