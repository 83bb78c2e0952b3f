import { applyEdit, newBust, type Build } from '../document';
import { startBuild } from '../school';
import { castKinds, clayOverForm, growToFit, leftAfter, mouldKinds, putOn, wearersGirth } from '.';

const after = (build: Build, left: number): Build => {
  const next = applyEdit(build, growToFit(build, left));
  if (!next.ok) throw new Error(next.message);
  return next.value;
};

test('grown for a shrinkage of a tenth it is 1.111 times as large; grown again for another, not twice', () => {
  const build = newBust('Test', '2026-12-01', 0.5);
  const tenth = after(build, 0.9);
  expect(tenth.form.start.size).toBeCloseTo(0.5 / 0.9, 4);
  expect(tenth.form.start.size * 0.9).toBeCloseTo(0.5, 4);
  const little = after(tenth, 0.98);
  expect(little.form.start.size).toBeCloseTo(0.5 / 0.98, 4);
  const own = after(little, 1);
  expect(own.form.start.size).toBeCloseTo(0.5, 4);
  expect(own.mould.oversize).toBe(1);
});

test('clay over a form 90 mm in radius: 12.2 mm with a wall of 2 mm, 10 without, at a shrinkage of a tenth', () => {
  const girth = 2 * Math.PI * 0.09;
  const exactly = (v: number) => ({ low: v, nominal: v, high: v });
  expect(clayOverForm(girth, 0, { wall: exactly(0.002) }, exactly(0.9)).nominal).toBeCloseTo(0.01222, 5);
  expect(clayOverForm(girth, 0, { wall: null }, exactly(0.9)).nominal).toBeCloseTo(0.01, 5);
  expect(clayOverForm(girth, 0, { wall: null }, exactly(0.92)).nominal).toBeCloseTo(0.00783, 5);
  expect(clayOverForm(girth, 0.003, { wall: null }, exactly(0.9)).nominal).toBeCloseTo(0.01333, 5);
});

test('the range of the clay: thin where it shrinks least and the wall is thin, thick where most', () => {
  const kind = mouldKinds.find((k) => k.id === 'plaster-parts')!;
  const cast = castKinds.find((c) => c.id === 'latex-skin')!;
  const left = leftAfter(kind, cast);
  const clay = clayOverForm(0.565, 0, cast, left);
  expect(clay.low).toBeLessThan(clay.nominal);
  expect(clay.nominal).toBeLessThan(clay.high);
  // By hand: 89.92 mm, 0.9 x 1.002, wall 3.
  expect(clay.nominal * 1000).toBeCloseTo((89.92 + 3) / (0.9 * 1.002) - 89.92, 1);
});

test('made larger for the shrinkage the form is larger than the wearer, and bears less clay for the same cast', () => {
  const girth = 2 * Math.PI * 0.09;
  const exactly = (v: number) => ({ low: v, nominal: v, high: v });
  const clay = (oversize: number) =>
    clayOverForm(girth, 0.005, { wall: exactly(0.002) }, exactly(0.9), oversize).nominal;
  // (90 + 5 + 2) / 0.9 = 107.8 mm: over 90, and over 90 x 1.1.
  expect(clay(1)).toBeCloseTo(0.01778, 5);
  expect(clay(1.1)).toBeCloseTo(0.00878, 5);
  expect(clay(1.3)).toBe(0);
});

test('the wearer is as round as was measured, or as a form starts with, however much larger the piece is made', () => {
  const made = startBuild('Test', '2026-12-01', 'mask', 1, 'helmet');
  if (!made.ok) throw new Error(made.message);
  expect(wearersGirth(made.value)).toBeCloseTo(0.57, 9);
  expect(wearersGirth(after(made.value, 0.9))).toBeCloseTo(0.57, 4);
  expect(wearersGirth(newBust('Test', '2026-12-01', 0.5))).toBeNull();
});

test('what closes round the head: hard it goes on or not, a skin gives by a quarter', () => {
  const exactly = (v: number) => ({ low: v, nominal: v, high: v });
  const hard = { wall: exactly(0.004) },
    skin = { wall: exactly(0.003), gives: true as const };
  // 600 mm outside, shrunk by a hundredth, less 2 pi x 4 mm of wall: 568.9 mm inside.
  const tight = putOn(0.6, 0.58, hard, exactly(0.99));
  expect(tight.inside).toBeCloseTo(0.594 - 0.02513, 4);
  expect(tight.stretch).toBeCloseTo(0.58 / 0.56887 - 1, 4);
  expect(tight.goesOn).toBe(false);
  expect(putOn(0.6, 0.56, hard, exactly(0.99))).toMatchObject({ stretch: 0, goesOn: true });
  expect(putOn(0.51, 0.56, skin, exactly(0.9)).goesOn).toBe(false);
  expect(putOn(0.54, 0.56, skin, exactly(0.9)).goesOn).toBe(true);
  expect(putOn(0.02, 0.56, hard, exactly(1))).toMatchObject({ inside: 0, goesOn: false });
});
