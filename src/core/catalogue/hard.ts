import type { ClayFamily } from './schema';

/** When a clay carries what it is, as one says it: "until it is dry"; null for what stays soft. */
export function whenHardWords(setting: ClayFamily['setting']): string | null {
  return { dries: 'it is dry', sets: 'it has set', bakes: 'it is baked', damp: null, never: null }[setting];
}
