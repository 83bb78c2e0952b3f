import { compareStatus } from '../piece';
import type { Part } from './finding';

/** Alike parts together, the worst of each lot first; lots by their worst. `worse` above nought where the first is. */
export function alike<T extends Part>(
  parts: readonly T[],
  keyOf: (part: T) => string,
  worse: (a: T, b: T) => number,
): (readonly T[])[] {
  const lots = new Map<string, T[]>();
  const bad = (a: T, b: T) => compareStatus(b.status, a.status) || worse(b, a);
  for (const p of parts) {
    const key = `${p.status}:${keyOf(p)}`;
    lots.set(key, [...(lots.get(key) ?? []), p]);
  }
  return [...lots.values()].map((lot) => lot.sort(bad)).sort((a, b) => bad(a[0]!, b[0]!));
}
