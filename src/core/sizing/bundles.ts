import { bundleAcross, compositeSection, sectionAcross, sectionGeometry, type Member } from '../armature';
import { harderStock, sizesLike, type Stock, type StockSize } from '../catalogue';

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

/** Of harder stock, what is still bent by hand, again and again. */
const byHand = new Set(['steel-galvanised', 'brass-rod']);

/** Wire thinner than this is not bent to an armature, soft wire thicker than this not by hand, nor bar in a vice; metres. */
const thinnestWire = 0.001,
  thickestSoft = 0.0065,
  thickestBar = 0.012;
/** Of the height of a piece: soft wire as thick as is taken in hand for it; harder wire by this much thinner. */
const handyShare = 1 / 250,
  handyHard = 0.55;

const isTimber = (stock: Stock) => stock.brittle;
const isSoft = (stock: Stock) => stock.id.endsWith('-annealed');

/**
 * What a member of this stock may be cut from for a piece so high: of its own stock first, then of stronger ones, and of
 * what is thin for its height last; each by its weight. `mostStrands` is 1 where a way of building takes one only.
 */
export function bundlesFor(
  member: Pick<Member, 'size' | 'bonded'>,
  stock: string,
  height: number,
  mostStrands: number,
  otherStock: 'any' | 'bends' | 'none',
  stockOf: (id: string) => Stock | undefined,
): readonly (readonly Bundle[])[] {
  const own = stockOf(stock);
  if (!own) return [];
  const size =
    own.sizes.find((s) => s.id === member.size) ?? own.sizes.find((s) => s.id.endsWith('mm')) ?? own.sizes[0]!;
  const others = (harderStock[stock] ?? [])
    .filter((id) => otherStock === 'any' || (otherStock === 'bends' && byHand.has(id)))
    .flatMap((id) => stockOf(id) ?? []);
  const lists = [
    bundlesIn(own, sizesLike(own, size.id), size.section.shape, member.bonded, mostStrands),
    ...others.map((o) =>
      bundlesIn(
        o,
        o.sizes.filter((s) => s.id.endsWith('mm')),
        'round',
        member.bonded,
        mostStrands,
      ),
    ),
  ];
  const handy = (b: Bundle) =>
    b.size.section.shape !== 'round' || b.strand >= height * handyShare * (isSoft(b.stock) ? 1 : handyHard);
  return [...lists.map((l) => l.filter(handy)), lists.flatMap((l) => l.filter((b) => !handy(b)))];
}

function bundlesIn(
  stock: Stock,
  sizes: readonly StockSize[],
  shape: StockSize['section']['shape'],
  bonded: boolean,
  mostStrands: number,
): Bundle[] {
  return sizes
    .filter((s) => s.section.shape === shape)
    .filter((s) => {
      const across = sectionAcross(s.section);
      return (
        shape !== 'round' ||
        (across >= thinnestWire && across <= (isSoft(stock) ? thickestSoft : isTimber(stock) ? Infinity : thickestBar))
      );
    })
    .flatMap((s) => Array.from({ length: mostStrands }, (_, n) => bundleOf(stock, s, n + 1, bonded && n > 0)))
    .sort((a, b) => a.weighs - b.weighs);
}
