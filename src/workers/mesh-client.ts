import { failure } from '../core/quantity';
import type { MeshAnswer, MeshRequest } from './mesh-protocol';

/** One mesh worker at a time. Stopping ends it; a worker that dies is told as a refusal. */
export class MeshClient {
  private worker: Worker | null = null;

  constructor(private readonly onAnswer: (answer: MeshAnswer) => void) {}

  ask(request: MeshRequest): void {
    this.worker ??= this.start();
    this.worker.postMessage(request, request.kind === 'read' ? [request.bytes.buffer as ArrayBuffer] : []);
  }

  stop(): void {
    this.worker?.terminate();
    this.worker = null;
  }

  private start(): Worker {
    const worker = new Worker(new URL('./mesh.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = (event: MessageEvent<MeshAnswer>) => this.onAnswer(event.data);
    worker.onerror = (event) => {
      this.stop();
      this.onAnswer({
        kind: 'refused',
        why: failure(
          'worker-died',
          'the mesh',
          `the work stopped: ${event.message || 'there was not enough room for it'}`,
        ),
      });
    };
    return worker;
  }
}
