import { clays, bulks, wraps, type ClayFamily } from '../catalogue';
import { newBust } from '../build';
import { clayToBuy, coatsOf, coreFace, mixClay, thicknessThatHangs, yieldAt } from '.';

const paper = clays.get('paper-clay') as ClayFamily;

test('water worked in: mass is kept, solids thin out, shrinkage grows with the water above the limit', () => {
  const plain = mixClay(paper, 0), wet = mixClay(paper, 0.1);
  expect(plain.wetDensity).toBe(1090);
  // One kilo as supplied is 1/1090 m3; with 100 g of water it is 1.1 kg in 1/1090 + 0.0001 m3.
  expect(wet.wetDensity).toBeCloseTo(1.1 / (1 / 1090 + 0.0001), 6);
  expect(wet.drying?.w0).toBeCloseTo(0.95 + 0.1 * 1.95, 9);
  expect(wet.drying?.shrinkage).toBeCloseTo((0.08 * (1.145 - 0.25)) / (0.95 - 0.25), 9);
  expect(wet.tabulatedW0).toBe(0.95);
  expect(mixClay(clays.get('epoxy-clay') as ClayFamily, 0.1).wetDensity).toBe(1650);
});

test('packs are whole, water is not bought', () => {
  const b = newBust('b', '2026-12-01');
  const dry = clayToBuy(b, mixClay(paper, 0), 0.004);
  expect(dry.onPiece).toBeCloseTo(4.36, 6);
  expect(dry.toBuy).toBeCloseTo(4.36 * 1.1, 6);
  expect(dry.packs).toBe(5);
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
  expect(yieldAt(45000, 'oil-medium', 28) / 45000).toBeCloseTo(Math.exp(-1), 9);
  expect(yieldAt(2500, 'paper-clay', 35)).toBe(2500);
});

test('the core face: wrap softens the hold, tape shuts the pores', () => {
  const face = (b: string, w: string) => coreFace(bulks.get(b) as never, wraps.get(w) as never);
  expect(face('paper-loose', 'none')).toMatchObject({ restraint: 0.12, innerFace: 0.3, solid: false });
  expect(face('paper-loose', 'tape')).toMatchObject({ innerFace: 0, grip: 0.7 });
  expect(face('foil-packed', 'twine').restraint).toBeCloseTo(0.24, 12);
  expect(face('none', 'twine')).toMatchObject({ restraint: 0.9, solid: true });
});

test('coats: a region of its own, or the rest', () => {
  const b = { ...newBust('b', '2026-12-01'), regions: { painted: [], seams: [], everywhere: { coats: [0.01] }, own: { head: { coats: [0.004, 0.003] } } } };
  expect(coatsOf(b, 'head')).toEqual([0.004, 0.003]);
  expect(coatsOf(b, 'neck')).toEqual([0.01]);
  expect(coatsOf(b, 'constructor')).toEqual([0.01]);
});
