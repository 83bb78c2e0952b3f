'use client';
import { useEffect } from 'react';
import { Button, Form, ProgressBar } from 'react-bootstrap';
import { wetScale } from '../../../core/drying';
import { formatDate, formatDuration, isoDateOf, sensible, formatLength } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { frameAt } from '../../bench/whole-picture';
import type { DryFace } from '../../bench/controller';

/** The whole piece in three dimensions: started, watched, stopped; what it shows, and what came out. */
export function WholePiece() {
  const controller = useController();
  const state = useBench((s) => s.whole);
  const key = useBench((s) => s.dryingKey);
  const basis = useBench((s) => s.report?.basis ?? 'quick');
  const bySelf = useBench((s) => s.dryBySelf);
  useEffect(() => {
    void controller.takeKeptWhole();
  }, [controller]);
  const stale = state.whole !== null && state.key !== key;
  const cells = state.whole
    ? `, ${state.whole.cells.toLocaleString('en')} cells of ${sensible(state.whole.step * 1000, 2)} mm`
    : '';
  const working = state.status === 'working' || state.status === 'paused';
  const left = Number.isFinite(state.left) ? `, about ${formatDuration(Math.max(1, state.left))} left` : '';
  return (
    <section aria-label="The whole piece in three dimensions">
      <h3>The whole piece</h3>
      <p className="answer" data-testid="which-answer">
        {basis === 'full' ? (
          <>
            <strong>Full answer</strong>: every figure of drying, here, on the beam and in the plan, is of the whole
            piece in three dimensions{cells}.
          </>
        ) : basis === 'corrected' ? (
          <>
            <strong>Quick answer, corrected</strong>: the build has changed since it was dried whole{cells}; until it is
            again, each region is corrected by what that showed.
          </>
        ) : (
          <>
            <strong>Quick answer</strong>: each region by itself, through its thickness, corrected by what whole dryings
            usually show. Crevices and thin ears beside thick cheeks are in its range only.
          </>
        )}
      </p>
      <Form.Check
        id="dry-by-self"
        type="switch"
        className="mb-2"
        label="Dry the whole by itself when the bench is still"
        checked={bySelf}
        onChange={(e) => controller.setDryBySelf(e.target.checked)}
      />
      {working ? (
        <div className="mb-2">
          <ProgressBar
            now={state.done * 100}
            aria-label="Drying the whole piece"
            visuallyHidden
            label={`${Math.round(state.done * 100)} %`}
          />
          <p className="small muted mb-1" role="status">
            {Math.round(state.done * 100)} % of the way dried{left}
            {state.status === 'paused' ? '. Held.' : ''}
          </p>
          <div className="beside">
            {state.status === 'paused' ? (
              <Button size="sm" variant="quiet" onClick={() => controller.goOnWhole()}>
                Go on
              </Button>
            ) : (
              <Button size="sm" variant="quiet" onClick={() => controller.pauseWhole()}>
                Hold
              </Button>
            )}
            <Button size="sm" variant="quiet" onClick={() => controller.stopWhole()}>
              Stop
            </Button>
          </div>
        </div>
      ) : (
        <Button
          size="sm"
          variant={state.whole && !stale ? 'quiet' : 'iron'}
          className="mb-2"
          onClick={() => controller.dryWhole()}
        >
          {state.whole ? 'Dry it again' : 'Dry the whole piece'}
        </Button>
      )}
      {state.status === 'refused' && <p className="wrong status-fails">Not done: {state.message}</p>}
      {state.whole && <Shown />}
    </section>
  );
}

const axes = [
  { axis: 1, name: 'Front to back' },
  { axis: 0, name: 'Side to side' },
  { axis: 2, name: 'Level' },
] as const;
const faces: readonly { id: DryFace; name: string }[] = [
  { id: 'moisture', name: 'Water' },
  { id: 'crack', name: 'Cracks' },
  { id: 'hold', name: 'Where to hold' },
];

function Shown() {
  const controller = useController();
  const whole = useBench((s) => s.whole.whole);
  const report = useBench((s) => s.report);
  const section = useBench((s) => s.section);
  const dryFace = useBench((s) => s.dryFace);
  const dryTime = useBench((s) => s.dryTime);
  const picking = useBench((s) => s.picking);
  const probes = useBench((s) => s.probes);
  const units = useBench((s) => s.units);
  if (!whole) return null;
  const region = (id: string) => report?.regions.find((r) => r.id === id);
  const name = (id: string) => region(id)?.name ?? id.replaceAll('-', ' ');
  // On the day the plan comes to, as every other date is: it may lay one region an evening after another.
  const when = ({ region: id, time }: { readonly region: string; readonly time: number }) => {
    const laid = report?.laid.lastCoat[id] ?? report?.laid.first ?? 0;
    return `${formatDuration(time)} on, ${formatDate(isoDateOf(laid + time - (region(id)?.lastStart ?? 0)))}`;
  };
  const frame = whole.frames[frameAt(whole, dryTime)];
  const stage = whole.stages[frame?.stage ?? -1];
  const wetAt = frame && stage ? placeWords(stage, frame.wettest, units) : '';
  const wetShare = frame ? (frame.wet[frame.wettest] ?? 0) / wetScale : 0;
  return (
    <>
      <div className="field">
        <span className="label">Cut</span>
        <div className="choice-row" role="group" aria-label="Cut through it">
          {axes.map((a) => (
            <Button
              key={a.axis}
              size="sm"
              variant="quiet"
              active={section?.axis === a.axis}
              aria-pressed={section?.axis === a.axis}
              onClick={() => controller.showSection({ axis: a.axis, share: section?.share ?? 0.5 })}
            >
              {a.name}
            </Button>
          ))}
          <Button
            size="sm"
            variant="quiet"
            active={section === null}
            aria-pressed={section === null}
            onClick={() => controller.showSection(null)}
          >
            Whole
          </Button>
        </div>
      </div>
      {section && (
        <Form.Range
          aria-label="Where it is cut"
          min={0}
          max={1}
          step={0.01}
          value={section.share}
          onChange={(e) => controller.showSection({ ...section, share: Number(e.target.value) })}
          aria-valuetext={`${Math.round(section.share * 100)} % of the way through`}
        />
      )}
      <div className="field">
        <span className="label">On the face</span>
        <div className="choice-row" role="group" aria-label="What the face shows">
          {faces.map((f) => (
            <Button
              key={f.id}
              size="sm"
              variant="quiet"
              active={dryFace === f.id}
              aria-pressed={dryFace === f.id}
              onClick={() => controller.showDryFace(f.id)}
            >
              {f.name}
            </Button>
          ))}
        </div>
      </div>
      <ul className="facts-list">
        <li>
          Wettest at this time:{' '}
          {wetShare > 0.01 ? (
            <>
              {wetAt}, {sensible(wetShare * 100, 2)} % of its water still to leave
            </>
          ) : (
            'nowhere, it is dry'
          )}
          .
        </li>
        <li>
          Wet longest, from when its clay goes on: the {name(whole.last.region)}, {at(whole.last.at, units)},{' '}
          {when(whole.last)}.
        </li>
        <li>
          {whole.firstCrack ? (
            <>
              First to crack: the {name(whole.firstCrack.region)}, {at(whole.firstCrack.at, units)},{' '}
              {when(whole.firstCrack)}.
            </>
          ) : (
            <>
              No place passes the limit; nearest is the {name(whole.worst.region)}, {at(whole.worst.at, units)}, at{' '}
              {sensible(whole.worst.value, 2)}.
            </>
          )}
        </li>
      </ul>
      <div className="beside">
        <Button
          size="sm"
          variant="quiet"
          active={picking === 'probe'}
          aria-pressed={picking === 'probe'}
          onClick={() => controller.pickFor(picking === 'probe' ? null : 'probe')}
        >
          {picking === 'probe' ? 'Touch the piece …' : 'Draw a place'}
        </Button>
        {probes.length === 0 && (
          <Button size="sm" variant="quiet" onClick={() => controller.setProbes([whole.last.at, whole.worst.at])}>
            Draw the place wet longest and the worst crack
          </Button>
        )}
        {probes.length > 0 && (
          <Button size="sm" variant="quiet" onClick={() => controller.setProbes([])}>
            Clear the places
          </Button>
        )}
      </div>
    </>
  );
}

function at(p: readonly number[], units: 'metric' | 'imperial'): string {
  return `${formatLength(p[2] ?? 0, units)} up, ${formatLength(Math.abs(p[0] ?? 0), units)} to the ${(p[0] ?? 0) >= 0 ? 'left' : 'right'}`;
}

function placeWords(
  stage: {
    readonly size: readonly number[];
    readonly origin: readonly number[];
    readonly step: number;
    readonly latticeOf: Int32Array;
  },
  cell: number,
  units: 'metric' | 'imperial',
): string {
  const i = stage.latticeOf[cell] ?? 0;
  const [nx = 1, ny = 1] = stage.size;
  return at(
    [
      (stage.origin[0] ?? 0) + ((i % nx) + 0.5) * stage.step,
      0,
      (stage.origin[2] ?? 0) + (Math.floor(i / (nx * ny)) + 0.5) * stage.step,
    ],
    units,
  );
}
