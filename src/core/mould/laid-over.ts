/** The face a mould lies on, and what it goes round: m2 and m3. */
export interface LaidOn {
  readonly area: number;
  readonly volume: number;
}

/**
 * Over a bulging face lies more than over a flat one: of a ball a third of its face times the thickness over its volume, of
 * a long limb a quarter, of a piece with hollows less. This much lies within a tenth of what is counted over busts,
 * masks and paws, an eighth over a figure thinner than its mould, and is told at once; `volumesWithin` counts it.
 */
const bulges = 0.2;

/** Volume of a layer so thick that lies `under` metres off the face, beside a flat one's. */
export function swells({ area, volume }: LaidOn, thickness: number, under = 0): number {
  return volume > 0 ? 1 + bulges * (area / volume) * (thickness + 2 * under) : 1;
}
