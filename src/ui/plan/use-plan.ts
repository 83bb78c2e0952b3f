'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Build } from '../../core/build';
import type { BuildPlan, LogEntry, PlanSurroundings, Step, WorkshopPlan } from '../../core/plan';
import type { Sooner } from '../../core/verdict';
import { PlanClient } from '../../workers/plan-client';
import { call } from '../parts/http';

/** The plan of a build as it stands, made anew when the build, its log, the workshop or the hour has changed. */
export interface KnownPlan {
  readonly plan: WorkshopPlan | null;
  readonly own: BuildPlan | null;
  readonly surroundings: PlanSurroundings | null;
  readonly ways: readonly Sooner[];
  readonly waysDone: boolean;
  /** Undefined until known; null where leaving out is not enough. */
  readonly leaveOut: { readonly steps: readonly Step[] | null; readonly finish: number } | undefined;
  readonly busy: boolean;
  readonly refused: string | null;
  readonly now: number;
  readonly reload: () => Promise<void>;
}

export function zoneOfPage(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
}

const keptKey = (id: string) => `sostegno-surroundings-${id}`;

/** What was last known of the workshop stands in where the server is not reached. */
function useSurroundings(id: string): {
  readonly surroundings: PlanSurroundings | null;
  readonly reload: () => Promise<void>;
} {
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
    set(
      (old) =>
        old ??
        (kept === null
          ? { workshop: { zone: zoneOfPage(), people: [] }, paces: {}, others: [] }
          : (JSON.parse(kept) as PlanSurroundings)),
    );
  }, [id]);
  useEffect(() => {
    void reload();
  }, [reload]);
  return { surroundings, reload };
}

/** The hour the plan is made for; it goes on with the clock, a quarter of an hour at a time. */
function useNow(): number {
  const [now, setNow] = useState(() => Math.floor(Date.now() / 1000));
  useEffect(() => {
    const timer = setInterval(() => setNow(Math.floor(Date.now() / 1000)), 15 * 60_000);
    return () => clearInterval(timer);
  }, []);
  return now;
}

export function usePlan(id: string, build: Build, log: readonly LogEntry[] | null, ways: boolean): KnownPlan {
  const { surroundings, reload } = useSurroundings(id);
  const now = useNow();
  const [plan, setPlan] = useState<WorkshopPlan | null>(null);
  const [found, setFound] = useState<Pick<KnownPlan, 'ways' | 'waysDone' | 'leaveOut'>>({
    ways: [],
    waysDone: false,
    leaveOut: undefined,
  });
  const [busy, setBusy] = useState(true);
  const [refused, setRefused] = useState<string | null>(null);
  const client = useRef<PlanClient | null>(null);
  useEffect(() => {
    client.current = new PlanClient((answer) => {
      if (answer.kind === 'plan') {
        setPlan(answer.plan);
        setFound({ ways: [], waysDone: false, leaveOut: undefined });
        setBusy(false);
        setRefused(null);
      } else if (answer.kind === 'sooner') setFound((f) => ({ ...f, ways: answer.ways, waysDone: answer.done }));
      else if (answer.kind === 'leave-out')
        setFound((f) => ({ ...f, leaveOut: { steps: answer.steps, finish: answer.finish } }));
      else {
        setBusy(false);
        setRefused(answer.why.message);
      }
    });
    return () => client.current?.stop();
  }, []);
  useEffect(() => {
    if (!surroundings || log === null) return;
    const wait = setTimeout(() => {
      setBusy(true);
      client.current?.ask({ id, build, log, surroundings, now, ways });
    }, 200);
    return () => clearTimeout(wait);
  }, [id, build, log, surroundings, now, ways]);
  return { plan, own: plan?.builds[0] ?? null, surroundings, ...found, busy, refused, now, reload };
}
