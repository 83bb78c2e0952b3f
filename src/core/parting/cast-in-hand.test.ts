import { ballMesh, together } from '../../../tests/support/meshes';
import { weld, type TriangleMesh } from '../form';
import { castKinds } from '../mould';
import { masterFace, readyToPart } from '.';
import { castInHand, type CastInHand } from './cast-in-hand';

beforeAll(readyToPart);
const cast = (id: string) => castKinds.find((c) => c.id === id)!;
const tried = (mesh: TriangleMesh, id: string, options: { bare?: Uint8Array } = {}) => {
  const face = masterFace(weld(mesh, 1e-7), { board: null, ...options });
  if (!face.ok) throw new Error(face.message);
  const work = castInHand(face.value, cast(id), 0.99);
  let step = work.next();
  while (!step.done) step = work.next();
  return step.value;
};
const made = (result: ReturnType<typeof tried>): CastInHand => {
  if (!result.ok) throw new Error(result.message);
  return result.value;
};
const radius = 0.06;
const ball = ballMesh(radius, 26);

test('a ball of resin bears a squeeze and a thumb, one of plaster breaks when it falls; it weighs its wall', () => {
  const resin = made(tried(ball, 'resin-hollow'));
  expect(resin.mass / (4 * Math.PI * (0.99 * radius) ** 2 * 0.004 * 1060)).toBeCloseTo(1, 1);
  expect(resin.cases.map((c) => [c.id, c.status])).toEqual(
    expect.arrayContaining([
      ['across', 'sound'],
      ['thumb', 'sound'],
    ]),
  );
  const plaster = made(tried(ball, 'plaster-hollow'));
  const fall = plaster.cases.find((c) => c.id === 'dropped')!;
  expect(fall.status).toBe('fails');
  // Told on the master: as far out as its face is.
  expect(Math.hypot(...fall.at) / radius).toBeCloseTo(1, 2);
});

test('of two, the larger is tried; what bears no clay is none of it', () => {
  const two = made(tried(together(ball, ballMesh(0.02, 16, [0.2, 0, 0])), 'resin-hollow'));
  expect(two.mass).toBeCloseTo(made(tried(ball, 'resin-hollow')).mass, 6);
  const welded = weld(ball, 1e-7);
  const upper = new Uint8Array(welded.triangles.length / 3).map((_, t) =>
    welded.positions[3 * welded.triangles[3 * t]! + 2]! < 0 ? 1 : 0,
  );
  const bowl = made(tried(ball, 'resin-hollow', { bare: upper }));
  expect(bowl.mass / two.mass).toBeGreaterThan(0.4);
  expect(bowl.mass / two.mass).toBeLessThan(0.6);
  // Open below, it gives far more at its rim.
  const gives = (c: CastInHand) => c.cases.find((x) => x.id === 'across')!.gives;
  expect(gives(bowl) / gives(two)).toBeGreaterThan(2);
});

test.each(['latex-skin', 'resin-solid'])('%s has no hard wall', (id) => {
  expect(tried(ball, id)).toMatchObject({ ok: false, code: 'no-shell' });
});
