import type { MixId } from '../../cure';
import type { Need } from '../../document';
import type { Range } from '../../quantity';
import type { PackSizes } from '../packs';

/** What is cast in a mould. A file each; a new one is such a file and its line in `index.ts`. */
export interface CastKind<Id extends string = string> {
  readonly id: Id;
  readonly name: string;
  /** Metres of wall; null where it is poured full. */
  readonly wall: Range | null;
  /** kg/m3 once it is dry or has set. */
  readonly density: Range;
  /** How much smaller it comes out than the mould; below zero it comes out larger. */
  readonly shrinkage: Range;
  /** It can be peeled from what holds it. */
  readonly gives?: true;
  /** Of a hard wall: how stiff, and what it bears as it is bent, Pa. Left out of what gives, or is not known. */
  readonly bears?: { readonly youngs: number; readonly strength: Range };
  /** What it is made of, with the share of its wall's weight. */
  readonly made: readonly { readonly material: CastMaterialId; readonly share: number }[];
  /** What fills it behind its wall, so thick. */
  readonly backing?: { readonly material: CastMaterialId; readonly thick: Range; readonly density: Range };
  /** Water in it dries out through its mould: that is dried first. */
  readonly wantsDryMould?: true;
  /** Work at one of them, in order. */
  readonly steps: readonly CastStep[];
  readonly caution: string;
}

/** Work at a cast: its share of the hours a mould's work takes on so much face, and hours to wait after it. */
export interface CastStep {
  readonly id: string;
  readonly name: string;
  readonly share: number;
  readonly wait: number;
  readonly until: string;
  /** What is mixed for it, and goes off. */
  readonly mix?: MixId;
  /** Which of what it is made of is used in it, or what fills it behind. */
  readonly lays?: number | 'backing';
  readonly needs?: readonly Need[];
}

export interface CastMaterial {
  readonly name: string;
  /** kg bought to a kg of it in the cast. */
  readonly bought: number;
  /** What a kg usually costs, in no currency: a beginning. */
  readonly price: Range;
  readonly packs: PackSizes;
}

const priced = ([low, nominal, high]: readonly [number, number, number]): Range => ({ low, nominal, high });
export const castMaterials = {
  // Some 61 % of it is rubber; the rest dries out.
  latex: { name: 'slip latex', bought: 1 / 0.61, price: priced([8, 12, 18]), packs: [1, 5] },
  foam: { name: 'flexible foam, both parts', bought: 1.1, price: priced([14, 20, 32]), packs: [1, 5] },
  silicone: { name: 'silicone', bought: 1, price: priced([18, 28, 45]), packs: [1, 5] },
  resin: { name: 'polyurethane resin, both parts', bought: 1, price: priced([9, 14, 24]), packs: [1, 5] },
  // 0.97 kg of powder to a litre, which weighs 1.15 kg dry.
  plaster: { name: 'plaster', bought: 0.97 / 1.15, price: priced([0.8, 1.5, 3]), packs: [5, 25] },
  wax: { name: 'wax', bought: 1, price: priced([6, 10, 16]), packs: [1, 5] },
  // Water that sets in it is not bought.
  cement: { name: 'cement and sand', bought: 0.92, price: priced([0.3, 0.6, 1.2]), packs: [5, 25] },
  epoxy: { name: 'laminating epoxy', bought: 1, price: priced([14, 22, 35]), packs: [1, 5] },
  glass: { name: 'glass cloth', bought: 1.1, price: priced([8, 14, 25]), packs: [1] },
  paper: { name: 'torn paper', bought: 1.1, price: priced([0.3, 1, 3]), packs: [1] },
  paste: { name: 'paste', bought: 1, price: priced([1, 3, 6]), packs: [1] },
  clay: { name: 'soft clay', bought: 1.25, price: priced([1, 2, 4]), packs: [5, 10] },
} as const satisfies Readonly<Record<string, CastMaterial>>;
export type CastMaterialId = keyof typeof castMaterials;

export const castKind = <Id extends string>(kind: CastKind<Id>): CastKind<Id> => kind;

export const ranged = ([low, nominal, high]: readonly [number, number, number]): Range => ({ low, nominal, high });
