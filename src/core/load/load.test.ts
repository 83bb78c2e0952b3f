import { atItsEnd, atRest, checkRods, type RodFrame } from '../../../tests/support/rods';
import { stocks } from '../catalogue';
import { convexHull, gravity as g, type Vec3 } from '../quantity';
import {
  centreOf,
  checkBase,
  contactsOf,
  counterweightAt,
  counterweightPlace,
  lifeStages,
  pathCentre,
  screwWithdrawal,
  situationStages,
  stanceOnRoad,
  stanceOn,
  edgeOfTable,
  fitsIn,
  groundUnder,
  hangFrom,
  liftOf,
  rampPush,
  recommendedWeight,
  throughDoor,
  upwardShares,
  uprightThroughDoor,
  usualWornLimits,
  vehicles,
  wallPull,
  wearOn,
} from '.';

describe('standing up', () => {
  const board = contactsOf({ width: 0.4, depth: 0.3, at: [0, 0], standing: 'flat' } as never);
  test('a weight in the middle tips over the nearer edge at atan(d/h)', () => {
    const s = stanceOn(board, 10, [0, 0, 0.3], 0, 0.6);
    expect(s.tipAngle).toBeCloseTo((Math.atan(0.15 / 0.3) * 180) / Math.PI, 9);
    expect(s.push).toBeCloseTo((10 * 9.81 * 0.15) / 0.6, 9);
    expect(['front', 'back']).toContain(s.towards);
  });
  test('forward of the edge it falls by itself', () =>
    expect(stanceOn(board, 5, [0, -0.2, 0.3], 0, 0.5)).toMatchObject({ towards: 'front', push: 0 }));
  test('to the sculpture’s own left', () => expect(stanceOn(board, 5, [0.17, 0, 0.3], 0, 0.5).towards).toBe('left'));
  test('ballast brings the lean to what was asked', () => {
    const s = stanceOn(board, 8, [0, -0.11, 0.5], 0, 0.6);
    const m = counterweightAt(s, 0, [0, 0, 0], 20);
    const together = centreOf([
      { mass: 8, at: [0, -0.11, 0.5] },
      { mass: m, at: [0, 0, 0] },
    ]);
    expect(stanceOn(board, together.mass, together.at, 0, 0.6).tipAngle).toBeCloseTo(20, 6);
    expect(counterweightAt(stanceOn(board, 8, [0, 0, 0.1], 0, 0.6), 0, [0, 0, 0], 20)).toBe(0);
  });
  test('out beyond the far edge a weight that brings the near one round takes it over the other way: none will do', () => {
    const s = stanceOn(board, 8, [0, -0.14, 0.5], 0, 0.6);
    // Short by M (h tan 30 - d) = 2.22 kg m about the front edge, 0.35 m from the weight; 0.06 about the back one at 29 degrees.
    expect(counterweightAt(s, 0, [0, 0.2, 0], 12)).toBeCloseTo((8 * (0.5 * Math.tan(Math.PI / 15) - 0.01)) / 0.35, 9);
    expect(counterweightAt(s, 0, [0, 0.2, 0], 30)).toBe(Infinity);
  });
  test('a counterweight for a place, and a place for a weight, agree; both balance about the edge', () => {
    const s = stanceOn(board, 8, [0, -0.12, 0.5], 0, 0.6);
    const at = [0, 0.14, 0.02] as const;
    const kg = counterweightAt(s, 0, at, 12);
    const together = centreOf([
      { mass: 8, at: [0, -0.12, 0.5] },
      { mass: kg, at },
    ]);
    expect(stanceOn(board, together.mass, together.at, 0, 0.6).tipAngle).toBeCloseTo(12, 6);
    // The front edge lies at y = -0.15: the weight is 0.29 m in from it.
    expect(counterweightPlace(s, 0, kg, 0.02, 12)).toBeCloseTo(0.29, 9);
    expect(counterweightAt(s, 0, [0, -0.2, 0], 12)).toBe(Infinity);
  });
  test('feet and casters stand in from the edge; one point of contact holds nothing up', () => {
    const base = { width: 0.4, depth: 0.3, thickness: 0.018, at: [0, 0.1], standing: 'casters' } as never;
    expect(contactsOf(base)[0]?.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([-0.15, 0]);
    expect(groundUnder(base)).toBeCloseTo(-0.108, 9);
    expect(stanceOn([[0, 0]], 1, [0.01, 0, 0.2], 0, 0.3).tipAngle).toBeLessThan(0);
    expect(
      edgeOfTable(base, stanceOn(contactsOf(base), 10, [0, 0.1, 0.2], groundUnder(base), 0.4), 10).slidesAt,
    ).toBeCloseTo(0.03 * 10 * 9.81, 9);
  });
  test('over the edge of a table: as far in as keeps its lean, on the side it is weakest', () => {
    // 10 kg whose centre is 0.2 m up and 0.12 m in from the front edge: leaning 10 degrees takes 0.2 tan 10 of that.
    const base = { width: 0.4, depth: 0.3, thickness: 0, at: [0, 0], standing: 'flat' } as never;
    const s = stanceOn(contactsOf(base), 10, [0, -0.03, 0.2], groundUnder(base), 0.4);
    expect(edgeOfTable(base, s, 10).overhang).toBeCloseTo(0.12 - 0.035265, 5);
    expect(edgeOfTable(base, s, 40).overhang).toBe(0);
  });
  test('hull of scattered feet', () => {
    expect(
      convexHull([
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
        [0.5, 0.5],
        [0.2, 0.9],
      ]),
    ).toHaveLength(4);
    expect(
      convexHull([
        [0, 0],
        [1, 1],
      ]),
    ).toHaveLength(2);
  });
});

test('flange screws by hand: M = 20 Nm, screws in a square on a 70 mm circle, flange 90 mm', () => {
  // Rows at 45 - 24.7 = 20.3 mm and 45 + 24.7 = 69.7 mm from the edge it turns about; two screws a row.
  const near = 0.045 - 0.035 / Math.SQRT2,
    far = 0.045 + 0.035 / Math.SQRT2;
  const pull = (20 * far) / (2 * (near ** 2 + far ** 2));
  const base = {
    stock: 'plywood',
    thickness: 0.018,
    flangeDiameter: 0.09,
    screws: { count: 4, diameter: 0.004, threadLength: 0.016, circle: 0.07 },
  } as never;
  const check = checkBase(base, 20, 1.5, 640, 40e6 / 3);
  expect(check.screwPull).toBeCloseTo(pull, 6);
  expect(check.screwAllowed).toBeCloseTo((0.9 * 108.25 * 0.4096 * 4 * 16) / 5, 6);
  // Board strip 126 mm wide: 10 Nm a side over b t2/6.
  expect(check.boardUtilisation).toBeCloseTo(10 / ((0.126 * 0.018 ** 2) / 6) / (40e6 / 3), 6);
});

test('a screw in each kind of board by hand: 4 mm thick, 16 mm in it', () => {
  const allowed = (board: string, gravity: number) => screwWithdrawal(board, gravity, 0.004, 0.016) / 5;
  // Pressed boards: 41.1 x 2 x 14.667^1.25 x 0.68^2 = 1091 N, of which a fifth.
  expect(allowed('chipboard', 0.68)).toBeCloseTo(218.2, 0);
  expect(allowed('mdf', 0.68) / allowed('chipboard', 0.68)).toBeCloseTo(1.1, 9);
  expect(allowed('softwood', 0.45)).toBeCloseTo((108.25 * 0.2025 * 64) / 5, 9);
  expect(allowed('plywood', 0.45) / allowed('softwood', 0.45)).toBeCloseTo(0.9, 9);
  // Short of the point's taper nothing holds.
  expect(screwWithdrawal('chipboard', 0.68, 0.004, 0.001)).toBe(0);
});

test('moments: each coat over dry ones, the road only for what travels', () => {
  const input = {
    situation: 'moved',
    hasBulk: true,
    coats: [[0.006, 0.004], [0.01]],
    wetDensity: 1000,
    dryDensity: 600,
    dries: true,
  } as const;
  const all = lifeStages(input);
  expect(all.map((m) => m.id)).toEqual(['bare', 'bulk', 'clay-1', 'clay-2', 'dry', 'moved']);
  expect(all[2]?.clayDensity).toEqual([600, 1000]);
  expect(all[3]?.clayDensity[0]).toBeCloseTo((0.006 * 600 + 0.004 * 1000) / 0.01, 9);
  expect(all[3]?.clayDensity[1]).toBe(600);
  expect(lifeStages({ ...input, situation: 'bench', hasBulk: false }).map((m) => m.id)).toEqual([
    'bare',
    'clay-1',
    'clay-2',
    'dry',
  ]);
});

test('the middle of a bent wire is by length, not by corner', () => {
  // 2 m centred at (1, 0) and 1 m centred at (2, 1/2).
  const [x, y] = pathCentre([
    [0, 0, 0],
    [2, 0, 0],
    [2, 1, 0],
  ]);
  expect(x).toBeCloseTo(4 / 3, 12);
  expect(y).toBeCloseTo(1 / 6, 12);
  expect(
    pathCentre([
      [1, 1, 1],
      [1, 1, 1],
    ]),
  ).toEqual([1, 1, 1]);
});

describe('hanging, wall and worn, by statics', () => {
  test('one point: it turns until its weight hangs below', () => {
    const h = hangFrom([[0, 0, 1]], 4, [0.1, 0, 0.9]);
    expect(h.pulls).toEqual([4 * 9.81]);
    expect(h.tilt).toBeCloseTo(45, 9);
  });
  test('two points share as a lever does, and it swings about the line through them', () => {
    const h = hangFrom(
      [
        [0.3, 0, 1],
        [-0.1, 0, 1],
      ],
      10,
      [0, 0.05, 0.95],
    );
    expect(h.pulls[0]).toBeCloseTo(98.1 * 0.25, 3);
    expect(h.pulls[1]).toBeCloseTo(98.1 * 0.75, 3);
    expect(h.tilt).toBeCloseTo(45, 6);
    expect(h.slack).toBe(false);
    expect(
      hangFrom(
        [
          [0.3, 0, 1],
          [0.1, 0, 1],
        ],
        10,
        [0, 0, 0.9],
      ).slack,
    ).toBe(true);
  });
  test('three points balance force and both moments; points in a row still share out', () => {
    const points = [
      [0.2, 0.1, 0],
      [-0.25, 0.05, 0],
      [0.03, -0.3, 0],
    ] as const;
    const centre = [0.01, -0.02, 0.4] as const;
    const s = upwardShares(points, centre);
    expect(s.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
    for (const k of [0, 1] as const)
      expect(s.reduce((sum, v, i) => sum + v * (points[i] as readonly number[])[k]!, 0)).toBeCloseTo(centre[k], 6);
    expect(
      upwardShares(
        [
          [0, 0, 0],
          [0, 0, 0],
        ],
        [0, 0, 1],
      ),
    ).toEqual([0.5, 0.5]);
  });
  test('a wall plate: weight times how far it stands out, over its height, in the upper screws', () => {
    const w = wallPull(6, 0.2, 0.3, 4);
    expect(w.tension).toBeCloseTo((6 * 9.81 * 0.2) / 0.3 / 2, 9);
    expect(w.shear).toBeCloseTo((6 * 9.81) / 4, 9);
  });
  test('worn: the user’s own limits go before the usual ones; leverage is weight times arm', () => {
    const straps = [
      { id: 'a', name: 'a', at: [0.1, 0, 0.2] as [number, number, number] },
      { id: 'b', name: 'b', at: [-0.1, 0, 0.2] as [number, number, number] },
    ];
    const own = wearOn(
      { kind: 'worn', where: 'shoulder', hours: 3, watchFrom: null, failsFrom: 2.5, straps },
      1.2,
      [0.05, 0, 0.2],
      [0, 0, 0],
    );
    expect(own).toMatchObject({ watchFrom: usualWornLimits.shoulder.watchFrom, failsFrom: 2.5, towards: 'left' });
    expect(own.leverage).toBeCloseTo(1.2 * 9.81 * 0.05, 9);
    expect(own.straps.map((x) => x.share)).toEqual([expect.closeTo(0.75, 9), expect.closeTo(0.25, 9)]);
  });
});

describe('lifting and moving', () => {
  test('the equation as NIOSH works it: 23 kg at its best, less as the hands go out', () => {
    expect(recommendedWeight({ hold: 0.25, from: 0.75, rise: 0.25, coupling: 1 })).toBeCloseTo(23, 9);
    // HM 25/40, VM 1 - 0.003 x 35, DM 0.82 + 4.5/70, CM 0.95, by hand.
    expect(recommendedWeight({ hold: 0.4, from: 0.4, rise: 0.7 })).toBeCloseTo(
      23 * 0.625 * 0.895 * (0.82 + 4.5 / 70) * 0.95,
      9,
    );
    expect(recommendedWeight({ hold: 0.7, from: 0.75, rise: 0.5 })).toBe(0);
  });
  test('people by share of the limit, and past four a hoist', () => {
    const size = { width: 0.4, depth: 0.3, height: 0.6 };
    expect(liftOf({ mass: 5, ...size }).people).toBe(1);
    expect(liftOf({ mass: 30, ...size }).people).toBeGreaterThan(1);
    expect(liftOf({ mass: 400, ...size }).people).toBe(Infinity);
  });
  test('doors: turned any way, or kept upright', () => {
    const plank = { mass: 1, width: 0.5, depth: 0.6, height: 2.2 };
    const door = { width: 0.76, height: 1.98 };
    expect(throughDoor(plank, door)).toBe(true);
    expect(uprightThroughDoor(plank, door)).toBe(false);
    expect(throughDoor({ ...plank, width: 0.9, depth: 0.9 }, door)).toBe(false);
  });
  test('vehicles grow, and what fits a smaller one fits a larger', () => {
    for (let h = 0.2; h < 2; h += 0.1) {
      const piece = { mass: 1, width: 0.5 * h, depth: 0.6 * h, height: h };
      const fits = vehicles.map((v) => fitsIn(piece, v));
      expect([...fits].sort()).toEqual(fits);
    }
  });
  test('a ramp pushes back with its slope', () =>
    expect(rampPush(100, 10)).toBeCloseTo(981 * (Math.sin(Math.PI / 18) + 0.03 * Math.cos(Math.PI / 18)), 6));
});

test('on the road: tipping under what strength is judged under, about the edge it pushes towards; or it slides', () => {
  const square = [
    [-0.2, -0.15],
    [0.2, -0.15],
    [0.2, 0.15],
    [-0.2, 0.15],
  ] as const;
  const road = situationStages({ coats: [], dryDensity: 0 }).find((s) => s.id === 'moved')!;
  const on = (centre: Vec3, friction = 0.35) =>
    stanceOnRoad(stanceOn(square, 10, centre, 0, 1), 0, friction, road.accelerations, road.causes)!;
  // Centre 0.5 m up and 0.15 m inside its front: it stands 0.3 of its weight pushing level, braking asks 0.8.
  const tall = on([0, 0, 0.5]);
  expect(tall).toMatchObject({ cause: 'braking', asked: 0.8 });
  expect(tall.standsTo).toBeCloseTo(0.3, 9);
  expect(tall.hold).toBeCloseTo(10 * g * 0.5, 6);
  // A low one slides instead: what holds it is what friction does not.
  const low = on([0, 0, 0.1]);
  expect(low.standsTo).toBeCloseTo(1.5, 9);
  expect(low.hold).toBeCloseTo(10 * g * 0.45, 6);
  expect(on([0, 0, 0.1], 0.9).hold).toBe(0);
  // Far to the left a bend to the right takes it there; outside its edge anything does.
  expect(on([0.19, 0, 0.5]).cause).toMatch(/^a bend/);
  expect(on([0.25, 0, 0.5]).standsTo).toBe(0);
});

test('worn: what fails never lies below what is watched, and hands lift at the middle of the piece', () => {
  const on = (watchFrom: number | null, failsFrom: number | null) =>
    wearOn({ kind: 'worn', where: 'head', hours: 3, watchFrom, failsFrom, straps: [] }, 1, [0, 0, 0.1], [0, 0, 0]);
  expect(on(null, null)).toMatchObject({ watchFrom: 1, failsFrom: 1.5 });
  expect(on(2, null)).toMatchObject({ watchFrom: 2, failsFrom: 2 });
  expect(on(2, 1.2)).toMatchObject({ watchFrom: 2, failsFrom: 2 });
  // Hands at 0.3 m on what is 0.6 m high: 1 - 0.003 x 45; the middle of a tall piece is out of reach at 1.2 m.
  const limit = (height: number) => liftOf({ mass: 1, width: 0.3, depth: 0.3, height }).limit;
  const hold = 0.2 + 0.15;
  expect(limit(0.6)).toBeCloseTo(recommendedWeight({ hold, from: 0.3, rise: 0.75 }), 9);
  expect(limit(3)).toBeCloseTo(recommendedWeight({ hold, from: 1.2, rise: 0.75 }), 9);
});

describe('a post with an arm', () => {
  const post = (arm: Vec3) =>
    checkRods(
      {
        places: { foot: [0, 0, 0], top: [0, 0, 0.5], hand: arm },
        held: ['foot'],
        rods: [
          // Stout enough not to sway.
          { id: 'post', from: 'foot', to: 'top', size: '25mm' },
          { id: 'arm', from: 'top', to: 'hand', size: '25mm' },
        ],
        weights: [{ rod: 'arm', kg: 3 }],
      },
      { ...atRest, wet: false },
    );

  test('the moment at its foot is the weight times how far out it hangs, whichever way', () => {
    for (const way of [0, 35, 90, 215]) {
      const a = (way * Math.PI) / 180;
      const { footMoment, footForce } = post([0.4 * Math.cos(a), 0.4 * Math.sin(a), 0.5]);
      expect(footMoment).toBeCloseTo(3 * g * 0.4 * atItsEnd, 6);
      expect(footForce).toBeCloseTo(3 * g, 6);
    }
  });

  test('the skin of the clay is stretched by the bend times half its width, and on bare wire by nothing', () => {
    const across = 0.06;
    const rods = [{ id: 'arm', from: 'wall', to: 'end' }];
    const frame = { places: { wall: [0, 0, 0], end: [0.5, 0, 0] }, held: ['wall'], rods, across } as const;
    const skin = (clayDensity: readonly number[]) =>
      checkRods({ ...frame, weights: [{ rod: 'arm', kg: 3 }] }, { ...atRest, clayDensity }).bones[0]!.skinStrain;
    // 12 mm of mild steel: M / EI at the wall.
    const bend = (3 * g * 0.5 * atItsEnd) / ((2e11 * Math.PI * 0.012 ** 4) / 64);
    expect(skin([1500]) / (bend * (across / 2))).toBeCloseTo(1, 3);
    expect(skin([])).toBe(0);
  });

  test('a hard skin takes its share of the bend, and its first crack is what the arm can bear', () => {
    const skin = { thickness: 0.003, youngs: 2e9, strength: 1e7 };
    const rods = [{ id: 'arm', from: 'wall', to: 'end' }];
    const arm = { places: { wall: [0, 0, 0], end: [0.5, 0, 0] }, held: ['wall'], rods } as const;
    const borne = (more: Partial<RodFrame>, bulkOn = true) =>
      1 / checkRods({ ...arm, weights: [{ rod: 'arm', kg: 1 }], ...more }, { ...atRest, bulkOn }).bones[0]!.utilisation;
    const tube = (Math.PI / 64) * (0.06 ** 4 - 0.054 ** 4),
      rod = (Math.PI / 64) * 0.012 ** 4;
    // Skin and rod are bent alike: when the skin cracks, the rod carries as much more as it is stiffer.
    const cracks = ((1e7 * tube) / 0.03) * (1 + (2e11 * rod) / (2e9 * tube));
    const steel = stocks.get('mild-steel')!;
    const yields = (steel.strength.nominal * steel.allowed * 0.012 ** 3) / 6;
    expect(cracks).toBeGreaterThan(yields);
    expect(borne({ core: 0.06, skin }) / borne({})).toBeCloseTo(cracks / yields, 3);
    // Not before the core is on, and not round one that is hardly thicker than the skin.
    expect(borne({ core: 0.06, skin }, false)).toBeCloseTo(borne({}), 9);
    expect(borne({ core: 0.011, skin })).toBeCloseTo(borne({}), 9);
  });

  test('a slender rod bows under what stands on it as Euler says, with the stage’s safety', () => {
    const bowing = (kg: number, high = 1) =>
      checkRods({
        places: { foot: [0, 0, 0], top: [0, 0, high] },
        held: ['foot'],
        rods: [{ id: 'rod', from: 'foot', to: 'top', size: '4mm' }],
        weights: [{ rod: 'rod', kg }],
      }).bones[0]!.buckling;
    const euler = (Math.PI ** 2 * 2e11 * (Math.PI / 64) * 0.004 ** 4) / (2 * atItsEnd) ** 2;
    expect(bowing(0.6) / ((atRest.safety * 0.6 * g) / euler)).toBeGreaterThan(0.85);
    expect(bowing(0.6) / ((atRest.safety * 0.6 * g) / euler)).toBeLessThan(1.3);
    // Twice the weight, twice as near; half the height, a quarter.
    expect(bowing(1.2) / bowing(0.6)).toBeCloseTo(2, 2);
    expect(bowing(2.4, 0.5) / bowing(0.6)).toBeCloseTo(1, 1);
  });

  test('a leaning rod is pushed and bent at once: both shares of what it takes add up', () => {
    const lean = 0.02;
    const { bones } = checkRods(
      {
        places: { foot: [0, 0, 0], top: [lean, 0, 1] },
        held: ['foot'],
        rods: [{ id: 'rod', from: 'foot', to: 'top' }],
        weights: [{ rod: 'rod', kg: 60 }],
      },
      { ...atRest, wet: false },
    );
    const { strength, allowed } = stocks.get('mild-steel')!;
    const takes = strength.nominal * allowed;
    const along = Math.hypot(lean, 1);
    const push = (60 * g) / along / ((Math.PI * 0.012 ** 2) / 4) / takes;
    const bend = (60 * g * lean * atItsEnd) / ((0.012 ** 3 / 6) * takes);
    expect(push / bend).toBeGreaterThan(0.1);
    expect(bones[0]!.utilisation / (atRest.safety * (push + bend))).toBeCloseTo(1, 2);
  });

  test('how far a hand sinks is judged by its whole way from the base', () => {
    const [, arm] = post([0.4, 0, 0.5]).bones;
    expect(arm!.sagShare).toBeCloseTo(arm!.sag / 0.9, 9);
  });
});
