import { seeded } from '../../src/core/quantity';
import type { PlanProblem, PlanTask } from '../../src/core/plan';

/** Builds of many steps on two pairs of hands, with waits, windows, wet places and an oven, from a seed. */
const hour = 3600,
  day = 86400;

export function generatedPlan(seed: number, builds: number, steps: number): PlanProblem {
  const next = seeded(seed);
  const names = Array.from({ length: builds }, (_, i) => String.fromCharCode(97 + i));
  const tasks = names.flatMap((build) =>
    Array.from({ length: steps }, (_, i): PlanTask => {
      const wait = (to: number, least: number, most: number | null) => ({
        task: `${build}${to}`,
        least,
        most,
        why: '',
      });
      const before = Math.max(0, i - 1 - Math.floor(next() * 5));
      return {
        id: `${build}${i}`,
        build,
        work: (0.5 + Math.floor(next() * 6) / 2) * hour,
        whole: next() < 0.5,
        crews: next() < 0.2 ? [['one', 'two']] : [['one'], ['two']],
        tools: next() < 0.05 ? ['oven'] : [],
        after:
          i === 0
            ? []
            : [
                wait(before, Math.floor(next() * 3) * 12 * hour, null),
                ...(next() < 0.2 ? [wait(i - 1, 0, 48 * hour)] : []),
              ],
        wets: next() < 0.4 ? [{ zone: `${build}/${i % 8}`, before: 0, after: 40 * hour }] : [],
        holds: next() < 0.5 ? [0, 1, 2, 3, 4, 5, 6, 7].filter((z) => z !== i % 8).map((z) => `${build}/${z}`) : null,
        notBefore: 0,
        fixed: null,
      };
    }),
  );
  const evenings = (from: number) =>
    Array.from({ length: 700 }, (_, d) => ({ from: d * day + from * hour, until: d * day + 22 * hour }));
  return { tasks, open: { one: evenings(18), two: evenings(19) }, from: 0, until: 700 * day, due: {} };
}
