'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import type { NoteForNext } from '../../core/log';
import { formatDate } from '../../core/quantity';

/** What was written at earlier pieces for the next; nothing where there is none. */
export function NotesForNext({ buildId }: { buildId: string }) {
  const [notes, setNotes] = useState<readonly NoteForNext[]>([]);
  useEffect(() => {
    let gone = false;
    fetch(`/api/builds/${buildId}/notes`)
      .then(async (r) => (r.ok ? ((await r.json()) as NoteForNext[]) : []))
      .then((n) => {
        if (!gone) setNotes(n);
      })
      // Without a connection there are none to show.
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [buildId]);
  if (notes.length === 0) return null;
  return (
    <section aria-label="From earlier pieces" data-testid="notes-for-next">
      <h3>From earlier pieces</h3>
      <ul className="plain">
        {notes.map((n) => (
          <li key={n.id} className="lined">
            {n.text}{' '}
            <span className="small muted">
              <Link href={`/build/${n.build}?station=log`}>{n.name}</Link>, {formatDate(n.at.slice(0, 10))}
              {n.sameClay ? ', the same clay' : ''}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
