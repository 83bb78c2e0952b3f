import { asBriefed, Evaluator } from '../evaluate';
import { extractSurface } from '../form';
import { startBuild } from '../school';
import { keptFreeOf, masterOf } from '.';

const made = startBuild('x', '2026-12-01', 'bust', 0.5);
if (!made.ok) throw new Error(made.message);
const build = made.value;
const pieceOf = (keepFree: Partial<(typeof build)['mould']['keepFree']>) => {
  const own = { ...build, mould: { ...build.mould, keepFree: { face: false, regions: [], spots: [], ...keepFree } } };
  const piece = new Evaluator().piece(asBriefed(own));
  if (!piece.ok) throw new Error(piece.message);
  return piece.value;
};

test('a painted spot keeps what lies within it free, at the size the piece is made', () => {
  const plain = pieceOf({});
  const surface = extractSurface(plain.grid);
  expect([...keptFreeOf(plain, surface)].some((k) => k === 1)).toBe(false);
  // A place on the face, said at life size of a piece half as large.
  const on = [0, 1, 2].map((k) => surface.positions[3 * surface.triangles[3000]! + k]!) as [number, number, number];
  const at = on.map((v) => v / 0.5) as [number, number, number];
  const painted = pieceOf({ spots: [{ at, radius: 0.06 }] });
  const kept = keptFreeOf(painted, surface);
  const far = (t: number) =>
    Math.hypot(...[0, 1, 2].map((k) => surface.positions[3 * surface.triangles[3 * t]! + k]! - on[k]!));
  let inside = 0;
  kept.forEach((k, t) => {
    expect(k).toBe(far(t) <= 0.03 ? 1 : 0);
    inside += k;
  });
  expect(inside).toBeGreaterThan(20);
});

test('an open mould lies over the front of a bust: more than a third of it, less than two', () => {
  const { front, clad } = masterOf(pieceOf({ face: true }));
  expect(front!()).toBeGreaterThan(0.34);
  expect(front!()).toBeLessThan(0.67);
  expect(clad).toBe(1);
});
