import { edited } from '../../../tests/support/judged';
import { asBriefed, Evaluator } from '../evaluate';
import { startBuild } from '../school';
import type { Build } from '../document';
import { girthsOf, narrowestRound } from './girths';

function begun(measures: Record<string, number | string | boolean>, coat: number, kind = 'mask'): Build {
  const made = startBuild('Test', '2026-12-01', kind, 1);
  if (!made.ok) throw new Error(made.message);
  const set = { path: ['form', 'start', 'measures'], value: measures };
  const coats = { path: ['regions', 'everywhere', 'coats'], value: [coat] };
  return edited(made.value, { label: 'set', changes: kind === 'mask' ? [set, coats] : [coats] });
}
function girths(build: Build) {
  const piece = new Evaluator().piece(asBriefed(build));
  if (!piece.ok) throw new Error(piece.message);
  return girthsOf(piece.value);
}
const plain = { brow: 0, cheeks: 0, nose: 0, chin: 0, nostrils: false, eyeHole: 0, mouthHole: 0 };

test('the form is as round as its wearer, and an even coat as thick as it is laid', () => {
  const found = girths(begun({ ...plain, headGirth: 0.6 }, 0.012));
  const at = found.find((g) => g.id === 'girth')!;
  expect(Math.abs(at.girth / 0.6 - 1)).toBeLessThan(0.03);
  expect(at.thinnest).toBeGreaterThan(0.012 * 0.9);
  expect(at.mean).toBeLessThan(0.012 * 1.5);
  expect(found.map((g) => g.id)).toEqual(['girth', 'eyes', 'nose', 'mouth']);
});

test('a helmet stands further off all round; holes are no clay', () => {
  const off = girths(begun({ ...plain, cover: 'head', bowl: 0.03 }, 0.006)).find((g) => g.id === 'girth')!;
  expect(off.thinnest).toBeGreaterThan(0.015);
  const eyes = (eyeHole: number) => girths(begun({ ...plain, eyeHole }, 0.012)).find((g) => g.id === 'eyes')!;
  expect(eyes(0.02).thinnest).toBeGreaterThan(0.001);
  expect(eyes(0.02).girth).toBeCloseTo(eyes(0).girth, 6);
});

test('a piece over no life form has none', () => {
  expect(girths(begun({}, 0.006, 'relief'))).toEqual([]);
});

test('a whole-head helmet closes round the head below its widest; a mask nowhere', () => {
  const narrowest = (build: Build) => {
    const piece = new Evaluator().piece(asBriefed(build));
    if (!piece.ok) throw new Error(piece.message);
    return narrowestRound(piece.value);
  };
  const head = (headGirth: number) => narrowest(begun({ ...plain, cover: 'head', bowl: 0.01, headGirth }, 0.006))!;
  // Under the back of the head it is some tenth to a fifth less round than at the brows; all of it goes with the head.
  const small = head(0.54);
  expect(small.outside).toBeGreaterThan(0.54 * 0.8);
  expect(small.outside).toBeLessThan(0.54 * 1.1);
  expect(head(0.6).outside / small.outside).toBeGreaterThan(1.06);
  expect(head(0.6).outside / small.outside).toBeLessThan(1.13);
  expect(narrowest(begun(plain, 0.012))).toBeNull();
  expect(narrowest(begun({}, 0.006, 'relief'))).toBeNull();
});
