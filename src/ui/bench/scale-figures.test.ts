import { bodyOutline, scaleFigure } from './scale-figures';

test('a hand beside what stands on a table, a person beside what does not; each as tall as it says', () => {
  const tall = (h: number) => Math.max(...scaleFigure(h).points.map((p) => p[1]));
  expect(scaleFigure(0.3).name).toBe('a hand, 190 mm');
  expect(tall(0.3)).toBeCloseTo(0.191, 6);
  expect(scaleFigure(0.6).name).toBe('a person, 1.72 m');
  expect(tall(0.6)).toBeCloseTo(1.72, 6);
});

test('the person is alike left and right, and no wider than the room that is kept for it', () => {
  const { points, width } = scaleFigure(2);
  for (const [x, y] of points) expect(points.some((q) => Math.abs(q[0] + x) < 1e-9 && q[1] === y)).toBe(true);
  expect(2 * Math.max(...points.map((p) => p[0]))).toBeLessThanOrEqual(width);
});

test.each(['head', 'shoulder', 'chest', 'back', 'hand'] as const)(
  'a wearer seen from all round; the %s is on it',
  (where) => {
    const { rings, arms, seat } = bodyOutline(where);
    const all = [...rings, ...arms.flat()].flat();
    for (const ring of [...rings, ...arms.flat()]) {
      expect(new Set(ring.map((p) => p[2])).size).toBe(1);
      expect(ring[0]![0]).toBeCloseTo(ring.at(-1)![0], 9);
    }
    const nearest = Math.min(...all.map((p) => Math.hypot(p[0] - seat[0], p[1] - seat[1], p[2] - seat[2])));
    expect(nearest).toBeLessThan(0.1);
    // Heights rise from hip to crown.
    rings.slice(1).forEach((r, i) => expect(r[0]![2]).toBeGreaterThan(rings[i]![0]![2]));
  },
);
