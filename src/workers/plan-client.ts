import { failure } from '../core/quantity';
import type { PlanAnswer, PlanRequest } from './plan-protocol';

/** One worker for plans, kept so that what it has worked out is found again. One that dies is told, and begun anew. */
export class PlanClient {
  private worker: Worker | null = null;
  private asked = 0;

  constructor(private readonly onAnswer: (answer: PlanAnswer) => void) {}

  ask(request: Omit<PlanRequest, 'ask'>): void {
    this.worker ??= this.begin();
    this.worker.postMessage({ ...request, ask: ++this.asked } satisfies PlanRequest);
  }

  stop(): void {
    this.worker?.terminate();
    this.worker = null;
  }

  private begin(): Worker {
    const worker = new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<PlanAnswer>) => {
      if (data.ask === this.asked) this.onAnswer(data);
    };
    worker.onerror = (event) => {
      this.stop();
      this.onAnswer({
        ask: this.asked,
        kind: 'refused',
        why: failure('worker-died', 'the plan', `the work stopped: ${event.message || 'it could not be begun'}`),
      });
    };
    return worker;
  }
}
