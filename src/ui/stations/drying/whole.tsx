'use client';
import { useEffect } from 'react';
import { Button, Form, ProgressBar, Table } from 'react-bootstrap';
import { dryingKey } from '../../../core/build';
import { wetScale } from '../../../core/drying';
import { formatDate, formatDuration, isoDateOf, secondsOf, sensible, formatLength } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { frameAt } from '../../bench/whole-picture';
import { statusOf } from '../../../core/verdict';
import { Plumb, statusWord } from '../../parts/plumb';
import type { DryFace } from '../../bench/controller';

/** The whole piece in three dimensions: started, watched, stopped; what it shows, and what came out. */
export function WholePiece() {
  const controller = useController();
  const state = useBench((s) => s.whole);
  const build = useBench((s) => s.build);
  useEffect(() => {
    void controller.takeKeptWhole();
  }, [controller]);
  const stale = state.whole !== null && state.key !== dryingKey(build);
  const working = state.status === 'working' || state.status === 'paused';
  const left = Number.isFinite(state.left) ? `, about ${formatDuration(Math.max(1, state.left))} left` : '';
  return (
    <section aria-label="The whole piece in three dimensions">
      <h3>The whole piece</h3>
      <p className="answer" data-testid="which-answer">
        {state.whole ? (
          <>
            <strong>Full answer</strong>: in three dimensions, {state.whole.cells.toLocaleString('en')} cells of{' '}
            {sensible(state.whole.step * 1000, 2)} mm{stale ? '. The build has changed since: work it out again.' : '.'}
          </>
        ) : (
          <>
            <strong>Quick answer</strong>: each region by itself, through its thickness. Crevices, thin ears beside
            thick cheeks and what lies on the table are not in it.
          </>
        )}
      </p>
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
  const start = useBench((s) => s.build.brief.startDate);
  const startHour = useBench((s) => s.build.stages.startHour);
  if (!whole) return null;
  const name = (id: string) => report?.regions.find((r) => r.id === id)?.name ?? id.replaceAll('-', ' ');
  const when = (t: number) =>
    `${formatDuration(t)} on, ${formatDate(isoDateOf(secondsOf(start) + startHour * 3600 + t))}`;
  const frame = whole.frames[frameAt(whole, dryTime)];
  const stage = whole.stages[frame?.stage ?? -1];
  const wetAt = frame && stage ? placeWords(stage, frame.wettest, units) : '';
  const wetShare = frame ? (frame.wet[frame.wettest] ?? 0) / wetScale : 0;
  return (
    <>
      <Verdict />
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
          Last to dry: the {name(whole.last.region)}, {at(whole.last.at, units)}, {when(whole.last.time)}.
        </li>
        <li>
          {whole.firstCrack ? (
            <>
              First to crack: the {name(whole.firstCrack.region)}, {at(whole.firstCrack.at, units)},{' '}
              {when(whole.firstCrack.time)}.
            </>
          ) : (
            <>
              No place passes the limit; nearest is the {name(whole.worst.region)}, {at(whole.worst.at, units)}, at{' '}
              {sensible(whole.worst.value, 2)}.
            </>
          )}
        </li>
      </ul>
      <div className="scroll-x">
        <Table size="sm" aria-label="Drying by region in three dimensions">
          <thead>
            <tr>
              <th>Region</th>
              <th className="n">Leather-hard, touch-dry</th>
              <th className="n">Through</th>
              <th className="n">Cracks</th>
            </tr>
          </thead>
          <tbody>
            {whole.regions
              .filter((r) => r.touchDry !== null || r.crack > 0)
              .map((r) => {
                const quick = report?.regions.find((q) => q.id === r.id);
                return (
                  <tr key={r.id}>
                    <td>{name(r.id)}</td>
                    <td className="n">
                      {told(r.leatherHard)}, {told(r.touchDry)}
                      <div className="muted small">to hold {told(r.hold)}</div>
                    </td>
                    <td className="n">
                      {told(r.throughDry)}
                      {quick?.throughDry ? (
                        <div className="muted small">quick {formatDuration(quick.throughDry)}</div>
                      ) : null}
                    </td>
                    <td className="n">
                      {sensible(r.crack, 2)}
                      <div className="muted small">
                        core {sensible(r.restrained, 2)}, skin {sensible(r.differential, 2)}
                      </div>
                    </td>
                  </tr>
                );
              })}
          </tbody>
        </Table>
      </div>
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
            Draw the last to dry and the worst crack
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

/** The full answer's own judgement, beside the quick one's at the head of the station. */
function Verdict() {
  const whole = useBench((s) => s.whole.whole);
  const limit = useBench((s) => s.build.brief.limits.crack);
  const report = useBench((s) => s.report);
  if (!whole) return null;
  const { worst } = whole;
  const status = statusOf(worst.value, Math.min(0.6, limit * 0.6), limit);
  const where = report?.regions.find((r) => r.id === worst.region)?.name ?? worst.region;
  const words =
    worst.value > 1.6 ? 'near certain' : worst.value > 1 ? 'likely' : worst.value >= 0.6 ? 'possible' : 'unlikely';
  const quick = report?.regions.find((r) => r.id === worst.region)?.crack ?? 0;
  return (
    <p className="verdict-line whole-verdict" data-testid="whole-verdict">
      <Plumb status={status} size={22} label="" />{' '}
      <span>
        <span className={`status-${status}`}>{statusWord[status]}</span>: cracks at the {where} are {words},{' '}
        {sensible(worst.value, 2)}
        {worst.value > quick * 1.5 && worst.value > 0.6
          ? `. The quick answer has ${sensible(quick, 2)}: a wire close under the face, or a thin part beside a thick one, is seen here only`
          : ''}
        .
      </span>
    </p>
  );
}

const told = (t: number | null) => (t === null ? 'not yet' : formatDuration(t));

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
