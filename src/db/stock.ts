import type { Db } from './open';

export interface MoveRow {
  readonly id: string;
  readonly item: string;
  readonly kind: string;
  readonly amount: number;
  readonly price: number | null;
  readonly buildId: string | null;
  readonly note: string;
  readonly at: string;
}

export function listMoves(db: Db): Promise<MoveRow[]> {
  return db
    .selectFrom('stock_moves')
    .select(['id', 'item', 'kind', 'amount', 'price', 'build_id as buildId', 'note', 'at'])
    .orderBy('at')
    .orderBy('id')
    .execute();
}

/** Once. Hands back the move that has this id already, where there is one; nothing is changed then. */
export async function addMove(db: Db, m: MoveRow): Promise<MoveRow | undefined> {
  const { buildId, ...rest } = m;
  const done = await db
    .insertInto('stock_moves')
    .values({ ...rest, build_id: buildId })
    .onConflict((c) => c.column('id').doNothing())
    .executeTakeFirst();
  if (done.numInsertedOrUpdatedRows === 1n) return undefined;
  return (await listMoves(db)).find((kept) => kept.id === m.id);
}
