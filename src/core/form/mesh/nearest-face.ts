import { latticeIndex, latticeSize, type Lattice } from './lattice';
import type { Progress, TriangleMesh } from './triangle-mesh';

const { ceil, floor, max, min, sqrt } = Math;

/** The place on the triangle that the last distance was to. */
export const nearestPlace = new Float32Array(3);

/** Distance from a point to a triangle whose corners begin at a, b and c in `p`, squared; leaves the place in `nearestPlace`. Ericson, *Real-Time Collision Detection*, 5.1.5, written out flat. */
export function squaredToTriangle(
  p: Float32Array,
  a: number,
  b: number,
  c: number,
  x: number,
  y: number,
  z: number,
): number {
  const ax = p[a]!,
    ay = p[a + 1]!,
    az = p[a + 2]!;
  const ux = p[b]! - ax,
    uy = p[b + 1]! - ay,
    uz = p[b + 2]! - az;
  const vx = p[c]! - ax,
    vy = p[c + 1]! - ay,
    vz = p[c + 2]! - az;
  const wx = x - ax,
    wy = y - ay,
    wz = z - az;
  const d1 = ux * wx + uy * wy + uz * wz,
    d2 = vx * wx + vy * wy + vz * wz;
  const uu = ux * ux + uy * uy + uz * uz,
    uv = ux * vx + uy * vy + uz * vz,
    vv = vx * vx + vy * vy + vz * vz;
  const d3 = d1 - uu,
    d4 = d2 - uv;
  let s: number, t: number;
  if (d1 <= 0 && d2 <= 0) {
    s = 0;
    t = 0;
  } else if (d3 >= 0 && d4 <= d3) {
    s = 1;
    t = 0;
  } else {
    const d5 = d1 - uv,
      d6 = d2 - vv;
    const vc = d1 * d4 - d3 * d2,
      vb = d5 * d2 - d1 * d6,
      va = d3 * d6 - d5 * d4;
    if (vc <= 0 && d1 >= 0 && d3 <= 0) {
      s = d1 / (d1 - d3);
      t = 0;
    } else if (d6 >= 0 && d5 <= d6) {
      s = 0;
      t = 1;
    } else if (vb <= 0 && d2 >= 0 && d6 <= 0) {
      s = 0;
      t = d2 / (d2 - d6);
    } else if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
      t = (d4 - d3) / (d4 - d3 + d5 - d6);
      s = 1 - t;
    } else {
      const k = 1 / (va + vb + vc);
      s = vb * k;
      t = vc * k;
    }
  }
  const ex = wx - s * ux - t * vx,
    ey = wy - s * uy - t * vy,
    ez = wz - s * uz - t * vz;
  nearestPlace[0] = x - ex;
  nearestPlace[1] = y - ey;
  nearestPlace[2] = z - ez;
  return ex * ex + ey * ey + ez * ez;
}

/** How far each place of a lattice is from the nearest triangle, the place on it, and which it is; -1 where there are none. */
export interface NearestFaces {
  readonly away: Float32Array;
  /** Three a place. */
  readonly on: Float32Array;
  readonly face: Int32Array;
}

/** Every which way through the lattice, twice: what one pass hands on late the next takes up. */
const sweeps = 16;

/**
 * Exact within a step of the faces. Elsewhere the nearest place on a face is handed on from neighbour to neighbour
 * (Danielsson 1980, *Euclidean distance mapping*), which is good to a small part of a step. `near`: about the faces only,
 * the rest Infinity away.
 */
export function nearestFaces(mesh: TriangleMesh, lattice: Lattice, near: boolean, progress?: Progress): NearestFaces {
  const { positions: p, triangles: t } = mesh;
  const { cells, step, from } = lattice;
  const face = new Int32Array(latticeSize(lattice)).fill(-1);
  const best = new Float32Array(face.length).fill(Infinity);
  const on = new Float32Array(face.length * 3);
  const reachOf = (a: number, b: number, c: number, axis: 0 | 1 | 2): [number, number] => [
    max(0, floor((min(p[a + axis]!, p[b + axis]!, p[c + axis]!) - from[axis]) / step) - 1),
    min(cells[axis] - 1, ceil((max(p[a + axis]!, p[b + axis]!, p[c + axis]!) - from[axis]) / step) + 1),
  ];
  const faces = t.length / 3;
  for (let f = 0; f < faces; f++) {
    const a = t[f * 3]! * 3,
      b = t[f * 3 + 1]! * 3,
      c = t[f * 3 + 2]! * 3;
    const [x0, x1] = reachOf(a, b, c, 0),
      [y0, y1] = reachOf(a, b, c, 1),
      [z0, z1] = reachOf(a, b, c, 2);
    for (let z = z0; z <= z1; z++)
      for (let y = y0; y <= y1; y++)
        for (let x = x0; x <= x1; x++) {
          const d = squaredToTriangle(p, a, b, c, from[0] + x * step, from[1] + y * step, from[2] + z * step);
          const i = latticeIndex(lattice, x, y, z);
          if (!(d < best[i]!)) continue;
          best[i] = d;
          face[i] = f;
          on.set(nearestPlace, i * 3);
        }
    if ((f & 0x3fff) === 0) progress?.((0.6 * f) / faces);
  }
  if (!near) for (let s = 0; s < sweeps; s++) handOn(lattice, s, best, on, face, progress);
  return { away: best.map((d) => sqrt(d)), on, face };
}

/** One pass through the lattice from one of its eight corners. */
function handOn(
  { cells: [nx, ny, nz], step, from }: Lattice,
  sweep: number,
  best: Float32Array,
  on: Float32Array,
  face: Int32Array,
  progress?: Progress,
): void {
  const sx = sweep & 1 ? -1 : 1,
    sy = sweep & 2 ? -1 : 1,
    sz = sweep & 4 ? -1 : 1;
  const back = [sx, sy * nx, sz * nx * ny] as const;
  for (let k = 0; k < nz; k++) {
    const z = sz > 0 ? k : nz - 1 - k;
    for (let j = 0; j < ny; j++) {
      const y = sy > 0 ? j : ny - 1 - j;
      for (let h = 0; h < nx; h++) {
        const x = sx > 0 ? h : nx - 1 - h;
        const i = x + nx * (y + ny * z);
        const px = from[0] + x * step,
          py = from[1] + y * step,
          pz = from[2] + z * step;
        for (let way = 0; way < 3; way++) {
          if ((way === 0 ? h : way === 1 ? j : k) === 0) continue;
          const other = i - back[way as 0];
          if (face[other]! < 0) continue;
          const ex = px - on[other * 3]!,
            ey = py - on[other * 3 + 1]!,
            ez = pz - on[other * 3 + 2]!;
          const d = ex * ex + ey * ey + ez * ez;
          if (!(d < best[i]!)) continue;
          best[i] = d;
          face[i] = face[other]!;
          on[i * 3] = on[other * 3]!;
          on[i * 3 + 1] = on[other * 3 + 1]!;
          on[i * 3 + 2] = on[other * 3 + 2]!;
        }
      }
    }
  }
  progress?.(0.6 + (0.4 * sweep) / sweeps);
}
