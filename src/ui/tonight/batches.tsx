'use client';
import { useState } from 'react';
import { Form } from 'react-bootstrap';
import type { Build } from '../../core/document';
import { findClay } from '../../core/document';
import { batchSittings, layingRate } from '../../core/cure';
import { timeWords, type PlannedStep } from '../../core/plan';
import { formatDuration, formatMass, formatTemperature, parseTemperature, type UnitSystem } from '../../core/quantity';

/** Two-part clay in batches: how much to mix, when, and after when not to mix any more. */
export function Batches({
  build,
  step,
  zone,
  now,
  units,
  temperature,
}: {
  build: Build;
  step: PlannedStep;
  zone: string;
  now: number;
  units: UnitSystem;
  temperature: number;
}) {
  const clay = findClay(build, build.brief.clay);
  const [text, setText] = useState('');
  const [rate, setRate] = useState('');
  const [until, setUntil] = useState('');
  if (!clay.ok || clay.value.workingMinutes === null) return null;
  const read = parseTemperature(text, units === 'imperial' ? 'F' : 'C');
  const celsius = text.trim() === '' || !read.ok ? temperature : read.value;
  const usual = layingRate(clay.value.setting);
  const perMinute = Number(rate.replace(',', '.')) > 0 ? Number(rate.replace(',', '.')) / 1000 : usual;
  const sitting = step.sittings.find((s) => s.until > now) ?? step.sittings[0];
  const [h = NaN, m = NaN] = until.split(':').map(Number);
  const startAt = sitting && sitting.from > now ? sitting.from : now;
  const endAt = Number.isFinite(h * 60 + m) ? endToday(startAt, h * 60 + m, zone) : (sitting?.until ?? now + 7200);
  const plan = batchSittings({
    mass: step.clay,
    reference: clay.value.workingMinutes.nominal,
    celsius,
    rate: perMinute,
    from: startAt,
    until: Math.max(startAt + 60, endAt),
  });
  return (
    <section aria-label="Batches" className="card-part">
      <h3>Batches</h3>
      <div className="pairs">
        <div className="field">
          <label htmlFor="b-temp">The room</label>
          <Form.Control
            id="b-temp"
            className="big"
            value={text}
            placeholder={formatTemperature(temperature, units)}
            onChange={(e) => setText(e.target.value)}
          />
        </div>
        <div className="field">
          <label htmlFor="b-rate">Grams placed a minute</label>
          <Form.Control
            id="b-rate"
            className="big"
            inputMode="decimal"
            value={rate}
            placeholder={String(usual * 1000)}
            onChange={(e) => setRate(e.target.value)}
          />
        </div>
      </div>
      <div className="field">
        <label htmlFor="b-until">Done for tonight at</label>
        <Form.Control
          id="b-until"
          className="big"
          type="time"
          value={until}
          onChange={(e) => setUntil(e.target.value)}
        />
      </div>
      <p>
        A batch works for <strong>{formatDuration(plan.working)}</strong>; mix{' '}
        <strong>{formatMass(plan.each, units)}</strong> at a time.
      </p>
      <ol className="batch-list">
        {plan.batches.map((b, i) => (
          <li key={i}>
            <strong>{timeWords(b.mixAt, zone)}</strong> mix {formatMass(b.mass, units)}, placed by{' '}
            {timeWords(b.placedBy, zone)}, no more working it after {timeWords(b.stopAt, zone)}
          </li>
        ))}
      </ol>
      <p>
        <strong>Mix nothing after {timeWords(plan.lastMix, zone)}.</strong>
        {plan.left > 0.001 ? ` ${formatMass(plan.left, units)} stays for another day.` : ''}
      </p>
      <p className="small muted">Gloves, moving air, and no bare skin until it is hard.</p>
    </section>
  );
}

function endToday(from: number, minutes: number, zone: string): number {
  const at = timeWords(from, zone).split(':').map(Number);
  const gap = minutes - ((at[0] ?? 0) * 60 + (at[1] ?? 0));
  return from + (gap > 0 ? gap : gap + 1440) * 60;
}
