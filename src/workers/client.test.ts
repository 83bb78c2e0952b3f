import { newBust } from '../core/build';
import type { Answer, EvaluateRequest } from './protocol';
import { EvaluateClient } from './client';

/** A worker that does as the test tells it. */
class FakeWorker {
  static all: FakeWorker[] = [];
  onmessage: ((e: { data: Answer }) => void) | null = null;
  onerror: ((e: { message: string }) => void) | null = null;
  sent: EvaluateRequest[] = [];
  stopped = false;
  constructor() {
    FakeWorker.all.push(this);
  }
  postMessage(m: EvaluateRequest) {
    this.sent.push(m);
  }
  terminate() {
    this.stopped = true;
  }
  answer(kind: 'nominal' | 'complete', seq: number) {
    this.onmessage?.({ data: { kind, seq, report: {} as never, picture: null, milliseconds: 1 } as Answer });
  }
}

// The client makes its worker from a module address, which only a browser's bundle has.
jest.mock('./client', () => {
  // eslint-disable-next-line @typescript-eslint/no-require-imports
  const { readFileSync } = require('node:fs') as typeof import('node:fs');
  // eslint-disable-next-line @typescript-eslint/no-require-imports
  const { transformSync } = require('@swc/core') as typeof import('@swc/core');
  const source = readFileSync(`${__dirname}/client.ts`, 'utf8').replace(
    "new URL('./evaluate.worker.ts', import.meta.url)",
    "'worker'",
  );
  const made = { exports: {} as Record<string, unknown> };
  const { code } = transformSync(source, {
    jsc: { parser: { syntax: 'typescript' }, target: 'es2022' },
    module: { type: 'commonjs' },
  });
  new Function('module', 'exports', 'require', 'Worker', code)(made, made.exports, require, function Make() {
    return new FakeWorker();
  });
  return made.exports;
});

beforeEach(() => {
  FakeWorker.all = [];
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());

const start = () => {
  const answers: Answer[] = [];
  return { answers, client: new EvaluateClient((a) => answers.push(a)) };
};
const build = newBust('b', '2026-12-01');

test('an answer to an older request is dropped', () => {
  const { answers, client } = start();
  client.request(build, 'metric', '');
  const second = client.request(build, 'metric', '');
  FakeWorker.all[0]?.answer('nominal', 1);
  expect(answers).toHaveLength(0);
  FakeWorker.all[0]?.answer('nominal', second);
  expect(answers).toHaveLength(1);
});

test('a worker that dies is replaced and asked again, twice; then it is said', () => {
  const { answers, client } = start();
  client.request(build, 'metric', '');
  for (let i = 0; i < 3; i++) FakeWorker.all[FakeWorker.all.length - 1]?.onerror?.({ message: 'out of memory' });
  expect(FakeWorker.all).toHaveLength(3);
  expect(FakeWorker.all.every((w) => w.stopped)).toBe(true);
  expect(FakeWorker.all[1]?.sent[0]?.seq).toBe(1);
  expect(answers).toMatchObject([
    { kind: 'failed', why: { code: 'worker-died', message: expect.stringContaining('out of memory') } },
  ]);
});

test('a worker that hangs is replaced', () => {
  const { client } = start();
  client.request(build, 'metric', '');
  jest.advanceTimersByTime(31_000);
  expect(FakeWorker.all[0]?.stopped).toBe(true);
  expect(FakeWorker.all).toHaveLength(2);
  client.stop();
  expect(FakeWorker.all[1]?.stopped).toBe(true);
});
