import { move, need } from '../../../tests/support/shelf';
import { costOfBuild, onShelf, stockLines, type StockMove, type StockNeed } from '.';

/** The workshop's shelf: what came, went, was counted; what is spoken for; what it has cost. */
const line = (moves: readonly StockMove[], needs: readonly StockNeed[]) => stockLines(moves, needs)[0]!;

test('in the order of their time, however they were written down; never less than nothing', () => {
  const all = [move('used', 3, '03'), move('bought', 5, '01'), move('counted', 2, '04'), move('reclaimed', 1, '05')];
  expect(onShelf(all)).toBe(3);
  expect(onShelf([move('used', 3, '01'), move('bought', 5, '02')])).toBe(5);
  expect(onShelf([move('bought', 5, '01'), move('scrapped', 9, '02'), move('bought', 1, '03')])).toBe(1);
  expect(onShelf([])).toBe(0);
});

test('what a build has used of its need is not kept for it any more; what is short is to buy', () => {
  const moves = [move('bought', 3, '01'), move('used', 1, '02', { build: 'a' })];
  const l = line(moves, [need('a', 2.5), need('b', 2)]);
  expect(l.reserved).toEqual([
    { build: 'a', name: 'a', amount: 1.5 },
    { build: 'b', name: 'b', amount: 2 },
  ]);
  expect([l.onShelf, l.used, l.toBuy]).toEqual([2, 1, 1.5]);
  // More used than was reckoned keeps nothing, and owes nothing.
  expect(line([move('used', 9, '01', { build: 'a' })], [need('a', 2)]).reserved).toEqual([]);
});

test('the last price that was paid goes before what is reckoned', () => {
  const paid = [
    move('bought', 2, '01', { price: 10 }),
    move('bought', 4, '03', { price: 12 }),
    move('bought', 1, '02', { price: 9 }),
  ];
  expect(line(paid, [need('a', 1)]).price).toBe(3);
  expect(line([], [need('a', 1)]).price).toBe(5);
  expect(line([move('bought', 2, '01')], [need('a', 1, { price: null })]).price).toBeNull();
});

test('planned, so far, and what is still to come; what has no price is named', () => {
  const needs = [need('a', 3), need('a', 2, { item: 'wrap/tape', name: 'tape', unit: 'm', price: null })];
  const moves = [move('bought', 5, '01', { price: 30 }), move('used', 1, '02', { build: 'a' })];
  const cost = costOfBuild('a', needs, moves, stockLines(moves, needs));
  // Reckoned at 5 a kilo, paid at 6: one kilo is used, two are to come.
  expect(cost).toEqual({ planned: 15, soFar: 6, expected: 18, unpriced: ['tape'] });
});

test('an item that only moved has a name and a unit of its own kind', () => {
  expect(stockLines([move('bought', 1, '01', { item: 'stock/mild-steel/6mm' })], [])[0]).toMatchObject({
    name: 'mild steel 6mm',
    unit: 'm',
  });
});
