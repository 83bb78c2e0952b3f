'use client';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import {
  clockText,
  dayNames,
  personHoursWords,
  usualHours,
  withBreak,
  type PlanSurroundings,
  type Person,
  type Workshop,
} from '../../../core/plan';
import { formatDate, sensible } from '../../../core/quantity';
import { useBench } from '../../bench/context';
import { call } from '../../parts/http';
import { zoneOfPage } from '../../session/surroundings';

/** Who works here and when: the same for every build. Times as on the wall. */

function minutesOf(text: string): number | null {
  const found = /^(\d{1,2}):(\d{2})$/.exec(text);
  if (!found) return null;
  const minutes = Number(found[1]) * 60 + Number(found[2]);
  return minutes <= 1440 ? minutes : null;
}

export function WorkshopHours({
  surroundings,
  onChanged,
}: {
  surroundings: PlanSurroundings | null;
  onChanged: () => void;
}) {
  const hoursPerWeek = useBench((s) => s.build.brief.hoursPerWeek);
  const [wrong, setWrong] = useState<string | null>(null);
  const [open, setOpen] = useState<string | null>(null);
  if (!surroundings) return null;
  const { workshop, paces } = surroundings;
  const save = async (next: Workshop) => {
    const answer = await call('PUT', '/api/workshop', next);
    setWrong(answer.ok ? null : `${answer.path}: ${answer.message}`);
    if (answer.ok) onChanged();
  };
  const change = (p: Person) => void save({ ...workshop, people: workshop.people.map((x) => (x.id === p.id ? p : x)) });
  const add = () => {
    const taken = workshop.people.map((p) => p.id);
    const n =
      [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20].find(
        (i) => !taken.includes(`person-${i}`),
      ) ?? 20;
    const id = `person-${n}`;
    setOpen(id);
    void save({
      ...workshop,
      people: [
        ...workshop.people,
        { id, name: n === 1 ? 'Me' : `Helper ${n - 1}`, hours: usualHours(hoursPerWeek), away: [], other: [] },
      ],
    });
  };
  const learned = Object.entries(paces);
  const here = zoneOfPage();
  return (
    <>
      <h3>The workshop’s hours</h3>
      {workshop.people.length === 0 && (
        <p className="small muted">
          Nobody has said when they work: three evenings and a Saturday are taken, as many as the brief’s{' '}
          {sensible(hoursPerWeek)} hours a week.
        </p>
      )}
      <ul className="plain">
        {workshop.people.map((p) => (
          <li key={p.id} className="lined">
            <div className="d-flex gap-2 align-items-center">
              <strong className="flex-grow-1">{p.name}</strong>
              <Button
                size="sm"
                variant="quiet"
                aria-expanded={open === p.id}
                aria-label={`Change ${p.name}`}
                onClick={() => setOpen(open === p.id ? null : p.id)}
              >
                Change
              </Button>
            </div>
            <div className="small muted">
              {personHoursWords(p)}
              {p.away.length > 0
                ? `; away ${p.away.map((a) => (a.from === a.until ? formatDate(a.from) : `${formatDate(a.from)} to ${formatDate(a.until)}`)).join(', ')}`
                : ''}
            </div>
            {open === p.id && (
              <PersonHours
                person={p}
                onChange={change}
                onGone={() => void save({ ...workshop, people: workshop.people.filter((x) => x.id !== p.id) })}
              />
            )}
          </li>
        ))}
      </ul>
      {workshop.people.length < 20 && (
        <Button size="sm" variant="quiet" onClick={add}>
          {workshop.people.length === 0 ? 'Say when you work' : 'Add somebody'}
        </Button>
      )}
      <p className="small muted mt-1 mb-0">
        Times are of {workshop.zone.replaceAll('_', ' ')}.
        {here !== workshop.zone && (
          <>
            {' '}
            This device is in {here.replaceAll('_', ' ')}.{' '}
            <Button size="sm" variant="quiet" onClick={() => void save({ ...workshop, zone: here })}>
              The workshop too
            </Button>
          </>
        )}
      </p>
      {wrong && (
        <p className="wrong status-fails" role="alert">
          {wrong}
        </p>
      )}
      {learned.length > 0 && (
        <>
          <h3>Your pace, from the log</h3>
          <ul className="plain small">
            {learned.map(([kind, p]) => (
              <li key={kind}>
                {kind.replaceAll('-', ' ')}: {sensible(p.factor, 2)} of the usual hours, give or take{' '}
                {sensible(p.spread * 200, 2)} % ({p.steps === 1 ? 'one step' : `${p.steps} steps`})
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

function PersonHours({
  person,
  onChange,
  onGone,
}: {
  person: Person;
  onChange: (p: Person) => void;
  onGone: () => void;
}) {
  const [from, setFrom] = useState('');
  const [until, setUntil] = useState('');
  const [otherDay, setOtherDay] = useState('');
  const [otherFrom, setOtherFrom] = useState('09:00');
  const [otherUntil, setOtherUntil] = useState('10:00');
  const setHours = (i: number, next: Partial<Person['hours'][number]>) =>
    onChange({ ...person, hours: person.hours.map((h, k) => (k === i ? { ...h, ...next } : h)) });
  return (
    <div className="shaping mt-1">
      <div className="field">
        <label htmlFor={`name-${person.id}`}>Name</label>
        <Form.Control
          id={`name-${person.id}`}
          size="sm"
          defaultValue={person.name}
          maxLength={60}
          onBlur={(e) => {
            if (e.target.value.trim() !== '' && e.target.value !== person.name)
              onChange({ ...person, name: e.target.value.trim() });
          }}
        />
      </div>
      {person.hours.map((h, i) => (
        <div key={i} className="d-flex gap-2 align-items-center flex-wrap mb-1">
          {dayNames.map((d, k) => (
            <label key={d} className="small">
              <input
                type="checkbox"
                checked={h.days.includes(k)}
                onChange={(e) => {
                  const days = e.target.checked ? [...h.days, k].sort() : h.days.filter((x) => x !== k);
                  if (days.length > 0) setHours(i, { days });
                }}
              />{' '}
              {d}
            </label>
          ))}
          <Form.Control
            size="sm"
            type="time"
            style={{ width: '7.2rem' }}
            aria-label={`From, line ${i + 1}`}
            value={clockText(h.from)}
            onChange={(e) => {
              const m = minutesOf(e.target.value);
              if (m !== null && m < h.until) setHours(i, { from: m });
            }}
          />
          <Form.Control
            size="sm"
            type="time"
            style={{ width: '7.2rem' }}
            aria-label={`Until, line ${i + 1}`}
            value={h.until === 1440 ? '23:59' : clockText(h.until)}
            onChange={(e) => {
              const m = minutesOf(e.target.value);
              if (m !== null && m > h.from) setHours(i, { until: m === 1439 ? 1440 : m });
            }}
          />
          {person.hours.length < 14 && withBreak(h).length > 1 && (
            <Button
              size="sm"
              variant="quiet"
              aria-label={`A break in line ${i + 1}`}
              onClick={() =>
                onChange({ ...person, hours: person.hours.flatMap((x, k) => (k === i ? withBreak(x) : [x])) })
              }
            >
              A break
            </Button>
          )}
          <Button
            size="sm"
            variant="quiet"
            aria-label={`Take away line ${i + 1}`}
            onClick={() => onChange({ ...person, hours: person.hours.filter((_, k) => k !== i) })}
          >
            Take away
          </Button>
        </div>
      ))}
      {person.hours.length < 14 && (
        <Button
          size="sm"
          variant="quiet"
          onClick={() => onChange({ ...person, hours: [...person.hours, { days: [5], from: 600, until: 720 }] })}
        >
          Add hours
        </Button>
      )}
      <div className="field mt-2">
        <span className="label">Away</span>
        {person.away.map((a, i) => (
          <div key={i} className="d-flex gap-2 align-items-center small mb-1">
            {formatDate(a.from)} to {formatDate(a.until)}
            <Button
              size="sm"
              variant="quiet"
              onClick={() => onChange({ ...person, away: person.away.filter((_, k) => k !== i) })}
              aria-label={`Not away from ${formatDate(a.from)}`}
            >
              Not away
            </Button>
          </div>
        ))}
        <div className="d-flex gap-1 flex-wrap">
          <Form.Control
            size="sm"
            type="date"
            style={{ width: '9.5rem' }}
            aria-label="Away from"
            value={from}
            onChange={(e) => setFrom(e.target.value)}
          />
          <Form.Control
            size="sm"
            type="date"
            style={{ width: '9.5rem' }}
            aria-label="Away until"
            value={until}
            onChange={(e) => setUntil(e.target.value)}
          />
          <Button
            size="sm"
            variant="quiet"
            disabled={from === '' || (until !== '' && until < from)}
            onClick={() => {
              onChange({ ...person, away: [...person.away, { from, until: until || from }] });
              setFrom('');
              setUntil('');
            }}
          >
            Away then
          </Button>
        </div>
      </div>
      <div className="field">
        <span className="label">Other hours on a day</span>
        {person.other.map((o, i) => (
          <div key={i} className="d-flex gap-2 align-items-center small mb-1">
            {formatDate(o.date)} {clockText(o.from)}–{clockText(o.until)}
            <Button
              size="sm"
              variant="quiet"
              aria-label={`Usual hours on ${formatDate(o.date)}`}
              onClick={() => onChange({ ...person, other: person.other.filter((_, k) => k !== i) })}
            >
              Take away
            </Button>
          </div>
        ))}
        <div className="d-flex gap-1 flex-wrap">
          <Form.Control
            size="sm"
            type="date"
            style={{ width: '9.5rem' }}
            aria-label="Day with other hours"
            value={otherDay}
            onChange={(e) => setOtherDay(e.target.value)}
          />
          <Form.Control
            size="sm"
            type="time"
            style={{ width: '7.2rem' }}
            aria-label="Other hours from"
            value={otherFrom}
            onChange={(e) => setOtherFrom(e.target.value)}
          />
          <Form.Control
            size="sm"
            type="time"
            style={{ width: '7.2rem' }}
            aria-label="Other hours until"
            value={otherUntil}
            onChange={(e) => setOtherUntil(e.target.value)}
          />
          <Button
            size="sm"
            variant="quiet"
            disabled={otherDay === ''}
            onClick={() => {
              const a = minutesOf(otherFrom),
                b = minutesOf(otherUntil);
              if (a !== null && b !== null && b > a)
                onChange({ ...person, other: [...person.other, { date: otherDay, from: a, until: b }] });
            }}
          >
            There then
          </Button>
        </div>
      </div>
      <Button size="sm" variant="quiet" onClick={onGone}>
        Take {person.name} out of the workshop
      </Button>
    </div>
  );
}
