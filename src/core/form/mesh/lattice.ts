import { sizeOfMesh } from './measure-mesh';
import type { TriangleMesh } from './triangle-mesh';

const { ceil, max, round } = Math;

/** Places in rows, x fastest, that a mesh is sampled at; the one file that owns their order. */
export interface Lattice {
  readonly cells: readonly [number, number, number];
  /** Apart, in the mesh's own unit, and where the first one is. */
  readonly step: number;
  readonly from: readonly [number, number, number];
  /** Empty places all round. */
  readonly empty: number;
}

/** Empty places all round, as a share of those along it: room for clay laid over it, and the face is never cut. */
const border = 0.07;

/** `along` places on the longest side, the border counted, centred so that a mesh with two like halves gives two like answers. */
export function latticeFor(mesh: TriangleMesh, along: number): Lattice {
  const [low, high] = sizeOfMesh(mesh).box;
  const sides = [0, 1, 2].map((k) => (high[k as 0] as number) - (low[k as 0] as number));
  const empty = max(3, round(border * along));
  const step = max(...sides) / (along - 1 - 2 * empty);
  const cells = sides.map((s) => max(4, ceil(s / step) + 1 + 2 * empty)) as [number, number, number];
  const from = sides.map((s, k) => (low[k as 0] as number) + s / 2 - ((cells[k]! - 1) * step) / 2) as [
    number,
    number,
    number,
  ];
  return { cells, step, from, empty };
}

export function latticeSize({ cells }: Pick<Lattice, 'cells'>): number {
  return cells[0] * cells[1] * cells[2];
}

export function latticeIndex({ cells }: Pick<Lattice, 'cells'>, x: number, y: number, z: number): number {
  return x + cells[0] * (y + cells[1] * z);
}

/** Where a place is, in the mesh's own unit. */
export function latticePlace({ cells, step, from }: Lattice, index: number): [number, number, number] {
  const x = index % cells[0],
    y = Math.floor(index / cells[0]) % cells[1],
    z = Math.floor(index / (cells[0] * cells[1]));
  return [from[0] + x * step, from[1] + y * step, from[2] + z * step];
}
