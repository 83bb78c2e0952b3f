import { castByPlace } from './cast-by-place';

const region = (id: string, area: number, clayVolume = 1) => ({ id, name: id, area, clayVolume });
const mass = { low: 0.8, nominal: 1, high: 1.4 };

test('by share of the face, heaviest first, and all of it together', () => {
  const found = castByPlace(mass, [region('ears', 0.02), region('muzzle', 0.06)]);
  expect(found.map((p) => [p.id, p.mass.nominal])).toEqual([
    ['muzzle', 0.75],
    ['ears', 0.25],
  ]);
  for (const end of ['low', 'high'] as const)
    expect(found.reduce((s, p) => s + p.mass[end], 0)).toBeCloseTo(mass[end], 12);
});

test('what bears no clay is not cast, unless nothing does', () => {
  expect(castByPlace(mass, [region('form', 1, 0), region('mask', 0.1)]).map((p) => p.id)).toEqual(['mask']);
  expect(castByPlace(mass, [region('form', 1, 0)])[0]!.mass).toEqual(mass);
  expect(castByPlace(mass, [])).toEqual([]);
});
