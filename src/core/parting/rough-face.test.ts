import { ballMesh } from '../../../tests/support/meshes';
import { weld, type TriangleMesh } from '../form';
import { masterFace, readyToPart, type FaceOptions, type MasterFace } from '.';
import { chooseDirections } from './search';
import { roughFace } from './rough-face';

/** The face in fewer triangles: as large, as closed, and with what was said of it. */
const faceOf = (mesh: TriangleMesh, options: (mesh: TriangleMesh) => Partial<FaceOptions> = () => ({})): MasterFace => {
  const welded = weld(mesh, 1e-7);
  const face = masterFace(welded, { board: null, ...options(welded) });
  if (!face.ok) throw new Error(face.message);
  return face.value;
};
const byHeight = (mesh: TriangleMesh, above: number): Uint8Array =>
  new Uint8Array(mesh.triangles.length / 3).map((_, t) =>
    mesh.positions[3 * mesh.triangles[3 * t]! + 2]! > above ? 1 : 0,
  );
const share = (face: MasterFace, of: Uint8Array): number =>
  face.areas.reduce((sum, a, t) => sum + (of[t] ? a : 0), 0) / face.areas.reduce((sum, a) => sum + a, 0);
const radius = 0.1;
const ball = ballMesh(radius, 120);

beforeAll(readyToPart);

test('a ball keeps its size and every edge its two sides', () => {
  const face = faceOf(ball);
  const rough = roughFace(face);
  expect(face.count).toBeGreaterThan(25_000);
  expect(rough.count).toBeLessThanOrEqual(10_000);
  expect(rough.count).toBeGreaterThan(8_000);
  expect(rough.area / (4 * Math.PI * radius ** 2)).toBeCloseTo(1, 2);
  // None of its corners is one that was left out.
  expect(new Set(rough.triangles).size).toBe(rough.positions.length / 3);
  // Each triangle has three sides, each shared by two of them.
  expect(rough.seams.count).toBe((3 * rough.count) / 2);
});

test('what is painted and what bears no clay stays so', () => {
  const face = faceOf(ball, (mesh) => ({ kept: byHeight(mesh, 0.04), bare: byHeight(mesh, 0.08) }));
  const rough = roughFace(face);
  // A ball's face goes with height: 0.3 of it is over 0.04, 0.1 over 0.08.
  expect(share(rough, rough.kept)).toBeCloseTo(0.3, 1);
  expect(Math.abs(share(rough, rough.kept) - share(face, face.kept))).toBeLessThan(0.01);
  expect(Math.abs(share(rough, rough.stands) - share(face, face.stands))).toBeLessThan(0.01);
});

test('a small face is told by itself', () => {
  const small = faceOf(ballMesh(radius, 20));
  expect(roughFace(small)).toBe(small);
});

test('a ball of many triangles is drawn in two parts along its great circle', () => {
  const work = chooseDirections(faceOf(ball), 2);
  let step = work.next();
  while (!step.done) step = work.next();
  const { undrawn, labels } = step.value;
  expect(undrawn!.two).toBeLessThan(0.001);
  expect(undrawn!.one).toBeCloseTo(0.5, 1);
  const one = labels.reduce((sum, l) => sum + l, 0) / labels.length;
  expect(one).toBeCloseTo(0.5, 1);
});
