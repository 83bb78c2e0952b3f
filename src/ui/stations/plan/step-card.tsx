'use client';
import { useEffect, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import {
  clashSentence,
  clockText,
  holdOf,
  holdWords,
  whenWords,
  zoneClock,
  type BuildPlan,
  type PlannedStep,
} from '../../../core/plan';
import { formatDuration, formatWork } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { QuantityInput } from '../../parts/fields';
import { StepAmounts } from '../../plan/step-amounts';
import { StepPasses } from '../../plan/step-passes';

/** "2026-12-03T19:00" as the workshop's wall clock shows it. */
function wallText(t: number, zone: string): string {
  if (!Number.isFinite(t)) return '';
  const { date, minutes } = zoneClock(zone).wallOf(t);
  return `${date}T${clockText(minutes)}`;
}

/** One step: what it waits for, when, how long; put elsewhere, changed, left out, done. */
export function StepCard({
  step,
  own,
  zone,
  busy,
  onPut,
  onDone,
  onPart,
  onUndone,
}: {
  step: PlannedStep;
  own: BuildPlan;
  zone: string;
  busy: boolean;
  onPut: (at: number) => void;
  onDone: (took?: number) => void;
  onPart: (worked: number) => void;
  onUndone: () => void;
}) {
  const controller = useController();
  const units = useBench((s) => s.units);
  const edit = useBench((s) => s.build.plan.steps[step.id]);
  const own1 = step.id.startsWith('own/');
  const grouped = step.id.startsWith('group-');
  const [at, setAt] = useState(wallText(step.from, zone));
  const [took, setTook] = useState('');
  useEffect(() => setAt(wallText(step.from, zone)), [step.from, zone]);
  const change = (label: string, value: Record<string, unknown>) =>
    controller.edit({ label, changes: [{ path: ['plan', 'steps', step.id], value: { ...edit, ...value } }] })
      ?.message ?? null;
  const typed = Number(took.replace(',', '.'));
  const worked = typed > 0 && typed <= 400 ? typed : undefined;
  const first = step.sittings[0];
  const hold = first && !step.done ? holdOf(own, step, first) : null;
  const nameOf = (id: string) => own.steps.find((s) => s.id === id)?.name ?? id;
  const put = () => {
    const [date, time = '0:0'] = at.split('T');
    const [h = 0, m = 0] = time.split(':').map(Number);
    if (date && /^\d{4}-\d{2}-\d{2}$/.test(date)) onPut(zoneClock(zone).epochOf(date, h * 60 + m));
  };
  return (
    <div className="step-card" data-testid="step-card">
      <h3 className="mt-0 border-0 pt-0">{step.name}</h3>
      <p className="mb-1">
        {step.begun ? `${formatWork(step.begun.worked)} of it done. ` : ''}
        {step.done ? 'Done' : whenWords(step.from, zone)}
        {step.done ? ` on ${whenWords(step.until, zone)}` : `, until ${whenWords(step.until, zone)}`}
        {step.latest !== null && !step.done ? `; at the latest ${whenWords(step.latest, zone)}` : ''}.
      </p>
      {step.clashes.map((c, i) => (
        <p key={i} className="status-fails mb-1">
          {clashSentence(own, c)}
        </p>
      ))}
      {step.needs.length > 0 && <p className="small mb-1">Needs: {step.needs.join(', ')}.</p>}
      <StepAmounts step={step} batches units={units} className="small mb-1" />
      {!step.done && <StepPasses step={step} className="small mb-1" />}
      {hold && <p className="small mb-1">While you are at it, {holdWords(hold)}.</p>}
      {step.after.length > 0 && (
        <ul className="small mb-2">
          {step.after.map((w) => (
            <li key={w.task}>
              after “{nameOf(w.task)}”
              {w.least.nominal > 0
                ? `, ${formatDuration(w.least.nominal)} later${w.least.high > w.least.nominal * 1.05 ? ` (${formatDuration(w.least.low)} to ${formatDuration(w.least.high)})` : ''}${w.why ? `: ${w.why}` : ''}`
                : ''}
              {w.most !== null ? `; not later than ${formatDuration(w.most.nominal)} after it` : ''}
            </li>
          ))}
          {step.holds !== null && (
            <li>a hand has to find a dry place: {step.holds.join(', ').replaceAll('-', ' ') || 'there is none'}</li>
          )}
        </ul>
      )}
      {step.done ? (
        <Button size="sm" variant="quiet" disabled={busy} onClick={onUndone}>
          It is not done
        </Button>
      ) : (
        <>
          {!grouped && (
            <div className="pairs">
              <QuantityInput
                label="Takes"
                kind="hours"
                value={edit?.hours ?? step.takes + (step.begun?.worked ?? 0)}
                onCommit={(v) =>
                  own1 ? 'Change it among your own steps' : change(`${step.name}: hours`, { hours: v ?? undefined })
                }
              />
              <div className="field">
                <label htmlFor="step-at">Begins</label>
                <div className="d-flex gap-1">
                  <Form.Control
                    id="step-at"
                    size="sm"
                    type="datetime-local"
                    value={at}
                    onChange={(e) => setAt(e.target.value)}
                  />
                  <Button size="sm" variant="quiet" className="text-nowrap" onClick={put}>
                    Put it there
                  </Button>
                </div>
              </div>
            </div>
          )}
          <div className="acts">
            <Form.Control
              size="sm"
              style={{ width: '7rem' }}
              aria-label="Hours worked at it"
              placeholder="hours worked"
              value={took}
              inputMode="decimal"
              onChange={(e) => setTook(e.target.value)}
            />
            <Button size="sm" variant="iron" disabled={busy} onClick={() => onDone(worked)}>
              It is done
            </Button>
            <Button
              size="sm"
              variant="quiet"
              disabled={busy || worked === undefined}
              onClick={() => {
                if (worked !== undefined) onPart(worked);
                setTook('');
              }}
            >
              Only part of it
            </Button>
            {step.pinned && (
              <Button
                size="sm"
                variant="quiet"
                onClick={() => change(`${step.name}: when the plan says`, { at: undefined })}
              >
                Let the plan decide when
              </Button>
            )}
            {edit?.hours !== undefined && (
              <Button
                size="sm"
                variant="quiet"
                onClick={() => change(`${step.name}: usual hours`, { hours: undefined })}
              >
                Usual hours
              </Button>
            )}
            {!own1 && !grouped && (
              <Button size="sm" variant="quiet" onClick={() => change(`${step.name} left out`, { off: true })}>
                Leave it out
              </Button>
            )}
          </div>
        </>
      )}
    </div>
  );
}
