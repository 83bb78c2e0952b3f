import { atItsEnd, atRest, checkRods } from '../../../tests/support/rods';
import { gravity as g, type Vec3 } from '../quantity';
import { lifeStages } from '.';

/**
 * An arm out from a wall, a metre of 12 mm rod, with a half metre across its end and 10 kg on that: the arm is bent and
 * twisted. Straight on instead of across, it is bent alone. By hand.
 */
const lever = 0.5 * atItsEnd;
const arm = (end: Vec3, elbow: Vec3 = [1, 0, 0]) =>
  checkRods(
    {
      places: { wall: [0, 0, 0], elbow, end },
      held: ['wall'],
      rods: [
        { id: 'arm', from: 'wall', to: 'elbow' },
        { id: 'across', from: 'elbow', to: 'end' },
      ],
      weights: [{ rod: 'across', kg: 10 }],
    },
    { ...atRest, wet: false },
  ).bones.find((b) => b.bone === 'arm')!;

test('what twists a bone counts with what bends it: the square root of M2 and three quarters of T2', () => {
  const across = arm([1, 0.5, 0]),
    straight = arm([1.5, 0, 0]);
  // The rod's own weight comes with the ledger, not here.
  const bent = g * 10,
    twisted = g * 10 * lever;
  expect(across.demand / Math.sqrt(bent ** 2 + 0.75 * twisted ** 2)).toBeCloseTo(1, 4);
  expect(straight.demand / (g * 10 * (1 + lever))).toBeCloseTo(1, 4);
  expect(across.utilisation / straight.utilisation).toBeCloseTo(across.demand / straight.demand, 9);
  // Twist is a fifteenth more here: more than can be lost in rounding.
  expect(across.demand / bent).toBeGreaterThan(1.06);
});

test('hung straight down it is pulled alone: 1.5 times its weight over what the rod bears before it yields', () => {
  // 12 mm of mild steel at 235 MPa bears 26.6 kN.
  const pulled = arm([0, 0, -1.5], [0, 0, -1]);
  expect(pulled.utilisation / ((1.5 * 98.1) / (235e6 * (Math.PI / 4) * 0.012 ** 2))).toBeCloseTo(1, 6);
});

test('on the road: braking at 0.8 g, half of that any other way, a bump of twice its weight', () => {
  const stages = lifeStages({
    situation: 'moved',
    hasBulk: false,
    coats: [[0.01]],
    wetDensity: 1800,
    dryDensity: 1500,
    dries: true,
  });
  const road = stages.find((s) => s.id === 'moved')!;
  const strongest = (towards: Vec3) =>
    Math.max(...road.accelerations.map((a) => towards[0] * a[0] + towards[1] * a[1] + towards[2] * a[2]));
  // Front is -y.
  expect(strongest([0, -1, 0])).toBeCloseTo(7.848, 3);
  for (const way of [
    [0, 1, 0],
    [1, 0, 0],
    [-1, 0, 0],
  ] as const)
    expect(strongest(way)).toBeCloseTo(4.905, 3);
  expect(strongest([0, 0, -1])).toBeCloseTo(19.62, 2);
  expect(road.accelerations.every((a) => a[2] <= -g + 1e-9)).toBe(true);
  expect(stages.find((s) => s.id === 'dry')!.accelerations).toEqual([[0, 0, -g]]);
});
