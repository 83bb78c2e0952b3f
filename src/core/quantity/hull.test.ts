import { add, convexHull, convexHull3, cross, dot, scale, seeded, subtract, type Vec3 } from '.';

const random = seeded(12);
const cloud = (n: number): Vec3[] => Array.from({ length: n }, () => [random(), random(), random()]);

/** Rodrigues' turn about an axis. */
function turnedBy(axis: Vec3, angle: number): (p: Vec3) => Vec3 {
  const u = scale(axis, 1 / Math.hypot(...axis));
  return (p) =>
    add(
      add(scale(p, Math.cos(angle)), scale(cross(u, p), Math.sin(angle))),
      scale(u, dot(u, p) * (1 - Math.cos(angle))),
    );
}

describe('convex hull in space', () => {
  test.each([5, 20, 200, 900])('of %d points: closed, turned outward, and nothing lies outside it', (n) => {
    const points = cloud(n);
    const faces = convexHull3(points);
    const edges = new Map<string, number>();
    for (const f of faces)
      f.forEach((a, k) => edges.set(`${a} ${f[(k + 1) % 3]}`, (edges.get(`${a} ${f[(k + 1) % 3]}`) ?? 0) + 1));
    for (const [edge, count] of edges) {
      expect(count).toBe(1);
      expect(edges.has(edge.split(' ').reverse().join(' '))).toBe(true);
    }
    // Corners, less edges, plus faces.
    expect(new Set(faces.flat()).size - edges.size / 2 + faces.length).toBe(2);
    for (const [a, b, c] of faces) {
      const n2 = cross(subtract(points[b]!, points[a]!), subtract(points[c]!, points[a]!));
      for (const p of points) expect(dot(n2, subtract(p, points[a]!))).toBeLessThan(1e-6);
    }
  });
  test.each([1, 2, 3])(
    'many points on the flat sides of a box and a drum, turned and in single precision: closed (%d)',
    (seed) => {
      const draw = seeded(seed);
      const turned = turnedBy([draw(), draw(), draw()], 6 * draw());
      const share = Array.from({ length: 9 }, (_, i) => i / 8);
      const box = share.flatMap((a) =>
        share.flatMap((b) =>
          [0, 1].flatMap((c): Vec3[] => [
            [a, b, c],
            [a, c, b],
            [c, a, b],
          ]),
        ),
      );
      const drum = share.flatMap((z) =>
        Array.from({ length: 40 }, (_, i): Vec3 => [
          0.3 * Math.cos((i * Math.PI) / 20),
          0.3 * Math.sin((i * Math.PI) / 20),
          z,
        ]),
      );
      const around = 40 * 0.3 * 2 * Math.sin(Math.PI / 40),
        end = 20 * 0.09 * Math.sin(Math.PI / 20);
      for (const { solid, area, whole } of [
        { solid: box, area: 6, whole: 1 },
        { solid: drum, area: around + 2 * end, whole: end },
      ]) {
        const points = solid.map((p) => turned(p).map(Math.fround) as unknown as Vec3);
        const faces = convexHull3(points);
        const edges = new Set(faces.flatMap((f) => f.map((a, k) => `${a} ${f[(k + 1) % 3]}`)));
        expect(edges.size).toBe(3 * faces.length);
        for (const edge of edges) expect(edges.has(edge.split(' ').reverse().join(' '))).toBe(true);
        expect(new Set(faces.flat()).size - edges.size / 2 + faces.length).toBe(2);
        const [first] = points as [Vec3];
        const normals = faces.map(([a, b, c]) =>
          cross(subtract(points[b]!, points[a]!), subtract(points[c]!, points[a]!)),
        );
        const volume = faces.reduce((sum, [a], i) => sum + dot(normals[i]!, subtract(points[a]!, first)) / 6, 0);
        expect(normals.reduce((sum, n) => sum + Math.hypot(...n) / 2, 0)).toBeCloseTo(area, 4);
        expect(volume).toBeCloseTo(whole, 4);
      }
    },
  );
  test('a cube’s is six squares, whatever lies in it', () => {
    const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i): Vec3 => [i & 1, (i >> 1) & 1, i >> 2]);
    const points: Vec3[] = [...cloud(50), ...corners];
    const faces = convexHull3(points);
    expect(new Set(faces.flat())).toEqual(new Set([50, 51, 52, 53, 54, 55, 56, 57]));
    const area = faces.reduce(
      (sum, [a, b, c]) =>
        sum + Math.hypot(...cross(subtract(points[b]!, points[a]!), subtract(points[c]!, points[a]!))) / 2,
      0,
    );
    expect(area).toBeCloseTo(6, 9);
  });
  test('all in a plane, on a line, in one place, or too few: none', () => {
    expect(convexHull3(cloud(30).map(([x, y]): Vec3 => [x, y, 0.3]))).toEqual([]);
    expect(convexHull3(cloud(30).map(([x]): Vec3 => [x, 2 * x, -x]))).toEqual([]);
    expect(convexHull3(Array.from({ length: 9 }, (): Vec3 => [1, 1, 1]))).toEqual([]);
    expect(convexHull3(cloud(3))).toEqual([]);
  });
  test('on a plane: anticlockwise, without what lies within or on an edge', () => {
    expect(
      convexHull([
        [0, 0],
        [2, 0],
        [1, 0],
        [2, 2],
        [1, 1],
        [0, 2],
      ]),
    ).toEqual([
      [0, 0],
      [2, 0],
      [2, 2],
      [0, 2],
    ]);
  });
});

test('points of a finely made round on a flat foot, in single precision: no more faces than a hull can have, and none left outside', () => {
  const noise = seeded(17);
  const points = Array.from({ length: 2500 }, (_, i): Vec3 => {
    const a = 2.399963 * i,
      z = 1 - (2 * i) / 2499;
    const r = Math.sqrt(Math.max(0, 1 - z * z));
    // Places as a mesh of small cubes has them: rounded, and all of the foot in one plane.
    const p = [180 * r * Math.cos(a), 180 * r * Math.sin(a), Math.max(-120, 180 * z)].map((v) =>
      Math.fround(Math.round(v * 20) / 20 + 1e-6 * noise()),
    );
    return [p[0]!, p[1]!, p[2]!];
  });
  const faces = convexHull3(points);
  expect(faces.length).toBeGreaterThan(100);
  expect(faces.length).toBeLessThanOrEqual(2 * points.length - 4);
  let outside = 0;
  for (const [a, b, c] of faces) {
    const n = cross(subtract(points[b]!, points[a]!), subtract(points[c]!, points[a]!));
    const long = Math.hypot(...n);
    // A sliver has no way it faces.
    if (long < 1) continue;
    for (let i = 0; i < points.length; i += 5)
      outside = Math.max(outside, dot(n, subtract(points[i]!, points[a]!)) / long);
  }
  expect(outside).toBeLessThan(0.2);
});
