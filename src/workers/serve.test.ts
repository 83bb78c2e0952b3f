import type { FromWorker, ToWorker } from './protocol';

/** The worker's side: one request after another, overtaken ones never begun, what throws told as a refusal. */
type Answer = { readonly kind: 'told'; readonly text: string };
type Posted = FromWorker<Answer | { readonly kind: 'done' } | { readonly kind: 'refused' }>;
const posted: Posted[] = [];
const worker = {
  onmessage: null as ((event: { data: ToWorker<string> }) => void) | null,
  postMessage: (message: Posted) => void posted.push(message),
};
Object.assign(globalThis, { self: worker });

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
let newest = 0;
const ask = (seq: number, request: string) => {
  newest = seq;
  worker.onmessage!({ data: { seq, request } });
};
/** Until the newest is done, however busy the machine; and a little longer, for what should not come. */
const settled = async () => {
  for (let i = 0; i < 500 && !posted.some((p) => p.last && p.seq === newest); i++) await pause(10);
  await pause(30);
};
const heard = () =>
  posted.map((p) => `${p.seq} ${p.answer.kind === 'told' ? p.answer.text : p.answer.kind}${p.last ? ', last' : ''}`);

/** Serving with a piece of work that says what it was asked, or does as it is told. */
async function serving(
  work: (request: string, stale: () => boolean, rest: () => Promise<boolean>) => string | Promise<string>,
): Promise<void> {
  posted.length = 0;
  newest = 0;
  const { serve } = await import('./serve');
  serve<string, Answer>('the test', async (request, { send, stale, rest }) =>
    send({ kind: 'told', text: await work(request, stale, rest) }),
  );
}

test('an answer, and then that it is done', async () => {
  await serving((r) => r.toUpperCase());
  ask(1, 'one');
  await settled();
  expect(heard()).toEqual(['1 ONE', '1 done, last']);
});

test('of requests that come together only the newest is begun', async () => {
  const begun: string[] = [];
  await serving((r) => {
    begun.push(r);
    return r;
  });
  for (const [i, r] of ['a', 'b', 'c'].entries()) ask(i + 1, r);
  await settled();
  expect(begun).toEqual(['c']);
  expect(heard()).toEqual(['3 c', '3 done, last']);
});

test('one that is being worked at is told that it is overtaken, and ends before the next begins', async () => {
  const order: string[] = [];
  await serving(async (r, stale) => {
    order.push(`${r} begins`);
    for (let i = 0; i < 200 && r === 'long' && !stale(); i++) await pause(1);
    order.push(`${r} ends${stale() ? ', overtaken' : ''}`);
    return r;
  });
  ask(1, 'long');
  while (order.length === 0) await pause(1);
  ask(2, 'next');
  await settled();
  expect(order).toEqual(['long begins', 'long ends, overtaken', 'next begins', 'next ends']);
});

test('what throws is a refusal with its place and its words, and the next is served as before', async () => {
  await serving((r) => {
    if (r === 'bad') throw new Error('no room');
    return r;
  });
  ask(1, 'bad');
  await settled();
  expect(posted[0]).toMatchObject({ answer: { kind: 'refused', why: { path: 'the test', message: 'no room' } } });
  expect(heard()).toEqual(['1 refused', '1 done, last']);
  ask(2, 'good');
  await settled();
  expect(heard().slice(2)).toEqual(['2 good', '2 done, last']);
});

test('one that is paused waits at its next rest, goes on when told, and lets a newer request by', async () => {
  const order: string[] = [];
  await serving(async (r, _stale, rest) => {
    order.push(`${r} begins`);
    order.push(`${r} ${(await rest()) ? 'goes on' : 'is overtaken'}`);
    return r;
  });
  worker.onmessage!({ data: { tell: { kind: 'pause' } } });
  ask(1, 'one');
  await pause(60);
  expect(order).toEqual(['one begins']);
  worker.onmessage!({ data: { tell: { kind: 'go-on' } } });
  await settled();
  expect(order).toEqual(['one begins', 'one goes on']);
  worker.onmessage!({ data: { tell: { kind: 'pause' } } });
  ask(2, 'two');
  await pause(60);
  ask(3, 'three');
  await pause(60);
  expect(order.slice(2)).toEqual(['two begins', 'two is overtaken', 'three begins']);
  worker.onmessage!({ data: { tell: { kind: 'go-on' } } });
  await settled();
  expect(order.at(-1)).toBe('three goes on');
});
