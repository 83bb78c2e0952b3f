import type { SchoolContext } from '.';
import { boardUnder, plateFor, roundUp, type BoardParameters } from './base';

const asked: BoardParameters = {
  boardStock: 'plywood',
  boardSize: '18mm',
  boardWidth: 0,
  boardDepth: 0,
  boardBack: 0,
  standing: 'flat',
  ballast: 0,
  ballastBack: 0,
  plateWidth: 0,
  screwDiameter: 0.004,
  screwLength: 0.016,
};
const context = (thickness: number) => ({ across: () => thickness }) as unknown as SchoolContext;
const board = (more: Partial<BoardParameters> = {}, thickness = 0.018) =>
  boardUnder(context(thickness), { ...asked, ...more }, [0, 0.01, 0], { width: 0.311, depth: 0.25 }, plateFor(0.0213));

test('as wide as the form needs, up to the next centimetre, unless the maker says', () => {
  expect([board().width, board().depth]).toEqual([0.32, 0.25]);
  expect(board({ boardWidth: 0.2 })).toMatchObject({ width: 0.2, depth: 0.25 });
  expect([0.1, 0.1001, 0.109, 0.11].map(roundUp)).toEqual([0.1, 0.11, 0.11, 0.11]);
});

test('no screw holds in more board than there is', () => {
  expect(board().screws.threadLength).toBe(0.016);
  expect(board({ screwLength: 0.05 }).screws.threadLength).toBe(0.018);
  expect(board({}, 0.009).screws.threadLength).toBe(0.009);
});

test('set back, the board moves and its weight with it; the upright stays where it stands', () => {
  const back = board({ boardBack: 0.05, ballast: 3, ballastBack: 0.08 });
  expect(back).toMatchObject({ at: [0, 0.05], flangeAt: [0, 0.01, 0], ballast: 3 });
  expect(back.ballastAt[1]).toBeCloseTo(0.13, 12);
});

test('a plate four times as wide as what stands in it, between a coin and a dinner plate; its screws lie inside its edge', () => {
  expect(plateFor(0.0213).diameter).toBeCloseTo(0.0895, 3);
  expect(plateFor(0.001).diameter).toBe(0.03);
  expect(plateFor(0.5).diameter).toBe(0.25);
  for (const across of [0.004, 0.02, 0.06]) expect(plateFor(across).circle).toBeLessThan(plateFor(across).diameter);
  // Six millimetres of steel, a fifth of it holes and rounding.
  expect(plateFor(0.0213).mass).toBeCloseTo(7850 * 0.006 * (Math.PI / 4) * 0.0895 ** 2 * 0.8, 1);
  expect(plateFor(0.02, 6).screws).toBe(6);
});
