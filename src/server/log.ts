import { z } from 'zod';
import { failure, success, type Result } from '../core/quantity';
import * as db from '../db';
import { database } from './store';

/** The bench log: append-only. A correction is a new entry that points at the old and carries the right figures, or voids it. */
const at = z.iso.datetime({ offset: true });
const id = z.uuid();
const mass = z.number().min(0).max(5000);
const length = z.number().positive().max(20);

const dataSchemas = {
  'weigh-in': z.strictObject({ gross: mass, tare: mass }).refine((d) => d.gross >= d.tare, { path: ['gross'], message: 'the reading is less than the tare' }),
  'shrink-mark': z.strictObject({ laid: length, now: length, where: z.string().max(80).default('') }).refine((d) => d.now <= d.laid * 1.1, { path: ['now'], message: 'marks do not move apart by a tenth as clay dries' }),
  photo: z.strictObject({ photoId: id, caption: z.string().max(300).default('') }),
  /** Seen on the piece: where, how wide, whether it goes through. */
  crack: z.strictObject({
    where: z.string().trim().min(1).max(80), width: z.number().min(0).max(0.1), length: z.number().min(0).max(5).default(0), through: z.boolean().default(false),
    at: z.tuple([z.number().min(-20).max(20), z.number().min(-20).max(20), z.number().min(-20).max(20)]).optional(),
  }),
  room: z.strictObject({ temperature: z.number().min(-20).max(70), relativeHumidity: z.number().min(0).max(1) }),
  note: z.strictObject({ text: z.string().trim().min(1).max(4000) }),
  void: z.strictObject({}),
} as const;
export type LogKind = keyof typeof dataSchemas;

const entrySchema = z.strictObject({
  id, kind: z.enum(Object.keys(dataSchemas) as [LogKind, ...LogKind[]]), at, data: z.unknown(), corrects: id.nullable().default(null),
});

export interface LogEntry {
  readonly id: string;
  readonly kind: LogKind;
  readonly at: string;
  readonly data: unknown;
  readonly corrects: string | null;
}

export async function readLog(buildId: string): Promise<LogEntry[]> {
  const rows = await db.listLog(await database(), buildId);
  return rows.map((r) => ({ id: r.id, kind: r.kind as LogKind, at: r.at, data: JSON.parse(r.data) as unknown, corrects: r.corrects }));
}

export async function addToLog(buildId: string, input: unknown): Promise<Result<LogEntry>> {
  const entry = entrySchema.safeParse(input);
  if (!entry.success) {
    const issue = entry.error.issues[0];
    return failure('bad-entry', issue?.path.join('.') ?? 'entry', issue?.message ?? 'is not valid');
  }
  const data = dataSchemas[entry.data.kind].safeParse(entry.data.data);
  if (!data.success) {
    const issue = data.error.issues[0];
    return failure('bad-entry', `data.${issue?.path.join('.') ?? ''}`, issue?.message ?? 'is not valid');
  }
  const store = await database();
  if (!(await db.findBuild(store, buildId))) return failure('no-such-build', 'id', 'there is no such build');
  const existing = await db.listLog(store, buildId);
  if (entry.data.corrects !== null && !existing.some((e) => e.id === entry.data.corrects)) {
    return failure('no-such-entry', 'corrects', 'the entry it corrects is not in this log');
  }
  const kept: LogEntry = { ...entry.data, data: data.data };
  await db.addLogEntry(store, buildId, { ...kept, data: JSON.stringify(kept.data) }, new Date().toISOString());
  return success(kept);
}

const largestPhoto = 10_000_000;

/** What a picture really is, by its first bytes; the name and the declared type are not believed. */
export function pictureType(bytes: Uint8Array): string | undefined {
  const starts = (...b: number[]) => b.every((v, i) => bytes[i] === v);
  if (starts(0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (starts(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  if (starts(0x52, 0x49, 0x46, 0x46) && bytes[8] === 0x57 && bytes[9] === 0x45 && bytes[10] === 0x42 && bytes[11] === 0x50) return 'image/webp';
  return undefined;
}

export async function addPhoto(buildId: string, photoId: string, bytes: Uint8Array): Promise<Result<{ photoId: string }>> {
  if (!id.safeParse(photoId).success) return failure('bad-id', 'photoId', 'is not an id');
  if (bytes.length === 0 || bytes.length > largestPhoto) return failure('too-large', 'the picture', 'a picture is at most 10 MB');
  const mime = pictureType(bytes);
  if (!mime) return failure('not-a-picture', 'the picture', 'only JPEG, PNG and WebP pictures are kept');
  const store = await database();
  if (!(await db.findBuild(store, buildId))) return failure('no-such-build', 'id', 'there is no such build');
  await db.addPhoto(store, { id: photoId, buildId, mime, bytes: Buffer.from(bytes) });
  return success({ photoId });
}

export async function readPhoto(buildId: string, photoId: string): Promise<{ mime: string; bytes: Buffer } | undefined> {
  return db.findPhoto(await database(), buildId, photoId);
}
