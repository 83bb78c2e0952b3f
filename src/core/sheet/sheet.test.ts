import { asBriefed } from '../evaluate';
import type { Build } from '../document';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import { Evaluator } from '../evaluate';
import { sheetOf, templatesOf, type SheetContents } from '../sheet';

const evaluator = new Evaluator();
const acrobat = otherDemoBuilds('2026-12-01', '2026-12-24').find((b) => b.name === 'Acrobats')!;
function sheet(build: Build, copies?: number): SheetContents {
  const made = sheetOf(asBriefed(build), evaluator, copies === undefined ? {} : { copies });
  if (!made.ok) throw new Error(made.message);
  return made.value;
}

describe('the printed sheet', () => {
  test('a class of twenty-four takes two spares, and everything that is bought is for all of them', () => {
    const one = sheet(acrobat),
      many = sheet(acrobat, 24);
    expect([many.copies, many.spares]).toEqual([24, 2]);
    expect(many.clay.toBuy).toBeCloseTo(26 * one.clay.toBuy, 9);
    expect(many.clay.packs).toBe(Math.ceil(many.clay.toBuy / many.clay.packMass));
    expect(many.bulk?.mass).toBeCloseTo(26 * (one.bulk?.mass ?? NaN), 9);
    expect(many.hardware.map((h) => h.count)).toEqual(one.hardware.map((h) => 26 * h.count));
    const pieces = (s: SheetContents) =>
      s.stock.reduce((n, x) => n + x.nesting.bars.reduce((m, b) => m + b.pieces.length, 0), 0);
    expect(pieces(many)).toBe(26 * pieces(one));
    expect(pieces(one)).toBe(one.cuts.reduce((n, c) => n + c.pieces, 0));
  });
  test('what is on the rack is used first; what it is sold in is the maker’s own', () => {
    const key = sheet(acrobat).stock[0]!.key!;
    const racked = sheet({
      ...acrobat,
      materials: { ...acrobat.materials, onHand: { [key]: [5] }, sold: { [key]: 3 } },
    });
    const [stock] = racked.stock;
    expect(stock?.sold).toBe(3);
    expect(stock?.nesting.bars.every((b) => b.had)).toBe(true);
    expect(stock?.nesting.bought).toBe(0);
  });
  test('left and right are marked, holes are where the screws are', () => {
    const bust = sheet(lamplighter('2026-12-01', null));
    expect(bust.cuts.filter((c) => c.side === 'left')).toHaveLength(1);
    expect(bust.cuts.filter((c) => c.side === 'right')).toHaveLength(1);
    const pilots = bust.holes.find((h) => h.what.startsWith('pilots'));
    expect(pilots?.count).toBe(4);
    const { base } = bust.board;
    for (const [x, y] of pilots?.at ?? [])
      expect(Math.hypot(x + base.at[0] - base.flangeAt[0], y + base.at[1] - base.flangeAt[1])).toBeCloseTo(
        base.screws.circle / 2,
        9,
      );
    expect(pilots?.diameter).toBeCloseTo(0.7 * base.screws.diameter, 9);
  });
  test('bent members have templates, the pipe is only cut', () => {
    const made = templatesOf(asBriefed(lamplighter('2026-12-01', null)), evaluator);
    if (!made.ok) throw new Error(made.message);
    expect(made.value.templates.map((t) => t.member)).toEqual(
      expect.arrayContaining(['stuffed/loop-front', 'stuffed/loop-side', 'stuffed/head-band']),
    );
    expect(made.value.straight.map((s) => s.name)).toContain('upright pipe');
    for (const t of made.value.templates) expect(made.value.across[t.member]).toBeGreaterThan(0.001);
  });
});
