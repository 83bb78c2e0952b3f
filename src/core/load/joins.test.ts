import { atItsEnd, atRest, checkRods, type Rod } from '../../../tests/support/rods';
import { joinKinds, type JoinKindId } from '../catalogue';
import { gravity as g } from '../quantity';

/**
 * A metre of 12 mm rod out from a wall with 2 kg near its end. At the wall a join lets a share of the rod's strength
 * through, half way along the rod has all of it. By hand.
 */
const arm = (joinFrom: JoinKindId, more: Partial<Rod> = {}) =>
  checkRods(
    {
      places: { wall: [0, 0, 0], end: [1, 0, 0] },
      held: ['wall'],
      rods: [{ id: 'arm', from: 'wall', to: 'end', joinFrom, ...more }],
      weights: [{ rod: 'arm', kg: 2 }],
    },
    { ...atRest, wet: false },
  ).bones[0]!;

test.each(joinKinds.map((j) => [j.id, j.efficiency] as const))(
  'at a join that is %s the rod has %d of its strength',
  (id, efficiency) => {
    const one = arm('welded'),
      joined = arm(id);
    expect(joined.demand).toBeCloseTo(2 * g * atItsEnd, 6);
    expect(joined.capacity / one.capacity).toBeCloseTo(efficiency, 9);
    expect(joined.utilisation / one.utilisation).toBeCloseTo(1 / efficiency, 6);
    expect(joined.metalShare / one.metalShare).toBeCloseTo(efficiency, 9);
  },
);

test('what is joined weakly at its outer end is no weaker where it is bent most', () => {
  expect(arm('welded', { joinTo: 'taped' }).utilisation).toBeCloseTo(arm('welded').utilisation, 9);
});

test('a weak join gives: e/(1 - e) times four EI over its length turns with the moment', () => {
  // Turned by M L (1 - e) / (4 e EI), its end comes down by that times its length.
  const [E, d] = [2e11, 0.012];
  const EI = (E * Math.PI * d ** 4) / 64;
  const moment = 2 * g * atItsEnd;
  for (const [id, e] of [
    ['twisted', 0.3],
    ['bound', 0.5],
    ['epoxied', 0.9],
  ] as const) {
    const turned = (moment * (1 - e)) / (4 * e * EI);
    expect((arm(id).sag - arm('welded').sag) / turned).toBeCloseTo(1, 2);
  }
});

test('a rod drawn from its free end to the wall is as weak at the wall as one drawn the other way', () => {
  const inward = (join: JoinKindId) =>
    checkRods(
      {
        places: { wall: [0, 0, 0], end: [1, 0, 0] },
        held: ['wall'],
        rods: [{ id: 'arm', from: 'end', to: 'wall', joinTo: join }],
        weights: [{ rod: 'arm', kg: 2, spread: true }],
      },
      { ...atRest, wet: false },
    ).bones[0]!;
  expect(inward('bound').utilisation / inward('welded').utilisation).toBeCloseTo(2, 9);
  expect(inward('bound').capacity / inward('welded').capacity).toBeCloseTo(0.5, 9);
});

test('a wire that runs there and back along a bone is two of it', () => {
  const doubled = arm('welded', { doubled: true });
  expect(doubled.capacity).toBeCloseTo(arm('welded', { strands: 2 }).capacity, 9);
  expect(doubled.capacity / arm('welded').capacity).toBeGreaterThan(1.9);
});
