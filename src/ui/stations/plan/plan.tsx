'use client';
import { useCallback, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { findClay, type StepEdit } from '../../../core/document';
import {
  breaksAt,
  clashSentence,
  clayLeft,
  dayWords,
  hasTimeToSpare,
  hoursOfPlan,
  startOn,
  whenWords,
  zoneClock,
  type BuildPlan,
  type PlannedStep,
  type WorkshopPlan,
} from '../../../core/plan';
import { effectiveLog, happenedOf, partData, roomAsItIs, standing, stepData } from '../../../core/log';
import { formatDate, formatDuration, formatWork } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { ChoiceInput, NumberAt, TextAt, YesNoAt } from '../../parts/fields';
import { Plumb, statusWord } from '../../parts/plumb';
import { logEntry, newEntry } from '../../session/outbox';
import { useFeed } from '../../session/feed';
import { Days } from '../../plan/days';
import { NextSitting } from '../../plan/next-sitting';
import { zoneOfPage } from '../../session/surroundings';
import { ClassPlan } from './class-plan';
import { HelpWanted, Holding } from './holding';
import { OtherPieces } from './other-pieces';
import { OwnSteps } from './own-steps';
import { StepCard } from './step-card';
import { WorkshopHours } from './workshop-hours';

const helds = [
  { id: 'auto', name: 'as the armature says' },
  { id: 'stands', name: 'its base, or a stand' },
  { id: 'skewer', name: 'a skewer, a hook or a loop it hangs by' },
  { id: 'cradle', name: 'a cradle of foam or sand' },
  { id: 'hands', name: 'hands alone' },
];

/** The place that is left bare to hold the piece by, until the others are laid. */
function LaidLast({ own }: { own: BuildPlan }) {
  const controller = useController();
  const bareFirst = useBench((s) => s.build.plan.bareFirst);
  const places = new Map(
    own.steps.flatMap((s) => (s.kind === 'clay' && s.region ? [[s.region, s.place] as const] : [])),
  );
  if (places.size < 2) return null;
  return (
    <ChoiceInput
      label="Laid last, to hold it by"
      value={bareFirst ?? ''}
      choices={[
        { id: '', name: 'the last from the base up' },
        ...[...places].map(([id, name]) => ({ id, name: `the ${name}` })),
      ]}
      onChoose={(v) =>
        controller.edit({ label: 'Laid last', changes: [{ path: ['plan', 'bareFirst'], value: v === '' ? null : v }] })
          ?.message ?? null
      }
    />
  );
}

/** A move as it was made, until its consequences are known. */
interface Moved {
  readonly step: string;
  readonly name: string;
  /** What was said of the step before. */
  readonly before: StepEdit | undefined;
  readonly finish: number;
  readonly clashes: readonly string[];
  readonly plan: WorkshopPlan;
}

function clashesIn(plan: BuildPlan): string[] {
  return plan.steps.flatMap((s) => s.clashes.map((c) => `“${s.name}”: ${clashSentence(plan, c)}`));
}

function Consequences({
  moved,
  own,
  zone,
  busy,
  onBack,
  onKeep,
}: {
  moved: Moved;
  own: BuildPlan;
  zone: string;
  busy: boolean;
  onBack: () => void;
  onKeep: () => void;
}) {
  if (busy)
    return (
      <div className="consequences" role="status">
        Working out what follows from it …
      </div>
    );
  const by = own.finish.nominal - moved.finish;
  const fresh = clashesIn(own).filter((c) => !moved.clashes.includes(c));
  return (
    <div className="consequences" role="status" data-testid="consequences">
      <p className="mb-1">
        <strong>{moved.name} was moved.</strong>{' '}
        {Math.abs(by) < 3600
          ? `Ready on ${dayWords(own.finish.nominal, zone)}, as before.`
          : `Ready on ${dayWords(own.finish.nominal, zone)}, ${formatDuration(Math.abs(by))} ${by > 0 ? 'later' : 'sooner'}.`}
      </p>
      {fresh.length > 0 && (
        <ul className="mb-1">
          {fresh.slice(0, 4).map((c) => (
            <li key={c} className="status-fails">
              {c}
            </li>
          ))}
        </ul>
      )}
      <div className="acts">
        <Button size="sm" variant="iron" onClick={onKeep}>
          Keep it there
        </Button>
        <Button size="sm" variant="quiet" onClick={onBack}>
          Put it back
        </Button>
      </div>
    </div>
  );
}

/** The plan as the one reckoning has it; busy while the last change is being worked out. */
interface KnownPlan {
  readonly plan: WorkshopPlan | null;
  readonly own: BuildPlan | null;
  readonly busy: boolean;
  readonly now: number;
}

function useKnownPlan(): KnownPlan {
  const report = useBench((s) => s.report);
  const reckoning = useBench((s) => s.reckoning);
  const now = useBench((s) => s.now);
  // Earliest and latest come with the ranges: until then the last whole answer is shown as being worked out again.
  const busy = reckoning === 'nominal' || reckoning === 'ranges';
  return { plan: report?.workshop ?? null, own: report?.plan ?? null, busy, now };
}

function Judgement({ busy }: { busy: boolean }) {
  const found = useBench((s) => s.report?.findings.find((f) => f.id === 'plan'));
  const decides = useBench((s) => s.report?.dates.decides ?? '');
  const ready = useBench((s) => s.report?.dates.ready ?? null);
  if (!found) return null;
  return (
    <>
      <div className={`verdict-line status-${found.status}`}>
        <Plumb status={found.status} size={24} label="" /> {statusWord[found.status]}
        {busy ? ', working it out again …' : ''}
      </div>
      <h2 data-testid="plan-verdict">{found.sentence}</h2>
      <p className="reason">{found.reason}</p>
      {ready && (
        <p className="reason" data-testid="plan-deciding">
          {decides}
        </p>
      )}
    </>
  );
}

/** What would make it sooner, and what could be left out, each worked out whole. */
function Help({ own, zone }: { own: BuildPlan; zone: string }) {
  const controller = useController();
  const { ways, done, leaveOut: left } = useBench((s) => s.sooner);
  const off = useCallback(
    (ids: readonly string[]) => {
      const { steps } = controller.state.build.plan;
      controller.edit({
        label: ids.length === 1 ? 'A step left out' : `${ids.length} steps left out`,
        changes: ids.map((id) => ({ path: ['plan', 'steps', id], value: { ...steps[id], off: true } })),
      });
    },
    [controller],
  );
  return (
    <>
      {left && left.steps && left.steps.length > 0 && (
        <div className="cautions" style={{ borderLeftColor: 'var(--fails)' }}>
          <strong>To be done in time, leave out</strong> what the eye misses least:
          <ol className="mb-1">
            {left.steps.map((s) => (
              <li key={s.id}>
                {s.name}, {formatWork(s.hours)}
              </li>
            ))}
          </ol>
          <Button size="sm" variant="quiet" onClick={() => off(left.steps?.map((s) => s.id) ?? [])}>
            Leave {left.steps.length === 1 ? 'it' : 'them'} out: ready {dayWords(left.finish, zone)}
          </Button>
        </div>
      )}
      {left && left.steps === null && own.due !== null && own.finish.nominal > own.due && (
        <p className="cautions" style={{ borderLeftColor: 'var(--fails)' }}>
          Leaving out all that can be left out is not enough: another day, more hours, or one of the ways below.
        </p>
      )}
      <ul className="remedies" aria-label="What would make it sooner">
        {ways.slice(0, 5).map((w) => (
          <li key={w.id}>
            <span className="what">{w.label}</span>
            {w.edit ? (
              <Button
                variant="quiet"
                size="sm"
                onClick={() => controller.edit(w.edit!)}
                aria-label={`Do it: ${w.label}`}
              >
                Do it
              </Button>
            ) : (
              <span />
            )}
            <span className="effect">
              ready {dayWords(w.finish, zone)},{' '}
              <strong className="status-sound">{formatDuration(w.gains)} sooner</strong> · {w.note}
            </span>
          </li>
        ))}
        {ways.length === 0 && (
          <li>
            <span className="effect">
              {done && hasTimeToSpare(own)
                ? 'In time even if all goes slowly: nothing has to be sooner.'
                : done
                  ? 'Nothing that was tried makes it sooner: it is the hours at the bench that count.'
                  : 'Trying what would make it sooner …'}
            </span>
          </li>
        )}
      </ul>
    </>
  );
}

/** A piece whose clay is already on, with nothing logged of it, would be planned from the beginning. */
function AlreadyBegun({
  own,
  zone,
  busy,
  onDone,
}: {
  own: BuildPlan;
  zone: string;
  busy: boolean;
  onDone: (steps: readonly PlannedStep[], at: number) => void;
}) {
  const start = useBench((s) => s.build.brief.startDate);
  const hour = useBench((s) => s.build.stages.startHour);
  const clock = zoneClock(zone);
  const at = clock.epochOf(start, hour * 60);
  // On the day itself it may still be about to go on.
  if (own.steps.some((s) => s.done || s.begun) || start >= clock.wallOf(Date.now() / 1000).date) return null;
  const until = own.steps.filter((s) => /(^|\/)(set-out|armature|bulk|props|warm)$|ground\/|lay\/[^/]+\/1$/.test(s.id));
  return (
    <div className="cautions">
      By the brief the first clay was laid on {formatDate(start)}, and nothing is logged as done.{' '}
      <Button size="sm" variant="quiet" disabled={busy} onClick={() => onDone(until, at)}>
        It was: mark everything up to the first clay as done
      </Button>
    </div>
  );
}

function StartDate({ own, zone }: { own: BuildPlan; zone: string }) {
  const controller = useController();
  const build = useBench((s) => s.build);
  const start = build.brief.startDate;
  const clay = findClay(build, build.brief.clay);
  const dries = clay.ok && clay.value.setting === 'dries';
  const lay = own.steps.find((s) => /lay\//.test(s.id) && !s.done);
  if (!lay || !Number.isFinite(lay.from) || own.steps.some((s) => /lay\//.test(s.id) && (s.done || s.begun)))
    return null;
  const date = zoneClock(zone).wallOf(lay.from).date;
  if (date === start) return null;
  return (
    <p className="small mt-2">
      By this plan the first clay is laid on {dayWords(lay.from, zone)}; the brief says {formatDate(start)}. Dates go by
      the plan.{dries ? ' The nights and weekends a coat dries through go by the brief.' : ''}{' '}
      <Button
        size="sm"
        variant="quiet"
        onClick={() =>
          controller.edit({
            label: `Clay goes on ${date}`,
            changes: [
              { path: ['brief', 'startDate'], value: date },
              {
                path: ['stages', 'startHour'],
                value: Math.round((zoneClock(zone).wallOf(lay.from).minutes / 60) * 4) / 4,
              },
            ],
          })
        }
      >
        Take the plan’s day into the brief
      </Button>
    </p>
  );
}

function LeftOut() {
  const controller = useController();
  const steps = useBench((s) => s.build.plan.steps);
  const off = Object.entries(steps).filter(([, e]) => e.off);
  if (off.length === 0) return null;
  return (
    <>
      <h3>Left out</h3>
      <ul className="plain">
        {off.map(([id, edit]) => (
          <li key={id} className="d-flex gap-2 align-items-center mb-1">
            <span>{id.replaceAll('/', ', ').replaceAll('-', ' ')}</span>
            <Button
              size="sm"
              variant="quiet"
              aria-label={`Bring back ${id}`}
              onClick={() =>
                controller.edit({
                  label: 'A step brought back',
                  changes: [{ path: ['plan', 'steps', id], value: { ...edit, off: undefined } }],
                })
              }
            >
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}

function StepTable({ own, zone, onChoose }: { own: BuildPlan; zone: string; onChoose: (id: string) => void }) {
  const hours = hoursOfPlan(own);
  return (
    <details className="mt-3">
      <summary>All {own.steps.length} steps as a table</summary>
      <p className="small muted mb-1">
        {formatWork(hours.all)} of work, {formatWork(hours.untilClay)} of it until the clay is on.
      </p>
      <div className="wide">
        <table className="table" aria-label="Steps">
          <thead>
            <tr>
              <th scope="col">Step</th>
              <th scope="col">Begins</th>
              <th scope="col">Ends</th>
              <th scope="col" className="n">
                Takes
              </th>
              <th scope="col">At the latest</th>
              <th scope="col">Needs</th>
            </tr>
          </thead>
          <tbody>
            {own.steps.map((s) => (
              <tr key={s.id}>
                <td>
                  <button type="button" className="btn btn-link p-0 text-start" onClick={() => onChoose(s.id)}>
                    {s.name}
                  </button>
                  {s.done ? ' (done)' : ''}
                </td>
                <td>{whenWords(s.from, zone)}</td>
                <td>{whenWords(s.until, zone)}</td>
                <td className="n">{formatWork(s.takes)}</td>
                <td>{s.done || s.latest === null ? '' : whenWords(s.latest, zone)}</td>
                <td>{s.needs.join(', ')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}

export default function PlanStation() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const { id } = controller;
  const { log, around } = useFeed();
  const known = useKnownPlan();
  const failure = useBench((s) => s.failure);
  const { own, plan } = known;
  const zone = plan?.zone ?? zoneOfPage();
  const [chosen, setChosen] = useState<string | null>(null);
  const [moved, setMoved] = useState<Moved | null>(null);
  const [busy, setBusy] = useState(false);
  const step = own?.steps.find((s) => s.id === chosen) ?? null;
  const card = useRef<HTMLDivElement>(null);

  const put = (stepId: string, at: number) => {
    if (!own || !plan) return;
    const s = own.steps.find((x) => x.id === stepId);
    if (!s) return;
    const edit = build.plan.steps[stepId];
    const refused = controller.edit({
      label: `${s.name}: ${whenWords(at, zone)}`,
      changes: [
        {
          path: ['plan', 'steps', stepId],
          value: { ...edit, at: new Date(Math.round(at / 60) * 60_000).toISOString().replace('.000Z', 'Z') },
        },
      ],
    });
    if (refused) controller.announce(`Not moved: ${refused.message}`);
    else
      setMoved({
        step: stepId,
        name: s.name,
        before: moved?.step === stepId ? moved.before : edit,
        finish: own.finish.nominal,
        clashes: clashesIn(own),
        plan,
      });
  };
  /** When a step put on a day would begin; null where it stays. */
  const startOnDay = (s: PlannedStep, date: string, seek?: 'before' | 'after' | undefined): number | null => {
    if (!plan) return null;
    const clock = zoneClock(zone);
    const open = plan.open[s.crew[0] ?? ''] ?? [];
    const soonest = Math.ceil(known.now / 900) * 900;
    const first = startOn(open, Math.max(clock.epochOf(date, 0), soonest), 0, false);
    const last = open.filter((x) => x.from < clock.epochOf(date, 1440) && x.until > soonest).pop();
    if (seek === 'after' && Number.isFinite(first)) return first;
    if (seek === 'before' && last) return Math.max(last.from, soonest);
    // A day without hours takes it at the hour it had: the plan then says that nobody is there.
    return Number.isFinite(first) && clock.wallOf(first).date === date
      ? first
      : clock.epochOf(date, Math.round(clock.wallOf(s.from).minutes));
  };
  const moveTo = (stepId: string, date: string, seek?: 'before' | 'after' | undefined) => {
    const s = own?.steps.find((x) => x.id === stepId);
    const at = s && !s.done ? startOnDay(s, date, seek) : null;
    if (at === null) return;
    setChosen(stepId);
    put(stepId, at);
  };
  const breaksOn = (stepId: string, date: string, folded: boolean): string[] => {
    const s = own?.steps.find((x) => x.id === stepId);
    const at = s ? startOnDay(s, date, folded ? 'after' : undefined) : null;
    return own && plan && at !== null ? breaksAt(own, plan, stepId, at).map((c) => clashSentence(own, c)) : [];
  };
  const done = async (steps: readonly PlannedStep[], at: number, took?: number) => {
    setBusy(true);
    for (const s of steps) {
      const refused = await logEntry(
        id,
        newEntry(
          'step',
          stepData(s, took === undefined ? null : took + (s.begun?.worked ?? 0), roomAsItIs(build.room)),
          new Date(at * 1000).toISOString(),
        ),
      );
      if (refused) {
        controller.announce(`Not logged: ${refused}`);
        break;
      }
    }
    setBusy(false);
    await log.load();
    await around.reload();
  };
  const part = async (s: PlannedStep, worked: number) => {
    setBusy(true);
    const left = { ...s, hours: s.takes, clay: clayLeft(s) };
    const refused = await logEntry(id, newEntry('part', partData(left, worked, null, roomAsItIs(build.room))));
    setBusy(false);
    if (refused) controller.announce(`Not logged: ${refused}`);
    await log.load();
    await around.reload();
  };
  const undoDone = async (s: PlannedStep) => {
    const entry = standing(effectiveLog(log.entries ?? []), 'step')
      .filter((e) => e.data.step === s.id)
      .pop();
    if (!entry) return;
    await logEntry(id, newEntry('void', {}, null, entry.id));
    await log.load();
  };
  const choose = (stepId: string) => {
    setChosen(stepId);
    requestAnimationFrame(() => card.current?.scrollIntoView({ block: 'nearest' }));
  };
  return (
    <section aria-label="Plan" className="plan-station">
      <div className="plan-say">
        <div>
          {failure && (
            <div role="alert" className="cautions" style={{ borderLeftColor: 'var(--fails)' }}>
              <strong>There is no plan.</strong> {failure.message}
            </div>
          )}
          {own || plan ? (
            <Judgement busy={known.busy} />
          ) : (
            !failure && (
              <>
                <div className="verdict-line status-unknown">
                  <Plumb status="unknown" size={24} label="" /> Working it out …
                </div>
                <h2>Plan</h2>
              </>
            )
          )}
          {own && plan && around.surroundings && (
            <NextSitting
              own={own}
              plan={plan}
              workshop={around.surroundings.workshop}
              onChanged={() => void around.reload()}
            />
          )}
          {own && <HelpWanted own={own} zone={zone} />}
          {own && <AlreadyBegun own={own} zone={zone} busy={busy} onDone={(steps, at) => void done(steps, at)} />}
          {own && <StartDate own={own} zone={zone} />}
          {own && own.lost.length > 0 && (
            <p className="cautions">Changed steps that are not there any more: {own.lost.join(', ')}.</p>
          )}
        </div>
        {own && (
          <div>
            {own.steps.every((s) => s.done) ? (
              <p>{happenedOf(effectiveLog(log.entries ?? [])).length} steps are in the log.</p>
            ) : (
              <Help own={own} zone={zone} />
            )}
          </div>
        )}
      </div>
      {moved && own && plan && (
        <Consequences
          moved={moved}
          own={own}
          zone={zone}
          busy={known.busy || plan === moved.plan}
          onKeep={() => setMoved(null)}
          onBack={() => {
            controller.edit({
              label: `${moved.name}: put back`,
              changes: [{ path: ['plan', 'steps', moved.step], value: moved.before }],
            });
            setMoved(null);
          }}
        />
      )}
      {own && plan && own.steps.length > 0 && (
        <Days plan={own} whole={plan} chosen={chosen} onChoose={choose} breaksOn={breaksOn} onMove={moveTo} />
      )}
      <p className="key-line small muted">
        <span className="swatch wet" /> wet: no hand on it <span className="swatch wet maybe" /> perhaps still wet{' '}
        <span className="swatch bad" /> breaks something <span className="swatch done" /> done
        {own && (
          <>
            {' '}
            · <a href={`/build/${id}/tonight`}>Bench card</a> ·{' '}
            <a href={`/build/${id}/print/plan?zone=${encodeURIComponent(zone)}`} target="_blank" rel="noreferrer">
              Print
            </a>{' '}
            · <a href={`/api/builds/${id}/plan?as=ics&zone=${encodeURIComponent(zone)}`}>Calendar file</a> ·{' '}
            <a href={`/api/builds/${id}/plan?as=csv&zone=${encodeURIComponent(zone)}`}>Table</a>
          </>
        )}
      </p>
      <div className="plan-below">
        <div ref={card}>
          {step && own ? (
            <StepCard
              key={step.id}
              step={step}
              own={own}
              zone={zone}
              busy={busy}
              onPut={(at) => put(step.id, at)}
              onPart={(worked) => void part(step, worked)}
              onDone={(took) => void done([step], Date.now() / 1000, took)}
              onUndone={() => void undoDone(step)}
            />
          ) : (
            <p className="muted">
              Choose a step to see what it waits for, put it on another day, or say that it is done.
            </p>
          )}
          {own && <StepTable own={own} zone={zone} onChoose={choose} />}
          <LeftOut />
        </div>
        <div>
          <h3 className="mt-0 border-0 pt-0">For this build</h3>
          <div className="pairs">
            <TextAt label="Wanted on" path={['brief', 'deadline']} type="date" />
            <ChoiceInput
              label="Held while it is worked on by"
              value={build.plan.held}
              choices={helds}
              onChoose={(v) =>
                controller.edit({ label: 'What holds it', changes: [{ path: ['plan', 'held'], value: v }] })?.message ??
                null
              }
            />
            {own?.steps.some((s) => s.holds !== null) && <LaidLast own={own} />}
            <NumberAt
              label="Its share of the hours"
              path={['plan', 'share']}
              kind="percent"
              hint="whole days; the others are left for other work"
            />
          </div>
          <Holding zone={zone} />
          <YesNoAt label="On the go: other builds are planned round it" path={['plan', 'active']} fallback={false} />
          {plan && <People plan={plan} />}
          {own && plan && <OtherPieces own={own} plan={plan} onChanged={around.reload} />}
          <OwnSteps own={own} />
          <ClassPlan zone={zone} />
          <WorkshopHours surroundings={around.surroundings} onChanged={() => void around.reload()} />
        </div>
      </div>
      <details className="how">
        <summary>How this is worked out</summary>
        <div className="mt-2">
          <p>
            Steps come from this build: its school, coats, stages, covers, seals and moulds. Hours are areas and weights
            times rates of ours until the log has taught yours; each logged step with its hours moves the rate of its
            kind, and says how sure it is. Waits come from the drying as it stands, corrected by what was weighed; the
            range is the drying’s own.
          </p>
          <p>
            Steps are put one after another, that with the longest way behind it first, each as early as its waits, its
            people, what it needs and a dry place to hold it allow. Where a window would close before its step, what
            opens it is put later. Few steps are searched through in every order. The latest times come from the same
            plan made backwards from the day it is wanted.
          </p>
          <p>
            Where two are named for a piece and a place on it is large enough, they share a step if the piece is ready
            sooner so; it takes them 0.55 of its hours. Left out: the weather of another day than the brief’s, and
            tiredness.
          </p>
        </div>
      </details>
    </section>
  );
}

function People({ plan }: { plan: WorkshopPlan }) {
  const controller = useController();
  const people = useBench((s) => s.build.plan.people);
  const named = plan.people.filter((p) => p.id !== 'me' && !p.id.includes('-group-'));
  if (named.length < 2) return null;
  return (
    <fieldset className="field">
      <legend className="label">Who works on it</legend>
      {named.map((p) => (
        <label key={p.id} className="me-3">
          <input
            type="checkbox"
            checked={people.includes(p.id)}
            onChange={(e) =>
              controller.edit({
                label: `${p.name} ${e.target.checked ? 'works on it' : 'does not work on it'}`,
                changes: [
                  {
                    path: ['plan', 'people'],
                    value: e.target.checked ? [...people, p.id] : people.filter((x) => x !== p.id),
                  },
                ],
              })
            }
          />{' '}
          {p.name}
        </label>
      ))}
      {people.length === 0 && <div className="hint">Nobody is named: {named[0]?.name ?? ''} it is.</div>}
    </fieldset>
  );
}
