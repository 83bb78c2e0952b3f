'use client';
import { useCallback, useEffect, useState } from 'react';
import type { PlanSurroundings } from '../../core/plan';
import { call } from '../parts/http';

export function zoneOfPage(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
}

/** Milliseconds between two looks at the clock, and at what else is on the go. */
const quarter = 15 * 60_000;
const keptKey = (id: string) => `sostegno-surroundings-${id}`;
const nobody = (): PlanSurroundings => ({ workshop: { zone: zoneOfPage(), people: [] }, paces: {}, others: [] });

export interface KnownSurroundings {
  /** Null until it is known. */
  readonly surroundings: PlanSurroundings | null;
  /** Whether the server answered; what was known stands where it did not. */
  readonly reload: () => Promise<boolean>;
}

/** Who works when, how fast, and what else is on the go. What was last known stands in where the server is not reached. */
export function useSurroundings(id: string): KnownSurroundings {
  const [surroundings, set] = useState<PlanSurroundings | null>(null);
  const reload = useCallback(async () => {
    const answer = await call<PlanSurroundings>(
      'GET',
      `/api/builds/${id}/plan?zone=${encodeURIComponent(zoneOfPage())}`,
      undefined,
      false,
      30,
    );
    if (answer.ok) {
      // The same again is no news: nothing is worked out anew for it.
      set((old) => (JSON.stringify(old) === JSON.stringify(answer.value) ? old : answer.value));
      try {
        localStorage.setItem(keptKey(id), JSON.stringify(answer.value));
      } catch {
        // No room: the plan needs the server then.
      }
      return true;
    }
    const kept = localStorage.getItem(keptKey(id));
    set((old) => old ?? (kept === null ? nobody() : (JSON.parse(kept) as PlanSurroundings)));
    return false;
  }, [id]);
  useEffect(() => {
    void reload();
    // Other pieces go on in other tabs and on the phone at the bench.
    const seen = () => {
      if (document.visibilityState === 'visible') void reload();
    };
    document.addEventListener('visibilitychange', seen);
    const timer = setInterval(seen, quarter);
    return () => {
      document.removeEventListener('visibilitychange', seen);
      clearInterval(timer);
    };
  }, [reload]);
  return { surroundings, reload };
}

/** The moment answers are for; it goes on with the clock, a quarter of an hour at a time. */
export function useNow(): number {
  const [now, setNow] = useState(() => Math.floor(Date.now() / 1000));
  useEffect(() => {
    const timer = setInterval(() => setNow(Math.floor(Date.now() / 1000)), quarter);
    return () => clearInterval(timer);
  }, []);
  return now;
}
