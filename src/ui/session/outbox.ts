import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { pictureOf, type LogEntry } from '../../core/log';
import { call, type Answered } from '../parts/http';
import { newId } from '../parts/ids';

/**
 * What is logged waits here until the server has it: a bench at the back of the workshop loses its connection. Entries go
 * out in the order they were made, one sender at a time whatever tabs are open; their ids make a second sending harmless.
 * Pictures wait with the entry that shows them.
 */
export interface Waiting {
  readonly buildId: string;
  readonly entry: LogEntry;
  readonly picture: Blob | null;
  /** Why the server would not have it; it stays until somebody decides. */
  readonly refused: string | null;
}

interface Shape extends DBSchema {
  outbox: { key: number; value: Waiting; indexes: { build: string } };
}

let opened: Promise<IDBPDatabase<Shape>> | null = null;

function store(): Promise<IDBPDatabase<Shape>> {
  opened ??= openDB<Shape>('sostegno-bench', 1, {
    upgrade: (db) => {
      db.createObjectStore('outbox', { autoIncrement: true }).createIndex('build', 'buildId');
    },
  });
  opened.catch(() => {
    opened = null;
  });
  return opened;
}

/** Entries that waited in the page's small store, where earlier versions kept them. */
async function fromBefore(buildId: string): Promise<void> {
  const key = `sostegno-outbox-${buildId}`;
  const text = localStorage.getItem(key);
  if (text === null) return;
  try {
    const kept = JSON.parse(text) as unknown;
    const db = await store();
    if (Array.isArray(kept))
      for (const entry of kept as LogEntry[]) await db.add('outbox', { buildId, entry, picture: null, refused: null });
  } catch {
    // Nothing that can be read: nothing to send.
  }
  localStorage.removeItem(key);
}

export async function waitingFor(buildId: string): Promise<Waiting[]> {
  await fromBefore(buildId);
  return (await store()).getAllFromIndex('outbox', 'build', buildId);
}

/** A new entry of now, or of a time that is given: then it stands at that time, also where it corrects another. */
export function newEntry(
  kind: LogEntry['kind'],
  data: object,
  at: string | null = null,
  corrects: string | null = null,
): LogEntry {
  const own = at !== null ? { ownTime: true } : {};
  return { id: newId(), kind, at: at ?? new Date().toISOString(), data, corrects, ...own } as LogEntry;
}

/** Kept first, then sent. An entry the server refuses at once comes straight back with its reason. */
export async function logEntry(buildId: string, entry: LogEntry, picture: Blob | null = null): Promise<string | null> {
  await fromBefore(buildId);
  await (await store()).add('outbox', { buildId, entry, picture, refused: null });
  await sendWaiting(buildId);
  const mine = (await waitingFor(buildId)).find((w) => w.entry.id === entry.id);
  if (!mine || mine.refused === null) return null;
  await letGo(buildId, entry.id);
  return mine.refused;
}

/** Throws away what waits under this id. */
export async function letGo(buildId: string, entryId: string): Promise<void> {
  await forEntry(buildId, entryId, (db, key) => db.delete('outbox', key));
}

/** Sends a refused one again with the others. */
export async function tryAgain(buildId: string, entryId: string): Promise<void> {
  await forEntry(buildId, entryId, async (db, key, waiting) => {
    await db.put('outbox', { ...waiting, refused: null }, key);
  });
  await sendWaiting(buildId);
}

async function forEntry(
  buildId: string,
  entryId: string,
  act: (db: IDBPDatabase<Shape>, key: number, waiting: Waiting) => Promise<unknown>,
): Promise<void> {
  const db = await store();
  for (const key of await db.getAllKeysFromIndex('outbox', 'build', buildId)) {
    const waiting = await db.get('outbox', key);
    if (waiting?.entry.id === entryId) await act(db, key, waiting);
  }
}

async function sendOne({ buildId, entry, picture }: Waiting): Promise<Answered<unknown>> {
  if (picture) {
    const sent = await call('POST', `/api/builds/${buildId}/photos/${pictureOf(entry) ?? ''}`, picture, false, 120);
    if (!sent.ok) return sent;
  }
  return call('POST', `/api/builds/${buildId}/log`, entry, false, 15);
}

/** No room on the server's disk for a picture, which leaves some for entries without one. */
const noRoom = 507;

async function sendInOrder(buildId: string): Promise<void> {
  const db = await store();
  const left = new Set<string | null>();
  for (const key of await db.getAllKeysFromIndex('outbox', 'build', buildId)) {
    const waiting = await db.get('outbox', key);
    if (!waiting || waiting.refused !== null) continue;
    // What corrects an entry that waits for room waits with it.
    if (left.has(waiting.entry.corrects)) {
      left.add(waiting.entry.id);
      continue;
    }
    const answer = await sendOne(waiting);
    if (answer.ok) await db.delete('outbox', key);
    else if (answer.status === noRoom && waiting.picture) left.add(waiting.entry.id);
    else if (answer.offline || answer.status >= 500) return;
    else await db.put('outbox', { ...waiting, refused: answer.message }, key);
  }
}

const sending = new Map<string, Promise<void>>();

/** Sends what waits, oldest first; stops at the first that cannot be sent. Returns how many still wait. */
export async function sendWaiting(buildId: string): Promise<number> {
  await fromBefore(buildId);
  const work = async () => {
    if (navigator.locks) await navigator.locks.request(`sostegno-outbox-${buildId}`, () => sendInOrder(buildId));
    else await sendInOrder(buildId);
  };
  // One after another: what was put in while the last was sending is sent by the next.
  const turn = (sending.get(buildId) ?? Promise.resolve()).catch(() => undefined).then(work);
  sending.set(buildId, turn);
  await turn;
  return (await waitingFor(buildId)).length;
}
