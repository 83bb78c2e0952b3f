import type { Db } from './open';

/** One drying a key; older ones of the same build beyond `keep` go. */
export async function keepDrying(
  db: Db,
  d: { buildId: string; key: string; revision: number; bytes: Buffer; now: string },
  keep: number,
): Promise<void> {
  await db.transaction().execute(async (trx) => {
    await trx
      .insertInto('dryings')
      .values({ build_id: d.buildId, key: d.key, revision: d.revision, bytes: d.bytes, made_at: d.now })
      .onConflict((c) =>
        c.columns(['build_id', 'key']).doUpdateSet({ bytes: d.bytes, revision: d.revision, made_at: d.now }),
      )
      .execute();
    const old = await trx
      .selectFrom('dryings')
      .select('key')
      .where('build_id', '=', d.buildId)
      .orderBy('made_at', 'desc')
      .offset(keep)
      .limit(100)
      .execute();
    if (old.length > 0)
      await trx
        .deleteFrom('dryings')
        .where('build_id', '=', d.buildId)
        .where(
          'key',
          'in',
          old.map((o) => o.key),
        )
        .execute();
  });
}

export async function findDrying(db: Db, buildId: string, key: string): Promise<Buffer | null> {
  const row = await db
    .selectFrom('dryings')
    .select('bytes')
    .where('build_id', '=', buildId)
    .where('key', '=', key)
    .executeTakeFirst();
  return row ? Buffer.from(row.bytes) : null;
}
