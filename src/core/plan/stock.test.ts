import { effectiveLog, type LogEntry } from '../log';
import { move, need } from '../../../tests/support/shelf';
import { costOfBuild, onShelf, stockLines, usedByLog } from '.';

test('what is there follows what came and went, and a count overrules', () => {
  expect(
    onShelf([move('bought', 10, '01'), move('used', 3, '02'), move('scrapped', 1, '03'), move('reclaimed', 2, '04')]),
  ).toBe(8);
  expect(onShelf([move('counted', 5, '03'), move('bought', 10, '01'), move('used', 1, '04')])).toBe(4);
  expect(onShelf([move('used', 4, '01'), move('bought', 3, '02')])).toBe(3);
});

test('reserved is what is still to be used; to buy is what is not there', () => {
  const moves = [move('bought', 10, '01', { price: 40 }), move('used', 4, '02', { build: 'a' })];
  const [line] = stockLines(moves, [need('a', 6), need('b', 7)]);
  expect(line).toMatchObject({
    onShelf: 6,
    used: 4,
    toBuy: 3,
    price: 4,
    reserved: [
      { build: 'a', amount: 2 },
      { build: 'b', amount: 7 },
    ],
  });
  const [enough] = stockLines([move('bought', 20, '01')], [need('a', 6)]);
  expect(enough).toMatchObject({ toBuy: 0, price: 5 });
});

test('planned and real cost: what was used at what was paid, the rest as reckoned', () => {
  const moves = [move('bought', 10, '01', { price: 40 }), move('used', 4, '02', { build: 'a' })];
  const needs = [need('a', 6), need('a', 2, { item: 'bulk/foil', name: 'foil', price: null })];
  const cost = costOfBuild('a', needs, moves, stockLines(moves, needs));
  expect(cost).toEqual({ planned: 30, soFar: 16, expected: 24, unpriced: ['foil'] });
});

test('steps that are done use up what they need; what was told counts instead; struck entries do not', () => {
  const step = (id: string, step: string, data: Record<string, unknown> = {}): LogEntry => ({
    id,
    kind: 'step',
    at: '2026-12-02T10:00:00.000Z',
    data: { step, name: step, kind: 'own', ...data },
    corrects: null,
  });
  const needs = [
    need('a', 6),
    need('a', 3, { item: 'stock/wire/2mm', unit: 'm' }),
    need('a', 1, { item: 'bulk/foil' }),
    need('b', 9),
  ];
  const log = [step('1', 'armature'), step('2', 'lay/head/1', { clay: 2.5 }), step('3', 'lay/chest/1', { clay: 1.5 })];
  const used = (entries: readonly LogEntry[]) =>
    usedByLog('a', effectiveLog(entries), needs).map((m) => [m.item, m.amount]);
  expect(used(log)).toEqual([
    ['clay/paper-clay', 2.5],
    ['clay/paper-clay', 1.5],
    ['stock/wire/2mm', 3],
  ]);
  expect(
    used([
      ...log,
      {
        id: '4',
        kind: 'used',
        at: '2026-12-03T10:00:00.000Z',
        data: { item: 'clay/paper-clay', amount: 4.4, name: '', unit: 'kg' },
        corrects: null,
      },
    ]),
  ).toEqual([
    ['clay/paper-clay', 4.4],
    ['stock/wire/2mm', 3],
  ]);
  expect(used([...log, { id: '5', kind: 'void', at: '2026-12-03T10:00:00.000Z', data: {}, corrects: '1' }])).toEqual([
    ['clay/paper-clay', 2.5],
    ['clay/paper-clay', 1.5],
  ]);
});

test('part of a laying uses what it laid until the laying is done; taken apart, wire and clay go back', () => {
  const entry = (id: string, kind: string, day: string, data: object): LogEntry =>
    ({ id, kind, at: `2026-12-${day}T10:00:00.000Z`, data, corrects: null }) as unknown as LogEntry;
  const needs = [need('a', 6), need('a', 3, { item: 'stock/wire/2mm', unit: 'm' })];
  const moves = (...log: LogEntry[]) =>
    usedByLog('a', effectiveLog(log), needs).map((m) => [m.kind, m.item.split('/')[0], m.amount]);
  const armature = entry('1', 'step', '02', { step: 'armature', name: 'x', kind: 'armature' });
  const part = entry('2', 'part', '03', { step: 'lay/head/1', name: 'x', kind: 'clay', worked: 1, clay: 1 });
  const laid = entry('3', 'step', '04', { step: 'lay/head/1', name: 'x', kind: 'clay', clay: 2.5 });
  const apart = entry('4', 'step', '20', { step: 'take-apart', name: 'x', kind: 'closing' });
  const reclaim = entry('5', 'step', '21', { step: 'reclaim', name: 'x', kind: 'closing', returned: 2.5 });
  expect(moves(armature, part)).toEqual([
    ['used', 'clay', 1],
    ['used', 'stock', 3],
  ]);
  expect(moves(part, laid)).toEqual([['used', 'clay', 2.5]]);
  expect(moves(armature, part, laid, apart, reclaim)).toEqual([
    ['reclaimed', 'clay', 2.5],
    ['used', 'clay', 2.5],
    ['reclaimed', 'stock', 3],
    ['used', 'stock', 3],
  ]);
  // What was told counts, there and back.
  const told = entry('6', 'used', '02', { item: 'stock/wire/2mm', amount: 3.4, name: '', unit: 'm' });
  expect(moves(told, armature, apart)).toEqual([
    ['used', 'stock', 3.4],
    ['reclaimed', 'stock', 3.4],
  ]);
  expect(onShelf(usedByLog('a', effectiveLog([armature, apart]), needs.slice(1)))).toBe(3);
});
