import type { Db } from './open';

export interface LogRow {
  readonly id: string;
  readonly kind: string;
  readonly at: string;
  readonly data: string;
  readonly corrects: string | null;
  readonly recordedAt: string;
}

export function listLog(db: Db, buildId: string): Promise<LogRow[]> {
  return db.selectFrom('log_entries').select(['id', 'kind', 'at', 'data', 'corrects', 'recorded_at as recordedAt'])
    .where('build_id', '=', buildId).orderBy('at').orderBy('recorded_at').execute();
}

/** Writes an entry once: the same id again changes nothing, so a bench that sends twice is safe. */
export async function addLogEntry(db: Db, buildId: string, e: Omit<LogRow, 'recordedAt'>, now: string): Promise<void> {
  await db.insertInto('log_entries').values({
    id: e.id, build_id: buildId, kind: e.kind, at: e.at, data: e.data, corrects: e.corrects, recorded_at: now,
  }).onConflict((c) => c.column('id').doNothing()).execute();
}

export async function addPhoto(db: Db, p: { id: string; buildId: string; mime: string; bytes: Buffer }): Promise<void> {
  await db.insertInto('photos').values({ id: p.id, build_id: p.buildId, mime: p.mime, bytes: p.bytes }).onConflict((c) => c.column('id').doNothing()).execute();
}

export function findPhoto(db: Db, buildId: string, id: string): Promise<{ mime: string; bytes: Buffer } | undefined> {
  return db.selectFrom('photos').select(['mime', 'bytes']).where('build_id', '=', buildId).where('id', '=', id).executeTakeFirst();
}

export async function readSetting(db: Db, key: string): Promise<string | undefined> {
  return (await db.selectFrom('settings').select('value').where('key', '=', key).executeTakeFirst())?.value;
}

export async function writeSetting(db: Db, key: string, value: string): Promise<void> {
  await db.insertInto('settings').values({ key, value }).onConflict((c) => c.column('key').doUpdateSet({ value })).execute();
}
