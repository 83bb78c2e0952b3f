import { bundleAcross, compositeSection, sectionAcross, sectionGeometry, type Member } from '../armature';
import { sizesLike, type Stock, type StockSize } from '../catalogue';

/** What a member can be cut from: a size that is sold, and how many of it side by side. */
export interface Bundle {
  readonly stock: Stock;
  readonly size: StockSize;
  readonly strands: number;
  /** Nm it bears and Nm2 it resists bending with, N it bears along it, kg to a metre. */
  readonly bears: number;
  readonly stiffness: number;
  readonly weighs: number;
  /** Of one strand and of all of them, metres. */
  readonly strand: number;
  readonly whole: number;
}

export function bundleOf(stock: Stock, size: StockSize, strands: number, bonded: boolean): Bundle {
  const part = {
    section: size.section,
    youngs: stock.youngs,
    strength: stock.strength.nominal * stock.allowed,
    brittle: stock.brittle,
    strands,
    bonded,
  };
  const { EI, metalMoment, brittleMoment } = compositeSection({ metal: [part], bulk: null, clay: null });
  const strand = sectionAcross(size.section);
  return {
    stock,
    size,
    strands,
    bears: stock.brittle ? brittleMoment : metalMoment,
    stiffness: EI,
    weighs: sectionGeometry(size.section).area * stock.density * strands,
    strand,
    whole: bundleAcross(strand, strands),
  };
}

/** What is taken where a stock is not enough, one after the other. */
const stronger: Readonly<Record<string, readonly string[]>> = {
  'aluminium-annealed': ['steel-galvanised', 'mild-steel'],
  'copper-annealed': ['brass-rod'],
  'brass-rod': ['mild-steel'],
  'hardwood-dowel': ['mild-steel'],
};
/** Wire thinner than this is not bent to an armature, metres. */
const thinnestWire = 0.001;

/**
 * What a member of this stock may be cut from, of its own stock first and each by its weight; `mostStrands` is 1 where a
 * way of building takes one only.
 */
export function bundlesFor(
  member: Pick<Member, 'stock' | 'size' | 'bonded'>,
  mostStrands: number,
  otherStock: boolean,
  stockOf: (id: string) => Stock | undefined,
): readonly (readonly Bundle[])[] {
  const own = stockOf(member.stock);
  const size = own?.sizes.find((s) => s.id === member.size);
  if (!own || !size) return [];
  const list = (stock: Stock, sizes: readonly StockSize[]) =>
    sizes
      .filter((s) => s.section.shape !== 'round' || sectionAcross(s.section) >= thinnestWire)
      .flatMap((s) =>
        Array.from({ length: mostStrands }, (_, n) => bundleOf(stock, s, n + 1, member.bonded && n > 0)),
      )
      .sort((a, b) => a.weighs - b.weighs);
  const others = otherStock ? (stronger[member.stock] ?? []) : [];
  return [
    list(
      own,
      sizesLike(own, member.size).filter((s) => s.section.shape === size.section.shape),
    ),
    ...others.flatMap((id) => {
      const stock = stockOf(id);
      return stock
        ? [
            list(
              stock,
              stock.sizes.filter((s) => s.section.shape === 'round' && s.id.endsWith('mm')),
            ),
          ]
        : [];
    }),
  ];
}
