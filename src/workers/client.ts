import { failure, type Failure } from '../core/quantity';
import type { Ended, FromWorker, Told, ToWorker } from './protocol';

/** As much of a worker as the client uses; tests put in one of their own. */
export interface WorkerLike {
  onmessage: ((event: MessageEvent) => void) | null;
  onerror: ((event: ErrorEvent) => void) | null;
  postMessage(message: unknown, transfer: Transferable[]): void;
  terminate(): void;
}
export type MakeWorker = () => WorkerLike;

export interface ClientOptions {
  /** Where it works, as a refusal says it. */
  readonly what: string;
  /** Seconds without a word after which a worker is taken to hang. */
  readonly patience?: number;
  /** How often a worker that died or hung is begun anew with the same request. */
  readonly retries?: number;
  /** A new request ends a worker that is at an earlier one; without this the worker itself passes over what is old. */
  readonly replaces?: boolean;
}

/**
 * The one client of workers. Requests are numbered and answers to older ones dropped; what has not been begun when a
 * newer request comes is never begun. A worker that dies or hangs is begun anew as often as allowed, then that is said.
 */
export class WorkerClient<Request, Answer extends { readonly kind: string }> {
  private worker: WorkerLike | null = null;
  private seq = 0;
  private waiting: { readonly request: Request; readonly transfer: Transferable[] } | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private deaths = 0;
  private paused = false;

  constructor(
    private readonly make: MakeWorker,
    private readonly onAnswer: (answer: Answer | Ended) => void,
    private readonly options: ClientOptions,
  ) {}

  /** Begins the worker, so that it has read its scripts when the first request comes. */
  begin(): void {
    this.worker ??= this.start();
  }

  ask(request: Request, transfer: Transferable[] = []): void {
    if (this.options.replaces && this.waiting) this.stop();
    this.seq += 1;
    this.deaths = 0;
    this.waiting = { request, transfer };
    this.post();
  }

  /** A worker that is told to pause waits at its next rest, with what can wait; it is not taken to hang meanwhile. */
  tell(tell: Told): void {
    this.paused = tell.kind === 'pause';
    this.worker?.postMessage({ tell } satisfies ToWorker<Request>, []);
    if (this.waiting) this.watch();
  }

  /** Ends it, and whatever it was at. */
  stop(): void {
    clearTimeout(this.timer);
    this.worker?.terminate();
    this.worker = null;
    this.waiting = null;
    this.paused = false;
  }

  private post(): void {
    if (!this.waiting) return;
    this.worker ??= this.start();
    const { request, transfer } = this.waiting;
    this.worker.postMessage({ seq: this.seq, request } satisfies ToWorker<Request>, transfer);
    this.watch();
  }

  private watch(): void {
    const { patience } = this.options;
    clearTimeout(this.timer);
    if (patience !== undefined && !this.paused)
      this.timer = setTimeout(() => this.died('it took too long'), patience * 1000);
  }

  private start(): WorkerLike {
    const worker = this.make();
    if (this.paused) worker.postMessage({ tell: { kind: 'pause' } } satisfies ToWorker<Request>, []);
    worker.onmessage = ({ data }: MessageEvent<FromWorker<Answer | Ended>>) => {
      if (data.seq !== this.seq || worker !== this.worker) return;
      clearTimeout(this.timer);
      if (data.last) this.waiting = null;
      else this.watch();
      this.onAnswer(data.answer);
    };
    worker.onerror = (event) => {
      if (worker === this.worker) this.died(event.message || 'there was not enough room for it');
    };
    return worker;
  }

  private died(why: string): void {
    const { waiting } = this;
    this.stop();
    // Begun before anything was asked of it: the first request begins another.
    if (this.seq === 0) return;
    this.deaths += 1;
    if (waiting && this.deaths <= (this.options.retries ?? 0)) {
      this.waiting = waiting;
      this.post();
      return;
    }
    this.onAnswer({ kind: 'refused', why: this.failure(why) });
    this.onAnswer({ kind: 'done' });
  }

  private failure(why: string): Failure {
    return failure('worker-died', this.options.what, `the work stopped: ${why}`);
  }
}
