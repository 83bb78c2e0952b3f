import type { ProcessId } from '../../catalogue';
import type { Range } from '../../quantity';
import type { CastId } from '../cast';
import type { PackSizes } from '../packs';

/** What a mould is made of, and what may be cast in it. A file each; a new kind is such a file and its line in `index.ts`. */
export interface MouldKind<Id extends string = string> {
  readonly id: Id;
  readonly name: string;
  /** What of the finish it is, the likeliest first: what does not stand that does not stand this mould. */
  readonly processes: readonly ProcessId[];
  /** What lies on the piece, metres thick, in so many coats; null where a block is poured. */
  readonly skin: MouldLayer | null;
  /** What holds that in its shape. */
  readonly shell: MouldLayer | null;
  /** Poured round it: metres of it on every side. */
  readonly block: { readonly material: MouldMaterialId; readonly margin: number } | null;
  readonly parts: 'one' | 'two' | 'more';
  /** It lies over one side of a piece on its back, and is open behind. */
  readonly open?: true;
  /** What it stretches, as a share, before it tears; 0 for what does not give. */
  readonly stretches: number;
  /** How much smaller a cast comes out for the mould alone. */
  readonly shrinkage: Range;
  /** What a pull wears off a groove of it, metres. */
  readonly wear: Range;
  readonly takes: readonly CastId[];
  readonly wants: string;
  readonly cautions: readonly string[];
}

export interface MouldLayer {
  readonly material: MouldMaterialId;
  readonly thickness: number;
  readonly coats: number;
}

/** A tenth of what is mixed stays in the bowl and on the brush. */
export const leftInTheBowl = 0.1;

/** kg/m3 as it is laid, and of that the powder or liquid that is bought. */
export interface MouldMaterial {
  readonly name: string;
  readonly density: number;
  /** kg bought to a m3 laid. */
  readonly bought: number;
  /** What a kg usually costs, in no currency: a beginning. */
  readonly price: Range;
  /** kg it is usually sold in. */
  readonly packs: PackSizes;
}
export const mouldMaterials = {
  silicone: { name: 'silicone', density: 1150, bought: 1150, price: { low: 18, nominal: 28, high: 45 }, packs: [1, 5] },
  latex: { name: 'latex', density: 1000, bought: 1600, price: { low: 8, nominal: 12, high: 18 }, packs: [1, 5] },
  // 100 parts of powder to 65 of water: 0.97 kg of powder makes a litre, which weighs 1.6 kg wet.
  plaster: { name: 'plaster', density: 1600, bought: 970, price: { low: 0.8, nominal: 1.5, high: 3 }, packs: [5, 25] },
  gauze: {
    name: 'plaster gauze',
    density: 950,
    bought: 950,
    price: { low: 7, nominal: 11, high: 16 },
    packs: [0.25, 1],
  },
} as const satisfies Readonly<Record<string, MouldMaterial>>;
export type MouldMaterialId = keyof typeof mouldMaterials;

export const mouldKind = <Id extends string>(kind: MouldKind<Id>): MouldKind<Id> => kind;
