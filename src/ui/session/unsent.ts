import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Build } from '../../core/document';
import type { History } from '../bench/history';

/**
 * What was done to a build and has not been heard to be saved, kept in the page's own store as it is done: a page that is
 * closed, or dies, sends it when the build is next opened. One record a page; a page that lives keeps its own by a lock.
 */
export interface Unsent {
  readonly buildId: string;
  /** The page that made it. */
  readonly page: string;
  readonly build: Build;
  readonly history: History;
  readonly label: string;
  /** What it started from. */
  readonly shared: Build;
  readonly revision: number;
  readonly generation: number;
  /** The id it is sent under, and those of states before it that were sent and nothing was heard of. */
  readonly saveId: string;
  readonly unheard: readonly string[];
}

interface Shape extends DBSchema {
  edits: { key: string; value: Unsent; indexes: { build: string } };
}

let opened: Promise<IDBPDatabase<Shape>> | null = null;

function store(): Promise<IDBPDatabase<Shape>> {
  opened ??= openDB<Shape>('sostegno-unsent', 1, {
    upgrade: (db) => {
      db.createObjectStore('edits').createIndex('build', 'buildId');
    },
  });
  opened.catch(() => {
    opened = null;
  });
  return opened;
}

const lockOf = (page: string) => `sostegno-page-${page}`;

/** Says that this page lives, until it does not. */
export function stayAlive(page: string): void {
  if (typeof navigator !== 'undefined' && navigator.locks)
    void navigator.locks.request(lockOf(page), () => new Promise<void>(() => undefined)).catch(() => undefined);
}

async function lives(page: string): Promise<boolean> {
  if (typeof navigator === 'undefined' || !navigator.locks) return false;
  return navigator.locks.request(lockOf(page), { ifAvailable: true }, (lock) => lock === null);
}

export async function keepUnsent(unsent: Unsent): Promise<void> {
  await (await store()).put('edits', unsent, unsent.page);
}

export async function forgetUnsent(page: string): Promise<void> {
  await (await store()).delete('edits', page);
}

/** What a page that is gone left of this build; the first there is. */
export async function leftBehind(buildId: string, page: string): Promise<Unsent | null> {
  for (const found of await (await store()).getAllFromIndex('edits', 'build', buildId))
    if (found.page !== page && !(await lives(found.page))) return found;
  return null;
}
