import type { Vec3 } from '../quantity';
import type { MasterFace } from './face';

/** A hollow the mould has for itself: a left and a right hand on one board make two. Where its face has its middle, and m2 of it. */
export interface Cavity {
  readonly at: Vec3;
  readonly area: number;
}

/** Less than this share of the face is a speck. */
const speck = 0.01;

/** Faces that hang together, those furthest to the left first. */
export function cavitiesOf({ positions, triangles, count, centres, areas, stands, area }: MasterFace): Cavity[] {
  const parent = new Int32Array(positions.length / 3).map((_, i) => i);
  const find = (i: number): number => {
    let root = i;
    while (parent[root] !== root) root = parent[root] = parent[parent[root]!]!;
    return root;
  };
  for (let t = 0; t < count; t++)
    for (const k of [1, 2]) {
      const a = find(triangles[3 * t]!),
        b = find(triangles[3 * t + k]!);
      if (a !== b) parent[a] = b;
    }
  const sums = new Map<number, [number, number, number, number]>();
  for (let t = 0; t < count; t++) {
    if (stands[t]) continue;
    const root = find(triangles[3 * t]!);
    const sum = sums.get(root) ?? [0, 0, 0, 0];
    sums.set(root, sum);
    for (const k of [0, 1, 2] as const) sum[k] += areas[t]! * centres[3 * t + k]!;
    sum[3] += areas[t]!;
  }
  return [...sums.values()]
    .filter((s) => s[3] > speck * area)
    .map(([x, y, z, own]): Cavity => ({ at: [x / own, y / own, z / own], area: own }))
    .sort((a, b) => b.at[0] - a.at[0]);
}
