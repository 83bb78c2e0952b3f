import { ballMesh, boxMesh, together, turnedMesh } from '../../../tests/support/meshes';
import { weld } from '../form';
import { masterFace } from '.';
import { cavitiesOf } from './cavities';

test('two bodies are two cavities, that on the left first, each with its face', () => {
  const right = turnedMesh(boxMesh(0.1, 0.1, 0.1), ([x, y, z]) => [x - 0.2, y, z]);
  const speck = ballMesh(0.002, 6, [0, 0.3, 0]);
  const face = masterFace(weld(together(right, ballMesh(0.05, 24, [0.2, 0, 0.1]), speck), 1e-7), { board: null });
  if (!face.ok) throw new Error(face.message);
  const [left, other, ...more] = cavitiesOf(face.value);
  expect(more).toEqual([]);
  expect(left!.at[0]).toBeCloseTo(0.2, 3);
  expect(left!.at[2]).toBeCloseTo(0.1, 3);
  expect(left!.area / (4 * Math.PI * 0.05 ** 2)).toBeCloseTo(1, 1);
  expect(other!.area).toBeCloseTo(0.06, 6);
});

test('what it stands on is no face of a cavity', () => {
  const face = masterFace(weld(boxMesh(0.1, 0.1, 0.1), 1e-7), { board: lowest(boxMesh(0.1, 0.1, 0.1).positions) });
  if (!face.ok) throw new Error(face.message);
  expect(cavitiesOf(face.value)[0]!.area).toBeCloseTo(0.05, 6);
});

function lowest(p: Float32Array): number {
  return Math.min(...p.filter((_, i) => i % 3 === 2));
}
