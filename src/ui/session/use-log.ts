'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { LogEntry } from '../../core/log';
import { call } from '../parts/http';
import { sendWaiting, waitingFor, type Waiting } from './outbox';

/** The latest entries, and how many there are in all. */
export interface LatestOfLog {
  readonly entries: readonly LogEntry[];
  readonly count: number;
}

/** The log as this page knows it: what the server has, and what still waits to be sent. */
export interface KnownLog {
  /** Null until it was first read. */
  readonly entries: readonly LogEntry[] | null;
  /** What came with the page. */
  readonly latest: LatestOfLog;
  readonly waiting: readonly Waiting[];
  /** Whether the server answered when it was last asked. */
  readonly reached: boolean;
  readonly load: () => Promise<void>;
}

const noneYet: LatestOfLog = { entries: [], count: 0 };

const everySeconds = 5;

export function useLog(buildId: string, latest: LatestOfLog = noneYet): KnownLog {
  const [entries, setEntries] = useState<readonly LogEntry[] | null>(null);
  const [waiting, setWaiting] = useState<readonly Waiting[]>([]);
  const [reached, setReached] = useState(true);
  const load = useCallback(async () => {
    const answer = await call<LogEntry[]>('GET', `/api/builds/${buildId}/log`);
    const outbox = await waitingFor(buildId);
    const pending = outbox.filter((w) => w.refused === null).map((w) => w.entry);
    setWaiting(outbox);
    setReached(answer.ok ? !answer.kept : !answer.offline);
    setEntries((old) => {
      const known = answer.ok ? answer.value : (old ?? []).filter((e) => !pending.some((p) => p.id === e.id));
      return [...known, ...pending.filter((p) => !known.some((e) => e.id === p.id))];
    });
  }, [buildId]);
  const known = useRef(true);
  known.current = reached;
  useEffect(() => {
    void load();
    const again = () => void sendWaiting(buildId).then(load);
    window.addEventListener('online', again);
    window.addEventListener('offline', load);
    const timer = setInterval(
      () =>
        void waitingFor(buildId).then((w) => {
          if (w.some((x) => x.refused === null) || !known.current) again();
        }),
      everySeconds * 1000,
    );
    return () => {
      window.removeEventListener('online', again);
      window.removeEventListener('offline', load);
      clearInterval(timer);
    };
  }, [buildId, load]);
  return { entries, latest, waiting, reached, load };
}
