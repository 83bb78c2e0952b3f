import Papa from 'papaparse';
import type { Build } from '../core/build';
import { readRoomRecord, readWhole, writeWhole, type RecordRow, type WholeDrying } from '../core/drying';
import { failure, type Failure } from '../core/quantity';
import { Evaluator, fitPiece, wholePlan, wholeRun } from '../core/verdict';
import type { DryingAnswer, DryingRequest } from './drying-protocol';

/** A shell over core for long work on drying: tells how far it is, can be paused and taken up again; stopped by ending the worker. */
const evaluator = new Evaluator();
const send = (answer: DryingAnswer, transfer: Transferable[] = []): void => self.postMessage(answer, { transfer });
const breathe = () => new Promise<void>((resolve) => setTimeout(resolve, 0));
let paused = false;
let wake: (() => void) | null = null;

async function holding(): Promise<void> {
  while (paused)
    await new Promise<void>((resolve) => {
      wake = resolve;
    });
}

/** Steps between two looks at the messages: a tenth of a second or so. */
const stride = 48;

async function dryWhole(
  build: Build,
  step: number | undefined,
  what: string,
  from = 0,
  share = 1,
): Promise<{ whole: WholeDrying; key: string } | Failure> {
  const piece = evaluator.piece(build);
  if (!piece.ok) return piece;
  const plan = wholePlan(piece.value, step === undefined ? {} : { step });
  if (!plan.ok) return plan;
  send({ kind: 'progress', done: from, left: NaN, what });
  await breathe();
  const run = wholeRun(plan.value);
  let worked = 0,
    told = 0;
  for (let begun = performance.now(); !run.work(stride); begun = performance.now()) {
    worked += performance.now() - begun;
    if (performance.now() - told > 150) {
      told = performance.now();
      send({
        kind: 'progress',
        done: from + share * run.done,
        left: run.done > 0.01 ? (worked / run.done - worked) / 1000 : NaN,
        what,
      });
      await breathe();
      await holding();
    }
  }
  return { whole: run.result(), key: plan.value.key };
}

async function packed(whole: WholeDrying, key: string): Promise<Uint8Array<ArrayBuffer> | null> {
  if (typeof CompressionStream === 'undefined') return null;
  const stream = new Blob([writeWhole(whole, key)]).stream().pipeThrough(new CompressionStream('gzip'));
  return new Uint8Array(await new Response(stream).arrayBuffer());
}

async function whole(request: Extract<DryingRequest, { kind: 'whole' }>): Promise<void> {
  const began = performance.now();
  const found = await dryWhole(request.build, request.step, 'Drying the whole piece');
  if ('code' in found) {
    send({ kind: 'refused', why: found });
    return;
  }
  send({
    kind: 'whole',
    ...found,
    seconds: (performance.now() - began) / 1000,
    packed: await packed(found.whole, found.key),
  });
}

async function kept({ bytes }: Extract<DryingRequest, { kind: 'kept' }>): Promise<void> {
  const stream = new Blob([bytes as Uint8Array<ArrayBuffer>]).stream().pipeThrough(new DecompressionStream('gzip'));
  const read = readWhole(new Uint8Array(await new Response(stream).arrayBuffer()));
  if (read.ok) send({ kind: 'whole', ...read.value, seconds: 0, packed: null });
  else send({ kind: 'refused', why: read });
}

async function variants(request: Extract<DryingRequest, { kind: 'variants' }>): Promise<void> {
  for (const [index, build] of request.builds.entries()) {
    const report = evaluator.evaluate(build, { units: request.units });
    if (!report.ok) {
      send({ kind: 'refused', why: report });
      continue;
    }
    const regions = report.value.regions
      .filter((r) => r.coats.length > 0)
      .map(({ id, name, crack, throughDry, touchDry }) => ({ id, name, crack, throughDry, touchDry }));
    const row = { index, summary: report.value.summary, regions };
    send({ kind: 'variant', row: { ...row, whole: null } });
    await breathe();
    if (!request.whole || regions.length === 0) continue;
    const found = await dryWhole(
      build,
      undefined,
      `Variant ${index + 1} of ${request.builds.length}`,
      index / request.builds.length,
      1 / request.builds.length,
    );
    if ('code' in found) send({ kind: 'refused', why: found });
    else send({ kind: 'variant', row: { ...row, whole: found.whole.regions } });
  }
}

function fit({ build, readings, tare, least }: Extract<DryingRequest, { kind: 'fit' }>): void {
  const piece = evaluator.piece(build);
  if (!piece.ok) send({ kind: 'refused', why: piece });
  else send({ kind: 'fit', report: fitPiece(piece.value, readings, tare, least) });
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

function record({ text }: Extract<DryingRequest, { kind: 'record' }>): void {
  const read = readRoomRecord(rowsOf(text));
  if (read.ok) send({ kind: 'record', record: read.value });
  else send({ kind: 'refused', why: read });
}

async function work(request: DryingRequest): Promise<void> {
  if (request.kind === 'whole') await whole(request);
  else if (request.kind === 'kept') await kept(request);
  else if (request.kind === 'variants') await variants(request);
  else if (request.kind === 'fit') fit(request);
  else if (request.kind === 'record') record(request);
}

self.onmessage = ({ data }: MessageEvent<DryingRequest>) => {
  if (data.kind === 'pause' || data.kind === 'go-on') {
    paused = data.kind === 'pause';
    wake?.();
    return;
  }
  work(data)
    .catch((error: Error) => send({ kind: 'refused', why: failure('failed', 'the drying', error.message) }))
    .finally(() => send({ kind: 'done' }));
};
