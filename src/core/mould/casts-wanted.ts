import type { Range } from '../quantity';
import { castMaterials, type CastKind } from './cast';
import { ends, type MouldFigures } from './mould';
import { leftAfter } from './fit';
import { leftInTheBowl, type MouldKind } from './kind';
import { packsFor, type Packs } from './packs';

/** What casts are made of: bought for one, and for as many as are wanted, in the packs it is sold in. */
export interface CastNeed {
  readonly name: string;
  /** kg bought, what stays in the bowl with it. */
  readonly each: number;
  readonly all: number;
  readonly packs: readonly Packs[];
  /** Of what one takes. */
  readonly price: Range;
}

/** A cast's weights from the face it is laid on, m2, and what it fills, m3: as though that face were flat. */
export function flatCast(
  kind: Pick<MouldKind, 'shrinkage'>,
  cast: CastKind,
  { area, volume }: { readonly area: number; readonly volume: number },
): Pick<MouldFigures, 'wall' | 'backing'> {
  const left = leftAfter(kind, cast);
  const { wall, backing, density } = cast;
  return {
    wall: ends((end) =>
      wall ? area * wall[end] * left[end] ** 2 * density[end] : volume * left[end] ** 3 * density[end],
    ),
    backing: backing ? ends((end) => area * backing.thick[end] * left[end] ** 2 * backing.density[end]) : null,
  };
}

/** `casts` of them; nought where none is wanted, of which only `each` says something. */
export function castNeeds(
  { cast: kind, wall, backing }: { readonly cast: CastKind } & Pick<MouldFigures, 'wall' | 'backing'>,
  casts: number,
): CastNeed[] {
  const parts = kind.made.map(({ material, share }) => ({ material, mass: wall.nominal * share }));
  if (kind.backing && backing) parts.push({ material: kind.backing.material, mass: backing.nominal });
  return parts.map(({ material, mass }) => {
    const { name, bought, price, packs } = castMaterials[material];
    const each = mass * bought * (1 + leftInTheBowl);
    return {
      name,
      each,
      all: each * casts,
      packs: packsFor(each * casts, packs),
      price: { low: each * price.low, nominal: each * price.nominal, high: each * price.high },
    };
  });
}
