/**
 * How much smaller a cast comes out than what it was cast from, and how much larger a master is made for it. Shares of a
 * length; metres.
 */

/** What is left of a length after a mould and a cast in it, generation after generation. */
export function leftOf(shrinkages: readonly number[]): number {
  return shrinkages.reduce((left, s) => left * (1 - s), 1);
}

/**
 * Clay to lay over a form of radius `form`, so that a cast with a wall `wall` that comes out `left` of the master's size
 * goes over a wearer of radius `wearer` with a gap all round.
 */
export function clayToFit(wearer: number, form: number, gap: number, wall: number, left: number): number {
  return (wearer + gap + wall) / left - form;
}

/** A seat for something that does not shrink with the cast: eyes, teeth, a hinge; and the distance between two of them. */
export function seatFor(size: number, left: number): number {
  return size / left;
}
