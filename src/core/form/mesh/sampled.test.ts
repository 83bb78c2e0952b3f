import { ballMesh, boxMesh, ringMesh, together } from '../../../../tests/support/meshes';
import { massSchema, type Mass, type MassShape } from '../../document';
import { DistanceField, measureForm, sampleForm, voxelise } from '..';
import { mirrorMass } from '../mirror';
import { fromBase64, toBase64 } from './base64';
import { reportOnMesh, sampleMesh, sizeOfMesh, solidOfMesh, thinnestKept, type TriangleMesh } from '.';

const massOf = (shape: MassShape, more: Partial<Mass> = {}): Mass => ({
  id: 'mesh',
  name: 'mesh',
  region: 'body',
  at: [0.003, 0.02, 0.1],
  turn: [0, 0, 0],
  blend: 0,
  shape,
  ...more,
});
const volumeOf = (mass: Mass) => {
  const grid = sampleForm(new DistanceField([mass]), 0);
  return measureForm(grid, Float64Array.of(Infinity));
};

describe('a mesh as a mass', () => {
  // A concave ring with a handle, a ball, and a box with edges and corners.
  const meshes: readonly [string, TriangleMesh][] = [
    ['ring', ringMesh(0.1, 0.03)],
    ['ball', ballMesh(0.11)],
    ['box', boxMesh(0.2, 0.14, 0.09)],
  ];
  test.each(meshes)('%s: its volume is the mesh’s own to 1 %%, within the error shown or near it', (_, mesh) => {
    const shape = sampleMesh(mesh);
    expect(massSchema.safeParse(massOf(shape)).success).toBe(true);
    const measured = volumeOf(massOf(shape));
    expect(Math.abs(measured.outerVolume / reportOnMesh(mesh).volume - 1)).toBeLessThan(0.01);
    // Turned and grown, it is still so.
    const turned = volumeOf(massOf(shape, { turn: [30, 50, 10] }));
    expect(Math.abs(turned.outerVolume / reportOnMesh(mesh).volume - 1)).toBeLessThan(0.012);
  });
  test.each([3, 4, 6, 9])(
    'a finger %d mm in radius on a head keeps its thickness to a sixth, and to a hundredth in the mean',
    (mm) => {
      const r = mm / 1000;
      const long = 0.12;
      const tip = ballMesh(r, 40);
      const positions = tip.positions.map((v, i) => v + (i % 3 === 2 ? 0.24 + (v > 0 ? long : 0) : 0));
      const shape = sampleMesh(together(ballMesh(0.13, 60, [0, 0, 0.13]), { positions, triangles: tip.triangles }));
      const field = new DistanceField([massOf(shape, { at: [0, 0, 0] })]);
      const off: number[] = [];
      for (let i = 0; i < 120; i++) {
        const [z, a] = [0.28 + 0.0006 * i, 2.4 * i];
        let [low, high] = [0, 3 * r];
        for (let k = 0; k < 30; k++) {
          const m = (low + high) / 2;
          if (field.at(m * Math.cos(a), m * Math.sin(a), z, field.all()) < 0) low = m;
          else high = m;
        }
        off.push(2 * (low - r));
      }
      expect(Math.max(...off.map(Math.abs))).toBeLessThan(Math.max(0.0005, r / 3));
      expect(Math.abs(off.reduce((x, y) => x + y, 0) / off.length)).toBeLessThan(0.0001 + 0.02 * r);
      expect(thinnestKept([0.26, 0.26, 0.36])).toBeLessThan(2 * r);
    },
  );
  test('distances to a ball, near and far, to a hundredth of it, but for the crease in its middle', () => {
    const field = new DistanceField([massOf(sampleMesh(ballMesh(0.11, 96)), { at: [0, 0, 0] })]);
    for (const r of [0, 0.02, 0.06, 0.1, 0.109, 0.111, 0.12]) {
      for (const [x, y, z] of [
        [1, 0, 0],
        [0, 0.6, 0.8],
        [0.48, 0.6, -0.64],
      ] as const)
        expect(Math.abs(field.at(r * x, r * y, r * z, field.all()) - (r - 0.11))).toBeLessThan(
          r === 0 ? 0.004 : 0.0015,
        );
    }
    // Beyond its samples the distance is a bound from below, and a fair one.
    const far = field.at(0.5, 0, 0, field.all());
    expect(far).toBeLessThanOrEqual(0.39 + 1e-3);
    expect(far).toBeGreaterThan(0.3);
  });
  test('skipping blocks changes no sign', () => {
    const field = new DistanceField([massOf(sampleMesh(ringMesh(0.1, 0.03)), { turn: [40, 20, 0] })]);
    const fast = voxelise(field, { step: 0.006, depth: 0 }),
      slow = voxelise(field, { step: 0.006, depth: 0, everyCell: true });
    const thick = Float64Array.of(Infinity);
    expect(measureForm(fast, thick).outerVolume).toBeCloseTo(measureForm(slow, thick).outerVolume, 9);
  });
  test('its reflection is its reflection', () => {
    const mesh = ballMesh(0.05, 24, [0.04, 0.01, 0]);
    const left = massOf(sampleMesh(mesh), { id: 'own/mesh-1', at: [0.1, 0, 0] });
    const a = new DistanceField([left]),
      b = new DistanceField([mirrorMass(left, (id) => id)]);
    for (const [x, y, z] of [
      [0.14, 0.01, 0],
      [0.2, 0.05, 0.01],
      [0.02, 0, 0.03],
    ] as const)
      expect(b.at(-x, y, z, b.all())).toBeCloseTo(a.at(x, y, z, a.all()), 9);
  });
  test('clay over it as an object stands outside it', () => {
    const shape = sampleMesh(ballMesh(0.1));
    const bare = measureForm(sampleForm(new DistanceField([massOf(shape)]), 0), Float64Array.of(Infinity)).outerVolume;
    const over = new DistanceField([massOf(shape, { role: 'core' })], Float64Array.of(0.01));
    const clad = measureForm(sampleForm(over, 0.01), Float64Array.of(0.01));
    expect(clad.perMass[0]?.bulk ?? 0).toBeCloseTo(bare, 4);
    expect((clad.perMass[0]?.clay ?? 0) / ((4 / 3) * Math.PI * (0.11 ** 3 - 0.1 ** 3))).toBeCloseTo(1, 1);
  });
  test('samples that are not as many as the cells are refused where they stand', () => {
    const shape = sampleMesh(ballMesh(0.1, 12), 16);
    const short = massSchema.safeParse(massOf({ ...shape, values: shape.values.slice(4) }));
    expect(short.success).toBe(false);
    expect(short.error?.issues[0]?.path.join('.')).toBe('shape.values');
  });
  test('a mesh that is flat, or a needle, is refused: there is nothing in it', () => {
    for (const m of [boxMesh(0.2, 0.2, 1e-7), boxMesh(0.2, 1e-4, 1e-4)])
      expect(solidOfMesh(m, 64)).toMatchObject({ ok: false, code: 'no-inside' });
    expect(sizeOfMesh(boxMesh(0, 0, 0)).volume).toBe(0);
  });
});

test('base64 there and back, at every remainder', () => {
  for (const n of [0, 1, 2, 3, 4, 255, 256]) {
    const bytes = Uint8Array.from({ length: n }, (_, i) => (i * 37 + 11) & 255);
    expect(toBase64(bytes)).toBe(Buffer.from(bytes).toString('base64'));
    expect([...fromBase64(toBase64(bytes))]).toEqual([...bytes]);
  }
});
