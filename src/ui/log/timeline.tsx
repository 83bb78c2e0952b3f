'use client';
import { useMemo, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { entryWords, kindOf, pictureOf, standing, type ReadEntry } from '../../core/log';
import { formatDate, formatWork, sensible } from '../../core/quantity';
import { useBench } from '../bench/context';
import LongList from '../parts/long-list';
import { localParts } from './when';
import { letGo, tryAgain, type Waiting } from '../session/outbox';

/** The log, newest day first, with its pictures; found by any word in it. */
function whenWords(at: string): string {
  const { day, time } = localParts(at);
  return `${formatDate(day)}, ${time}`;
}

function Picture({ entry, buildId, waiting }: { entry: ReadEntry; buildId: string; waiting: Waiting | undefined }) {
  const units = useBench((s) => s.units);
  const [local] = useState(() => (waiting?.picture ? URL.createObjectURL(waiting.picture) : null));
  const caption = entryWords(entry, units).main || 'Photo from the bench';
  return <img src={local ?? `/api/builds/${buildId}/photos/${pictureOf(entry) ?? ''}`} alt={caption} loading="lazy" />;
}

export function Timeline({
  entries,
  unread,
  waiting,
  buildId,
  busy,
  onCorrect,
  onStrike,
  onChanged,
}: {
  entries: readonly ReadEntry[];
  /** Earlier ones that are still being read. */
  unread: number;
  waiting: readonly Waiting[];
  buildId: string;
  busy: boolean;
  onCorrect: (e: ReadEntry) => void;
  onStrike: (e: ReadEntry) => void;
  onChanged: () => void;
}) {
  const units = useBench((s) => s.units);
  const [search, setSearch] = useState('');
  const wanted = search.trim().toLowerCase();
  const shown = useMemo(
    () =>
      [...entries]
        .reverse()
        .filter((e) => e.kind !== 'clock-stop')
        .filter((e) => {
          if (wanted === '') return true;
          const { main, more } = entryWords(e, units);
          return `${main} ${more} ${whenWords(e.at)}`.toLowerCase().includes(wanted);
        }),
    [entries, wanted, units],
  );
  const refused = waiting.filter((w) => w.refused !== null);
  return (
    <>
      {refused.map((w) => (
        <p key={w.entry.id} className="cautions" role="alert" style={{ borderLeftColor: 'var(--fails)' }}>
          <strong>Not taken:</strong> an entry of {whenWords(w.entry.at)} ({w.entry.kind.replaceAll('-', ' ')}):{' '}
          {w.refused}.{' '}
          <Button size="sm" variant="quiet" onClick={() => void tryAgain(buildId, w.entry.id).then(onChanged)}>
            Try again
          </Button>{' '}
          <Button size="sm" variant="quiet" onClick={() => void letGo(buildId, w.entry.id).then(onChanged)}>
            Throw it away
          </Button>
        </p>
      ))}
      <div className="d-flex gap-2 align-items-end mb-2">
        <h3 className="flex-grow-1 mb-0 border-0 pt-0">Entries</h3>
        {entries.length > 3 && unread === 0 && (
          <Form.Control
            size="sm"
            type="search"
            style={{ maxWidth: '14rem' }}
            aria-label="Find in the log"
            placeholder="find in the log"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
        )}
      </div>
      {entries.length === 0 ? (
        <p>
          Nothing yet. The first weighing, as soon as the clay is on, is worth the most: everything later is read
          against it.
        </p>
      ) : shown.length === 0 ? (
        <p className="muted">No entry has “{search}” in it.</p>
      ) : (
        <LongList items={shown} className="entries" estimate={84}>
          {(e, i, place) => {
            const { main, more } = entryWords(e, units);
            const { day, time } = localParts(e.at);
            const first = i === 0 || localParts(shown[i - 1]!.at).day !== day;
            return (
              <li key={e.id} className={first ? 'first' : ''} {...place}>
                {first && (
                  <div className="day" suppressHydrationWarning>
                    {formatDate(day)}
                  </div>
                )}
                <div className={e.struck ? 'struck' : ''}>
                  <div className="when" suppressHydrationWarning>
                    {time}
                    {e.struck ? ', put right later' : e.corrects ? ', a correction' : ''}
                    {waiting.some((w) => w.entry.id === e.id) ? ', waiting to be sent' : ''}
                  </div>
                  {e.kind === 'note' || e.kind === 'photo' ? (
                    <span>{main}</span>
                  ) : (
                    <span className="reading">{main}</span>
                  )}{' '}
                  {more && <span className="muted">{more}</span>}
                  {pictureOf(e) !== null && !e.struck && (
                    <Picture entry={e} buildId={buildId} waiting={waiting.find((w) => w.entry.id === e.id)} />
                  )}
                </div>
                {!e.struck && (
                  <div className="d-flex gap-1">
                    {kindOf(e.kind).fill && (
                      <Button
                        size="sm"
                        variant="quiet"
                        disabled={busy}
                        onClick={() => onCorrect(e)}
                        aria-label={`Correct the entry of ${whenWords(e.at)}`}
                      >
                        Correct
                      </Button>
                    )}
                    <Button
                      size="sm"
                      variant="quiet"
                      disabled={busy}
                      onClick={() => onStrike(e)}
                      aria-label={`Strike out the entry of ${whenWords(e.at)}`}
                    >
                      Strike
                    </Button>
                  </div>
                )}
              </li>
            );
          }}
        </LongList>
      )}
      {unread > 0 && (
        <p className="muted" role="status">
          {unread === 1 ? 'One earlier entry is' : `${unread} earlier entries are`} being read …
        </p>
      )}
    </>
  );
}

/** What was reckoned against what it took, step by step, and what the log makes of it. */
export function ForecastAndFact({ entries }: { entries: readonly ReadEntry[] }) {
  const timed = standing(entries, 'step').flatMap(({ id, data: { name, took, usual } }) =>
    took !== undefined && usual !== undefined ? [{ id, name, took, usual }] : [],
  );
  if (timed.length === 0) return null;
  const took = timed.reduce((sum, e) => sum + e.took, 0),
    usual = timed.reduce((sum, e) => sum + e.usual, 0);
  return (
    <section aria-label="Reckoned and real">
      <h3>Reckoned and real</h3>
      <table className="table" aria-label="Hours reckoned and real">
        <thead>
          <tr>
            <th scope="col">Step</th>
            <th scope="col" className="n">
              Usual
            </th>
            <th scope="col" className="n">
              Took
            </th>
          </tr>
        </thead>
        <tbody>
          {timed.map((e) => (
            <tr key={e.id}>
              <td>{e.name}</td>
              <td className="n">{formatWork(e.usual)}</td>
              <td className="n">{formatWork(e.took)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="small muted">
        In all {sensible(took / usual, 2)} times the usual hours. The plan goes by your own pace, kind of step by kind
        of step.
      </p>
    </section>
  );
}
