import { failure, success, type Result } from '../../quantity';
import { rotate, unturned, type Rotation } from '../turn';
import { meshUnits, sizeOfMesh, type MeshUnit } from './measure-mesh';
import type { TriangleMesh } from './triangle-mesh';

/** How a mesh is brought in: its unit, how it is turned from its file's axes to ours, and the height it is to have (none: as it is). */
export interface Placing {
  readonly unit: MeshUnit;
  readonly turn: Rotation;
  /** Metres; null for the size in the file. */
  readonly height: number | null;
}

/** As files have it: their third axis up, or their second, the front then along the third. */
export const upInFile: Readonly<Record<'z' | 'y', Rotation>> = { z: unturned, y: [1, 0, 0, 0, 0, -1, 0, 1, 0] };

const smallest = 0.002;
const largest = 15;

/** In metres, z up, its middle over the origin and its foot at nought. */
export function placeMesh(mesh: TriangleMesh, placing: Placing): Result<TriangleMesh> {
  const k = meshUnits[placing.unit];
  const out = new Float32Array(mesh.positions.length);
  for (let i = 0; i < out.length; i += 3) {
    const [x, y, z] = rotate(placing.turn, [mesh.positions[i]!, mesh.positions[i + 1]!, mesh.positions[i + 2]!]);
    out[i] = x * k;
    out[i + 1] = y * k;
    out[i + 2] = z * k;
  }
  const [low, high] = sizeOfMesh({ positions: out, triangles: mesh.triangles }).box;
  const tall = high[2] - low[2];
  const longest = Math.max(tall, high[0] - low[0], high[1] - low[1]);
  if (!(longest > 0)) return failure('no-size', 'the mesh', 'it has no size');
  if (placing.height !== null && !(tall > 0))
    return failure('no-size', 'the mesh', 'it is flat, and cannot be given a height');
  const grow = placing.height === null ? 1 : placing.height / tall;
  if (!(longest * grow >= smallest && longest * grow <= largest)) {
    return failure(
      'out-of-range',
      'the unit',
      `it would be ${(longest * grow).toPrecision(3)} m at its longest; pieces are between 2 mm and 15 m. Is the unit right?`,
    );
  }
  const cx = (low[0] + high[0]) / 2,
    cy = (low[1] + high[1]) / 2;
  for (let i = 0; i < out.length; i += 3) {
    out[i] = (out[i]! - cx) * grow;
    out[i + 1] = (out[i + 1]! - cy) * grow;
    out[i + 2] = (out[i + 2]! - low[2]) * grow;
  }
  return success({ positions: out, triangles: mesh.triangles });
}
