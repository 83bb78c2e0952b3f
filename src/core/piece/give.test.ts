import { giveUnderTool } from './give';
import { hoursFor } from './hours';

describe('give under the tool', () => {
  test('clay alone is the rigid punch: F (1 - v2) / (2 a E)', () => {
    expect(giveUnderTool({ youngs: 8e5, thickness: 0.1 }, null)).toBeCloseTo((10 * (1 - 0.16)) / (2 * 0.005 * 8e5), 12);
  });
  test('on a core as stiff as the clay it gives the same; softer gives more, stiffer less, thick clay hides both', () => {
    const clay = (thickness: number) => ({ youngs: 2.5e5, thickness });
    expect(giveUnderTool(clay(0.01), { youngs: 2.5e5 })).toBeCloseTo(giveUnderTool(clay(0.01), null), 12);
    const soft = (t: number) => giveUnderTool(clay(t), { youngs: 5e4 }),
      hard = (t: number) => giveUnderTool(clay(t), { youngs: 1.2e7 });
    expect(soft(0.006)).toBeGreaterThan(soft(0.02));
    expect(hard(0.006)).toBeLessThan(hard(0.02));
    expect(hard(0.01)).toBeLessThan(soft(0.01));
    expect(soft(5)).toBeCloseTo(giveUnderTool(clay(5), null), 4);
  });
});

test('hours grow with what there is to cut, join, fill and lay, and add up', () => {
  const member = {
    id: 'm',
    name: 'm',
    stock: 's',
    size: 's',
    strands: 2,
    bonded: false,
    path: [],
    bones: [],
    allowances: [],
  };
  const bone = {
    id: 'b',
    name: 'b',
    from: 'a',
    to: 'c',
    masses: [],
    joinFrom: 'bound' as const,
    joinTo: 'welded' as const,
  };
  const frame = (n: number) =>
    ({
      members: Array.from({ length: n }, () => member),
      bones: Array.from({ length: n }, () => bone),
      hardware: [],
    }) as never;
  const one = hoursFor(frame(3), { bulk: 0.008, bulkKind: 'paper-firm', wrapped: 0.5, clayMass: 1, setting: 'dries' });
  // Six strands at five minutes, three joins at six.
  expect(one.armature).toBeCloseTo((30 + 18) / 60, 12);
  expect(one.bulk).toBeCloseTo(1 + (0.5 * 45) / 60, 12);
  expect(
    hoursFor(frame(6), { bulk: 0.008, bulkKind: 'paper-firm', wrapped: 0.5, clayMass: 2, setting: 'dries' }).clay,
  ).toBeGreaterThan(one.clay);
});
