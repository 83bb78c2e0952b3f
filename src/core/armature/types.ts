import type { JoinKindId } from '../catalogue';
import type { Vec3 } from '../quantity';

/** The skeleton that is solved, and the wires, pipes and timbers that are cut. Metres, z up, front is -y. */
export interface ArmatureNode {
  readonly id: string;
  readonly at: Vec3;
  /** Built into the base. */
  readonly held: boolean;
}

export interface Bone {
  readonly id: string;
  readonly name: string;
  readonly from: string;
  readonly to: string;
  /** Masses whose clay and bulk hang on it. */
  readonly masses: readonly string[];
  readonly joinFrom: JoinKindId;
  readonly joinTo: JoinKindId;
}

export interface Allowance {
  readonly what: string;
  readonly length: number;
}

export interface Member {
  readonly id: string;
  readonly name: string;
  readonly stock: string;
  readonly size: string;
  readonly strands: number;
  readonly bonded: boolean;
  /** How it is bent, for the picture, the weight and the cut. */
  readonly path: readonly Vec3[];
  /** Bones it runs along; a bone named twice has two legs of it. */
  readonly bones: readonly string[];
  readonly allowances: readonly Allowance[];
  /** Least depth under the finished face it is bent to, where the form allows. */
  readonly drawnIn?: number;
}

export interface BaseBoard {
  readonly stock: string;
  readonly size: string;
  readonly width: number;
  readonly depth: number;
  readonly thickness: number;
  /** Foot of the upright on the board. */
  readonly flangeAt: Vec3;
  readonly flangeDiameter: number;
  readonly flangeMass: number;
  readonly screws: { readonly count: number; readonly diameter: number; readonly threadLength: number; readonly circle: number };
  readonly ballast: number;
}

export interface Hardware {
  readonly id: string;
  readonly name: string;
  readonly count: number;
  readonly massEach: number;
  readonly at: Vec3;
}

export interface Armature {
  readonly nodes: readonly ArmatureNode[];
  readonly bones: readonly Bone[];
  readonly members: readonly Member[];
  readonly base: BaseBoard;
  readonly hardware: readonly Hardware[];
  readonly bulk: string;
  readonly wrap: string;
}
