import type { Mount } from '../document';
import { gravity, type Vec3 } from '../quantity';
import { upwardShares } from './hanging';

/**
 * A piece on a body: its weight against what the place bears for long, and how it hangs on its straps. Weights the usual
 * ones of the trade, for long wear; a maker sets their own.
 */
export type WornPlace = Extract<Mount, { kind: 'worn' }>['where'];

/** kg from which it is watched, and from which it is too much for long. */
export const usualWornLimits: Readonly<Record<WornPlace, { readonly watchFrom: number; readonly failsFrom: number }>> =
  {
    head: { watchFrom: 1, failsFrom: 1.5 },
    shoulder: { watchFrom: 2, failsFrom: 4 },
    chest: { watchFrom: 3, failsFrom: 6 },
    back: { watchFrom: 4, failsFrom: 8 },
    hand: { watchFrom: 0.8, failsFrom: 1.5 },
  };

export interface WornReport {
  readonly mass: number;
  /** What it may weigh at most, as a cast's wall comes out. */
  readonly most: number;
  readonly watchFrom: number;
  readonly failsFrom: number;
  readonly hours: number;
  /** Nm about the middle of what it sits on: the pull that turns a head or a shoulder. */
  readonly leverage: number;
  /** Which way it pulls. */
  readonly towards: 'front' | 'back' | 'left' | 'right';
  readonly centre: Vec3;
  readonly straps: readonly {
    readonly id: string;
    readonly name: string;
    readonly at: Vec3;
    readonly share: number;
    readonly pull: number;
  }[];
}

export function wearOn(
  mount: Extract<Mount, { kind: 'worn' }>,
  mass: number,
  centre: Vec3,
  seat: Vec3,
  most = mass,
): WornReport {
  const shares = upwardShares(
    mount.straps.map((s): Vec3 => [s.at[0], s.at[1], 0]),
    centre,
  );
  const x = centre[0] - seat[0],
    y = centre[1] - seat[1];
  return {
    mass,
    most,
    hours: mount.hours,
    centre,
    ...wornLimits(mount),
    leverage: mass * gravity * Math.hypot(x, y),
    towards: Math.abs(x) > Math.abs(y) ? (x > 0 ? 'left' : 'right') : y < 0 ? 'front' : 'back',
    straps: mount.straps.map((s, i) => ({
      id: s.id,
      name: s.name,
      at: s.at,
      share: shares[i] ?? 0,
      pull: (shares[i] ?? 0) * mass * gravity,
    })),
  };
}

/** Too much at what it is likely to weigh; watched where it may come out so heavy. */
export function wornStatus(
  { mass, most }: { readonly mass: number; readonly most: number },
  { watchFrom, failsFrom }: { readonly watchFrom: number; readonly failsFrom: number },
): 'sound' | 'watch' | 'fails' {
  return mass >= failsFrom ? 'fails' : most >= watchFrom ? 'watch' : 'sound';
}

/** kg, as the maker set them, else the usual. */
export function wornLimits({
  where,
  watchFrom,
  failsFrom,
}: Pick<Extract<Mount, { kind: 'worn' }>, 'where' | 'watchFrom' | 'failsFrom'>): {
  readonly watchFrom: number;
  readonly failsFrom: number;
} {
  const usual = usualWornLimits[where];
  return { watchFrom: watchFrom ?? usual.watchFrom, failsFrom: Math.max(watchFrom ?? 0, failsFrom ?? usual.failsFrom) };
}
