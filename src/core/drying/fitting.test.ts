import { clays } from '../catalogue';
import { seeded } from '../quantity';
import type { Weighing } from '../log';
import {
  bandOf,
  dryLayer,
  evaporationCurve,
  fitWeighings,
  isItDry,
  moistureAt,
  slips,
  type DryingFactors,
  type Forecaster,
} from '.';

const paper = clays.get('paper-clay')!.drying!;
const air = { temperature: 20, relativeHumidity: 0.5, speed: 0.1 };
const day = 86400;
const rest = 1.2;
const solids = 2.1;

/**
 * Sixteen millimetres of paper clay from one face, 2.1 kg of solids, on 1.2 kg of armature. The course is worked out on a
 * raster of factors and read between: a hundred fits ask for it some ten thousand times.
 */
const span = 1.1,
  parts = 12;
const lastDay = 14;
const raster = Array.from({ length: (parts + 1) ** 2 }, (_, k) => {
  const [e, d] = [k % (parts + 1), Math.floor(k / (parts + 1))].map((i) =>
    Math.exp(-span + (2 * span * i) / parts),
  ) as [number, number];
  const course = dryLayer({
    clay: { ...paper, D_wet: paper.D_wet * d, D_dry: paper.D_dry * d },
    geometry: 'slab',
    thickness: 0.016,
    innerFace: 0,
    phases: [{ until: Infinity, curve: evaporationCurve(air, 0, e), relativeHumidity: 0.5 }],
  });
  return {
    through: course.throughDry ?? Infinity,
    mean: Float64Array.from({ length: lastDay * 24 + 1 }, (_v, h) => moistureAt(course.history, h * 3600).meanMoisture),
  };
});
function between(f: DryingFactors, read: (r: (typeof raster)[number]) => number): number {
  const place = (v: number) => Math.min(parts - 1e-9, Math.max(0, ((Math.log(v) + span) / (2 * span)) * parts));
  const x = place(f.evaporation),
    y = place(f.diffusion),
    i = Math.floor(x),
    j = Math.floor(y);
  const at = (a: number, b: number) => read(raster[a + (parts + 1) * b]!);
  const low = at(i, j) + (at(i + 1, j) - at(i, j)) * (x - i),
    high = at(i, j + 1) + (at(i + 1, j + 1) - at(i, j + 1)) * (x - i);
  return low + (high - low) * (y - j);
}
const forecaster: Forecaster = (f) => (t) => {
  const h = Math.min(lastDay * 24 - 1e-6, Math.max(0, t / 3600)),
    k = Math.floor(h);
  return rest + f.amount * solids * (1 + between(f, (r) => r.mean[k]! + (r.mean[k + 1]! - r.mean[k]!) * (h - k)));
};

function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** A scale left under the piece and read every so often until it is nearly dry, each reading off by one percent of the water there was to lose. */
function weighed(truth: DryingFactors, seed: number, noise = 0.01, until = 9 * day, every = day / 3): Weighing[] {
  const random = seeded(seed);
  const model = forecaster(truth);
  const sd = noise * solids * paper.w0;
  const out: Weighing[] = [];
  for (let t = 0.2 * day; t < until; t += every) out.push({ time: t, mass: model(t) + sd * normal(random) });
  return out;
}

test('from weighings with one percent of noise the true factors come back, and the band holds the truth in nine of ten', () => {
  let factors = 0,
    ready = 0,
    later = 0;
  const off: number[] = [];
  for (let seed = 1; seed <= 60; seed++) {
    const random = seeded(seed + 1000);
    const truth = {
      evaporation: 0.75 + random() * 0.55,
      diffusion: 0.75 + random() * 0.55,
      amount: 0.97 + random() * 0.06,
    };
    const fit = fitWeighings(weighed(truth, seed, 0.01, 9 * day, 3600), forecaster, rest);
    const e = fit.factors.evaporation / truth.evaporation - 1,
      d = fit.factors.diffusion / truth.diffusion - 1;
    off.push(Math.abs(e), Math.abs(d));
    if (Math.abs(e) < 0.1 && Math.abs(d) < 0.1) factors += 1;
    const end = (f: DryingFactors) => between(f, (r) => r.through);
    const band = bandOf(fit, end);
    if (end(truth) >= band.low && end(truth) <= band.high) ready += 1;
    const at = 5.2 * day;
    const mass = bandOf(fit, (f) => forecaster(f)(at));
    if (forecaster(truth)(at) >= mass.low && forecaster(truth)(at) <= mass.high) later += 1;
  }
  expect(off.reduce((s, v) => s + v, 0) / off.length).toBeLessThan(0.04);
  expect(factors).toBeGreaterThanOrEqual(54);
  expect(ready).toBeGreaterThanOrEqual(54);
  expect(later).toBeGreaterThanOrEqual(54);
});

test('with two weighings it stays near what was known, and says how little it knows', () => {
  const truth = { evaporation: 1.2, diffusion: 0.8, amount: 1 };
  const few = fitWeighings(weighed(truth, 3, 0.01, 0.7 * day), forecaster, rest);
  const many = fitWeighings(weighed(truth, 3), forecaster, rest);
  expect(few.spread.diffusion).toBeGreaterThan(0.15);
  expect(many.spread.diffusion).toBeLessThan(few.spread.diffusion * 0.6);
  expect(many.spread.evaporation).toBeLessThan(few.spread.evaporation);
});

test.each([4, 12, 17])(
  'a reading with two digits changed is called out, and the others are not (reading %d)',
  (index) => {
    const truth = { evaporation: 0.9, diffusion: 1.1, amount: 1.01 };
    const readings = weighed(truth, 8, 0.003).map((r) => ({ ...r, mass: Math.round(r.mass * 100) / 100 }));
    const text = (readings[index] as Weighing).mass.toFixed(2);
    // 4.71 becomes 7.41: the first two figures of what the display showed.
    const slipped = Number(`${text[2]}.${text[0]}${text[3]}`);
    expect(Math.abs(slipped - Number(text))).toBeGreaterThan(0.2);
    const fit = fitWeighings(
      readings.map((r, i) => (i === index ? { ...r, mass: slipped } : r)),
      forecaster,
      0,
    );
    expect(fit.odd.map((o) => o.index)).toEqual([index]);
    expect(fit.odd[0]?.why).toBe('digit');
    expect(Math.abs((fit.odd[0]?.meant ?? 0) - Number(text))).toBeLessThan(0.05);
    expect(Math.abs(fit.factors.evaporation / truth.evaporation - 1)).toBeLessThan(0.1);
  },
);

test.each([
  ['a board left on the scale', 1],
  ['a board taken off twice', -1],
])('%s is told from a slipped digit, and what was meant is offered', (_, sign) => {
  const tare = 2.345;
  const readings = weighed({ evaporation: 1, diffusion: 1, amount: 1 }, 4, 0.002);
  const right = readings[6]!.mass;
  const fit = fitWeighings(
    readings.map((r, i) => (i === 6 ? { ...r, mass: right + sign * tare } : r)),
    forecaster,
    tare,
  );
  expect(fit.odd).toHaveLength(1);
  expect(fit.odd[0]).toMatchObject({ index: 6, why: 'tare' });
  expect(fit.odd[0]!.meant).toBeCloseTo(right, 9);
});

test('clean readings are not called odd', () => {
  for (let seed = 1; seed <= 20; seed++)
    expect(
      fitWeighings(weighed({ evaporation: 1.1, diffusion: 0.9, amount: 1 }, seed), forecaster, rest).odd.length,
    ).toBeLessThanOrEqual(1);
});

test('slips: neighbours changed, a figure misread, the point moved', () => {
  expect(slips(4.71)).toEqual(expect.arrayContaining([7.41, 4.17, 4.41, 47.1, 0.471]));
});

test.each([
  [
    [
      [0, 5],
      [9, 4.998],
    ],
    'dry',
  ],
  [
    [
      [0, 5],
      [9, 4.9],
    ],
    'not-yet',
  ],
  [
    [
      [0, 5],
      [3, 5],
    ],
    'unknown',
  ],
  [[[0, 5]], 'unknown'],
  [[], 'unknown'],
  // Over three nights a tenth of a percent a night is still steady; half a percent is not.
  [
    [
      [0, 5],
      [71, 4.988],
    ],
    'dry',
  ],
  [
    [
      [0, 5],
      [71, 4.97],
    ],
    'not-yet',
  ],
] as const)('is it dry? %j: %s', (hours, wanted) => {
  expect(isItDry(hours.map(([h, mass]) => ({ time: h * 3600, mass }))).answer).toBe(wanted);
});

test('a scale that cannot show a thousandth cannot say that it is dry', () => {
  expect(
    isItDry(
      [
        { time: 0, mass: 1 },
        { time: 10 * 3600, mass: 1 },
      ],
      0.005,
    ).answer,
  ).toBe('unknown');
});

test('a quarter of the readings may be set aside, and no more: past that the forecast is what is wrong', () => {
  const truth = { evaporation: 1, diffusion: 1, amount: 1 };
  const clean = weighed(truth, 11, 0.002);
  // Every so many is off, each half as much again as the one before: the worst of those left always stands out.
  const aside = (every: number) => {
    const wrong = clean.map((_, i) => i).filter((i) => i % every === 1);
    const spoilt = clean.map((r, i) =>
      wrong.includes(i) ? { ...r, mass: r.mass + 0.3 * 1.7 ** wrong.indexOf(i) } : r,
    );
    return [wrong.length, fitWeighings(spoilt, forecaster, 0).odd.length];
  };
  expect(clean).toHaveLength(27);
  expect(aside(6)).toEqual([5, 5]);
  expect(aside(3)).toEqual([9, 7]);
});
