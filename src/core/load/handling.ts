import { gravity, type Vec3 } from '../quantity';

/**
 * Lifting and carrying. Source: NIOSH (1994), *Applications Manual for the Revised NIOSH Lifting Equation*: an occasional
 * lift, hands at the height of the centre of gravity, no twist, a fair grip. Several together: HSE (2016), L23 *Manual
 * handling*. Left out: stairs, gloves, who lifts.
 */
export interface Lift {
  /** Metres: hands from the body, from the floor, and how far it is lifted. */
  readonly hold: number;
  readonly from: number;
  readonly rise: number;
  readonly asymmetry?: number;
  readonly frequency?: number;
  readonly coupling?: number;
}

const clampTo = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v));

/** kg one person should lift: 23 x HM x VM x DM x AM x FM x CM, lengths in cm. 0 beyond the equation's reach. */
export function recommendedWeight(lift: Lift): number {
  const h = Math.max(25, lift.hold * 100),
    v = lift.from * 100,
    d = clampTo(lift.rise * 100, 25, 175);
  if (h > 63 || v > 175 || v < 0) return 0;
  const { asymmetry = 0, frequency = 1, coupling = 0.95 } = lift;
  return (
    23 * (25 / h) * (1 - 0.003 * Math.abs(v - 75)) * (0.82 + 4.5 / d) * (1 - 0.0032 * asymmetry) * frequency * coupling
  );
}

export interface Carry {
  readonly mass: number;
  readonly width: number;
  readonly depth: number;
  readonly height: number;
}

export interface LiftVerdict {
  readonly limit: number;
  readonly index: number;
  /** How many it takes; Infinity when a hoist or trolley has to. */
  readonly people: number;
}

/** Of what each could lift alone, added up: what one, two or three do together. More get in each other's way. */
const together = [1, 2 / 3, 1 / 2];

/** How many lift what is `index` times one's limit; Infinity where no number of hands does. */
export function peopleFor(index: number): number {
  const n = together.findIndex((share, i) => index <= (i + 1) * share + 1e-9);
  return n < 0 ? Infinity : n + 1;
}

/**
 * Tipped over its long edge on a bench of 750 mm and let down on the other side: half of it is lifted, hands under the
 * edge close to the body, as high as it is broad.
 */
export function turnOver({ mass, breadth }: { readonly mass: number; readonly breadth: number }): LiftVerdict {
  const limit = 2 * recommendedWeight({ hold: 0.3, from: 0.75, rise: breadth });
  return { limit, index: mass / limit, people: peopleFor(mass / limit) };
}

/** Onto a table from the floor, held against the body: hands lie half the piece's depth away from it. */
export function liftOf(piece: Carry): LiftVerdict {
  const hold = clampTo(0.2 + Math.min(piece.width, piece.depth) / 2, 0.25, 0.63);
  const limit = recommendedWeight({ hold, from: clampTo(piece.height / 2, 0, 1.2), rise: 0.75 });
  const index = limit > 0 ? piece.mass / limit : Infinity;
  return { limit, index, people: peopleFor(index) };
}

/** The two smaller sides of a box go through a door when one is narrower and the other lower. */
export function throughDoor(
  piece: Carry,
  door: { readonly width: number; readonly height: number },
  clearance = 0.03,
): boolean {
  const sides = [piece.width, piece.depth, piece.height].sort((a, b) => a - b);
  const [a, b] = sides as [number, number];
  return a + clearance <= Math.min(door.width, door.height) && b + clearance <= Math.max(door.width, door.height);
}

/** Kept upright: only turned about its own height. */
export function uprightThroughDoor(
  piece: Carry,
  door: { readonly width: number; readonly height: number },
  clearance = 0.03,
): boolean {
  return Math.min(piece.width, piece.depth) + clearance <= door.width && piece.height + clearance <= door.height;
}

export interface Hold {
  readonly id: string;
  readonly name: string;
  /** Inside, metres: length, width, height; and the opening it is loaded through. */
  readonly inside: Vec3;
  readonly opening: readonly [number, number];
}

/** Ordinary sizes; a maker measures their own. */
export const vehicles: readonly Hold[] = [
  { id: 'hatchback', name: 'hatchback, seats down', inside: [1.35, 1, 0.75], opening: [0.95, 0.65] },
  { id: 'estate', name: 'estate car, seats down', inside: [1.85, 1.05, 0.8], opening: [1, 0.7] },
  { id: 'small-van', name: 'small van', inside: [1.8, 1.2, 1.15], opening: [1.15, 1.1] },
  { id: 'medium-van', name: 'medium van', inside: [2.5, 1.65, 1.4], opening: [1.35, 1.3] },
  { id: 'large-van', name: 'large van', inside: [3.3, 1.75, 1.9], opening: [1.55, 1.8] },
  { id: 'box-lorry', name: 'box lorry with a lift', inside: [4, 2, 2.1], opening: [1.9, 2] },
];

/** Upright, turned either way about its height. */
export function fitsIn(piece: Carry, hold: Hold, clearance = 0.04): boolean {
  const [length, width, height] = hold.inside;
  if (piece.height + clearance > Math.min(height, hold.opening[1])) return false;
  const across = (a: number, b: number) =>
    a + clearance <= length && b + clearance <= width && b + clearance <= hold.opening[0];
  return across(piece.width, piece.depth) || across(piece.depth, piece.width);
}

/** N along the slope that hold a piece on casters on a ramp, and what two people push: 250 N each is a common limit. */
export function rampPush(mass: number, degrees: number): number {
  return mass * gravity * (Math.sin((degrees * Math.PI) / 180) + 0.03 * Math.cos((degrees * Math.PI) / 180));
}
export const pushEach = 250;
