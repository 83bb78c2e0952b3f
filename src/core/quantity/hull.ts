import { seeded } from './seeded';
import { cross, distance, dot, subtract, type Vec3 } from './vector';

/** A place on a plane. */
export type Point2 = readonly [number, number];

/** Convex hull, anticlockwise. Andrew's monotone chain. */
export function convexHull(points: readonly Point2[]): Point2[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  if (sorted.length < 3) return sorted;
  const turn = (o: Point2, a: Point2, b: Point2) => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
  const chain = (list: readonly Point2[]): Point2[] => {
    const out: Point2[] = [];
    for (const p of list) {
      while (out.length >= 2 && turn(out[out.length - 2]!, out[out.length - 1]!, p) <= 0) out.pop();
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...chain(sorted), ...chain([...sorted].reverse())];
}

/**
 * Convex hull in space: three indices a face, seen from outside anticlockwise. Point by point, each that lies outside
 * taking the place of the faces it sees. None where all lie in one plane, to a millionth of their spread.
 *
 * Points of one flat side, good to single precision, lie neither on one plane nor off it, and no rounding of the question
 * which faces are seen keeps them together: they are moved by a few of that precision beforehand, each its own way.
 */
export function convexHull3(points: readonly Vec3[]): [number, number, number][] {
  const first = tetrahedron(points);
  if (!first) return [];
  const by = moved * distance(points[first[0]]!, points[first[1]]!);
  const random = seeded(points.length);
  const places = points.map((p) => p.map((v) => v + by * (random() - 0.5)) as unknown as Vec3);
  const faceOf = (a: number, b: number, c: number) => {
    const n = cross(subtract(places[b]!, places[a]!), subtract(places[c]!, places[a]!));
    return { a, b, c, normal: n, offset: dot(n, places[a]!) };
  };
  const [i, j, k, l] = first;
  let faces = [faceOf(i, j, k), faceOf(i, l, j), faceOf(j, l, k), faceOf(k, l, i)];
  places.forEach((p, at) => {
    if (first.includes(at)) return;
    const seen = new Set(faces.filter((f) => dot(f.normal, p) > f.offset));
    if (seen.size === 0) return;
    const edges = new Set([...seen].flatMap((f) => [`${f.a} ${f.b}`, `${f.b} ${f.c}`, `${f.c} ${f.a}`]));
    faces = faces.filter((f) => !seen.has(f));
    for (const edge of edges) {
      const [from, to] = edge.split(' ').map(Number) as [number, number];
      if (!edges.has(`${to} ${from}`)) faces.push(faceOf(from, to, at));
    }
  });
  return faces.map((f) => [f.a, f.b, f.c]);
}

/** Of the spread: some ten times what single precision leaves open. */
const moved = 2e-6;

/** Four points far from each other that lie in no plane, the first three anticlockwise from the side away from the last. */
function tetrahedron(points: readonly Vec3[]): [number, number, number, number] | null {
  const furthest = (by: (p: Vec3) => number): number =>
    points.reduce((best, p, i) => (by(p) > by(points[best]!) ? i : best), 0);
  if (points.length < 4) return null;
  const a = furthest((p) => -p[0]);
  const b = furthest((p) => distance(p, points[a]!));
  const line = subtract(points[b]!, points[a]!);
  const spread = Math.hypot(...line);
  const c = furthest((p) => Math.hypot(...cross(line, subtract(p, points[a]!))));
  const normal = cross(line, subtract(points[c]!, points[a]!));
  const above = (p: Vec3) => dot(normal, subtract(p, points[a]!));
  const d = furthest((p) => Math.abs(above(p)));
  if (!(Math.abs(above(points[d]!)) > 1e-6 * spread * Math.hypot(...normal)) || !(spread > 0)) return null;
  return above(points[d]!) < 0 ? [a, b, c, d] : [a, c, b, d];
}
