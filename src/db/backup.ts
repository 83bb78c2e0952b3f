import { createHash, randomInt } from 'node:crypto';
import { sql } from 'kysely';
import { openAsItIs, type Db } from './open';

/** Everything a backup holds, in an order in which each row comes after what it points at. */
export const keptTables = [
  'builds',
  'revisions',
  'log_entries',
  'pictures',
  'photos',
  'stock_moves',
  'settings',
  'dryings',
] as const;

/** A snapshot of the whole database in a file of its own, while it is used. The file must not be there yet. */
export async function snapshotTo(db: Db, file: string): Promise<void> {
  await sql`vacuum into ${file}`.execute(db);
}

/** Whole dryings can be worked out again and are most of the bytes; what they found stays, for other answers rest on it. */
export async function leaveOutDryings(snapshot: Db): Promise<void> {
  await sql`update dryings set bytes = x''`.execute(snapshot);
  await sql`vacuum`.execute(snapshot);
}

/**
 * How the content of a database is hashed: which tables, without which columns (what is worked out from the rest, or
 * numbered anew when put back). A hash begins with the name of its way, so that every backup is checked as it was made,
 * before its tables are brought up to date. A way that was ever used stays here; new columns need no new way.
 */
interface WayOfHashing {
  readonly begins: RegExp;
  readonly tables: readonly string[];
  readonly without: Readonly<Record<string, readonly string[]>>;
}

const firstTables = ['builds', 'revisions', 'log_entries', 'pictures', 'stock_moves', 'settings'] as const;
const workedOut = ['card', 'card_of', 'needs', 'needs_of', 'clay', 'size', 'active'];
const name = 'c3-';
const today: WayOfHashing = {
  begins: /^c3-/,
  tables: keptTables,
  without: { builds: workedOut, revisions: ['id'], dryings: ['bytes'] },
};
const ways: readonly WayOfHashing[] = [
  { begins: /^[0-9a-f]{64}$/, tables: firstTables, without: { revisions: ['id'] } },
  { begins: /^00[45]-/, tables: firstTables, without: { builds: workedOut, revisions: ['id'] } },
  today,
];

async function hashOf(db: Db, way: WayOfHashing): Promise<string> {
  const hash = createHash('sha256');
  for (const table of way.tables) {
    const { rows: columns } = await sql<{ name: string }>`select name from pragma_table_info(${table})`.execute(db);
    // A table that came later holds nothing in an earlier file.
    if (columns.length === 0 && way === today) continue;
    const kept = columns.map((c) => c.name).filter((c) => !way.without[table]?.includes(c));
    const { rows } = await sql<
      Record<string, unknown>
    >`select ${sql.join(kept.map((c) => sql.ref(c)))} from ${sql.table(table)}`.execute(db);
    const lines = rows.map((r) => JSON.stringify(Object.entries(r).sort(([a], [b]) => (a < b ? -1 : 1)))).sort();
    hash.update(`${table}:${lines.length}\n`);
    for (const line of lines) hash.update(line).update('\n');
  }
  return hash.digest('hex');
}

/** A hash of every row of every kept table: equal for equal content, whatever the file looks like inside. */
export async function contentHash(db: Db): Promise<string> {
  return `${name}${await hashOf(db, today)}`;
}

/** Whether the database holds what was hashed when it was backed up; false also where nobody knows how that was done. */
export async function holdsWhatWasBackedUp(db: Db, content: string): Promise<boolean> {
  const way = ways.find((w) => w.begins.test(content));
  return way !== undefined && (await hashOf(db, way)) === content.replace(/^.*-/, '');
}

/**
 * Which database this is: drawn anew at each restore, so that a page opened before it is known, whatever revision it knows.
 * Kept in the file's head, beside its content.
 */
export async function generationOf(db: Db): Promise<number> {
  const { rows } = await sql<{ user_version: number }>`pragma user_version`.execute(db);
  return rows[0]?.user_version ?? 0;
}

/** A number that was not drawn before, as far as anybody will see. */
export async function drawGeneration(db: Db): Promise<void> {
  await sql`pragma user_version = ${sql.raw(String(randomInt(1, 2 ** 31 - 1)))}`.execute(db);
}

/** SQLite's own look through the file; null when it is sound. */
export async function faultIn(db: Db): Promise<string | null> {
  try {
    const { rows } = await sql<{ integrity_check: string }>`pragma integrity_check(1)`.execute(db);
    const said = rows[0]?.integrity_check ?? 'no answer';
    return said === 'ok' ? null : said;
  } catch (error) {
    return (error as Error).message;
  }
}

/**
 * Puts the content of another database, already brought up to date, in the place of this one's, in one transaction.
 * Nobody else writes from before `before` is made, a snapshot of what was there, until it is done.
 */
export async function takeOver(db: Db, own: string, incoming: string, before: string): Promise<void> {
  await db.connection().execute(async (one) => {
    await sql`attach database ${incoming} as incoming`.execute(one);
    try {
      await sql`begin immediate`.execute(one);
      try {
        const reader = openAsItIs(own);
        try {
          await snapshotTo(reader, before);
        } finally {
          await reader.destroy();
        }
        await sql`pragma defer_foreign_keys = on`.execute(one);
        for (const table of [...keptTables].reverse()) await sql`delete from ${sql.table(table)}`.execute(one);
        for (const table of keptTables) {
          const { rows } = await sql<{ name: string }>`select name from pragma_table_info(${table})`.execute(one);
          const columns = sql.join(rows.map((r) => sql.ref(r.name)));
          await sql`insert into main.${sql.table(table)} (${columns}) select ${columns} from incoming.${sql.table(table)}`.execute(
            one,
          );
        }
        await drawGeneration(one);
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
