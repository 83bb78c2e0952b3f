import { ballMesh, boxMesh } from '../../../tests/support/meshes';
import { weld } from '../form';
import { seeded } from '../quantity';
import { masterFace } from '.';
import { NearTriangles } from './near-triangles';

const faceOf = (mesh: ReturnType<typeof boxMesh>) => {
  const face = masterFace(weld(mesh, 1e-7), { board: null });
  if (!face.ok) throw new Error(face.message);
  return face.value;
};
const everything = () => true;

test('a box: from a thousand places as by arithmetic, inside and out', () => {
  const set = new NearTriangles(faceOf(boxMesh(0.2, 0.1, 0.06)), everything);
  const box = set.all;
  const [low, high] = [
    [-0.1, -0.05, -0.03],
    [0.1, 0.05, 0.03],
  ] as const;
  // Its mesh stands wherever the maker of meshes puts it.
  const middle = middleOf(boxMesh(0.2, 0.1, 0.06).positions);
  const random = seeded(7);
  for (let n = 0; n < 1000; n++) {
    const p = [0, 1, 2].map(() => (random() - 0.5) * 0.5);
    const out = Math.hypot(...p.map((v, k) => Math.max(low[k]! - v, 0, v - high[k]!)));
    const within = Math.min(...p.map((v, k) => Math.min(v - low[k]!, high[k]! - v)));
    const [x, y, z] = p.map((v, k) => v + middle[k]!) as [number, number, number];
    const found = set.distance(box, x, y, z);
    expect(found).toBeCloseTo(out > 0 ? out : within, 6);
    expect(set.behind(x, y, z)).toBe(out === 0);
  }
});

test('a list thinned for a ball finds the same as the whole, from anywhere in it', () => {
  const face = faceOf(ballMesh(0.08, 24, [0.1, 0, 0]));
  // Each remembers what it found last.
  const set = new NearTriangles(face, everything),
    whole = new NearTriangles(face, everything);
  const random = seeded(11);
  for (let n = 0; n < 40; n++) {
    const at = [0, 1, 2].map(() => (random() - 0.5) * 0.4) as [number, number, number];
    const radius = 0.03;
    const few = set.thinned(set.all, ...at, set.distance(set.all, ...at), radius);
    expect(few.length).toBeLessThanOrEqual(set.all.length);
    for (let k = 0; k < 20; k++) {
      const p = at.map((v) => v + (random() - 0.5) * 2 * (radius / Math.sqrt(3))) as [number, number, number];
      expect(set.distance(few, ...p)).toBe(whole.distance(whole.all, ...p));
    }
  }
});

test('nothing within so far is Infinity, and so is a set of nothing', () => {
  const face = faceOf(boxMesh(0.1, 0.1, 0.1));
  const set = new NearTriangles(face, everything);
  expect(set.distance(set.all, 1, 1, 1, 0.5)).toBe(Infinity);
  const none = new NearTriangles(face, () => false);
  expect(none.distance(none.all, 0, 0, 0)).toBe(Infinity);
});

function middleOf(p: Float32Array): number[] {
  return [0, 1, 2].map((k) => {
    const all = [...p].filter((_, i) => i % 3 === k);
    return (Math.min(...all) + Math.max(...all)) / 2;
  });
}
