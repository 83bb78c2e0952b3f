import path from 'node:path';
import type { Worker } from 'node:worker_threads';
import { failure, type Failure } from '../../core/quantity';
import { beforeClosing } from '../store';
import type { JobName, Jobs } from './jobs';

export type { Jobs } from './jobs';

/**
 * Threads in which builds are worked out, so that no build keeps the server from answering: one for what somebody is
 * waiting for, one for the shelf's cards. A job has so long; then its thread is ended, and the build is said to be too much.
 */
type Lane = 'asked' | 'cards';
export const longestMs: Record<Lane, number> = { asked: 60_000, cards: 120_000 };
/** Jobs that may wait behind the one that is done. */
const mostWaiting = 200;

interface Waiting {
  readonly name: JobName;
  readonly ask: unknown;
  readonly answer: (answer: unknown) => void;
}
interface Thread {
  worker: Worker | null;
  doing: Waiting | null;
  readonly queue: Waiting[];
}

const holder = globalThis as unknown as { sostegnoThreads?: Record<Lane, Thread> };

function lanes(): Record<Lane, Thread> {
  if (!holder.sostegnoThreads) {
    holder.sostegnoThreads = {
      asked: { worker: null, doing: null, queue: [] },
      cards: { worker: null, doing: null, queue: [] },
    };
    beforeClosing(endThreads);
  }
  return holder.sostegnoThreads;
}

const tooMuch = (ms: number): Failure =>
  failure(
    'too-much-work',
    'the build',
    `working it out took longer than ${ms / 1000} s and was stopped: give it fewer regions, members or steps`,
  );

/** Works something out beside the server. Never rejects: what went wrong is a failure. */
export async function workOut<K extends JobName>(
  name: K,
  ask: Jobs[K]['ask'],
  lane: Lane = 'asked',
): Promise<Jobs[K]['answer'] | Failure> {
  // Tests run where no thread can load what they have changed.
  if (process.env['JEST_WORKER_ID'] !== undefined) return (await import('./jobs')).workOn(name, ask);
  const thread = lanes()[lane];
  if (thread.queue.length >= mostWaiting)
    return failure('busy', 'the request', 'too much is being worked out just now: try again in a moment');
  return new Promise((resolve) => {
    thread.queue.push({ name, ask, answer: resolve as (answer: unknown) => void });
    void next(lane);
  });
}

async function next(lane: Lane): Promise<void> {
  const thread = lanes()[lane];
  if (thread.doing) return;
  const job = thread.queue.shift();
  if (!job) {
    thread.worker?.unref();
    return;
  }
  thread.doing = job;
  const worker = (thread.worker ??= await begin(lane));
  const limit = setTimeout(() => {
    settle(lane, tooMuch(longestMs[lane]), worker);
    void worker.terminate();
  }, longestMs[lane]);
  limit.unref();
  thread.doing = { ...job, answer: (answer) => (clearTimeout(limit), job.answer(answer)) };
  // What is being waited for keeps the process up; an idle thread does not.
  worker.ref();
  worker.postMessage({ name: job.name, ask: job.ask });
}

/** Answers the job that is being done, and goes on to the next; `dead`: its thread does no more. */
function settle(lane: Lane, answer: unknown, dead: Worker | null): void {
  const thread = lanes()[lane];
  if (dead && thread.worker === dead) thread.worker = null;
  const { doing } = thread;
  thread.doing = null;
  doing?.answer(answer);
  void next(lane);
}

const file = ['src', 'server', 'reckoner', 'thread.mjs'];

async function begin(lane: Lane): Promise<Worker> {
  const threads = await import('node:worker_threads');
  const root = process.env['SOSTEGNO_ROOT'] ?? process.cwd();
  // The thread reads its own sources: a bundler that saw this call would want to pack them, and the reader with them.
  const worker = Reflect.construct(threads.Worker, [
    path.join(/* turbopackIgnore: true */ root, ...file),
    { workerData: { root, lane } },
  ]) as Worker;
  const dead = (error: Error) => {
    if (lanes()[lane].worker === worker)
      settle(lane, failure('failed', 'the build', `it could not be worked out (${error.message})`), worker);
  };
  // Heard for as long as it lives: a port that has lost its last listener is stopped for good.
  worker.on('message', (answer: unknown) => {
    if (lanes()[lane].worker === worker) settle(lane, answer, null);
  });
  worker.on('error', dead);
  worker.on('exit', () => dead(new Error('its thread ended')));
  worker.unref();
  return worker;
}

/** So that the first who asks need not wait until a thread has read its sources. */
export async function beginThreads(): Promise<void> {
  const { asked } = lanes();
  if (asked.worker === null) asked.worker = await begin('asked');
}

async function endThreads(): Promise<void> {
  const ended = Object.values(lanes()).map((t) => t.worker?.terminate());
  for (const t of Object.values(lanes())) {
    t.worker = null;
    const left = [...(t.doing ? [t.doing] : []), ...t.queue.splice(0)];
    t.doing = null;
    for (const job of left) job.answer(failure('busy', 'the request', 'Sostegno is being closed'));
  }
  await Promise.all(ended);
}
