/** What a material is sold in: kg, the smallest first. */
export type PackSizes = readonly number[];

/** So many packs of one size. */
export interface Packs {
  readonly each: number;
  readonly count: number;
}

/**
 * The packs that leave least over, the larger first; of those that leave as little, the fewest. Nothing is bought for
 * nothing. `sizes` one or two.
 */
export function packsFor(mass: number, sizes: PackSizes): Packs[] {
  if (!(mass > 0)) return [];
  const small = Math.min(...sizes),
    large = Math.max(...sizes);
  // What a scale does not show is no pack more.
  const upTo = (kg: number, size: number) => Math.max(0, Math.ceil(kg / size - 1e-6));
  let best: { readonly large: number; readonly small: number } | null = null;
  const total = (p: { large: number; small: number }) => p.large * large + p.small * small;
  for (let some = 0; some <= upTo(mass, large); some++) {
    const tried = { large: some, small: small === large ? 0 : upTo(mass - some * large, small) };
    if (total(tried) < mass - 1e-6 * small) continue;
    const saves = best === null ? 1 : total(best) - total(tried);
    if (saves > 1e-9 || (Math.abs(saves) <= 1e-9 && best !== null && count(tried) < count(best))) best = tried;
  }
  return [
    { each: large, count: best?.large ?? 0 },
    { each: small, count: best?.small ?? 0 },
  ].filter((p) => p.count > 0);
}

const count = (p: { readonly large: number; readonly small: number }): number => p.large + p.small;

export function packsMass(packs: readonly Packs[]): number {
  return packs.reduce((sum, p) => sum + p.count * p.each, 0);
}
