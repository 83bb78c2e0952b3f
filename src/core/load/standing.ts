import type { BaseBoard, Standing } from '../armature';
import { convexHull, gravity, type Point2, type Vec3 } from '../quantity';

/** Standing up: the hull of what touches the table, the lean at which it goes over, the push that takes it there. */

export interface Edge {
  /** Level, outward. */
  readonly normal: Point2;
  /** Metres from the centre of gravity to it, level; below zero when it lies outside. */
  readonly distance: number;
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

/** Edges of what it stands on, seen from a place. A foot or a line alone has none to stand within: it falls. */
export function edgesAround(hull: readonly Point2[], centre: readonly [number, number, ...number[]]): Edge[] {
  const out: Edge[] = [];
  for (let i = 0; i < hull.length; i++) {
    const a = hull[i]!,
      b = hull[(i + 1) % hull.length]!;
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (length < 1e-9) continue;
    const normal: Point2 = [(b[1] - a[1]) / length, -(b[0] - a[0]) / length];
    out.push({ normal, distance: normal[0] * (a[0] - centre[0]) + normal[1] * (a[1] - centre[1]) });
  }
  return out;
}

/** `tableZ` is the table's height; the centre of gravity is measured from it. */
export function stanceOn(
  polygon: readonly Point2[],
  mass: number,
  centre: Vec3,
  tableZ: number,
  pushHeight: number,
): Stance {
  const hull = convexHull(polygon);
  const weakest = edgesAround(hull, centre).reduce<Edge>((w, e) => (e.distance < w.distance ? e : w), {
    normal: [0, -1],
    distance: Infinity,
  });
  const { normal } = weakest;
  // A single point of contact holds nothing up.
  const edgeDistance =
    hull.length < 2 ? -Math.hypot(centre[0] - (hull[0]?.[0] ?? 0), centre[1] - (hull[0]?.[1] ?? 0)) : weakest.distance;
  const height = Math.max(1e-6, centre[2] - tableZ);
  const sideways = Math.abs(normal[0]) > Math.abs(normal[1]);
  return {
    polygon: hull,
    mass,
    centre,
    edgeDistance,
    tipAngle: (Math.atan2(edgeDistance, height) * 180) / Math.PI,
    towards: sideways ? (normal[0] > 0 ? 'left' : 'right') : normal[1] < 0 ? 'front' : 'back',
    push: Math.max(0, (mass * gravity * edgeDistance) / Math.max(1e-6, pushHeight - tableZ)),
    pushHeight,
  };
}

/** How high a board's underside stands, how far in from its edge it touches the ground, and what it slides at. */
export const standingFigures: Readonly<
  Record<Standing, { readonly raised: number; readonly inset: number; readonly friction: number }>
> = {
  flat: { raised: 0, inset: 0, friction: 0.35 },
  slats: { raised: 0.02, inset: 0, friction: 0.35 },
  feet: { raised: 0.015, inset: 0.02, friction: 0.5 },
  casters: { raised: 0.09, inset: 0.05, friction: 0.03 },
  own: { raised: 0, inset: 0, friction: 0.35 },
};

/** What the road does to a piece that only stands there: the way of being shaken that comes nearest to tipping it. */
export interface RoadStance {
  /** "braking", "a bend to the left". */
  readonly cause: string;
  /** Of gravity, level: what it stands before it goes over, and what the road asks. */
  readonly standsTo: number;
  readonly asked: number;
  /** N level at the height of its centre of gravity that keep it from tipping and from sliding; 0 where neither is near. */
  readonly hold: number;
}

/**
 * Tipping and sliding under the accelerations that strength is judged under, about every edge of what it stands on.
 * `friction` is that of its foot. Null where nothing pushes it level.
 */
export function stanceOnRoad(
  stance: Stance,
  tableZ: number,
  friction: number,
  accelerations: readonly Vec3[],
  causes: readonly string[],
): RoadStance | null {
  const height = Math.max(1e-6, stance.centre[2] - tableZ);
  const edges = edgesAround(stance.polygon, stance.centre);
  let worst: (RoadStance & { readonly over: number }) | null = null;
  accelerations.forEach((a, i) => {
    const level = Math.hypot(a[0], a[1]),
      down = -a[2];
    if (!(level > 0) || !(down > 0)) return;
    // About an edge it turns when the level push over the weight exceeds how far in the edge lies over how high it is.
    const least = edges.reduce(
      (m, e) => {
        const towards = (a[0] * e.normal[0] + a[1] * e.normal[1]) / level;
        return towards > 1e-9 ? Math.min(m, e.distance / height / towards) : m;
      },
      edges.length > 0 ? Infinity : 0,
    );
    const standsTo = (Math.max(0, least) * down) / gravity;
    const over = level / gravity / Math.max(1e-9, standsTo);
    if (worst && worst.over >= over) return;
    const tips = level - standsTo * gravity,
      slides = level - friction * down;
    worst = {
      cause: causes[i] ?? '',
      standsTo,
      asked: level / gravity,
      hold: stance.mass * Math.max(0, tips, slides),
      over,
    };
  });
  return worst;
}

/** Where the board touches the ground. */
export function contactsOf(base: BaseBoard): Point2[] {
  const { inset } = standingFigures[base.standing];
  const x = Math.max(0.2 * base.width, base.width / 2 - inset),
    y = Math.max(0.2 * base.depth, base.depth / 2 - inset);
  const [cx, cy] = base.at;
  return [
    [cx - x, cy - y],
    [cx + x, cy - y],
    [cx + x, cy + y],
    [cx - x, cy + y],
  ];
}

/** Height of the ground under it; the board's upper face is at zero. */
export function groundUnder(base: BaseBoard): number {
  return base.standing === 'own' ? 0 : -base.thickness - standingFigures[base.standing].raised;
}

/** N level at the base that slides it, and how far it may stand over the edge of a table on its weakest side. */
export function edgeOfTable(
  base: BaseBoard,
  stance: Stance,
  degrees: number,
): { readonly slidesAt: number; readonly overhang: number } {
  const height = stance.centre[2] - groundUnder(base);
  return {
    slidesAt: standingFigures[base.standing].friction * stance.mass * gravity,
    overhang: Math.max(0, stance.edgeDistance - height * Math.tan((degrees * Math.PI) / 180)),
  };
}

/**
 * kg at `at` (level place and height) that bring the lean about every edge to `degrees`; 0 when it is there already,
 * Infinity when no weight there can. About an edge: (M d + m d_c) / (M h + m h_c) = tan.
 */
export function counterweightAt(stance: Stance, tableZ: number, at: Vec3, degrees: number): number {
  const slope = Math.tan((degrees * Math.PI) / 180);
  const height = stance.centre[2] - tableZ,
    own = at[2] - tableZ;
  let needed = 0;
  const bounds: { readonly most: number }[] = [];
  for (const edge of edgesAround(stance.polygon, stance.centre)) {
    const away =
      edge.distance + edge.normal[0] * (stance.centre[0] - at[0]) + edge.normal[1] * (stance.centre[1] - at[1]);
    const short = stance.mass * (slope * height - edge.distance);
    const gain = away - slope * own;
    if (short > 0) needed = Math.max(needed, gain > 0 ? short / gain : Infinity);
    else if (gain < 0) bounds.push({ most: short / gain });
  }
  return bounds.some((b) => needed > b.most) ? Infinity : needed;
}

/** Metres from the weakest edge, level and inward, at which `kg` at height `z` bring the lean there to `degrees`. */
export function counterweightPlace(stance: Stance, tableZ: number, kg: number, z: number, degrees: number): number {
  const slope = Math.tan((degrees * Math.PI) / 180);
  const short = stance.mass * (slope * (stance.centre[2] - tableZ) - stance.edgeDistance);
  return kg > 0 ? Math.max(0, (short + kg * slope * (z - tableZ)) / kg) : Infinity;
}

/**
 * What pulls a wood screw out of the face of a board, N, ultimate; lengths in metres. Solid wood 108.25 G^2 D L, plywood
 * nine tenths of it; particle board 41.1 D^0.5 (L - D/3)^1.25 G^2, fibreboard a tenth more; D and L in mm. USDA *Wood
 * Handbook*, ch. 8. A fifth is allowed.
 */
export function screwWithdrawal(
  board: string,
  specificGravity: number,
  diameter: number,
  threadLength: number,
): number {
  const d = diameter * 1000,
    l = threadLength * 1000;
  const pressed = 41.1 * Math.sqrt(d) * Math.max(0, l - d / 3) ** 1.25 * specificGravity ** 2;
  if (board === 'chipboard') return pressed;
  if (board === 'mdf') return 1.1 * pressed;
  return (board === 'plywood' ? 0.9 : 1) * 108.25 * specificGravity ** 2 * d * l;
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
 * the flange turns about its edge; the board bends as a strip as wide as the flange and twice its own thickness. With
 * no screws at all the piece is glued down and its own foot decides.
 */
export function checkBase(
  base: BaseBoard,
  moment: number,
  safety: number,
  density: number,
  allowedStress: number,
): BaseCheck {
  const half = base.screws.circle / (2 * Math.SQRT2);
  const radius = base.flangeDiameter / 2;
  const near = Math.max(0, radius - half),
    far = radius + half;
  const perSide = Math.max(1, base.screws.count / 2);
  // On its own feet nothing is screwed to anything: it tips instead.
  if (base.standing === 'own') return { screwPull: 0, screwAllowed: 0, screwUtilisation: 0, boardUtilisation: 0 };
  const glued = base.screws.count === 0;
  const screwPull = glued ? 0 : (moment * far) / (perSide * (near * near + far * far));
  const screwAllowed =
    screwWithdrawal(base.stock, density / 1000, base.screws.diameter, base.screws.threadLength) * screwAllowedShare;
  const strip = base.flangeDiameter + 2 * base.thickness;
  const boardStress = moment / 2 / ((strip * base.thickness ** 2) / 6);
  return {
    screwPull,
    screwAllowed,
    screwUtilisation: glued ? 0 : screwAllowed > 0 ? (safety / 1.5) * (screwPull / screwAllowed) : 99,
    boardUtilisation: (safety / 1.5) * (boardStress / allowedStress),
  };
}
