/** Verdicts: sound, to be watched, failing, or not known. */
export type Status = 'sound' | 'watch' | 'fails' | 'unknown';

export function statusOf(measured: number, watchFrom = 0.6, failsFrom = 1): Status {
  if (!Number.isFinite(measured)) return measured === Infinity ? 'fails' : 'unknown';
  return measured > failsFrom ? 'fails' : measured >= watchFrom ? 'watch' : 'sound';
}

const rank: Record<Status, number> = { sound: 0, unknown: 1, watch: 2, fails: 3 };

/** Which of two is worse; above nought where the first is. */
export function compareStatus(a: Status, b: Status): number {
  return rank[a] - rank[b];
}

export function worstStatus(all: readonly Status[]): Status {
  return all.reduce<Status>((worst, s) => (compareStatus(s, worst) > 0 ? s : worst), 'sound');
}
