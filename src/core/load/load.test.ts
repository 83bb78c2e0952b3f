import { ballastFor, boardCorners, centreOf, checkBase, convexHull, lifeMoments, pathCentre, screwAllowedShare, screwWithdrawal, stanceOn } from '.';

describe('standing up', () => {
  const board = boardCorners({ width: 0.4, depth: 0.3 } as never);
  test('a weight in the middle tips over the nearer edge at atan(d/h)', () => {
    const s = stanceOn(board, 10, [0, 0, 0.3], 0, 0.6);
    expect(s.tipAngle).toBeCloseTo((Math.atan(0.15 / 0.3) * 180) / Math.PI, 9);
    expect(s.push).toBeCloseTo((10 * 9.81 * 0.15) / 0.6, 9);
    expect(['front', 'back']).toContain(s.towards);
  });
  test('forward of the edge it falls by itself', () => expect(stanceOn(board, 5, [0, -0.2, 0.3], 0, 0.5)).toMatchObject({ towards: 'front', push: 0 }));
  test('to the sculpture’s own left', () => expect(stanceOn(board, 5, [0.17, 0, 0.3], 0, 0.5).towards).toBe('left'));
  test('ballast brings the lean to what was asked', () => {
    const s = stanceOn(board, 8, [0, -0.11, 0.5], 0, 0.6);
    const m = ballastFor(s, 0, 0.15, 20);
    const together = centreOf([{ mass: 8, at: [0, -0.11, 0.5] }, { mass: m, at: [0, 0, 0] }]);
    expect(stanceOn(board, together.mass, together.at, 0, 0.6).tipAngle).toBeCloseTo(20, 6);
    expect(ballastFor(stanceOn(board, 8, [0, 0, 0.1], 0, 0.6), 0, 0.15, 20)).toBe(0);
  });
  test('hull of scattered feet', () => {
    expect(convexHull([[0, 0], [1, 0], [1, 1], [0, 1], [0.5, 0.5], [0.2, 0.9]])).toHaveLength(4);
    expect(convexHull([[0, 0], [1, 1]])).toHaveLength(2);
  });
});

test('flange screws by hand: M = 20 Nm, screws in a square on a 70 mm circle, flange 90 mm', () => {
  // Rows at 45 - 24.7 = 20.3 mm and 45 + 24.7 = 69.7 mm from the edge it turns about; two screws a row.
  const near = 0.045 - 0.035 / Math.SQRT2, far = 0.045 + 0.035 / Math.SQRT2;
  const pull = (20 * far) / (2 * (near ** 2 + far ** 2));
  const base = { thickness: 0.018, flangeDiameter: 0.09, screws: { count: 4, diameter: 0.004, threadLength: 0.016, circle: 0.07 } } as never;
  const check = checkBase(base, 20, 1.5, 640, 40e6 / 3);
  expect(check.screwPull).toBeCloseTo(pull, 6);
  expect(screwWithdrawal(0.64, 0.004, 0.016)).toBeCloseTo(108.25 * 0.4096 * 4 * 16, 6);
  expect(check.screwAllowed).toBeCloseTo(screwWithdrawal(0.64, 0.004, 0.016) * screwAllowedShare, 9);
  // Board strip 126 mm wide: 10 Nm a side over b t2/6.
  expect(check.boardUtilisation).toBeCloseTo(10 / ((0.126 * 0.018 ** 2) / 6) / (40e6 / 3), 6);
});

test('moments: each coat over dry ones, the road only for what travels', () => {
  const input = { situation: 'moved', hasBulk: true, coats: [[0.006, 0.004], [0.01]], wetDensity: 1000, dryDensity: 600, dries: true } as const;
  const all = lifeMoments(input);
  expect(all.map((m) => m.id)).toEqual(['bare', 'bulk', 'clay-1', 'clay-2', 'dry', 'moved']);
  expect(all[2]?.clayDensity).toEqual([600, 1000]);
  expect(all[3]?.clayDensity[0]).toBeCloseTo((0.006 * 600 + 0.004 * 1000) / 0.01, 9);
  expect(all[3]?.clayDensity[1]).toBe(600);
  expect(lifeMoments({ ...input, situation: 'bench', hasBulk: false }).map((m) => m.id)).toEqual(['bare', 'clay-1', 'clay-2', 'dry']);
});

test('the middle of a bent wire is by length, not by corner', () => {
  // 2 m centred at (1, 0) and 1 m centred at (2, 1/2).
  const [x, y] = pathCentre([[0, 0, 0], [2, 0, 0], [2, 1, 0]]);
  expect(x).toBeCloseTo(4 / 3, 12);
  expect(y).toBeCloseTo(1 / 6, 12);
  expect(pathCentre([[1, 1, 1], [1, 1, 1]])).toEqual([1, 1, 1]);
});
