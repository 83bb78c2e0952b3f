import { effectiveLog, standing, type LogEntry } from '../log';
import type { Range } from '../quantity';
import { pullsUntilGone } from './wear';

/** What the log of casts says: how many, what they weigh, and how long the detail lasts. */
export interface Pulls {
  readonly count: number;
  /** kg of those that were weighed: least, middle, most; null where none was. */
  readonly weight: Range | null;
  /** The highest number of a cast whose detail was as the first's, and the lowest whose pores were gone. */
  readonly sharpUntil: number;
  readonly goneAt: number | null;
}

export function pullsOf(log: readonly LogEntry[]): Pulls {
  const casts = standing(effectiveLog(log), 'pull').map((e) => e.data);
  const weights = casts.flatMap((c) => (c.weight === undefined ? [] : [c.weight])).sort((a, b) => a - b);
  const gone = casts.filter((c) => c.detail === 'gone').map((c) => c.number);
  return {
    count: casts.length,
    weight:
      weights.length > 0
        ? { low: weights[0]!, nominal: weights[weights.length >> 1]!, high: weights[weights.length - 1]! }
        : null,
    sharpUntil: Math.max(0, ...casts.filter((c) => c.detail === 'sharp').map((c) => c.number)),
    goneAt: gone.length > 0 ? Math.min(...gone) : null,
  };
}

/** What a cast costs in material by what those in the log weigh, against `reckoned` kg for what `needs` says; null where none was weighed. */
export function costByLog(
  needs: readonly { readonly price: Range }[],
  reckoned: Range,
  { weight }: Pick<Pulls, 'weight'>,
): Range | null {
  if (weight === null || !(reckoned.nominal > 0)) return null;
  const share = weight.nominal / reckoned.nominal;
  const of = (end: keyof Range) => share * needs.reduce((sum, n) => sum + n.price[end], 0);
  return { low: of('low'), nominal: of('nominal'), high: of('high') };
}

/**
 * Casts until a groove so deep is gone: the rule of thumb, as far as the log does not know better. Gone at one, it was
 * there the cast before; sharp at one, it lasts longer than that.
 */
export function pullsExpected(depth: number, wear: Range, { sharpUntil, goneAt }: Pulls): Range {
  const thumb = pullsUntilGone(depth, wear);
  if (goneAt !== null) {
    const low = Math.max(sharpUntil, 1);
    return { low: Math.min(low, goneAt), nominal: goneAt, high: goneAt };
  }
  const low = Math.max(thumb.low, sharpUntil);
  return { low, nominal: Math.max(thumb.nominal, low), high: Math.max(thumb.high, low) };
}
