import { boxMesh, turnedMesh } from '../../../tests/support/meshes';
import { measureTriangles, type TriangleMesh } from '../form';
import { dot, unit, type Vec3 } from '../quantity';
import { openSide, type FaceByTriangles } from './open-side';

/** A plate leaned back by 30 degrees, its face forward and up. */
const lean = Math.PI / 6;
const leaned = (p: Vec3): Vec3 => [
  p[0],
  Math.cos(lean) * p[1] + Math.sin(lean) * p[2],
  -Math.sin(lean) * p[1] + Math.cos(lean) * p[2],
];
const plate = turnedMesh(boxMesh(0.2, 0.02, 0.3), leaned);
const front = leaned([0, -1, 0]);

function seen(mesh: TriangleMesh, marked: Partial<Record<'stands' | 'kept', (n: Vec3) => boolean>>): FaceByTriangles {
  const { normals, areas } = measureTriangles(mesh);
  const flags = (which: (n: Vec3) => boolean = () => false) =>
    new Uint8Array(areas.length).map((_, t) =>
      which([normals[3 * t]!, normals[3 * t + 1]!, normals[3 * t + 2]!]) ? 1 : 0,
    );
  return { normals, areas, stands: flags(marked.stands), kept: flags(marked.kept) };
}
const off = (a: Vec3, b: Vec3) => Math.acos(Math.min(1, dot(a, b)));

test('a plate is drawn square to it, forward, over its front and its rim', () => {
  const { draw, share } = openSide(seen(plate, {}));
  expect(off(draw, front)).toBeLessThan(1e-4);
  const [face, rim] = [0.2 * 0.3, 0.02 * 2 * (0.2 + 0.3)];
  expect(share).toBeCloseTo((face + rim) / (2 * face + rim), 6);
});

test('away from what it stands on or is bare, whichever way that looks', () => {
  const back: Vec3 = [-front[0], -front[1], -front[2]];
  const { draw, share } = openSide(seen(plate, { stands: (n) => dot(n, front) > 0.9 }));
  expect(off(draw, back)).toBeLessThan(1e-4);
  expect(share).toBe(1);
});

test('the way its face looks, though it is broader from the side', () => {
  const narrow = boxMesh(0.1, 0.3, 0.2);
  const { draw } = openSide(seen(narrow, { kept: (n) => n[1] < -0.9 }));
  expect(off(draw, [0, -1, 0])).toBeLessThan(1e-4);
  expect(Math.abs(openSide(seen(narrow, {})).draw[0])).toBeGreaterThan(0.99);
});

test('near the way its face looks it turns broadside on', () => {
  const looks = unit([0.3, -1, 0]);
  const { draw } = openSide(seen(boxMesh(0.3, 0.02, 0.3), { kept: (n) => dot(n, looks) > 0.9 }));
  expect(off(draw, [0, -1, 0])).toBeLessThan(1e-4);
});
