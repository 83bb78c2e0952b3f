'use client';
import { useCallback, useEffect, useState } from 'react';
import type { PlanSurroundings } from '../../core/plan';
import { call } from '../parts/http';

export function zoneOfPage(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
}

const keptKey = (id: string) => `sostegno-surroundings-${id}`;
const nobody = (): PlanSurroundings => ({ workshop: { zone: zoneOfPage(), people: [] }, paces: {}, others: [] });

export interface KnownSurroundings {
  /** Null until it is known. */
  readonly surroundings: PlanSurroundings | null;
  readonly reload: () => Promise<void>;
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
      set(answer.value);
      try {
        localStorage.setItem(keptKey(id), JSON.stringify(answer.value));
      } catch {
        // No room: the plan needs the server then.
      }
      return;
    }
    const kept = localStorage.getItem(keptKey(id));
    set((old) => old ?? (kept === null ? nobody() : (JSON.parse(kept) as PlanSurroundings)));
  }, [id]);
  useEffect(() => {
    void reload();
  }, [reload]);
  return { surroundings, reload };
}

/** The moment answers are for; it goes on with the clock, a quarter of an hour at a time. */
export function useNow(): number {
  const [now, setNow] = useState(() => Math.floor(Date.now() / 1000));
  useEffect(() => {
    const timer = setInterval(() => setNow(Math.floor(Date.now() / 1000)), 15 * 60_000);
    return () => clearInterval(timer);
  }, []);
  return now;
}
