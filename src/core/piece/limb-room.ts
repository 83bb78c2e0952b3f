import { thickestWithCover, type CoverInputs } from '../armature';
import type { ResolvedForm } from '../form';
import { boneName } from '../school';
import { add, cross, distance, mix, scale, subtract, unit, type Vec3 } from '../quantity';

/** What a stretch of the form between two joints can take, read off the form alone: the way of building comes after. */
export interface LimbRoom {
  /** Joints it runs between, parent first. */
  readonly from: string;
  readonly to: string;
  readonly name: string;
  /** Across it at its thinnest along the line between the joints, metres; 0 where that line leaves the form. */
  readonly thinnest: number;
  readonly at: Vec3;
  /** The thickest single wire on that line that keeps its cover all the way, metres; 0 for none. */
  readonly wire: number;
}

/** Places along a stretch, and ways to look from each, square to it. */
const places = 8;
const ways = 8;
/** Past this share of its last stretch a limb is its own round end, where no wire runs on. */
const shortOfTip = 0.85;

/** A stretch between two joints as it was looked at: the nearest face square to it, place by place. */
export interface Stretch {
  readonly from: string;
  readonly to: string;
  readonly name: string;
  readonly places: readonly { readonly at: Vec3; readonly radius: number; readonly mass: number }[];
}

/**
 * Every stretch, in the order of the joints; metres at full size and in pose. How far the face is off is looked for to
 * all sides: a depth in many masses is that in one of them, and too little.
 */
export function stretchesOf(form: Pick<ResolvedForm, 'skeleton'>, near: CoverInputs['near']): Stretch[] {
  const { joints } = form.skeleton;
  const byId = new Map(joints.map((j) => [j.id, j]));
  const inner = new Set(joints.map((j) => j.parent));
  return joints.flatMap((end): Stretch[] => {
    const start = end.parent === null ? undefined : byId.get(end.parent);
    if (!start || distance(start.at, end.at) < 1e-4) return [];
    const until = inner.has(end.id) ? 1 : shortOfTip;
    // What stands on the ground leaves it there.
    const since = start.ground && start.parent === null ? 1 - shortOfTip : 0;
    const [u, v] = squareTo(unit(subtract(end.at, start.at)));
    return [
      {
        from: start.id,
        to: end.id,
        name: boneName(joints, start.id, end.id),
        places: Array.from({ length: places + 1 }, (_, k) => {
          const at = mix(start.at, end.at, since + ((until - since) * k) / places);
          let radius = Infinity;
          for (let w = 0; w < ways; w++) {
            const a = (2 * Math.PI * w) / ways;
            radius = toFace(near, at, add(scale(u, Math.cos(a)), scale(v, Math.sin(a))), radius);
          }
          return { at, radius, mass: near(at, 1e-6)(at).mass };
        }),
      },
    ];
  });
}

/** What each can take under the clay there is; `least` is the cover there should be anywhere. */
export function limbRooms(
  stretches: readonly Stretch[],
  { clayOver, least }: Pick<CoverInputs, 'clayOver' | 'least'>,
): LimbRoom[] {
  return stretches.map(({ from, to, name, places: looked }) => {
    const thinnest = looked.reduce((a, b) => (b.radius < a.radius ? b : a));
    const wire = Math.min(...looked.map((p) => thickestWithCover(p.radius, clayOver(p.mass), least)));
    return { from, to, name, thinnest: 2 * thinnest.radius, at: thinnest.at, wire };
  });
}

/** How far one comes along a way before the face, no further than asked for; 0 from outside. */
function toFace(near: CoverInputs['near'], from: Vec3, way: Vec3, most: number): number {
  let far = 0;
  let p = from;
  for (let i = 0; i < 400 && far < most; i++) {
    const depth = -near(p, 1e-6)(p).distance;
    if (depth <= 0) return far;
    far += Math.max(depth, 1e-4);
    p = add(from, scale(way, far));
  }
  return Math.min(far, most);
}

/** Two directions of length 1, square to one and to each other. */
function squareTo(along: Vec3): [Vec3, Vec3] {
  const u = unit(Math.abs(along[0]) < 0.9 ? cross(along, [1, 0, 0]) : cross(along, [0, 0, 1]));
  return [u, cross(along, u)];
}
