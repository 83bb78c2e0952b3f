'use client';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { clampFactor } from '../../core/piece';
import { formatDate, formatDuration, formatMass, sensible } from '../../core/quantity';
import { useBench, useController } from '../bench/context';
import { call } from '../parts/http';

const why: Record<string, string> = {
  digit: 'two digits may have changed places, or one was misread',
  tare: 'the board may have been left on, or taken off twice',
  added: 'clay or something else may have been put on',
  unknown: 'something may have been taken off, or the scale stood badly',
};

/** What the weighings say of this clay in this room, and whether it is dry by weight; the dates are the report's. */
export function WhatTheScaleSays() {
  const controller = useController();
  const units = useBench((s) => s.units);
  const build = useBench((s) => s.build);
  const report = useBench((s) => s.report);
  const [name, setName] = useState('');
  const [said, setSaid] = useState('');
  if (!report?.scale?.fit) return null;
  const { fit, dry } = report.scale;
  const { readings } = report.logged;
  const { dryThrough } = report.dates;
  const share = (v: number, spread: number) =>
    `${sensible(v * 100, 2)} % of what was expected, give or take ${sensible(spread * v * 200, 1)}`;
  const keep = async () => {
    const kept = {
      name: (name.trim() || `${build.brief.clay.replaceAll('-', ' ')}, this room`).slice(0, 80),
      clay: build.brief.clay,
      evaporation: clampFactor(fit.factors.evaporation * (build.room.learned?.evaporation ?? 1)),
      diffusion: clampFactor(fit.factors.diffusion * (build.room.learned?.diffusion ?? 1)),
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
      {dryThrough && (
        <p data-testid="log-dry-through">
          Dry through on <strong>{formatDate(dryThrough.likely)}</strong>, {formatDate(dryThrough.earliest)} at the
          earliest and {formatDate(dryThrough.latest)} at the latest, by {report.dates.weighings} weighing
          {report.dates.weighings === 1 ? '' : 's'}.
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
