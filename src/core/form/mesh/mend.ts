import { failure, success, type Result } from '../../quantity';
import { sizeOfMesh, turnFaces, weldShare } from './measure-mesh';
import { edgesOf, flippedFaces, weld } from './topology';
import type { TriangleMesh } from './triangle-mesh';

/** A mesh made fit to be asked for its inside, and what was done for that. */
export interface Mended {
  readonly mesh: TriangleMesh;
  readonly facesTurned: number;
  readonly doubled: number;
  /** Edges with one face only, and edges with more than two. */
  readonly openEdges: number;
  readonly crowdedEdges: number;
}

/** Welds, drops faces that are there twice, turns those that look the wrong way. Closes nothing: that is for its inside to say. */
export function mendMesh(given: TriangleMesh): Result<Mended> {
  const [low, high] = sizeOfMesh(given).box;
  const diagonal = Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  if (!(diagonal > 0)) return failure('no-size', 'the mesh', 'all its points are in one place');
  const welded = weld(given, weldShare * diagonal);
  if (welded.triangles.length === 0) return failure('no-size', 'the mesh', 'none of its triangles has a face');
  const { mesh, doubled } = withoutDoubles(welded);
  const edges = edgesOf(mesh);
  const flips = flippedFaces(mesh, edges);
  const facesTurned = flips.reduce((sum, f) => sum + f, 0);
  return success({
    mesh: facesTurned > 0 ? turnFaces(mesh, flips) : mesh,
    facesTurned,
    doubled,
    openEdges: edges.faces.reduce((n, f) => n + (f === 1 ? 1 : 0), 0),
    crowdedEdges: edges.faces.reduce((n, f) => n + (f > 2 ? 1 : 0), 0),
  });
}

function withoutDoubles(mesh: TriangleMesh): { mesh: TriangleMesh; doubled: number } {
  const { triangles } = mesh;
  const points = mesh.positions.length / 3;
  // Triangles lie with their smallest point, one after another: a handful is looked through.
  const at = new Uint32Array(points + 1);
  const smallest = (t: number) => Math.min(triangles[t]!, triangles[t + 1]!, triangles[t + 2]!);
  for (let t = 0; t < triangles.length; t += 3) at[smallest(t) + 1]!++;
  for (let i = 0; i < points; i++) at[i + 1]! += at[i]!;
  const until = at.slice(0, points);
  const held = new Uint32Array(triangles.length / 3);
  const kept = new Uint32Array(triangles.length);
  let n = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const low = smallest(t);
    const same = (u: number) =>
      sum(triangles, t) === sum(triangles, u) && largest(triangles, t) === largest(triangles, u);
    let k = at[low]!;
    while (k < until[low]! && !same(held[k]!)) k++;
    if (k < until[low]!) continue;
    held[until[low]!++] = t;
    kept[n] = triangles[t]!;
    kept[n + 1] = triangles[t + 1]!;
    kept[n + 2] = triangles[t + 2]!;
    n += 3;
  }
  const doubled = (triangles.length - n) / 3;
  return { doubled, mesh: doubled === 0 ? mesh : { positions: mesh.positions, triangles: kept.slice(0, n) } };
}

const sum = (t: Uint32Array, i: number) => t[i]! + t[i + 1]! + t[i + 2]!;
const largest = (t: Uint32Array, i: number) => Math.max(t[i]!, t[i + 1]!, t[i + 2]!);
