import type { Range } from '../quantity';
import type { ClayFamily } from './schema';

/** When a clay carries what it is, as one says it: "until it is dry"; null for what stays soft. */
export function whenHardWords(setting: ClayFamily['setting']): string | null {
  return { dries: 'it is dry', sets: 'it has set', bakes: 'it is baked', damp: null, never: null }[setting];
}

const MPa = 1e6;
/** Own estimates, half as much or half as much again. */
const about = (nominal: number): Range => ({
  low: 0.5 * nominal * MPa,
  nominal: nominal * MPa,
  high: 1.5 * nominal * MPa,
});

/** Pa: what a clay bears as it is bent when it is dry, set or baked. None for what stays soft, or gives. */
const bendingStrengths: Readonly<Record<string, Range>> = {
  'earthen-air-dry': about(2),
  'paper-clay': about(5),
  'paper-strips': about(10),
  'foam-air-dry': about(0.7),
  'cold-porcelain': about(12),
  'epoxy-clay': about(30),
  'oven-polymer': about(25),
  'oven-polymer-light': about(6),
};

/** Null for a clay of one's own, and for what stays soft. */
export function bendingStrengthOf(clay: Pick<ClayFamily, 'id'>): Range | null {
  return bendingStrengths[clay.id] ?? null;
}
