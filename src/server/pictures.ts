import { createHash, randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, openSync, closeSync, fsyncSync, renameSync, writeFileSync } from 'node:fs';
import { readFile, readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import { z } from 'zod';
import { failure, success, type Result } from '../core/quantity';
import * as db from '../db';
import type { Db } from '../db';
import { dataFolder, database } from './store';

/**
 * Pictures of the log. Whatever comes in is decoded and drawn anew, smaller, turned the way it was held, with nothing else
 * that was in the file: no place, no time, no camera. They are files beside the database, named by the hash of their bytes.
 */
export const largestUpload = 80_000_000;
/** Longest side kept, and most pixels decoded. */
const longestSide = 2000;
const mostPixels = 400_000_000;

sharp.cache(false);
sharp.concurrency(1);

export function pictureFolder(): string {
  const folder = path.join(dataFolder(), 'pictures');
  mkdirSync(folder, { recursive: true });
  return folder;
}

export function pictureFile(hash: string): string {
  return path.join(pictureFolder(), `${hash}.jpg`);
}

const startsWith = (bytes: Uint8Array, text: string, at: number) =>
  [...text].every((c, i) => bytes[at + i] === c.charCodeAt(0));

/** What a picture really is, by its first bytes; the name and the declared type are not believed. */
export function pictureType(bytes: Uint8Array): 'jpeg' | 'png' | 'webp' | 'heic' | 'gif' | 'tiff' | null {
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'jpeg';
  if (bytes[0] === 0x89 && startsWith(bytes, 'PNG\r\n\x1a\n', 1)) return 'png';
  if (startsWith(bytes, 'RIFF', 0) && startsWith(bytes, 'WEBP', 8)) return 'webp';
  if (
    startsWith(bytes, 'ftyp', 4) &&
    /^(hei[cxms]|hev[cxms]|mif1|msf1)/.test(String.fromCharCode(...bytes.slice(8, 12)))
  )
    return 'heic';
  if (startsWith(bytes, 'GIF8', 0)) return 'gif';
  if (startsWith(bytes, 'II*\0', 0) || startsWith(bytes, 'MM\0*', 0)) return 'tiff';
  return null;
}

const refusals: Readonly<Record<string, string>> = {
  heic: 'this is a HEIC picture, whatever its name ends in: have the phone take or send JPEG',
  gif: 'moving pictures are not kept: send a JPEG, PNG or WebP',
  tiff: 'TIFF is not read: send a JPEG, PNG or WebP',
};

export interface DrawnPicture {
  readonly bytes: Buffer;
  readonly hash: string;
  readonly width: number;
  readonly height: number;
}

/** Decoded and drawn anew; a sentence where it cannot be. */
export async function drawAnew(bytes: Uint8Array): Promise<Result<DrawnPicture>> {
  if (bytes.length === 0) return failure('not-a-picture', 'the picture', 'the file is empty');
  if (bytes.length > largestUpload)
    return failure('too-large', 'the picture', `a picture is at most ${largestUpload / 1e6} MB`);
  const type = pictureType(bytes);
  if (type === null || refusals[type])
    return failure('not-a-picture', 'the picture', refusals[type ?? ''] ?? 'only JPEG, PNG and WebP pictures are kept');
  try {
    const { data, info } = await sharp(bytes, { failOn: 'error', limitInputPixels: mostPixels, pages: 1 })
      .rotate()
      .resize({ width: longestSide, height: longestSide, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .toColourspace('srgb')
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    return success({
      bytes: data,
      hash: createHash('sha256').update(data).digest('hex'),
      width: info.width,
      height: info.height,
    });
  } catch (error) {
    const said = (error as Error).message;
    return /pixel limit/i.test(said)
      ? failure(
          'too-large',
          'the picture',
          `it has more than ${mostPixels / 1e6} million points: make it smaller first`,
        )
      : failure('not-a-picture', 'the picture', 'the file is damaged or cut short: it cannot be opened whole');
  }
}

/** Written whole or not at all. */
export function writeWhole(file: string, bytes: Uint8Array): void {
  if (existsSync(file)) return;
  const half = `${file}.${randomUUID()}.part`;
  const handle = openSync(half, 'w');
  try {
    writeFileSync(handle, bytes);
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
  renameSync(half, file);
}

export async function addPhoto(
  buildId: string,
  photoId: string,
  bytes: Uint8Array,
): Promise<Result<{ photoId: string }>> {
  if (!z.uuid().safeParse(photoId).success) return failure('bad-id', 'photoId', 'is not an id');
  const store = await database();
  if (!(await db.findBuild(store, buildId))) return failure('no-such-build', 'id', 'there is no such build');
  if (await db.findPicture(store, buildId, photoId)) return success({ photoId });
  const drawn = await drawAnew(bytes);
  if (!drawn.ok) return drawn;
  // The file first: a row that says there is a picture is never without it.
  writeWhole(pictureFile(drawn.value.hash), drawn.value.bytes);
  await db.addPicture(store, buildId, {
    id: photoId,
    hash: drawn.value.hash,
    width: drawn.value.width,
    height: drawn.value.height,
    size: drawn.value.bytes.length,
  });
  return success({ photoId });
}

export async function readPhoto(
  buildId: string,
  photoId: string,
): Promise<{ mime: string; bytes: Buffer } | undefined> {
  const row = await db.findPicture(await database(), buildId, photoId);
  if (!row) return undefined;
  try {
    return { mime: 'image/jpeg', bytes: await readFile(pictureFile(row.hash)) };
  } catch {
    return undefined;
  }
}

/** Pictures kept whole in the database by earlier versions, drawn anew and moved out; one that cannot be is let go of. */
export async function moveWholePhotosOut(store: Db): Promise<number> {
  let moved = 0;
  for (;;) {
    const photo = await db.firstWholePhoto(store);
    if (!photo) return moved;
    const drawn = await drawAnew(Buffer.from(photo.bytes));
    if (drawn.ok) writeWhole(pictureFile(drawn.value.hash), drawn.value.bytes);
    await db.photoMovedOut(
      store,
      photo.build_id,
      drawn.ok
        ? {
            id: photo.id,
            hash: drawn.value.hash,
            width: drawn.value.width,
            height: drawn.value.height,
            size: drawn.value.bytes.length,
          }
        : null,
      photo.id,
    );
    moved++;
  }
}

/** Files nothing points at any more. */
export async function clearUnusedPictures(store: Db): Promise<void> {
  const used = new Set((await db.listPictures(store)).map((p) => `${p.hash}.jpg`));
  for (const name of await readdir(pictureFolder()))
    if (!used.has(name)) await rm(path.join(pictureFolder(), name), { force: true });
}
