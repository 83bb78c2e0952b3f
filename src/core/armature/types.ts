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
  /** A tie only pulls: hinged at both ends, slack when it would be pushed. */
  readonly tie?: boolean;
}

export interface Allowance {
  readonly what: string;
  readonly length: number;
  /** The end of the member it is at; all along it where neither is said. */
  readonly at?: 'start' | 'end';
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
  /** Meant to stand outside the form: an upright, a frame, a tie. */
  readonly bare?: boolean;
  readonly sizedBy?: SizedBy;
}

/** Figures of its way of building that say what a member is cut from; `together` where one size serves all they speak of. */
export interface SizedBy {
  readonly stock: string;
  readonly size: string;
  readonly strands?: string;
  readonly together?: true;
  /** It is bent again and again: nothing that does not bend by hand will do. */
  readonly bends?: true;
}

/** How a board or frame meets the table or floor; "own" has none, and stands on its own feet once it is made. */
export const standings = ['flat', 'slats', 'feet', 'casters', 'own'] as const;
export type Standing = (typeof standings)[number];

export interface BaseBoard {
  readonly stock: string;
  readonly size: string;
  /** Its middle, level. */
  readonly at: readonly [number, number];
  readonly width: number;
  readonly depth: number;
  readonly thickness: number;
  readonly standing: Standing;
  /** Foot of the upright on the board. */
  readonly flangeAt: Vec3;
  /** Of a flange, or of what is screwed down in its place: folded feet, the block round a post. */
  readonly flangeDiameter: number;
  /** kg; none where nothing of the kind is bought. */
  readonly flangeMass: number;
  readonly screws: {
    readonly count: number;
    readonly diameter: number;
    readonly threadLength: number;
    readonly circle: number;
  };
  /** kg, and where it is fixed. */
  readonly ballast: number;
  readonly ballastAt: readonly [number, number];
}

/** Whether the upright stands in a flange; wires are folded over and screwed down, posts let into the board. */
export function hasFlange(base: Pick<BaseBoard, 'flangeMass'>): boolean {
  return base.flangeMass > 0;
}

/** A part that comes away from the rest for carrying: its masses travel together. */
export interface Section {
  readonly id: string;
  readonly name: string;
  readonly masses: readonly string[];
  /** How it is held to the rest. */
  readonly heldBy: string;
  /** It stays on the board. */
  readonly standing?: true;
}

/** A hole to be drilled: in the board, the post, a plate. Metres. */
export interface Hole {
  readonly what: string;
  readonly count: number;
  readonly diameter: number;
  readonly depth: number;
  /** On the board, from its middle; absent for holes elsewhere. */
  readonly at?: readonly (readonly [number, number])[];
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
  /** What leaves the piece once the clay is hard: the bulk alone, or everything inside it. */
  readonly comesOut?: 'bulk' | 'all';
  /** Parts it is made in and carried in; none when it is one piece. */
  readonly sections?: readonly Section[];
  readonly holes?: readonly Hole[];
}
