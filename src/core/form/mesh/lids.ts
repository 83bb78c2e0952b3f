import { add, cross, distance, scale, subtract, type Vec3 } from '../../quantity';
import { edgesOf } from './topology';
import type { TriangleMesh } from './triangle-mesh';

/** An opening of a mesh: how long it is round, what it opens (a rim that winds back on itself opens little) and its middle; the mesh's own unit. */
export interface Opening {
  readonly round: number;
  readonly area: number;
  readonly at: Vec3;
}

/**
 * A rim that opens less than this share of the ring that is as long is no rim of a hole but of rags: what lies across it
 * cannot be told.
 */
const leastRound = 0.35;

/** A welded mesh with a fan of triangles across each of its openings, and those openings, largest first. Rags stay open. */
export function withLids(mesh: TriangleMesh): { readonly mesh: TriangleMesh; readonly openings: readonly Opening[] } {
  const found = rimsOf(mesh);
  const p = mesh.positions;
  const at = (v: number): Vec3 => [p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!];
  const all = found.map((rim): Opening => {
    const middle = scale(
      rim.reduce<Vec3>((sum, v) => add(sum, at(v)), [0, 0, 0]),
      1 / rim.length,
    );
    let round = 0;
    let opened: Vec3 = [0, 0, 0];
    rim.forEach((v, i) => {
      const a = at(v),
        b = at(rim[(i + 1) % rim.length]!);
      round += distance(a, b);
      opened = add(opened, cross(subtract(a, middle), subtract(b, middle)));
    });
    return { round, area: Math.hypot(...opened) / 2, at: middle };
  });
  const isHole = ({ round, area }: Opening) => 4 * Math.PI * area >= leastRound * round ** 2;
  const rims = found.filter((_, i) => isHole(all[i]!));
  const openings = all.filter(isHole);
  if (rims.length === 0) return { mesh, openings };
  const positions = new Float32Array(p.length + rims.length * 3);
  positions.set(p);
  const fans: number[] = [];
  rims.forEach((rim, n) => {
    const middle = p.length / 3 + n;
    positions.set(openings[n]!.at, middle * 3);
    rim.forEach((a, i) => fans.push(a, rim[(i + 1) % rim.length]!, middle));
  });
  const triangles = new Uint32Array(mesh.triangles.length + fans.length);
  triangles.set(mesh.triangles);
  triangles.set(fans, mesh.triangles.length);
  return { mesh: { positions, triangles }, openings: [...openings].sort((a, b) => b.area - a.area) };
}

/** Loops of open edges, each followed against the way its faces run. */
function rimsOf(mesh: TriangleMesh): number[][] {
  const edges = edgesOf(mesh);
  const next = new Map<number, number[]>();
  for (let c = 0; c < mesh.triangles.length; c++) {
    if (edges.faces[edges.ofCorner[c]!] !== 1) continue;
    const a = mesh.triangles[c]!,
      b = mesh.triangles[c % 3 === 2 ? c - 2 : c + 1]!;
    next.set(b, [...(next.get(b) ?? []), a]);
  }
  const rims: number[][] = [];
  for (const start of next.keys()) {
    for (let ways = next.get(start); ways && ways.length > 0; ways = next.get(start)) {
      const rim = [start];
      let at = ways.pop()!;
      while (at !== start) {
        rim.push(at);
        const on = next.get(at)?.pop();
        if (on === undefined) break;
        at = on;
      }
      if (rim.length > 2) rims.push(rim);
    }
  }
  return rims;
}
