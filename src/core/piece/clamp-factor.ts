/** As far as a factor on drying may be believed. */
export function clampFactor(v: number): number {
  return Math.min(10, Math.max(0.1, v));
}
