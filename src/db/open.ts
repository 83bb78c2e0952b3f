import { existsSync } from 'node:fs';
import Database from 'libsql';
import { Kysely, Migrator, SqliteDialect, type SqliteDatabase, type SqliteStatement } from 'kysely';
import { databaseMigrations } from './migrations';
import type { Tables } from './tables';

export type Db = Kysely<Tables>;

/** The database was written by a later version than this one. */
export class NewerDatabase extends Error {
  constructor(step: string) {
    super(`it was written by a later version of Sostegno (its step ${step} is not known here)`);
  }
}

/** Opens a database file that is there as it stands: nothing is brought up to date. */
export function openAsItIs(file: string): Db {
  if (!existsSync(file)) throw new Error('there is no database file');
  const connection = new Database(file);
  connection.pragma('busy_timeout = 5000');
  return overConnection(connection);
}

function overConnection(connection: Database.Database): Db {
  return new Kysely<Tables>({ dialect: new SqliteDialect({ database: preparedOnce(connection) }) });
}

/** Statements by their text: the same few are asked over and over, and preparing one costs as much as running it. */
const mostPrepared = 200;

function preparedOnce(connection: Database.Database): SqliteDatabase {
  const known = new Map<string, Database.Statement>();
  return {
    close: () => connection.close(),
    prepare: (text: string) => {
      let statement = known.get(text);
      if (!statement) {
        statement = connection.prepare(text);
        // Only what reads and writes rows: what changes the database itself is asked once.
        if (!/^\s*(select|insert|update|delete)\b/i.test(text)) return statement as unknown as SqliteStatement;
        if (known.size >= mostPrepared) known.clear();
        known.set(text, statement);
      }
      return statement as unknown as SqliteStatement;
    },
  };
}

/**
 * Opens (making it if need be) and brings up to date the database in `file`. Throws NewerDatabase, or the failed step's
 * own error.
 */
export async function openDatabase(file: string): Promise<Db> {
  const connection = new Database(file);
  try {
    connection.pragma('journal_mode = WAL');
    connection.pragma('synchronous = FULL');
    connection.pragma('foreign_keys = ON');
    connection.pragma('busy_timeout = 5000');
  } catch (error) {
    connection.close();
    throw error;
  }
  const db = overConnection(connection);
  const migrator = new Migrator({ db, provider: { getMigrations: () => Promise.resolve(databaseMigrations) } });
  const { error } = await migrator.migrateToLatest();
  if (error) {
    await db.destroy();
    const unknown = /previously executed migration (\S+) is missing/.exec(error instanceof Error ? error.message : '');
    if (unknown) throw new NewerDatabase(unknown[1] ?? '');
    throw error instanceof Error
      ? error
      : new Error(`the database could not be brought up to date: ${JSON.stringify(error)}`);
  }
  return db;
}

/** In a transaction: of its own, or in the one `db` already is. */
export function inTransaction<T>(db: Db, work: (trx: Db) => Promise<T>): Promise<T> {
  return db.isTransaction ? work(db) : db.transaction().execute(work);
}
