import { sql, type Kysely, type Migration } from 'kysely';

/**
 * Numbered steps, oldest first; never edited once released. SQLite is not given a transaction by the migrator,
 * so each step takes its own.
 */
async function inTransaction(db: Kysely<unknown>, work: (trx: Kysely<unknown>) => Promise<void>): Promise<void> {
  await db.transaction().execute(work);
}

export const databaseMigrations: Record<string, Migration> = {
  '001-first': {
    up: (db) =>
      inTransaction(db, async (trx) => {
        await trx.schema
          .createTable('builds')
          .addColumn('id', 'text', (c) => c.primaryKey())
          .addColumn('name', 'text', (c) => c.notNull())
          .addColumn('document', 'text', (c) => c.notNull())
          .addColumn('schema_version', 'integer', (c) => c.notNull())
          .addColumn('revision', 'integer', (c) => c.notNull())
          .addColumn('history', 'text', (c) => c.notNull())
          .addColumn('card', 'text', (c) => c.notNull())
          .addColumn('created_at', 'text', (c) => c.notNull())
          .addColumn('updated_at', 'text', (c) => c.notNull())
          .addColumn('archived_at', 'text')
          .addColumn('deleted_at', 'text')
          .execute();
        await trx.schema
          .createTable('revisions')
          .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
          .addColumn('build_id', 'text', (c) => c.notNull().references('builds.id').onDelete('cascade'))
          .addColumn('revision', 'integer', (c) => c.notNull())
          .addColumn('document', 'text', (c) => c.notNull())
          .addColumn('label', 'text', (c) => c.notNull())
          .addColumn('saved_at', 'text', (c) => c.notNull())
          .execute();
        await trx.schema.createIndex('revisions_by_build').on('revisions').columns(['build_id', 'revision']).execute();
        await trx.schema
          .createTable('log_entries')
          .addColumn('id', 'text', (c) => c.primaryKey())
          .addColumn('build_id', 'text', (c) => c.notNull().references('builds.id').onDelete('cascade'))
          .addColumn('kind', 'text', (c) => c.notNull())
          .addColumn('at', 'text', (c) => c.notNull())
          .addColumn('data', 'text', (c) => c.notNull())
          .addColumn('corrects', 'text', (c) => c.references('log_entries.id'))
          .addColumn('recorded_at', 'text', (c) => c.notNull())
          .execute();
        await trx.schema.createIndex('log_by_build').on('log_entries').columns(['build_id', 'at']).execute();
        // The log is append-only: what was written stays.
        await sql`create trigger log_is_kept before update on log_entries begin select raise(abort, 'the log is append-only'); end`.execute(
          trx,
        );
        await trx.schema
          .createTable('photos')
          .addColumn('id', 'text', (c) => c.primaryKey())
          .addColumn('build_id', 'text', (c) => c.notNull().references('builds.id').onDelete('cascade'))
          .addColumn('mime', 'text', (c) => c.notNull())
          .addColumn('bytes', 'blob', (c) => c.notNull())
          .execute();
        await trx.schema
          .createTable('settings')
          .addColumn('key', 'text', (c) => c.primaryKey())
          .addColumn('value', 'text', (c) => c.notNull())
          .execute();
      }),
  },
  '002-dryings': {
    up: (db) =>
      inTransaction(db, async (trx) => {
        await trx.schema
          .createTable('dryings')
          .addColumn('build_id', 'text', (c) => c.notNull().references('builds.id').onDelete('cascade'))
          .addColumn('key', 'text', (c) => c.notNull())
          .addColumn('revision', 'integer', (c) => c.notNull())
          .addColumn('bytes', 'blob', (c) => c.notNull())
          .addColumn('made_at', 'text', (c) => c.notNull())
          .addPrimaryKeyConstraint('dryings_by_key', ['build_id', 'key'])
          .execute();
      }),
  },
  '003-pictures-and-stock': {
    up: (db) =>
      inTransaction(db, async (trx) => {
        // The pictures themselves are files beside the database, named by what is in them.
        await trx.schema
          .createTable('pictures')
          .addColumn('id', 'text', (c) => c.primaryKey())
          .addColumn('build_id', 'text', (c) => c.notNull().references('builds.id').onDelete('cascade'))
          .addColumn('hash', 'text', (c) => c.notNull())
          .addColumn('width', 'integer', (c) => c.notNull())
          .addColumn('height', 'integer', (c) => c.notNull())
          .addColumn('size', 'integer', (c) => c.notNull())
          .execute();
        await trx.schema
          .createTable('stock_moves')
          .addColumn('id', 'text', (c) => c.primaryKey())
          .addColumn('item', 'text', (c) => c.notNull())
          .addColumn('kind', 'text', (c) => c.notNull())
          .addColumn('amount', 'real', (c) => c.notNull())
          .addColumn('price', 'real')
          .addColumn('build_id', 'text', (c) => c.references('builds.id').onDelete('set null'))
          .addColumn('note', 'text', (c) => c.notNull())
          .addColumn('at', 'text', (c) => c.notNull())
          .execute();
        await trx.schema.createIndex('stock_by_item').on('stock_moves').columns(['item', 'at']).execute();
      }),
  },
  '004-lists-and-findings': {
    up: (db) =>
      inTransaction(db, async (trx) => {
        // What lists show stands in columns of its own; documents are read when a build is opened.
        await trx.schema
          .alterTable('builds')
          .addColumn('clay', 'text', (c) => c.notNull().defaultTo(''))
          .execute();
        await trx.schema
          .alterTable('builds')
          .addColumn('size', 'real', (c) => c.notNull().defaultTo(1))
          .execute();
        await trx.schema
          .alterTable('builds')
          .addColumn('active', 'integer', (c) => c.notNull().defaultTo(0))
          .execute();
        await trx.schema
          .alterTable('builds')
          .addColumn('card_of', 'text', (c) => c.notNull().defaultTo(''))
          .execute();
        // Another version of a build, kept from a save that came too late: it takes nothing from stock.
        await trx.schema.alterTable('builds').addColumn('version_of', 'text').execute();
        await sql`update builds set clay = coalesce(json_extract(document, '$.brief.clay'), ''),
          size = coalesce(json_extract(document, '$.form.start.size'), 1),
          active = coalesce(json_extract(document, '$.plan.active'), 0)`.execute(trx);
        await trx.schema
          .alterTable('log_entries')
          .addColumn('own_time', 'integer', (c) => c.notNull().defaultTo(0))
          .execute();
        await trx.schema.alterTable('dryings').addColumn('findings', 'text').execute();
      }),
  },
  '005-saves-by-id': {
    up: (db) =>
      inTransaction(db, async (trx) => {
        // The id the page gave its save: one whose answer was lost is known again when it comes a second time.
        await trx.schema
          .alterTable('revisions')
          .addColumn('save_id', 'text', (c) => c.notNull().defaultTo(''))
          .execute();
        await trx.schema.createIndex('revisions_by_save').on('revisions').columns(['save_id']).execute();
      }),
  },
  '006-log-in-its-order': {
    up: (db) =>
      inTransaction(db, async (trx) => {
        // What was written after what is counted: clocks jump, and a correction may stand at an earlier hour.
        await trx.schema
          .alterTable('log_entries')
          .addColumn('written', 'integer', (c) => c.notNull().defaultTo(0))
          .execute();
        await sql`drop trigger if exists log_is_kept`.execute(trx);
        await sql`update log_entries set written = rowid`.execute(trx);
        await sql`create trigger log_is_kept before update on log_entries begin select raise(abort, 'the log is append-only'); end`.execute(
          trx,
        );
        await trx.schema.createIndex('log_as_written').on('log_entries').columns(['build_id', 'written']).execute();
        await trx.schema.createIndex('log_written').on('log_entries').columns(['written']).execute();
      }),
  },
  '007-needs-kept': {
    up: (db) =>
      inTransaction(db, async (trx) => {
        // What a build needs of materials, and what that was worked out from: stock is told without working it out again.
        for (const column of ['needs', 'needs_of'])
          await trx.schema
            .alterTable('builds')
            .addColumn(column, 'text', (c) => c.notNull().defaultTo(''))
            .execute();
      }),
  },
};
