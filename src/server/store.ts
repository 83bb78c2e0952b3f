import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { openDatabase, type Db } from '../db';

/** The one database of this process, in SOSTEGNO_DATA (by default data/ where it was started). */
const holder = globalThis as unknown as { sostegnoDb?: Promise<Db>; sostegnoAfter?: (() => Promise<void>)[] };

/** Work that goes on after a save is ended before the database is closed under it. */
export function beforeClosing(end: () => Promise<void>): void {
  (holder.sostegnoAfter ??= []).push(end);
}

export function dataFolder(): string {
  return process.env['SOSTEGNO_DATA'] ?? path.join(process.env['SOSTEGNO_ROOT'] ?? process.cwd(), 'data');
}

export function database(): Promise<Db> {
  holder.sostegnoDb ??= (async () => {
    const folder = dataFolder();
    mkdirSync(folder, { recursive: true });
    return openDatabase(path.join(folder, 'sostegno.db'));
  })();
  // A failed opening is not remembered: the next caller tries again.
  holder.sostegnoDb.catch(() => {
    delete holder.sostegnoDb;
  });
  return holder.sostegnoDb;
}

export async function closeDatabase(): Promise<void> {
  await Promise.all((holder.sostegnoAfter ?? []).map((end) => end()));
  const open = holder.sostegnoDb;
  delete holder.sostegnoDb;
  if (open) await (await open).destroy();
}
