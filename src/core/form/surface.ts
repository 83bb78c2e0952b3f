import { blockIndex, blockSide, cellInBlock, cellsPerBlock, distanceAtCell, isOutside, type VoxelGrid } from './voxels';

const { hypot, min } = Math;

/** A triangle mesh of the form's outer face or of a face `depth` under it, for the picture. */
export interface SurfaceMesh {
  /** Three floats a vertex, metres. */
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** Index of the mass under each vertex. */
  readonly owners: Uint16Array;
  readonly triangles: Uint32Array;
}

/**
 * Surface by placing one vertex in each cell cube the face passes through, at the mean of its edge crossings,
 * and joining the four round each crossed edge. Watertight wherever the grid encloses the form.
 * Source: Gibson (1998), *Constrained Elastic SurfaceNets*. Normals are the gradient of the distance.
 */
export function extractSurface(grid: VoxelGrid, depth = 0): SurfaceMesh {
  const positions: number[] = [];
  const normals: number[] = [];
  const owners: number[] = [];
  const triangles: number[] = [];
  const vertexOf = new Map<number, number>();
  const nx = grid.blocks[0] * blockSide,
    ny = grid.blocks[1] * blockSide,
    nz = grid.blocks[2] * blockSide;
  const key = (x: number, y: number, z: number) => x + 1 + (nx + 2) * (y + 1 + (ny + 2) * (z + 1));
  const value = (x: number, y: number, z: number) => distanceAtCell(grid, x, y, z) + depth;
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
    positions.push(
      grid.origin[0] + (x + sx / n + 0.5) * grid.step,
      grid.origin[1] + (y + sy / n + 0.5) * grid.step,
      grid.origin[2] + (z + sz / n + 0.5) * grid.step,
    );
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
    owners.push(ownerNear(grid, x, y, z));
    const made = positions.length / 3 - 1;
    vertexOf.set(k, made);
    return made;
  };
  const quad = (a: number, b: number, c: number, d: number, flip: boolean) => {
    if (flip) triangles.push(a, c, b, a, d, c);
    else triangles.push(a, b, c, a, c, d);
  };
  for (let bz = 0; bz < grid.blocks[2]; bz++) {
    for (let by = 0; by < grid.blocks[1]; by++) {
      for (let bx = 0; bx < grid.blocks[0]; bx++) {
        if (isOutside(grid.slots[blockIndex(grid, bx, by, bz)]!)) continue;
        const x1 = min(nx - 1, (bx + 1) * blockSide),
          y1 = min(ny - 1, (by + 1) * blockSide),
          z1 = min(nz - 1, (bz + 1) * blockSide);
        for (let z = bz * blockSide; z < z1; z++) {
          for (let y = by * blockSide; y < y1; y++) {
            for (let x = bx * blockSide; x < x1; x++) {
              const here = value(x, y, z) < 0;
              if (here !== value(x + 1, y, z) < 0) {
                quad(vertex(x, y - 1, z - 1), vertex(x, y, z - 1), vertex(x, y, z), vertex(x, y - 1, z), !here);
              }
              if (here !== value(x, y + 1, z) < 0) {
                quad(vertex(x - 1, y, z - 1), vertex(x - 1, y, z), vertex(x, y, z), vertex(x, y, z - 1), !here);
              }
              if (here !== value(x, y, z + 1) < 0) {
                quad(vertex(x - 1, y - 1, z), vertex(x, y - 1, z), vertex(x, y, z), vertex(x - 1, y, z), !here);
              }
            }
          }
        }
      }
    }
  }
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    owners: Uint16Array.from(owners),
    triangles: Uint32Array.from(triangles),
  };
}

function ownerNear(grid: VoxelGrid, x: number, y: number, z: number): number {
  for (let c = 0; c < 8; c++) {
    const cx = x + (c & 1),
      cy = y + ((c >> 1) & 1),
      cz = z + (c >> 2);
    const bx = cx >> 3,
      by = cy >> 3,
      bz = cz >> 3;
    if (cx < 0 || cy < 0 || cz < 0 || bx >= grid.blocks[0] || by >= grid.blocks[1] || bz >= grid.blocks[2]) continue;
    const slot = grid.slots[blockIndex(grid, bx, by, bz)]!;
    if (slot >= 0) return grid.owners[slot * cellsPerBlock + cellInBlock(cx & 7, cy & 7, cz & 7)]!;
  }
  return 0;
}

/** Volume enclosed, by the divergence theorem; positive when faces look outward. */
export function enclosedVolume(mesh: SurfaceMesh): number {
  const { positions: p, triangles: t } = mesh;
  let sum = 0;
  for (let i = 0; i < t.length; i += 3) {
    const a = t[i]! * 3,
      b = t[i + 1]! * 3,
      c = t[i + 2]! * 3;
    const ax = p[a]!,
      ay = p[a + 1]!,
      az = p[a + 2]!;
    const bx = p[b]!,
      by = p[b + 1]!,
      bz = p[b + 2]!;
    const cx = p[c]!,
      cy = p[c + 1]!,
      cz = p[c + 2]!;
    sum += ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx);
  }
  return sum / 6;
}
