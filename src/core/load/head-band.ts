import type { Vec3 } from '../quantity';

/**
 * A band that holds a mask on its wearer's head: from one stitch point round the back to the other. The head is taken as
 * round, its girth `girth` at the level of the points, its middle line at `axis`; metres.
 */
export function bandToCut(girth: number, from: Vec3, to: Vec3, axis: readonly [number, number]): number {
  const way = (p: Vec3) => Math.atan2(p[1] - axis[1], p[0] - axis[0]);
  const apart = Math.abs(way(from) - way(to)) % (2 * Math.PI);
  // Round the back: the larger of the two ways from point to point.
  return girth * (Math.max(apart, 2 * Math.PI - apart) / (2 * Math.PI)) + toSew;
}

/** Turned over and sewn at both ends. */
const toSew = 0.06;
