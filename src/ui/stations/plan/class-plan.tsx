'use client';
import { Button, Form } from 'react-bootstrap';
import type { ClassSet } from '../../../core/document';
import { clockText, groupSizes } from '../../../core/plan';
import { formatLength, formatMass, sensible } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { QuantityInput } from '../../parts/fields';

/** A class that makes the piece many times over: groups, sessions, and what lies at each place. */
const dayNames = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const fresh: ClassSet = {
  people: 24,
  groups: 3,
  minutes: 90,
  pace: 1.6,
  sessions: [
    { day: 0, from: 960 },
    { day: 1, from: 960 },
    { day: 2, from: 960 },
  ],
};

export function ClassPlan({ zone }: { zone: string }) {
  const controller = useController();
  const { id } = controller;
  const units = useBench((s) => s.units);
  const set = useBench((s) => s.build.plan.classSet);
  const report = useBench((s) => s.report);
  const put = (label: string, next: ClassSet | null) =>
    controller.edit({ label, changes: [{ path: ['plan', 'classSet'], value: next }] })?.message ?? null;
  if (!set) {
    return (
      <>
        <h3>A class</h3>
        <p className="small muted mb-1">The same piece made by many, in groups, in sessions of fixed length.</p>
        <Button size="sm" variant="quiet" onClick={() => put('A class makes it', fresh)}>
          A class makes it
        </Button>
      </>
    );
  }
  const number = (label: string, key: 'people' | 'groups' | 'minutes' | 'pace', kind: 'number' = 'number') => (
    <QuantityInput
      label={label}
      kind={kind}
      value={set[key]}
      onCommit={(v) => put(label, { ...set, [key]: v ?? set[key] })}
    />
  );
  const session = (i: number, next: Partial<ClassSet['sessions'][number]>) =>
    put('Sessions', { ...set, sessions: set.sessions.map((s, k) => (k === i ? { ...s, ...next } : s)) });
  return (
    <>
      <h3>A class</h3>
      <div className="pairs">
        {number('People', 'people')}
        {number('Groups', 'groups')}
        {number('Minutes of a session', 'minutes')}
        {number('Learners’ pace, hours to an hour', 'pace')}
      </div>
      <p className="small muted mb-1">
        Groups of {groupSizes(set).join(', ')}. Times are of {zone.replaceAll('_', ' ')}.
      </p>
      {set.sessions.map((s, i) => (
        <div key={i} className="d-flex gap-2 align-items-center mb-1">
          <span className="small">Group {(i % set.groups) + 1}</span>
          <Form.Select
            size="sm"
            style={{ width: '8.5rem' }}
            aria-label={`Day of session ${i + 1}`}
            value={s.day}
            onChange={(e) => session(i, { day: Number(e.target.value) })}
          >
            {dayNames.map((d, k) => (
              <option key={d} value={k}>
                {d}
              </option>
            ))}
          </Form.Select>
          <Form.Control
            size="sm"
            type="time"
            style={{ width: '7.2rem' }}
            aria-label={`Beginning of session ${i + 1}`}
            value={clockText(s.from)}
            onChange={(e) => {
              const [h = NaN, m = NaN] = e.target.value.split(':').map(Number);
              if (Number.isFinite(h * 60 + m)) session(i, { from: Math.min(1425, h * 60 + m) });
            }}
          />
          {set.sessions.length > 1 && (
            <Button
              size="sm"
              variant="quiet"
              aria-label={`Take away session ${i + 1}`}
              onClick={() => put('A session fewer', { ...set, sessions: set.sessions.filter((_, k) => k !== i) })}
            >
              Take away
            </Button>
          )}
        </div>
      ))}
      <div className="acts">
        {set.sessions.length < 8 && (
          <Button
            size="sm"
            variant="quiet"
            onClick={() => put('A session more', { ...set, sessions: [...set.sessions, { day: 3, from: 960 }] })}
          >
            Add a session
          </Button>
        )}
        <Button size="sm" variant="quiet" onClick={() => put('No class', null)}>
          No class
        </Button>
      </div>
      {report && (
        <>
          <h3>At each place</h3>
          <ul className="small mb-1">
            {report.cuts.map((c) => (
              <li key={`${c.name}${c.key}`}>
                {c.pieces} × {c.name}, {c.stock} {c.sizeLabel}, {formatLength(c.cutLength, units)}
              </li>
            ))}
            <li>{formatMass(report.clay.onPiece * (1 + 0.1), units)} of clay, a tenth of it to spare</li>
          </ul>
          <p className="small muted mb-0">
            For all of them, with {sensible(Math.ceil(set.people / 12), 2)} to spare:{' '}
            <a href={`/build/${id}/print?copies=${set.people}`} target="_blank" rel="noreferrer">
              cut list and shopping
            </a>
            .
          </p>
        </>
      )}
    </>
  );
}
