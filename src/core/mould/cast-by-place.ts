import type { Range } from '../quantity';

/** What a hollow or skinned cast weighs in each place of the piece, by its share of the face a mould lies on. */
export interface CastPlace {
  readonly id: string;
  readonly name: string;
  readonly mass: Range;
}

/** `regions`: m2 of face and m3 of clay in each. Only what bears clay is cast, unless nothing does. Heaviest first. */
export function castByPlace(
  mass: Range,
  regions: readonly {
    readonly id: string;
    readonly name: string;
    readonly area: number;
    readonly clayVolume: number;
  }[],
): CastPlace[] {
  const clad = regions.filter((r) => r.clayVolume > 0);
  const cast = clad.length > 0 ? clad : regions;
  const all = cast.reduce((sum, r) => sum + r.area, 0);
  if (!(all > 0)) return [];
  const of = (share: number): Range => ({
    low: mass.low * share,
    nominal: mass.nominal * share,
    high: mass.high * share,
  });
  return cast
    .map(({ id, name, area }) => ({ id, name, mass: of(area / all) }))
    .sort((a, b) => b.mass.nominal - a.mass.nominal);
}
