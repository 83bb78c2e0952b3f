import { sql } from 'kysely';
import { inTransaction, type Db } from './open';

export interface BuildRow {
  readonly id: string;
  readonly name: string;
  readonly document: string;
  readonly schemaVersion: number;
  readonly revision: number;
  readonly history: string;
  readonly versionOf: string | null;
  readonly updatedAt: string;
  readonly archivedAt: string | null;
}

const columns = [
  'id',
  'name',
  'document',
  'schema_version as schemaVersion',
  'revision',
  'history',
  'version_of as versionOf',
  'updated_at as updatedAt',
  'archived_at as archivedAt',
] as const;

/** What lists show of a build; neither its document nor its card is read. */
export interface ListedBuild {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly cardOf: string;
  readonly clay: string;
  readonly size: number;
  readonly active: number;
  readonly versionOf: string | null;
  readonly updatedAt: string;
  readonly archivedAt: string | null;
}

export function listBuilds(db: Db): Promise<ListedBuild[]> {
  return db
    .selectFrom('builds')
    .select([
      'id',
      'name',
      'revision',
      'card_of as cardOf',
      'clay',
      'size',
      'active',
      'version_of as versionOf',
      'updated_at as updatedAt',
      'archived_at as archivedAt',
    ])
    .where('deleted_at', 'is', null)
    .orderBy('updated_at', 'desc')
    .orderBy('id')
    .execute();
}

/** Cards as they are kept, by build; empty where there is none yet. */
export async function findCards(db: Db, ids: readonly string[]): Promise<Map<string, string>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .selectFrom('builds')
    .select(['id', 'card'])
    .where('id', 'in', [...ids])
    .where('deleted_at', 'is', null)
    .execute();
  return new Map(rows.map((r) => [r.id, r.card]));
}

/** What builds need of materials, as it is kept; documents are not read. */
export function listNeeds(
  db: Db,
): Promise<{ readonly id: string; readonly needs: string; readonly needsOf: string }[]> {
  return db
    .selectFrom('builds')
    .select(['id', 'needs', 'needs_of as needsOf'])
    .where('deleted_at', 'is', null)
    .where('archived_at', 'is', null)
    .where('version_of', 'is', null)
    .execute();
}

export async function putNeeds(db: Db, id: string, updatedAt: string, needs: string, of: string): Promise<void> {
  await db
    .updateTable('builds')
    .set({ needs, needs_of: of })
    .where('id', '=', id)
    .where('updated_at', '=', updatedAt)
    .execute();
}

/** What a save is judged by: the build's head, which build took a save of this id, and which database this is. */
export async function beforeSave(
  db: Db,
  id: string,
  saveId: string,
): Promise<
  | {
      readonly name: string;
      readonly versionOf: string | null;
      readonly taken: { readonly buildId: string; readonly revision: number } | null;
      readonly generation: number;
    }
  | undefined
> {
  const row = await db
    .selectFrom('builds')
    .leftJoin('revisions', (j) => j.on('revisions.save_id', '=', saveId).on('revisions.save_id', '!=', ''))
    .select([
      'name',
      'version_of as versionOf',
      'revisions.build_id as takenBy',
      'revisions.revision as takenAs',
      sql<number>`(select user_version from pragma_user_version)`.as('generation'),
    ])
    .where('builds.id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!row) return undefined;
  const { name, versionOf, takenBy, takenAs, generation } = row;
  return {
    name,
    versionOf,
    generation,
    taken: takenBy === null ? null : { buildId: takenBy, revision: takenAs ?? 0 },
  };
}

/** Puts a card in, unless the build was saved meanwhile. */
export async function putCard(db: Db, id: string, updatedAt: string, card: string, cardOf: string): Promise<void> {
  await db
    .updateTable('builds')
    .set({ card, card_of: cardOf })
    .where('id', '=', id)
    .where('updated_at', '=', updatedAt)
    .execute();
}

export function findBuild(db: Db, id: string): Promise<BuildRow | undefined> {
  return db
    .selectFrom('builds')
    .select(columns)
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
}

export interface NewBuild {
  readonly id: string;
  readonly versionOf: string | null;
  readonly name: string;
  readonly document: string;
  readonly schemaVersion: number;
  readonly clay: string;
  readonly size: number;
  readonly active: number;
  readonly label: string;
  readonly now: string;
  /** Of the save it was kept from, if it was. */
  readonly saveId?: string;
}

export async function insertBuild(db: Db, b: NewBuild): Promise<void> {
  await inTransaction(db, async (trx) => {
    await trx
      .insertInto('builds')
      .values({
        id: b.id,
        name: b.name,
        document: b.document,
        schema_version: b.schemaVersion,
        revision: 1,
        history: '{"past":[],"future":[]}',
        card: '',
        clay: b.clay,
        size: b.size,
        active: b.active,
        version_of: b.versionOf,
        created_at: b.now,
        updated_at: b.now,
        archived_at: null,
        deleted_at: null,
      })
      .execute();
    await trx
      .insertInto('revisions')
      .values({
        build_id: b.id,
        revision: 1,
        document: b.document,
        label: b.label,
        saved_at: b.now,
        save_id: b.saveId ?? '',
      })
      .execute();
  });
}

export interface SavedBuild {
  readonly id: string;
  readonly name: string;
  readonly document: string;
  readonly schemaVersion: number;
  readonly history: string;
  readonly clay: string;
  readonly size: number;
  readonly active: number;
  readonly label: string;
  /** The revision the save started from. */
  readonly from: number;
  readonly now: string;
  /** Of this save, and of those the same page sent before it and had no answer to. */
  readonly saveId: string;
  readonly mine: readonly string[];
}

/** What a save of this id held. */
export async function savedText(db: Db, saveId: string): Promise<string | undefined> {
  return (await db.selectFrom('revisions').select('document').where('save_id', '=', saveId).executeTakeFirst())
    ?.document;
}

/**
 * Compare and swap on the revision, in one transaction. Undefined when somebody else saved in between; what the same page
 * saved without hearing of it is no somebody else.
 */
export function saveBuild(db: Db, s: SavedBuild): Promise<number | undefined> {
  return inTransaction(db, async (trx) => {
    const { revision: now } = (await trx
      .selectFrom('builds')
      .select('revision')
      .where('id', '=', s.id)
      .executeTakeFirst()) ?? { revision: s.from };
    if (now > s.from) {
      const since = await trx
        .selectFrom('revisions')
        .select('save_id')
        .where('build_id', '=', s.id)
        .where('revision', '>', s.from)
        .execute();
      if (since.length !== now - s.from || !since.every((r) => s.mine.includes(r.save_id))) return undefined;
    }
    const from = Math.max(now, s.from);
    const done = await trx
      .updateTable('builds')
      .set({
        name: s.name,
        document: s.document,
        schema_version: s.schemaVersion,
        revision: from + 1,
        history: s.history,
        clay: s.clay,
        size: s.size,
        active: s.active,
        updated_at: s.now,
      })
      .where('id', '=', s.id)
      .where('revision', '=', from)
      .where('deleted_at', 'is', null)
      .executeTakeFirst();
    if (done.numUpdatedRows !== 1n) return undefined;
    await trx
      .insertInto('revisions')
      .values({
        build_id: s.id,
        revision: from + 1,
        document: s.document,
        label: s.label,
        saved_at: s.now,
        save_id: s.saveId,
      })
      .execute();
    return from + 1;
  });
}

export function listRevisions(
  db: Db,
  buildId: string,
): Promise<{ id: number; revision: number; label: string; savedAt: string }[]> {
  return db
    .selectFrom('revisions')
    .select(['id', 'revision', 'label', 'saved_at as savedAt'])
    .where('build_id', '=', buildId)
    .orderBy('revision', 'desc')
    .execute();
}

export async function revisionText(db: Db, id: number): Promise<string | undefined> {
  return (await db.selectFrom('revisions').select('document').where('id', '=', id).executeTakeFirst())?.document;
}

export async function dropRevisions(db: Db, ids: readonly number[]): Promise<void> {
  if (ids.length > 0)
    await db
      .deleteFrom('revisions')
      .where('id', 'in', [...ids])
      .execute();
}

/** True when there was such a build. `deletedAt` null brings it back. */
export async function markBuild(
  db: Db,
  id: string,
  mark: { archivedAt?: string | null; deletedAt?: string | null },
): Promise<boolean> {
  const set = {
    ...(mark.archivedAt !== undefined ? { archived_at: mark.archivedAt } : {}),
    ...(mark.deletedAt !== undefined ? { deleted_at: mark.deletedAt } : {}),
  };
  const done = await db.updateTable('builds').set(set).where('id', '=', id).executeTakeFirst();
  return done.numUpdatedRows === 1n;
}
