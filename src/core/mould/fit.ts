import type { Build, BuildEdit } from '../document';
import { startFormOf } from '../form';
import type { Range } from '../quantity';
import type { CastKind } from './cast';
import type { MouldKind } from './kind';
import { clayToFit, leftOf } from './shrinkage';

/** Made larger for what shrinks: the whole piece, or the clay over a form that a wearer is to fit into. */

/** Of a length of the master, what the cast has. */
export function leftAfter(kind: Pick<MouldKind, 'shrinkage'>, cast: Pick<CastKind, 'shrinkage'>): Range {
  return {
    low: leftOf([kind.shrinkage.high, cast.shrinkage.high]),
    nominal: leftOf([kind.shrinkage.nominal, cast.shrinkage.nominal]),
    high: leftOf([kind.shrinkage.low, cast.shrinkage.low]),
  };
}

/**
 * The piece so much larger that a cast, `left` of a length, comes out at the size the piece was first given. What it has
 * been made larger already is taken back first; `left` 1 gives it its own size again.
 */
export function growToFit(build: Pick<Build, 'form' | 'mould'>, left: number): BuildEdit {
  const oversize = Math.round(1e4 / left) / 1e4;
  const size = (build.form.start.size / build.mould.oversize) * oversize;
  return {
    label: oversize === 1 ? 'Back to the size of the cast' : 'Made larger for the shrinkage',
    changes: [
      { path: ['form', 'start', 'size'], value: Math.round(size * 1e6) / 1e6 },
      { path: ['mould', 'oversize'], value: oversize },
    ],
  };
}

/** Round the wearer's head, metres, whatever the piece has been made larger by; null for a form that asks for none. */
export function wearersGirth({ form: { start }, mould }: Pick<Build, 'form' | 'mould'>): number | null {
  const measured = start.measures['headGirth'] ?? startFormOf(start)?.measures['headGirth']?.start;
  return typeof measured === 'number' ? (measured * start.size) / mould.oversize : null;
}

/**
 * Metres of clay over a form, `oversize` times as round as the wearer there, so that the cast goes over with this gap; by
 * wall and shrinkage. `girth`: the wearer's.
 */
export function clayOverForm(
  girth: number,
  gap: number,
  cast: Pick<CastKind, 'wall'>,
  left: Range,
  oversize = 1,
): Range {
  const radius = girth / (2 * Math.PI);
  const wall = cast.wall ?? { low: 0, nominal: 0, high: 0 };
  const over = (thick: number, of: number) => Math.max(0, clayToFit(radius, radius * oversize, gap, thick, of));
  return {
    low: over(wall.low, left.high),
    nominal: over(wall.nominal, left.nominal),
    high: over(wall.high, left.low),
  };
}

/** How the head goes in where the cast closes round it most narrowly. */
export interface PutOn {
  /** Metres round the inside there. */
  readonly inside: number;
  /** By how much it has to give, as a share of that; nought where the head goes through. */
  readonly stretch: number;
  readonly goesOn: boolean;
}

/** A skin is drawn over the head when it has to give no more than this. */
const givesOver = 0.25;

/** `outside`: round the clay at its narrowest; `girth`: the wearer's, which has to go through. */
export function putOn(outside: number, girth: number, cast: Pick<CastKind, 'wall' | 'gives'>, left: Range): PutOn {
  const inside = Math.max(0, outside * left.nominal - 2 * Math.PI * (cast.wall?.nominal ?? 0));
  const stretch = inside > 0 ? Math.max(0, girth / inside - 1) : Infinity;
  return { inside, stretch, goesOn: stretch === 0 || (cast.gives === true && stretch <= givesOver) };
}
