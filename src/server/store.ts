import { AsyncLocalStorage } from 'node:async_hooks';
import {
  accessSync,
  constants,
  copyFileSync,
  existsSync,
  linkSync,
  mkdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { failure, type Failure, type Result } from '../core/quantity';
import { faultIn, inTransaction, NewerDatabase, openDatabase, type Db } from '../db';
import { copyDatabase, diskFailure, running, workFolder } from './disk';

/** The one database of this process, in SOSTEGNO_DATA (by default data/ where it was started). */
interface Open {
  readonly db: Db;
  /** Which file it is: another after a restore over one that could not be used. */
  readonly file: number;
  /** It stands in a folder that can only be read: this is a copy, thrown away at the end. */
  readonly copy: { end(): void } | null;
}

const holder = globalThis as unknown as {
  sostegnoOpen?: Promise<Open>;
  /** Of work that is done whole or not at all. */
  sostegnoWhole?: AsyncLocalStorage<Db>;
  sostegnoAfter?: (() => Promise<void>)[];
};

/** Work that goes on after a save is ended before the database is closed under it. */
export function beforeClosing(end: () => Promise<void>): void {
  (holder.sostegnoAfter ??= []).push(end);
}

export function dataFolder(): string {
  return process.env['SOSTEGNO_DATA'] ?? path.join(process.env['SOSTEGNO_ROOT'] ?? process.cwd(), 'data');
}

let version: string | null = null;

/** Which sources the application was built from: what one reckoning worked out is not told by the next. */
export function reckoningVersion(): string {
  if (version === null) {
    const stamp = path.join(process.env['SOSTEGNO_ROOT'] ?? process.cwd(), '.next', '.sostegno-stamp');
    try {
      version = readFileSync(/* turbopackIgnore: true */ stamp, 'utf8').trim();
    } catch {
      version = 'unbuilt';
    }
  }
  return version;
}

export function databaseFile(): string {
  return path.join(dataFolder(), 'sostegno.db');
}

/** Said to whoever starts Sostegno or asks something of it: why there is no database, and what to do. */
export class Unusable extends Error {
  constructor(readonly failure: Failure) {
    super(`${failure.path}: ${failure.message}`);
  }
}

function canWrite(file: string): boolean {
  try {
    accessSync(file, constants.W_OK);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'ENOENT';
  }
}

async function open(): Promise<Open> {
  const folder = dataFolder(),
    file = databaseFile();
  try {
    mkdirSync(folder, { recursive: true });
    if (existsSync(file) && !(canWrite(folder) && canWrite(file))) {
      const copy = workFolder(os.tmpdir(), 'reading', folder);
      copyDatabase(folder, copy.folder);
      return { db: await openDatabase(path.join(copy.folder, 'sostegno.db')), file: statSync(file).ino, copy };
    }
    const db = await openDatabase(file);
    return { db, file: statSync(file).ino, copy: null };
  } catch (error) {
    throw unusable(error, file);
  }
}

function unusable(error: unknown, file: string): Error {
  if (error instanceof NewerDatabase)
    return new Unusable(
      failure(
        'newer',
        file,
        `${error.message}: start that version, or restore a backup made by this one, which sets what is there aside`,
      ),
    );
  const disk = diskFailure(error, file);
  if (disk?.code === 'damaged') return new Unusable(damaged((error as Error).message, file));
  if (disk) return new Unusable(disk);
  // SQLite's own words where the folder or file is none: it gives them no code.
  if (/unable to open/i.test((error as Error).message))
    return new Unusable(failure('read-only', file, 'it cannot be opened: is its folder one that may be written to?'));
  return error as Error;
}

/** The sentence of a damaged database, with the backup to take. */
export function damaged(how: string, file: string): Failure {
  const last = newestBackup();
  return failure(
    'damaged',
    file,
    `the database is damaged (${how}). ${
      last
        ? `The newest backup made here is ${last.file}, of ${last.made.slice(0, 16).replace('T', ' ')}: bin/sostegno restore ${last.file} puts it in`
        : 'No backup made here is to be found: bin/sostegno restore FILE puts one in'
    }, and sets what is there aside as it is`,
  );
}

const whole = (holder.sostegnoWhole ??= new AsyncLocalStorage<Db>());

/** Everything `work` writes is there at its end, or none of it: where it fails, throws, or the process dies. */
export async function atomically<T>(work: () => Promise<Result<T>>): Promise<Result<T>> {
  const store = await database();
  const fault = new Error('not kept');
  let done: Result<T> | undefined;
  try {
    await inTransaction(store, async (trx) => {
      done = await whole.run(trx, work);
      if (!done.ok) throw fault;
    });
  } catch (error) {
    if (error !== fault) throw error;
  }
  return done!;
}

/** For what goes on by itself: it is no part of the work it was begun in. */
export function byItself<T>(work: () => T): T {
  return whole.exit(work);
}

export async function database(): Promise<Db> {
  const trx = whole.getStore();
  if (trx) return trx;
  const known = holder.sostegnoOpen;
  if (known) {
    const { db, file } = await known;
    if (statSync(databaseFile(), { throwIfNoEntry: false })?.ino === file || restoring()) return db;
    // Another file stands there now: what is written from here on goes into that one.
    if (holder.sostegnoOpen === known) {
      delete holder.sostegnoOpen;
      await db.destroy();
    }
  }
  const opening = (holder.sostegnoOpen ??= open());
  // A failed opening is not remembered: the next caller tries again.
  opening.catch(() => {
    if (holder.sostegnoOpen === opening) delete holder.sostegnoOpen;
  });
  return (await opening).db;
}

export async function closeDatabase(): Promise<void> {
  const open = holder.sostegnoOpen;
  await Promise.all((holder.sostegnoAfter ?? []).map((end) => end()));
  if (holder.sostegnoOpen === open) delete holder.sostegnoOpen;
  if (!open) return;
  const { db, copy } = await open;
  await db.destroy();
  copy?.end();
}

/** What is wrong with the database, looked through whole; null where it is sound. */
export async function faultOfDatabase(): Promise<Failure | null> {
  const fault = await faultIn(await database());
  return fault === null ? null : damaged(fault, databaseFile());
}

const restoreMark = () => path.join(dataFolder(), 'restore-under-way');

/** Marks that a restore is going on; null where another is. */
export function beginRestore(): { end(): void } | null {
  const mark = restoreMark(),
    own = `${mark}-${process.pid}`;
  // Put in its place with its text in it: of two at once one comes first, and nobody reads half a mark.
  writeFileSync(own, String(process.pid));
  try {
    if (!placedAlone(own, mark)) {
      if (restoring()) return null;
      // What a process that died left behind goes once; whoever was quicker keeps the place.
      rmSync(mark, { force: true });
      if (!placedAlone(own, mark)) return null;
    }
    return { end: () => rmSync(mark, { force: true }) };
  } finally {
    rmSync(own, { force: true });
  }
}

/** Puts a file in a place where there is none; false where there is one. Some disks know no links: there it is copied. */
function placedAlone(from: string, to: string): boolean {
  const there = (error: unknown) => (error as NodeJS.ErrnoException).code === 'EEXIST';
  try {
    linkSync(from, to);
    return true;
  } catch (error) {
    if (there(error)) return false;
  }
  try {
    copyFileSync(from, to, constants.COPYFILE_EXCL);
    return true;
  } catch (error) {
    if (there(error)) return false;
    throw error;
  }
}

function restoring(): boolean {
  try {
    return running(Number(readFileSync(restoreMark(), 'utf8')) || 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return false;
    throw error;
  }
}

/** Why nothing can be written just now; null where it can. */
export async function notWriting(): Promise<Failure | null> {
  if (restoring())
    return failure('busy', 'the request', 'a backup is being put back: this was not taken, try again in a moment');
  await database();
  return (await holder.sostegnoOpen)?.copy
    ? failure('read-only', dataFolder(), 'the folder can only be read: pieces open, but nothing can be saved or logged')
    : null;
}

/** A backup that was made from here. */
export interface KnownBackup {
  readonly file: string;
  readonly made: string;
}

const backupList = () => path.join(dataFolder(), 'backups.json');

function knownBackups(): KnownBackup[] {
  try {
    const list = JSON.parse(readFileSync(backupList(), 'utf8')) as unknown;
    return Array.isArray(list)
      ? list.filter(
          (b): b is KnownBackup =>
            typeof (b as KnownBackup).file === 'string' && typeof (b as KnownBackup).made === 'string',
        )
      : [];
  } catch {
    return [];
  }
}

/** The newest that is still there. */
export function newestBackup(): KnownBackup | null {
  return knownBackups().find((b) => existsSync(b.file)) ?? null;
}

/** Newest first; where the folder can only be read nobody remembers. */
export function rememberBackup(backup: KnownBackup): void {
  const list = [backup, ...knownBackups().filter((b) => b.file !== backup.file)].slice(0, 20);
  try {
    writeFileSync(backupList(), JSON.stringify(list, null, 1));
  } catch {
    // The backup itself is there.
  }
}
