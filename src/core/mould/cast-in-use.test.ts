import { castInUse, usualUse } from './cast-in-use';

const around = (kg: number) => ({ low: kg * 0.7, nominal: kg, high: kg * 1.4 });
const small = [0.25, 0.3, 0.35] as const;

test('a skin on the head is light, a plaster head is not', () => {
  expect(castInUse(around(0.5), small, 0.9, 'head')).toMatchObject({ status: 'sound', people: 1 });
  expect(castInUse(around(0.8), small, 0.9, 'head').status).toBe('watch');
  expect(castInUse(around(1.4), small, 1, 'head').status).toBe('watch');
  expect(castInUse(around(1.5), small, 1, 'head').status).toBe('fails');
  expect(castInUse(around(1.5), small, 1, 'back').status).toBe('sound');
});

test('on a wall each of two hooks for five times its half', () => {
  const { hook, worn } = castInUse(around(4), small, 1, 'wall');
  expect(hook).toBeCloseTo((5 * 5.6 * 9.81) / 2, 3);
  expect(worn).toBeNull();
});

test('what one does not lift is watched, and what no hands lift goes on a trolley', () => {
  expect(castInUse(around(20), [0.6, 0.6, 0.7], 1, 'table')).toMatchObject({ status: 'watch', hook: null });
  expect(castInUse(around(300), [1, 1, 1.4], 1, 'table').people).toBe(Infinity);
});

test('a mask is worn, a relief is hung, a bust stands', () => {
  expect(['mask', 'worn-shell', 'relief', 'bust'].map(usualUse)).toEqual(['head', 'shoulder', 'wall', 'table']);
});
