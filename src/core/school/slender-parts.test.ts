import { resolveForm, type Mass } from '../form';
import { distance } from '../quantity';
import { alongPath, awayFromLine, cutAt, slenderParts } from './slender-parts';
import { startBuild } from './start-build';

const massesOf = (kind: string, type: string): readonly Mass[] => {
  const made = startBuild('x', '2026-12-01', kind, 0.5, type);
  if (!made.ok) throw new Error(made.message);
  const form = resolveForm(made.value);
  if (!form.ok) throw new Error(form.message);
  return form.value.masses;
};
const nowhere = () => undefined;

test('a horn is its three cones in a row from the skull out, and each side its own', () => {
  const parts = slenderParts(massesOf('bird-like', 'dragon'), nowhere);
  const horns = parts.filter((p) => p.id.startsWith('horn-'));
  expect(horns.map((h) => h.id).sort()).toEqual(['horn-1-left', 'horn-1-right']);
  for (const h of horns) {
    expect(h.masses).toHaveLength(3);
    expect(h.line).toHaveLength(4);
  }
  const [a, b] = horns.map((h) => h.line[3]!);
  expect(a![0]).toBeCloseTo(-b![0], 9);
  expect(a![2]).toBeCloseTo(b![2], 9);
});

test('a tine leaves its antler part of the way along, and is a part of its own that begins on it', () => {
  const parts = slenderParts(massesOf('four-legged', 'stag'), nowhere);
  const beam = parts.find((p) => p.id === 'antler-1-left')!;
  expect(beam.masses).toEqual(['antler-1-left', 'antler-2-left', 'antler-3-left']);
  for (const n of [1, 2, 3]) {
    const tine = parts.find((p) => p.id === `tine-${n}-left`)!;
    expect(awayFromLine(beam.line, tine.line[0]!)).toBeLessThan(1e-6);
    expect(awayFromLine(beam.line, tine.line[1]!)).toBeGreaterThan(0.01);
  }
});

test('a feather runs along its length from the arm it grows on; a body, a head and a wide plate are none', () => {
  const masses = massesOf('bird-like', 'eagle');
  const tip = masses.find((m) => m.id === 'wing-hand-left')!.at as never;
  const parts = slenderParts(masses, (id) => (id === 'pinion-left' ? tip : undefined));
  const feather = parts.find((p) => p.id === 'feather-primary-1-left')!;
  expect(distance(feather.line[0]!, tip)).toBeLessThan(distance(feather.line[1]!, tip));
  const radii = (masses.find((m) => m.id === feather.id)!.shape as { radii: number[] }).radii;
  expect(distance(feather.line[0]!, feather.line[1]!)).toBeCloseTo(2 * Math.max(...radii), 9);
  for (const id of ['body', 'breast', 'back']) expect(parts.some((p) => p.id === id)).toBe(false);
});

test('a line is cut at a share of its whole length, bends and all', () => {
  const line = [
    [0, 0, 0],
    [3, 0, 0],
    [3, 1, 0],
  ] as const;
  expect(alongPath(line, 0.5)).toEqual([2, 0, 0]);
  expect(alongPath(line, 0.875)).toEqual([3, 0.5, 0]);
  expect(cutAt(line, 0.875)).toEqual([
    [0, 0, 0],
    [3, 0, 0],
    [3, 0.5, 0],
  ]);
  expect(cutAt(line, 1)).toEqual(line);
  expect(awayFromLine(line, [1, 2, 0])).toBeCloseTo(2, 12);
  expect(awayFromLine(line, [5, 1, 0])).toBeCloseTo(2, 12);
});
