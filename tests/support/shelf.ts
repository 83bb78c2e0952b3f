import type { StockMove, StockNeed } from '../../src/core/plan';

/** Paper clay that came or went on a day of December, and a build's need of it, at 5 a kilo. */
export const move = (
  kind: StockMove['kind'],
  amount: number,
  at: string,
  more: Partial<StockMove> = {},
): StockMove => ({
  item: 'clay/paper-clay',
  kind,
  amount,
  price: null,
  build: null,
  at: `2026-12-${at}T10:00:00.000Z`,
  ...more,
});
export const need = (build: string, amount: number, more: Partial<StockNeed> = {}): StockNeed => ({
  item: 'clay/paper-clay',
  name: 'paper clay',
  unit: 'kg',
  build,
  buildName: build,
  amount,
  price: 5,
  ...more,
});
