import type { Db } from './open';

export interface LogRow {
  readonly id: string;
  readonly kind: string;
  readonly at: string;
  readonly data: string;
  readonly corrects: string | null;
  readonly ownTime: number;
  readonly recordedAt: string;
}

export function listLog(db: Db, buildId: string): Promise<LogRow[]> {
  return db
    .selectFrom('log_entries')
    .select(['id', 'kind', 'at', 'data', 'corrects', 'own_time as ownTime', 'recorded_at as recordedAt'])
    .where('build_id', '=', buildId)
    .orderBy('at')
    .orderBy('recorded_at')
    .execute();
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

export async function hasLogEntry(db: Db, buildId: string, id: string): Promise<boolean> {
  return (
    (await db
      .selectFrom('log_entries')
      .select('id')
      .where('build_id', '=', buildId)
      .where('id', '=', id)
      .executeTakeFirst()) !== undefined
  );
}

/** Writes an entry once: the same id again changes nothing, so a bench that sends twice is safe. */
export async function addLogEntry(db: Db, buildId: string, e: Omit<LogRow, 'recordedAt'>, now: string): Promise<void> {
  await db
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
    })
    .onConflict((c) => c.column('id').doNothing())
    .execute();
}

export interface PictureRow {
  readonly id: string;
  readonly hash: string;
  readonly width: number;
  readonly height: number;
  readonly size: number;
}

/** Once: the same id again changes nothing. */
export async function addPicture(db: Db, buildId: string, p: PictureRow): Promise<void> {
  await db
    .insertInto('pictures')
    .values({ ...p, build_id: buildId })
    .onConflict((c) => c.column('id').doNothing())
    .execute();
}

export function findPicture(db: Db, buildId: string, id: string): Promise<PictureRow | undefined> {
  return db
    .selectFrom('pictures')
    .select(['id', 'hash', 'width', 'height', 'size'])
    .where('build_id', '=', buildId)
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
  await db.transaction().execute(async (trx) => {
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
