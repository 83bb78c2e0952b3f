import {
  bucklingNear,
  GeometricStiffness,
  type Bone,
  type FactoredFrame,
  type FrameSolution,
  type MovedFrame,
  type SectionForces,
} from '../armature';
import { distance } from '../quantity';

/**
 * Whether a loaded armature bows out sideways. Working that out takes far longer than a solve, so a cautious measure
 * says which stage is worth asking, a rough look whether it is near, and only then the buckling itself is solved.
 */
export interface Pushed {
  /** Cautious slenderness times the safety factor. */
  readonly ratio: number;
  readonly safety: number;
  readonly solution: FrameSolution;
  readonly frame: FactoredFrame;
  readonly moved: MovedFrame;
}

/** Share in what bends, against the hardest-bent bone, from which a bone counts as one of those that bow. */
const bowsWith = 0.25;
/** Below this share of bowing, safety included, it is sound and not looked at more closely. */
const worthSaying = 0.6;
/** Below this share of its cautious Euler load nothing is near bowing. */
export const slenderFrom = 0.1;
/** Below this one, moving adds less than a hundredth to what bends it. */
export const movesFrom = 0.01;

/** N of push along a bone, largest; forces are those on the cut's left part, so a push is above zero. */
export function pushedAt(stations: readonly SectionForces[]): number {
  return stations.reduce((m, s) => Math.max(m, s.axial), -Infinity);
}

/**
 * Largest push over a cautious Euler load: as though the whole way from what holds a bone (`outward`, metres by joint)
 * were one free-standing column of its section. Bones are the frame's members, in order.
 */
export function slenderness(
  frame: FactoredFrame,
  bones: readonly Bone[],
  solution: FrameSolution,
  outward: ReadonlyMap<string, number>,
): number {
  const { nodes, members } = frame.model;
  const place = new Map(nodes.map((n) => [n.id, n.at]));
  return bones.reduce((most, b, i) => {
    const beam = members[i];
    if (b.tie || !beam) return most;
    const length = distance(place.get(b.from)!, place.get(b.to)!);
    const away = Math.max(outward.get(b.to) ?? 0, outward.get(b.from) ?? 0, length);
    return Math.max(most, (pushedAt(solution.forces[i] ?? []) * (2 * away) ** 2) / (Math.PI ** 2 * beam.E * beam.Iy));
  }, 0);
}

/** By bone, safety over the factor at which the frame folds, for those that bow; null when none is near it. */
export function bowingOf({ frame, solution, safety, moved }: Pushed): number[] | null {
  const pushes = new GeometricStiffness(frame, solution.forces);
  if (bucklingNear(frame, solution.forces, pushes) * safety < worthSaying) return null;
  return foldingOf(moved, safety);
}

/** The same of a frame that is known to be near it; null where nothing bows. */
export function foldingOf(moved: MovedFrame, safety: number): number[] | null {
  const { factor, shares } = moved.buckling();
  return Number.isFinite(factor) ? shares.map((s) => (s >= bowsWith ? safety / factor : 0)) : null;
}
