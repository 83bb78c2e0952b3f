import { inTransaction, type Db } from './open';

/** One drying a key; older ones of the same build beyond `keep` go. */
export async function keepDrying(
  db: Db,
  d: { buildId: string; key: string; revision: number; bytes: Buffer; findings: string | null; now: string },
  keep: number,
): Promise<void> {
  await inTransaction(db, async (trx) => {
    await trx
      .insertInto('dryings')
      .values({
        build_id: d.buildId,
        key: d.key,
        revision: d.revision,
        bytes: d.bytes,
        findings: d.findings,
        made_at: d.now,
      })
      .onConflict((c) =>
        c
          .columns(['build_id', 'key'])
          .doUpdateSet({ bytes: d.bytes, revision: d.revision, findings: d.findings, made_at: d.now }),
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
  // A backup keeps what a drying found and leaves the drying itself out.
  return row && row.bytes.byteLength > 0 ? Buffer.from(row.bytes) : null;
}

/** What the last drying of the whole found, whatever the build has become since; JSON. */
export async function lastFindings(db: Db, buildId: string): Promise<string | null> {
  const row = await db
    .selectFrom('dryings')
    .select('findings')
    .where('build_id', '=', buildId)
    .where('findings', 'is not', null)
    .orderBy('made_at', 'desc')
    .limit(1)
    .executeTakeFirst();
  return row?.findings ?? null;
}

export async function dryingStamps(db: Db): Promise<Map<string, string>> {
  const rows = await db
    .selectFrom('dryings')
    .select(({ fn }) => ['build_id', fn.max('made_at').as('last')])
    .where('findings', 'is not', null)
    .groupBy('build_id')
    .execute();
  return new Map(rows.map((r) => [r.build_id, String(r.last)]));
}
