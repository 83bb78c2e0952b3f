import type { LogEntry } from './outbox';

export interface ReadEntry extends LogEntry {
  /** A later entry corrects or voids it. */
  readonly struck: boolean;
}

/**
 * The log as it reads today: corrected entries struck, a correction standing at the time of what it corrects
 * (it was that reading), strike-outs themselves not shown.
 */
export function effectiveLog(entries: readonly LogEntry[]): ReadEntry[] {
  const byId = new Map(entries.map((e) => [e.id, e]));
  const struck = new Set(entries.map((e) => e.corrects).filter((id): id is string => id !== null));
  const when = (e: LogEntry): string => {
    const seen = new Set<string>();
    let at = e;
    while (at.corrects !== null && !seen.has(at.id)) {
      seen.add(at.id);
      const earlier = byId.get(at.corrects);
      if (!earlier) break;
      at = earlier;
    }
    return at.at;
  };
  return entries
    .filter((e) => e.kind !== 'void')
    .map((e) => ({ ...e, at: when(e), struck: struck.has(e.id) }))
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}
