import type { CastUse } from '../document';
import { liftOf, usualWornLimits, type WornPlace } from '../load';
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

/** What a cast of each start form is mostly for. */
export function usualUse(form: string): CastUse {
  if (form === 'mask') return 'head';
  if (form === 'worn-shell') return 'shoulder';
  return form === 'relief' ? 'wall' : 'table';
}

/** `size` of the piece, metres; `left` of a length that the cast has. By what it is likely to weigh at most. */
export function castInUse(mass: Range, size: Vec3, left: number, use: CastUse): CastInUse {
  const [width, depth, height] = size.map((v) => v * left) as [number, number, number];
  const { people } = liftOf({ mass: mass.high, width, depth, height });
  const worn = isWorn(use) ? usualWornLimits[use] : null;
  const wornStatus =
    worn === null || mass.high < worn.watchFrom ? 'sound' : mass.nominal >= worn.failsFrom ? 'fails' : 'watch';
  return {
    use,
    worn,
    status: people > 1 && wornStatus === 'sound' ? 'watch' : wornStatus,
    hook: use === 'wall' ? (hookSafety * mass.high * gravity) / 2 : null,
    people,
  };
}
