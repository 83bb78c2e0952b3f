import fc from 'fast-check';
import {
  bustLevels,
  chooseStep,
  DistanceField,
  distanceAtCell,
  enclosedVolume,
  extractSurface,
  measureForm,
  resolveForm,
  solidExtent,
  voxelise,
  type Mass,
  type MassShape,
} from '.';
import { newBust } from '../document';

const bustMasses = (size = 1): readonly Mass[] => {
  const form = resolveForm(newBust('b', '2026-12-01', size));
  if (!form.ok) throw new Error(form.message);
  return form.value.masses;
};

const mass = (
  shape: MassShape,
  at: [number, number, number] = [0.0013, -0.0007, 0.0021],
  turn: [number, number, number] = [0, 0, 0],
  blend = 0,
): Mass => ({ id: 'm', name: 'm', region: 'r', at, turn, blend, shape });
const volumeOf = (masses: readonly Mass[], step: number, thickness = Infinity) => {
  const grid = voxelise(new DistanceField(masses), { step, depth: 0.02 });
  return measureForm(
    grid,
    Float64Array.from(masses, () => thickness),
  );
};
const near = (value: number, wanted: number, share: number) => expect(Math.abs(value / wanted - 1)).toBeLessThan(share);

describe('volumes against analytic shapes, at 3 mm', () => {
  const step = 0.003;
  test('sphere, and the clay over its core', () => {
    const v = volumeOf([mass({ kind: 'ellipsoid', radii: [0.1, 0.1, 0.1] })], step, 0.01);
    near(v.outerVolume, (4 / 3) * Math.PI * 0.1 ** 3, 0.01);
    near(v.perMass[0]?.clay ?? 0, (4 / 3) * Math.PI * (0.1 ** 3 - 0.09 ** 3), 0.01);
    near(v.perMass[0]?.area ?? 0, 4 * Math.PI * 0.01, 0.01);
    expect(v.perMass[0]?.bulkCentre[2]).toBeCloseTo(0.0021, 4);
  });
  test('ellipsoid, turned', () =>
    near(
      volumeOf([mass({ kind: 'ellipsoid', radii: [0.07, 0.1, 0.05] }, [0, 0, 0], [20, 35, 10])], step).outerVolume,
      (4 / 3) * Math.PI * 0.07 * 0.1 * 0.05,
      0.01,
    ));
  test('capsule', () =>
    near(
      volumeOf([mass({ kind: 'round-cone', reach: [0.05, 0.03, 0.12], radiusFrom: 0.04, radiusTo: 0.04 })], step)
        .outerVolume,
      Math.PI * 0.04 ** 2 * Math.hypot(0.05, 0.03, 0.12) + (4 / 3) * Math.PI * 0.04 ** 3,
      0.01,
    ));
  test('round cone: two caps and a frustum where the tangent cone touches', () => {
    const [a, b, l] = [0.05, 0.03, 0.14];
    const s = (a - b) / l,
      c = Math.sqrt(1 - s * s);
    const cap = (r: number, h: number) => (Math.PI * h * h * (3 * r - h)) / 3;
    const frustum = ((Math.PI * (l - a * s + b * s)) / 3) * ((a * c) ** 2 + a * c * b * c + (b * c) ** 2);
    near(
      volumeOf([mass({ kind: 'round-cone', reach: [0, 0, l], radiusFrom: a, radiusTo: b })], step).outerVolume,
      cap(a, a + a * s) + frustum + cap(b, b - b * s),
      0.01,
    );
  });
  test('box and ring', () => {
    near(
      volumeOf([mass({ kind: 'rounded-box', half: [0.06, 0.05, 0.04], rounding: 0 }, [0, 0, 0])], step).outerVolume,
      0.12 * 0.1 * 0.08,
      0.01,
    );
    near(
      volumeOf([mass({ kind: 'ring', radius: 0.08, thickness: 0.02 })], step).outerVolume,
      2 * Math.PI ** 2 * 0.08 * 0.02 ** 2,
      0.01,
    );
  });
  test('two spheres apart add, and their shares go to the right one', () => {
    const two = [
      mass({ kind: 'ellipsoid', radii: [0.05, 0.05, 0.05] }, [-0.08, 0, 0]),
      { ...mass({ kind: 'ellipsoid', radii: [0.04, 0.04, 0.04] }, [0.08, 0, 0]), id: 'n' },
    ];
    const v = volumeOf(two, step);
    near(v.perMass[0]?.clay ?? 0, (4 / 3) * Math.PI * 0.05 ** 3, 0.01);
    near(v.perMass[1]?.clay ?? 0, (4 / 3) * Math.PI * 0.04 ** 3, 0.01);
  });
  test('what is hung is what was measured', () => {
    const v = volumeOf(bustMasses(), 0.006, 0.01);
    const clay = v.parcels.clayVolume.reduce((a, b) => a + b, 0),
      bulk = v.parcels.bulkVolume.reduce((a, b) => a + b, 0);
    near(clay + bulk, v.outerVolume, 1e-9);
  });
});

test('the true error stays within the one shown, on spheres set anywhere', () => {
  let within = 0;
  const radii = Array.from({ length: 40 }, (_, i) => 0.04 + i * 0.0021);
  radii.forEach((r, i) => {
    const m = mass({ kind: 'ellipsoid', radii: [r, r * 0.8, r * 1.1] }, [i * 0.00037, -i * 0.00021, i * 0.00053]);
    const grid = voxelise(new DistanceField([m]), { step: chooseStep(new DistanceField([m]), 20_000), depth: 0.01 });
    const v = measureForm(grid, Float64Array.of(Infinity));
    if (Math.abs(v.outerVolume - (4 / 3) * Math.PI * r * r * 0.8 * r * 1.1) <= v.volumeError) within += 1;
  });
  expect(within).toBeGreaterThanOrEqual(38);
});

test('skipping blocks changes no sign', () => {
  const shape = fc.oneof(
    fc.record({
      kind: fc.constant('ellipsoid' as const),
      radii: fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 0.02, max: 0.08, noNaN: true }))) as fc.Arbitrary<
        [number, number, number]
      >,
    }),
    fc.record({
      kind: fc.constant('round-cone' as const),
      reach: fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -0.1, max: 0.1, noNaN: true }))) as fc.Arbitrary<
        [number, number, number]
      >,
      radiusFrom: fc.double({ min: 0.01, max: 0.05, noNaN: true }),
      radiusTo: fc.double({ min: 0.01, max: 0.05, noNaN: true }),
    }),
  );
  const one = fc
    .tuple(
      shape,
      fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -0.1, max: 0.1, noNaN: true }))) as fc.Arbitrary<
        [number, number, number]
      >,
      fc.double({ min: 0, max: 0.05, noNaN: true }),
    )
    .map(([s, at, blend]) => mass(s, at, [10, 20, 30], blend));
  fc.assert(
    fc.property(fc.array(one, { minLength: 1, maxLength: 6 }), (masses) => {
      const field = new DistanceField(masses);
      const fast = voxelise(field, { step: 0.012, depth: 0.01 }),
        slow = voxelise(field, { step: 0.012, depth: 0.01, everyCell: true });
      const [nx, ny, nz] = fast.blocks.map((b) => b * 8) as [number, number, number];
      for (let z = 0; z < nz; z++)
        for (let y = 0; y < ny; y++)
          for (let x = 0; x < nx; x++) {
            if (distanceAtCell(fast, x, y, z) <= 0 !== distanceAtCell(slow, x, y, z) <= 0)
              throw new Error(`sign differs at ${x}, ${y}, ${z}`);
          }
    }),
    { seed: 5, numRuns: 12 },
  );
});

test('the surface is closed and holds the same volume', () => {
  const grid = voxelise(new DistanceField(bustMasses()), { step: 0.006, depth: 0.01 });
  const mesh = extractSurface(grid);
  const edges = new Map<string, number>();
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    for (let k = 0; k < 3; k++) {
      const a = mesh.triangles[i + k]!,
        b = mesh.triangles[i + ((k + 1) % 3)]!;
      edges.set(`${a}-${b}`, (edges.get(`${a}-${b}`) ?? 0) + 1);
    }
  }
  // Each edge is run along once either way; told at once, for asking ninety thousand times takes longer than the surface.
  expect([...edges.keys()].filter((edge) => !edges.has(edge.split('-').reverse().join('-')))).toEqual([]);
  near(
    enclosedVolume(mesh),
    measureForm(
      grid,
      Float64Array.from({ length: 6 }, () => 0.01),
    ).outerVolume,
    0.01,
  );
});

describe('the bust', () => {
  const form = resolveForm(newBust('b', '2026-12-01'));
  if (!form.ok || !form.value.bust) throw new Error('no bust');
  const { measures } = form.value.bust;
  test('left is the mirror of right, to rounding', () => {
    const v = volumeOf(bustMasses(), 0.007, 0.01);
    near(v.perMass[1]?.clay ?? 0, v.perMass[2]?.clay ?? 1, 1e-6);
  });
  test('half the size, an eighth of the volume', () =>
    near(volumeOf(bustMasses(), 0.008).outerVolume / volumeOf(bustMasses(0.5), 0.004).outerVolume, 8, 0.005));
  test('the eye line is half way up the head, and the crown is at its height', () => {
    const at = bustLevels(measures, 1);
    expect(at.eyes - at.chin).toBeCloseTo(at.crown - at.eyes, 12);
    const grid = voxelise(new DistanceField(bustMasses()), { step: 0.005, depth: 0.01 });
    expect(Math.abs(solidExtent(grid).high[2] - at.crown)).toBeLessThan(0.006);
  });
});

test('a cube of cells holds what a point by point reading gives', () => {
  const field = new DistanceField([
    ...bustMasses(),
    { ...mass({ kind: 'ring', radius: 0.09, thickness: 0.01 }, [0, 0, 0.4], [20, 0, 0], 0.01), id: 'halo' },
  ]);
  const grid = voxelise(field, { step: 0.02, depth: 0.5, everyCell: true });
  const [nx, ny, nz] = grid.blocks.map((b) => b * 8) as [number, number, number];
  for (let z = 0; z < nz; z += 3)
    for (let y = 0; y < ny; y += 3)
      for (let x = 0; x < nx; x += 3) {
        const [px, py, pz] = [x, y, z].map((c, k) => grid.origin[k]! + (c + 0.5) * grid.step) as [
          number,
          number,
          number,
        ];
        expect(distanceAtCell(grid, x, y, z)).toBeCloseTo(field.at(px, py, pz, field.all()), 6);
      }
});
