import { WorkerClient, type ClientOptions, type WorkerLike } from './client';
import type { Ended, ToWorker } from './protocol';

/** A worker that does nothing but what the test says. */
class Puppet implements WorkerLike {
  onmessage: ((event: MessageEvent) => void) | null = null;
  onerror: ((event: ErrorEvent) => void) | null = null;
  readonly asked: ToWorker<string>[] = [];
  ended = false;
  postMessage(message: unknown): void {
    this.asked.push(message as ToWorker<string>);
  }
  terminate(): void {
    this.ended = true;
  }
  answers(seq: number, text: string, last = false): void {
    this.onmessage?.({ data: { seq, last, answer: { kind: 'told', text } } } as MessageEvent);
  }
  dies(message = ''): void {
    this.onerror?.({ message } as ErrorEvent);
  }
}
type Told = { readonly kind: 'told'; readonly text: string };

function clientOf(options: Partial<ClientOptions> = {}) {
  const made: Puppet[] = [];
  const heard: (Told | Ended)[] = [];
  const client = new WorkerClient<string, Told>(
    () => {
      made.push(new Puppet());
      return made.at(-1)!;
    },
    (answer) => heard.push(answer),
    { what: 'the test', ...options },
  );
  return { client, made, heard, texts: () => heard.map((a) => (a.kind === 'told' ? a.text : a.kind)) };
}

test('answers to what has been asked since are dropped', () => {
  const { client, made, texts } = clientOf();
  client.ask('one');
  client.ask('two');
  expect(made).toHaveLength(1);
  made[0]!.answers(1, 'of one');
  made[0]!.answers(2, 'of two');
  expect(texts()).toEqual(['of two']);
});

test('a worker that dies is begun again with the same request, and is told of when it dies as often as it may', () => {
  const { client, made, heard, texts } = clientOf({ retries: 1 });
  client.ask('heavy');
  made[0]!.dies();
  expect(made).toHaveLength(2);
  expect(made[1]!.asked).toEqual([{ seq: 1, request: 'heavy' }]);
  made[1]!.dies('out of memory');
  expect(texts()).toEqual(['refused', 'done']);
  expect(heard[0]).toMatchObject({ why: { path: 'the test', message: expect.stringContaining('out of memory') } });
  // The next question begins with a clean record.
  client.ask('light');
  expect(made).toHaveLength(3);
  made[2]!.dies();
  expect(made).toHaveLength(4);
});

test('what died is not heard any more, and one that has answered to the end is not asked again', () => {
  const { client, made, texts } = clientOf({ retries: 1 });
  client.ask('one');
  made[0]!.dies();
  made[0]!.answers(1, 'from the grave');
  made[1]!.answers(1, 'alive', true);
  made[1]!.dies();
  expect(made).toHaveLength(2);
  expect(texts()).toEqual(['alive', 'refused', 'done']);
});

test('begun before anything is asked it takes the first question, and where it died unasked another does', () => {
  const { client, made, texts } = clientOf({ retries: 0 });
  client.begin();
  client.begin();
  client.ask('first');
  expect(made.map((w) => w.asked.length)).toEqual([1]);
  const unasked = clientOf({ retries: 0 });
  unasked.client.begin();
  unasked.made[0]!.dies('no such script');
  expect(unasked.texts()).toEqual([]);
  unasked.client.ask('first');
  expect(unasked.made[1]!.asked).toEqual([{ seq: 1, request: 'first' }]);
  expect(texts()).toEqual([]);
});

test('one that hangs is ended after the patience there is; a word from it begins the wait anew', () => {
  jest.useFakeTimers();
  try {
    const { client, made, texts } = clientOf({ patience: 10, retries: 0 });
    client.ask('slow');
    jest.advanceTimersByTime(9000);
    made[0]!.answers(1, 'half way');
    jest.advanceTimersByTime(9000);
    expect(made[0]!.ended).toBe(false);
    jest.advanceTimersByTime(2000);
    expect(made[0]!.ended).toBe(true);
    expect(texts()).toEqual(['half way', 'refused', 'done']);
  } finally {
    jest.useRealTimers();
  }
});

test('one that is told to pause is not taken to hang; once it goes on it is; another in its place is told too', () => {
  jest.useFakeTimers();
  const { client, made } = clientOf({ patience: 5, retries: 1 });
  client.tell({ kind: 'pause' });
  client.ask('long');
  expect(made[0]!.asked).toEqual([{ tell: { kind: 'pause' } }, { seq: 1, request: 'long' }]);
  jest.advanceTimersByTime(20_000);
  expect(made).toHaveLength(1);
  client.tell({ kind: 'go-on' });
  jest.advanceTimersByTime(4_000);
  expect(made).toHaveLength(1);
  jest.advanceTimersByTime(2_000);
  expect(made).toHaveLength(2);
  jest.useRealTimers();
});

test('where a question replaces the last, the worker at it is ended; stopped, nothing more is heard', () => {
  const { client, made, texts } = clientOf({ replaces: true });
  client.ask('one');
  client.ask('two');
  expect(made.map((w) => w.ended)).toEqual([true, false]);
  made[0]!.answers(2, 'late');
  client.stop();
  made[1]!.answers(2, 'stopped');
  expect(made[1]!.ended).toBe(true);
  expect(texts()).toEqual([]);
});

test('a worker that has done what was asked is asked again, and has kept what it read', () => {
  const { client, made } = clientOf({ replaces: true });
  client.ask('one');
  made[0]!.answers(1, 'of one', true);
  client.ask('two');
  expect(made.map((w) => w.ended)).toEqual([false]);
  expect(made[0]!.asked).toHaveLength(2);
});
