import {
  capacityAt,
  capacityParts,
  compositeSection,
  joinSpring,
  sectionGeometry,
  setShare,
  threaded,
  type MetalPart,
} from '.';

const aluminium = (d: number, strands = 1, bonded = false): MetalPart => ({
  section: { shape: 'round', diameter: d },
  youngs: 69e9,
  strength: 45e6,
  brittle: false,
  strands,
  bonded,
});

test('a thread takes one wall off the outside of a pipe: 0.45 of what a 21.3 mm one stands, elastic; 0.43 plastic', () => {
  const pipe = { shape: 'tube', diameter: 0.0213, wall: 0.00277 } as const;
  const whole = sectionGeometry(pipe),
    cut = sectionGeometry(threaded(pipe));
  expect(threaded(pipe)).toMatchObject({ diameter: 0.0213 - 0.00277 });
  expect(cut.elasticModulus / whole.elasticModulus).toBeCloseTo(0.448, 3);
  const part: MetalPart = { section: pipe, youngs: 2e11, strength: 205e6, brittle: false, strands: 1, bonded: false };
  const s = compositeSection({ metal: [part], bulk: null, clay: null });
  const share = (0.01853 ** 3 - 0.01576 ** 3) / (0.0213 ** 3 - 0.01576 ** 3);
  expect(capacityAt(s, 1, true).moment / capacityAt(s, 1).moment).toBeCloseTo(share, 9);
  expect(capacityAt(s, 1, true).axial / capacityAt(s, 1).axial).toBeCloseTo(
    (0.01853 ** 2 - 0.01576 ** 2) / (0.0213 ** 2 - 0.01576 ** 2),
    9,
  );
  // Wire and bar are not cut.
  expect(threaded({ shape: 'round', diameter: 0.004 })).toEqual({ shape: 'round', diameter: 0.004 });
});

test('what a section takes is the sum of what is shown of it, brittle or not', () => {
  const clay = { outer: 0.06, core: 0.04, yieldStress: 8000, margin: 1.5, grip: 1 };
  const bulk = { diameter: 0.04, stiffness: 3e6, crushing: 6e4 };
  const steel: MetalPart = {
    section: { shape: 'round', diameter: 0.003 },
    youngs: 2e11,
    strength: 235e6,
    brittle: false,
    strands: 2,
    bonded: false,
  };
  const dowel: MetalPart = {
    ...steel,
    section: { shape: 'round', diameter: 0.02 },
    youngs: 12e9,
    strength: 30e6,
    brittle: true,
    strands: 1,
  };
  for (const metal of [[steel], [dowel], [steel, dowel]])
    for (const e of [1, 0.7, 0.3]) {
      const s = compositeSection({ metal, bulk, clay });
      const parts = capacityParts(s, e);
      expect(parts.metal + parts.bulk + parts.clay).toBeCloseTo(capacityAt(s, e).moment, 12);
      expect(Math.min(parts.metal, parts.bulk, parts.clay)).toBeGreaterThan(0);
    }
  // By stiffness at the first crack, when that comes after everything soft has given way.
  const s = compositeSection({ metal: [dowel], bulk, clay });
  expect(capacityParts(s, 1).metal).toBeCloseTo((30e6 * Math.PI * 0.02 ** 3) / 32, 9);
});

describe('sections by hand', () => {
  test('round, tube, flat', () => {
    expect(sectionGeometry({ shape: 'round', diameter: 0.004 }).inertia).toBeCloseTo((Math.PI * 0.004 ** 4) / 64, 20);
    expect(sectionGeometry({ shape: 'round', diameter: 0.004 }).plasticModulus * 45e6).toBeCloseTo(0.48, 6);
    const pipe = sectionGeometry({ shape: 'tube', diameter: 0.0213, wall: 0.00277 });
    expect(pipe.area * 7850).toBeCloseTo(1.266, 2);
    expect(sectionGeometry({ shape: 'flat', width: 0.02, height: 0.003 }).plasticModulus).toBeCloseTo(
      (0.02 * 0.003 ** 2) / 4,
      15,
    );
    // A thick square's torsion constant is 0.1406 b4.
    expect(sectionGeometry({ shape: 'flat', width: 0.01, height: 0.01 }).torsion / 1e-8).toBeCloseTo(0.1406, 2);
  });
  test('strands side by side add; bonded they are stiffer, never weaker', () => {
    const one = compositeSection({ metal: [aluminium(0.003)], bulk: null, clay: null });
    const three = compositeSection({ metal: [aluminium(0.003, 3)], bulk: null, clay: null });
    const glued = compositeSection({ metal: [aluminium(0.003, 3, true)], bulk: null, clay: null });
    expect(three.EI / one.EI).toBeCloseTo(3, 9);
    // Three round a triangle: 3 I + A d2/2 = 11 I, of which seven tenths count.
    expect(glued.EI / one.EI).toBeCloseTo(0.7 * 11, 6);
    expect(glued.metalMoment).toBeCloseTo(three.metalMoment, 12);
  });
  test('a brittle stick breaks for the whole', () => {
    const dowel: MetalPart = {
      section: { shape: 'round', diameter: 0.012 },
      youngs: 12e9,
      strength: 95e6 / 3,
      brittle: true,
      strands: 1,
      bonded: false,
    };
    const s = compositeSection({ metal: [dowel], bulk: null, clay: null });
    expect(capacityAt(s, 1).moment).toBeCloseTo(((95e6 / 3) * (Math.PI * 0.012 ** 3)) / 32, 9);
  });
  test('join springs', () => {
    expect(joinSpring(1, 10)).toBe(Infinity);
    expect(joinSpring(0.6, 10)).toBeCloseTo(60, 9);
  });
  test('a wire keeps nothing below yield, some above, all when it folds', () => {
    expect(setShare(0.6)).toBe(0);
    expect(setShare(0.9)).toBeGreaterThan(0.3);
    expect(setShare(1)).toBe(Infinity);
  });
});

describe('evidence', () => {
  const g = 9.81;
  const limb = (wires: number) => {
    const clay = (Math.PI / 4) * (0.025 ** 2 - 0.015 ** 2) * 0.12 * 1650,
      foil = (Math.PI / 4) * 0.015 ** 2 * 0.12 * 600;
    const demand = (clay + foil) * g * 0.06;
    const s = compositeSection({
      metal: wires > 0 ? [aluminium(0.002, wires)] : [],
      bulk: { diameter: 0.015, stiffness: 3e6, crushing: 60e3 },
      clay: { outer: 0.025, core: 0.015, yieldStress: 4000, margin: 1.5, grip: 0.4 },
    });
    return { demand, capacity: capacityAt(s, 1).moment, utilisation: (1.5 * demand) / capacityAt(s, 1).moment };
  };
  const within = (value: number, wanted: number) => expect(Math.abs(value / wanted - 1)).toBeLessThan(0.1);

  test('a foil-only limb under epoxy clay fails; one wire holds it, two easily', () => {
    within(limb(0).demand, 0.044);
    within(limb(0).capacity, 0.045);
    within(limb(0).utilisation, 1.5);
    within(limb(1).utilisation, 0.63);
    within(limb(2).utilisation, 0.4);
  });

  const neck = (tau: number, efficiency: number) => {
    const s = compositeSection({
      metal: [aluminium(0.0048, 4)],
      bulk: null,
      clay: { outer: 0.11, core: 0, yieldStress: tau, margin: 1.5, grip: 0.3 },
    });
    return (1.5 * 5 * g * 0.04) / capacityAt(s, efficiency).moment;
  };
  test('a solid head of 5 kg leaning on four loop legs', () => {
    within(neck(8000, 1), 0.5);
    within(neck(8000, 0.7), 0.63);
    within(neck(2500, 1), 0.7);
  });
  test('a sleeve that cannot grip its core carries nothing', () => {
    const s = compositeSection({
      metal: [aluminium(0.003)],
      bulk: null,
      clay: { outer: 0.03, core: 0.02, yieldStress: 4000, margin: 1.5, grip: 0.3 },
    });
    expect(s.clayMoment).toBe(0);
  });
});
