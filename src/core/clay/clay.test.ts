import { clays, bulks, wraps } from '../catalogue';
import { newBust } from '../document';
import {
  clayToBuy,
  coatsOf,
  coreFace,
  heightThatStands,
  mixClay,
  paintedThickness,
  reclaim,
  recipeFor,
  sheetsFor,
  slidesFrom,
  thicknessThatHangs,
  yieldAt,
} from '.';

const paper = clays.get('paper-clay')!;

test('water worked in: mass is kept, solids thin out, shrinkage grows with the water above the limit', () => {
  const plain = mixClay(paper, 0),
    wet = mixClay(paper, 0.1);
  expect(plain.wetDensity).toBe(1090);
  // One kilo as supplied is 1/1090 m3; with 100 g of water it is 1.1 kg in 1/1090 + 0.0001 m3.
  expect(wet.wetDensity).toBeCloseTo(1.1 / (1 / 1090 + 0.0001), 6);
  expect(wet.drying?.w0).toBeCloseTo(0.95 + 0.1 * 1.95, 9);
  expect(wet.drying?.shrinkage).toBeCloseTo((0.08 * (1.145 - 0.25)) / (0.95 - 0.25), 9);
  expect(wet.tabulatedW0).toBe(0.95);
  // The same solids in more room: a cubic metre holds that much less of them, and wet it weighs solids and water.
  expect(plain.drying!.rho_dry).toBeCloseTo(1090 / 1.95, 9);
  expect(wet.drying!.rho_dry).toBeCloseTo(1090 / 1.95 / (1 + 0.1 * 1.09), 9);
  expect(wet.drying!.rho_dry * (1 + wet.drying!.w0)).toBeCloseTo(wet.wetDensity, 9);
  expect(wet.dryShare).toBeCloseTo(1 / (1 + 1.145), 9);
  expect(mixClay(clays.get('epoxy-clay')!, 0.1).wetDensity).toBe(1650);
});

test('packs are whole, water is not bought', () => {
  const b = newBust('b', '2026-12-01');
  const dry = clayToBuy(b, mixClay(paper, 0), 0.004);
  expect(dry.onPiece).toBeCloseTo(4.36, 6);
  expect(dry.toBuy).toBeCloseTo(4.36 * 1.1, 6);
  expect(dry.packs).toBe(5);
  // A pack begun is a pack bought; what comes to whole packs is not one more.
  const buys = (needed: number) =>
    clayToBuy({ ...b, materials: { ...b.materials, waste: 0 } }, mixClay(paper, 0), needed / paper.wetDensity).packs;
  expect([0.1, b.materials.pack.mass * 2, b.materials.pack.mass * 2.2].map(buys)).toEqual([1, 2, 3]);
  expect(dry.cost).toBe(22.5);
  const wet = clayToBuy({ ...b, materials: { ...b.materials, waterWorkedIn: 0.1 } }, mixClay(paper, 0.1), 0.004);
  expect(wet.toBuy + wet.water).toBeCloseTo(wet.onPiece * 1.1, 9);
});

test('thickness that hangs: the lesser of yield and grip, over weight, with half in hand', () => {
  expect(thicknessThatHangs(2500, 0.4, 1090, 90)).toBeCloseTo((0.4 * 1250) / (1090 * 9.81) / 1.5, 9);
  expect(thicknessThatHangs(2500, 2.5, 1090, 90)).toBeCloseTo(2500 / (1090 * 9.81) / 1.5, 9);
  expect(thicknessThatHangs(2500, 0.4, 1090, 0)).toBe(Infinity);
  expect(thicknessThatHangs(2500, 0.4, 1090, 150)).toBe(thicknessThatHangs(2500, 0.4, 1090, 90));
});

test('oil-based clay softens by e in 8 degrees; others do not', () => {
  expect(yieldAt({ yieldStress: 45000, softens: 8 }, 28) / 45000).toBeCloseTo(Math.exp(-1), 9);
  expect(yieldAt({ yieldStress: 2500, softens: null }, 35)).toBe(2500);
});

test('the core face: wrap softens the hold, tape shuts the pores', () => {
  const face = (b: string, w: string) => coreFace(bulks.get(b) as never, wraps.get(w) as never);
  expect(face('paper-loose', 'none')).toMatchObject({ restraint: 0.12, innerFace: 0.3, solid: false });
  expect(face('paper-loose', 'tape')).toMatchObject({ innerFace: 0, grip: 0.7 });
  expect(face('foil-packed', 'twine').restraint).toBeCloseTo(0.24, 12);
  expect(face('none', 'twine')).toMatchObject({ restraint: 0.9, solid: true });
});

test('coats: a region of its own, or the rest', () => {
  const b = {
    ...newBust('b', '2026-12-01'),
    regions: { painted: [], seams: [], everywhere: { coats: [0.01] }, own: { head: { coats: [0.004, 0.003] } } },
  };
  expect(coatsOf(b, 'head')).toEqual([0.004, 0.003]);
  expect(coatsOf(b, 'neck')).toEqual([0.01]);
  expect(coatsOf(b, 'constructor')).toEqual([0.01]);
});

test('clay on the shelf is used before any is bought; what is left is told', () => {
  const b = newBust('b', '2026-12-01');
  const some = clayToBuy({ ...b, materials: { ...b.materials, clayOnShelf: 2 } }, mixClay(paper, 0), 0.004);
  expect(some).toMatchObject({ fromShelf: 2, packs: 3 });
  expect(some.left).toBeCloseTo(3 - (4.36 * 1.1 - 2), 6);
  const all = clayToBuy({ ...b, materials: { ...b.materials, clayOnShelf: 9 } }, mixClay(paper, 0), 0.004);
  expect(all).toMatchObject({ toBuy: 0, packs: 0, cost: 0 });
  expect(all.left).toBeCloseTo(9 - 4.36 * 1.1, 6);
});

test('sheets of the board they are cut from, whole', () => {
  const b = newBust('b', '2026-12-01');
  // 0.34 m2 and a tenth more, from sheets of 0.3 by 0.4: 3.12, so four; three would do without waste.
  const s = sheetsFor(b, mixClay(paper, 0), 0.34, 0.01);
  expect(s.count).toBe(4);
  expect(s.each).toBeCloseTo(0.12 * 0.01 * 1090, 9);
});

test('a recipe is scaled to what is needed, and shrinks as the clay does', () => {
  const r = recipeFor(paper, mixClay(paper, 0), 6.5 * 1.09);
  // 6.5 parts make 6.5 litres: three of pulp, one and a half of clay, one of glue, one of filler.
  expect(r?.parts.map((p) => p.amount)).toEqual([3, 1.5, 1, 1].map((v) => expect.closeTo(v, 9) as number));
  expect(r?.dry).toBeCloseTo(0.0065 * 0.92 ** 3, 9);
  expect(recipeFor(clays.get('oil-medium')!, mixClay(paper, 0), 3)).toBeNull();
});

test('what comes back: all of what never dries, dried clay with its own water, nothing of what sets', () => {
  expect(reclaim('never', mixClay(clays.get('oil-medium')!, 0), 2)).toMatchObject({ back: 2, water: 0 });
  const dried = reclaim('dries', mixClay(paper, 0), 1.95);
  expect(dried).toMatchObject({ back: 1.95 });
  expect(dried.water).toBeCloseTo(0.95, 9);
  expect(reclaim('sets', mixClay(clays.get('epoxy-clay')!, 0), 2).back).toBe(0);
});

test('painted strokes are whole at their place and nothing at their edge', () => {
  expect(paintedThickness([], 1)).toBeNull();
  const at = paintedThickness(
    [
      { at: [0.1, 0, 0.2], radius: 0.05, by: 0.004 },
      { at: [0.1, 0, 0.2], radius: 0.02, by: -0.001 },
    ],
    0.5,
  );
  expect(at?.(0.05, 0, 0.1)).toBeCloseTo(0.0015, 9);
  expect(at?.(0.05 + 0.025, 0, 0.1)).toBe(0);
  expect(at?.(0.05 + 0.0125, 0, 0.1)).toBeCloseTo(0.002 * 0.75 ** 2, 9);
});

test('a soft column stands until its foot flows; a coat slides off what is steeper', () => {
  expect(heightThatStands(8000, 1900)).toBeCloseTo(16000 / (1900 * 9.81) / 1.5, 9);
  expect(slidesFrom(0.01, 0.009)).toBeNull();
  expect(slidesFrom(0.01, 0.02)).toBeCloseTo(30, 6);
});
