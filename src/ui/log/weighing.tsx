'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { formatDate, formatDuration, formatMass, isoDateOf, sensible } from '../../core/quantity';
import type { WeighingReport } from '../../core/verdict';
import { DryingClient } from '../../workers/drying-client';
import { useBench, useController } from '../bench/context';
import { call } from '../parts/http';
import type { ReadEntry } from '../../core/plan';
import { clayWentOn, readingsOf } from '../../core/plan';

const why: Record<string, string> = {
  digit: 'two digits may have changed places, or one was misread',
  tare: 'the board may have been left on, or taken off twice',
  added: 'clay or something else may have been put on',
  unknown: 'something may have been taken off, or the scale stood badly',
};

/** The fit follows the log: worked out in a worker each time a weighing is added or struck. */
export function useFit(entries: readonly ReadEntry[]): {
  readonly report: WeighingReport | null;
  readonly busy: boolean;
  readonly start: number;
} {
  const build = useBench((s) => s.build);
  const start = clayWentOn(build, entries);
  const key = useMemo(() => JSON.stringify(readingsOf(entries, start)), [entries, start]);
  const [report, setReport] = useState<WeighingReport | null>(null);
  const [busy, setBusy] = useState(false);
  const client = useRef<DryingClient | null>(null);
  useEffect(() => {
    const readings = JSON.parse(key) as { time: number; mass: number }[];
    if (readings.length === 0) {
      setReport(null);
      return;
    }
    const tare =
      entries
        .filter((e) => e.kind === 'weigh-in' && !e.struck)
        .map((e) => Number(e.data['tare']))
        .pop() ?? 0;
    const wait = setTimeout(() => {
      setBusy(true);
      client.current?.stop();
      client.current = new DryingClient((answer) => {
        if (answer.kind === 'fit') setReport(answer.report);
        else if (answer.kind === 'done') setBusy(false);
      });
      client.current.ask({ kind: 'fit', build, readings, tare, least: 0.005 });
    }, 300);
    return () => clearTimeout(wait);
    // Entries carry what `key` says; only figures that moved are worth a new fit.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, build]);
  useEffect(() => () => client.current?.stop(), []);
  return { report, busy, start };
}

export function WhatTheScaleSays({
  entries,
  fitted,
}: {
  entries: readonly ReadEntry[];
  fitted: ReturnType<typeof useFit>;
}) {
  const controller = useController();
  const units = useBench((s) => s.units);
  const build = useBench((s) => s.build);
  const { report, busy, start } = fitted;
  const [name, setName] = useState('');
  const [said, setSaid] = useState('');
  if (!report)
    return busy ? (
      <p className="muted" role="status">
        Fitting the forecast to what was weighed …
      </p>
    ) : null;
  const { fit, ready, readyBefore, dry } = report;
  const share = (v: number, spread: number) =>
    `${sensible(v * 100, 2)} % of what was expected, give or take ${sensible(spread * v * 200, 1)}`;
  const readings = readingsOf(entries, start);
  const day = (t: number) => formatDate(isoDateOf(start + t));
  const keep = async () => {
    const kept = {
      name: (name.trim() || `${build.brief.clay.replaceAll('-', ' ')}, this room`).slice(0, 80),
      clay: build.brief.clay,
      evaporation: clamp(fit.factors.evaporation * (build.room.learned?.evaporation ?? 1)),
      diffusion: clamp(fit.factors.diffusion * (build.room.learned?.diffusion ?? 1)),
      spread: { evaporation: Math.min(2, fit.spread.evaporation), diffusion: Math.min(2, fit.spread.diffusion) },
    };
    const answer = await call('POST', '/api/learned', kept);
    setSaid(answer.ok ? `Kept as “${kept.name}”. Choose it on Drying, in this build or the next.` : answer.message);
    if (answer.ok) controller.announce('What was learned is kept.');
  };
  const mass = (v: number | null) => (v === null ? '' : formatMass(v, units));
  return (
    <section aria-label="What the scale says" data-testid="fit">
      <h3>What the scale says</h3>
      {dry.answer === 'dry' ? (
        <p className="status-sound">
          <strong>It is dry.</strong> The last weighings differ by {sensible(Math.abs(dry.change ?? 0) * 100, 2)} % over{' '}
          {formatDuration(dry.over ?? 0)}.
        </p>
      ) : dry.answer === 'not-yet' ? (
        <p>
          <strong>Not dry yet.</strong> It lost {sensible((dry.change ?? 0) * 100, 2)} % over the last{' '}
          {formatDuration(dry.over ?? 0)}; steady to 0.1 % over a night is dry.
        </p>
      ) : (
        <p className="muted">
          Whether it is dry cannot be told: two weighings a night apart are needed, on a scale that shows a thousandth
          of it.
        </p>
      )}
      {ready && (
        <p>
          Dry through on <strong>{day(ready.nominal)}</strong>, {day(ready.low)} at the earliest and {day(ready.high)}{' '}
          at the latest
          {readyBefore === null
            ? ''
            : Math.abs(ready.nominal - readyBefore) < 6 * 3600
              ? '; the forecast stands'
              : `; before it was weighed, ${day(readyBefore)}`}
          .
        </p>
      )}
      <ul className="small">
        <li>Water leaves the face at {share(fit.factors.evaporation, fit.spread.evaporation)}.</li>
        <li>Water moves inside at {share(fit.factors.diffusion, fit.spread.diffusion)}.</li>
        <li>
          Clay on it: {share(fit.factors.amount, fit.spread.amount)}. A single weighing is good to{' '}
          {formatMass(fit.noise, units)}.
        </li>
      </ul>
      {fit.odd.map((o) => (
        <p key={o.index} className="cautions" role="status" style={{ borderLeftColor: 'var(--watch)' }}>
          <strong>The weighing of {formatMass(readings[o.index]?.mass ?? 0, units)} does not fit.</strong> It lies{' '}
          {formatMass(Math.abs(o.off), units)} {o.off > 0 ? 'above' : 'below'} the others, and was set aside:{' '}
          {why[o.why]}
          {o.meant === null ? '' : `; ${mass(o.meant)} would fit`}. Correct it below if you know better.
        </p>
      ))}
      <div className="field">
        <label htmlFor="learned-name">Keep this as: this clay in this room</label>
        <div className="d-flex gap-2">
          <Form.Control
            id="learned-name"
            size="sm"
            value={name}
            maxLength={80}
            placeholder={`${build.brief.clay.replaceAll('-', ' ')}, this room`}
            onChange={(e) => setName(e.target.value)}
          />
          <Button size="sm" variant="quiet" onClick={() => void keep()}>
            Keep it
          </Button>
        </div>
        {said && (
          <p className="small muted mb-0" role="status">
            {said}
          </p>
        )}
      </div>
    </section>
  );
}

function clamp(v: number): number {
  return Math.min(10, Math.max(0.1, v));
}
