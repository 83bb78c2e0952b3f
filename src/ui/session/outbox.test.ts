import 'fake-indexeddb/auto';
import type { LogEntry } from '../../core/log';
import { letGo, logEntry, newEntry, sendWaiting, tryAgain, waitingFor } from './outbox';

/** What is logged waits until the server has it: kept first, sent in order, refused in the open. */
const kept = new Map<string, string>();
Object.assign(globalThis, {
  localStorage: {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  },
});
Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });

/** A server that takes what it is given, or is away, or says no to what it is told to. */
class Bench {
  readonly taken: string[] = [];
  away = false;
  broken = false;
  /** Its disk has no room for pictures. */
  full = false;
  refuses: (text: string) => boolean = () => false;
  /** Answers are lost on the way back: it has the entry and the page does not know. */
  loses = false;

  readonly fetch = (url: string, init?: RequestInit): Promise<Response> => {
    if (this.away) return Promise.reject(new TypeError('network'));
    if (this.broken) return Promise.resolve(new Response('{}', { status: 503 }));
    const what = url.includes('/photos/') ? `picture ${url.split('/').pop()!}` : textOf(JSON.parse(String(init?.body)));
    if (this.full && url.includes('/photos/')) return Promise.resolve(new Response('{}', { status: 507 }));
    if (this.refuses(what))
      return Promise.resolve(
        new Response(JSON.stringify({ error: { message: `not ${what}`, path: 'data' } }), { status: 400 }),
      );
    if (!this.taken.includes(what)) this.taken.push(what);
    return this.loses ? Promise.reject(new TypeError('reset')) : Promise.resolve(new Response('{}'));
  };
}
const textOf = (e: LogEntry) => (e.data as { text?: string; caption?: string }).text ?? 'entry';
let bench: Bench;
let n = 0;
let build: string;
beforeEach(() => {
  bench = new Bench();
  globalThis.fetch = bench.fetch as typeof fetch;
  build = `build-${n++}`;
});
const note = (text: string) => newEntry('note', { text });
const waiting = async () => (await waitingFor(build)).map((w) => textOf(w.entry));

test('with a connection it is sent at once, and nothing waits', async () => {
  expect(await logEntry(build, note('one'))).toBeNull();
  expect(bench.taken).toEqual(['one']);
  expect(await waiting()).toEqual([]);
});

test('without one it waits, and goes out in the order it was made when there is one again', async () => {
  bench.away = true;
  for (const text of ['one', 'two', 'three']) expect(await logEntry(build, note(text))).toBeNull();
  expect(await waiting()).toEqual(['one', 'two', 'three']);
  bench.away = false;
  expect(await sendWaiting(build)).toBe(0);
  expect(bench.taken).toEqual(['one', 'two', 'three']);
});

test('a server in trouble is waited for, as one that is away is', async () => {
  bench.broken = true;
  await logEntry(build, note('one'));
  expect(await waiting()).toEqual(['one']);
  bench.broken = false;
  await sendWaiting(build);
  expect(bench.taken).toEqual(['one']);
});

test('pictures wait for room on a full disk, with what corrects them; other entries go past', async () => {
  bench.full = true;
  const seen = newEntry('photo', { photoId: 'p1', caption: 'seen' });
  await logEntry(build, seen, new Blob(['x']));
  await logEntry(build, newEntry('void', { text: 'not that one' }, null, seen.id));
  await logEntry(build, note('dry'));
  expect(bench.taken).toEqual(['dry']);
  expect(await waiting()).toEqual(['entry', 'not that one']);
  bench.full = false;
  expect(await sendWaiting(build)).toBe(0);
  expect(bench.taken).toEqual(['dry', 'picture p1', 'entry', 'not that one']);
});

test('an answer that is lost on the way back is sent again: the same entry, once', async () => {
  bench.loses = true;
  const entry = note('one');
  await logEntry(build, entry);
  expect([bench.taken, await waiting()]).toEqual([['one'], ['one']]);
  bench.loses = false;
  await sendWaiting(build);
  expect([bench.taken, await waiting()]).toEqual([['one'], []]);
});

test('one that is refused as it is written comes back with its reason and does not wait', async () => {
  bench.refuses = (text) => text === 'bad';
  expect(await logEntry(build, note('bad'))).toBe('not bad');
  expect(await waiting()).toEqual([]);
});

test('one that is refused later stays in the open and holds no other up; it may be sent again, or let go', async () => {
  bench.away = true;
  const bad = note('bad');
  await logEntry(build, bad);
  await logEntry(build, note('good'));
  bench.away = false;
  bench.refuses = (text) => text === 'bad';
  expect(await sendWaiting(build)).toBe(1);
  expect(bench.taken).toEqual(['good']);
  expect((await waitingFor(build))[0]).toMatchObject({ refused: 'not bad' });
  // It is not sent again by itself.
  await sendWaiting(build);
  expect((await waitingFor(build))[0]?.refused).toBe('not bad');
  bench.refuses = () => false;
  await tryAgain(build, bad.id);
  expect([bench.taken, await waiting()]).toEqual([['good', 'bad'], []]);
  bench.away = true;
  const other = note('other');
  await logEntry(build, other);
  await letGo(build, other.id);
  expect(await waiting()).toEqual([]);
});

test('what is put in while others are being sent is sent after them, and none twice', async () => {
  await Promise.all(['one', 'two', 'three', 'four'].map((text) => logEntry(build, note(text))));
  expect([...bench.taken].sort()).toEqual(['four', 'one', 'three', 'two']);
  expect(await waiting()).toEqual([]);
});

test('each build has its own', async () => {
  bench.away = true;
  await logEntry(build, note('mine'));
  await logEntry('another', note('theirs'));
  expect(await waiting()).toEqual(['mine']);
  bench.away = false;
  await sendWaiting(build);
  expect(bench.taken).toEqual(['mine']);
  expect((await waitingFor('another')).map((w) => textOf(w.entry))).toEqual(['theirs']);
});

test('a picture goes before the entry that shows it; where it is refused the entry is', async () => {
  const photo = (id: string) => newEntry('photo', { photoId: id, caption: '' });
  await logEntry(build, photo('p1'), new Blob(['x']));
  expect(bench.taken).toEqual(['picture p1', 'entry']);
  bench.refuses = (what) => what === 'picture p2';
  expect(await logEntry(build, photo('p2'), new Blob(['x']))).toBe('not picture p2');
  expect(bench.taken).toEqual(['picture p1', 'entry']);
});

test('what an earlier version kept in the page’s small store is taken over, once; what cannot be read is let go', async () => {
  kept.set(`sostegno-outbox-${build}`, JSON.stringify([note('old one'), note('old two')]));
  expect(await waiting()).toEqual(['old one', 'old two']);
  expect(await waiting()).toEqual(['old one', 'old two']);
  kept.set(`sostegno-outbox-${build}`, '{{{');
  expect(await waiting()).toEqual(['old one', 'old two']);
  expect(kept.size).toBe(0);
});

test('an entry of now, or of a time that is given, which then is its own', () => {
  expect(newEntry('note', {})).not.toHaveProperty('ownTime');
  expect(newEntry('note', {}, '2026-12-01T08:00:00Z', 'x')).toMatchObject({
    at: '2026-12-01T08:00:00Z',
    ownTime: true,
    corrects: 'x',
  });
});
