import type { Vec3 } from '../quantity';
import type { Piece } from './piece';

/**
 * Clay that is kept damp and fired or cast must come off its armature. The armature stays on its board and the piece is
 * lifted off it: whatever would come out through the face on the way holds it, and there the piece is cut.
 */
export interface CutToFree {
  /** The part of the form that is cut. */
  readonly place: string;
  /** Height of the cut over the board, metres: just above what is widest there. */
  readonly level: number;
  readonly members: readonly string[];
}

/** In the order it is done: from the top down. Empty when it lifts off whole. */
export function cutsToFree(piece: Piece): CutToFree[] {
  const { field, form, armature } = piece;
  const everyone = field.all();
  const depth = (x: number, y: number, z: number) => -field.at(x, y, z, everyone);
  const bottom = piece.extent.low[2];
  const step = Math.max(0.002, (piece.extent.high[2] - bottom) / 120);
  const byPlace = new Map<string, { level: number; members: Set<string> }>();
  for (const member of armature.members) {
    if (member.bare) continue;
    const held = member.path.filter((p) => leavesOnTheWay(p, bottom, step, depth));
    if (held.length === 0) continue;
    // Cut where the part is widest across: above that it lifts off, below it slides down.
    const top = held.reduce((a, b) => (out(b) > out(a) ? b : a));
    depth(top[0], top[1], top[2]);
    const place = form.masses[field.owner]?.name ?? member.name;
    const had = byPlace.get(place) ?? { level: -Infinity, members: new Set<string>() };
    had.level = Math.max(had.level, top[2]);
    had.members.add(member.name);
    byPlace.set(place, had);
  }
  return [...byPlace]
    .map(([place, c]) => ({ place, level: c.level, members: [...c.members] }))
    .sort((a, b) => b.level - a.level);
}

const out = (p: Vec3) => Math.hypot(p[0], p[1]);

/** Lifting the piece is the wire going down in it: does it come out of the face before the bottom? */
function leavesOnTheWay(
  p: Vec3,
  bottom: number,
  step: number,
  depth: (x: number, y: number, z: number) => number,
): boolean {
  if (depth(...p) <= 0) return false;
  let left = false;
  for (let z = p[2] - step; z > bottom + step; z -= step) {
    const inside = depth(p[0], p[1], z) > 0;
    if (!inside) left = true;
    // Out of one part and into another, or out with more of the piece still below it: either way clay is in its way.
    if (left && z - bottom > 2 * step) return true;
  }
  return false;
}
