'use client';
import dynamic from 'next/dynamic';
import { useEffect, useMemo, useState } from 'react';
import { Button, ButtonGroup, Form } from 'react-bootstrap';
import { effectiveLog, type LogKind, type ReadEntry, type StockLine } from '../../core/plan';
import { formatLength, formatMass } from '../../core/quantity';
import { useBench, useController } from '../bench/context';
import { call } from '../parts/http';
import { usePlan } from '../plan/use-plan';
import { RepairAdvice } from './crack';
import { Devices } from './devices';
import { emptyDraft, logForms, readDraft, type Draft, type DraftLists, type FormKind } from './drafts';
import { EntryFields } from './entry-form';
import { logEntry } from './outbox';
import { shrinkPicture } from './shrink-picture';
import { ForecastAndFact, Timeline } from './timeline';
import { useLog } from './use-log';
import { useFit, WhatTheScaleSays } from './weighing';

const ForecastChart = dynamic(() => import('./forecast-chart'), {
  ssr: false,
  loading: () => (
    <div style={{ height: 280 }} className="muted">
      Drawing …
    </div>
  ),
});

/** What this build uses, for saying how much of it went. */
function useItems(buildId: string, wanted: boolean): DraftLists['items'] {
  const [items, setItems] = useState<DraftLists['items']>([]);
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

export default function LogStation() {
  const controller = useController();
  const { id } = controller;
  const units = useBench((s) => s.units);
  const build = useBench((s) => s.build);
  const board = useBench(
    (s) => s.report?.ledger.items.filter((i) => i.kind === 'base').reduce((sum, i) => sum + i.wet, 0) ?? 0,
  );
  const regionNames = useBench((s) => s.report?.regions);
  const places = (regionNames ?? []).map((r) => r.name);
  const { entries, waiting, load } = useLog(id);
  const [draft, setDraft] = useState<Draft>(emptyDraft('weigh-in', ''));
  const [file, setFile] = useState<File | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const read = useMemo(() => effectiveLog(entries ?? []), [entries]);
  const fitted = useFit(read);
  const known = usePlan(id, build, draft.kind === 'step' ? entries : null, false);
  const items = useItems(id, draft.kind === 'used');
  const mended = new Set(read.filter((e) => e.kind === 'repair' && !e.struck).map((e) => e.data['of']));
  const lists: DraftLists = {
    steps: (known.own?.steps ?? []).filter((s) => !s.done),
    items,
    damage: read
      .filter((e) => e.kind === 'crack' && !e.struck && !mended.has(e.id))
      .map((e) => ({ id: e.id, where: String(e.data['where']) })),
  };
  const lastTare = [...read].reverse().find((e) => e.kind === 'weigh-in' && !e.struck)?.data['tare'];
  const tareHint = formatMass(typeof lastTare === 'number' ? lastTare : board, units);
  const pending = waiting.filter((w) => w.refused === null).length;
  const choose = (kind: FormKind) => {
    setDraft(emptyDraft(kind, tareHint));
    setWrong(null);
    controller.pickFor(null);
  };
  const send = async (
    kind: LogKind,
    data: Record<string, unknown>,
    corrects: string | null,
    picture: Blob | null = null,
  ) => {
    setBusy(true);
    const refused = await logEntry(
      id,
      { id: crypto.randomUUID(), kind, at: new Date().toISOString(), data, corrects },
      picture,
    );
    setBusy(false);
    setWrong(refused);
    if (refused === null) {
      setDraft(emptyDraft(draft.kind, draft.second || tareHint));
      setFile(null);
      controller.pickFor(null);
      controller.setDamageAt(null);
      await load();
    }
  };
  const record = async () => {
    const ready = readDraft(
      draft.kind === 'weigh-in' && draft.second === '' ? { ...draft, second: tareHint } : draft,
      units,
      lists,
    );
    if ('wrong' in ready) {
      setWrong(ready.wrong);
      return;
    }
    if (draft.kind !== 'photo') {
      await send(draft.kind, ready.data, draft.corrects);
      return;
    }
    if (!file) {
      setWrong('Choose a picture first.');
      return;
    }
    setBusy(true);
    await send('photo', { ...ready.data, photoId: crypto.randomUUID() }, null, await shrinkPicture(file));
  };
  const correct = (e: ReadEntry) => {
    const d = e.data;
    const of = emptyDraft(e.kind as FormKind, tareHint);
    const filled: Partial<Draft> =
      e.kind === 'weigh-in'
        ? { first: formatMass(Number(d['gross']), units), second: formatMass(Number(d['tare']), units) }
        : e.kind === 'shrink-mark'
          ? {
              first: formatLength(Number(d['laid']), units),
              second: formatLength(Number(d['now']), units),
              text: String(d['where'] ?? ''),
            }
          : e.kind === 'crack'
            ? {
                first: formatLength(Number(d['width']), units),
                text: String(d['where'] ?? ''),
                through: d['through'] === true,
                pick: String(d['what'] ?? 'crack'),
                at: (d['at'] as Draft['at']) ?? null,
              }
            : { text: String(d['text'] ?? '') };
    setDraft({ ...of, ...filled, corrects: e.id });
    setWrong(null);
    document.getElementById('log-first')?.focus();
  };
  return (
    <section className="log" aria-label="Bench log">
      <div>
        <h2>Bench log</h2>
        <p className="mb-2">
          <a className="btn btn-quiet big w-100" href={`/build/${id}/tonight`}>
            Bench card: what to do, and clocks
          </a>
        </p>
        <Devices
          buildId={id}
          tare={typeof lastTare === 'number' ? lastTare : board}
          busy={busy}
          onTake={(kind, data) => void send(kind, data, null)}
        />
        <ButtonGroup className="kinds w-100" aria-label="What to log">
          {logForms.map((k) => (
            <Button
              key={k.id}
              variant="quiet"
              active={draft.kind === k.id}
              aria-pressed={draft.kind === k.id}
              onClick={() => choose(k.id)}
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
            draft={draft}
            units={units}
            lists={lists}
            tareHint={tareHint}
            places={places}
            onChange={setDraft}
            onFile={setFile}
          />
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
          Weigh with the same board on the scale each time. The tare takes it off.
        </p>
      </div>
      <div>
        <h3 className="mt-0 border-0 pt-0">Forecast and readings</h3>
        <ForecastChart entries={read} fit={fitted.report} />
        <WhatTheScaleSays entries={read} fitted={fitted} />
        <RepairAdvice entries={read} start={fitted.start} />
        <ForecastAndFact entries={read} />
        {entries === null ? (
          <p className="muted">Reading …</p>
        ) : (
          <Timeline
            entries={read}
            waiting={waiting}
            buildId={id}
            busy={busy}
            onCorrect={correct}
            onStrike={(e) => void send('void', {}, e.id)}
            onChanged={() => void load()}
          />
        )}
      </div>
    </section>
  );
}
