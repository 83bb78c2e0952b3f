import { ballMesh, latheMesh, ringMesh, together, turnedMesh } from '../../../tests/support/meshes';
import { weld, type TriangleMesh } from '../form';
import { cross, seeded, unit, type Vec3 } from '../quantity';
import { masterFace, type MasterFace } from '.';
import { opposedPairs } from './directions';
import { HeightFields } from './height-fields';
import { costOf, labelTriangles, seamWeight } from './labels';
import { chooseDirections } from './search';

/** The search, that looks along a part of the directions, against one that cuts every pair there is. */
const faceOf = (mesh: TriangleMesh): MasterFace => {
  const face = masterFace(weld(mesh, 1e-7), { board: null });
  if (!face.ok) throw new Error(face.message);
  return face.value;
};
const turnedAtRandom = (mesh: TriangleMesh, seed: number): TriangleMesh => {
  const random = seeded(seed);
  const vector = (): Vec3 => [random() - 0.5, random() - 0.5, random() - 0.5];
  const u = unit(vector());
  const w = unit(cross(u, vector()));
  const v = cross(w, u);
  return turnedMesh(mesh, (p) => [0, 1, 2].map((k) => p[0] * u[k as 0] + p[1] * v[k as 0] + p[2] * w[k as 0]) as never);
};
const costAlong = (face: MasterFace, fields: HeightFields, d: Vec3): number => {
  const drawable = [new Uint8Array(face.count), new Uint8Array(face.count)];
  fields.look(d).drawable(drawable[0]!, drawable[1]!);
  const weight = seamWeight(face);
  return costOf(face, drawable, labelTriangles(face, drawable, weight), weight);
};
/** A cup with a waist: it draws along its axis alone. */
const cup = latheMesh(
  [
    [0, 0],
    [0.05, 0],
    [0.05, 0.01],
    [0.02, 0.03],
    [0.02, 0.05],
    [0.06, 0.1],
    [0.05, 0.1],
    [0, 0.06],
  ],
  40,
);

test.each([
  ['a ring', ringMesh(0.06, 0.02, 40, 20), 1],
  ['a ring', ringMesh(0.06, 0.02, 40, 20), 2],
  ['a cup with a waist', cup, 3],
  ['a cup with a waist', cup, 4],
  ['two balls', together(ballMesh(0.03, 14), ballMesh(0.02, 12, [0.04, 0.01, 0.02])), 5],
  ['a thin ring', ringMesh(0.09, 0.008, 60, 12), 6],
] as const)('%s, turned at random: the two parts cost no more than the best of all 321 pairs', (_, mesh, seed) => {
  const face = faceOf(turnedAtRandom(mesh, seed));
  const fields = new HeightFields(face);
  const work = chooseDirections(face, 2);
  let step = work.next();
  while (!step.done) step = work.next();
  const best = Math.min(...opposedPairs().map((d) => costAlong(face, fields, d)));
  expect(costAlong(face, fields, step.value.directions[0]!)).toBeLessThanOrEqual(best * 1.02);
});
