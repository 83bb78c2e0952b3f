import { sql } from 'kysely';
import { inTransaction, type Db } from './open';

export interface LogRow {
  readonly id: string;
  readonly kind: string;
  readonly at: string;
  readonly data: string;
  readonly corrects: string | null;
  readonly ownTime: number;
  readonly recordedAt: string;
}

const columns = ['id', 'kind', 'at', 'data', 'corrects', 'own_time as ownTime', 'recorded_at as recordedAt'] as const;

/** In the order in which the entries were written, whatever hours they stand at. */
export function listLog(db: Db, buildId: string): Promise<LogRow[]> {
  return db
    .selectFrom('log_entries')
    .select(columns)
    .where('build_id', '=', buildId)
    .orderBy('written')
    .orderBy('id')
    .execute();
}

/** Those that stand at the latest hours, with what corrects them, in the order in which they were written. */
export async function listLatest(db: Db, buildId: string, count: number): Promise<LogRow[]> {
  const here = db.selectFrom('log_entries').select(columns).where('build_id', '=', buildId);
  const latest = await here.orderBy('at', 'desc').orderBy('written', 'desc').limit(count).execute();
  const ids = latest.map((e) => e.id);
  return here
    .where((e) => e.or([e('id', 'in', ids), e('corrects', 'in', ids)]))
    .orderBy('written')
    .orderBy('id')
    .execute();
}

export async function countLog(db: Db, buildId: string): Promise<number> {
  const found = await db
    .selectFrom('log_entries')
    .select(({ fn }) => fn.countAll<number>().as('count'))
    .where('build_id', '=', buildId)
    .executeTakeFirstOrThrow();
  return Number(found.count);
}

export interface NoteRow {
  readonly id: string;
  readonly at: string;
  readonly data: string;
  readonly build: string;
  readonly name: string;
  readonly clay: string;
}

/** Notes of all pieces that are kept for the next, the latest first; what was put right or struck is as it is now. */
export function notesForNext(db: Db, most: number): Promise<NoteRow[]> {
  return db
    .selectFrom('log_entries as e')
    .innerJoin('builds as b', 'b.id', 'e.build_id')
    .select(['e.id as id', 'e.at as at', 'e.data as data', 'b.id as build', 'b.name as name', 'b.clay as clay'])
    .where('e.kind', '=', 'note')
    .where(sql<number>`json_extract(e.data, '$.forNext')`, '=', 1)
    .where('b.deleted_at', 'is', null)
    .where(({ not, exists, selectFrom }) =>
      not(exists(selectFrom('log_entries as later').select('later.id').whereRef('later.corrects', '=', 'e.id'))),
    )
    .orderBy('e.at', 'desc')
    .orderBy('e.id')
    .limit(most)
    .execute();
}

/** An entry by its id, in whichever log it stands. */
export function findLogEntry(db: Db, id: string): Promise<(LogRow & { readonly buildId: string }) | undefined> {
  return db
    .selectFrom('log_entries')
    .select([...columns, 'build_id as buildId'])
    .where('id', '=', id)
    .executeTakeFirst();
}

/** How many entries there are and when the last was written, by build: whether anything was added. */
export async function logStamps(db: Db): Promise<Map<string, string>> {
  const rows = await db
    .selectFrom('log_entries')
    .select(({ fn }) => ['build_id', fn.countAll().as('count'), fn.max('recorded_at').as('last')])
    .groupBy('build_id')
    .execute();
  return new Map(rows.map((r) => [r.build_id, `${String(r.count)}:${String(r.last)}`]));
}

/** Writes an entry once. False where one of this id is there already; nothing is changed then. */
export async function addLogEntry(
  db: Db,
  buildId: string,
  e: Omit<LogRow, 'recordedAt'>,
  now: string,
): Promise<boolean> {
  const done = await db
    .insertInto('log_entries')
    .values({
      id: e.id,
      build_id: buildId,
      kind: e.kind,
      at: e.at,
      data: e.data,
      corrects: e.corrects,
      own_time: e.ownTime,
      recorded_at: now,
      written: sql<number>`(select coalesce(max(written), 0) + 1 from log_entries)`,
    })
    .onConflict((c) => c.column('id').doNothing())
    .executeTakeFirst();
  return done.numInsertedOrUpdatedRows === 1n;
}

export interface PictureRow {
  readonly id: string;
  readonly hash: string;
  readonly width: number;
  readonly height: number;
  readonly size: number;
}

/** Once. False where one of this id is there already; nothing is changed then. */
export async function addPicture(db: Db, buildId: string, p: PictureRow): Promise<boolean> {
  const done = await db
    .insertInto('pictures')
    .values({ ...p, build_id: buildId })
    .onConflict((c) => c.column('id').doNothing())
    .executeTakeFirst();
  return done.numInsertedOrUpdatedRows === 1n;
}

/** A picture by its id, of whichever build. */
export function findPicture(db: Db, id: string): Promise<(PictureRow & { readonly buildId: string }) | undefined> {
  return db
    .selectFrom('pictures')
    .select(['id', 'hash', 'width', 'height', 'size', 'build_id as buildId'])
    .where('id', '=', id)
    .executeTakeFirst();
}

export function listPictures(db: Db, buildId?: string): Promise<(PictureRow & { readonly build_id: string })[]> {
  const all = db.selectFrom('pictures').select(['id', 'build_id', 'hash', 'width', 'height', 'size']).orderBy('id');
  return (buildId === undefined ? all : all.where('build_id', '=', buildId)).execute();
}

/** Pictures still kept whole in the database, one at a time. */
export function firstWholePhoto(db: Db): Promise<{ id: string; build_id: string; bytes: Buffer } | undefined> {
  return db.selectFrom('photos').select(['id', 'build_id', 'bytes']).orderBy('id').executeTakeFirst();
}

export async function photoMovedOut(db: Db, buildId: string, p: PictureRow | null, id: string): Promise<void> {
  await inTransaction(db, async (trx) => {
    if (p)
      await trx
        .insertInto('pictures')
        .values({ ...p, build_id: buildId })
        .onConflict((c) => c.column('id').doNothing())
        .execute();
    await trx.deleteFrom('photos').where('id', '=', id).execute();
  });
}

export async function readSetting(db: Db, key: string): Promise<string | undefined> {
  return (await db.selectFrom('settings').select('value').where('key', '=', key).executeTakeFirst())?.value;
}

export async function writeSetting(db: Db, key: string, value: string): Promise<void> {
  await db
    .insertInto('settings')
    .values({ key, value })
    .onConflict((c) => c.column('key').doUpdateSet({ value }))
    .execute();
}

export async function settingKeys(db: Db): Promise<string[]> {
  return (await db.selectFrom('settings').select('key').orderBy('key').execute()).map((r) => r.key);
}

export async function renameSetting(db: Db, from: string, to: string): Promise<void> {
  await db.updateTable('settings').set({ key: to }).where('key', '=', from).execute();
}
