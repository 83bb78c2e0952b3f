import { slabLattice } from '../../../tests/support/lattices';
import { clays } from '../catalogue';
import {
  ClayDryer,
  coreActivity,
  coreWaterIn,
  dryLayer,
  evaporationCurve,
  waterActivity,
  type DrinkingCore,
  type WholePieceJob,
} from '.';

const paper = clays.get('paper-clay')!.drying!,
  earthen = clays.get('earthen-air-dry')!.drying!;
const still = { temperature: 20, relativeHumidity: 0.5, speed: 0.1 };
const curve = evaporationCurve(still);
const hour = 3600;
const times = [6, 24, 48, 72, 96, 120, 200].map((h) => h * hour);

const coat = (core: DrinkingCore | undefined, innerFace = 0.3, clay = paper, room = curve) =>
  dryLayer({
    clay,
    geometry: 'slab',
    thickness: 0.01,
    innerFace,
    ...(core ? { core } : {}),
    phases: [{ until: Infinity, curve: room, relativeHumidity: 0.5 }],
    times,
  });

test('a core without end dries it as the room does, one that holds nothing as one that is sealed', () => {
  const room = coat(undefined),
    sealed = coat(undefined, 0);
  const endless = coat({ holds: 1000, breathes: 0 }),
    nothing = coat({ holds: 0, breathes: 0 }),
    slight = coat({ holds: 1e-4, breathes: 0 });
  expect(endless.throughDry! / room.throughDry!).toBeCloseTo(1, 2);
  expect(nothing.throughDry).toBe(sealed.throughDry);
  expect(slight.throughDry! / sealed.throughDry!).toBeCloseTo(1, 2);
  // Behind an open form half of the face stands to the room, whatever the core holds.
  expect(coat({ holds: 0, breathes: 0.5 }).throughDry).toBe(coat(undefined, 0.15).throughDry);
});

test('an unsealed core fills and gives back: a date a quarter to a third later than with an endless room behind it', () => {
  // A head of 160 mm filled with loose paper: a third of its radius, 80 kg/m3, a quarter of that in water.
  const holds = (0.08 / 3) * 80 * 0.25;
  for (const clay of [paper, earthen]) {
    const room = coat(undefined, 0.3, clay).throughDry!,
      drinks = coat({ holds, breathes: 0 }, 0.3, clay).throughDry!;
    expect(room / drinks).toBeGreaterThan(0.6);
    expect(room / drinks).toBeLessThan(0.75);
  }
  const { history } = coat({ holds, breathes: 0 });
  const most = Math.max(...history.map((p) => p.coreWater));
  expect(most).toBeGreaterThan(0.3 * holds);
  expect(most).toBeLessThan(holds);
  expect(history[history.length - 1]!.coreWater).toBeLessThan(0.2 * most);
});

test('nothing is lost: shut off from the room, clay and core come to one humidity and hold all the water', () => {
  const sealedOutside = new ClayDryer({
    clay: paper,
    stages: [{ start: 0, lattice: () => slabLattice(0.01, 0.002) }],
    spans: [
      {
        until: Infinity,
        outer: [{ curve: null, share: 0 }],
        inner: [{ curve, share: 1 }],
        resting: null,
        onCore: true,
        key: 'shut',
      },
    ],
    initialMoisture: 0.4,
    cores: { under: [{ holds: 2e-4, breathes: 0 }], humidity: 0.5 },
  });
  const first = sealedOutside.water() + sealedOutside.coreWater[0]!;
  sealedOutside.advance(400 * hour);
  expect(sealedOutside.water() + sealedOutside.coreWater[0]!).toBeCloseTo(first, 9);
  const w = sealedOutside.water() / sealedOutside.solids();
  const a = coreActivity({ holds: 2e-4, breathes: 0 }, sealedOutside.coreWater[0]!);
  // A step of what a core gives is a fiftieth.
  expect(Math.abs(a - waterActivity(w, paper.w_m))).toBeLessThan(0.03);
});

test('it begins as damp as the room, and is as damp as the room again at the end', () => {
  const core = { holds: 0.5, breathes: 0 };
  expect(coreActivity(core, coreWaterIn(core, 0.5))).toBeCloseTo(0.5, 12);
  const long = dryLayer({
    clay: paper,
    geometry: 'slab',
    thickness: 0.004,
    innerFace: 0.3,
    core,
    phases: [{ until: Infinity, curve, relativeHumidity: 0.5 }],
    times: [1000 * hour],
  });
  expect(Math.abs(long.history[0]!.coreWater)).toBeLessThan(1e-4);
});

/** A slab on a core that drinks, as cells: `holds` is for all of it. */
function cells(core: DrinkingCore, area: number): WholePieceJob {
  return {
    clay: paper,
    stages: [{ start: 0, lattice: () => slabLattice(0.01, 0.002) }],
    spans: [
      {
        until: Infinity,
        outer: [{ curve, share: 1 }],
        inner: [{ curve, share: 0.3 }],
        resting: null,
        onCore: true,
        key: 'on',
      },
    ],
    cores: { under: [{ ...core, holds: core.holds * area }], humidity: 0.5 },
  };
}

test.each([
  ['paper', { holds: 0.5, breathes: 0 }],
  ['a cloth', { holds: 0.05, breathes: 0 }],
  ['open behind', { holds: 0.5, breathes: 0.5 }],
  ['nothing', { holds: 0, breathes: 0 }],
] as const)('cell by cell it dries as through one thickness, on %s', (_, core) => {
  const course = coat(core);
  const plain = new ClayDryer(cells(core, 1));
  let area = 0;
  for (let f = 0; f < plain.cells.innerFaces.count; f++) area += plain.cells.innerFaces.area[f]!;
  const d = new ClayDryer(cells(core, area));
  const first = d.water();
  const dry = d.coreWater[0]!;
  times.forEach((t, i) => {
    d.advance(t);
    const p = course.history[i]!;
    expect(Math.abs(d.water() / d.solids() - p.meanMoisture)).toBeLessThan(0.008);
    expect(Math.abs((d.coreWater[0]! - dry) / area - p.coreWater)).toBeLessThan(0.06 * core.holds + 1e-6);
    expect(Math.abs(first - d.water() - d.evaporated) / first).toBeLessThan(1e-6);
  });
});

test('put away and taken up again with its core, it comes to the same, to the last bit', () => {
  const job = cells({ holds: 0.5, breathes: 0 }, 4e-4);
  const plain = new ClayDryer(job);
  plain.advance(30 * hour);
  let d = new ClayDryer(job);
  while (!d.advance(30 * hour, 13)) {
    const kept = structuredClone(d.state());
    d = new ClayDryer(job);
    d.restore(kept);
  }
  expect(d.coreWater[0]).toBe(plain.coreWater[0]);
  expect(Buffer.compare(Buffer.from(d.moisture.slice().buffer), Buffer.from(plain.moisture.slice().buffer))).toBe(0);
});
