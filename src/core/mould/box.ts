import type { Box } from '../form';
import { gravity } from '../quantity';

/** A box to pour a mould in: its boards as they are cut, and what the pour presses on its sides until it has set. */
export interface PourBox {
  /** Metres inside: left to right, front to back, up. */
  readonly inside: readonly [number, number, number];
  readonly boards: readonly Board[];
  /** N/m2 at its foot. */
  readonly pressure: number;
  /** N on its largest side, and how far up that acts: a third of the height. */
  readonly force: number;
  readonly actsAt: number;
  /** Straps or clamps round it, the lowest a third of the way up. */
  readonly straps: number;
}

export interface Board {
  readonly name: string;
  readonly count: number;
  /** Metres: along and up, or along and deep. */
  readonly sides: readonly [number, number];
}

/** Coated board that rubber does not stick to. */
export const boardThickness = 0.018;
/** Above the top of the rubber, so that it does not run over. */
const freeboard = 0.015;
/** N that a strap or a pair of clamps takes with the corners still tight, and metres of height each looks after. */
const strapBears = 250,
  strapEvery = 0.15;
/** What a sum of decimals is off by is no strap more. */
const rounding = 1e-9;

/** A frame that lifts the floor to where the mould begins, on the board that the piece's post stands on. */
function plinth(w: number, d: number, board: number | null): Board[] {
  const high = (board ?? 0) - boardThickness;
  if (high < leastPlinth) return [];
  return [
    { name: 'plinth under the floor, front and back', count: 2, sides: [w, high] },
    { name: 'plinth under the floor, sides', count: 2, sides: [d + 2 * boardThickness, high] },
  ];
}
/** Metres: less is packed out with clay. */
const leastPlinth = 0.005;

/** `density`: kg/m3 of what is poured. */
export function pourBox(box: Box, board: number | null, margin: number, density: number): PourBox {
  const foot = board ?? box.low[2] - margin;
  const [w, d] = [0, 1].map((k) => box.high[k as 0] - box.low[k as 0] + 2 * margin) as [number, number];
  const h = box.high[2] + margin - foot;
  const high = h + freeboard;
  const t = boardThickness;
  const force = (density * gravity * h * h * Math.max(w, d)) / 2;
  return {
    inside: [w, d, h],
    boards: [
      { name: 'front and back', count: 2, sides: [w, high] },
      // They lap the ends of front and back.
      { name: 'sides', count: 2, sides: [d + 2 * t, high] },
      { name: 'floor', count: 1, sides: [w + 2 * t, d + 2 * t] },
      ...plinth(w, d, board),
    ],
    pressure: density * gravity * h,
    force,
    actsAt: h / 3,
    straps: Math.max(2, Math.ceil(h / strapEvery - rounding), Math.ceil(force / strapBears - rounding)),
  };
}
