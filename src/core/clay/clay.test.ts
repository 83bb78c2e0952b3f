import { clays, bulks, wraps } from '../catalogue';
import { newBust } from '../document';
import {
  clayToBuy,
  coatsOf,
  coreFace,
  heightThatStands,
  holdOf,
  mixClay,
  mostShrinkage,
  packOf,
  paintedThickness,
  reclaim,
  recipeFor,
  sheetsFor,
  slidesFrom,
  thicknessThatHangs,
  yieldAt,
  yieldUnderTool,
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
  const { mass } = packOf(b);
  expect([0.1, mass * 2, mass * 2.2].map(buys)).toEqual([1, 2, 3]);
  expect(dry.cost).toBe(22.5);
  const wet = clayToBuy({ ...b, materials: { ...b.materials, waterWorkedIn: 0.1 } }, mixClay(paper, 0.1), 0.004);
  expect(wet.toBuy + wet.water).toBeCloseTo(wet.onPiece * 1.1, 9);
});

test('each clay has its pack and its price; a maker’s own is of one clay and stays with it', () => {
  const b = newBust('b', '2026-12-01');
  const of = (clay: string, packs = {}) =>
    packOf({ ...b, brief: { ...b.brief, clay }, materials: { ...b.materials, packs } });
  expect(of('paper-clay')).toEqual({ mass: 1, price: 4.5 });
  expect(of('foam-air-dry').price / of('foam-air-dry').mass).toBe(24);
  expect(of('oil-medium')).toEqual({ mass: 1, price: 11 });
  const own = { 'paper-clay': { mass: 5, price: 15 } };
  expect(of('paper-clay', own)).toEqual({ mass: 5, price: 15 });
  expect(of('water-based', own)).toEqual({ mass: 10, price: 9 });
});

test('sheets are counted for the clay there is: one smaller sheet for half a kilo, not eight', () => {
  const b = newBust('b', '2026-12-01');
  const mixed = mixClay(paper, 0);
  // Half a litre at 5 mm is a tenth of a square metre, and a tenth more for offcuts: less than a sheet of 300 by 400.
  const one = sheetsFor(b, mixed, 0.0005, 0.005);
  expect(one).toMatchObject({ count: 1, area: 0.1 });
  expect(one.mass).toBeCloseTo(0.0005 * 1.1 * paper.wetDensity, 9);
  expect(one.each).toBe(one.mass);
  const many = sheetsFor(b, mixed, 0.003, 0.005);
  expect(many.count).toBe(6);
  expect(many.each).toBeCloseTo(0.12 * 0.005 * paper.wetDensity, 9);
  expect(many.mass).toBeCloseTo(0.0033 * paper.wetDensity, 9);
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

test('0.1 kg of water in a kilo of earthen clay: about 0.4 kPa, hanging 6 mm upright on tape; past the range it is slip', () => {
  const earthen = clays.get('earthen-air-dry')!;
  const wet = mixClay(earthen, 0.1);
  // 0.128 more on a plastic range of 0.2: e^-2.94.
  expect(wet.yieldStress).toBeCloseTo(8000 * Math.exp((-4.6 * 0.128) / 0.2), 6);
  expect(wet.yieldStress).toBeGreaterThan(380);
  expect(wet.yieldStress).toBeLessThan(450);
  const { yieldStress } = holdOf(earthen, wet, 20);
  expect(thicknessThatHangs(yieldStress, 0.7, wet.wetDensity, 90)).toBeCloseTo(0.006, 3);
  expect(mixClay(earthen, 0.15).towardsSlip).toBeLessThan(1);
  expect(mixClay(earthen, 0.16).towardsSlip).toBeGreaterThan(1);
  // A hundredfold over the range, of every clay that dries; none worked in changes nothing.
  for (const c of clays.values()) {
    if (!c.drying) continue;
    const whole = (c.plasticRange ?? NaN) / (1 + c.drying.w0);
    expect(mixClay(c, whole).yieldStress / c.yieldStress).toBeCloseTo(0.01, 3);
    expect(mixClay(c, 0)).toMatchObject({ yieldStress: c.yieldStress, towardsSlip: 0 });
  }
});

test('no clay loses more volume than the water it gives off above its shrinkage limit', () => {
  for (const c of clays.values()) {
    if (!c.drying) continue;
    for (const share of [0, 0.05, 0.1, 0.3, 0.6]) {
      const { drying } = mixClay(c, share);
      const lost = 1 - (1 - drying!.shrinkage) ** 3;
      expect(lost).toBeLessThanOrEqual((drying!.rho_dry * (drying!.w0 - drying!.w_sl)) / 1000 + 1e-12);
      if (share === 0) expect(drying!.shrinkage).toBeCloseTo(c.drying.shrinkage, 9);
    }
    // What it weighs is its solids and its water.
    expect((c.drying.rho_dry * (1 + c.drying.w0)) / c.wetDensity).toBeCloseTo(1, 1.5);
  }
  // One of a maker's own that claims a fifth: 1400 kg of solids and a tenth of water make 5 %.
  const own = { ...clays.get('earthen-air-dry')!, wetDensity: 1750 };
  const claims = { ...own, drying: { ...own.drying!, w0: 0.25, w_sl: 0.15, rho_dry: 1400, shrinkage: 0.2 } };
  expect(mixClay(claims, 0).drying!.shrinkage).toBeCloseTo(1 - Math.cbrt(1 - 0.14), 9);
  expect(mostShrinkage({ w0: 5, w_sl: 0, rho_dry: 1000 })).toBe(1);
});

test('oil-based clay holds for a day what a fifth of it bears for a second, less when warm; others half again less than at once', () => {
  const oil = clays.get('oil-medium')!;
  const mixed = mixClay(oil, 0);
  expect(yieldUnderTool(oil, mixed, 20)).toBe(45_000);
  expect(holdOf(oil, mixed, 20)).toEqual({ yieldStress: 45_000 * 0.18, margin: 1 });
  // Seconds in a day to the power of 0.15: what the share follows from.
  expect(86_400 ** -0.15).toBeCloseTo(0.18, 2);
  expect(60 ** -0.15).toBeCloseTo(0.54, 2);
  expect(holdOf(oil, mixed, 36).yieldStress / holdOf(oil, mixed, 20).yieldStress).toBeCloseTo(Math.exp(-2), 9);
  expect(holdOf(paper, mixClay(paper, 0), 36)).toEqual({ yieldStress: 2500, margin: 1.5 });
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
  const s = sheetsFor(b, mixClay(paper, 0), 0.0034, 0.01);
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
