import Database from 'libsql';
import { Kysely, Migrator, SqliteDialect, type SqliteDatabase } from 'kysely';
import { databaseMigrations } from './migrations';
import type { Tables } from './tables';

export type Db = Kysely<Tables>;

/** Opens (making it if need be) and brings up to date the database in `file`. Throws with the failed step's own error. */
export async function openDatabase(file: string): Promise<Db> {
  const connection = new Database(file);
  connection.pragma('journal_mode = WAL');
  connection.pragma('synchronous = FULL');
  connection.pragma('foreign_keys = ON');
  connection.pragma('busy_timeout = 5000');
  const db = new Kysely<Tables>({ dialect: new SqliteDialect({ database: connection as unknown as SqliteDatabase }) });
  const migrator = new Migrator({ db, provider: { getMigrations: () => Promise.resolve(databaseMigrations) } });
  const { error } = await migrator.migrateToLatest();
  if (error) {
    await db.destroy();
    throw error instanceof Error
      ? error
      : new Error(`the database could not be brought up to date: ${JSON.stringify(error)}`);
  }
  return db;
}
