import type { SymbolicFactor } from '../armature';
import { EarlierGrids } from '../form';

/** Shelves of small things, of which a build has many: how many times as many are kept. */
const piecemeal: Readonly<Record<string, number>> = { course: 40, tried: 40, drawn: 4, 'member cover': 200 };

/** Keeps the last few results of each kind of work by the hash of what went in, so an edit only redoes what it touched. */
export class ResultCache {
  private readonly shelves = new Map<string, Map<string, unknown>>();

  /** The order of the last frame solved: the next one mostly has the same joints. */
  symbolicFactor: SymbolicFactor | undefined;

  /** What forms were sampled on lately: of the next one only what has changed is sampled. */
  readonly grids = new EarlierGrids();

  constructor(private readonly depth = 12) {}

  keep<T>(shelf: string, key: string, make: () => T): T {
    const kept = this.shelves.get(shelf) ?? new Map<string, unknown>();
    this.shelves.set(shelf, kept);
    if (kept.has(key)) {
      const value = kept.get(key) as T;
      kept.delete(key);
      kept.set(key, value);
      return value;
    }
    const value = make();
    kept.set(key, value);
    const most = this.depth * (piecemeal[shelf] ?? 1);
    if (kept.size > most) kept.delete(kept.keys().next().value!);
    return value;
  }
}
