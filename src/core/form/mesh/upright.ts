import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { convexHull, convexHull3, cross, dot, scale, subtract, unit, type Point2, type Vec3 } from '../../quantity';
import type { Rotation } from '../turn';
import { latticePlace, type Lattice } from './lattice';
import type { MeshSolid } from './solid';
import type { TriangleMesh } from './triangle-mesh';

const { abs, acos, atan2, cos, floor, hypot, max, min, PI, round, sin, sqrt } = Math;

/**
 * How a mesh that comes lying anyhow was made to stand, the likeliest first: on a face of its convex hull that is wide, is
 * really touched and lies well under the middle of its weight, its two halves to the left and right of a plane that stands
 * upright; or as the axes of its file have it.
 */
export interface Upright {
  /** From the mesh's own axes to ours: z up, front -y. */
  readonly turn: Rotation;
  /** Upward, in the mesh's own axes. */
  readonly up: Vec3;
  readonly score: number;
  /** Degrees it leans before it goes over. */
  readonly tipAngle: number;
  /** Share of it that its mirror image takes up too. */
  readonly mirrored: number;
}

/** Faces of the hull this near to each other, in degrees, are one: a bottom is never quite flat. */
const oneFace = 6;
/** What lies within this share of the whole height of the ground touches it. */
const touching = 0.015;
/** Leaning further than this does not make it stand better; what stands on a post need not stand of itself. */
const steady = 30;
const posted = 3;
/** Two ways up differ by more than this, degrees. */
const otherWay = 25;
/** What it counts for that the file has it so. Files have their second or third axis up, a few anything else. */
const asInFile: readonly (readonly [Vec3, number])[] = [
  [[0, 0, 1], 0.25],
  [[0, 1, 0], 0.25],
  [[0, 0, -1], 0.08],
  [[0, -1, 0], 0.08],
  [[1, 0, 0], 0.08],
  [[-1, 0, 0], 0.08],
];

/** What it counts for that it stands along its own length. */
const lengthwise = 0.12;

/**
 * Ways it may stand, best first, at most `most`, each its front nearest to where files have it. What floats about the mesh
 * without belonging to it is to be taken away first (`withoutCrumbs`).
 */
export function waysUp(mesh: TriangleMesh, { lattice, inside }: MeshSolid, most = 3): Upright[] {
  const cells = cellsOf(lattice, inside);
  const corners = outermost(mesh, cells.middle);
  if (corners.length < 4) return [];
  const hull = together(facesOfHull(corners, cells.middle)).map((down) => ({ up: scale(down, -1), file: 0 }));
  const long = longWays(cells, lattice, inside).map((up) => ({ up, file: lengthwise }));
  const found = [...asInFile.map(([up, file]) => ({ up, file })), ...long, ...hull].map(({ up, file }) => {
    const { share, tipAngle } = judged(mesh, cells.middle, scale(up, -1));
    const mirror = mirrorOf(cells, lattice, inside, up);
    const stands = share * sqrt(min(steady, max(0, tipAngle) + posted) / steady);
    return { up, tipAngle, mirrored: mirror.share, across: mirror.across, score: (stands + file) * mirror.share ** 4 };
  });
  const out: Upright[] = [];
  for (const { up, across, ...rest } of found.sort((a, b) => b.score - a.score)) {
    if (out.length >= most) break;
    if (out.some((r) => between(r.up, up) < otherWay)) continue;
    out.push({ ...rest, up, turn: facing(up, across) });
  }
  return out;
}

/** Left to right along `across`, whichever way round leaves the front nearest to where files have it: -y, or z of what has y up. */
function facing(up: Vec3, across: Vec3): Rotation {
  const back = cross(up, across);
  const usual: Vec3 = abs(up[1]) > abs(up[2]) ? [0, 0, 1] : [0, -1, 0];
  const way = dot(back, usual) > 0 ? -1 : 1;
  const x = scale(across, way),
    y = scale(back, way);
  return [x[0], x[1], x[2], y[0], y[1], y[2], up[0], up[1], up[2]];
}

interface Cells {
  readonly middle: Vec3;
  /** A few thousand places inside, from the middle; three figures each. */
  readonly some: Float64Array;
}

function cellsOf(lattice: Lattice, inside: Uint8Array): Cells {
  const places: number[] = [];
  inside.forEach((v, i) => v && places.push(i));
  const sum = [0, 0, 0];
  for (const i of places) latticePlace(lattice, i).forEach((v, k) => (sum[k]! += v));
  const middle = sum.map((v) => v / max(1, places.length)) as unknown as Vec3;
  const every = max(1, floor(places.length / 1500));
  const some = places.filter((_, n) => n % every === 0).flatMap((i) => [...subtract(latticePlace(lattice, i), middle)]);
  return { middle, some: Float64Array.from(some) };
}

/** Along its length and square to that, within the plane that it is most alike on either side of. */
function longWays(found: Cells, lattice: Lattice, inside: Uint8Array): Vec3[] {
  const { some } = found;
  const c = [0, 0, 0, 0, 0, 0];
  for (let i = 0; i < some.length; i += 3) {
    const [x, y, z] = [some[i]!, some[i + 1]!, some[i + 2]!];
    [x * x, x * y, x * z, y * y, y * z, z * z].forEach((v, k) => (c[k]! += v));
  }
  const axes = new EigenvalueDecomposition(
    new Matrix([
      [c[0]!, c[1]!, c[2]!],
      [c[1]!, c[3]!, c[4]!],
      [c[2]!, c[4]!, c[5]!],
    ]),
    { assumeSymmetric: true },
  ).eigenvectorMatrix;
  const [thin, middling, long] = [0, 1, 2].map((k) => axes.getColumn(k) as unknown as Vec3) as [Vec3, Vec3, Vec3];
  const planes = [thin, middling, long].map((about) => mirrorOf(found, lattice, inside, about));
  const n = planes.reduce((a, b) => (b.share > a.share ? b : a)).across;
  const within = [thin, middling, long]
    .map((a) => subtract(a, scale(n, dot(a, n))))
    .filter((a) => hypot(...a) > 0.5)
    .map((a) => unit(a));
  return within.flatMap((a) => [a, scale(a, -1)]);
}

const mirrorTurns = 36;

/** The upright plane through the middle that it is most alike on either side of. */
function mirrorOf(
  { middle, some }: Cells,
  lattice: Lattice,
  inside: Uint8Array,
  up: Vec3,
): { share: number; across: Vec3 } {
  const { cells, step, from } = lattice;
  const [u, v] = across(up);
  const shareOf = (a: number): number => {
    const n: Vec3 = [0, 1, 2].map((k) => cos(a) * u[k]! + sin(a) * v[k]!) as unknown as Vec3;
    let hits = 0;
    for (let i = 0; i < some.length; i += 3) {
      const d = 2 * (some[i]! * n[0] + some[i + 1]! * n[1] + some[i + 2]! * n[2]);
      const x = round((some[i]! - d * n[0] + middle[0] - from[0]) / step),
        y = round((some[i + 1]! - d * n[1] + middle[1] - from[1]) / step),
        z = round((some[i + 2]! - d * n[2] + middle[2] - from[2]) / step);
      if (x < 0 || y < 0 || z < 0 || x >= cells[0] || y >= cells[1] || z >= cells[2]) continue;
      hits += inside[x + cells[0] * (y + cells[1] * z)]!;
    }
    return hits / (some.length / 3);
  };
  let angle = 0,
    share = -1;
  const look = (a: number) => {
    const s = shareOf(a);
    if (s > share) [angle, share] = [a, s];
  };
  for (let k = 0; k < mirrorTurns; k++) look((PI * k) / mirrorTurns);
  for (let turn = PI / mirrorTurns / 2; turn > 0.005; turn /= 2) {
    const at = angle;
    look(at - turn);
    look(at + turn);
  }
  return { share, across: [0, 1, 2].map((k) => cos(angle) * u[k]! + sin(angle) * v[k]!) as unknown as Vec3 };
}

function between(a: Vec3, b: Vec3): number {
  return (acos(max(-1, min(1, dot(a, b)))) * 180) / PI;
}

/** The points furthest out in each small part of the sphere about the middle, from there: enough to tell what touches the ground. */
function outermost({ positions: p }: TriangleMesh, middle: Vec3): Vec3[] {
  const far = new Map<number, number>();
  const parts = 40;
  for (let i = 0; i < p.length; i += 3) {
    const x = p[i]! - middle[0],
      y = p[i + 1]! - middle[1],
      z = p[i + 2]! - middle[2];
    const m = max(abs(x), abs(y), abs(z));
    if (m === 0) continue;
    const side = m === abs(x) ? (x > 0 ? 0 : 1) : m === abs(y) ? (y > 0 ? 2 : 3) : z > 0 ? 4 : 5;
    const [u, v] = side < 2 ? [y / m, z / m] : side < 4 ? [x / m, z / m] : [x / m, y / m];
    const part = (w: number) => floor(((w + 1) / 2.0001) * parts);
    const key = (side * parts + part(u)) * parts + part(v);
    const best = far.get(key);
    if (best === undefined || x * x + y * y + z * z > square(p, best, middle)) far.set(key, i);
  }
  return [...far.values()].map((i): Vec3 => [p[i]!, p[i + 1]!, p[i + 2]!]);
}

function square(p: Float32Array, i: number, o: Vec3): number {
  return (p[i]! - o[0]) ** 2 + (p[i + 1]! - o[1]) ** 2 + (p[i + 2]! - o[2]) ** 2;
}

interface HullFace {
  readonly normal: Vec3;
  readonly area: number;
}

function facesOfHull(corners: readonly Vec3[], middle: Vec3): HullFace[] {
  return convexHull3(corners).flatMap(([a, b, c]): HullFace[] => {
    const [p, q, r] = [corners[a]!, corners[b]!, corners[c]!];
    const n = cross(subtract(q, p), subtract(r, p));
    const area = hypot(...n) / 2;
    if (!(area > 0)) return [];
    return [{ normal: scale(unit(n), dot(n, subtract(p, middle)) < 0 ? -1 : 1), area }];
  });
}

/** Most of the hull's faces are slips between two others: so many of the largest are looked at. */
const mostFaces = 40;

/** Faces that lean towards each other by little are one, from the largest on: the way each lot looks, by its areas. */
function together(faces: readonly HullFace[]): Vec3[] {
  const left = [...faces].sort((a, b) => b.area - a.area);
  const out: Vec3[] = [];
  while (left.length > 0 && out.length < mostFaces) {
    const first = left[0]!;
    let sum: Vec3 = [0, 0, 0];
    for (let i = left.length - 1; i >= 0; i--) {
      const f = left[i]!;
      if (between(f.normal, first.normal) > oneFace) continue;
      sum = [sum[0] + f.area * f.normal[0], sum[1] + f.area * f.normal[1], sum[2] + f.area * f.normal[2]];
      left.splice(i, 1);
    }
    out.push(unit(sum));
  }
  return out;
}

/** Two directions square to one and to each other. */
function across(n: Vec3): [Vec3, Vec3] {
  const u = unit(cross(n, abs(n[0]) < 0.8 ? [1, 0, 0] : [0, 1, 0]));
  return [u, cross(n, u)];
}

/** How it stands on the side that looks `down`: how much of its shadow it stands on, and how far it leans before it goes over. */
function judged(mesh: TriangleMesh, middle: Vec3, down: Vec3): { share: number; tipAngle: number } {
  const { positions: p, triangles: t } = mesh;
  const up = scale(down, -1);
  let low = Infinity,
    high = -Infinity;
  for (let i = 0; i < p.length; i += 3) {
    const h = p[i]! * up[0] + p[i + 1]! * up[1] + p[i + 2]! * up[2];
    low = min(low, h);
    high = max(high, h);
  }
  const [u, v] = across(up);
  const near = low + touching * (high - low);
  const touched: Point2[] = [];
  const shadow: Point2[] = [];
  for (let i = 0; i < p.length; i += 3) {
    const h = p[i]! * up[0] + p[i + 1]! * up[1] + p[i + 2]! * up[2];
    const q: Point2 = [
      p[i]! * u[0] + p[i + 1]! * u[1] + p[i + 2]! * u[2],
      p[i]! * v[0] + p[i + 1]! * v[1] + p[i + 2]! * v[2],
    ];
    if (h <= near) touched.push(q);
    if (i % 15 === 0) shadow.push(q);
  }
  // What really lies on the ground: face that looks down and is near it.
  let flat = 0;
  for (let f = 0; f < t.length; f += 3) {
    const a = t[f]! * 3;
    if (p[a]! * up[0] + p[a + 1]! * up[1] + p[a + 2]! * up[2] > near) continue;
    const b = t[f + 1]! * 3,
      c = t[f + 2]! * 3;
    const at = (i: number): Vec3 => [p[i]!, p[i + 1]!, p[i + 2]!];
    const n = cross(subtract(at(b), at(a)), subtract(at(c), at(a)));
    flat += max(0, dot(n, down)) / 2;
  }
  const hull = convexHull(touched);
  const foot: Point2 = [dot(middle, u), dot(middle, v)];
  const over = max(1e-9, dot(middle, up) - low);
  const tipAngle = (atan2(distanceWithin(hull, foot), over) * 180) / PI;
  const all = max(1e-12, area(convexHull(shadow)));
  return { tipAngle, share: (area(hull) + 2 * min(flat, all)) / all };
}

function area(hull: readonly Point2[]): number {
  return (
    hull.reduce((sum, [x, y], i) => {
      const [x2, y2] = hull[(i + 1) % hull.length]!;
      return sum + x * y2 - x2 * y;
    }, 0) / 2
  );
}

/** To the nearest edge of a hull; below zero outside it. */
function distanceWithin(hull: readonly Point2[], at: Point2): number {
  if (hull.length < 3) return -Infinity;
  return hull.reduce((least, a, i) => {
    const b = hull[(i + 1) % hull.length]!;
    const ex = b[0] - a[0],
      ey = b[1] - a[1];
    const long = hypot(ex, ey);
    return long > 0 ? min(least, (ex * (at[1] - a[1]) - ey * (at[0] - a[0])) / long) : least;
  }, Infinity);
}
