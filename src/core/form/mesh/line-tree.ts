import type { LimbJointKind } from '../../document';
import type { Vec3 } from '../../quantity';
import type { Limb } from './limbs-in-solid';

/** Lines through a solid on their way to becoming joints. */
export type Path = Limb['path'];

/** Lines through a solid while they are being made into joints: no loops. */
export interface LineTree {
  readonly nodes: { at: Vec3; radius: number; kind: 'body' | 'narrow' | 'tip' | 'foot' }[];
  edges: { from: number; to: number; path: Path }[];
}

/** A joint before it has its name: the joint it hangs on by its number. */
export interface RawJoint {
  readonly kind: LimbJointKind;
  readonly at: Vec3;
  readonly radius: number;
  readonly parent: number | null;
  /** The line it is on or at the outer end of; -1 for the first. */
  readonly line: number;
}
