import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  statfsSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { failure, type Failure } from '../core/quantity';

/** Room on the disk, what is left lying when a process dies, and what an error of the disk says to whoever meets it. */
const megabyte = 1e6;

/** Bytes that may still be written in a folder; infinite where the system does not say. */
export function freeBytes(folder: string): number {
  try {
    const s = statfsSync(folder);
    return s.bavail * s.bsize;
  } catch {
    return Infinity;
  }
}

const inMegabytes = (bytes: number) => `${Math.max(1, Math.ceil(bytes / megabyte))} MB`;

/** What is written must leave this much, so that entries of the log still find room. */
export const keptFree = 20 * megabyte;

/** A failure where there is no room for so many bytes in a folder. */
export function noRoomFor(bytes: number, folder: string): Failure | null {
  const free = freeBytes(folder);
  if (free >= bytes + keptFree) return null;
  return failure(
    'disk-full',
    folder,
    `the disk is full: ${inMegabytes(bytes + keptFree)} are wanted there and ${Math.floor(free / megabyte)} MB are free. Make room and do it again; nothing was changed`,
  );
}

const kinds: readonly { readonly code: string; readonly of: RegExp; readonly says: string }[] = [
  {
    code: 'disk-full',
    of: /^(ENOSPC|EDQUOT|SQLITE_FULL)/,
    says: 'the disk is full: make room on it and do it again. Nothing that was saved before is lost',
  },
  {
    code: 'read-only',
    of: /^(EROFS|EACCES|EPERM|SQLITE_READONLY|SQLITE_CANTOPEN|SQLITE_PERM)/,
    says: 'it cannot be written to: look at who may write there. Nothing that was saved before is lost',
  },
  {
    code: 'no-folder',
    of: /^(EEXIST|ENOTDIR)/,
    says: 'a file stands where a folder has to be: name another folder with --data',
  },
  {
    code: 'damaged',
    of: /^(SQLITE_CORRUPT|SQLITE_NOTADB)/,
    says: 'the database is damaged: start Sostegno again, and it says which backup to take',
  },
  {
    code: 'busy',
    of: /^(SQLITE_BUSY|SQLITE_LOCKED)/,
    says: 'something else is writing everything just now, a restore perhaps: try again in a moment',
  },
];

/** What an error of the disk or the database says; null for any other. `where` is the folder it was about. */
export function diskFailure(error: unknown, where: string): Failure | null {
  const { code } = error as NodeJS.ErrnoException;
  const kind = typeof code === 'string' ? kinds.find((k) => k.of.test(code)) : undefined;
  return kind ? failure(kind.code, where, kind.says) : null;
}

const workNames = /^sostegno-work-(\d+)-/;

/** A name for what is thrown away when the work is done; it says whose work it is. */
export function workName(what: string): string {
  return `sostegno-work-${process.pid}-${what}-`;
}

/** A folder for work inside another, told to the data folder, so that the next start finds it if this process dies. */
export function workFolder(inside: string, what: string, data: string): { readonly folder: string; end(): void } {
  clear(inside, ofTheDead);
  const folder = mkdtempSync(path.join(inside, workName(what)));
  const note = path.join(data, `${path.basename(folder)}.note`);
  try {
    writeFileSync(note, folder);
  } catch {
    // A data folder that can only be read: the next work in the same place clears it.
  }
  return {
    folder,
    end: () => {
      rmSync(folder, { recursive: true, force: true });
      rmSync(note, { force: true });
    },
  };
}

export function running(pid: number): boolean {
  if (pid <= 0) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

function ofTheDead(name: string): boolean {
  const pid = workNames.exec(name)?.[1];
  return pid !== undefined && !running(Number(pid));
}

function clear(folder: string, old: (name: string) => boolean): number {
  if (!existsSync(folder)) return 0;
  const gone = readdirSync(folder).filter(old);
  for (const name of gone) {
    const file = path.join(folder, name);
    if (name.endsWith('.note') && statSync(file).isFile()) {
      const elsewhere = readFileSync(file, 'utf8');
      if (ofTheDead(path.basename(elsewhere))) rmSync(elsewhere, { recursive: true, force: true });
    }
    rmSync(file, { recursive: true, force: true });
  }
  return gone.length;
}

/** Removes what processes that have died had begun: in the data folder, among its pictures, in the temporary folder. */
export function clearLeftovers(data: string): number {
  // Earlier versions gave what they had begun names that do not say whose it was.
  const earlier = (name: string) => /^restore-[0-9a-f]{8}-/.test(name) || name.endsWith('.tar.gz.part');
  return (
    clear(data, (name) => ofTheDead(name) || earlier(name)) +
    clear(path.join(data, 'pictures'), (name) => ofTheDead(name) || name.endsWith('.jpg.part')) +
    clear(os.tmpdir(), ofTheDead)
  );
}

/** A database file and what stands beside it and belongs into it; not what SQLite makes anew. */
export function copyDatabase(from: string, to: string): void {
  for (const name of readdirSync(from))
    if (name === 'sostegno.db' || name === 'sostegno.db-wal') copyFileSync(path.join(from, name), path.join(to, name));
}
