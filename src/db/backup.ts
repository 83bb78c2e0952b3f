import { createHash, randomInt } from 'node:crypto';
import { sql } from 'kysely';
import { databaseMigrations } from './migrations';
import type { Db } from './open';

/** Everything a backup holds, in an order in which each row comes after what it points at. Whole dryings are worked out again. */
export const keptTables = ['builds', 'revisions', 'log_entries', 'pictures', 'stock_moves', 'settings'] as const;

/** A snapshot of the whole database in a file of its own, while it is used. The file must not be there yet. */
export async function snapshotTo(db: Db, file: string): Promise<void> {
  await sql`vacuum into ${file}`.execute(db);
}

/** What is worked out from the rest, or numbered anew when put back. */
const notContent: Readonly<Record<string, readonly string[]>> = {
  builds: ['card', 'card_of', 'clay', 'size', 'active'],
  revisions: ['id'],
};
const layout = Object.keys(databaseMigrations).at(-1)!.slice(0, 3);

/** A content hash can be compared only with one of tables laid out alike; each begins with the step they stand at. */
export const comparable = (content: string): boolean => content.startsWith(`${layout}-`);

/**
 * Which database this is: drawn anew at each restore, so that a page opened before it is known, whatever revision it knows.
 * Kept in the file's head, beside its content.
 */
export async function generationOf(db: Db): Promise<number> {
  const { rows } = await sql<{ user_version: number }>`pragma user_version`.execute(db);
  return rows[0]?.user_version ?? 0;
}

/** A hash of every row of every kept table: equal for equal content, whatever the file looks like inside. */
export async function contentHash(db: Db): Promise<string> {
  const hash = createHash('sha256');
  for (const table of keptTables) {
    const { rows } = await sql<Record<string, unknown>>`select * from ${sql.table(table)}`.execute(db);
    const lines = rows
      .map((r) =>
        JSON.stringify(
          Object.entries(r)
            .filter(([k]) => !notContent[table]?.includes(k))
            .sort(([a], [b]) => (a < b ? -1 : 1)),
        ),
      )
      .sort();
    hash.update(`${table}:${lines.length}\n`);
    for (const line of lines) hash.update(line).update('\n');
  }
  return `${layout}-${hash.digest('hex')}`;
}

/** SQLite's own look through the file; null when it is sound. */
export async function faultIn(db: Db): Promise<string | null> {
  const { rows } = await sql<{ integrity_check: string }>`pragma integrity_check(1)`.execute(db);
  const said = rows[0]?.integrity_check ?? 'no answer';
  return said === 'ok' ? null : said;
}

/** Puts the content of another database, already brought up to date, in the place of this one's, in one transaction. */
export async function takeOver(db: Db, file: string): Promise<void> {
  await db.connection().execute(async (one) => {
    await sql`attach database ${file} as incoming`.execute(one);
    try {
      await sql`begin immediate`.execute(one);
      try {
        await sql`pragma defer_foreign_keys = on`.execute(one);
        for (const table of ['dryings', 'photos', ...[...keptTables].reverse()])
          await sql`delete from ${sql.table(table)}`.execute(one);
        for (const table of keptTables) {
          const { rows } = await sql<{ name: string }>`select name from pragma_table_info(${table})`.execute(one);
          const columns = sql.join(rows.map((r) => sql.ref(r.name)));
          await sql`insert into main.${sql.table(table)} (${columns}) select ${columns} from incoming.${sql.table(table)}`.execute(
            one,
          );
        }
        // A number that was not drawn before, as far as anybody will see.
        await sql`pragma user_version = ${sql.raw(String(randomInt(1, 2 ** 31 - 1)))}`.execute(one);
        await sql`commit`.execute(one);
      } catch (error) {
        await sql`rollback`.execute(one);
        throw error;
      }
    } finally {
      await sql`detach database incoming`.execute(one);
    }
  });
}

/** Names of triggers and views: what in a database file acts by itself. */
export async function triggersIn(db: Db): Promise<string[]> {
  const { rows } = await sql<{
    name: string;
  }>`select name from sqlite_master where type in ('trigger', 'view')`.execute(db);
  return rows.map((r) => r.name);
}
