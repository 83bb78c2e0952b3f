import { dot, subtract, unit, type Vec3 } from '../quantity';
import type { ArmatureNode, Bone } from './types';

/**
 * Bones that go straight on into each other with nothing but a joint between, as one stretch: what stands round them is
 * one thing, and a joint put in the middle of a bone changes nothing. They run on in one piece there, carry the same
 * masses, and no other bone meets them.
 */
export interface StraightStretches {
  /** By bone. */
  readonly of: Int32Array;
  /** Both ends of each, metres. */
  readonly ends: readonly (readonly [Vec3, Vec3])[];
}

const straight = 1 - 1e-9;

export function straightStretches(nodes: readonly ArmatureNode[], bones: readonly Bone[]): StraightStretches {
  const place = new Map(nodes.map((n) => [n.id, n.at]));
  const held = new Set(nodes.filter((n) => n.held).map((n) => n.id));
  const at = new Map<string, number[]>();
  bones.forEach((b, i) => {
    for (const n of [b.from, b.to]) at.set(n, [...(at.get(n) ?? []), i]);
  });
  const far = (i: number, node: string) => (bones[i]!.from === node ? bones[i]!.to : bones[i]!.from);
  const joinAt = (i: number, node: string) => (bones[i]!.from === node ? bones[i]!.joinFrom : bones[i]!.joinTo);
  const masses = bones.map((b) => [...b.masses].sort().join());
  /** The bone that goes straight on past a joint; undefined where none does. */
  const onward = (i: number, node: string): number | undefined => {
    const [a, b, ...more] = at.get(node) ?? [];
    const other = a === i ? b : a;
    if (other === undefined || other === i || more.length > 0 || held.has(node)) return undefined;
    if (bones[i]!.tie || bones[other]!.tie || masses[i] !== masses[other]) return undefined;
    if (joinAt(i, node) !== 'welded' || joinAt(other, node) !== 'welded') return undefined;
    const here = place.get(node)!;
    const along = dot(
      unit(subtract(here, place.get(far(i, node))!)),
      unit(subtract(place.get(far(other, node))!, here)),
    );
    return along >= straight ? other : undefined;
  };
  const of = new Int32Array(bones.length).fill(-1);
  const ends: (readonly [Vec3, Vec3])[] = [];
  bones.forEach((bone, i) => {
    if (of[i] !== -1) return;
    const stretch = ends.length;
    of[i] = stretch;
    const goOn = (node: string): string => {
      let end = node;
      for (let last = i, next = onward(i, node); next !== undefined && of[next] === -1; next = onward(last, end)) {
        of[next] = stretch;
        end = far(next, end);
        last = next;
      }
      return end;
    };
    const from = goOn(bone.from),
      to = goOn(bone.to);
    ends.push([place.get(from)!, place.get(to)!]);
  });
  return { of, ends };
}
