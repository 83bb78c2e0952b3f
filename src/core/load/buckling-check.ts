import {
  bucklingNear,
  bucklingOf,
  type Bone,
  type FactoredFrame,
  type FrameSolution,
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
}

/** Share in what bends, against the hardest-bent bone, from which a bone counts as one of those that bow. */
const bowsWith = 0.25;
/** Below this share of bowing, safety included, it is sound and not looked at more closely. */
const worthSaying = 0.6;
/** Below this share of its cautious Euler load nothing is near bowing. */
export const slenderFrom = 0.1;

/** N of push along a bone, largest; forces are those on the cut's left part, so a push is above zero. */
export function pushedAt(stations: readonly SectionForces[]): number {
  return stations.reduce((m, s) => Math.max(m, s.axial), -Infinity);
}

/** N of push along a bone on the average of its length; between two cuts it changes evenly. Cuts stand in their order. */
export function meanPush(stations: readonly SectionForces[]): number {
  const length = stations.length > 0 ? stations[stations.length - 1]!.at - stations[0]!.at : 0;
  if (!(length > 0)) return 0;
  return stations.slice(1).reduce((sum, s, i) => {
    const before = stations[i]!;
    return sum + ((s.at - before.at) * (s.axial + before.axial)) / 2 / length;
  }, 0);
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

/** By bone, its push over the push at which the frame bows, safety included, for those that bow; null when none is near it. */
export function bowingOf({ frame, solution, safety }: Pushed, bones: readonly Bone[]): number[] | null {
  const pulls = bones.map((b, i) => (b.tie ? 0 : -meanPush(solution.forces[i] ?? [])));
  if (bucklingNear(frame, pulls) * safety < worthSaying) return null;
  const found = bucklingOf(frame.model, pulls);
  if (!found.ok || !Number.isFinite(found.value.factor)) return null;
  const { factor, shares } = found.value;
  return bones.map((_, i) => ((shares[i] ?? 0) >= bowsWith ? safety / factor : 0));
}
