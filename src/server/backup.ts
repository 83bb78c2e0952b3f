import { copyFileSync, existsSync, linkSync, mkdirSync, readdirSync, renameSync, statSync } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import path from 'node:path';
import { failure, success, type Failure, type Result } from '../core/quantity';
import * as db from '../db';
import { readArchive, writeArchive } from './archive';
import { copyDatabase, diskFailure, noRoomFor, workFolder } from './disk';
import { clearUnusedPictures, pictureFile, pictureFolder, pictureType } from './pictures';
import {
  beginRestore,
  closeDatabase,
  damaged,
  database,
  databaseFile,
  dataFolder,
  rememberBackup,
  Unusable,
} from './store';

/** Everything there is in one file, made while people work; and back, checked whole before anything is changed. */
interface Counts {
  readonly builds: number;
  readonly entries: number;
  readonly pictures: number;
}

/** A picture that the log names and that is not in the backup, or not in what was put back. */
export interface LostPicture {
  /** Of the piece whose log names it. */
  readonly build: string;
  readonly picture: string;
  readonly why: 'missing' | 'damaged';
}

export interface BackupDone extends Counts {
  readonly file: string;
  readonly bytes: number;
  readonly content: string;
  readonly lost: readonly LostPicture[];
}

async function counts(store: db.Db): Promise<Counts> {
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

/** What is wrong with the file of a picture named by its hash; null where it is whole. */
async function faultOfPicture(file: string, hash: string): Promise<LostPicture['why'] | null> {
  try {
    const bytes = await readFile(file);
    return createHash('sha256').update(bytes).digest('hex') === hash && pictureType(bytes) === 'jpeg'
      ? null
      : 'damaged';
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return 'missing';
    throw error;
  }
}

interface Sorted {
  readonly whole: readonly string[];
  readonly lost: readonly LostPicture[];
}

/** Pictures that a database names, by whether their files are whole. */
async function sortPictures(store: db.Db, fileOf: (hash: string) => string): Promise<Sorted> {
  const faults = new Map<string, LostPicture['why'] | null>();
  const lost: LostPicture[] = [];
  for (const p of await db.listPictures(store)) {
    if (!faults.has(p.hash)) faults.set(p.hash, await faultOfPicture(fileOf(p.hash), p.hash));
    const why = faults.get(p.hash);
    if (why) lost.push({ build: (await db.findBuild(store, p.build_id))?.name ?? p.build_id, picture: p.id, why });
  }
  return { whole: [...faults].filter(([, fault]) => fault === null).map(([hash]) => hash), lost };
}

const sizeOf = (file: string): number => statSync(file, { throwIfNoEntry: false })?.size ?? 0;

/** Whole dryings are left out unless they are asked for: they can be worked out again. */
export async function backup(file: string, dryings = false): Promise<Result<BackupDone>> {
  const to = path.resolve(file);
  if (!existsSync(path.dirname(to))) return failure('unwritable', 'the file', 'the folder it is to go to is not there');
  if (existsSync(to)) return failure('exists', 'the file', 'there is a file of this name already: give it another');
  try {
    const store = await database();
    const work = workFolder(path.dirname(to), 'backup', dataFolder());
    try {
      return await backupInto(store, to, work.folder, dryings);
    } finally {
      work.end();
    }
  } catch (error) {
    const disk = diskFailure(error, path.dirname(to));
    if (disk?.code === 'damaged') return damaged((error as Error).message, databaseFile());
    return disk ?? failure('unwritable', 'the file', `it could not be written (${(error as Error).message})`);
  }
}

async function backupInto(store: db.Db, to: string, folder: string, dryings: boolean): Promise<Result<BackupDone>> {
  const snapshot = path.join(folder, 'sostegno.db');
  const pictureBytes = (await db.listPictures(store)).reduce((sum, p) => sum + p.size, 0);
  const full = noRoomFor(2 * sizeOf(databaseFile()) + pictureBytes, folder);
  if (full) return full;
  // The snapshot first: a picture is written before the row that names it, so every one it names is there.
  await db.snapshotTo(store, snapshot);
  const kept = db.openAsItIs(snapshot);
  let content: string, sorted: Sorted, found: Counts;
  try {
    if (!dryings) await db.leaveOutDryings(kept);
    const fault = await db.faultIn(kept);
    if (fault) return damaged(fault, databaseFile());
    content = await db.contentHash(kept);
    sorted = await sortPictures(kept, pictureFile);
    found = await counts(kept);
  } finally {
    await kept.destroy();
  }
  const made = new Date().toISOString();
  const half = path.join(folder, 'backup.tar.gz');
  await writeArchive(
    half,
    'backup',
    content,
    [
      { name: 'sostegno.db', from: snapshot },
      ...sorted.whole.map((h) => ({ name: `pictures/${h}.jpg`, from: pictureFile(h) })),
    ],
    made,
  );
  // Read back from the disk: only what comes back as it went in is a backup.
  const proven = await readArchive(half, null, 'backup');
  if (!proven.ok)
    return failure(
      'unproven',
      'the file',
      `read back, it was not what had been written (${proven.message}): is the disk sound? No backup was made`,
    );
  renameSync(half, to);
  rememberBackup({ file: to, made });
  return success({ file: to, bytes: sizeOf(to), ...found, content, lost: sorted.lost });
}

const ownTriggers = new Set(['log_is_kept']);

/** What is in the database file, made ready to be taken over; a failure where it is not whole or not ours. */
async function readyToTakeOver(file: string, content: string | null): Promise<Result<null>> {
  const asItIs = db.openAsItIs(file);
  try {
    const fault = await db.faultIn(asItIs);
    if (fault) return failure('torn', 'sostegno.db', `it is damaged (${fault}): nothing was changed`);
    const strange = (await db.triggersIn(asItIs)).filter((t) => !ownTriggers.has(t));
    if (strange.length > 0)
      return failure(
        'not-ours',
        'sostegno.db',
        `it holds something that acts by itself (${strange[0] ?? ''}): nothing was changed`,
      );
    // As it was backed up, before its tables are brought up to date.
    if (content !== null && !(await db.holdsWhatWasBackedUp(asItIs, content)))
      return failure('torn', 'sostegno.db', 'its content is not what was backed up: nothing was changed');
  } finally {
    await asItIs.destroy();
  }
  try {
    const store = await db.openDatabase(file);
    await db.drawGeneration(store);
    await store.destroy();
    return success(null);
  } catch (error) {
    if (error instanceof db.NewerDatabase)
      return failure('newer', 'sostegno.db', `${error.message}: restore it with that version. Nothing was changed`);
    return failure('torn', 'sostegno.db', `it cannot be opened (${(error as Error).message}): nothing was changed`);
  }
}

export interface RestoreDone extends Counts {
  readonly content: string;
  /** The folder in which what was there before is kept, as it was. */
  readonly before: string;
  readonly lost: readonly LostPicture[];
}

/**
 * Puts a backup in the place of everything there is: an archive, or a data folder that was set aside. What is there is set
 * aside first, as it is, whatever state it is in; nobody writes meanwhile.
 */
export async function restore(file: string): Promise<Result<RestoreDone>> {
  const data = dataFolder();
  try {
    mkdirSync(data, { recursive: true });
    const alone = beginRestore();
    if (!alone) return failure('busy', data, 'another backup is being put back just now');
    // Beside the database, so that pictures are moved and not copied between disks.
    const work = workFolder(data, 'restore', data);
    try {
      return await restoreFrom(path.resolve(file), work.folder);
    } finally {
      work.end();
      alone.end();
    }
  } catch (error) {
    const disk = diskFailure(error, data);
    if (disk) return disk;
    throw error;
  }
}

async function restoreFrom(file: string, folder: string): Promise<Result<RestoreDone>> {
  const unpacked = statSync(file, { throwIfNoEntry: false })?.isDirectory()
    ? unpackFolder(file, folder)
    : await unpackFile(file, folder);
  if (!unpacked.ok) return unpacked;
  const incoming = path.join(folder, 'sostegno.db');
  if (!existsSync(incoming)) return failure('torn', 'the file', 'there is no database in it: nothing was changed');
  const ready = await readyToTakeOver(incoming, unpacked.value);
  if (!ready.ok) return ready;
  const store = await db.openDatabase(incoming);
  let content: string, found: Counts, sorted: Sorted;
  try {
    content = await db.contentHash(store);
    found = await counts(store);
    // A picture that is lost is named; for its sake the rest is not left out.
    sorted = await sortPictures(store, (hash) => path.join(folder, 'pictures', `${hash}.jpg`));
  } finally {
    await store.destroy();
  }
  const full = noRoomFor(2 * sizeOf(incoming) + sizeOf(databaseFile()), folder);
  if (full) return full;
  const before = await setAside();
  pictureFolder();
  for (const hash of sorted.whole)
    if ((await faultOfPicture(pictureFile(hash), hash)) !== null)
      renameSync(path.join(folder, 'pictures', `${hash}.jpg`), pictureFile(hash));
  const fault = await putIn(incoming, before);
  if (fault) return fault;
  const now = await database();
  if ((await db.contentHash(now)) !== content)
    return failure(
      'differs',
      'the database',
      `what was put back is not what was backed up; what was there is in ${before}`,
    );
  await clearUnusedPictures(now);
  return success({ ...found, content, before, lost: sorted.lost });
}

/** Returns the hash of the content that was backed up. */
async function unpackFile(file: string, folder: string): Promise<Result<string | null>> {
  // Pictures do not pack, and are most of it; what else is wanted is found out while it is unpacked.
  const full = noRoomFor((await stat(file).catch(() => null))?.size ?? 0, folder);
  if (full) return full;
  const read = await readArchive(file, folder, 'backup');
  return read.ok ? success(read.value.content) : read;
}

/** A data folder that was set aside has no list of what is in it; its database is looked through all the same. */
function unpackFolder(from: string, folder: string): Result<string | null> {
  if (path.resolve(from) === path.resolve(dataFolder()))
    return failure('same', 'the folder', 'that is the folder in use: nothing was changed');
  copyDatabase(from, folder);
  linkPictures(path.join(from, 'pictures'), path.join(folder, 'pictures'));
  return success(null);
}

const databaseParts = ['sostegno.db', 'sostegno.db-wal', 'sostegno.db-shm'];

/** The same pictures in another folder of the same disk, which takes no room; copied where it cannot be done. */
function linkPictures(from: string, to: string): void {
  mkdirSync(to, { recursive: true });
  if (!existsSync(from)) return;
  for (const name of readdirSync(from)) {
    if (!name.endsWith('.jpg')) continue;
    try {
      linkSync(path.join(from, name), path.join(to, name));
    } catch {
      copyFileSync(path.join(from, name), path.join(to, name));
    }
  }
}

/** A folder for what is there, with its pictures; the database follows when nobody writes any more. */
async function setAside(): Promise<string> {
  const before = path.join(dataFolder(), `before-restore-${new Date().toISOString().replace(/[:.]/g, '-')}`);
  mkdirSync(before);
  linkPictures(path.join(dataFolder(), 'pictures'), path.join(before, 'pictures'));
  return before;
}

/** The database there is, where it can be used. It is looked at before it is opened for use: one that cannot is not touched. */
async function soundDatabase(own: string): Promise<db.Db | null> {
  if (!existsSync(own)) return null;
  const asItIs = db.openAsItIs(own);
  const fault = await db.faultIn(asItIs).finally(() => asItIs.destroy());
  if (fault !== null) return null;
  try {
    return await database();
  } catch (error) {
    if (error instanceof Unusable) return null;
    throw error;
  }
}

/** Puts the database in. One that is in use and sound is changed where it stands; any other is moved aside as it is. */
async function putIn(incoming: string, before: string): Promise<Failure | null> {
  const own = databaseFile();
  const current = await soundDatabase(own);
  if (current) {
    await db.takeOver(current, own, incoming, path.join(before, 'sostegno.db'));
    return null;
  }
  await closeDatabase();
  // A file that nothing has opened yet, with all in it that still stood beside the other.
  const fresh = `${incoming}.fresh`;
  const from = db.openAsItIs(incoming);
  await db.snapshotTo(from, fresh);
  await from.destroy();
  const moved: string[] = [];
  try {
    for (const name of databaseParts) {
      const from = path.join(path.dirname(own), name);
      if (!existsSync(from)) continue;
      renameSync(from, path.join(before, name));
      moved.push(name);
    }
    renameSync(fresh, own);
    return null;
  } catch (error) {
    for (const name of moved) renameSync(path.join(before, name), path.join(path.dirname(own), name));
    throw error;
  }
}
