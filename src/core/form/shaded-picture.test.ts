import { ballMesh } from '../../../tests/support/meshes';
import { shadedPicture, type ColouredMesh, type ShadedPicture } from '.';

const white = [200, 200, 200] as const,
  red = [200, 0, 0] as const;
const front = [0, -1, 0] as const;

const ball = (at: readonly [number, number, number], radius: number, colour: ColouredMesh['colour']): ColouredMesh => ({
  ...ballMesh(radius, 48, at),
  colour,
  edges: 'round',
});
const plate = (y: number, half: number): ColouredMesh => ({
  positions: [-half, y, -half, half, y, -half, half, y, half, -half, y, half],
  triangles: [0, 1, 2, 0, 2, 3],
  colour: white,
  edges: 'sharp',
});
const pixel = (p: ShadedPicture, x: number, y: number) => Array.from(p.rgba.slice((y * p.width + x) * 4).slice(0, 4));
const covered = (p: ShadedPicture) => p.rgba.reduce((sum, v, i) => (i % 4 === 3 ? sum + v / 255 : sum), 0);

test('a ball is a disc as large as fits, standing on its margin, brightest up on the left', () => {
  const p = shadedPicture([ball([3, 5, 7], 0.1, white)], { from: front, width: 120, height: 100, margin: 0.1 });
  const radius = 40;
  expect(covered(p) / (Math.PI * radius ** 2)).toBeCloseTo(1, 2);
  expect(pixel(p, 60, 100 - 10 - 1)[3]).toBeGreaterThan(0);
  expect(pixel(p, 60, 100 - 10 + 1)[3]).toBe(0);
  const [upLeft, lowRight] = [pixel(p, 45, 35)[0]!, pixel(p, 78, 68)[0]!];
  expect(upLeft).toBeGreaterThan(lowRight + 40);
  // Left and right of it there is the same room.
  for (let y = 0; y < p.height; y++)
    for (let x = 0; x < p.width / 2; x++)
      expect(Math.abs(pixel(p, x, y)[3]! - pixel(p, p.width - 1 - x, y)[3]!)).toBeLessThan(70);
});

test('what stands before hides what is behind, whichever is drawn first', () => {
  const near = ball([0, -1, 0], 0.05, red),
    far = ball([0, 1, 0], 0.1, white);
  for (const meshes of [
    [near, far],
    [far, near],
  ]) {
    const p = shadedPicture(meshes, { from: front, width: 80, height: 80 });
    expect(pixel(p, 40, 40)[1]).toBe(0);
    expect(pixel(p, 40, 12)[1]).toBeGreaterThan(50);
    // From behind the small one is not seen.
    const back = shadedPicture(meshes, { from: [0, 1, 0], width: 80, height: 80 });
    expect(pixel(back, 40, 40)[1]).toBeGreaterThan(50);
  }
});

test('beside what stands against it a plate is darker than in the open, and far behind it is not', () => {
  const beside = (y: number) => {
    const p = shadedPicture([plate(0, 0.5), ball([0, y, 0], 0.1, red)], { from: front, width: 200, height: 200 });
    // Just off the ball's edge, and in the open.
    return pixel(p, 100 + 20, 100)[1]! / pixel(p, 160, 40)[1]!;
  };
  expect(beside(-0.01)).toBeLessThan(0.93);
  expect(beside(-5)).toBeCloseTo(1, 2);
});

test('a plate is lit alike all over; nothing at all is a clear picture', () => {
  const p = shadedPicture([plate(0, 0.2)], { from: [-0.5, -1, 0.3], width: 60, height: 60 });
  const tones = new Set<number>();
  for (let i = 0; i < p.rgba.length; i += 4) if (p.rgba[i + 3] === 255) tones.add(p.rgba[i]!);
  expect([...tones]).toHaveLength(1);
  expect(covered(shadedPicture([], { from: front, width: 10, height: 10 }))).toBe(0);
});
