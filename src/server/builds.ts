import { createHash, randomUUID } from 'node:crypto';
import {
  isoDateSchema,
  parseBuild,
  readBuild,
  schemaVersion,
  stableText,
  withSnapshot,
  type Build,
} from '../core/document';
import { failure, success, type Result } from '../core/quantity';
import { startBuild } from '../core/school';
import { begunToCarry } from '../core/sizing';
import type { BuildCard } from '../core/evaluate';
import { materialsUsed, ResultCache } from '../core/piece';
import * as db from '../db';
import { cards, cardsLookedAt, reckon, type CardOf } from './cards';
import { idTaken } from './log';
import { database } from './store';
import { workOut } from './reckoner';
import { revisionsToDrop } from './thinning';

/** Use-cases on builds. Expected failures are data; every write is one transaction. */
export interface ShelfItem {
  readonly id: string;
  readonly name: string;
  readonly updatedAt: string;
  readonly archived: boolean;
  readonly brief: { readonly clay: string; readonly size: number };
  readonly card: BuildCard;
  /** Whether the card is of what stands now; else a newer one is being worked out. */
  readonly fresh: boolean;
  /** The build it is another version of, kept from a save that came too late. */
  readonly versionOf: string | null;
}

export interface OpenBuild {
  readonly id: string;
  readonly revision: number;
  readonly build: Build;
  readonly history: unknown;
  /** Of the database: another after a restore. */
  readonly generation: number;
}

const cache = new ResultCache();
/** Characters; a mesh brought in is a step of some hundred thousand. */
const largestHistory = 4_000_000;

/** Materials of builds that were saved, by what they come from: a save mostly changes something else. */
const usedBefore = new Map<string, ReturnType<typeof materialsUsed>>();
const mostKnown = 200;

/** A build with the catalogue values it uses kept inside it, and its text. */
export function asKept(build: Build): { readonly kept: Build; readonly document: string } {
  const texts = Object.fromEntries(
    Object.entries(build)
      .filter(([, value]) => value !== undefined)
      .map(([part, value]) => [part, stableText(value)]),
  );
  const of = createHash('sha1');
  for (const part of ['form', 'armature', 'materials', 'regions']) of.update(texts[part] ?? '').update('\n');
  const key = of.update(stableText({ ...build.brief, note: '' })).digest('base64');
  let used = usedBefore.get(key);
  if (!used) {
    used = materialsUsed(build, cache);
    if (usedBefore.size >= mostKnown) usedBefore.clear();
    usedBefore.set(key, used);
  }
  const kept = used.ok ? withSnapshot(build, used.value) : build;
  if (kept !== build) texts['materials'] = stableText(kept.materials);
  const parts = Object.keys(texts).sort();
  return { kept, document: `{${parts.map((p) => `${JSON.stringify(p)}:${texts[p] ?? ''}`).join(',')}}` };
}

function now(): string {
  return new Date().toISOString();
}

const nowSeconds = () => Date.now() / 1000;

const itemOf = ({ row, card, fresh }: CardOf): ShelfItem => ({
  id: row.id,
  name: row.name,
  updatedAt: row.updatedAt,
  archived: row.archivedAt !== null,
  brief: { clay: row.clay, size: row.size },
  card,
  fresh,
  versionOf: row.versionOf,
});

/** Everything on the shelf, as it is kept; cards with the first few only. */
export async function shelf(): Promise<ShelfItem[]> {
  return (await cards(nowSeconds())).map(itemOf);
}

/** Those that are looked at: what is old of them is worked out, and there when they are next asked for. */
export async function lookedAt(ids: readonly string[]): Promise<ShelfItem[]> {
  return (await cardsLookedAt(nowSeconds(), ids)).map(itemOf);
}

/** What lists read of a build without opening it. */
function columnsOf(build: Build) {
  return { clay: build.brief.clay, size: build.form.start.size, active: build.plan.active ? 1 : 0 };
}

async function insert(build: Build, label: string, versionOf: string | null = null, saveId = ''): Promise<string> {
  const id = randomUUID();
  const { kept, document } = asKept(build);
  await db.insertBuild(await database(), {
    id,
    name: kept.name,
    document,
    schemaVersion,
    ...columnsOf(kept),
    versionOf,
    label,
    now: now(),
    saveId,
  });
  void reckon(nowSeconds(), id);
  return id;
}

export async function createBuild(
  name: string,
  startDate: string,
  size: number,
  kind = 'bust',
  type?: string,
): Promise<Result<{ id: string }>> {
  const trimmed = name.trim();
  if (trimmed === '' || trimmed.length > 120) return failure('bad-name', 'name', 'give it a name of up to 120 letters');
  if (!(size >= 0.05 && size <= 5)) return failure('bad-size', 'size', 'the size is between 5 % and 500 % of life');
  if (!isoDateSchema.safeParse(startDate).success)
    return failure('bad-date', 'startDate', 'the start is a date as YYYY-MM-DD');
  const build = startBuild(trimmed, startDate, kind, size, type);
  return build.ok ? success({ id: await insert(begunToCarry(build.value), 'Started') }) : build;
}

export async function addBuild(build: Build, label: string): Promise<{ id: string }> {
  return { id: await insert(build, label) };
}

export async function openBuild(id: string): Promise<Result<OpenBuild>> {
  const store = await database();
  const row = await db.findBuild(store, id);
  if (!row) return failure('no-such-build', 'id', 'there is no such build on the shelf');
  const build = parseBuild(row.document);
  if (!build.ok) return build;
  return success({
    id,
    revision: row.revision,
    build: build.value,
    history: historyOf(row.history),
    generation: await db.generationOf(store),
  });
}

/** Steps to take back; none where they cannot be read. */
function historyOf(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return { past: [], future: [] };
  }
}

/** The newest version of a build that can be read, where the one that stands cannot. */
export async function lastReadable(
  id: string,
): Promise<{ readonly revision: number; readonly savedAt: string } | null> {
  return (await findReadable(id))?.of ?? null;
}

async function findReadable(id: string) {
  const store = await database();
  for (const of of await db.listRevisions(store, id)) {
    const text = await db.revisionText(store, of.id);
    const build = text === undefined ? null : parseBuild(text);
    if (build?.ok) return { of, build: build.value };
  }
  return null;
}

/** Puts the newest readable version in the place of one that cannot be read; that one stays among the versions kept. */
export async function takeBack(id: string): Promise<Result<null>> {
  const store = await database();
  const row = await db.findBuild(store, id);
  if (!row) return failure('no-such-build', 'id', 'there is no such build');
  if (parseBuild(row.document).ok) return failure('readable', 'id', 'this build can be read: nothing was changed');
  const found = await findReadable(id);
  if (!found) return failure('no-version', 'id', 'no earlier version of it can be read either');
  const document = stableText(found.build);
  const saved = await db.saveBuild(store, {
    saveId: '',
    mine: [],
    id,
    name: found.build.name,
    document,
    schemaVersion,
    ...columnsOf(found.build),
    label: `Taken back to revision ${found.of.revision}`,
    from: row.revision,
    now: now(),
    history: '{"past":[],"future":[]}',
  });
  if (saved === undefined) return failure('busy', 'id', 'it was saved just now: look again');
  void reckon(nowSeconds(), id);
  return success(null);
}

export interface SaveRequest {
  /** What it started from, and in which database; where that is not said, in the one there is. */
  readonly revision: number;
  readonly generation?: number;
  /** Its own id, and those of saves before it that the page had no answer to. */
  readonly saveId?: string;
  readonly mine?: readonly string[];
  /** Whether a save that comes too late is kept beside at once; else what is there is handed back, to be put together. */
  readonly aside?: boolean;
  readonly document: unknown;
  readonly history: unknown;
  readonly label: string;
}

/** The history as far as there is room for it: the oldest steps go first. */
export function historyText(history: unknown): string {
  const { past, future } = (typeof history === 'object' && history !== null ? history : {}) as {
    past?: unknown;
    future?: unknown;
  };
  if (!Array.isArray(past) || !Array.isArray(future)) return '{"past":[],"future":[]}';
  const lengths = past.map((step) => JSON.stringify(step).length + 1);
  const ahead = JSON.stringify(future);
  let room = largestHistory - ahead.length;
  if (room < 0) return '{"past":[],"future":[]}';
  let from = past.length;
  while (from > 0 && room >= lengths[from - 1]!) room -= lengths[--from]!;
  return `{"past":${JSON.stringify(past.slice(from))},"future":${ahead}}`;
}

export type SaveOutcome =
  | { readonly saved: true; readonly revision: number }
  /** Too late, and kept beside. */
  | { readonly saved: false; readonly siblingId: string; readonly siblingName: string }
  /** Too late: what is there now. */
  | { readonly saved: false; readonly theirs: OpenBuild };

/** Another version of a build, kept beside it: it takes no hands and no stock. */
function asSibling(kept: Build, name: string): Build {
  return { ...kept, name, plan: { ...kept.plan, active: false } };
}

/** Saves over the revision it started from; a stale save is kept beside it under a name of its own, or handed back. */
export async function saveBuild(id: string, request: SaveRequest): Promise<Result<SaveOutcome>> {
  const build = readBuild(request.document);
  if (!build.ok) return build;
  const store = await database();
  const { saveId = '', mine = [], aside = true } = request;
  const row = await db.beforeSave(store, id, saveId);
  if (!row) return failure('no-such-build', 'id', 'this build is not on the shelf any more');
  const { kept, document } = asKept(build.value);
  const { taken } = row;
  if (taken) {
    const beside = taken.buildId === id ? undefined : ((await db.findBuild(store, taken.buildId))?.name ?? row.name);
    const was = beside === undefined ? document : stableText(asSibling(kept, beside));
    if ((await db.savedText(store, saveId)) !== was) return idTaken('saveId', 'another save');
    return success(
      beside === undefined
        ? { saved: true, revision: taken.revision }
        : { saved: false, siblingId: taken.buildId, siblingName: beside },
    );
  }
  const history = historyText(request.history);
  const at = now();
  const known = (request.generation ?? row.generation) === row.generation;
  const revision = !known
    ? undefined
    : await db.saveBuild(store, {
        saveId,
        mine,
        id,
        name: kept.name,
        document,
        schemaVersion,
        ...columnsOf(kept),
        label: request.label.slice(0, 200),
        from: request.revision,
        now: at,
        history,
      });
  if (revision !== undefined) {
    void reckon(nowSeconds(), id);
    if (revision % 20 === 0) await db.dropRevisions(store, revisionsToDrop(await db.listRevisions(store, id), at));
    return success({ saved: true, revision });
  }
  // Read again: it is the one that was saved meanwhile.
  const theirs = await openBuild(id);
  if (!theirs.ok) return theirs;
  if (known && stableText(theirs.value.build) === document)
    return success({ saved: true, revision: theirs.value.revision });
  if (!aside) return success({ saved: false, theirs: theirs.value });
  const siblingName = `${kept.name.slice(0, 80)}, other version of ${at.slice(0, 16).replace('T', ' ')}`;
  const siblingId = await insert(
    asSibling(kept, siblingName),
    'Kept from a save that came too late',
    row.versionOf ?? id,
    saveId,
  );
  return success({ saved: false, siblingId, siblingName });
}

/**
 * Whether other builds are planned round it, said from another build's plan: one step in its own history, that can be
 * taken back there. A page that has it open takes it up with its next save.
 */
export async function setOnTheGo(id: string, active: boolean): Promise<Result<{ readonly active: boolean }>> {
  for (let tries = 0; tries < 5; tries++) {
    const there = await openBuild(id);
    if (!there.ok) return there;
    const { build, revision, generation } = there.value;
    if (build.plan.active === active) return success({ active });
    const label = active ? 'On the go again' : 'Set aside for another piece';
    const set = (value: boolean) => [{ op: 'replace', path: ['plan', 'active'], value }];
    const { past } = JSON.parse(historyText(there.value.history)) as { past: unknown[] };
    const saved = await saveBuild(id, {
      revision,
      generation,
      label,
      saveId: randomUUID(),
      aside: false,
      document: { ...build, plan: { ...build.plan, active } },
      history: { past: [...past, { label, patches: set(active), inverse: set(!active) }], future: [] },
    });
    if (!saved.ok) return saved;
    if (saved.value.saved) return success({ active });
  }
  return failure('busy', 'id', 'it is being saved elsewhere; try again');
}

export async function copyBuild(id: string): Promise<Result<{ id: string }>> {
  const source = await openBuild(id);
  if (!source.ok) return source;
  // A copy is a piece that may be made; the hours of the workshop are not its own yet.
  const { build } = source.value;
  return success({
    id: await insert(
      { ...build, name: `${build.name.slice(0, 110)}, copy`, plan: { ...build.plan, active: false } },
      'Copied',
    ),
  });
}

export const marks = ['archive', 'unarchive', 'delete', 'restore', 'take-back'] as const;
export type Mark = (typeof marks)[number];

export async function markBuild(id: string, mark: Mark): Promise<Result<null>> {
  if (mark === 'take-back') return takeBack(id);
  const at = now();
  const set = {
    archive: { archivedAt: at },
    unarchive: { archivedAt: null },
    delete: { deletedAt: at },
    restore: { deletedAt: null },
  }[mark];
  const done = await db.markBuild(await database(), id, set);
  return done ? success(null) : failure('no-such-build', 'id', 'there is no such build');
}

/** A build from a stranger's file: one that cannot be worked out is not taken. */
export async function readBuildFile(text: string): Promise<Result<Build>> {
  const build = parseBuild(text);
  if (!build.ok) return build;
  const checked = await workOut('check', { build: build.value });
  return checked.ok ? build : checked;
}

export const broughtIn = 'Brought in from a file';

export async function importBuild(text: string): Promise<Result<{ id: string }>> {
  const build = await readBuildFile(text);
  return build.ok ? success(await addBuild(build.value, broughtIn)) : build;
}

export async function exportBuild(id: string): Promise<Result<{ name: string; text: string }>> {
  const open = await openBuild(id);
  if (!open.ok) return open;
  const slug =
    open.value.build.name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'build';
  return success({ name: `${slug}.sostegno.json`, text: `${JSON.stringify(open.value.build, null, 2)}\n` });
}
