'use client';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import {
  dayWords,
  daysOff,
  sittingsOfPlan,
  timeWords,
  withDayOff,
  withoutDayOff,
  zoneClock,
  type BuildPlan,
  type Workshop,
  type WorkshopPlan,
} from '../../core/plan';
import { formatDate, formatDuration } from '../../core/quantity';
import { call } from '../parts/http';

/** The next sitting, and one press for a day on which it turns out that there is none: all that was on it is planned again. */
export function NextSitting({
  own,
  plan,
  workshop,
  big = false,
  onChanged,
}: {
  own: BuildPlan;
  plan: WorkshopPlan;
  workshop: Workshop;
  /** For a phone at the bench. */
  big?: boolean;
  onChanged: () => void;
}) {
  const [before, setBefore] = useState<{
    readonly date: string;
    readonly finish: number;
    readonly plan: WorkshopPlan;
  } | null>(null);
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  const { zone, now } = plan;
  const clock = zoneClock(zone);
  const next = sittingsOfPlan(own.steps)[0];
  const save = async (wanted: Workshop): Promise<boolean> => {
    setBusy(true);
    const answer = await call('PUT', '/api/workshop', wanted);
    setBusy(false);
    setWrong(answer.ok ? '' : answer.message);
    if (answer.ok) onChanged();
    return answer.ok;
  };
  const off = daysOff(workshop, clock.wallOf(now).date).slice(0, 6);
  if (!next && off.length === 0) return null;
  const date = next ? clock.wallOf(next.from).date : '';
  const size = big ? { className: 'big w-100' } : { size: 'sm' as const };
  // Until the plan has been made again there is nothing to say of it.
  const by = before && before.plan !== plan ? own.finish.nominal - before.finish : null;
  return (
    <div className="next-sitting" data-testid="next-sitting">
      {next && (
        <p className="mb-1">
          {!big &&
            `Next at it: ${dayWords(next.from, zone)}, ${timeWords(next.from, zone)} to ${timeWords(next.until, zone)}. `}
          <Button
            variant="quiet"
            {...size}
            disabled={busy}
            {...(big ? {} : { 'aria-label': `Not that day, ${dayWords(next.from, zone)}` })}
            onClick={() =>
              void save(withDayOff(workshop, plan.people, next.crew, date)).then((ok) => {
                if (ok) setBefore({ date, finish: own.finish.nominal, plan });
              })
            }
          >
            {big ? `Not on ${dayWords(next.from, zone)}: plan it for another day` : 'Not that day'}
          </Button>
        </p>
      )}
      {off.map((d) => (
        <p key={d} className="mb-1 small">
          Away on {formatDate(d)}, from every piece.
          {before?.date === d &&
            by !== null &&
            ` Ready on ${dayWords(own.finish.nominal, zone)}${by > 3600 ? `, ${formatDuration(by)} later` : ', as before'}.`}{' '}
          <Button
            variant="quiet"
            {...size}
            disabled={busy}
            aria-label={`There after all, ${formatDate(d)}`}
            onClick={() => void save(withoutDayOff(workshop, d))}
          >
            There after all
          </Button>
        </p>
      ))}
      {wrong && (
        <p className="status-fails mb-0" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}
