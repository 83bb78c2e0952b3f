import type { TriangleMesh } from './mesh';

const { hypot } = Math;

/** A function of place on a lattice, below zero inside. */
export interface NetInputs {
  /** Points of the lattice along x, y, z. */
  readonly size: readonly [number, number, number];
  readonly origin: readonly [number, number, number];
  /** Metres from point to point. */
  readonly step: number;
  readonly value: (x: number, y: number, z: number) => number;
  /** Calls back with each point beyond whose edges to the next ones the face may pass. */
  readonly eachCell: (see: (x: number, y: number, z: number) => void) => void;
  /** Told of each vertex as it is made, with the cube it lies in. */
  readonly onVertex?: (x: number, y: number, z: number) => void;
}

export interface SurfaceNet extends TriangleMesh {
  /** Three a vertex, outward. */
  readonly normals: Float32Array;
}

/**
 * Surface by placing one vertex in each cell cube the face passes through, at the mean of its edge crossings,
 * and joining the four round each crossed edge. Watertight wherever the lattice encloses what is inside.
 * Source: Gibson (1998), *Constrained Elastic SurfaceNets*. Normals are the gradient of the function.
 */
export function surfaceNet({ size, origin, step, value, eachCell, onVertex }: NetInputs): SurfaceNet {
  const positions: number[] = [];
  const normals: number[] = [];
  const triangles: number[] = [];
  const vertexOf = new Map<number, number>();
  const [nx, ny] = size;
  const key = (x: number, y: number, z: number) => x + 1 + (nx + 2) * (y + 1 + (ny + 2) * (z + 1));
  const corner = new Float64Array(8);

  const vertex = (x: number, y: number, z: number): number => {
    const k = key(x, y, z);
    const known = vertexOf.get(k);
    if (known !== undefined) return known;
    for (let c = 0; c < 8; c++) corner[c] = value(x + (c & 1), y + ((c >> 1) & 1), z + (c >> 2));
    let sx = 0,
      sy = 0,
      sz = 0,
      crossings = 0;
    for (let c = 0; c < 8; c++) {
      for (const bit of [1, 2, 4]) {
        if (c & bit) continue;
        const a = corner[c]!,
          b = corner[c | bit]!;
        if (a < 0 === b < 0) continue;
        const t = a / (a - b);
        sx += (c & 1) + (bit === 1 ? t : 0);
        sy += ((c >> 1) & 1) + (bit === 2 ? t : 0);
        sz += (c >> 2) + (bit === 4 ? t : 0);
        crossings += 1;
      }
    }
    const n = crossings || 1;
    positions.push(origin[0] + (x + sx / n) * step, origin[1] + (y + sy / n) * step, origin[2] + (z + sz / n) * step);
    let gx = 0,
      gy = 0,
      gz = 0;
    for (let c = 0; c < 8; c++) {
      const v = corner[c]!;
      gx += c & 1 ? v : -v;
      gy += c & 2 ? v : -v;
      gz += c & 4 ? v : -v;
    }
    const g = hypot(gx, gy, gz) || 1;
    normals.push(gx / g, gy / g, gz / g);
    onVertex?.(x, y, z);
    const made = positions.length / 3 - 1;
    vertexOf.set(k, made);
    return made;
  };
  const quad = (a: number, b: number, c: number, d: number, flip: boolean) => {
    if (flip) triangles.push(a, c, b, a, d, c);
    else triangles.push(a, b, c, a, c, d);
  };
  eachCell((x, y, z) => {
    const here = value(x, y, z) < 0;
    if (here !== value(x + 1, y, z) < 0)
      quad(vertex(x, y - 1, z - 1), vertex(x, y, z - 1), vertex(x, y, z), vertex(x, y - 1, z), !here);
    if (here !== value(x, y + 1, z) < 0)
      quad(vertex(x - 1, y, z - 1), vertex(x - 1, y, z), vertex(x, y, z), vertex(x, y, z - 1), !here);
    if (here !== value(x, y, z + 1) < 0)
      quad(vertex(x - 1, y - 1, z), vertex(x, y - 1, z), vertex(x, y, z), vertex(x - 1, y, z), !here);
  });
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    triangles: Uint32Array.from(triangles),
  };
}
