import { capacityAt, compositeSection, joinSpring, sectionGeometry, setShare, type MetalPart } from '.';

const aluminium = (d: number, strands = 1, bonded = false): MetalPart => ({
  section: { shape: 'round', diameter: d },
  youngs: 69e9,
  strength: 45e6,
  brittle: false,
  strands,
  bonded,
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
      clay: { outer: 0.025, core: 0.015, yieldStress: 4000, grip: 0.4 },
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
      clay: { outer: 0.11, core: 0, yieldStress: tau, grip: 0.3 },
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
      clay: { outer: 0.03, core: 0.02, yieldStress: 4000, grip: 0.3 },
    });
    expect(s.clayMoment).toBe(0);
  });
});
