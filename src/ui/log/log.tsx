'use client';
import dynamic from 'next/dynamic';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Button, ButtonGroup, Form } from 'react-bootstrap';
import { formatDate, formatLength, formatMass, formatTemperature, parseLength, parseMass, sensible } from '../../core/quantity';
import { useBench, useController } from '../bench/context';
import { call } from '../parts/http';
import { effectiveLog, type ReadEntry } from './effective';
import { RepairAdvice } from './crack';
import { Devices } from './devices';
import { useFit, WhatTheScaleSays } from './weighing';
import { logEntry, sendWaiting, waitingEntries, type LogEntry } from './outbox';

const ForecastChart = dynamic(() => import('./forecast-chart'), { ssr: false, loading: () => <div style={{ height: 280 }} className="muted">Drawing …</div> });

type Kind = 'weigh-in' | 'shrink-mark' | 'crack' | 'photo' | 'note';
const kinds: readonly { id: Kind; name: string }[] = [{ id: 'weigh-in', name: 'Weigh' }, { id: 'shrink-mark', name: 'Shrinkage' }, { id: 'crack', name: 'Crack' }, { id: 'photo', name: 'Photo' }, { id: 'note', name: 'Note' }];

function useLog(buildId: string) {
  const [entries, setEntries] = useState<LogEntry[] | null>(null);
  const [waiting, setWaiting] = useState(0);
  const load = useCallback(async () => {
    const answer = await call<LogEntry[]>('GET', `/api/builds/${buildId}/log`);
    const outbox = waitingEntries(buildId);
    setWaiting(outbox.length);
    setEntries((old) => (answer.ok ? [...answer.value, ...outbox.filter((w) => !answer.value.some((e) => e.id === w.id))] : [...(old ?? []).filter((e) => !outbox.some((w) => w.id === e.id)), ...outbox]));
  }, [buildId]);
  useEffect(() => {
    void load();
    const again = () => void sendWaiting(buildId).then(load);
    window.addEventListener('online', again);
    const timer = setInterval(() => {
      if (waitingEntries(buildId).length > 0) again();
    }, 5000);
    return () => {
      window.removeEventListener('online', again);
      clearInterval(timer);
    };
  }, [buildId, load]);
  return { entries, waiting, load };
}

interface Draft {
  readonly kind: Kind;
  readonly first: string;
  readonly second: string;
  readonly text: string;
  readonly corrects: string | null;
}

function emptyDraft(kind: Kind, tare: string): Draft {
  return { kind, first: '', second: kind === 'weigh-in' ? tare : '', text: '', corrects: null };
}

/** Reads the draft into log data, or says what is wrong with it. */
function readDraft(d: Draft, units: 'metric' | 'imperial'): { data: Record<string, unknown> } | { wrong: string } {
  if (d.kind === 'note') return d.text.trim() === '' ? { wrong: 'Write something first.' } : { data: { text: d.text } };
  if (d.kind === 'weigh-in') {
    const bare = units === 'imperial' ? 'lb' : 'kg';
    const gross = parseMass(d.first, bare), tare = parseMass(d.second === '' ? '0' : d.second, bare);
    if (!gross.ok) return { wrong: gross.message };
    if (!tare.ok) return { wrong: tare.message };
    if (gross.value < tare.value) return { wrong: 'The scale shows less than the tare: check both.' };
    if (gross.value > 5000 || tare.value < 0) return { wrong: 'That is no weight a bench holds.' };
    return { data: { gross: gross.value, tare: tare.value } };
  }
  const bare = units === 'imperial' ? 'in' : 'mm';
  if (d.kind === 'crack') {
    const width = parseLength(d.first, bare);
    if (!width.ok) return { wrong: width.message };
    if (d.text.trim() === '') return { wrong: 'Say where on the piece it is.' };
    if (!(width.value >= 0 && width.value <= 0.1)) return { wrong: 'A crack is at most 100 mm wide.' };
    return { data: { where: d.text.trim(), width: width.value, through: d.second === 'through' } };
  }
  const laid = parseLength(d.first, bare), now = parseLength(d.second, bare);
  if (!laid.ok) return { wrong: laid.message };
  if (!now.ok) return { wrong: now.message };
  if (!(laid.value > 0 && now.value > 0 && now.value <= laid.value * 1.1)) return { wrong: 'Marks come closer as clay dries: check both lengths.' };
  return { data: { laid: laid.value, now: now.value, where: d.text } };
}

/** Day and clock of this machine. */
function whenWords(at: string): string {
  const date = new Date(at);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${formatDate(`${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`)}, ${two(date.getHours())}:${two(date.getMinutes())}`;
}

function EntryWords({ entry, buildId }: { entry: ReadEntry; buildId: string }) {
  const units = useBench((s) => s.units);
  const d = entry.data;
  if (entry.kind === 'weigh-in') {
    const gross = Number(d['gross']), tare = Number(d['tare']);
    return <><span className="reading">{formatMass(gross - tare, units)}</span> <span className="muted">{formatMass(gross, units)} on the scale, tare {formatMass(tare, units)}</span></>;
  }
  if (entry.kind === 'shrink-mark') {
    const laid = Number(d['laid']), now = Number(d['now']);
    return <><span className="reading">{sensible((1 - now / laid) * 100, 2)} % shorter</span> <span className="muted">{formatLength(laid, units)} → {formatLength(now, units)}{d['where'] ? `, ${String(d['where'])}` : ''}</span></>;
  }
  if (entry.kind === 'crack') return <><span className="reading">Crack at the {String(d['where'])}</span> <span className="muted">{formatLength(Number(d['width']), units)} wide{d['through'] === true ? ', right through' : ''}</span></>;
  if (entry.kind === 'room') return <><span className="reading">{formatTemperature(Number(d['temperature']), units)} · {sensible(Number(d['relativeHumidity']) * 100, 3)} %</span> <span className="muted">the room</span></>;
  if (entry.kind === 'photo') {
    return <><div>{String(d['caption'] ?? '')}</div><img src={`/api/builds/${buildId}/photos/${String(d['photoId'])}`} alt={String(d['caption'] || 'Photo from the bench')} /></>;
  }
  return <span>{String(d['text'] ?? '')}</span>;
}

export default function LogStation() {
  const { id } = useController();
  const units = useBench((s) => s.units);
  const board = useBench((s) => s.report?.ledger.items.filter((i) => i.kind === 'base').reduce((sum, i) => sum + i.wet, 0) ?? 0);
  const regionNames = useBench((s) => s.report?.regions);
  const places = (regionNames ?? []).map((r) => r.name);
  const { entries, waiting, load } = useLog(id);
  const [draft, setDraft] = useState<Draft>(emptyDraft('weigh-in', ''));
  const [file, setFile] = useState<File | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const read = useMemo(() => effectiveLog(entries ?? []), [entries]);
  const fitted = useFit(read);
  const lastTare = [...read].reverse().find((e) => e.kind === 'weigh-in' && !e.struck)?.data['tare'];
  const tareHint = formatMass(typeof lastTare === 'number' ? lastTare : board, units);
  const choose = (kind: Kind) => {
    setDraft(emptyDraft(kind, tareHint));
    setWrong(null);
  };
  const send = async (kind: LogEntry['kind'], data: Record<string, unknown>, corrects: string | null) => {
    setBusy(true);
    const refused = await logEntry(id, { id: crypto.randomUUID(), kind, at: new Date().toISOString(), data, corrects });
    setBusy(false);
    setWrong(refused);
    if (refused === null) {
      setDraft(emptyDraft(draft.kind, draft.second || tareHint));
      await load();
    }
  };
  const record = async () => {
    if (draft.kind === 'photo') {
      if (!file) {
        setWrong('Choose a picture first.');
        return;
      }
      setBusy(true);
      const photoId = crypto.randomUUID();
      const answer = await call('POST', `/api/builds/${id}/photos/${photoId}`, file);
      setBusy(false);
      if (!answer.ok) {
        setWrong(answer.message);
        return;
      }
      setFile(null);
      await send('photo', { photoId, caption: draft.text }, null);
      return;
    }
    const tare = draft.kind === 'weigh-in' && draft.second === '' ? { ...draft, second: tareHint } : draft;
    const ready = readDraft(tare, units);
    if ('wrong' in ready) setWrong(ready.wrong);
    else await send(draft.kind, ready.data, draft.corrects);
  };
  const correct = (e: ReadEntry) => {
    setWrong(null);
    if (e.kind === 'weigh-in') setDraft({ kind: 'weigh-in', first: formatMass(Number(e.data['gross']), units), second: formatMass(Number(e.data['tare']), units), text: '', corrects: e.id });
    else if (e.kind === 'shrink-mark') setDraft({ kind: 'shrink-mark', first: formatLength(Number(e.data['laid']), units), second: formatLength(Number(e.data['now']), units), text: String(e.data['where'] ?? ''), corrects: e.id });
    else if (e.kind === 'crack') setDraft({ kind: 'crack', first: formatLength(Number(e.data['width']), units), second: e.data['through'] === true ? 'through' : '', text: String(e.data['where'] ?? ''), corrects: e.id });
    else if (e.kind === 'note') setDraft({ kind: 'note', first: '', second: '', text: String(e.data['text'] ?? ''), corrects: e.id });
    document.getElementById('log-first')?.focus();
  };
  return (
    <section className="log" aria-label="Bench log">
      <div>
        <h2>Bench log</h2>
        <Devices buildId={id} tare={typeof lastTare === 'number' ? lastTare : board} busy={busy} onTake={(kind, data) => void send(kind, data, null)} />
        <ButtonGroup className="kinds w-100" aria-label="What to log">
          {kinds.map((k) => <Button key={k.id} variant="quiet" active={draft.kind === k.id} aria-pressed={draft.kind === k.id} onClick={() => choose(k.id)}>{k.name}</Button>)}
        </ButtonGroup>
        <Form onSubmit={(e) => { e.preventDefault(); void record(); }}>
          {draft.corrects && <p className="muted">Correcting an earlier entry. The old one stays readable, struck out. <Button size="sm" variant="quiet" onClick={() => choose(draft.kind)}>Leave it</Button></p>}
          {draft.kind === 'weigh-in' && (
            <div className="pairs">
              <div className="field"><label htmlFor="log-first">On the scale</label><Form.Control id="log-first" className="big" inputMode="decimal" autoComplete="off" value={draft.first} onChange={(e) => setDraft({ ...draft, first: e.target.value })} placeholder={units === 'metric' ? '6.85' : '15 lb 2 oz'} /></div>
              <div className="field"><label htmlFor="log-second">Tare: board, stand</label><Form.Control id="log-second" className="big" inputMode="decimal" autoComplete="off" value={draft.second} onChange={(e) => setDraft({ ...draft, second: e.target.value })} placeholder={tareHint} /></div>
            </div>
          )}
          {draft.kind === 'shrink-mark' && (
            <>
              <div className="pairs">
                <div className="field"><label htmlFor="log-first">Between the marks, as laid</label><Form.Control id="log-first" className="big" autoComplete="off" value={draft.first} onChange={(e) => setDraft({ ...draft, first: e.target.value })} placeholder={units === 'metric' ? '100 mm' : '4 in'} /></div>
                <div className="field"><label htmlFor="log-second">Now</label><Form.Control id="log-second" className="big" autoComplete="off" value={draft.second} onChange={(e) => setDraft({ ...draft, second: e.target.value })} placeholder={units === 'metric' ? '96.5' : '3 7/8'} /></div>
              </div>
              <div className="field"><label htmlFor="log-where">Where on the piece</label><Form.Control id="log-where" value={draft.text} maxLength={80} onChange={(e) => setDraft({ ...draft, text: e.target.value })} /></div>
            </>
          )}
          {draft.kind === 'crack' && (
            <>
              <div className="pairs">
                <div className="field"><label htmlFor="log-first">How wide</label><Form.Control id="log-first" className="big" autoComplete="off" value={draft.first} onChange={(e) => setDraft({ ...draft, first: e.target.value })} placeholder={units === 'metric' ? '0.5 mm' : '1/64 in'} /></div>
                <div className="field"><span className="label">&nbsp;</span><Form.Check id="log-through" type="checkbox" label="It goes right through" checked={draft.second === 'through'} onChange={(e) => setDraft({ ...draft, second: e.target.checked ? 'through' : '' })} /></div>
              </div>
              <div className="field"><label htmlFor="log-where">Where on the piece</label><Form.Control id="log-where" list="log-places" value={draft.text} maxLength={80} onChange={(e) => setDraft({ ...draft, text: e.target.value })} /><datalist id="log-places">{places.map((p) => <option key={p} value={p} />)}</datalist></div>
            </>
          )}
          {draft.kind === 'photo' && (
            <>
              <div className="field"><label htmlFor="log-first">Picture</label><Form.Control id="log-first" className="big" type="file" accept="image/jpeg,image/png,image/webp" capture="environment" onChange={(e) => setFile((e.target as HTMLInputElement).files?.[0] ?? null)} /></div>
              <div className="field"><label htmlFor="log-where">What it shows</label><Form.Control id="log-where" value={draft.text} maxLength={300} onChange={(e) => setDraft({ ...draft, text: e.target.value })} /></div>
            </>
          )}
          {draft.kind === 'note' && <div className="field"><label htmlFor="log-first">Note</label><Form.Control id="log-first" as="textarea" rows={4} value={draft.text} maxLength={4000} onChange={(e) => setDraft({ ...draft, text: e.target.value })} /></div>}
          {wrong && <p className="wrong status-fails" role="alert">{wrong}</p>}
          <Button type="submit" variant="iron" className="big w-100" disabled={busy}>{draft.corrects ? 'Put it right' : draft.kind === 'weigh-in' ? 'Log the weight' : 'Log it'}</Button>
        </Form>
        {waiting > 0 && <p className="muted mt-2" role="status">{waiting} waiting for the connection; nothing is lost.</p>}
        <p className="muted small mt-3 mb-0">Weigh with the same board on the scale each time. The tare takes it off.</p>
      </div>
      <div>
        <h3 className="mt-0 border-0 pt-0">Forecast and readings</h3>
        <ForecastChart entries={read} fit={fitted.report} />
        <WhatTheScaleSays entries={read} fitted={fitted} />
        <RepairAdvice entries={read} start={fitted.start} />
        <h3>Entries</h3>
        {entries === null ? <p className="muted">Reading …</p> : read.length === 0 ? (
          <p>Nothing yet. The first weighing, as soon as the clay is on, is worth the most: everything later is read against it.</p>
        ) : (
          <ul className="entries">
            {[...read].reverse().map((e) => (
              <li key={e.id}>
                <div className={e.struck ? 'struck' : ''}>
                  <div className="when">{whenWords(e.at)}{e.struck ? ', put right later' : e.corrects ? ', a correction' : ''}</div>
                  <EntryWords entry={e} buildId={id} />
                </div>
                {!e.struck && (
                  <div className="d-flex gap-1">
                    {e.kind !== 'photo' && e.kind !== 'room' && <Button size="sm" variant="quiet" onClick={() => correct(e)} aria-label={`Correct the entry of ${whenWords(e.at)}`}>Correct</Button>}
                    <Button size="sm" variant="quiet" disabled={busy} onClick={() => void send('void', {}, e.id)} aria-label={`Strike out the entry of ${whenWords(e.at)}`}>Strike</Button>
                  </div>
                )}
              </li>
            ))}
          </ul>
        )}
      </div>
    </section>
  );
}
