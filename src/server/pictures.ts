import { createHash, randomUUID } from 'node:crypto';
import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  renameSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { readFile, readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import { z } from 'zod';
import { failure, success, type Result } from '../core/quantity';
import * as db from '../db';
import type { Db } from '../db';
import { noRoomFor, workName } from './disk';
import { idTaken } from './log';
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

/** Written whole or not at all; one that is there is marked as wanted now, so that nobody clears it away. */
export function writeWhole(file: string, bytes: Uint8Array): void {
  if (existsSync(file)) {
    const now = new Date();
    utimesSync(file, now, now);
    return;
  }
  const half = path.join(path.dirname(file), `${workName('picture')}${randomUUID()}`);
  try {
    const handle = openSync(half, 'w');
    try {
      writeFileSync(handle, bytes);
      fsyncSync(handle);
    } finally {
      closeSync(handle);
    }
    renameSync(half, file);
  } catch (error) {
    rmSync(half, { force: true });
    throw error;
  }
}

export async function addPhoto(
  buildId: string,
  photoId: string,
  bytes: Uint8Array,
): Promise<Result<{ photoId: string }>> {
  if (!z.uuid().safeParse(photoId).success) return failure('bad-id', 'photoId', 'is not an id');
  const store = await database();
  if (!(await db.findBuild(store, buildId))) return failure('no-such-build', 'id', 'there is no such build');
  const drawn = await drawAnew(bytes);
  return drawn.ok ? keepPicture(buildId, photoId, drawn.value) : drawn;
}

/** Keeps a picture that was drawn anew. */
export async function keepPicture(
  buildId: string,
  photoId: string,
  { bytes, hash, width, height }: DrawnPicture,
): Promise<Result<{ photoId: string }>> {
  const store = await database();
  const full = noRoomFor(bytes.length, pictureFolder());
  if (full) return full;
  // The file first: a row that says there is a picture is never without it.
  writeWhole(pictureFile(hash), bytes);
  if (await db.addPicture(store, buildId, { id: photoId, hash, width, height, size: bytes.length }))
    return success({ photoId });
  const there = await db.findPicture(store, photoId);
  return there?.buildId === buildId && there.hash === hash
    ? success({ photoId })
    : idTaken('photoId', there?.buildId === buildId ? 'another picture of this log' : 'a picture of another log');
}

export async function readPhoto(
  buildId: string,
  photoId: string,
): Promise<{ mime: string; bytes: Buffer } | undefined> {
  const row = await db.findPicture(await database(), photoId);
  if (row?.buildId !== buildId) return undefined;
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

/** A picture is written before the row that names it: one as young as this may be waiting for its row. */
const youngMs = 600_000;

/** Files nothing points at any more, and what was begun and never ended. */
export async function clearUnusedPictures(store: Db, now = Date.now()): Promise<void> {
  const used = new Set((await db.listPictures(store)).map((p) => `${p.hash}.jpg`));
  for (const name of await readdir(pictureFolder())) {
    const file = path.join(pictureFolder(), name);
    if (!used.has(name) && now - (await stat(file)).mtimeMs > youngMs) await rm(file, { force: true });
  }
}
