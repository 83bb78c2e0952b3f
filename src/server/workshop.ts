import { z } from 'zod';
import { describeIssue, ownStepSchema, type StepKind } from '../core/document';
import { effectiveLog, readEntry, timedOf, type LogEntry } from '../core/log';
import { isTimeZone, paceOf, workshopSchema, type Pace, type Workshop } from '../core/plan';
import { failure, success, type Result } from '../core/quantity';
import * as db from '../db';
import { readKept, writeFlag } from './settings';
import { database, dataFolder } from './store';

/** Who works here and when, their rates as the log has taught them, and lists of steps kept for the next build. */
const workshopKey = 'workshop',
  templatesKey = 'step-lists';

export async function readWorkshop(zoneOfPage?: string): Promise<Workshop> {
  const kept = await readKept(workshopKey, workshopSchema);
  if (kept) return kept;
  const zone =
    zoneOfPage !== undefined && isTimeZone(zoneOfPage) ? zoneOfPage : Intl.DateTimeFormat().resolvedOptions().timeZone;
  const usual = workshopSchema.safeParse({ zone });
  return usual.success ? usual.data : workshopSchema.parse({});
}

export async function writeWorkshop(input: unknown): Promise<Result<Workshop>> {
  const parsed = workshopSchema.safeParse(input);
  if (!parsed.success) {
    const { path, message } = describeIssue(parsed.error, 'workshop');
    return failure('bad-entry', path, message);
  }
  await writeFlag(workshopKey, JSON.stringify(parsed.data));
  return success(parsed.data);
}

/** Entries that were read and found good, by what they are: the log is append-only, so one is read once. */
const readRows = new Map<string, LogEntry>();
const mostRead = 50_000;

/** Log entries of their rows. One that cannot be read any more stands in its place as a note that says so. */
export function entriesOf(rows: readonly db.LogRow[]): LogEntry[] {
  return rows.map((r) => {
    const text = [r.id, r.kind, r.at, r.corrects, r.ownTime, r.data].join('\n');
    let entry = readRows.get(text);
    if (!entry) {
      entry = entryOf(r);
      if (readRows.size >= mostRead) readRows.clear();
      readRows.set(text, entry);
    }
    return entry;
  });
}

function entryOf(r: db.LogRow): LogEntry {
  const { id, kind, at, corrects } = r;
  const own = r.ownTime === 1 ? { ownTime: true } : {};
  let why: string;
  try {
    const read = readEntry({ id, kind, at, data: JSON.parse(r.data) as unknown, corrects, ...own });
    if (read.ok) return read.value;
    why = `${read.path}: ${read.message}`;
  } catch {
    why = 'its text is damaged';
  }
  const hour = Number.isNaN(Date.parse(at)) ? r.recordedAt : at;
  const text = `An entry of this hour cannot be read (${why}). It is kept as it is, under ${id}.`.slice(0, 1000);
  return { id, kind: 'note', at: hour, data: { text }, corrects: null };
}

type Paces = Partial<Record<StepKind, Pace>>;
/** What was learned last, and of which logs. */
let lastLearned: { readonly of: string; readonly paces: Paces } | null = null;

/** Every build's log teaches: hands are the same whatever they make. */
export async function learnedPaces(): Promise<Paces> {
  const store = await database();
  const stamps = await db.logStamps(store);
  const rows = (await db.listBuilds(store)).filter((b) => stamps.has(b.id));
  const of = `${dataFolder()} ${rows.map((b) => `${b.id}:${stamps.get(b.id) ?? ''}`).join()}`;
  if (lastLearned?.of !== of) {
    const timed = [];
    for (const b of rows) timed.push(...timedOf(effectiveLog(entriesOf(await db.listLog(store, b.id)))));
    lastLearned = { of, paces: paceOf(timed) };
  }
  return lastLearned.paces;
}

const templateSchema = z.strictObject({
  name: z.string().trim().min(1).max(80),
  steps: z.array(ownStepSchema).min(1).max(80),
});
export type StepList = z.infer<typeof templateSchema>;

export async function readStepLists(): Promise<StepList[]> {
  return (await readKept(templatesKey, z.array(templateSchema))) ?? [];
}

/** Keeps a list under its name, in the place of one of the same name; an empty one takes it away. */
export async function keepStepList(input: unknown): Promise<Result<StepList[]>> {
  const gone = z.strictObject({ name: z.string(), steps: z.tuple([]) }).safeParse(input);
  const parsed = templateSchema.safeParse(input);
  if (!gone.success && !parsed.success) {
    const { path, message } = describeIssue(parsed.error, 'list');
    return failure('bad-entry', path, message);
  }
  const name = parsed.success ? parsed.data.name : gone.success ? gone.data.name : '';
  const others = (await readStepLists()).filter((l) => l.name !== name);
  const next = parsed.success ? [parsed.data, ...others].slice(0, 60) : others;
  await writeFlag(templatesKey, JSON.stringify(next));
  return success(next);
}
