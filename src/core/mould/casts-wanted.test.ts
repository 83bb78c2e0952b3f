import { castKinds, castMaterials, castNeeds, flatCast, leftAfter, mouldKinds } from '.';
import type { CastKind } from './cast';

const cast = (id: string): CastKind => castKinds.find((c) => c.id === id)!;
const plaster = mouldKinds.find((k) => k.id === 'plaster-parts')!;

test('three latex skins of a tenth of a square metre, by hand', () => {
  const latex = cast('latex-skin');
  const figures = flatCast(plaster, latex, { area: 0.1, volume: 1 });
  // 0.1 m2 that has lost a tenth each way, 3 mm of 950 kg a m3; 61 % of what is bought; a tenth in the bowl.
  const left = 1.002 * 0.9;
  const dry = 0.1 * left ** 2 * 0.003 * 950;
  expect(figures.wall.nominal).toBeCloseTo(dry, 9);
  const [need] = castNeeds({ cast: latex, ...figures }, 3);
  expect(need).toMatchObject({ name: 'slip latex', packs: [{ each: 1, count: 2 }] });
  expect(need!.each).toBeCloseTo((dry / 0.61) * 1.1, 9);
  expect(need!.all).toBeCloseTo(3 * need!.each, 9);
  expect(need!.price.nominal).toBeCloseTo(12 * need!.each, 9);
});

test('foam behind a skin weighs, and is bought', () => {
  const foam = cast('latex-foam');
  const figures = flatCast(plaster, foam, { area: 2, volume: 1 });
  const left = leftAfter(plaster, foam).nominal;
  expect(figures.backing!.nominal).toBeCloseTo(2 * 0.015 * left ** 2 * 90, 9);
  const needs = castNeeds({ cast: foam, ...figures }, 1);
  expect(needs.map((n) => n.name)).toEqual(['slip latex', 'flexible foam, both parts']);
  expect(needs[1]!.all).toBeCloseTo(figures.backing!.nominal * 1.1 * 1.1, 9);
});

test('poured full it is what it fills', () => {
  const solid = cast('resin-solid');
  const { wall, backing } = flatCast(plaster, solid, { area: 9, volume: 0.001 });
  expect(wall.nominal).toBeCloseTo(0.001 * leftAfter(plaster, solid).nominal ** 3 * 1060, 9);
  expect(backing).toBeNull();
});

test('what every cast is made of adds up, and each of its steps uses something it is made of', () => {
  for (const c of castKinds.map((k): CastKind => k)) {
    expect(c.made.reduce((sum, m) => sum + m.share, 0)).toBeCloseTo(1, 9);
    const used = c.steps.flatMap((s) => (s.lays === undefined ? [] : [s.lays]));
    expect(used.filter((u) => u !== 'backing').sort()).toEqual(c.made.map((_, i) => i));
    expect(used.includes('backing')).toBe(c.backing !== undefined);
    expect(c.steps[c.steps.length - 1]!.id).toBe('take');
  }
  for (const m of Object.values(castMaterials)) expect(m.bought).toBeGreaterThan(0.5);
});

test('nothing is bought for none', () => {
  const figures = flatCast(plaster, cast('wax'), { area: 0.1, volume: 0.001 });
  expect(castNeeds({ cast: cast('wax'), ...figures }, 0)[0]).toMatchObject({ all: 0, packs: [] });
});
