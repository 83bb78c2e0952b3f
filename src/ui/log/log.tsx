'use client';
import dynamic from 'next/dynamic';
import { useEffect, useMemo, useState } from 'react';
import { Button, ButtonGroup, Form } from 'react-bootstrap';
import {
  effectiveLog,
  handWritten,
  kindOf,
  openDamage,
  roomAsItIs,
  tareToOffer,
  type DraftContext,
  type DraftValues,
  type LogKind,
  type ReadEntry,
  pictureOf,
} from '../../core/log';
import { clayLeft, type StockLine } from '../../core/plan';
import { formatMass } from '../../core/quantity';
import { useBench, useController } from '../bench/context';
import { call } from '../parts/http';
import { newId } from '../parts/ids';
import { useInUse } from '../parts/in-use';
import { useFeed } from '../session/feed';
import { logEntry, newEntry } from '../session/outbox';
import { RepairAdvice } from './crack';
import { Devices } from './devices';
import { EntryFields } from './entry-form';
import { BeforeTheClay } from './before-the-clay';
import { shrinkPicture } from './shrink-picture';
import { ForecastAndFact, Timeline } from './timeline';
import { localTime, timeOfField } from './when';
import { WhatTheScaleSays } from './weighing';

const ForecastChart = dynamic(() => import('./forecast-chart'), {
  ssr: false,
  loading: () => (
    <div style={{ height: 280 }} className="muted">
      Drawing …
    </div>
  ),
});

/** What this build uses, for saying how much of it went. */
function useItems(buildId: string, wanted: boolean): DraftContext['items'] {
  const [items, setItems] = useState<DraftContext['items']>([]);
  useEffect(() => {
    if (!wanted) return;
    void call<{ lines: readonly StockLine[] }>('GET', '/api/stock').then((a) => {
      if (a.ok)
        setItems(
          a.value.lines
            .filter((l) => l.onShelf > 0 || l.reserved.some((r) => r.build === buildId))
            .map(({ item, name, unit }) => ({ item, name, unit })),
        );
    });
  }, [buildId, wanted]);
  return items;
}

interface Draft {
  readonly kind: LogKind;
  readonly values: DraftValues;
  /** As the field shows it; empty for now. */
  readonly at: string;
  readonly corrects: string | null;
}
const empty = (kind: LogKind): Draft => ({ kind, values: {}, at: '', corrects: null });

export default function LogStation() {
  const controller = useController();
  const { id } = controller;
  const units = useBench((s) => s.units);
  const build = useBench((s) => s.build);
  const report = useBench((s) => s.report);
  const board = report?.ledger.items.filter((i) => i.kind === 'base').reduce((sum, i) => sum + i.wet, 0) ?? 0;
  const places = (report?.regions ?? []).map((r) => r.name);
  const { log } = useFeed();
  const { entries, latest, waiting, load } = log;
  const whole = entries !== null;
  const inUse = useInUse();
  const [draft, setDraft] = useState<Draft>(empty('weigh-in'));
  const [file, setFile] = useState<File | null>(null);
  // Each entry has fields of its own: one for a file cannot be emptied.
  const [fields, setFields] = useState(0);
  const freshFields = () => {
    setFile(null);
    setFields((n) => n + 1);
  };
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const read = useMemo(() => effectiveLog(entries ?? latest.entries), [entries, latest]);
  const items = useItems(id, draft.kind === 'used');
  const context: DraftContext = {
    units,
    tare: tareToOffer(read, Math.round(board * 1000) / 1000),
    room: roomAsItIs(build.room),
    // Part of a step is a part of what is left of it.
    steps: (report?.plan?.steps ?? [])
      .filter((s) => !s.done)
      .map((s) => (draft.kind === 'part' ? { ...s, hours: s.takes, clay: clayLeft(s) } : s)),
    items,
    damage: openDamage(read).map((e) => ({ id: e.id, where: e.data.where })),
  };
  const pending = waiting.filter((w) => w.refused === null).length;
  const kind = kindOf(draft.kind);
  const choose = (next: LogKind) => {
    setDraft(empty(next));
    freshFields();
    setWrong(null);
    controller.pickFor(null);
  };
  const send = async (of: LogKind, data: object, at: string | null, corrects: string | null, picture: Blob | null) => {
    setBusy(true);
    const refused = await logEntry(id, newEntry(of, data, at, corrects), picture);
    setBusy(false);
    setWrong(refused);
    if (refused === null) {
      // The tare that was used stays for the next weighing.
      setDraft({ ...empty(draft.kind), values: { tare: draft.values['tare'] ?? '' } });
      freshFields();
      controller.pickFor(null);
      controller.setDamageAt(null);
      await load();
    }
  };
  const record = async () => {
    const at = timeOfField(draft.at, Date.now());
    if (!at.ok) return setWrong(at.message);
    const ready = kind.read(draft.values, context);
    if (!ready.ok) return setWrong(ready.message);
    const data = ready.value as object;
    const takesPicture = kind.fields.some((f) => f.ask === 'picture');
    if (takesPicture && file) {
      setBusy(true);
      return send(draft.kind, { ...data, photoId: newId() }, at.value, draft.corrects, await shrinkPicture(file));
    }
    if (draft.kind === 'photo') return setWrong('Choose a picture first.');
    // Put right without a new picture, it keeps the one it had.
    const before = read.find((e) => e.id === draft.corrects);
    const photoId = before && takesPicture ? pictureOf(before) : null;
    return send(draft.kind, photoId ? { ...data, photoId } : data, at.value, draft.corrects, null);
  };
  const correct = (e: ReadEntry) => {
    const of = kindOf(e.kind);
    if (!of.fill) return;
    setDraft({ kind: e.kind, values: of.fill(e.data, units), at: localTime(e.at), corrects: e.id });
    freshFields();
    setWrong(null);
    // When its fields are there.
    setTimeout(() => document.getElementById(`log-${of.fields[0]?.key ?? ''}`)?.focus());
  };
  return (
    <section className="log" aria-label="Bench log">
      <fieldset disabled={!inUse}>
        <h2>Bench log</h2>
        <p className="mb-2">
          <a className="btn btn-quiet big w-100" href={`/build/${id}/tonight`}>
            Bench card: what to do, and clocks
          </a>
        </p>
        <Devices
          buildId={id}
          tare={context.tare}
          busy={busy}
          onTake={(of, data) => void send(of, { ...data, room: context.room }, null, null, null)}
        />
        <ButtonGroup className="kinds w-100" aria-label="What to log">
          {handWritten.map((k) => (
            <Button
              key={k.id}
              variant="quiet"
              active={draft.kind === k.id}
              aria-pressed={draft.kind === k.id}
              onClick={() => choose(k.id as LogKind)}
            >
              {k.name}
            </Button>
          ))}
        </ButtonGroup>
        <Form
          onSubmit={(e) => {
            e.preventDefault();
            void record();
          }}
        >
          {draft.corrects && (
            <p className="muted">
              Correcting an earlier entry. The old one stays readable, struck out.{' '}
              <Button size="sm" variant="quiet" onClick={() => choose(draft.kind)}>
                Leave it
              </Button>
            </p>
          )}
          <EntryFields
            key={fields}
            kind={kind}
            values={draft.values}
            context={context}
            places={places}
            onChange={(values) => setDraft({ ...draft, values })}
            onFile={setFile}
          />
          <div className="field">
            <label htmlFor="log-when">When it was</label>
            <Form.Control
              id="log-when"
              type="datetime-local"
              value={draft.at}
              max={localTime(new Date().toISOString())}
              onChange={(e) => setDraft({ ...draft, at: e.target.value })}
            />
            <p className="small muted mb-0">Left empty, it is now. Notes on paper can come in later.</p>
          </div>
          {wrong && (
            <p className="wrong status-fails" role="alert">
              {wrong}
            </p>
          )}
          <Button type="submit" variant="iron" className="big w-100" disabled={busy}>
            {draft.corrects ? 'Put it right' : draft.kind === 'weigh-in' ? 'Log the weight' : 'Log it'}
          </Button>
        </Form>
        {pending > 0 && (
          <p className="muted mt-2" role="status">
            {pending} waiting for the connection; nothing is lost.
          </p>
        )}
        <p className="muted small mt-3 mb-0">
          Weigh with the same board on the scale each time. The tare, {formatMass(context.tare, units)}, takes it off.
        </p>
      </fieldset>
      <div>
        <h3 className="mt-0 border-0 pt-0">Forecast and readings</h3>
        <ForecastChart />
        <BeforeTheClay onStrike={(e) => void send('void', {}, null, e.id, null)} onCorrect={correct} />
        <WhatTheScaleSays />
        {whole && <RepairAdvice entries={read} />}
        {whole && <ForecastAndFact entries={read} />}
        <Timeline
          key={whole ? 'whole' : 'latest'}
          entries={read}
          unread={whole ? 0 : latest.count - latest.entries.length}
          waiting={waiting}
          buildId={id}
          busy={busy || !inUse}
          onCorrect={correct}
          onStrike={(e) => void send('void', {}, null, e.id, null)}
          onChanged={() => void load()}
        />
      </div>
    </section>
  );
}
