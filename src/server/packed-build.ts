import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { z } from 'zod';
import { entryKinds, kindOf, pictureOf, type LogKind } from '../core/log';
import { failure, readJson, success, type Result } from '../core/quantity';
import * as db from '../db';
import { readArchive, writeArchive } from './archive';
import { addBuild, broughtIn, exportBuild, readBuildFile } from './builds';
import { workName } from './disk';
import { addToLog, readLog } from './log';
import { drawAnew, keepPicture, pictureFile, type DrawnPicture } from './pictures';
import { atomically, database } from './store';

/** One build with its log and pictures as one file; brought in, it is a new build: everything in it is read as from a stranger. */
export const largestPackedBuild = 1_000_000_000;

const loggedSchema = z
  .array(
    z.strictObject({
      id: z.uuid(),
      kind: z.enum(entryKinds.map((k) => k.id) as [LogKind, ...LogKind[]]),
      at: z.string().max(40),
      data: z.record(z.string().max(40), z.unknown()),
      corrects: z.uuid().nullable(),
      ownTime: z.boolean().optional(),
      picture: z.string().length(64).optional(),
    }),
  )
  .max(50_000);

export async function packBuild(id: string): Promise<Result<{ readonly name: string; readonly bytes: Buffer }>> {
  const build = await exportBuild(id);
  if (!build.ok) return build;
  const store = await database();
  const pictures = new Map((await db.listPictures(store, id)).map((p) => [p.id, p.hash]));
  const log = (await readLog(id)).map((e) => {
    const picture = pictures.get(pictureOf(e) ?? '');
    return picture ? { ...e, picture } : e;
  });
  const folder = mkdtempSync(path.join(os.tmpdir(), workName('build')));
  try {
    const file = path.join(folder, 'build.tar.gz');
    const hashes = [...new Set(pictures.values())];
    await writeArchive(
      file,
      'build',
      '',
      [
        { name: 'build.json', from: Buffer.from(build.value.text) },
        { name: 'log.json', from: Buffer.from(JSON.stringify(log, null, 1)) },
        ...hashes.map((h) => ({ name: `pictures/${h}.jpg`, from: pictureFile(h) })),
      ],
      new Date().toISOString(),
    );
    return success({ name: build.value.name.replace(/\.json$/, '.tar.gz'), bytes: await readFile(file) });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Ids are made anew, so that a build brought in twice is two; what points at an entry points at its new one. */
export async function unpackBuild(file: string): Promise<Result<{ readonly id: string; readonly entries: number }>> {
  const folder = mkdtempSync(path.join(os.tmpdir(), workName('build')));
  try {
    const read = await readArchive(file, folder, 'build', 4 * largestPackedBuild);
    if (!read.ok) return read;
    const text = async (name: string) => readFile(path.join(folder, name), 'utf8').catch(() => null);
    const document = await text('build.json'),
      logged = await text('log.json');
    if (document === null || logged === null)
      return failure('torn', 'the file', 'the build or its log is missing from it');
    const json = readJson(logged, 'log.json');
    if (!json.ok) return json;
    const log = loggedSchema.safeParse(json.value);
    if (!log.success)
      return failure(
        'broken-part',
        `log.json: ${log.error.issues[0]?.path.join('.') ?? ''}`,
        log.error.issues[0]?.message ?? 'is not a log',
      );
    const build = await readBuildFile(document);
    if (!build.ok) return { ...build, path: `build.json: ${build.path}` };
    const pictures = await drawPictures(log.data, folder);
    if (!pictures.ok) return pictures;
    return await atomically(async () => {
      const { id } = await addBuild(build.value, broughtIn);
      const put = await putLog(id, log.data, pictures.value);
      return put.ok ? success({ id, entries: put.value }) : put;
    });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

type Logged = z.infer<typeof loggedSchema>;

/** The pictures a log names, by their hash: taken from a stranger, so drawn anew. */
async function drawPictures(log: Logged, folder: string): Promise<Result<ReadonlyMap<string, DrawnPicture>>> {
  const out = new Map<string, DrawnPicture>();
  for (const { picture } of log) {
    if (picture === undefined || out.has(picture)) continue;
    const bytes = await readFile(path.join(folder, 'pictures', `${picture}.jpg`)).catch(() => null);
    if (!bytes) return failure('torn', 'log.json', 'a picture it names is not in the file');
    const drawn = await drawAnew(bytes);
    if (!drawn.ok) return drawn;
    out.set(picture, drawn.value);
  }
  return success(out);
}

/** Entries with what each points at before it, whatever order they came in; those that point at each other stay as they came. */
export function afterWhatTheyPointAt<T extends { readonly id: string; readonly corrects: string | null }>(
  log: readonly T[],
): T[] {
  const byId = new Map(log.map((e) => [e.id, e]));
  const put = new Set<string>();
  const out: T[] = [];
  for (const e of log) {
    const chain: T[] = [];
    for (
      let at: T | undefined = e;
      at && !put.has(at.id);
      at = at.corrects === null ? undefined : byId.get(at.corrects)
    ) {
      put.add(at.id);
      chain.push(at);
    }
    out.push(...chain.reverse());
  }
  return out;
}

async function putLog(id: string, log: Logged, pictures: ReadonlyMap<string, DrawnPicture>): Promise<Result<number>> {
  const ids = new Map(log.map((e) => [e.id, randomUUID() as string]));
  const renamed = (value: unknown) => (typeof value === 'string' && ids.has(value) ? ids.get(value) : value);
  for (const { picture, ...e } of afterWhatTheyPointAt(log)) {
    const data: Record<string, unknown> = { ...e.data };
    if (pictureOf(e) !== null) {
      const photoId = randomUUID();
      data['photoId'] = photoId;
      const drawn = picture === undefined ? undefined : pictures.get(picture);
      const added = drawn ? await keepPicture(id, photoId, drawn) : success(null);
      if (!added.ok) return added;
    }
    for (const key of kindOf(e.kind).points ?? []) if (key in data) data[key] = renamed(data[key]);
    const entry = {
      id: ids.get(e.id)!,
      kind: e.kind,
      at: e.at,
      data,
      ...(e.ownTime ? { ownTime: true } : {}),
      corrects: e.corrects === null ? null : (ids.get(e.corrects) ?? null),
    };
    const added = await addToLog(id, entry);
    if (!added.ok) return { ...added, path: `log.json: ${added.path}` };
  }
  return success(log.length);
}
