import { leftInTheBowl, mouldMaterials, type MouldKind } from './kind';
import type { MouldWalls } from './chosen';

/** Where two parts of a hard wall meet they turn out, to be clamped, with keys that let them meet one way only. */
export interface Flange {
  /** Metres out from the wall, and thick on either side of the seam. */
  readonly width: number;
  readonly thickness: number;
  /** Metres across a key, round; how many there are along the seam. */
  readonly keyAcross: number;
  readonly keys: number;
  /** kg as it is laid, and kg to buy. */
  readonly mass: number;
  readonly toBuy: number;
}

const narrowest = 0.025,
  widest = 0.06,
  keyEvery = 0.1,
  fewestKeys = 4;

/** How far a wall so thick turns out, and the keys in that; metres. */
export function flangeAbout(wall: number): Pick<Flange, 'width' | 'thickness' | 'keyAcross'> {
  const width = Math.min(widest, Math.max(narrowest, 1.5 * wall));
  return { width, thickness: wall, keyAcross: Math.min(0.02, width / 2) };
}

/** Along so much seam; null for what has no hard wall, or no seam. */
export function flangeOf(kind: MouldKind, walls: Pick<MouldWalls, 'shell'>, seam: number): Flange | null {
  if (!kind.shell || walls.shell === null || !(seam > 0) || kind.open) return null;
  const about = flangeAbout(walls.shell);
  const { density, bought } = mouldMaterials[kind.shell.material];
  const volume = seam * about.width * about.thickness * 2;
  return {
    ...about,
    keys: Math.max(fewestKeys, Math.round(seam / keyEvery)),
    mass: volume * density,
    toBuy: volume * bought * (1 + leftInTheBowl),
  };
}
