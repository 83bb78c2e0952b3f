'use client';
import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import type { Build } from '../../core/document';
import {
  cardFor,
  clayLeft,
  clashSentence,
  dayWords,
  holdOf,
  holdWords,
  missedMuch,
  missedWindows,
  nextStep,
  timeWords,
  type BuildPlan,
  type PlannedStep,
} from '../../core/plan';
import {
  batchesMixed,
  effectiveLog,
  finestOf,
  lastStanding,
  partData,
  roomAsItIs,
  scaleOf,
  stepData,
  type LogKind,
} from '../../core/log';
import type { FullFindings } from '../../core/piece';
import { formatDuration, formatWork, parseNumber, type UnitSystem } from '../../core/quantity';
import { newId } from '../parts/ids';
import { logEntry, newEntry } from '../session/outbox';
import { shrinkPicture } from '../log/shrink-picture';
import { useLog } from '../session/use-log';
import { useWays, type Ways } from '../parts/appearance';
import { HouseMark, Plumb, statusWord } from '../parts/plumb';
import { useAnswer } from '../session/use-answer';
import { useNow, useSurroundings, zoneOfPage } from '../session/surroundings';
import { Batches } from './batches';
import { NextSitting } from '../plan/next-sitting';
import { StepAmounts } from '../plan/step-amounts';
import { StepPasses } from '../plan/step-passes';
import { WarmClay } from '../plan/warm-clay';
import { RunningClocks, SetClock } from './clocks';
import { TrueSize } from './true-size';

/** The bench card: what to do now, what after it, and clocks. For a phone at the bench, with clay on the hands. */
function useAwake(): { readonly awake: boolean; readonly toggle: () => void; readonly can: boolean } {
  const [wanted, setWanted] = useState(false);
  const [can, setCan] = useState(false);
  useEffect(() => setCan('wakeLock' in navigator), []);
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null,
      gone = false;
    const take = () => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock
        .request('screen')
        .then((l) => {
          if (gone) void l.release();
          else lock = l;
        })
        .catch(() => setWanted(false));
    };
    take();
    // The system lets go of it when the page is hidden; it is taken again when it comes back.
    document.addEventListener('visibilitychange', take);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', take);
      void lock?.release();
    };
  }, [wanted]);
  return { awake: wanted, toggle: () => setWanted((w) => !w), can };
}

/** The pages of the bench are kept on this device, so that they open without a connection too. */
function useKeptPages(): void {
  useEffect(() => {
    if ('serviceWorker' in navigator) void navigator.serviceWorker.register('/bench-keeper.js').catch(() => undefined);
  }, []);
}

function NextStep({
  plan,
  step,
  zone,
  now,
  units,
  busy,
  onDone,
  onPart,
}: {
  plan: BuildPlan;
  step: PlannedStep;
  zone: string;
  now: number;
  units: UnitSystem;
  busy: boolean;
  onDone: (s: PlannedStep, took: number | null) => void;
  onPart: (s: PlannedStep, worked: number) => void;
}) {
  const [took, setTook] = useState('');
  const [unsaid, setUnsaid] = useState(false);
  const sitting = step.sittings.find((s) => s.until > now) ?? step.sittings[0];
  const begins = sitting
    ? sitting.from <= now
      ? 'now'
      : `${dayWords(sitting.from, zone)}, ${timeWords(sitting.from, zone)}`
    : '';
  const waits = step.after.filter((w) => w.most !== null);
  const hours = parseNumber(took);
  const said = hours !== undefined && hours > 0 && hours <= 400 ? hours : null;
  // Begun in this sitting as planned, and worked at until now.
  const since = sitting ? (Math.min(now, sitting.until) - sitting.from) / 3600 : 0;
  const hold = sitting ? holdOf(plan, step, sitting) : null;
  return (
    <section className="next" aria-label="Next step" data-testid="next-step">
      <div className="when">
        {begins}
        {sitting && sitting.until > now ? ` until ${timeWords(Math.min(step.until, sitting.until), zone)}` : ''}
      </div>
      <h2>{step.name}</h2>
      <p className="mb-1">
        {step.begun
          ? `${formatWork(step.begun.worked)} of it done, ${formatWork(step.takes)} left`
          : formatWork(step.takes)}
        {step.people > 1 ? `, ${step.people} people` : step.crew.length > 1 ? ' for one, shared by two' : ''}
        {step.needs.length > 0 ? ` · ${step.needs.join(', ')}` : ''}
      </p>
      <StepAmounts step={step} units={units} className="mb-1" />
      <StepPasses step={step} className="mb-1" />
      {hold && <p className="mb-1">Meanwhile {holdWords(hold)}.</p>}
      {step.latest !== null && (
        <p className="muted mb-1">
          At the latest {dayWords(step.latest, zone)}, {timeWords(step.latest, zone)}.
        </p>
      )}
      {waits.map((w) => (
        <p key={w.task} className="mb-1 status-watch">
          Not later than {formatDuration(w.most?.nominal ?? 0)} after the step before.
        </p>
      ))}
      <div className="next-done">
        <Form.Control
          className="big"
          aria-label="Hours it took"
          placeholder={step.begun ? 'hours this time' : 'hours it took'}
          inputMode="decimal"
          value={took}
          onChange={(e) => setTook(e.target.value)}
        />
        <Button
          variant="iron"
          className="big huge"
          disabled={busy}
          onClick={() => {
            onDone(step, said);
            setTook('');
          }}
        >
          Done
        </Button>
      </div>
      <Button
        variant="quiet"
        className="big w-100 mt-2"
        disabled={busy}
        onClick={() => {
          const worked = said ?? (since > 0.05 ? since : null);
          setUnsaid(worked === null);
          if (worked === null) return;
          onPart(step, worked);
          setTook('');
        }}
      >
        Stop here, the rest another day
      </Button>
      {unsaid && (
        <p className="mb-0 mt-2" role="alert">
          Say above how many hours you worked at it.
        </p>
      )}
    </section>
  );
}

export default function Tonight({
  id,
  build,
  full,
  ways: initial,
}: {
  id: string;
  build: Build;
  full: FullFindings | null;
  ways: Ways;
}) {
  const { ways } = useWays(initial);
  const log = useLog(id);
  const around = useSurroundings(id);
  const now = useNow();
  const known = useAnswer(id, build, full, log, around, now);
  useKeptPages();
  const online = log.reached;
  const { awake, toggle, can } = useAwake();
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState('');
  const [weight, setWeight] = useState('');
  const [note, setNote] = useState('');
  const [forNext, setForNext] = useState(false);
  const own = known.report?.plan ?? null,
    plan = known.report?.workshop ?? null;
  const zone = plan?.zone ?? zoneOfPage();
  const next = own ? nextStep(own, now) : null;
  const card = own ? cardFor(own, zone, now) : null;
  const after = (card?.steps ?? []).filter((s) => s.id !== next?.id);
  // At the end a note is about what to do otherwise.
  const finished = own !== null && !next,
    keeps = finished || forNext;
  const verdict = known.report?.findings.find((f) => f.id === 'plan') ?? null;
  const read = useMemo(() => effectiveLog(log.entries ?? []), [log.entries]);
  const room = lastStanding(read, 'room')?.data.temperature;
  const { tare } = scaleOf(read);
  const roomNow = roomAsItIs(build.room);
  const pending = log.waiting.filter((w) => w.refused === null).length;
  const send = async (kind: LogKind, data: object, picture: Blob | null = null): Promise<boolean> => {
    setBusy(true);
    const refused = await logEntry(id, newEntry(kind, data), picture);
    setBusy(false);
    setSaid(refused ?? '');
    await log.load();
    return refused === null;
  };
  const done = (s: PlannedStep, took: number | null) =>
    void send('step', stepData(s, took === null ? null : took + (s.begun?.worked ?? 0), roomNow));
  const part = (s: PlannedStep, worked: number) => {
    const mixed = batchesMixed(log.entries ?? [], s.id, s.begun?.until ?? -Infinity).reduce((sum, m) => sum + m, 0);
    const data = partData({ ...s, hours: s.takes, clay: clayLeft(s) }, worked, null, roomNow);
    void send('part', mixed > 0 && s.clay > 0 ? { ...data, clay: Math.min(mixed, clayLeft(s)) } : data);
  };
  const weigh = async () => {
    const kg = parseNumber(weight);
    if (kg === undefined || !(kg > 0 && kg <= 5000)) return setSaid('The weight is a number, as the scale shows it.');
    const gross = ways.units === 'imperial' ? kg * 0.45359237 : kg;
    if (gross < tare) return setSaid('The scale shows less than the tare of last time: weigh it in the log.');
    if (
      await send('weigh-in', {
        gross,
        tare,
        finest: finestOf(weight, ways.units === 'imperial' ? 'lb' : 'kg'),
        room: roomNow,
      })
    )
      setWeight('');
  };
  const celsius = room ?? build.room.temperature;
  const sizes = [
    ...build.regions.everywhere.coats.map((t, i) => ({
      name: build.regions.everywhere.coats.length > 1 ? `coat ${i + 1}` : 'the clay',
      metres: t,
      round: false,
    })),
    ...Object.entries(build.regions.own).flatMap(([region, l]) =>
      l.coats.map((t) => ({ name: `clay on the ${region.replaceAll('-', ' ')}`, metres: t, round: false })),
    ),
  ];
  const closed = missedWindows(own?.steps ?? []);
  const closing = closed.filter((w) => w.step.missed >= missedMuch),
    passed = closed.filter((w) => w.step.missed < missedMuch);
  return (
    <div className="tonight">
      <header>
        <Link href={`/build/${id}?station=plan`} aria-label="To the plan">
          <HouseMark />
        </Link>
        <h1>{build.name}</h1>
        <Button
          size="sm"
          variant="quiet"
          className="big"
          aria-pressed={awake}
          active={awake}
          disabled={!can}
          onClick={toggle}
        >
          {awake ? 'Screen stays on' : 'Keep the screen on'}
        </Button>
      </header>
      <main>
        {(!online || pending > 0) && (
          <p className="waiting" role="status">
            {online ? '' : 'No connection. '}
            {pending > 0
              ? `${pending} waiting to be sent; nothing is lost.`
              : 'What you log waits here and is sent when it is back.'}
          </p>
        )}
        {closing.map(({ step, clash }) => (
          <p key={step.id} className="shout" role="alert">
            <Plumb status="fails" size={26} label="" />{' '}
            <span>
              <strong>{step.name}.</strong> {clashSentence(own!, clash)}
            </span>
          </p>
        ))}
        {passed.length > 0 && (
          <p className="waiting" role="status">
            Past their time: {passed.map((w) => `“${w.step.name}”`).join(', ')}. Say that they are done, or leave them
            out on the plan.
          </p>
        )}
        {known.refused && (
          <p className="shout" role="alert">
            {known.refused}
          </p>
        )}
        <RunningClocks buildId={id} entries={log.entries ?? []} onChanged={() => void log.load()} />
        {!own && !known.refused && <p className="muted">Making the card …</p>}
        {own && !next && (
          <section className="next">
            <h2>Every step is done.</h2>
            <p>
              Log its last weight and a picture, and note what you would do otherwise next time: it is shown on the
              Brief of the pieces that come after.
            </p>
          </section>
        )}
        {own && next && (
          <NextStep
            key={next.id}
            plan={own}
            step={next}
            zone={zone}
            now={now}
            units={ways.units}
            busy={busy}
            onDone={done}
            onPart={part}
          />
        )}
        {own && card && <WarmClay plan={own} date={card.date} zone={zone} units={ways.units} className="card-part" />}
        {own && plan && around.surroundings && (
          <NextSitting
            own={own}
            plan={plan}
            workshop={around.surroundings.workshop}
            big
            onChanged={() => void around.reload()}
          />
        )}
        {next?.mixed && (
          <Batches
            key={`batches ${next.id}`}
            build={build}
            step={next}
            zone={zone}
            now={now}
            units={ways.units}
            temperature={celsius}
            mixed={batchesMixed(log.entries ?? [], next.id, next.begun?.until ?? -Infinity)}
            busy={busy}
            onMix={(clock) => void send('clock', clock)}
          />
        )}
        <SetClock buildId={id} onChanged={() => void log.load()} />
        {card && after.length > 0 && (
          <section className="card-part" aria-label="After that">
            <h3>{dayWords(Date.parse(`${card.date}T12:00:00Z`) / 1000, 'UTC')}, after that</h3>
            <ol className="after">
              {after.map((s) => (
                <li key={s.id}>
                  <span>{timeWords(s.from, zone)}</span> {s.name}{' '}
                  <span className="muted">
                    {formatWork(s.takes)}
                    {s.needs.length > 0 ? ` · ${s.needs.join(', ')}` : ''}
                  </span>
                </li>
              ))}
            </ol>
          </section>
        )}
        {verdict && (
          <p className={`status-${verdict.status} tonight-verdict`}>
            <Plumb status={verdict.status} size={22} label="" /> {statusWord[verdict.status]}: {verdict.sentence}
          </p>
        )}
        <section className="card-part" aria-label="Log it">
          <h3>Log it</h3>
          <div className="quick">
            <Form.Control
              className="big"
              aria-label="On the scale"
              placeholder={`on the scale, ${ways.units === 'imperial' ? 'lb' : 'kg'}`}
              inputMode="decimal"
              value={weight}
              onChange={(e) => setWeight(e.target.value)}
            />
            <Button variant="quiet" className="big" disabled={busy} onClick={() => void weigh()}>
              Weigh
            </Button>
          </div>
          <div className="quick">
            <Form.Control
              className="big"
              aria-label="Note"
              placeholder="a note"
              value={note}
              maxLength={4000}
              onChange={(e) => setNote(e.target.value)}
            />
            <Button
              variant="quiet"
              className="big"
              disabled={busy || note.trim() === ''}
              onClick={() =>
                void send('note', { text: note, ...(keeps ? { forNext: true } : {}) }).then((ok) => {
                  if (!ok) return;
                  setNote('');
                  setForNext(false);
                })
              }
            >
              Write
            </Button>
          </div>
          <Form.Check
            id="note-for-next"
            className="mb-2"
            label="The note is for the next piece too"
            checked={keeps}
            onChange={(e) => setForNext(e.target.checked)}
            disabled={finished}
          />
          <label className="btn btn-quiet big w-100">
            Take a picture
            <input
              type="file"
              accept="image/*"
              capture="environment"
              hidden
              onChange={(e) => {
                const f = e.target.files?.[0];
                e.target.value = '';
                if (f)
                  void shrinkPicture(f).then((p) =>
                    send('photo', { photoId: newId(), caption: next ? next.name : '' }, p),
                  );
              }}
            />
          </label>
          {said && (
            <p className="status-fails mt-2 mb-0" role="alert">
              {said}
            </p>
          )}
          <p className="small mt-2 mb-0">
            <Link href={`/build/${id}?station=log`}>The whole log</Link>: damage, mending, shrinkage, what was used.
          </p>
        </section>
        <TrueSize sizes={sizes} units={ways.units} />
      </main>
    </div>
  );
}
