import type { TriangleMesh } from './triangle-mesh';

/** By triangle: outward normal and centre, three each, and m2. One of no size has a normal of nought. */
export interface TriangleMeasures {
  readonly normals: Float32Array;
  readonly centres: Float32Array;
  readonly areas: Float64Array;
}

export function measureTriangles({ positions: p, triangles }: TriangleMesh): TriangleMeasures {
  const count = triangles.length / 3;
  const normals = new Float32Array(count * 3),
    centres = new Float32Array(count * 3),
    areas = new Float64Array(count);
  for (let t = 0; t < count; t++) {
    const a = 3 * triangles[3 * t]!,
      b = 3 * triangles[3 * t + 1]!,
      c = 3 * triangles[3 * t + 2]!;
    const ux = p[b]! - p[a]!,
      uy = p[b + 1]! - p[a + 1]!,
      uz = p[b + 2]! - p[a + 2]!;
    const vx = p[c]! - p[a]!,
      vy = p[c + 1]! - p[a + 1]!,
      vz = p[c + 2]! - p[a + 2]!;
    const nx = uy * vz - uz * vy,
      ny = uz * vx - ux * vz,
      nz = ux * vy - uy * vx;
    const l = Math.hypot(nx, ny, nz);
    areas[t] = l / 2;
    const k = l > 0 ? 1 / l : 0;
    normals[3 * t] = nx * k;
    normals[3 * t + 1] = ny * k;
    normals[3 * t + 2] = nz * k;
    for (let i = 0; i < 3; i++) centres[3 * t + i] = (p[a + i]! + p[b + i]! + p[c + i]!) / 3;
  }
  return { normals, centres, areas };
}
