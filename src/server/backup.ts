import { randomUUID } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, statSync } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { failure, success, type Result } from '../core/quantity';
import * as db from '../db';
import { readArchive, writeArchive } from './archive';
import { clearUnusedPictures, pictureFile, pictureFolder, pictureType } from './pictures';
import { dataFolder, database } from './store';

/** Everything there is in one file, made while people work; and back, checked whole before anything is changed. */
export interface BackupDone {
  readonly file: string;
  readonly bytes: number;
  readonly builds: number;
  readonly entries: number;
  readonly pictures: number;
  readonly content: string;
}

async function counts(store: db.Db): Promise<{ builds: number; entries: number; pictures: number }> {
  const n = async (table: 'builds' | 'log_entries' | 'pictures') =>
    Number(
      (
        await store
          .selectFrom(table)
          .select((e) => e.fn.countAll().as('n'))
          .executeTakeFirst()
      )?.n ?? 0,
    );
  return { builds: await n('builds'), entries: await n('log_entries'), pictures: await n('pictures') };
}

export async function backup(file: string): Promise<Result<BackupDone>> {
  const to = path.resolve(file);
  if (!existsSync(path.dirname(to))) return failure('unwritable', 'the file', 'the folder it is to go to is not there');
  if (existsSync(to)) return failure('exists', 'the file', 'there is a file of this name already: give it another');
  const folder = mkdtempSync(path.join(os.tmpdir(), 'sostegno-backup-'));
  try {
    const snapshot = path.join(folder, 'sostegno.db');
    // The snapshot first: a picture is written before the row that names it, so every one it names is there.
    await db.snapshotTo(await database(), snapshot);
    const kept = await db.openDatabase(snapshot);
    let content: string, pictures: readonly { readonly hash: string }[], found: Awaited<ReturnType<typeof counts>>;
    try {
      content = await db.contentHash(kept);
      pictures = await db.listPictures(kept);
      found = await counts(kept);
    } finally {
      await kept.destroy();
    }
    const hashes = [...new Set(pictures.map((p) => p.hash))];
    const lost = hashes.filter((h) => !existsSync(pictureFile(h)));
    if (lost.length > 0)
      return failure(
        'incomplete',
        'the pictures',
        `${lost.length} picture files that the log names are missing from the data folder`,
      );
    await writeArchive(
      to,
      'backup',
      content,
      [
        { name: 'sostegno.db', from: snapshot },
        ...hashes.map((h) => ({ name: `pictures/${h}.jpg`, from: pictureFile(h) })),
      ],
      new Date().toISOString(),
    );
    return success({ file: to, bytes: statSync(to).size, ...found, content });
  } catch (error) {
    return failure('unwritable', 'the file', `it could not be written (${(error as Error).message})`);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const ownTriggers = new Set(['log_is_kept']);

/** What is in the database file, made ready to be taken over; a failure where it is not whole or not ours. */
async function readyToTakeOver(file: string, content: string): Promise<Result<Awaited<ReturnType<typeof counts>>>> {
  let store: db.Db;
  try {
    store = await db.openDatabase(file);
  } catch (error) {
    return failure('torn', 'sostegno.db', `it cannot be opened (${(error as Error).message}): nothing was changed`);
  }
  try {
    const fault = await db.faultIn(store);
    if (fault) return failure('torn', 'sostegno.db', `it is damaged (${fault}): nothing was changed`);
    const strange = (await db.triggersIn(store)).filter((t) => !ownTriggers.has(t));
    if (strange.length > 0)
      return failure(
        'not-ours',
        'sostegno.db',
        `it holds something that acts by itself (${strange[0] ?? ''}): nothing was changed`,
      );
    if (db.comparable(content) && (await db.contentHash(store)) !== content)
      return failure('torn', 'sostegno.db', 'its content is not what was backed up: nothing was changed');
    return success(await counts(store));
  } finally {
    await store.destroy();
  }
}

export interface RestoreDone {
  readonly builds: number;
  readonly entries: number;
  readonly pictures: number;
  readonly content: string;
  /** Where what was there before is kept. */
  readonly before: string;
}

/** Puts a backup in the place of everything there is, which is backed up first. */
export async function restore(file: string): Promise<Result<RestoreDone>> {
  mkdirSync(dataFolder(), { recursive: true });
  // Beside the database, so that pictures are moved and not copied between disks.
  const folder = path.join(dataFolder(), `restore-${randomUUID()}`);
  mkdirSync(folder);
  try {
    const read = await readArchive(path.resolve(file), folder, 'backup');
    if (!read.ok) return read;
    const incoming = path.join(folder, 'sostegno.db');
    if (!existsSync(incoming)) return failure('torn', 'the file', 'there is no database in it: nothing was changed');
    const ready = await readyToTakeOver(incoming, read.value.content);
    if (!ready.ok) return ready;
    const pictures = read.value.files.filter((f) => f.name.startsWith('pictures/'));
    for (const p of pictures) {
      if (p.name !== `pictures/${p.sha256}.jpg`)
        return failure('torn', p.name, 'it is not named by what is in it: nothing was changed');
      if (pictureType(await readFile(path.join(folder, p.name))) !== 'jpeg')
        return failure('not-ours', p.name, 'it is not a picture: nothing was changed');
    }
    const before = path.join(dataFolder(), `before-restore-${new Date().toISOString().replace(/[:.]/g, '-')}.tar.gz`);
    const saved = await backup(before);
    if (!saved.ok) return saved;
    pictureFolder();
    for (const p of pictures)
      if (!existsSync(pictureFile(p.sha256))) copyFileSync(path.join(folder, p.name), pictureFile(p.sha256));
    const store = await database();
    await db.takeOver(store, incoming);
    const content = await db.contentHash(store);
    if (db.comparable(read.value.content) && content !== read.value.content)
      return failure(
        'differs',
        'the database',
        `what was put back is not what was backed up; what was there is in ${before}`,
      );
    await clearUnusedPictures(store);
    return success({ ...ready.value, content, before });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
