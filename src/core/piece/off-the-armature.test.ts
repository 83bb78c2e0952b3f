import { DistanceField } from '../form';
import type { Mass } from '../document';
import type { Vec3 } from '../quantity';
import { cutsToFree } from './off-the-armature';
import type { Piece } from './piece';

const drum = (id: string, name: string, radius: number, from: number, to: number): Mass => ({
  id,
  name,
  region: id,
  at: [0, 0, (from + to) / 2],
  turn: [0, 0, 0],
  blend: 0,
  shape: { kind: 'drum', radius, half: (to - from) / 2, rounding: 0 },
});

/** A stalk of 60 mm across with a cap of 300 mm on it, above a foot as wide as the cap where one is asked for. */
function mushroom(paths: Record<string, readonly Vec3[]>, foot = false): Piece {
  const masses = [
    drum('stalk', 'stalk', 0.03, 0, 0.4),
    drum('cap', 'cap', 0.15, 0.3, 0.4),
    ...(foot ? [drum('foot', 'foot', 0.15, 0, 0.1)] : []),
  ];
  return {
    field: new DistanceField(masses),
    form: { masses },
    armature: { members: Object.entries(paths).map(([name, path]) => ({ id: name, name, path })) },
    extent: { low: [-0.15, -0.15, 0], high: [0.15, 0.15, 0.4] },
  } as unknown as Piece;
}

test('a straight upright lets the piece off whole', () => {
  expect(
    cutsToFree(
      mushroom({
        upright: [
          [0, 0, 0],
          [0, 0, 0.2],
          [0, 0, 0.38],
        ],
      }),
    ),
  ).toEqual([]);
});

test('a loop in a cap has the cap’s clay under it, whether air comes below or a foot as wide', () => {
  const loop: Vec3[] = [
    [0, 0, 0],
    [0, 0, 0.35],
    [0.1, 0, 0.35],
    [0.12, 0, 0.36],
  ];
  for (const foot of [false, true])
    expect(cutsToFree(mushroom({ loop }, foot))).toEqual([{ place: 'cap', level: 0.36, members: ['loop'] }]);
});

test('cuts are told from the top down, each with what it frees', () => {
  const cuts = cutsToFree(
    mushroom(
      { 'upper wire': [[0.1, 0, 0.35]], 'other upper wire': [[-0.12, 0, 0.38]], 'wire in the foot': [[0.1, 0, 0.05]] },
      true,
    ),
  );
  expect(cuts).toEqual([{ place: 'cap', level: 0.38, members: ['upper wire', 'other upper wire'] }]);
});
