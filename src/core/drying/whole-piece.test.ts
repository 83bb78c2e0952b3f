import { lattice } from '../../../tests/support/lattices';
import { clays } from '../catalogue';
import { seeded } from '../quantity';
import {
  dryLayer,
  equilibriumMoisture,
  evaporationCurve,
  WholePieceRun,
  type FaceConditions,
  type WholeDrying,
} from '.';
import { miscutShare, wettestButShare } from './miscut';

const clay = clays.get('cold-porcelain')!.drying!;
const curve = evaporationCurve({ temperature: 20, relativeHumidity: 0.5, speed: 0.1 });
const shut: FaceConditions = { curve: null, share: 0 };
const hour = 3600;

/** A thin coat over a lens, sharp at its rim and askew to the cells, dried on a core that takes nothing. */
function dried(step: number, coat: number, goesOnAt?: number): WholeDrying {
  const n = 2 * Math.ceil((0.05 + 4 * step) / step);
  const lens = (x: number, y: number, z: number) => {
    const a = 0.8 * x + 0.6 * y,
      b = 0.8 * y - 0.6 * x;
    return Math.max(Math.hypot(a - 0.03, b, z), Math.hypot(a + 0.03, b, z)) - 0.055;
  };
  const cells = () => lattice([n, n, n], step, lens, (x, y, z) => lens(x, y, z) + coat);
  const watch = { thickness: [coat], restraintAt: (places: Float32Array) => new Float32Array(places.length / 3) };
  const starts = goesOnAt === undefined ? [0] : [0, goesOnAt];
  const run = new WholePieceRun({
    clay,
    stages: starts.map((start) => ({ start, lattice: cells })),
    spans: [{ until: Infinity, outer: [{ curve, share: 1 }], inner: [shut], resting: null, key: 'only' }],
    watched: starts.map((_, k) => ({ ...watch, continues: k > 0 })),
    regions: ['lens'],
    times: Array.from({ length: 150 }, (_, i) => (i + 1) * hour),
    freeFrom: Infinity,
    equilibrium: equilibriumMoisture(0.5, clay.w_m),
    crackLimit: 1,
  });
  while (!run.work(400));
  return run.result();
}

test('a coat as thin as its cells are wide is dry when one cut finely is, badly cut cells or not', () => {
  const coat = 0.003;
  const slab = dryLayer({
    clay,
    geometry: 'slab',
    thickness: coat,
    innerFace: 0,
    phases: [{ until: Infinity, curve, relativeHumidity: 0.5 }],
  });
  const [byFine, byCoarse] = [dried(0.001, coat), dried(0.0033, coat)];
  const fine = byFine.regions[0]!.throughDry!,
    coarse = byCoarse.regions[0]!.throughDry!;
  // What was in it has left or is there still.
  for (const { balance } of [byFine, byCoarse]) expect(Math.abs(balance)).toBeLessThan(1e-9);
  expect(coarse / fine).toBeGreaterThan(0.9);
  expect(coarse / fine).toBeLessThan(1.3);
  expect(fine / slab.throughDry!).toBeLessThan(1.3);
});

test('a stage that brings no clay goes on with what is drying: its hours count from the clay, not from the stage', () => {
  const coat = 0.003;
  const whole = dried(0.0033, coat).regions[0]!;
  const cut = dried(0.0033, coat, Math.max(whole.touchDry!, whole.leatherHard!) + 2 * hour).regions[0]!;
  for (const key of ['touchDry', 'leatherHard', 'hold', 'throughDry'] as const)
    expect(Math.abs(cut[key]! - whole[key]!)).toBeLessThan(0.05 * whole.throughDry!);
});

test('what cutting may misplace: nothing of a coat three cells thick, three thousandths of one as thin as a cell', () => {
  expect(miscutShare(0.001, 0.003, 0.5)).toBe(0);
  expect(miscutShare(0.003, 0.003, 0)).toBeCloseTo(0.003, 12);
  expect(miscutShare(0.009, 0.003, 0)).toBeCloseTo(0.003, 12);
  // A stage that brings no clay to a region leaves its cells as they were.
  expect(miscutShare(0.003, 0, 0.002)).toBe(0.002);
});

test('the moisture all but a share of the clay lies below, as found by sorting', () => {
  const random = seeded(5);
  const count = 5000,
    pad = 3;
  const region = new Uint8Array(count + 2 * pad),
    inverse = new Float32Array(count + 2 * pad),
    moisture = new Float64Array(count + 2 * pad);
  const leftOut = new Uint8Array(count);
  for (let c = 0; c < count; c++) {
    region[c + pad] = c % 2;
    inverse[c + pad] = 1 / (0.45 + random());
    moisture[c + pad] = 0.05 + random() ** 3 * 0.4;
    leftOut[c] = random() < 0.01 ? 1 : 0;
  }
  const marks = wettestButShare({ count, pad, region, inverse }, moisture, leftOut, [0.003, 0], 0.05, 0.45);
  expect(marks[1]).toBe(Infinity);
  const own = Array.from({ length: count }, (_, c) => c).filter((c) => region[c + pad] === 0 && leftOut[c] === 0);
  own.sort((a, b) => moisture[b + pad]! - moisture[a + pad]!);
  let left = own.reduce((sum, c) => sum + 1 / inverse[c + pad]!, 0) * 0.003;
  const at = own.find((c) => (left -= 1 / inverse[c + pad]!) < 0)!;
  expect(Math.abs(marks[0]! - moisture[at + pad]!)).toBeLessThan(0.4 / 1000);
});
