import { clayStateAt, repairOf } from '.';

const states = { smooth: 10, leather: 30, through: 100 };

test.each([
  [5, 'soft'],
  [12, 'leathery'],
  [50, 'drying'],
  [100, 'dry'],
] as const)('after %d the clay is %s', (t, wanted) => expect(clayStateAt(t, states)).toBe(wanted));
test('a piece that never dries through is never dry', () =>
  expect(clayStateAt(1e9, { ...states, through: null })).toBe('drying'));

test('while it is soft a crack is closed, not filled; while it dries one waits', () => {
  expect(repairOf({ width: 0.003, through: false }, 'soft', 'clay').steps.join(' ')).toMatch(/Press it closed/);
  expect(repairOf({ width: 0.001, through: false }, 'drying', 'clay')).toMatchObject({ when: 'when-through-dry' });
  expect(repairOf({ width: 0.001, through: false }, 'dry', 'clay')).toMatchObject({ when: 'now' });
});

test('hairlines are brushed, cracks undercut and filled with the same clay, wide and open ones backed', () => {
  const words = (width: number, through = false) =>
    repairOf({ width, through }, 'dry', 'the same paper clay').steps.join(' ');
  expect(words(0.0003)).toMatch(/Brush in the same paper clay/);
  expect(words(0.001)).toMatch(/Undercut/);
  expect(words(0.004)).toMatch(/no deeper than 4 mm at a time/);
  expect(words(0.001, true)).toMatch(/Back it/);
});
