import type { ClayFamily } from '../catalogue';

/** Warmth softens some clays. Yield stress at a temperature: it falls by e for every `softens` degrees; Pa, degrees C. */
export function yieldAt(clay: Pick<ClayFamily, 'yieldStress' | 'softens'>, celsius: number): number {
  return clay.softens === null ? clay.yieldStress : clay.yieldStress * Math.exp((20 - celsius) / clay.softens);
}
