import { gravity, type Vec3 } from '../quantity';
import { edgesAround, type Stance } from './standing';
import type { Standing } from '../armature';

/**
 * Wind on a piece that stands or hangs outdoors. A gust of v m/s presses with q = 0.625 v2 (half of air's density times
 * its speed squared); the drag is 1.3 q on its outline, at the middle of that, from whichever side is worst. It tips about
 * an edge, or slides, unless its weight holds it with half as much again. A sketch for choosing a board, a weight or guys:
 * left out are bursts that rock it, what shelters it or funnels the wind, ice, and cloth that flaps. Local rules and an
 * engineer decide.
 */

/** Gusts in words, m/s. */
export const gusts = [
  { id: 'fresh', name: 'a fresh day, sheltered', speed: 15 },
  { id: 'gale', name: 'a gale', speed: 25 },
  { id: 'storm', name: 'a storm', speed: 35 },
] as const;

const pressurePerSpeed2 = 0.625;
const drag = 1.3;
/** What weight, guys and anchors must hold more than is asked. */
export const windFactor = 1.5;
/** Wood or rubber on paving or ground; on casters it rolls. */
const groundFriction = 0.4,
  castersFriction = 0.03;

/** Where it comes from, and the way it goes: x is the piece's left, the front is -y. */
export const windSides: readonly { readonly from: string; readonly way: readonly [number, number] }[] = [
  { from: 'the front', way: [0, 1] },
  { from: 'the front and its right', way: [Math.SQRT1_2, Math.SQRT1_2] },
  { from: 'its right', way: [1, 0] },
  { from: 'the back and its right', way: [Math.SQRT1_2, -Math.SQRT1_2] },
  { from: 'the back', way: [0, -1] },
  { from: 'the back and its left', way: [-Math.SQRT1_2, -Math.SQRT1_2] },
  { from: 'its left', way: [-1, 0] },
  { from: 'the front and its left', way: [-Math.SQRT1_2, Math.SQRT1_2] },
];

/** N to a m2 of outline. */
export function windPressure(gust: number): number {
  return drag * pressurePerSpeed2 * gust ** 2;
}

/** Its outline seen from one side: m2, and the middle of it, metres. */
export interface Outline {
  readonly area: number;
  readonly at: Vec3;
}

export interface WindOnSide extends Outline {
  readonly from: string;
  readonly way: readonly [number, number];
  /** N, level. */
  readonly force: number;
}

export interface WindStance {
  /** What tips it, times 1.5, over what holds it; and which wind does. */
  readonly tips: number;
  readonly tipsFrom: string;
  /** The same of sliding. */
  readonly slides: number;
  /** kg flat on the middle of the board that hold it without anything else; Infinity where none there does. */
  readonly ballast: number;
  /** N in one guy at 45 degrees from the height they are tied at, and on its peg: one alone takes the wind. */
  readonly guyPull: number;
  /** N that all bolts on the windward side hold down. */
  readonly anchorPull: number;
}

export interface WindReport {
  readonly gust: number;
  /** The side that turns it hardest about the ground. */
  readonly worst: WindOnSide;
  /** Of its middle over the ground, metres. */
  readonly height: number;
  readonly stands: WindStance | null;
  /** Hung: how far it swings, degrees, and N in all its lines together. */
  readonly hangs: { readonly swing: number; readonly pull: number } | null;
}

/** What a gust does on every side of it. `outlines` by `windSides`. */
export function windOn(gust: number, outlines: readonly Outline[]): WindOnSide[] {
  const q = windPressure(gust);
  return windSides.map(({ from, way }, i) => ({ from, way, ...outlines[i]!, force: q * outlines[i]!.area }));
}

const most = 99;

/** `guysAt` is the height they are tied at; `ground`, `boardAt`: the ground's height and the board's middle, metres. */
export function stanceInWind(
  sides: readonly WindOnSide[],
  stance: Stance,
  ground: number,
  standing: Standing,
  boardAt: readonly [number, number],
  guysAt: number,
): WindStance {
  const weight = stance.mass * gravity;
  const friction = standing === 'casters' ? castersFriction : groundFriction;
  const about = edgesAround(stance.polygon, stance.centre),
    fromBoard = edgesAround(stance.polygon, boardAt);
  let tips = about.length === 0 ? most : 0,
    tipsFrom = sides[0]?.from ?? '',
    slides = 0,
    ballast = about.length === 0 ? Infinity : 0,
    guyPull = 0,
    anchorPull = 0;
  for (const { from, way, force, at } of sides) {
    const turns = windFactor * force * Math.max(0, at[2] - ground);
    about.forEach((edge, i) => {
      const towards = way[0] * edge.normal[0] + way[1] * edge.normal[1];
      if (towards <= 1e-9) return;
      const holds = weight * edge.distance,
        asked = turns * towards;
      const share = holds > 0 ? Math.min(most, asked / holds) : most;
      if (share > tips) {
        tips = share;
        tipsFrom = from;
      }
      if (asked <= holds) return;
      const arm = fromBoard[i]!.distance;
      ballast = Math.max(ballast, arm > 1e-6 ? (asked - holds) / (gravity * arm) : Infinity);
      // Bolted down it turns about this edge and is held at the one across.
      const across = acrossFrom(stance, edge.normal);
      anchorPull = Math.max(anchorPull, across > 1e-6 ? (asked - holds) / across : Infinity);
    });
    slides = Math.max(slides, Math.min(most, (windFactor * force) / Math.max(1e-9, friction * weight)));
    if (standing !== 'casters') ballast = Math.max(ballast, (windFactor * force) / friction / gravity - stance.mass);
    guyPull = Math.max(guyPull, (turns / Math.max(0.05, guysAt - ground)) * Math.SQRT2);
  }
  return { tips, tipsFrom, slides, ballast, guyPull, anchorPull };
}

/** How wide what it stands on is, from an edge to what lies farthest across. */
function acrossFrom(stance: Stance, normal: readonly [number, number]): number {
  const along = stance.polygon.map((p) => p[0] * normal[0] + p[1] * normal[1]);
  return Math.max(...along) - Math.min(...along);
}

/** Hung by its lines it swings until pull and weight are in line. */
export function hungInWind(sides: readonly WindOnSide[], mass: number): { swing: number; pull: number } {
  const force = sides.reduce((m, s) => Math.max(m, s.force), 0),
    weight = mass * gravity;
  return { swing: (Math.atan2(force, weight) * 180) / Math.PI, pull: Math.hypot(force, weight) };
}
