import type { Vec3 } from '../quantity';
import { isBent, templateOf, tilesOf, type Member } from '.';

const member = (path: readonly Vec3[]): Member => ({
  id: 'm',
  name: 'loop',
  stock: 's',
  size: 's',
  strands: 1,
  bonded: false,
  path,
  bones: [],
  allowances: [],
});
const ring = (radius: number, tilt: number): Vec3[] =>
  Array.from({ length: 49 }, (_, i) => {
    const a = (2 * Math.PI * i) / 48;
    const x = radius * Math.cos(a),
      z = 0.7 * radius * Math.sin(a);
    return [x * Math.cos(tilt) + 0.3, x * Math.sin(tilt) - 0.2, z + 1];
  });
const lengthOf = (points: readonly (readonly number[])[]) =>
  points.slice(1).reduce((s, p, i) => s + Math.hypot(...p.map((v, k) => v - points[i]![k]!)), 0);

describe('bending templates', () => {
  test.each([0, 0.4, 1.2, 2.5])(
    'a loop in a plane turned by %d lies flat on the paper at its own size, standing up',
    (tilt) => {
      const t = templateOf(member(ring(0.11, tilt)));
      if (!t) throw new Error('no template');
      expect(t.offPaper).toBeLessThan(1e-9);
      expect(lengthOf(t.points)).toBeCloseTo(t.length, 9);
      expect(t.width).toBeCloseTo(0.22, 3);
      expect(t.height).toBeCloseTo(0.154, 3);
      expect(Math.min(...t.points.map((p) => p[0]))).toBeCloseTo(0, 12);
      expect(Math.min(...t.points.map((p) => p[1]))).toBeCloseTo(0, 12);
    },
  );
  test('what leaves the plane is told', () => {
    const path: Vec3[] = [
      [0, 0, 0],
      [0.2, 0, 0],
      [0.2, 0, 0.2],
      [0.2, 0.03, 0.3],
      [0, 0.01, 0.3],
    ];
    const t = templateOf(member(path));
    expect(t?.offPaper).toBeGreaterThan(0.005);
    expect(t?.offPaper).toBeLessThan(0.03);
  });
  test('straight members have none', () => {
    expect(
      isBent([
        [0, 0, 0],
        [0, 0, 0.2],
        [0, 0.001, 0.4],
      ]),
    ).toBe(false);
    expect(
      templateOf(
        member([
          [0, 0, 0],
          [0, 0, 0.3],
        ]),
      ),
    ).toBeNull();
  });
  test('tiles cover every point, lap over each other, and none is empty', () => {
    const t = templateOf(member(ring(0.4, 0.3)));
    if (!t) throw new Error('no template');
    const sheet = { width: 0.186, height: 0.234 };
    const tiles = tilesOf(t, sheet, 0.012, 0.012);
    const inside = (p: readonly [number, number], tile: (typeof tiles)[number]) =>
      p[0] >= tile.x - 1e-9 &&
      p[0] <= tile.x + sheet.width + 1e-9 &&
      p[1] >= tile.y - 1e-9 &&
      p[1] <= tile.y + sheet.height + 1e-9;
    for (const p of t.points) expect(tiles.some((tile) => inside(p, tile))).toBe(true);
    expect(tiles.length).toBeGreaterThan(8);
    // The middle of a large loop is bare paper: those sheets are left out.
    expect(tiles.length).toBeLessThan(5 * 3);
    const [a, b] = tiles.filter((x) => x.row === 0);
    if (a && b && b.column === a.column + 1) expect(a.x + sheet.width - b.x).toBeCloseTo(0.012, 9);
    expect(
      tilesOf(
        {
          points: [
            [0, 0],
            [0.05, 0.05],
          ],
          width: 0.05,
          height: 0.05,
        },
        sheet,
        0.012,
        0.012,
      ),
    ).toHaveLength(1);
  });
});
