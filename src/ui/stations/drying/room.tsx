'use client';
import { useEffect, useRef, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { coverKinds } from '../../../core/catalogue';
import { lyingWays, type CoverSpell, type Learned, type RoomHours, type Stages } from '../../../core/document';
import { secondsOf, sensible } from '../../../core/quantity';
import { dryingClient, type DryingClient } from '../../../workers/clients';
import { useBench, useController } from '../../bench/context';
import { ChoiceInput, NumberAt, QuantityInput, YesNoAt } from '../../parts/fields';

/** The room hour by hour, what covers the piece, and what is done with it while it dries. */
const presets: readonly { name: string; hours: readonly RoomHours[] }[] = [
  {
    name: 'Colder at night',
    hours: [{ name: 'Night', days: 'every', from: 22, until: 7, temperature: 15, relativeHumidity: 0.62 }],
  },
  {
    name: 'Heated by day',
    hours: [{ name: 'Heating on', days: 'working', from: 8, until: 18, temperature: 23, relativeHumidity: 0.38 }],
  },
  { name: 'Fan in the evening', hours: [{ name: 'Fan', days: 'every', from: 18, until: 23, airSpeed: 1.5 }] },
  {
    name: 'Weekends away',
    hours: [{ name: 'Nobody there', days: 'weekend', from: 0, until: 24, temperature: 13, relativeHumidity: 0.66 }],
  },
];
const dayWords = [
  { id: 'every', name: 'every day' },
  { id: 'working', name: 'Monday to Friday' },
  { id: 'weekend', name: 'weekends' },
] as const;

export function RoomFields() {
  const controller = useController();
  const room = useBench((s) => s.build.room);
  const set = (hours: readonly RoomHours[], label: string) =>
    controller.edit({ label, changes: [{ path: ['room', 'hours'], value: hours }] })?.message ?? null;
  const change = (i: number, by: Partial<RoomHours>) =>
    set(
      room.hours.map((h, k) => (k === i ? { ...h, ...by } : h)),
      `${room.hours[i]?.name ?? 'Hours'} changed`,
    );
  const optional = (i: number, key: 'temperature' | 'relativeHumidity' | 'airSpeed') => (v: number | null) => {
    const { [key]: _, ...rest } = room.hours[i]!;
    return set(
      room.hours.map((h, k) => (k === i ? (v === null ? (rest as RoomHours) : { ...h, [key]: v }) : h)),
      `${room.hours[i]?.name ?? 'Hours'} changed`,
    );
  };
  return (
    <>
      <h3>The room</h3>
      <div className="pairs">
        <NumberAt label="Temperature" path={['room', 'temperature']} kind="temperature" />
        <NumberAt label="Humidity" path={['room', 'relativeHumidity']} kind="percent" />
        <NumberAt label="Air over it" path={['room', 'airSpeed']} kind="speed" hint="0.1 still, 1.5 a fan" />
        <NumberAt label="Clay goes on at" path={['stages', 'startHour']} kind="hours" hint="hour of the day" />
      </div>
      {room.hours.map((h, i) => (
        <fieldset key={i} className="lined">
          <legend className="h6">{h.name}</legend>
          <div className="pairs">
            <ChoiceInput
              label="On"
              value={h.days}
              choices={dayWords}
              onChoose={(days) => change(i, { days: days as RoomHours['days'] })}
            />
            <QuantityInput
              label="From"
              kind="hours"
              value={h.from}
              onCommit={(v) => (v === null ? 'An hour of the day.' : change(i, { from: v }))}
            />
            <QuantityInput
              label="Until"
              kind="hours"
              value={h.until}
              onCommit={(v) => (v === null ? 'An hour of the day.' : change(i, { until: v }))}
            />
            <QuantityInput
              label="Temperature"
              kind="temperature"
              optional
              value={h.temperature ?? null}
              placeholder="as the room"
              onCommit={optional(i, 'temperature')}
            />
            <QuantityInput
              label="Humidity"
              kind="percent"
              optional
              value={h.relativeHumidity ?? null}
              placeholder="as the room"
              onCommit={optional(i, 'relativeHumidity')}
            />
            <QuantityInput
              label="Air"
              kind="speed"
              optional
              value={h.airSpeed ?? null}
              placeholder="as the room"
              onCommit={optional(i, 'airSpeed')}
            />
          </div>
          <Button
            size="sm"
            variant="quiet"
            onClick={() =>
              set(
                room.hours.filter((_, k) => k !== i),
                `${h.name} taken away`,
              )
            }
          >
            Take these hours away
          </Button>
        </fieldset>
      ))}
      <div className="beside" role="group" aria-label="Hours at which the room is otherwise">
        {presets.map((p) => (
          <Button key={p.name} size="sm" variant="quiet" onClick={() => set([...room.hours, ...p.hours], p.name)}>
            {p.name}
          </Button>
        ))}
      </div>
      <RoomRecord />
      <LearnedChoice />
    </>
  );
}

/** A hygrometer's file. */
function RoomRecord() {
  const controller = useController();
  const record = useBench((s) => s.build.room.record);
  const start = useBench((s) => s.build.brief.startDate);
  const [notes, setNotes] = useState<readonly string[]>([]);
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  const client = useRef<DryingClient | null>(null);
  useEffect(() => () => client.current?.stop(), []);
  const read = async (file: File) => {
    setWrong('');
    setNotes([]);
    if (file.size > 80_000_000) {
      setWrong('A record is at most 80 MB.');
      return;
    }
    setBusy(true);
    const text = await file.text();
    client.current = dryingClient((answer) => {
      if (answer.kind === 'refused') setWrong(`${answer.why.path}: ${answer.why.message}.`);
      else if (answer.kind === 'record') {
        const { from, stepHours, temperature, relativeHumidity } = answer.record;
        const startsAt = Math.round(((from - secondsOf(start)) / 3600) * 4) / 4;
        const refused = controller.edit({
          label: `Room record: ${file.name}`,
          changes: [
            {
              path: ['room', 'record'],
              value: {
                name: file.name.slice(0, 120),
                startsAt: Math.min(19_999, Math.max(-19_999, startsAt)),
                stepHours,
                temperature,
                relativeHumidity,
              },
            },
          ],
        });
        if (refused) setWrong(refused.message);
        const within = startsAt < 24 * 90 && startsAt + temperature.length * stepHours > 0;
        setNotes([
          ...answer.record.notes,
          ...(within
            ? []
            : [
                'None of it lies in the days of this build: move the record to its start, or change the day the clay goes on.',
              ]),
        ]);
      } else if (answer.kind === 'done') setBusy(false);
    });
    client.current.ask({ kind: 'record', text });
  };
  return (
    <div className="mt-2">
      <Form.Group controlId="room-record" className="field">
        <Form.Label>Record of a hygrometer (CSV)</Form.Label>
        <Form.Control
          size="sm"
          type="file"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          disabled={busy}
          onChange={(e) => {
            const file = (e.target as HTMLInputElement).files?.[0];
            if (file) void read(file);
          }}
        />
      </Form.Group>
      {busy && (
        <p className="muted small" role="status">
          Reading …
        </p>
      )}
      {wrong && <p className="wrong">{wrong}</p>}
      {notes.length > 0 && (
        <ul className="small muted">
          {notes.map((n) => (
            <li key={n}>{n}</li>
          ))}
        </ul>
      )}
      {record && (
        <p className="small">
          {record.name}: {record.temperature.length} hours, from {sensible(Math.min(...record.temperature), 3)} to{' '}
          {sensible(Math.max(...record.temperature), 3)} °C and{' '}
          {sensible(Math.min(...record.relativeHumidity) * 100, 2)} to{' '}
          {sensible(Math.max(...record.relativeHumidity) * 100, 2)} %.{' '}
          {(record.startsAt > 24 * 90 || record.startsAt + record.temperature.length < 0) && (
            <Button
              size="sm"
              variant="quiet"
              onClick={() =>
                controller.edit({
                  label: 'Record moved to the start',
                  changes: [{ path: ['room', 'record', 'startsAt'], value: 0 }],
                })
              }
            >
              Use it as if it began on that day
            </Button>
          )}{' '}
          <Button
            size="sm"
            variant="quiet"
            onClick={() =>
              controller.edit({ label: 'Room record taken away', changes: [{ path: ['room', 'record'], value: null }] })
            }
          >
            Take it away
          </Button>
        </p>
      )}
    </div>
  );
}

/** What earlier builds taught of clays in rooms. */
function LearnedChoice() {
  const controller = useController();
  const learned = useBench((s) => s.build.room.learned);
  const clay = useBench((s) => s.build.brief.clay);
  const [list, setList] = useState<readonly Learned[]>([]);
  useEffect(() => {
    let gone = false;
    fetch('/api/learned')
      .then((r) => (r.ok ? (r.json() as Promise<Learned[]>) : []))
      .then((l) => {
        if (!gone) setList(l);
      })
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [learned]);
  const fitting = list.filter((l) => l.clay === clay);
  if (fitting.length === 0 && !learned) return null;
  const choices = [
    { id: '', name: 'the catalogue’s figures' },
    ...[...fitting, ...(learned && !fitting.some((l) => l.name === learned.name) ? [learned] : [])].map((l) => ({
      id: l.name,
      name: l.name,
    })),
  ];
  return (
    <ChoiceInput
      label="How fast it dries"
      value={learned?.name ?? ''}
      choices={choices}
      hint={
        learned
          ? `Learned by weighing: water leaves at ${sensible(learned.evaporation * 100, 3)} % of what the tables say, and moves inside at ${sensible(learned.diffusion * 100, 3)} %.${learned.clay === clay ? '' : ' It was another clay, and is not used.'}`
          : undefined
      }
      onChoose={(name) =>
        controller.edit({
          label: name ? `As learned: ${name}` : 'The catalogue’s figures',
          changes: [
            { path: ['room', 'learned'], value: name ? (fitting.find((l) => l.name === name) ?? learned) : null },
          ],
        })?.message ?? null
      }
    />
  );
}

export function Covers() {
  const controller = useController();
  const covers = useBench((s) => s.build.room.covers);
  const regions = useBench((s) => s.report?.regions) ?? [];
  const set = (next: readonly CoverSpell[], label: string) =>
    controller.edit({ label, changes: [{ path: ['room', 'covers'], value: next }] })?.message ?? null;
  const change = (i: number, by: Partial<CoverSpell>) =>
    set(
      covers.map((c, k) => (k === i ? { ...c, ...by } : c)),
      'Cover changed',
    );
  const kinds = coverKinds.filter((c) => c.id !== 'none');
  return (
    <>
      <h3>Covered</h3>
      {covers.length === 0 && <p className="muted small">Nothing lies over it.</p>}
      {covers.map((c, i) => (
        <fieldset key={i} className="lined">
          <legend className="h6">{kinds.find((k) => k.id === c.kind)?.name ?? c.kind}</legend>
          <div className="pairs">
            <ChoiceInput
              label="Covered with"
              value={c.kind}
              choices={kinds}
              onChoose={(kind) => change(i, { kind: kind as CoverSpell['kind'] })}
            />
            <ChoiceInput
              label="Over"
              value={c.regions[0] ?? ''}
              choices={[{ id: '', name: 'all of it' }, ...regions.map((r) => ({ id: r.id, name: r.name }))]}
              onChoose={(r) => change(i, { regions: r ? [r] : [] })}
            />
            <QuantityInput
              label="Put on after"
              kind="hours"
              value={c.from}
              onCommit={(v) => (v === null ? 'Hours after the clay.' : change(i, { from: v }))}
            />
            <QuantityInput
              label="Cover comes off after"
              kind="hours"
              optional
              placeholder="it stays"
              value={c.until}
              onCommit={(v) => change(i, { until: v })}
            />
          </div>
          <Button
            size="sm"
            variant="quiet"
            onClick={() =>
              set(
                covers.filter((_, k) => k !== i),
                'Cover taken away',
              )
            }
          >
            Take it away
          </Button>
        </fieldset>
      ))}
      <Button
        size="sm"
        variant="quiet"
        onClick={() =>
          set([...covers, { kind: 'loose-plastic', from: 0, until: 48, regions: [] }], 'Covered in loose plastic')
        }
      >
        Add a cover
      </Button>
    </>
  );
}

const waitWords = [
  { id: 'touch-dry', name: 'touch-dry' },
  { id: 'leather-hard', name: 'leather-hard' },
  { id: 'through-dry', name: 'dry through' },
];

export function Handling() {
  const controller = useController();
  const stages = useBench((s) => s.build.stages);
  const starts = useBench((s) => s.report?.laying.starts) ?? [];
  const set = (by: Partial<Stages>, label: string) =>
    controller.edit({ label, changes: Object.entries(by).map(([k, value]) => ({ path: ['stages', k], value })) })
      ?.message ?? null;
  return (
    <>
      <h3>What is done with it</h3>
      {starts.slice(0, -1).map((s, i) => {
        const wait = stages.waits[i] ?? { until: 'through-dry' as const, hours: 0 };
        const put = (by: Partial<typeof wait>) =>
          set(
            {
              waits: Array.from({ length: Math.max(stages.waits.length, i + 1) }, (_, k) =>
                k === i ? { ...wait, ...by } : (stages.waits[k] ?? { until: 'through-dry', hours: 0 }),
              ),
            },
            `Wait after stage ${s.stage}`,
          );
        return (
          <div className="pairs" key={s.stage}>
            <ChoiceInput
              label={`After stage ${s.stage} wait until`}
              value={wait.until}
              choices={waitWords}
              onChoose={(until) => put({ until: until as typeof wait.until })}
            />
            <QuantityInput label="and then" kind="hours" value={wait.hours} onCommit={(v) => put({ hours: v ?? 0 })} />
          </div>
        );
      })}
      <div className="pairs">
        <ChoiceInput
          label="Lifted off its form"
          value={stages.lift?.when ?? ''}
          choices={[
            { id: '', name: 'it stays on' },
            { id: 'leather-hard', name: 'when leather-hard' },
            { id: 'touch-dry', name: 'when touch-dry' },
            { id: 'hours', name: 'after hours of its own' },
          ]}
          onChoose={(when) =>
            set(
              { lift: when ? { when: when as 'hours', hours: when === 'hours' ? 12 : 0 } : null },
              when ? 'Lifted off its form' : 'Left on its form',
            )
          }
        />
        {stages.lift && (
          <QuantityInput
            label={stages.lift.when === 'hours' ? 'Hours after the clay' : 'Hours later'}
            kind="hours"
            value={stages.lift.hours}
            onCommit={(v) =>
              set({ lift: { when: stages.lift?.when ?? 'hours', hours: v ?? 0 } }, 'When it is lifted off')
            }
          />
        )}
        <YesNoAt label="A film on the form lets it slip" path={['stages', 'film']} fallback={false} />
        <YesNoAt label="Sections clad and dried apart" path={['stages', 'apart']} fallback={false} />
        <ChoiceInput
          label="Cut in halves"
          value={stages.split?.across ?? ''}
          choices={[
            { id: '', name: 'it stays whole' },
            { id: 'left-right', name: 'left from right' },
            { id: 'front-back', name: 'front from back' },
          ]}
          onChoose={(across) =>
            set(
              { split: across ? { across: across as 'left-right', from: 24, until: 96 } : null },
              across ? 'Cut in halves' : 'Left whole',
            )
          }
        />
        {stages.split && (
          <>
            <QuantityInput
              label="Cut after"
              kind="hours"
              value={stages.split.from}
              onCommit={(v) =>
                stages.split ? set({ split: { ...stages.split, from: v ?? 0 } }, 'When it is cut') : null
              }
            />
            <QuantityInput
              label="Joined again after"
              kind="hours"
              value={stages.split.until}
              onCommit={(v) =>
                stages.split ? set({ split: { ...stages.split, until: v ?? 0 } }, 'When it is joined') : null
              }
            />
          </>
        )}
      </div>
      {stages.turns.map((t, i) => (
        <div className="pairs" key={i}>
          <QuantityInput
            label="Turned after"
            kind="hours"
            value={t.at}
            onCommit={(v) =>
              set({ turns: stages.turns.map((x, k) => (k === i ? { ...x, at: v ?? 0 } : x)) }, 'When it is turned')
            }
          />
          <ChoiceInput
            label="It lies"
            value={t.lying}
            choices={lyingWays}
            onChoose={(lying) =>
              set(
                {
                  turns:
                    lying === 'away'
                      ? []
                      : stages.turns.map((x, k) => (k === i ? { ...x, lying: lying as typeof t.lying } : x)),
                },
                'How it lies',
              )
            }
          />
          <div className="beside">
            <Button
              size="sm"
              variant="quiet"
              onClick={() => set({ turns: stages.turns.filter((_, k) => k !== i) }, 'Not turned')}
            >
              Take this turn away
            </Button>
          </div>
        </div>
      ))}
      <Button
        size="sm"
        variant="quiet"
        onClick={() => set({ turns: [...stages.turns, { at: 24, lying: 'back' }] }, 'Turned on its back')}
      >
        Turn it
      </Button>
    </>
  );
}
