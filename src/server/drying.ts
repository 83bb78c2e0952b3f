import { failure, success, type Result } from '../core/quantity';
import { z } from 'zod';
import { waysToDry } from '../core/piece';
import * as db from '../db';
import { reckon } from './cards';
import { database } from './store';

/** Whole dryings are kept beside their builds, the last few of each; they can always be worked out again. */
export const mostKeptBytes = 60_000_000;
const keptEach = 3;
const keyPattern = /^[a-z0-9]{1,40}$/;

export async function keepDrying(
  buildId: string,
  key: string,
  revision: number,
  body: Uint8Array,
): Promise<Result<{ kept: boolean }>> {
  const { findings, bytes } = unframed(body);
  if (!keyPattern.test(key)) return failure('bad-key', 'key', 'a key is letters and figures');
  if (!Number.isInteger(revision) || revision < 0)
    return failure('bad-revision', 'revision', 'a revision is a whole number');
  // Gzip, and nothing is unpacked here: the page that packed it reads it, checking every length.
  if (bytes.length < 20 || bytes[0] !== 0x1f || bytes[1] !== 0x8b)
    return failure('not-packed', 'the drying', 'it is not packed as a drying is');
  const checked = readFindings(findings);
  if (!checked.ok) return checked;
  const store = await database();
  if (!(await db.findBuild(store, buildId))) return failure('no-such-build', 'id', 'there is no such build');
  await db.keepDrying(
    store,
    { buildId, key, revision, bytes: Buffer.from(bytes), findings: checked.value, now: new Date().toISOString() },
    keptEach,
  );
  void reckon(Date.now() / 1000, buildId);
  return success({ kept: true });
}

export async function keptDrying(buildId: string, key: string): Promise<Buffer | null> {
  return keyPattern.test(key) ? db.findDrying(await database(), buildId, key) : null;
}

/** Four bytes of length, what it found as JSON, then the drying as it was packed; or only that. */
function unframed(body: Uint8Array): { readonly findings: string | null; readonly bytes: Uint8Array } {
  if (body[0] === 0x1f && body[1] === 0x8b) return { findings: null, bytes: body };
  const length = body.length >= 4 ? new DataView(body.buffer, body.byteOffset, 4).getUint32(0, true) : 0;
  if (length === 0 || length > body.length - 4) return { findings: null, bytes: body };
  return {
    findings: new TextDecoder().decode(body.subarray(4, 4 + length)),
    bytes: body.subarray(4 + length),
  };
}

const time = z.number().min(0).nullable();
const figures = z.strictObject({
  touch: time,
  leather: time,
  hold: time,
  through: time,
  steady: time,
  crack: z.number().min(0),
});
const place = z
  .strictObject({
    region: z.string().max(60),
    at: z.tuple([z.number(), z.number(), z.number()]),
    time: z.number(),
    value: z.number(),
  })
  .nullable();
const findingsSchema = z.strictObject({
  key: z.string().max(60),
  regions: z
    .array(
      z.strictObject({
        id: z.string().max(60),
        start: z.number(),
        as: z.enum(waysToDry).optional(),
        quick: figures,
        full: figures,
        restrained: z.number(),
        differential: z.number(),
      }),
    )
    .max(250),
  last: place,
  worst: place,
});

/** What a drying found is figures that other answers rest on: read as from a stranger. */
function readFindings(text: string | null): Result<string | null> {
  if (text === null) return success(null);
  try {
    const read = findingsSchema.safeParse(JSON.parse(text));
    if (read.success) return success(JSON.stringify(read.data));
    return failure('bad-findings', read.error.issues[0]?.path.join('.') ?? 'findings', 'is not what a drying finds');
  } catch {
    return failure('not-json', 'findings', 'they are not JSON');
  }
}
