import type { Build, CastUse } from '../document';
import { liftOf, usualWornLimits, wornStatus, type WornPlace } from '../load';
import { gravity, type Range, type Vec3 } from '../quantity';

/** What becomes of a cast: where it stands, hangs or is worn, and what its weight does there. */
export interface CastInUse {
  readonly use: CastUse;
  readonly status: 'sound' | 'watch' | 'fails';
  /** Worn: kg from which it is watched, and from which it is too much for long. */
  readonly worn: { readonly watchFrom: number; readonly failsFrom: number } | null;
  /** On a wall: N that each of two hooks is to be rated for. */
  readonly hook: number | null;
  /** Who lift it; Infinity where a trolley has to. */
  readonly people: number;
}

/** A hook is rated for so many times what hangs on it. */
const hookSafety = 5;

export const isWorn = (use: CastUse): use is WornPlace => Object.hasOwn(usualWornLimits, use);

/** What becomes of a cast: as was said under Mould, else what the finished piece is said to do, else what its form is for. */
export function castUseOf({ form, armature: { mount }, mould }: Pick<Build, 'form' | 'armature' | 'mould'>): CastUse {
  if (mould.castUse) return mould.castUse;
  if (mount.kind === 'worn') return mount.where;
  return mount.kind === 'wall' ? 'wall' : usualUse(form.start.kind);
}

/** What a cast of each start form is mostly for. */
export function usualUse(form: string): CastUse {
  if (form === 'mask') return 'head';
  if (form === 'worn-shell') return 'shoulder';
  return form === 'relief' ? 'wall' : 'table';
}

/** `size` of the piece, metres; `left` of a length that the cast has; `limits` a maker has set. */
export function castInUse(
  mass: Range,
  size: Vec3,
  left: number,
  use: CastUse,
  limits: CastInUse['worn'] = isWorn(use) ? usualWornLimits[use] : null,
): CastInUse {
  const [width, depth, height] = size.map((v) => v * left) as [number, number, number];
  const { people } = liftOf({ mass: mass.high, width, depth, height });
  const worn = isWorn(use) ? limits : null;
  const asWorn = worn === null ? 'sound' : wornStatus({ mass: mass.nominal, most: mass.high }, worn);
  return {
    use,
    worn,
    status: people > 1 && asWorn === 'sound' ? 'watch' : asWorn,
    hook: use === 'wall' ? (hookSafety * mass.high * gravity) / 2 : null,
    people,
  };
}
