import Papa from 'papaparse';
import { readRoomRecord, readWhole, writeWhole, type RecordRow, type WholeDrying } from '../core/drying';
import { Evaluator, type Question } from '../core/evaluate';
import { wholePlan, wholeRun, type FullFindings } from '../core/piece';
import type { Failure } from '../core/quantity';
import { optionsOf, questionOf } from './asked';
import type { DryingAnswer, DryingRequest } from './protocol';
import { breathe, serve, type Work } from './serve';

/** A shell over core for long work on drying: tells how far it is, can be paused and taken up again; stopped by ending the worker. */
type On = Work<DryingAnswer>;
type Of<K extends DryingRequest['kind']> = Extract<DryingRequest, { kind: K }>;
const evaluator = new Evaluator();

/** Steps between two looks at the messages: a tenth of a second or so. */
const stride = 48;

interface Dried {
  readonly whole: WholeDrying;
  readonly key: string;
  readonly found: FullFindings;
}

/** `from` and `share`: what part of all the work this is. */
async function dryWhole(
  question: Question,
  step: number | undefined,
  { send, rest }: On,
  from = 0,
  share = 1,
  known?: Parameters<Evaluator['piece']>[1],
): Promise<Dried | Failure> {
  const piece = evaluator.piece(question, known);
  if (!piece.ok) return piece;
  const plan = wholePlan(piece.value, step === undefined ? {} : { step });
  if (!plan.ok) return plan;
  send({ kind: 'progress', done: from, left: NaN });
  await breathe();
  const run = wholeRun(plan.value);
  let worked = 0,
    told = 0;
  for (let begun = performance.now(); !run.work(stride); begun = performance.now()) {
    worked += performance.now() - begun;
    if (performance.now() - told > 150) {
      told = performance.now();
      const left = run.done > 0.01 ? (worked / run.done - worked) / 1000 : NaN;
      send({ kind: 'progress', done: from + share * run.done, left });
      await rest();
    }
  }
  const whole = run.result();
  const found = evaluator.findingsOfFull(question, plan.value.key, whole, known);
  return found.ok ? { whole, key: plan.value.key, found: found.value } : found;
}

async function packed(whole: WholeDrying, key: string): Promise<Uint8Array<ArrayBuffer> | null> {
  if (typeof CompressionStream === 'undefined') return null;
  const stream = new Blob([writeWhole(whole, key)]).stream().pipeThrough(new CompressionStream('gzip'));
  return new Uint8Array(await new Response(stream).arrayBuffer());
}

async function whole(request: Of<'whole'>, on: On): Promise<void> {
  const { send } = on;
  const began = performance.now();
  const dried = await dryWhole(questionOf(request.asked), request.step, on);
  if ('code' in dried) {
    send({ kind: 'refused', why: dried });
    return;
  }
  const seconds = (performance.now() - began) / 1000;
  send({ kind: 'whole', ...dried, seconds, packed: await packed(dried.whole, dried.key) });
}

async function kept({ bytes }: Of<'kept'>, { send }: On): Promise<void> {
  const stream = new Blob([bytes as Uint8Array<ArrayBuffer>]).stream().pipeThrough(new DecompressionStream('gzip'));
  const read = readWhole(new Uint8Array(await new Response(stream).arrayBuffer()));
  if (read.ok) send({ kind: 'whole', ...read.value, found: null, seconds: 0, packed: null });
  else send({ kind: 'refused', why: read });
}

/** Variants of one piece: what its log told stays as it is for the piece itself. */
async function variants(request: Of<'variants'>, on: On): Promise<void> {
  const { send } = on;
  const { asked, builds } = request;
  const own = evaluator.knownOf(questionOf(asked), undefined);
  if (!own.ok) {
    send({ kind: 'refused', why: own });
    return;
  }
  const known = own.value.history;
  for (const [index, build] of builds.entries()) {
    const question: Question = { ...questionOf(asked), build };
    const report = evaluator.evaluate(question, { ...optionsOf(asked), known });
    if (!report.ok) {
      send({ kind: 'refused', why: report });
      continue;
    }
    const { summary, dates } = report.value;
    const regions = report.value.regions
      .filter((r) => r.coats.length > 0)
      .map(({ id, name, crack, throughDry, touchDry }) => ({ id, name, crack, throughDry, touchDry }));
    const row = { index, summary, dates, regions };
    send({ kind: 'variant', row: { ...row, whole: null } });
    await breathe();
    if (!request.whole || regions.length === 0) continue;
    const dried = await dryWhole(question, undefined, on, index / builds.length, 1 / builds.length, { known });
    if ('code' in dried) send({ kind: 'refused', why: dried });
    else send({ kind: 'variant', row: { ...row, whole: dried.whole.regions } });
  }
}

/** Lines keep their own numbers, blank ones and quoted breaks counted. */
function rowsOf(text: string): RecordRow[] {
  const rows: RecordRow[] = [];
  let line = 1;
  Papa.parse<string[]>(text, {
    skipEmptyLines: false,
    step: ({ data }) => {
      rows.push({ line, fields: data });
      line += 1 + data.reduce((sum, f) => sum + (f.match(/\n/g)?.length ?? 0), 0);
    },
  });
  return rows;
}

function record({ text }: Of<'record'>, { send }: On): void {
  const read = readRoomRecord(rowsOf(text));
  if (read.ok) send({ kind: 'record', record: read.value });
  else send({ kind: 'refused', why: read });
}

async function work(request: DryingRequest, on: On): Promise<void> {
  if (request.kind === 'whole') await whole(request, on);
  else if (request.kind === 'kept') await kept(request, on);
  else if (request.kind === 'variants') await variants(request, on);
  else record(request, on);
}

serve('the drying', work);
