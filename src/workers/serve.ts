import { failure } from '../core/quantity';
import type { Ended, FromWorker, Refused, ToWorker } from './protocol';

/**
 * The worker's side of `client.ts`: requests one after another, those that were overtaken while they waited never begun.
 * What throws is told as a refusal.
 */
export interface Work<Answer> {
  readonly send: (answer: Answer | Refused, transfer?: Transferable[]) => void;
  /** Whether a newer request has come: what is being tried for this one is not worth going on with. */
  readonly stale: () => boolean;
  /** Lets messages in, and waits while the page wants it to; false once a newer request has come. */
  readonly rest: () => Promise<boolean>;
}

/** Lets messages in. */
export const breathe = (): Promise<void> =>
  new Promise((resolve) => {
    const channel = new MessageChannel();
    channel.port1.onmessage = () => {
      channel.port1.close();
      resolve();
    };
    channel.port2.postMessage(null);
  });

export function serve<Request, Answer>(
  what: string,
  work: (request: Request, on: Work<Answer>) => void | Promise<void>,
): void {
  let newest = 0,
    paused = false,
    wake = (): void => undefined;
  const rest = async (seq: number): Promise<boolean> => {
    await breathe();
    while (paused && seq === newest)
      await new Promise<void>((resolve) => {
        wake = resolve;
      });
    return seq === newest;
  };
  const post = (seq: number, answer: Answer | Ended, last: boolean, transfer: Transferable[] = []) =>
    self.postMessage({ seq, answer, last } satisfies FromWorker<Answer | Ended>, { transfer });
  const run = async (seq: number, request: Request): Promise<void> => {
    await breathe();
    if (seq !== newest) return;
    try {
      await work(request, {
        send: (answer, transfer) => post(seq, answer, false, transfer),
        stale: () => seq !== newest,
        rest: () => rest(seq),
      });
    } catch (error) {
      post(seq, { kind: 'refused', why: failure('failed', what, (error as Error).message) }, false);
    }
    post(seq, { kind: 'done' }, true);
  };
  let turn = Promise.resolve();
  self.onmessage = ({ data }: MessageEvent<ToWorker<Request>>) => {
    if ('tell' in data) paused = data.tell.kind === 'pause';
    else {
      newest = data.seq;
      turn = turn.then(() => run(data.seq, data.request));
    }
    wake();
  };
}
