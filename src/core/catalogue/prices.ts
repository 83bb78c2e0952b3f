import type { ClayFamily, Stock } from './schema';

/**
 * What things usually cost, in no currency: a beginning, for a maker to write the shop's own over. Clay by the pack it is
 * sold in; stock to a metre, by its weight.
 */
export interface Pack {
  /** kg. */
  readonly mass: number;
  readonly price: number;
}

const packsBySetting: Readonly<Record<string, Pack>> = {
  dries: { mass: 1, price: 4.5 },
  damp: { mass: 10, price: 9 },
  sets: { mass: 0.5, price: 14 },
  never: { mass: 1, price: 11 },
  bakes: { mass: 0.5, price: 10 },
};

/** The pack a clay is usually sold in: its own, or that of what hardens alike. */
export function usualPack({ pack, setting }: Pick<ClayFamily, 'pack' | 'setting'>): Pack {
  return pack ?? packsBySetting[setting] ?? { mass: 1, price: 5 };
}

/** To a kg. */
const perKilogram: Readonly<Record<string, number>> = {
  'aluminium-annealed': 14,
  'aluminium-half-hard': 14,
  'steel-galvanised': 5,
  'steel-black': 4,
  'steel-hard': 9,
  'copper-annealed': 16,
  'brass-rod': 15,
  'mild-steel': 3,
  'stainless-rod': 9,
  'threaded-rod': 5,
  'steel-pipe': 4,
  'steel-square-tube': 4,
  'pvc-pipe': 5,
  'hardwood-dowel': 7,
  bamboo: 3,
  'softwood-batten': 3,
  plywood: 3,
  mdf: 1.5,
  chipboard: 1,
};
const unknownPerKilogram = 6;
/** Cutting and handling: nothing is sold for less. */
const leastPerMetre = 0.1;

/** Of one strand: m2 of its section times its density times what a kg costs. */
export function usualPricePerMetre(stock: Stock, area: number): number {
  return Math.max(leastPerMetre, area * stock.density * (perKilogram[stock.id] ?? unknownPerKilogram));
}
