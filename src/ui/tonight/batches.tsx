'use client';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { findClay, type Build } from '../../core/document';
import { batchingOf, batchSittings, kneadedClay, layingRate, mixes, type Batching } from '../../core/cure';
import { leftToMix, timeWords, type PlannedStep } from '../../core/plan';
import { formatDuration, formatMass, formatTemperature, parseTemperature, type UnitSystem } from '../../core/quantity';
import { letItSound } from './clocks';

/** kg a minute that ordinary hands put on, and how it is batched at a rate and a temperature; null where nothing is mixed. */
function batchedFor(
  build: Build,
  step: PlannedStep,
): { readonly usual: number; readonly at: (celsius: number, rate: number) => Batching } | null {
  if (!step.mixed) return null;
  const { id } = step.mixed;
  if (step.kind !== 'clay') return { usual: mixes[id].rate, at: (celsius, rate) => batchingOf(id, celsius, rate) };
  const clay = findClay(build, build.brief.clay);
  if (!clay.ok || clay.value.workingMinutes === null) return null;
  const { setting, workingMinutes } = clay.value;
  return { usual: layingRate(setting), at: (celsius, rate) => kneadedClay(workingMinutes.nominal, celsius, rate) };
}

/** What goes off, in batches: how much to mix, when, and after when not to mix any more. */
export function Batches({
  build,
  step,
  zone,
  now,
  units,
  temperature,
  mixed,
  busy,
  onMix,
}: {
  build: Build;
  step: PlannedStep;
  zone: string;
  now: number;
  units: UnitSystem;
  temperature: number;
  /** kg of each batch mixed for this step since it was last put down. */
  mixed: readonly number[];
  busy: boolean;
  onMix: (clock: { name: string; seconds: number; batch: { step: string; mass: number } }) => void;
}) {
  const batched = batchedFor(build, step);
  const [text, setText] = useState('');
  const [rate, setRate] = useState('');
  const [until, setUntil] = useState('');
  if (!batched || !step.mixed) return null;
  const read = parseTemperature(text, units === 'imperial' ? 'F' : 'C');
  const celsius = text.trim() === '' || !read.ok ? temperature : read.value;
  const { usual } = batched;
  const mix = mixes[step.mixed.id];
  const perMinute = Number(rate.replace(',', '.')) > 0 ? Number(rate.replace(',', '.')) / 1000 : usual;
  const sitting = step.sittings.find((s) => s.until > now) ?? step.sittings[0];
  const [h = NaN, m = NaN] = until.split(':').map(Number);
  const startAt = sitting && sitting.from > now ? sitting.from : now;
  const endAt = Number.isFinite(h * 60 + m) ? endToday(startAt, h * 60 + m, zone) : (sitting?.until ?? now + 7200);
  const placed = mixed.reduce((sum, m) => sum + m, 0);
  // What a scale does not show is nothing to mix.
  const rest = leftToMix(step) - placed,
    left = placed > 0 && rest < 0.001 ? 0 : rest;
  const plan = batchSittings({
    mass: left,
    of: batched.at(celsius, perMinute),
    from: startAt,
    until: Math.max(startAt + 60, endAt),
  });
  const first = plan.batches[0];
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
        A batch of {mix.what} works for <strong>{formatDuration(plan.working)}</strong> from when it is begun; make
        ready <strong>{formatMass(plan.each, units)}</strong> at a time. {mix.how}
      </p>
      {mixed.length > 0 && (
        <p>
          {mixed.length === 1 ? 'One batch is' : `${mixed.length} batches are`} {mix.done}, {formatMass(placed, units)}{' '}
          in all; {left > 0 ? `${formatMass(left, units)} of this step is still to be laid.` : 'that is all of it.'}
        </p>
      )}
      {first && (
        <Button
          variant="iron"
          className="big w-100 mb-2"
          disabled={busy}
          onClick={() => {
            letItSound();
            onMix({
              name: `Batch ${mixed.length + 1}`,
              seconds: Math.round(plan.working),
              batch: { step: step.id, mass: Math.round(first.mass * 1e5) / 1e5 },
            });
          }}
        >
          Batch {mixed.length + 1}, {formatMass(first.mass, units)}: {mix.done}, start its clock
        </Button>
      )}
      <ol className="batch-list" start={mixed.length + 1}>
        {plan.batches.map((b, i) => (
          <li key={i}>
            <strong>{timeWords(b.mixAt, zone)}</strong> {mix.done === 'mixed' ? 'mix' : 'wet'}{' '}
            {formatMass(b.mass, units)}, placed by {timeWords(b.placedBy, zone)}, no more working it after{' '}
            {timeWords(b.stopAt, zone)}
          </li>
        ))}
      </ol>
      <p>
        <strong>
          {mix.done === 'mixed' ? 'Mix' : 'Wet'} nothing after {timeWords(plan.lastMix, zone)}.
        </strong>
        {plan.left > 0.001 ? ` ${formatMass(plan.left, units)} stays for another day.` : ''}
      </p>
      <p className="small muted">{mix.caution}</p>
    </section>
  );
}

function endToday(from: number, minutes: number, zone: string): number {
  const at = timeWords(from, zone).split(':').map(Number);
  const gap = minutes - ((at[0] ?? 0) * 60 + (at[1] ?? 0));
  return from + (gap > 0 ? gap : gap + 1440) * 60;
}
