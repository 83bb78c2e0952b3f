import { scale, unit, type Vec3 } from '../quantity';

/** Directions in which a part of a mould may be drawn: 642 points of a ball, an icosahedron's faces parted three times. */
export function drawDirections(): Vec3[] {
  const g = (1 + Math.sqrt(5)) / 2;
  let points: Vec3[] = [];
  for (const a of [-1, 1]) for (const b of [-g, g]) points.push([0, a, b], [a, b, 0], [b, 0, a]);
  points = points.map(unit);
  const edge = 2 / Math.sqrt(1 + g * g);
  let faces: [number, number, number][] = [];
  const near = (i: number, j: number) => Math.abs(apart(points[i]!, points[j]!) - edge) < 1e-6;
  for (let i = 0; i < 12; i++)
    for (let j = i + 1; j < 12; j++)
      for (let k = j + 1; k < 12; k++) if (near(i, j) && near(j, k) && near(i, k)) faces.push([i, j, k]);
  for (let round = 0; round < 3; round++) {
    const middles = new Map<number, number>();
    const middle = (i: number, j: number): number => {
      const key = Math.min(i, j) * 1000 + Math.max(i, j);
      const known = middles.get(key);
      if (known !== undefined) return known;
      const [a, b] = [points[i]!, points[j]!];
      points.push(unit([a[0] + b[0], a[1] + b[1], a[2] + b[2]]));
      middles.set(key, points.length - 1);
      return points.length - 1;
    };
    faces = faces.flatMap(([i, j, k]) => {
      const a = middle(i, j),
        b = middle(j, k),
        c = middle(k, i);
      return [
        [i, a, c],
        [a, j, b],
        [c, b, k],
        [a, b, c],
      ] as [number, number, number][];
    });
  }
  return points;
}

/** One of each pair that look opposite ways: that which looks up, to the left, or to the back. */
export function opposedPairs(): Vec3[] {
  const tiny = 1e-9;
  return drawDirections().filter(
    ([x, y, z]) => z > tiny || (Math.abs(z) <= tiny && (x > tiny || (Math.abs(x) <= tiny && y > 0))),
  );
}

export const opposite = (d: Vec3): Vec3 => scale(d, -1);

/** Six directions about one, so many radians from it. */
export function about(d: Vec3, angle: number): Vec3[] {
  const [u, v] = across(d);
  return Array.from({ length: 6 }, (_, i) => {
    const a = (i * Math.PI) / 3;
    const k = Math.tan(angle);
    return unit([0, 1, 2].map((j) => d[j as 0] + k * (Math.cos(a) * u[j as 0] + Math.sin(a) * v[j as 0])) as never);
  });
}

/** Two directions square to one and to each other. */
export function across(d: Vec3): [Vec3, Vec3] {
  const [x, y, z] = d.map(Math.abs) as [number, number, number];
  const aside: Vec3 = x <= y && x <= z ? [1, 0, 0] : y <= z ? [0, 1, 0] : [0, 0, 1];
  const u = unit([
    d[1] * aside[2] - d[2] * aside[1],
    d[2] * aside[0] - d[0] * aside[2],
    d[0] * aside[1] - d[1] * aside[0],
  ]);
  return [u, [d[1] * u[2] - d[2] * u[1], d[2] * u[0] - d[0] * u[2], d[0] * u[1] - d[1] * u[0]]];
}

function apart(a: Vec3, b: Vec3): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}
