import { failure, success, type Result } from '../../quantity';
import { sizeOfMesh, turnFaces, weldShare } from './measure-mesh';
import { edgesOf, flippedFaces, weld } from './topology';
import type { TriangleMesh } from './triangle-mesh';

/** What was done to a mesh to close it. */
export interface Repaired {
  readonly mesh: TriangleMesh;
  readonly holesClosed: number;
  readonly facesTurned: number;
  readonly doubled: number;
}

/** A hole longer round than this share of the mesh's diagonal is no slip: what should be there cannot be guessed. */
const largestHole = 0.35;
const mostHoles = 500;

/** Welds, turns faces that look the wrong way, closes small holes with a fan; refuses what it would have to invent. */
export function repairMesh(given: TriangleMesh): Result<Repaired> {
  const [low, high] = sizeOfMesh(given).box;
  const diagonal = Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  if (!(diagonal > 0)) return failure('no-size', 'the mesh', 'all its points are in one place');
  const welded = weld(given, weldShare * diagonal);
  if (welded.triangles.length === 0) return failure('no-size', 'the mesh', 'none of its triangles has a face');
  const { mesh, doubled } = withoutDoubles(welded);
  const edges = edgesOf(mesh);
  if (edges.faces.some((f) => f > 2))
    return failure(
      'not-a-surface',
      'the mesh',
      `${edges.faces.reduce((n, f) => n + (f > 2 ? 1 : 0), 0)} of its edges join more than two faces, so inside and outside cannot be told apart`,
    );
  const flips = flippedFaces(mesh, edges);
  const facesTurned = flips.reduce((sum, f) => sum + f, 0);
  const turned = facesTurned > 0 ? turnFaces(mesh, flips) : mesh;
  const rims = rimsOf(turned);
  if (rims.length > mostHoles)
    return failure('open', 'the mesh', `it has ${rims.length} holes; up to ${mostHoles} small ones are closed`);
  const longest = rims.reduce((most, rim) => Math.max(most, lengthRound(turned, rim)), 0);
  if (longest > largestHole * diagonal) {
    return failure(
      'open',
      'the mesh',
      `it has a hole ${Math.round((longest / diagonal) * 100)} % of its diagonal round; holes up to ${Math.round(largestHole * 100)} % are closed. Close it where it was made, or give the piece a thickness there`,
    );
  }
  const closed = rims.length > 0 ? closeRims(turned, rims) : turned;
  const after = edgesOf(closed);
  if (after.faces.some((f) => f !== 2)) return failure('open', 'the mesh', 'it stays open after its holes were closed');
  // Turned again as a whole: closing may have joined pieces.
  const left = flippedFaces(closed, after);
  const final = left.some((f) => f === 1) ? turnFaces(closed, left) : closed;
  if (!(sizeOfMesh(final).volume > 0)) return failure('no-size', 'the mesh', 'it encloses nothing');
  return success({ mesh: final, holesClosed: rims.length, facesTurned, doubled });
}

function withoutDoubles(mesh: TriangleMesh): { mesh: TriangleMesh; doubled: number } {
  const seen = new Set<string>();
  const kept: number[] = [];
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const [a, b, c] = [mesh.triangles[t], mesh.triangles[t + 1], mesh.triangles[t + 2]] as [number, number, number];
    const low = Math.min(a, b, c),
      high = Math.max(a, b, c);
    const key = `${low} ${a + b + c - low - high} ${high}`;
    if (seen.has(key)) continue;
    seen.add(key);
    kept.push(a, b, c);
  }
  const doubled = (mesh.triangles.length - kept.length) / 3;
  return { doubled, mesh: doubled === 0 ? mesh : { positions: mesh.positions, triangles: Uint32Array.from(kept) } };
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

function lengthRound(mesh: TriangleMesh, rim: readonly number[]): number {
  const p = mesh.positions;
  let sum = 0;
  rim.forEach((a, i) => {
    const b = rim[(i + 1) % rim.length]!;
    sum += Math.hypot(p[a * 3]! - p[b * 3]!, p[a * 3 + 1]! - p[b * 3 + 1]!, p[a * 3 + 2]! - p[b * 3 + 2]!);
  });
  return sum;
}

function closeRims(mesh: TriangleMesh, rims: readonly (readonly number[])[]): TriangleMesh {
  const positions = [...mesh.positions];
  const triangles = [...mesh.triangles];
  for (const rim of rims) {
    if (rim.length === 3) {
      triangles.push(rim[0]!, rim[1]!, rim[2]!);
      continue;
    }
    const middle = positions.length / 3;
    for (let k = 0; k < 3; k++)
      positions.push(rim.reduce((sum, v) => sum + mesh.positions[v * 3 + k]!, 0) / rim.length);
    rim.forEach((a, i) => triangles.push(a, rim[(i + 1) % rim.length]!, middle));
  }
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}
