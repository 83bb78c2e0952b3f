import { failure } from '../core/quantity';
import type { CompareAnswer, CompareRequest } from './compare-protocol';

/** One worker at a time for work beside the bench. Stopping ends it; one that dies is told as a refusal. */
export class CompareClient {
  private worker: Worker | null = null;

  constructor(private readonly onAnswer: (answer: CompareAnswer) => void) {}

  ask(request: CompareRequest): void {
    this.stop();
    this.worker = new Worker(new URL('./compare.worker.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = ({ data }: MessageEvent<CompareAnswer>) => {
      if (data.kind === 'done') this.stop();
      this.onAnswer(data);
    };
    this.worker.onerror = (event) => {
      this.stop();
      this.onAnswer({
        kind: 'refused',
        index: -1,
        school: '',
        why: failure(
          'worker-died',
          'the build',
          `the work stopped: ${event.message || 'there was not enough room for it'}`,
        ),
      });
      this.onAnswer({ kind: 'done' });
    };
    this.worker.postMessage(request);
  }

  stop(): void {
    this.worker?.terminate();
    this.worker = null;
  }
}
