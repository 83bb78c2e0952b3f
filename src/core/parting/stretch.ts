import { convexHull, type Vec3 } from '../quantity';
import type { MasterFace } from './face';
import { section } from './shim';

/** What a mould that gives must stretch to come off along a direction. */
export interface Stretch {
  /** Share by which its narrowest ring is drawn out; Infinity where there is no opening to come off by. */
  readonly share: number;
  /** Heights along the direction, metres: of that ring, and of the girth it passes over. */
  readonly ring: number;
  readonly girth: number;
  /** Holes through the piece: a mould of one part never comes off past them, it is cut there. */
  readonly handles: number;
}

const rings = 60;

/** Each ring of the mould passes over all that stands further along: its own girth against the largest there. */
export function stretchAlong(face: MasterFace, pull: Vec3): Stretch {
  let low = Infinity,
    high = -Infinity;
  for (let i = 0; i < face.positions.length; i += 3) {
    const h = face.positions[i]! * pull[0] + face.positions[i + 1]! * pull[1] + face.positions[i + 2]! * pull[2];
    if (h < low) low = h;
    if (h > high) high = h;
  }
  const handles = handlesOf(face);
  let worst = { share: 0, ring: low, girth: low };
  let largest = { girth: 0, at: high };
  for (let k = rings - 1; k >= 0; k--) {
    const at = low + ((k + 0.5) / rings) * (high - low);
    const girth = hullLength(section(face, pull, at).outlines.flat());
    if (girth > largest.girth) largest = { girth, at };
    const share = girth > 0 ? largest.girth / girth - 1 : 0;
    if (share > worst.share) worst = { share, ring: at, girth: largest.at };
  }
  return { ...worst, handles };
}

function hullLength(points: readonly (readonly [number, number])[]): number {
  const hull = convexHull(points);
  return hull.reduce((sum, [x, y], i) => {
    const [u, v] = hull[(i + 1) % hull.length]!;
    return sum + Math.hypot(u - x, v - y);
  }, 0);
}

/** Holes through the piece, by Euler's count of points, edges and faces. */
export function handlesOf({ positions, triangles, count }: MasterFace): number {
  const points = positions.length / 3;
  const parent = Int32Array.from({ length: points }, (_, i) => i);
  const find = (i: number): number => {
    while (parent[i] !== i) {
      parent[i] = parent[parent[i]!]!;
      i = parent[i]!;
    }
    return i;
  };
  const used = new Uint8Array(points);
  for (let t = 0; t < count; t++)
    for (let c = 0; c < 3; c++) {
      const a = triangles[3 * t + c]!,
        b = triangles[3 * t + ((c + 1) % 3)]!;
      used[a] = 1;
      parent[find(a)] = find(b);
    }
  let vertices = 0,
    parts = 0;
  for (let i = 0; i < points; i++)
    if (used[i]) {
      vertices++;
      if (find(i) === i) parts++;
    }
  // A closed face has three edges to two triangles.
  return Math.max(0, Math.round(parts - (vertices - count / 2) / 2));
}
