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

/** Once: the same id again changes nothing. */
export async function addMove(db: Db, m: MoveRow): Promise<void> {
  const { buildId, ...rest } = m;
  await db
    .insertInto('stock_moves')
    .values({ ...rest, build_id: buildId })
    .onConflict((c) => c.column('id').doNothing())
    .execute();
}
