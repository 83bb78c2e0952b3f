import { atRest, checkRods } from '../../../tests/support/rods';
import type { Vec3 } from '../quantity';

/** A post with a weight on its top and two guys: each pulls when the post leans away from it, and never pushes. */
const check = (ties: boolean, accelerations: readonly Vec3[]) =>
  checkRods(
    {
      places: {
        foot: [0, 0, 0],
        top: [0, 0, 1],
        ...(ties ? { left: [0.6, 0, 0] as const, right: [-0.6, 0, 0] as const } : {}),
      },
      held: ['foot', 'left', 'right'],
      rods: [
        { id: 'post', from: 'foot', to: 'top' },
        ...(ties
          ? [
              { id: 'guy-left', from: 'left', to: 'top', size: '3mm', tie: true },
              { id: 'guy-right', from: 'right', to: 'top', size: '3mm', tie: true },
            ]
          : []),
      ],
      weights: [{ rod: 'post', kg: 10 }],
    },
    { ...atRest, wet: false, accelerations, causes: accelerations.map((_, i) => `case ${i}`) },
  );

const leftward: Vec3 = [6, 0, -9.81],
  rightward: Vec3 = [-6, 0, -9.81];

describe('ties', () => {
  test('the guy behind pulls, the one in front is slack, and the post is spared', () => {
    const guyed = check(true, [leftward]),
      alone = check(false, [leftward]);
    const of = (id: string) => guyed.bones.find((b) => b.bone === id);
    expect(of('guy-right')?.axial).toBeGreaterThan(20);
    expect(of('guy-left')?.axial).toBeLessThan(0.1);
    expect(of('post')?.utilisation).toBeLessThan(0.3 * (alone.bones[0]?.utilisation ?? 0));
  });
  test('shaken both ways each does its part: neither case takes the other’s guy away', () => {
    const both = check(true, [leftward, rightward]),
      one = check(true, [leftward]);
    const of = (c: typeof both, id: string) => c.bones.find((b) => b.bone === id);
    expect(of(both, 'guy-left')?.utilisation).toBeCloseTo(of(one, 'guy-right')?.utilisation ?? NaN, 6);
    expect(of(both, 'post')?.utilisation).toBeCloseTo(of(one, 'post')?.utilisation ?? NaN, 6);
  });
  test('standing still both are slack and the weight stays on the post', () => {
    const still = check(true, [[0, 0, -9.81]]);
    expect(still.bones.find((b) => b.bone === 'guy-left')?.axial).toBeLessThan(1);
    expect(still.footForce).toBeCloseTo(98.1, 1);
  });
});
