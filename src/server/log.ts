import { parseBuild, stableText } from '../core/document';
import { readEntry, roomAsItIs, type LogEntry } from '../core/log';
import { failure, success, type Failure, type Result } from '../core/quantity';
import * as db from '../db';
import { reckon } from './cards';
import { database } from './store';
import { entriesOf } from './workshop';

/** The bench log: append-only. A correction is a new entry that points at the old and carries the right figures, or voids it. */
export async function readLog(buildId: string): Promise<LogEntry[]> {
  return entriesOf(await db.listLog(await database(), buildId));
}

/** Entries of a page's first look, so that a long log shows while the whole of it is read. */
const firstLook = 24;

/** The latest entries that can be told without the rest of the log, and how many there are in all. */
export async function latestOfLog(buildId: string): Promise<{ entries: LogEntry[]; count: number }> {
  const store = await database();
  const entries = entriesOf(await db.listLatest(store, buildId, firstLook));
  const known = new Set(entries.map((e) => e.id));
  return {
    // A correction stands at the hour of what it corrects.
    entries: entries.filter((e) => e.corrects === null || known.has(e.corrects)),
    count: await db.countLog(store, buildId),
  };
}

export async function addToLog(buildId: string, input: unknown): Promise<Result<LogEntry>> {
  const entry = readEntry(input);
  if (!entry.ok) return entry;
  const store = await database();
  const row = await db.findBuild(store, buildId);
  if (!row) return failure('no-such-build', 'id', 'there is no such build');
  const { corrects } = entry.value;
  if (corrects !== null && (await db.findLogEntry(store, corrects))?.buildId !== buildId) {
    return failure('no-such-entry', 'corrects', 'the entry it corrects is not in this log');
  }
  const kept = withRoom(entry.value, row.document);
  const added = await db.addLogEntry(
    store,
    buildId,
    { ...kept, data: JSON.stringify(kept.data), ownTime: kept.ownTime ? 1 : 0 },
    new Date().toISOString(),
  );
  if (!added) {
    const there = await db.findLogEntry(store, entry.value.id);
    return there?.buildId === buildId && sameEntry(entriesOf([there])[0]!, entry.value)
      ? success(entriesOf([there])[0]!)
      : idTaken('id', there?.buildId === buildId ? 'another entry of this log' : 'an entry of another log');
  }
  void reckon(Date.now() / 1000, buildId);
  return success(kept);
}

/** What was sent under an id that something else has is not kept, and that is said. */
export function idTaken(path: string, by: string): Failure {
  return failure('id-taken', path, `its id belongs to ${by}: it was not kept. Write it down anew`);
}

/** Sent twice: the same but for the room, which is added here where the page did not say it. */
function sameEntry(there: LogEntry, sent: LogEntry): boolean {
  const room = 'room' in sent.data ? {} : { room: undefined };
  const told = (e: LogEntry) => stableText({ ...e, data: { ...e.data, ...room }, ownTime: e.ownTime === true });
  return told(there) === told(sent);
}

/** What dries, or is read of the room, keeps the room as the build says it is now, where the page did not say. */
function withRoom(entry: LogEntry, document: string): LogEntry {
  const wants =
    entry.kind === 'weigh-in' || entry.kind === 'room' || (entry.kind === 'step' && entry.data.clay !== undefined);
  if (!wants || entry.data.room) return entry;
  const build = parseBuild(document);
  return build.ok ? ({ ...entry, data: { ...entry.data, room: roomAsItIs(build.value.room) } } as LogEntry) : entry;
}
