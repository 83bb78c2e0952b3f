import { failure, success, type Result } from '../core/quantity';
import * as db from '../db';
import { database } from './store';

/** Whole dryings are kept beside their builds, the last few of each; they can always be worked out again. */
export const mostKeptBytes = 60_000_000;
const keptEach = 3;
const keyPattern = /^[a-z0-9]{1,40}$/;

export async function keepDrying(
  buildId: string,
  key: string,
  revision: number,
  bytes: Uint8Array,
): Promise<Result<{ kept: boolean }>> {
  if (!keyPattern.test(key)) return failure('bad-key', 'key', 'a key is letters and figures');
  if (!Number.isInteger(revision) || revision < 0)
    return failure('bad-revision', 'revision', 'a revision is a whole number');
  // Gzip, and nothing is unpacked here: the page that packed it reads it, checking every length.
  if (bytes.length < 20 || bytes[0] !== 0x1f || bytes[1] !== 0x8b)
    return failure('not-packed', 'the drying', 'it is not packed as a drying is');
  const store = await database();
  if (!(await db.findBuild(store, buildId))) return failure('no-such-build', 'id', 'there is no such build');
  await db.keepDrying(
    store,
    { buildId, key, revision, bytes: Buffer.from(bytes), now: new Date().toISOString() },
    keptEach,
  );
  return success({ kept: true });
}

export async function keptDrying(buildId: string, key: string): Promise<Buffer | null> {
  return keyPattern.test(key) ? db.findDrying(await database(), buildId, key) : null;
}
