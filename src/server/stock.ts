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
import { database } from './store';
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
}

const needed = new Map<string, { readonly key: string; readonly needs: readonly StockNeed[] }>();

async function needsOfShelf(rows: readonly db.ListedBuild[]): Promise<StockNeed[]> {
  const out: StockNeed[] = [];
  for (const row of rows) {
    // Another version of a build is the same piece once more: it is made once.
    if (row.archivedAt !== null || row.versionOf !== null) continue;
    // A restore can bring another content under the same revision.
    const key = `${row.revision}:${row.updatedAt}`;
    if (needed.get(row.id)?.key !== key) {
      const found = await db.findBuild(await database(), row.id);
      const build = parseBuild(found?.document ?? '');
      const needs = build.ok ? await workOut('needs', { id: row.id, build: build.value }) : build;
      needed.set(row.id, { key, needs: needs.ok ? needs.value : [] });
    }
    out.push(...(needed.get(row.id)?.needs ?? []));
  }
  return out;
}

export async function stockReport(): Promise<StockReport> {
  const store = await database();
  const rows = (await db.listCards(store)).filter((r) => r.versionOf === null);
  const kept = await db.listMoves(store);
  const moves: StockMove[] = kept.map((m) => ({
    item: m.item,
    kind: m.kind as StockMove['kind'],
    amount: m.amount,
    price: m.price,
    build: m.buildId,
    at: m.at,
  }));
  const needs = await needsOfShelf(rows);
  for (const b of rows) moves.push(...usedByLog(b.id, effectiveLog(entriesOf(await db.listLog(store, b.id))), needs));
  const lines = stockLines(moves, needs);
  const costs = rows
    .filter((r) => needs.some((n) => n.build === r.id))
    .map((r) => ({ build: r.id, name: r.name, ...costOfBuild(r.id, needs, moves, lines) }));
  return { lines, costs, moves: [...kept].reverse() };
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
