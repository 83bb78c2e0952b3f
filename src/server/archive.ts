import { createHash } from 'node:crypto';
import { closeSync, createReadStream, createWriteStream, fsyncSync, mkdirSync, openSync } from 'node:fs';
import { stat } from 'node:fs/promises';
import path from 'node:path';
import { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import tar from 'tar-stream';
import { z } from 'zod';
import { failure, success, type Result } from '../core/quantity';
import { diskFailure } from './disk';

/**
 * One file for many: a gzipped tar, which everything opens, whose last entry is a list of the others with the hash of
 * each. One that was cut short has no such list, one that was damaged does not agree with it: both are refused whole.
 */
const manifestSchema = z.strictObject({
  sostegno: z.literal(1),
  what: z.enum(['backup', 'build']),
  made: z.string().max(40),
  /** Hash of the content of the database, for a backup. */
  content: z.string().max(80).default(''),
  files: z
    .array(z.strictObject({ name: z.string().max(120), size: z.number().int().min(0), sha256: z.string().length(64) }))
    .max(200_000),
});
export type Manifest = z.infer<typeof manifestSchema>;

export interface ArchiveEntry {
  readonly name: string;
  /** A file, or bytes. */
  readonly from: string | Buffer;
}

const allowed = /^(sostegno\.db|build\.json|log\.json|pictures\/[0-9a-f]{64}\.jpg)$/;
const listName = 'list.json';
const mostUnpacked = 200e9;

/** Writes it whole, to the disk itself. The file must be one that may be thrown away where this fails. */
export async function writeArchive(
  file: string,
  what: Manifest['what'],
  content: string,
  entries: readonly ArchiveEntry[],
  now: string,
): Promise<Manifest> {
  const pack = tar.pack();
  const written = pipeline(pack, createGzip({ level: 6 }), createWriteStream(file));
  // A disk that is full ends the writing while nobody waits for it yet.
  let failed: Error | null = null;
  written.catch((error: Error) => {
    failed = error;
    pack.destroy(error);
  });
  const files: Manifest['files'] = [];
  try {
    for (const e of entries) {
      const size = typeof e.from === 'string' ? (await stat(e.from)).size : e.from.length;
      const hash = createHash('sha256');
      if (typeof e.from !== 'string') {
        hash.update(e.from);
        pack.entry({ name: e.name, size }, e.from);
      } else {
        const entry = pack.entry({ name: e.name, size });
        // Hashed as it is read for the archive: what is in it is what its list says.
        await pipeline(
          createReadStream(e.from),
          async function* (source) {
            for await (const chunk of source) {
              hash.update(chunk as Buffer);
              yield chunk as Buffer;
            }
          },
          entry,
        );
      }
      files.push({ name: e.name, size, sha256: hash.digest('hex') });
    }
    const manifest: Manifest = { sostegno: 1, what, made: now, content, files };
    pack.entry({ name: listName }, JSON.stringify(manifest));
    pack.finalize();
    await written;
    const handle = openSync(file, 'r+');
    fsyncSync(handle);
    closeSync(handle);
    return manifest;
  } catch (error) {
    pack.destroy();
    await written.catch(() => undefined);
    throw failed ?? error;
  }
}

class Refused extends Error {}

/**
 * Unpacks into `folder`, which holds nothing of use unless this succeeds; null: nothing is kept, the archive is only
 * proven. Names are ours alone: nothing is written elsewhere.
 */
export async function readArchive(
  file: string,
  folder: string | null,
  what: Manifest['what'],
  mostBytes = mostUnpacked,
): Promise<Result<Manifest>> {
  const extract = tar.extract();
  const seen = new Map<string, { size: number; sha256: string }>();
  let list: string | null = null,
    sum = 0;
  const take = (async () => {
    for await (const entry of extract) {
      const { name, size = 0, type } = entry.header;
      if (list !== null) throw new Refused('it goes on after its list');
      if (name === listName && size <= 50e6) {
        const parts: Buffer[] = [];
        for await (const chunk of entry) parts.push(chunk as Buffer);
        list = Buffer.concat(parts).toString('utf8');
        continue;
      }
      if (!allowed.test(name) || type !== 'file' || seen.has(name))
        throw new Refused(`it holds something that is not ours: ${name.slice(0, 60)}`);
      sum += size;
      if (sum > mostBytes) throw new Refused(`what is in it is more than ${Math.round(mostBytes / 1e6)} MB`);
      const to = folder === null ? null : path.join(folder, name);
      if (to !== null) mkdirSync(path.dirname(to), { recursive: true });
      const hash = createHash('sha256');
      await pipeline(
        entry,
        async function* (source) {
          for await (const chunk of source) {
            hash.update(chunk as Buffer);
            yield chunk as Buffer;
          }
        },
        to === null ? new Writable({ write: (_chunk, _coding, done) => done() }) : createWriteStream(to),
      );
      seen.set(name, { size, sha256: hash.digest('hex') });
    }
  })();
  try {
    await Promise.all([pipeline(createReadStream(file), createGunzip(), extract), take]);
  } catch (error) {
    extract.destroy();
    await take.catch(() => undefined);
    if (error instanceof Refused) return failure('not-ours', 'the file', error.message);
    const code = (error as NodeJS.ErrnoException).code;
    if (code === 'ENOENT') return failure('unreadable', 'the file', 'there is no such file');
    // For want of room, or of leave to read, a good one is not called damaged.
    const disk = diskFailure(error, folder ?? path.dirname(file));
    if (disk) return disk;
    return failure('torn', 'the file', 'it is cut short or damaged: nothing was changed');
  }
  if (list === null) return failure('torn', 'the file', 'it is cut short, its list is missing: nothing was changed');
  let json: unknown;
  try {
    json = JSON.parse(list);
  } catch {
    return failure('torn', 'the file', 'its list is damaged: nothing was changed');
  }
  const manifest = manifestSchema.safeParse(json);
  if (!manifest.success) return failure('torn', 'the file', 'its list is not one of ours: nothing was changed');
  if (manifest.data.what !== what)
    return failure(
      'wrong-kind',
      'the file',
      what === 'backup'
        ? 'it holds one build, not a backup: bring it in from the shelf'
        : 'it is a backup of a whole shelf, not a build: use restore',
    );
  if (manifest.data.files.length !== seen.size)
    return failure('torn', 'the file', 'files it lists are missing: nothing was changed');
  for (const f of manifest.data.files) {
    const got = seen.get(f.name);
    if (got?.size !== f.size || got.sha256 !== f.sha256)
      return failure('torn', 'the file', `${f.name} is not what it was when it was written: nothing was changed`);
  }
  return success(manifest.data);
}
