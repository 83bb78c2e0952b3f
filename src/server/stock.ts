import { z } from 'zod';
import { describeIssue, parseBuild, stableText } from '../core/document';
import {
  costOfBuild,
  stockLines,
  usedByLog,
  type BuildCost,
  type StockLine,
  type StockMove,
  type StockNeed,
} from '../core/plan';
import { effectiveLog } from '../core/log';
import { failure, success, type Result } from '../core/quantity';
import * as db from '../db';
import { workOut } from './reckoner';
import { database, reckoningVersion } from './store';
import { idTaken } from './log';
import { entriesOf } from './workshop';

/** The shelf of materials: moves that are kept, what the logs say was used, and what the builds on the shelf still need. */
const moveSchema = z.strictObject({
  id: z.uuid(),
  item: z
    .string()
    .regex(/^[a-z]+\/[^\s/]+(\/[^\s/]+)?$/, 'an item is its kind and its name')
    .max(120),
  kind: z.enum(['bought', 'reclaimed', 'scrapped', 'counted']),
  amount: z.number().min(0).max(1e5),
  price: z.number().min(0).max(1e6).nullable().default(null),
  buildId: z.uuid().nullable().default(null),
  note: z.string().max(200).default(''),
  at: z.iso.datetime(),
});

export interface StockReport {
  readonly lines: readonly StockLine[];
  readonly costs: readonly (BuildCost & { readonly build: string; readonly name: string })[];
  readonly moves: readonly db.MoveRow[];
  /** Pieces whose needs are still being worked out, and not in it. */
  readonly waiting: number;
}

/** What a build's needs were worked out from: its document as it was saved, by the reckoning as it is. */
const stampOf = (row: db.ListedBuild) => `${reckoningVersion()} ${row.revision} ${row.updatedAt}`;

interface Needs {
  readonly needs: readonly StockNeed[];
  /** Builds whose needs are still being worked out. */
  readonly waiting: readonly db.ListedBuild[];
}

async function needsKept(rows: readonly db.ListedBuild[]): Promise<Needs> {
  const kept = new Map((await db.listNeeds(await database())).map((n) => [n.id, n]));
  const needs: StockNeed[] = [];
  const waiting: db.ListedBuild[] = [];
  for (const row of rows) {
    const own = kept.get(row.id);
    // Put away, or another version of a build, which is the same piece once more: it is made once.
    if (!own) continue;
    if (own.needsOf !== stampOf(row)) waiting.push(row);
    else if (own.needs !== '') needs.push(...(JSON.parse(own.needs) as StockNeed[]));
  }
  return { needs, waiting };
}

/** Works the needs of these builds out and keeps them; one that cannot be worked out needs nothing. */
async function workNeedsOut(rows: readonly db.ListedBuild[]): Promise<void> {
  const store = await database();
  for (const row of rows) {
    const found = await db.findBuild(store, row.id);
    const build = parseBuild(found?.document ?? '');
    const needs = build.ok ? await workOut('needs', { id: row.id, build: build.value }, 'cards') : build;
    if (!needs.ok && needs.code === 'busy') return;
    await db.putNeeds(store, row.id, row.updatedAt, needs.ok ? JSON.stringify(needs.value) : '', stampOf(row));
  }
}

let going: Promise<void> | null = null;

/** Told from what is kept. What is not is worked out: before the answer where it is waited for, else beside it. */
export async function stockReport({ wait = true } = {}): Promise<StockReport> {
  const store = await database();
  const rows = (await db.listBuilds(store)).filter((r) => r.versionOf === null);
  let { needs, waiting } = await needsKept(rows);
  if (waiting.length > 0) {
    going ??= workNeedsOut(waiting).finally(() => (going = null));
    if (wait) {
      await going;
      ({ needs, waiting } = await needsKept(rows));
    } else going.catch((error: Error) => process.stderr.write(`stock: ${error.message}\n`));
  }
  const kept = await db.listMoves(store);
  const moves: StockMove[] = kept.map((m) => ({
    item: m.item,
    kind: m.kind as StockMove['kind'],
    amount: m.amount,
    price: m.price,
    build: m.buildId,
    at: m.at,
  }));
  for (const b of rows) moves.push(...usedByLog(b.id, effectiveLog(entriesOf(await db.listLog(store, b.id))), needs));
  const lines = stockLines(moves, needs);
  const costs = rows
    .filter((r) => needs.some((n) => n.build === r.id))
    .map((r) => ({ build: r.id, name: r.name, ...costOfBuild(r.id, needs, moves, lines) }));
  return { lines, costs, moves: [...kept].reverse(), waiting: waiting.length };
}

export async function moveStock(input: unknown): Promise<Result<{ id: string }>> {
  const move = moveSchema.safeParse(input);
  if (!move.success) {
    const { path, message } = describeIssue(move.error, 'move');
    return failure('bad-entry', path, message);
  }
  const store = await database();
  if (move.data.buildId !== null && !(await db.findBuild(store, move.data.buildId)))
    return failure('no-such-build', 'buildId', 'there is no such build');
  const there = await db.addMove(store, move.data);
  return there === undefined || stableText(there) === stableText(move.data)
    ? success({ id: move.data.id })
    : idTaken('id', 'another entry of the stock');
}
