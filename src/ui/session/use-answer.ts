'use client';
import { useEffect, useRef, useState } from 'react';
import type { Build } from '../../core/document';
import type { Report } from '../../core/evaluate';
import type { FullFindings } from '../../core/piece';
import { sessionClient, type SessionClient } from '../../workers/clients';
import type { KnownSurroundings } from './surroundings';
import type { KnownLog } from './use-log';

/** The answer on a page that edits nothing: the same session, without pictures and remedies. */
export interface KnownAnswer {
  readonly report: Report | null;
  readonly busy: boolean;
  readonly refused: string | null;
}

export function useAnswer(
  id: string,
  build: Build,
  full: FullFindings | null,
  { entries }: KnownLog,
  { surroundings }: KnownSurroundings,
  now: number,
): KnownAnswer {
  const [report, setReport] = useState<Report | null>(null);
  const [busy, setBusy] = useState(true);
  const [refused, setRefused] = useState<string | null>(null);
  const client = useRef<SessionClient | null>(null);
  useEffect(() => {
    const made = sessionClient((answer) => {
      if (answer.kind === 'nominal') setRefused(null);
      // Dates with their ranges come a moment later: what is shown is the whole answer.
      if (answer.kind === 'complete') setReport(answer.report);
      if (answer.kind === 'refused') setRefused(answer.why.message);
      if (answer.kind === 'complete' || answer.kind === 'refused') setBusy(false);
    });
    client.current = made;
    made.begin();
    return () => made.stop();
  }, []);
  useEffect(() => {
    if (!surroundings || entries === null) return;
    const wait = setTimeout(() => {
      setBusy(true);
      client.current?.ask({
        kind: 'evaluate',
        asked: { id, build, log: entries, now, units: 'metric', surroundings, full },
        pictureKey: null,
        remedies: false,
        ways: false,
      });
    }, 100);
    return () => clearTimeout(wait);
  }, [id, build, full, entries, surroundings, now]);
  return { report, busy, refused };
}
