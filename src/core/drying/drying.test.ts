import { evenClay } from '../../../tests/support/even-clay';
import { clays, coverResistance } from '../catalogue';
import {
  crackIndex,
  dryLayer,
  equilibriumMoisture,
  evaporationAt,
  diffusionAt,
  evaporationCurve,
  readCurve,
  rigidRestraint,
  saturationPressure,
  type Geometry,
  type LayerDrying,
  type RoomAir,
} from '.';

const still: RoomAir = { temperature: 20, relativeHumidity: 0.5, speed: 0.1 };
const hour = 3600;

function job(clayId: string, mm: number, innerFace: number, air: RoomAir = still, cover = 0): LayerDrying {
  const clay = clays.get(clayId)!.drying!;
  return {
    clay,
    geometry: 'slab',
    thickness: mm / 1000,
    innerFace,
    phases: [
      {
        until: Infinity,
        curve: evaporationCurve(air, cover),
        relativeHumidity: air.relativeHumidity,
        diffusion: diffusionAt(air.temperature),
      },
    ],
  };
}

const within = (value: number | null, wanted: number, share = 0.1) => {
  expect(value).not.toBeNull();
  expect(Math.abs(value! / wanted - 1)).toBeLessThanOrEqual(share);
};

describe('evaporation', () => {
  test('saturation pressure stands where steam tables have it', () => {
    within(saturationPressure(20), 2339, 0.002);
    within(saturationPressure(40), 7384, 0.002);
  });

  test('a wet surface in a still room cools itself to about 15.9 degrees and gives off about 0.055 kg/m2h; a fan takes twice as much', () => {
    const e = evaporationAt(still, 1);
    expect(Math.abs(e.surfaceTemperature - 15.9)).toBeLessThan(0.15);
    within(e.flux * hour, 0.055, 0.02);
    within(evaporationAt({ ...still, speed: 1.5 }, 1).flux * hour, 0.118, 0.02);
    within(evaporationAt({ ...still, relativeHumidity: 0.85 }, 1).flux * hour, 0.016, 0.05);
  });

  test('heat in equals heat carried off', () => {
    const air = { temperature: 25, relativeHumidity: 0.4, speed: 0.8 };
    const { flux, surfaceTemperature } = evaporationAt(air, 0.9, 300);
    const h = Math.cbrt(27 + (7.5 * Math.sqrt(0.8)) ** 3) + 5.5;
    expect(h * (25 - surfaceTemperature)).toBeCloseTo(2.45e6 * flux, 6);
  });

  test('the table reads what it was made from', () => {
    const curve = evaporationCurve(still, 200);
    const out = new Float64Array(2);
    for (const a of [0, 0.123, 0.5, 0.777, 1]) {
      readCurve(curve, a, out);
      expect(out[0]!).toBeCloseTo(evaporationAt(still, a, 200).flux, 9);
    }
  });
});

/** Crank, *The Mathematics of Diffusion*, eqs 4.17, 5.22, 6.18: mean of what is left, fixed surface, constant D. */
function crank(geometry: Geometry, fourier: number): number {
  let sum = 0;
  if (geometry === 'slab') {
    for (let n = 0; n < 200; n++) {
      const k = (2 * n + 1) * Math.PI;
      sum += (8 / (k * k)) * Math.exp((-k * k * fourier) / 4);
    }
    return sum;
  }
  if (geometry === 'sphere') {
    for (let n = 1; n < 200; n++) sum += (6 / (Math.PI * n) ** 2) * Math.exp(-((Math.PI * n) ** 2) * fourier);
    return sum;
  }
  for (const zero of besselZeros) sum += (4 / zero ** 2) * Math.exp(-zero * zero * fourier);
  return sum;
}

/** Zeros of J0, by bisection of its integral form: no table to mistype. */
const besselZeros = (() => {
  const j0 = (x: number) => {
    let sum = 0;
    const n = 400;
    for (let i = 0; i < n; i++) sum += Math.cos(x * Math.sin((Math.PI * (i + 0.5)) / n));
    return sum / n;
  };
  return Array.from({ length: 60 }, (_, k) => {
    let low = (k + 0.75) * Math.PI - 0.3,
      high = low + 0.6;
    const sign = Math.sign(j0(low));
    for (let i = 0; i < 50; i++) {
      const middle = (low + high) / 2;
      if (Math.sign(j0(middle)) === sign) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  });
})();

describe('drying through the thickness', () => {
  test.each<Geometry>(['slab', 'cylinder', 'sphere'])(
    '%s agrees with the series for constant diffusion to 0.5 %%',
    (geometry) => {
      const L = 0.01;
      const fouriers = [0.02, 0.03, 0.05, 0.1, 0.2, 0.4, 0.7];
      const course = dryLayer({
        clay: evenClay,
        geometry,
        thickness: L,
        innerFace: 0,
        surfaceMoisture: 0.2,
        times: fouriers.map((f) => (f * L * L) / evenClay.D_wet),
        phases: [{ until: Infinity, curve: evaporationCurve(still), relativeHumidity: 0.5 }],
      });
      fouriers.forEach((f, i) => {
        const left = (course.history[i]!.meanMoisture! - 0.2) / 0.8;
        expect(Math.abs(left - crank(geometry, f))).toBeLessThan(0.005);
      });
    },
  );

  test.each([
    ['slab', 0],
    ['slab', 0.4],
    ['slab', 1],
    ['cylinder', 0],
    ['sphere', 0],
  ] as const)('water is kept in a %s, inner face %d', (geometry, innerFace) => {
    const course = dryLayer({ ...job('paper-clay', 9, innerFace), geometry });
    const first = course.history[0]!.massPerArea!;
    const last = course.history[course.history.length - 1]!.massPerArea!;
    expect(Math.abs((first - last) / course.evaporated - 1)).toBeLessThan(1e-6);
  });

  test('a slab open on both faces is two sealed halves', () => {
    const both = dryLayer(job('earthen-air-dry', 12, 1));
    const half = dryLayer(job('earthen-air-dry', 6, 0));
    within(both.throughDry, half.throughDry!, 0.01);
    within(both.touchDry, half.touchDry!, 0.01);
  });

  test('it settles at the moisture of the room', () => {
    const course = dryLayer({ ...job('paper-clay', 5, 0), times: [60 * 86400] });
    expect(course.history[0]?.meanMoisture).toBeCloseTo(equilibriumMoisture(0.5, 0.08), 4);
  });

  test.each(['earthen-air-dry', 'paper-clay', 'cold-porcelain'] as const)(
    'the states of %s are what the moisture is by then: skin four and eight tenths shrunk, half of all, a twentieth left',
    (clay) => {
      const one = job(clay, 8, 0);
      const { w0, w_sl } = one.clay;
      const course = dryLayer(one);
      const { smoothUntil, touchDry, leatherHard, throughDry, steady, equilibrium } = course;
      const order = [smoothUntil!, leatherHard!, touchDry!, throughDry!, steady!];
      expect(order.every(Number.isFinite)).toBe(true);
      const times = [...order].sort((a, b) => a - b);
      const { history } = dryLayer({ ...one, times });
      const at = (time: number) => history[times.indexOf(time)]!;
      const skin = (time: number) => (w0 - at(time).surfaceMoisture) / (w0 - w_sl);
      const left = (time: number) => (at(time).coreMoisture - equilibrium) / (w0 - equilibrium);
      expect(skin(smoothUntil!)).toBeCloseTo(0.4, 2);
      expect(skin(touchDry!)).toBeCloseTo(0.8, 2);
      expect(at(leatherHard!).shrinkageDone).toBeCloseTo(0.5, 2);
      expect(left(throughDry!)).toBeCloseTo(0.05, 3);
      expect(left(steady!)).toBeCloseTo(0.02, 3);
    },
  );

  test('in a room damper than its touch-dry moisture it never gets there, and says so', () => {
    const course = dryLayer(job('earthen-air-dry', 8, 0, { ...still, relativeHumidity: 0.995 }));
    expect(course.touchDry).toBeNull();
  });

  test.each([
    ['earthen-air-dry', 8, 0, 25, 67],
    ['earthen-air-dry', 8, 1, 12.4, 31],
    ['paper-clay', 8, 0, 45, 78],
    ['foam-air-dry', 10, 0, 27, 83],
    ['foam-air-dry', 10, 1, 14.8, 31],
    ['cold-porcelain', 4, 0, 15.4, 42],
  ] as const)('%s of %d mm, inner face %d: touch-dry %d h, through %d h', (clay, mm, inner, touch, through) => {
    const course = dryLayer(job(clay, mm, inner));
    within(course.touchDry, touch * hour, 0.06);
    within(course.throughDry, through * hour, 0.06);
  });

  test('20 mm of cold porcelain takes about 579 h', () =>
    within(dryLayer(job('cold-porcelain', 20, 0)).throughDry, 579 * hour, 0.03));

  test('in a warm room water moves 2.5 % faster a degree: where it is the inside that is waited for, time is cut by as much', () => {
    expect(diffusionAt(20)).toBe(1);
    expect(diffusionAt(30)).toBeCloseTo(Math.exp(0.25), 12);
    // A fixed surface waits for nothing but the inside.
    const fixed = (diffusion: number) =>
      dryLayer({
        ...job('paper-clay', 8, 0),
        surfaceMoisture: 0.1,
        phases: [{ until: Infinity, curve: evaporationCurve(still), relativeHumidity: 0.5, diffusion }],
      });
    expect(fixed(1).throughDry! / fixed(diffusionAt(30)).throughDry!).toBeCloseTo(diffusionAt(30), 2);
    // And the surface balances what comes with what leaves, faster diffusion or not: water is kept.
    const wet = dryLayer({
      ...job('paper-clay', 8, 0.5),
      phases: [{ until: Infinity, curve: evaporationCurve(still), relativeHumidity: 0.5, diffusion: diffusionAt(35) }],
    });
    const last = wet.history[wet.history.length - 1]!;
    const left = clays.get('paper-clay')!.drying!.rho_dry * 0.008 * (0.95 - last.meanMoisture);
    within(wet.evaporated, left, 1e-5);
  });

  test('a cover that comes off delays it, and no more than its own time', () => {
    const open = dryLayer(job('earthen-air-dry', 8, 0));
    const covered = dryLayer({
      ...job('earthen-air-dry', 8, 0),
      phases: [
        { until: 48 * hour, curve: evaporationCurve(still, coverResistance('bagged')), relativeHumidity: 0.5 },
        { until: Infinity, curve: evaporationCurve(still), relativeHumidity: 0.5 },
      ],
    });
    const later = covered.throughDry! - open.throughDry!;
    expect(later).toBeGreaterThan(40 * hour);
    expect(later).toBeLessThan(48 * hour);
  });
});

describe('cracking', () => {
  const index = (j: LayerDrying, restraint: number) => crackIndex(j.clay, j.thickness, dryLayer(j), restraint).total;

  test.each([
    ['foam-type on a foam head', job('foam-air-dry', 10, 0), 0.85, 1.6],
    ['paper clay on tight foil with twine', job('paper-clay', 10, 0), 0.4 * 0.6, 0.6],
    ['earthen on a bare pipe', job('earthen-air-dry', 12, 0), rigidRestraint, 5.8],
    ['earthen on loose paper', job('earthen-air-dry', 12, 0.3), 0.12, 1.2],
    ['a pinch pot', job('earthen-air-dry', 8, 1), 0, 0.2],
    ['cold porcelain on tight foil', job('cold-porcelain', 4, 0), 0.4, 0.8],
    ['earthen under loose plastic', job('earthen-air-dry', 25, 0, still, 1500), 0.12, 1.3],
  ] as const)('%s', (_, j, restraint, wanted) => within(index(j, restraint), wanted));

  test('foam-type lifted off and dried from both faces stays sound', () => {
    const i = index(job('foam-air-dry', 10, 1), 0.04);
    expect(i).toBeGreaterThan(0.1);
    expect(i).toBeLessThan(0.25);
  });

  test('thick cold porcelain and a fan on thick earthen clay crack', () => {
    expect(index(job('cold-porcelain', 20, 0), 0.12)).toBeGreaterThan(1.1);
    within(index(job('earthen-air-dry', 25, 0, { temperature: 28, relativeHumidity: 0.3, speed: 2 }), 0.12), 3.8);
  });

  test('the closed form of the restrained part is the integral', () => {
    const clay = clays.get('paper-clay')!.drying!;
    let sum = 0;
    const n = 20000;
    for (let i = 0; i < n; i++)
      sum += clay.shrinkage / n / (clay.capacityWet * (clay.capacityDry / clay.capacityWet) ** ((i + 0.5) / n));
    const course = dryLayer(job('paper-clay', 8, 0));
    expect(crackIndex(clay, 0.008, course, 1).perRestraint).toBeCloseTo(sum, 6);
  });
});
