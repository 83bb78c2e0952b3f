import { changed, judged } from '../../../tests/support/judged';
import { lamplighter } from '../../server/demo-builds';
import { stocks } from '../catalogue';
import { pricePerMetre } from '.';

const bust = lamplighter('2026-11-22', null);
const priced = (key: string, stockPrices = {}) =>
  pricePerMetre(
    { build: { ...bust, materials: { ...bust.materials, stockPrices } }, stockOf: (id) => stocks.get(id) },
    key,
  );

test('stock costs by what it weighs: square tube is not wire', () => {
  const tube = stocks.get('steel-square-tube')!;
  const size = tube.sizes.find((s) => s.section.shape === 'square-tube')!;
  const { width, wall } = size.section as { width: number; wall: number };
  expect(priced(`steel-square-tube/${size.id}`)).toBeCloseTo(
    (width ** 2 - (width - 2 * wall) ** 2) * tube.density * 4,
    9,
  );
  // 3.2 mm of soft aluminium: 22 g a metre at 14 a kilo.
  expect(priced('aluminium-annealed/3.2mm')).toBeCloseTo((Math.PI / 4) * 0.0032 ** 2 * 2700 * 14, 2);
  expect(priced(`steel-black/${stocks.get('steel-black')!.sizes[0]!.id}`)).toBeGreaterThanOrEqual(0.1);
  expect(priced('mild-steel/6mm', { 'mild-steel/6mm': 2.4 })).toBe(2.4);
});

test('what a piece costs is its packs and its metres', () => {
  const { report } = judged(bust);
  const metres = report.cuts.reduce((sum, c) => sum + c.cutLength * c.pieces * priced(c.key), 0);
  expect(report.wireCost).toBeCloseTo(metres, 9);
  expect(report.summary.cost).toBeCloseTo(report.clay.packs * 4.5 + metres, 9);
  const dear = judged(
    changed(bust, { path: ['materials', 'packs'], value: { 'paper-clay': { mass: 1, price: 9 } } }),
  ).report;
  expect(dear.clay.cost).toBeCloseTo(2 * report.clay.cost, 9);
});
