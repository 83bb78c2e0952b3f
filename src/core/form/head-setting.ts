import type { Vec3 } from '../quantity';

/** What a head frame is set out from. */
export interface HeadSetting {
  readonly height: number;
  readonly breadth: number;
  readonly depth: number;
  /** How far its axis lies in front of the upright. */
  readonly forward: number;
  /** Heights above the board: bottom of the piece, chin, middle of the skull, crown. */
  readonly bottom: number;
  readonly chin: number;
  readonly skull: number;
  readonly crown: number;
  /** Where a band round it lies: over the brows, where it has any. */
  readonly band: number;
  /** It has sockets and a nose: what goes round the brain case is not to come down over them. */
  readonly faced: boolean;
  /** Of a mesh: where its head and neck are, and what hangs on each. */
  readonly mesh?: {
    readonly middle: Vec3;
    readonly neck: Vec3;
    readonly carriedBy: string;
    readonly neckMasses: readonly string[];
    readonly headMasses: readonly string[];
    readonly trunkMasses: readonly string[];
  };
}
