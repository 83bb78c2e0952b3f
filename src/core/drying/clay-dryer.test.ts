import { evenClay } from '../../../tests/support/even-clay';
import { ballLattice, slabLattice, lattice } from '../../../tests/support/lattices';
import { clays } from '../catalogue';
import { seeded } from '../quantity';
import {
  ClayDryer,
  diffusionAt,
  dryLayer,
  evaporationCurve,
  type DryingSpan,
  type FaceConditions,
  type WholePieceJob,
} from '.';

const paper = clays.get('paper-clay')!.drying!;
const still = { temperature: 20, relativeHumidity: 0.5, speed: 0.1 };
const curve = evaporationCurve(still);
const hour = 3600;
const shut: FaceConditions = { curve: null, share: 0 };
const open: FaceConditions = { curve, share: 1 };

function span(
  outer: FaceConditions,
  inner: FaceConditions,
  until = Infinity,
  more: Partial<DryingSpan> = {},
): DryingSpan {
  return {
    until,
    outer: [outer],
    inner: [inner],
    resting: null,
    key: `${outer.share}/${inner.share}/${until}`,
    ...more,
  };
}

/** Crank, *The Mathematics of Diffusion*, eq. 6.20: what is left in a sphere with its face held. */
function crankSphere(fourier: number): number {
  let sum = 0;
  for (let n = 1; n < 200; n++) sum += (6 / (Math.PI * n) ** 2) * Math.exp(-((Math.PI * n) ** 2) * fourier);
  return sum;
}

test('a sphere with its face held follows the series to one percent', () => {
  const r = 0.02;
  const d = new ClayDryer({
    clay: evenClay,
    stages: [{ start: 0, lattice: () => ballLattice(r, 12) }],
    spans: [span({ curve: null, share: 1, fixed: 0.2 }, shut)],
  });
  for (const fourier of [0.03, 0.05, 0.1, 0.2, 0.4]) {
    d.advance((fourier * r * r) / 1e-9);
    const left = (d.water() / d.solids() - 0.2) / 0.8;
    expect(Math.abs(left / crankSphere(fourier) - 1)).toBeLessThan(0.01);
  }
});

test.each([
  ['sealed', 0, 1],
  ['porous', 0.3, 1],
  ['open', 1, 1],
  ['porous, in a room of 32 degrees', 0.3, diffusionAt(32)],
] as const)('a slab dries as through one thickness, inner face %s', (_, share, diffusion) => {
  const thickness = 0.01;
  const times = [6, 24, 48, 72, 100].map((h) => h * hour);
  const course = dryLayer({
    clay: paper,
    geometry: 'slab',
    thickness,
    innerFace: share,
    times,
    phases: [{ until: Infinity, curve, relativeHumidity: 0.5, diffusion }],
  });
  const d = new ClayDryer({
    clay: paper,
    stages: [{ start: 0, lattice: () => slabLattice(thickness, 0.002) }],
    spans: [span(open, { curve, share }, Infinity, { diffusion })],
  });
  times.forEach((t, i) => {
    d.advance(t);
    const mean = d.water() / d.solids();
    expect(Math.abs(mean - course.history[i]!.meanMoisture!)).toBeLessThan(0.004);
    let wettest = 0;
    for (let c = d.cells.pad; c < d.cells.pad + d.cells.count; c++) wettest = Math.max(wettest, d.moisture[c]!);
    expect(Math.abs(wettest - course.history[i]!.coreMoisture!)).toBeLessThan(0.012);
  });
});

/** A ball with a hollow, a second coat that comes later, a cover that comes off, and something it lies on. */
function busy(seed = 1): WholePieceJob {
  const random = seeded(seed);
  const step = 0.003,
    outer = 0.03 + random() * 0.004,
    coat = 0.005;
  const core = (x: number, y: number, z: number) => Math.hypot(x, y, z) - (outer - 0.011);
  const make = (less: number) => () =>
    lattice([28, 28, 28], step, (x, y, z) => Math.hypot(x, y, z) - outer + less, core);
  const covered = { curve: evaporationCurve(still, 1500), share: 1 };
  const lying = { resting: { down: [0, 0, -1] as const, share: 0.9 } };
  return {
    clay: paper,
    stages: [
      { start: 0, lattice: make(coat) },
      { start: 30 * hour, lattice: make(0) },
    ],
    spans: [
      span(covered, { curve, share: 0.3 }, 10 * hour, lying),
      span(open, { curve, share: 0.3 }, 50 * hour, lying),
      span(open, open),
    ],
  };
}

test('water is kept to a millionth through stages, covers and turning', () => {
  for (const seed of [1, 2, 3]) {
    const d = new ClayDryer(busy(seed));
    const first = d.water();
    for (const t of [5, 20, 40, 80, 160]) {
      d.advance(t * hour);
      const had = first + d.added;
      expect(Math.abs(had - d.water() - d.evaporated) / had).toBeLessThan(1e-6);
    }
    expect(d.added).toBeGreaterThan(0.2 * first);
  }
});

test('the side it lies on gives off only what is not shut: none of it dries as from one face, half of it lies between', () => {
  // A slab open above and below; what it lies on shuts all, half or none of the face below.
  const left = (share: number | null, down: readonly [number, number, number] = [0, 0, -1]) => {
    const d = new ClayDryer({
      clay: paper,
      stages: [{ start: 0, lattice: () => openSlab }],
      spans: [span(open, shut, Infinity, { resting: share === null ? null : { down, share } })],
    });
    d.advance(30 * hour);
    return d.evaporated / d.solids();
  };
  const openSlab = lattice([8, 8, 16], 0.001, (_x, _y, z) => Math.abs(z) - 0.005);
  const free = left(null),
    lying = left(1),
    half = left(0.5);
  expect(left(0)).toBe(free);
  expect(lying).toBeLessThan(0.75 * free);
  expect(half).toBeGreaterThan(lying * 1.02);
  expect(half).toBeLessThan(free * 0.995);
  // Turned over it is the other face that is shut, and as much leaves.
  expect(left(1, [0, 0, 1]) / lying).toBeCloseTo(1, 6);
  // Level, no face looks along y: nothing lies on anything.
  expect(left(1, [0, 1, 0])).toBe(free);
});

test('the answer does not depend on how the work is shared out, to the last bit', () => {
  const plain = new ClayDryer(busy());
  plain.advance(60 * hour);
  const orders: ((chunks: number) => number[])[] = [
    (n) => Array.from({ length: n }, (_, i) => n - 1 - i),
    (n) => [
      ...Array.from({ length: n }, (_, i) => i).filter((i) => i % 2 === 0),
      ...Array.from({ length: n }, (_, i) => i).filter((i) => i % 2 === 1),
    ],
    (n) => Array.from({ length: n }, (_, i) => i).sort((a, b) => ((a * 7) % 5) - ((b * 7) % 5)),
  ];
  for (const order of orders) {
    const d = new ClayDryer(busy(), (work, chunks) => order(chunks).forEach(work));
    d.advance(60 * hour);
    expect(d.steps).toBe(plain.steps);
    expect(d.evaporated).toBe(plain.evaporated);
    expect(Buffer.compare(Buffer.from(d.moisture.slice().buffer), Buffer.from(plain.moisture.slice().buffer))).toBe(0);
  }
});

test('large enough to have several chunks, or the test above says nothing', () => {
  let most = 0;
  const d = new ClayDryer(
    { ...busy(), stages: [{ start: 0, lattice: () => ballLattice(0.03, 16) }] },
    (work, chunks) => {
      most = Math.max(most, chunks);
      for (let c = chunks - 1; c >= 0; c--) work(c);
    },
  );
  const other = new ClayDryer({ ...busy(), stages: [{ start: 0, lattice: () => ballLattice(0.03, 16) }] });
  d.advance(2 * hour);
  other.advance(2 * hour);
  expect(most).toBeGreaterThan(1);
  expect(Buffer.compare(Buffer.from(d.moisture.slice().buffer), Buffer.from(other.moisture.slice().buffer))).toBe(0);
});

test('stopped, put away and taken up again it comes to the same, to the last bit', () => {
  const plain = new ClayDryer(busy());
  plain.advance(30 * hour);
  let d = new ClayDryer(busy());
  for (let stops = 0; !d.advance(30 * hour, 13); stops++) {
    const kept = structuredClone(d.state());
    d = new ClayDryer(busy());
    d.restore(kept);
    expect(stops).toBeLessThan(500);
  }
  expect(d.time).toBe(plain.time);
  expect(d.evaporated).toBe(plain.evaporated);
  expect(Buffer.compare(Buffer.from(d.moisture.slice().buffer), Buffer.from(plain.moisture.slice().buffer))).toBe(0);
});

test('one step of the compiled kernel is the sum written out', () => {
  const d = new ClayDryer({
    clay: paper,
    stages: [{ start: 0, lattice: () => ballLattice(0.02, 6) }],
    spans: [span(open, shut)],
  });
  const { cells } = d;
  const random = seeded(9);
  for (let c = cells.pad; c < cells.pad + cells.count; c++) d.moisture[c] = 0.1 + 0.8 * random();
  const before = d.moisture.slice();
  d.restore({ ...d.state(), moisture: before, limit: 0, steps: 0 });
  const dt = 20;
  d.advance(dt);
  const [nx, ny] = cells.lattice.size;
  const growth = Math.log(paper.D_wet / paper.D_dry) / paper.w0;
  const u = (c: number) => (paper.D_dry * Math.exp(growth * before[c]!)) / growth;
  const leaves = new Float64Array(before.length);
  const solids = paper.rho_dry * cells.lattice.step ** 3;
  for (let f = 0; f < cells.outerFaces.count; f++) {
    const c = cells.outerFaces.cell[f]!;
    // What leaves, by a balance of its own: bisection on the moisture of the face.
    const gain = paper.rho_dry / cells.outerFaces.depth[f]!;
    let low = 0,
      high = before[c]!;
    const rate = (w: number) => {
      const a = 1 - Math.exp(-w / paper.w_m),
        i = Math.min(255, Math.floor(a * 256));
      return curve.fluxes[i]! + (curve.fluxes[i + 1]! - curve.fluxes[i]!) * (a * 256 - i);
    };
    for (let k = 0; k < 60; k++) {
      const w = (low + high) / 2;
      if (gain * (u(c) - (paper.D_dry * Math.exp(growth * w)) / growth) > rate(w)) low = w;
      else high = w;
    }
    leaves[c] = leaves[c]! + (rate(high) * cells.outerFaces.area[f]! * cells.inverse[c]!) / solids;
  }
  for (let c = cells.pad; c < cells.pad + cells.count; c++) {
    const i = cells.latticeOf[c - cells.pad]!;
    const from = (side: Float32Array, stride: number) =>
      side[c]! > 0 ? side[c]! * (u(cells.cellOf[i + stride]!) - u(c)) : 0;
    const back = cells.xp[c - 1]! > 0 ? cells.xp[c - 1]! * (u(c - 1) - u(c)) : 0;
    const sum =
      from(cells.xp, 1) +
      back +
      from(cells.yp, nx) +
      from(cells.ym, -nx) +
      from(cells.zp, nx * ny) +
      from(cells.zm, -nx * ny);
    const wanted = before[c]! + (dt / cells.lattice.step ** 2) * cells.inverse[c]! * sum - dt * leaves[c]!;
    expect(Math.abs(d.moisture[c]! - wanted)).toBeLessThan(3e-6);
  }
});

test('a form that is mirrored dries mirrored', () => {
  const d = new ClayDryer({
    clay: paper,
    stages: [
      { start: 0, lattice: () => lattice([24, 20, 20], 0.003, (x, y, z) => Math.hypot(x / 1.4, y, z * 1.2) - 0.02) },
    ],
    spans: [span(open, shut)],
  });
  d.advance(24 * hour);
  const { cells } = d;
  const [nx] = cells.lattice.size;
  for (let c = 0; c < cells.count; c++) {
    const i = cells.latticeOf[c]!;
    const other = cells.cellOf[i - (i % nx) + (nx - 1 - (i % nx))]!;
    if (cells.latticeOf[other - cells.pad] !== i - (i % nx) + (nx - 1 - (i % nx))) continue;
    expect(Math.abs(d.moisture[c + cells.pad]! - d.moisture[other]!)).toBeLessThan(2e-5);
  }
});

test.each([10, 20, 30, 45])(
  'a slab at %s degrees across the cells lets water through as a level one does',
  (degrees) => {
    // Water is what moves slowly, not air: the face is held, so that it is the way between cells that is tried.
    const thickness = 0.012,
      step = 0.003;
    const a = (degrees * Math.PI) / 180;
    const across = (x: number, z: number) => -x * Math.sin(a) + z * Math.cos(a) - step * 0.17;
    const d = new ClayDryer({
      clay: evenClay,
      stages: [
        {
          start: 0,
          lattice: () =>
            lattice(
              [40, 3, 40],
              step,
              (x, _y, z) => across(x, z) - thickness / 2,
              (x, _y, z) => across(x, z) + thickness / 2,
            ),
        },
      ],
      spans: [span({ curve: null, share: 1, fixed: 0.2 }, shut)],
    });
    // Crank, eq. 4.18: what is left in a sheet with one face held and the other shut.
    const crankSheet = (f: number) => {
      let sum = 0;
      for (let n = 0; n < 100; n++) {
        const k = ((2 * n + 1) * Math.PI) / 2;
        sum += (2 / k ** 2) * Math.exp(-(k ** 2) * f);
      }
      return sum;
    };
    // Its ends, cut off by the lattice, dry a little later; steep ones more so.
    const within = degrees <= 30 ? 0.02 : 0.05;
    for (const fourier of [0.1, 0.2]) {
      d.advance((fourier * thickness ** 2) / 1e-9);
      const left = (d.water() / d.solids() - 0.2) / 0.8;
      expect(Math.abs(left / crankSheet(fourier) - 1)).toBeLessThan(within);
    }
  },
);
