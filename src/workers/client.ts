import type { Build } from '../core/build';
import type { UnitSystem } from '../core/quantity';
import type { Answer, EvaluateRequest } from './protocol';

/** Starts the worker, numbers requests, drops stale answers, and starts a fresh one when it dies or hangs. */
const patience = 30_000;

export class EvaluateClient {
  private worker: Worker | null = null;
  private seq = 0;
  private waiting: EvaluateRequest | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private deaths = 0;

  constructor(private readonly onAnswer: (answer: Answer) => void) {}

  request(build: Build, units: UnitSystem, pictureKey: string): number {
    this.seq += 1;
    this.waiting = { kind: 'evaluate', seq: this.seq, build, units, pictureKey };
    this.post();
    return this.seq;
  }

  stop(): void {
    clearTimeout(this.timer);
    this.worker?.terminate();
    this.worker = null;
  }

  private post(): void {
    if (!this.waiting) return;
    this.worker ??= this.start();
    this.worker.postMessage(this.waiting);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.died('it took too long'), patience);
  }

  private start(): Worker {
    const worker = new Worker(new URL('./evaluate.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = (event: MessageEvent<Answer>) => {
      clearTimeout(this.timer);
      if (event.data.seq !== this.seq) return;
      if (event.data.kind === 'complete' || event.data.kind === 'failed') this.waiting = null;
      this.deaths = 0;
      this.onAnswer(event.data);
    };
    worker.onerror = (event) => this.died(event.message || 'it stopped');
    return worker;
  }

  private died(why: string): void {
    this.stop();
    this.deaths += 1;
    if (this.deaths <= 2) {
      this.post();
      return;
    }
    this.onAnswer({
      kind: 'failed',
      seq: this.seq,
      why: { ok: false, code: 'worker-died', path: 'the reckoning', message: `could not finish: ${why}` },
    });
  }
}
