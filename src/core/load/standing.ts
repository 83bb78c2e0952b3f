import type { BaseBoard } from '../armature';
import type { Vec3 } from '../quantity';

/** Standing up: the hull of what touches the table, the lean at which it goes over, the push that takes it there. */
export type Point2 = readonly [number, number];

/** Convex hull, anticlockwise. Andrew's monotone chain. */
export function convexHull(points: readonly Point2[]): Point2[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  if (sorted.length < 3) return sorted;
  const turn = (o: Point2, a: Point2, b: Point2) => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
  const chain = (list: readonly Point2[]): Point2[] => {
    const out: Point2[] = [];
    for (const p of list) {
      while (out.length >= 2 && turn(out[out.length - 2] as Point2, out[out.length - 1] as Point2, p) <= 0) out.pop();
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...chain(sorted), ...chain([...sorted].reverse())];
}

export interface Stance {
  readonly polygon: readonly Point2[];
  readonly mass: number;
  readonly centre: Vec3;
  /** Degrees about the weakest edge; negative when it falls by itself. */
  readonly tipAngle: number;
  /** Metres from the centre of gravity to that edge, level. */
  readonly edgeDistance: number;
  /** Which way it goes. */
  readonly towards: 'front' | 'back' | 'left' | 'right';
  /** N level at `pushHeight` that takes it over. */
  readonly push: number;
  readonly pushHeight: number;
}

/** `tableZ` is the table's height; the centre of gravity is measured from it. */
export function stanceOn(polygon: readonly Point2[], mass: number, centre: Vec3, tableZ: number, pushHeight: number): Stance {
  const hull = convexHull(polygon);
  let edgeDistance = Infinity;
  let normal: Point2 = [0, -1];
  for (let i = 0; i < hull.length; i++) {
    const a = hull[i] as Point2, b = hull[(i + 1) % hull.length] as Point2;
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (length < 1e-9) continue;
    const out: Point2 = [(b[1] - a[1]) / length, -(b[0] - a[0]) / length];
    const d = out[0] * (a[0] - centre[0]) + out[1] * (a[1] - centre[1]);
    if (d < edgeDistance) {
      edgeDistance = d;
      normal = out;
    }
  }
  const height = Math.max(1e-6, centre[2] - tableZ);
  const sideways = Math.abs(normal[0]) > Math.abs(normal[1]);
  return {
    polygon: hull, mass, centre, edgeDistance,
    tipAngle: (Math.atan2(edgeDistance, height) * 180) / Math.PI,
    towards: sideways ? (normal[0] > 0 ? 'left' : 'right') : normal[1] < 0 ? 'front' : 'back',
    push: Math.max(0, (mass * 9.81 * edgeDistance) / Math.max(1e-6, pushHeight - tableZ)),
    pushHeight,
  };
}

export function boardCorners(base: BaseBoard): Point2[] {
  const x = base.width / 2, y = base.depth / 2;
  return [[-x, -y], [x, -y], [x, y], [-x, y]];
}

/** kg at the table, centred on the board, that brings the lean to `degrees`; 0 when it is there already. */
export function ballastFor(stance: Stance, tableZ: number, centreToEdge: number, degrees: number): number {
  const slope = Math.tan((degrees * Math.PI) / 180);
  const short = stance.mass * (slope * (stance.centre[2] - tableZ) - stance.edgeDistance);
  return short <= 0 ? 0 : centreToEdge > 0 ? short / centreToEdge : Infinity;
}

/** Wood screw withdrawal, N, ultimate: 108.25 G^2 D L, D and L in mm. USDA *Wood Handbook*, ch. 8. A fifth is allowed. */
export function screwWithdrawal(specificGravity: number, diameter: number, threadLength: number): number {
  return 108.25 * specificGravity ** 2 * diameter * 1000 * threadLength * 1000;
}
export const screwAllowedShare = 1 / 5;

export interface BaseCheck {
  /** N in the worst screw, and what one may take. */
  readonly screwPull: number;
  readonly screwAllowed: number;
  readonly screwUtilisation: number;
  readonly boardUtilisation: number;
}

/**
 * The upright's overturning moment into the flange screws and the board. Screws stand in a square on their circle and
 * the flange turns about its edge; the board bends as a strip as wide as the flange and twice its own thickness.
 */
export function checkBase(base: BaseBoard, moment: number, safety: number, density: number, allowedStress: number): BaseCheck {
  const half = base.screws.circle / (2 * Math.SQRT2);
  const radius = base.flangeDiameter / 2;
  const near = Math.max(0, radius - half), far = radius + half;
  const perSide = Math.max(1, base.screws.count / 2);
  const screwPull = (moment * far) / (perSide * (near * near + far * far));
  const screwAllowed = screwWithdrawal(density / 1000, base.screws.diameter, base.screws.threadLength) * screwAllowedShare;
  const strip = base.flangeDiameter + 2 * base.thickness;
  const boardStress = (moment / 2) / ((strip * base.thickness ** 2) / 6);
  return { screwPull, screwAllowed, screwUtilisation: screwAllowed > 0 ? (safety / 1.5) * (screwPull / screwAllowed) : 99, boardUtilisation: (safety / 1.5) * (boardStress / allowedStress) };
}
