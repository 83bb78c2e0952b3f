import { blockIndex, blockSide, cellInBlock, cellsPerBlock, distanceAtCell, isOutside, type VoxelGrid } from './voxels';
import { surfaceNet } from './surface-net';

const { min } = Math;

/** A triangle mesh of the form's outer face or of a face `depth` under it, for the picture. */
export interface SurfaceMesh {
  /** Three floats a vertex, metres. */
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** Index of the mass under each vertex. */
  readonly owners: Uint16Array;
  readonly triangles: Uint32Array;
}

/** The form's face, or the face `depth` under it, by `surfaceNet`. */
export function extractSurface(grid: VoxelGrid, depth = 0): SurfaceMesh {
  const owners: number[] = [];
  const size = grid.blocks.map((b) => b * blockSide) as [number, number, number];
  const net = surfaceNet({
    size,
    // Distances are at the middles of cells.
    origin: grid.origin.map((v) => v + grid.step / 2) as [number, number, number],
    step: grid.step,
    value: (x, y, z) => distanceAtCell(grid, x, y, z) + depth,
    eachCell: (see) => eachCell(grid, size, see),
    onVertex: (x, y, z) => owners.push(ownerNear(grid, x, y, z)),
  });
  return { ...net, owners: Uint16Array.from(owners) };
}

/** Cells of the blocks that were evaluated, the last layer of the grid left out. */
function eachCell(
  grid: VoxelGrid,
  [nx, ny, nz]: readonly [number, number, number],
  see: (x: number, y: number, z: number) => void,
): void {
  for (let bz = 0; bz < grid.blocks[2]; bz++)
    for (let by = 0; by < grid.blocks[1]; by++)
      for (let bx = 0; bx < grid.blocks[0]; bx++) {
        if (isOutside(grid.slots[blockIndex(grid, bx, by, bz)]!)) continue;
        const x1 = min(nx - 1, (bx + 1) * blockSide),
          y1 = min(ny - 1, (by + 1) * blockSide),
          z1 = min(nz - 1, (bz + 1) * blockSide);
        for (let z = bz * blockSide; z < z1; z++)
          for (let y = by * blockSide; y < y1; y++) for (let x = bx * blockSide; x < x1; x++) see(x, y, z);
      }
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
