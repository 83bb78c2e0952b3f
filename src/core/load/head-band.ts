import type { Vec3 } from '../quantity';

/**
 * A band that holds a mask on its wearer's head: from one stitch point round the back to the other. The head is taken as
 * round, its girth `girth` at the level of the points, its middle line at `axis`; metres.
 */
export function bandToCut(girth: number, from: Vec3, to: Vec3, axis: readonly [number, number]): number {
  // Counted from straight behind, so that the way from one to the other never runs over the face.
  const fromBehind = (p: Vec3) => Math.atan2(p[0] - axis[0], p[1] - axis[1]);
  return girth * (Math.abs(fromBehind(from) - fromBehind(to)) / (2 * Math.PI)) + toSew;
}

/** Turned over and sewn at both ends. */
const toSew = 0.06;
