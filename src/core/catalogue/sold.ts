import type { Stock, StockSize } from './schema';

/**
 * Sizes of the series a size is of, millimetres with millimetres, a gauge with its gauge, inches with inches; and of its
 * shape: flat bar is no thinner rod.
 */
export function sizesLike(stock: Stock, size: string): readonly StockSize[] {
  const series = seriesOf(size);
  const shape = stock.sizes.find((s) => s.id === size)?.section.shape;
  return stock.sizes.filter((s) => seriesOf(s.id) === series && (shape === undefined || s.section.shape === shape));
}

const seriesOf = (id: string) => (id.endsWith('mm') ? 'mm' : id.replace(/[\d-]+/g, ''));

/** The lengths stock is usually sold in, metres: wire by the coil, rod and tube by the length. A maker's own go first. */
export function soldLength(stock: Stock, size: StockSize): number {
  const across = 'diameter' in size.section ? size.section.diameter : size.section.width;
  if (/wire|steel-(galvanised|black|hard)|aluminium|copper/.test(stock.id))
    return across <= 0.002 ? 20 : across <= 0.0035 ? 10 : across <= 0.0065 ? 5 : 2;
  if (stock.id === 'bamboo') return 1.8;
  if (stock.id === 'brass-rod') return 1;
  if (stock.id === 'hardwood-dowel') return across <= 0.006 ? 1 : 2.4;
  if (stock.id === 'softwood-batten') return 2.4;
  if (stock.id === 'threaded-rod' || stock.id === 'stainless-rod') return 1;
  return 3;
}

/** What is taken where a stock is not enough, or has no room: one after the other, the nearest to it first. */
export const harderStock: Readonly<Record<string, readonly string[]>> = {
  'aluminium-annealed': ['steel-galvanised', 'steel-hard', 'mild-steel'],
  'copper-annealed': ['brass-rod'],
  'brass-rod': ['mild-steel'],
  'hardwood-dowel': ['mild-steel'],
  'steel-square-tube': ['mild-steel'],
};
