import { convexHull, dot, type Vec3 } from '../quantity';
import { across } from './directions';
import type { MasterFace } from './face';

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
  const thick = (high - low) / rings;
  const crossings = crossingsOf(face, pull, low, thick);
  let worst = { share: 0, ring: low, girth: low };
  let largest = { girth: 0, at: high };
  for (let k = rings - 1; k >= 0; k--) {
    const at = low + (k + 0.5) * thick;
    const girth = hullLength(crossings[k]!);
    if (girth > largest.girth) largest = { girth, at };
    const share = girth > 0 ? largest.girth / girth - 1 : 0;
    if (share > worst.share) worst = { share, ring: at, girth: largest.at };
  }
  return { ...worst, handles: handlesOf(face) };
}

/** By ring: where edges of the face cross its height, in the plane square to the pull. */
function crossingsOf(face: MasterFace, pull: Vec3, low: number, thick: number): [number, number][][] {
  const [u, v] = across(pull);
  const { positions: p, triangles } = face;
  const out: [number, number][][] = Array.from({ length: rings }, () => []);
  const heightOf = (i: number) => p[i]! * pull[0] + p[i + 1]! * pull[1] + p[i + 2]! * pull[2];
  for (let c = 0; c < triangles.length; c++) {
    const i = 3 * triangles[c]!,
      j = 3 * triangles[c % 3 === 2 ? c - 2 : c + 1]!;
    const a = (heightOf(i) - low) / thick - 0.5,
      b = (heightOf(j) - low) / thick - 0.5;
    // Each edge has two corners: it is taken where it rises.
    if (!(a < b)) continue;
    for (let ring = Math.max(0, Math.ceil(a)); ring < Math.min(rings, b); ring++) {
      const k = (ring - a) / (b - a);
      const at = [0, 1, 2].map((m) => p[i + m]! + k * (p[j + m]! - p[i + m]!)) as unknown as Vec3;
      out[ring]!.push([dot(at, u), dot(at, v)]);
    }
  }
  return out;
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
