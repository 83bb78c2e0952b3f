import { ballMesh, boxMesh, together } from '../../../../tests/support/meshes';
import { resolveForm, rotate, rotationOf, startForms, voxelise, DistanceField, extractSurface, chooseStep } from '..';
import { dot, type Vec3 } from '../../quantity';
import { startBuild } from '../../school';
import { sizeOfMesh, solidOfMesh, waysUp, withoutCrumbs, type TriangleMesh } from '.';

const turned = (m: TriangleMesh, turn: Vec3): TriangleMesh => {
  const r = rotationOf(turn);
  const positions = new Float32Array(m.positions.length);
  for (let i = 0; i < positions.length; i += 3)
    positions.set(rotate(r, [m.positions[i]!, m.positions[i + 1]!, m.positions[i + 2]!]), i);
  return { positions, triangles: m.triangles };
};
const ways = (m: TriangleMesh) => {
  const solid = solidOfMesh(m, 40);
  if (!solid.ok) throw new Error(solid.message);
  return waysUp(withoutCrumbs(m, solid.value).mesh, solid.value);
};
/** Degrees between two directions. */
const off = (a: Vec3, b: Vec3) => (Math.acos(Math.min(1, dot(a, b))) * 180) / Math.PI;
const startMesh = (kind: string) => {
  const build = startBuild('x', '2026-12-01', kind, 1);
  if (!build.ok) throw new Error(build.message);
  const form = resolveForm(build.value);
  if (!form.ok) throw new Error(form.message);
  const field = new DistanceField(form.value.masses.filter((m) => m.role !== 'bare'));
  return extractSurface(voxelise(field, { step: chooseStep(field, 30_000), depth: 0.01 }));
};

describe('which way is up', () => {
  // A plinth with a block on it, and a head to the front of that: one flat face, one plane with two like halves.
  const bust = together(
    boxMesh(0.2, 0.2, 0.06),
    ballMesh(0.07, 40, [0, 0, 0.09]),
    ballMesh(0.05, 40, [0, -0.07, 0.16]),
  );
  test.each<[Vec3]>([[[0, 0, 0]], [[37, -62, 110]], [[-140, 25, 77]], [[80, 170, -20]]])(
    'what stands on a flat face is found however it lies: turned by %p',
    (turn) => {
      const found = ways(turned(bust, turn))[0]!;
      expect(off(found.up, rotate(rotationOf(turn), [0, 0, 1]))).toBeLessThan(3);
      expect(found.tipAngle).toBeGreaterThan(20);
      // Its halves are to its left and right.
      expect(
        Math.abs(dot(rotate(rotationOf(turn), [1, 0, 0]), found.turn.slice(0, 3) as unknown as Vec3)),
      ).toBeGreaterThan(0.99);
    },
  );
  test('the turn brings it up: what was up in the file is up on the board, and nothing is mirrored', () => {
    for (const { turn: r, up } of ways(turned(bust, [10, 20, 30]))) {
      expect(rotate(r, up)).toEqual([0, 0, 1].map((v) => expect.closeTo(v, 9)));
      expect(
        r[0] * (r[4] * r[8] - r[5] * r[7]) - r[1] * (r[3] * r[8] - r[5] * r[6]) + r[2] * (r[3] * r[7] - r[4] * r[6]),
      ).toBeCloseTo(1, 9);
    }
  });
  test('as it stands in its file, each of our own forms is among the three shown', () => {
    for (const { kind } of startForms) {
      const shown = ways(startMesh(kind));
      expect(shown.length).toBeGreaterThan(1);
      // A tile that leans on an easel may as well stand on its edge.
      const right = shown.some((w) => off(w.up, [0, 0, 1]) < (kind === 'relief' ? 25 : 3));
      expect({ kind, right }).toEqual({ kind, right: true });
    }
  });
  test('four legs, lying anyhow', () => {
    const mesh = startMesh('four-legged');
    for (const turn of [
      [37, -62, 110],
      [-140, 25, 77],
      [80, 170, -20],
    ] as const)
      expect(
        Math.min(...ways(turned(mesh, turn)).map((w) => off(w.up, rotate(rotationOf(turn), [0, 0, 1])))),
      ).toBeLessThan(3);
  });
  test('a whisker thinner than any cell stays; a crumb beside it goes', () => {
    const whisker = boxMesh(0.0005, 0.0005, 0.3);
    const joined = together(bust, whisker);
    // Joined by one triangle, as a weld would.
    const mesh = {
      ...joined,
      triangles: Uint32Array.from([...joined.triangles, 0, 1, joined.positions.length / 3 - 1]),
    };
    const given = together(mesh, ballMesh(0.002, 12, [0.3, 0, 0]), ballMesh(0.002, 12, [0.3, 0.1, 0]));
    const solid = solidOfMesh(given, 40);
    if (!solid.ok) throw new Error(solid.message);
    const { mesh: left, crumbs } = withoutCrumbs(given, solid.value);
    const [low, high] = sizeOfMesh(left).box;
    expect(high[2] - low[2]).toBeCloseTo(0.36, 2);
    expect(high[0]).toBeLessThan(0.11);
    // Too small for any place to lie in them, and counted all the same.
    expect(crumbs).toBe(2);
  });
  test('a crumb under it is nothing to stand on', () => {
    const found = ways(together(bust, ballMesh(0.006, 12, [0, 0, -0.2])))[0]!;
    expect(off(found.up, [0, 0, 1])).toBeLessThan(3);
  });
});
