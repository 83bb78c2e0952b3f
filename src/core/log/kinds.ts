import { z } from 'zod';
import { failure, success, type Result } from '../quantity';
import { clock, clockStop } from './clock';
import { damage } from './damage';
import type { EntryKind, Said } from './kind';
import { note } from './note';
import { photo } from './photo';
import { pull } from './pull';
import { repair } from './repair';
import { room } from './room';
import { shrinkMark } from './shrink-mark';
import { stepDone } from './step-done';
import { stepPart } from './step-part';
import { used } from './used';
import { voided } from './void';
import { weighIn } from './weigh-in';
import type { UnitSystem } from '../quantity';

/** Every kind of entry there is, those written by hand first, in the order they are offered. */
export const entryKinds = [
  weighIn,
  stepDone,
  stepPart,
  photo,
  note,
  damage,
  repair,
  shrinkMark,
  room,
  used,
  pull,
  clock,
  clockStop,
  voided,
] as const;

type AnyKind = (typeof entryKinds)[number];
export type LogKind = AnyKind['id'];
type KindOf<K extends LogKind> = Extract<AnyKind, { readonly id: K }>;
export type DataOf<K extends LogKind> = z.output<KindOf<K>['schema']>;

interface EntryOfKind<K extends LogKind> {
  readonly id: string;
  readonly kind: K;
  /** When it happened at the bench, ISO. */
  readonly at: string;
  readonly data: DataOf<K>;
  /** The entry this one puts right, or strikes. */
  readonly corrects: string | null;
  /** `at` is this entry's own; without it a correction stands at the time of what it corrects. */
  readonly ownTime?: boolean;
}

/** One entry of the bench log: append-only, a correction a new entry that points at the old. */
export type LogEntry = { [K in LogKind]: EntryOfKind<K> }[LogKind];
export type EntryOf<K extends LogKind> = Extract<LogEntry, { readonly kind: K }>;

const byId: ReadonlyMap<string, EntryKind> = new Map(entryKinds.map((k) => [k.id, k as unknown as EntryKind]));

export function kindOf(id: LogKind): EntryKind {
  return byId.get(id)!;
}

export const handWritten: readonly EntryKind[] = entryKinds
  .map((k) => k as unknown as EntryKind)
  .filter((k) => k.fields.length > 0);

const entrySchema = z.strictObject({
  id: z.uuid(),
  kind: z.enum(entryKinds.map((k) => k.id) as [LogKind, ...LogKind[]]),
  at: z.iso.datetime({ offset: true }),
  data: z.unknown(),
  corrects: z.uuid().nullable().default(null),
  ownTime: z.boolean().optional(),
});

/** Reads an entry from outside; the path names the field that is wrong. Times are brought to UTC, so that they sort as text. */
export function readEntry(input: unknown): Result<LogEntry> {
  const entry = entrySchema.safeParse(input);
  if (!entry.success) {
    const issue = entry.error.issues[0];
    return failure('bad-entry', issue?.path.join('.') || 'entry', issue?.message ?? 'is not valid');
  }
  const data = kindOf(entry.data.kind).schema.safeParse(entry.data.data);
  if (!data.success) {
    const issue = data.error.issues[0];
    return failure('bad-entry', `data.${issue?.path.join('.') ?? ''}`, issue?.message ?? 'is not valid');
  }
  const { ownTime, ...rest } = entry.data;
  return success({
    ...rest,
    ...(ownTime ? { ownTime } : {}),
    at: new Date(entry.data.at).toISOString(),
    data: data.data,
  } as LogEntry);
}

/** A log file: a list of entries, as an archive has it (which also names their pictures). */
export function readLogFile(input: unknown): Result<LogEntry[]> {
  if (!Array.isArray(input) || input.length > 50_000)
    return failure('not-a-log', 'the log', 'a log is a list of entries, 50 000 at most');
  const out: LogEntry[] = [];
  for (const [i, item] of input.entries()) {
    const { picture: _, ...own } = (typeof item === 'object' && item !== null ? item : {}) as Record<string, unknown>;
    const entry = readEntry(own);
    if (!entry.ok) return { ...entry, path: `[${i}].${entry.path}` };
    out.push(entry.value);
  }
  return success(out);
}

export function entryWords(entry: LogEntry, units: UnitSystem): Said {
  return kindOf(entry.kind).words(entry.data, units);
}
