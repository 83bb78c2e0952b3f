import { failure } from '../core/quantity';
import type { DryingAnswer, DryingRequest } from './drying-protocol';

/** One worker at a time for long work on drying. A new request ends the one before; one that dies is told as a refusal. */
export class DryingClient {
  private worker: Worker | null = null;

  constructor(private readonly onAnswer: (answer: DryingAnswer) => void) {}

  ask(request: DryingRequest): void {
    this.stop();
    this.worker = new Worker(new URL('./drying.worker.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = ({ data }: MessageEvent<DryingAnswer>) => {
      if (data.kind === 'done') this.stop();
      this.onAnswer(data);
    };
    this.worker.onerror = (event) => {
      this.stop();
      this.onAnswer({
        kind: 'refused',
        why: failure(
          'worker-died',
          'the drying',
          `the work stopped: ${event.message || 'there was not enough room for it'}`,
        ),
      });
      this.onAnswer({ kind: 'done' });
    };
    this.worker.postMessage(request);
  }

  pause(): void {
    this.worker?.postMessage({ kind: 'pause' } satisfies DryingRequest);
  }

  goOn(): void {
    this.worker?.postMessage({ kind: 'go-on' } satisfies DryingRequest);
  }

  stop(): void {
    this.worker?.terminate();
    this.worker = null;
  }
}
