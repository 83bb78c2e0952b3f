import { startBuild } from '../school';
import { castInUse, castUseOf, usualUse } from './cast-in-use';

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

test('a cast goes where it was said to, else where the finished piece does, else where its form is for', () => {
  const made = startBuild('Test', '2026-12-01', 'bust', 1);
  if (!made.ok) throw new Error(made.message);
  const { value: build } = made;
  expect(castUseOf(build)).toBe('table');
  const worn = { kind: 'worn', where: 'back', hours: 3, watchFrom: 2, failsFrom: null, straps: [] } as const;
  const armature = { ...build.armature, mount: worn as never };
  expect(castUseOf({ ...build, armature })).toBe('back');
  expect(castUseOf({ ...build, armature, mould: { ...build.mould, castUse: 'hand' } })).toBe('hand');
  // Limits a maker has set go before the usual ones.
  expect(castInUse(around(2), small, 1, 'back').status).toBe('sound');
  expect(castInUse(around(2), small, 1, 'back', { watchFrom: 1, failsFrom: 1.5 }).status).toBe('fails');
});
