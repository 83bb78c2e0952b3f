import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { readFile, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { z } from 'zod';
import { entryKinds, kindOf, type LogKind } from '../core/log';
import { failure, success, type Result } from '../core/quantity';
import * as db from '../db';
import { readArchive, writeArchive } from './archive';
import { exportBuild, importBuild, markBuild } from './builds';
import { addToLog, readLog } from './log';
import { addPhoto, pictureFile } from './pictures';
import { database } from './store';

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
    const picture = e.kind === 'photo' ? pictures.get(e.data.photoId) : undefined;
    return picture ? { ...e, picture } : e;
  });
  const folder = mkdtempSync(path.join(os.tmpdir(), 'sostegno-build-'));
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
  const folder = mkdtempSync(path.join(os.tmpdir(), 'sostegno-build-'));
  try {
    const read = await readArchive(file, folder, 'build', 4 * largestPackedBuild);
    if (!read.ok) return read;
    const text = async (name: string) => readFile(path.join(folder, name), 'utf8').catch(() => null);
    const document = await text('build.json'),
      logged = await text('log.json');
    if (document === null || logged === null)
      return failure('torn', 'the file', 'the build or its log is missing from it');
    let json: unknown;
    try {
      json = JSON.parse(logged);
    } catch (error) {
      return failure('not-json', 'log.json', (error as Error).message);
    }
    const log = loggedSchema.safeParse(json);
    if (!log.success)
      return failure(
        'broken-part',
        `log.json: ${log.error.issues[0]?.path.join('.') ?? ''}`,
        log.error.issues[0]?.message ?? 'is not a log',
      );
    const build = await importBuild(document);
    if (!build.ok) return { ...build, path: `build.json: ${build.path}` };
    const put = await putLog(build.value.id, log.data, folder);
    if (put.ok) return success({ id: build.value.id, entries: put.value });
    await markBuild(build.value.id, 'delete');
    return put;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function putLog(id: string, log: z.infer<typeof loggedSchema>, folder: string): Promise<Result<number>> {
  const ids = new Map(log.map((e) => [e.id, randomUUID() as string]));
  const renamed = (value: unknown) => (typeof value === 'string' && ids.has(value) ? ids.get(value) : value);
  for (const { picture, ...e } of log) {
    const data: Record<string, unknown> = { ...e.data };
    if (e.kind === 'photo') {
      data['photoId'] = randomUUID();
      if (picture !== undefined) {
        const bytes = await readFile(path.join(folder, 'pictures', `${picture}.jpg`)).catch(() => null);
        if (!bytes) return failure('torn', 'log.json', 'a picture it names is not in the file');
        const added = await addPhoto(id, String(data['photoId']), bytes);
        if (!added.ok) return added;
      }
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
