import type { Vec3 } from '../../quantity';
import { edgesOf, flippedFaces, openEdges, weld } from './topology';
import type { TriangleMesh } from './triangle-mesh';

export interface MeshSize {
  readonly triangles: number;
  readonly volume: number;
  readonly area: number;
  readonly centroid: Vec3;
  readonly box: readonly [Vec3, Vec3];
}

export interface MeshReport extends MeshSize {
  readonly watertight: boolean;
  /** Edges with other than two faces. */
  readonly openEdges: number;
  readonly flipped: number;
}

/**
 * Volume and centroid by the divergence theorem: the sum of signed tetrahedra, taken from the middle of the box so
 * that a mesh far from its origin loses no figures. In the cube, square and first power of the mesh's own unit.
 */
export function sizeOfMesh(mesh: TriangleMesh): MeshSize {
  const { positions: p, triangles: t } = mesh;
  let lx = Infinity,
    ly = Infinity,
    lz = Infinity,
    hx = -Infinity,
    hy = -Infinity,
    hz = -Infinity;
  for (let i = 0; i < p.length; i += 3) {
    const x = p[i]!,
      y = p[i + 1]!,
      z = p[i + 2]!;
    if (x < lx) lx = x;
    if (x > hx) hx = x;
    if (y < ly) ly = y;
    if (y > hy) hy = y;
    if (z < lz) lz = z;
    if (z > hz) hz = z;
  }
  const ox = (lx + hx) / 2,
    oy = (ly + hy) / 2,
    oz = (lz + hz) / 2;
  let volume = 0,
    area = 0,
    mx = 0,
    my = 0,
    mz = 0;
  for (let i = 0; i < t.length; i += 3) {
    const a = t[i]! * 3,
      b = t[i + 1]! * 3,
      c = t[i + 2]! * 3;
    const ax = p[a]! - ox,
      ay = p[a + 1]! - oy,
      az = p[a + 2]! - oz;
    const bx = p[b]! - ox,
      by = p[b + 1]! - oy,
      bz = p[b + 2]! - oz;
    const cx = p[c]! - ox,
      cy = p[c + 1]! - oy,
      cz = p[c + 2]! - oz;
    const v = ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx);
    volume += v;
    mx += v * (ax + bx + cx);
    my += v * (ay + by + cy);
    mz += v * (az + bz + cz);
    const ux = bx - ax,
      uy = by - ay,
      uz = bz - az,
      vx = cx - ax,
      vy = cy - ay,
      vz = cz - az;
    const nx = uy * vz - uz * vy,
      ny = uz * vx - ux * vz,
      nz = ux * vy - uy * vx;
    area += Math.sqrt(nx * nx + ny * ny + nz * nz);
  }
  const w = volume === 0 ? 0 : 1 / (4 * volume);
  return {
    triangles: t.length / 3,
    volume: volume / 6,
    area: area / 2,
    centroid: volume === 0 ? [ox, oy, oz] : [ox + mx * w, oy + my * w, oz + mz * w],
    box: [
      [lx, ly, lz],
      [hx, hy, hz],
    ],
  };
}

/** Points nearer than this share of the mesh's diagonal are one. */
export const weldShare = 1e-6;

/** Everything there is to say of a mesh, in its own unit. Faces that look the wrong way count the right way in the volume. */
export function reportOnMesh(mesh: TriangleMesh): MeshReport {
  const plain = sizeOfMesh(mesh);
  const [low, high] = plain.box;
  const welded = weld(mesh, weldShare * Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]));
  const edges = edgesOf(welded);
  const open = openEdges(edges);
  const flips = flippedFaces(welded, edges);
  const flipped = flips.reduce((sum, f) => sum + f, 0);
  const size = flipped > 0 ? sizeOfMesh(turnFaces(welded, flips)) : plain;
  return { ...size, triangles: plain.triangles, box: plain.box, watertight: open === 0, openEdges: open, flipped };
}

export function turnFaces(mesh: TriangleMesh, flips: Uint8Array): TriangleMesh {
  const triangles = mesh.triangles.slice();
  for (let f = 0; f < flips.length; f++) {
    if (!flips[f]) continue;
    const b = triangles[f * 3 + 1]!;
    triangles[f * 3 + 1] = triangles[f * 3 + 2]!;
    triangles[f * 3 + 2] = b;
  }
  return { positions: mesh.positions, triangles };
}

export const meshUnits = { mm: 0.001, cm: 0.01, in: 0.0254, m: 1 } as const;
export type MeshUnit = keyof typeof meshUnits;

/** The unit in which the largest side comes nearest to what people make: a hand's breadth to a person's height. */
export function guessUnit(longest: number): MeshUnit {
  const likely = 0.35;
  const away = (unit: MeshUnit) => Math.abs(Math.log((longest * meshUnits[unit]) / likely));
  return (Object.keys(meshUnits) as MeshUnit[]).reduce((best, u) => (away(u) < away(best) - 1e-9 ? u : best), 'mm');
}
