import { asBriefed } from '../../core/evaluate';
import fc from 'fast-check';
import { newBust } from '../../core/document';
import { loadColour, moistureColour, rampCss } from '../bench/ramp';
import { moistureShare } from '../stations/drying/moisture';
import { Evaluator } from '../../core/evaluate';
import { readField, showField, valueAt, type FieldKind } from './fields';

const kinds: readonly FieldKind[] = ['length', 'mass', 'temperature', 'percent', 'number', 'speed', 'hours'];

test('what a field shows, it reads back, in both systems', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...kinds),
      fc.constantFrom('metric' as const, 'imperial' as const),
      fc.double({ min: 0.01, max: 2, noNaN: true }),
      (kind, units, value) => {
        const read = readField(kind, showField(kind, value, units), units);
        if (!read.ok) throw new Error(`${kind} ${units} ${value}: ${read.message}`);
        expect(Math.abs(read.value - value)).toBeLessThan(
          kind === 'temperature' ? 0.06 : Math.max(0.0081 * value, 0.0025),
        );
      },
    ),
    { seed: 9, numRuns: 400 },
  );
});

test.each([
  ['length', 'wide'],
  ['mass', '3 stone'],
  ['percent', 'half'],
  ['speed', 'breezy'],
  ['temperature', ''],
] as const)('%s does not take "%s"', (kind, text) => expect(readField(kind, text, 'metric').ok).toBe(false));

test('a place in a build, also one that is not there', () => {
  const b = newBust('b', '2026-12-01');
  expect(valueAt(b, ['room', 'temperature'])).toBe(20);
  expect(valueAt(b, ['regions', 'own', 'head', 'coats'])).toBeUndefined();
});

test('ramps darken one way and stay within their ends', () => {
  const light = ([r, g, b]: readonly number[]) => 0.3 * r! + 0.59 * g! + 0.11 * b!;
  const moisture = [0, 0.25, 0.5, 0.75, 1].map((s) => light(moistureColour(s)));
  expect([...moisture].sort((a, b) => b - a)).toEqual(moisture);
  expect(loadColour(-1)).toEqual(loadColour(0));
  expect(loadColour(9)).toEqual(loadColour(1.5));
  // Red only past what it can bear.
  const [red, green] = loadColour(1.5);
  expect(red).toBeGreaterThan(green * 2);
  // What is idle recedes into the page by day and in the evening.
  expect(light(loadColour(0))).toBeGreaterThan(light(loadColour(1)));
  expect(light(loadColour(0, true))).toBeLessThan(light(loadColour(1, true)));
  expect(rampCss('load')).toMatch(/^linear-gradient/);
});

test('moisture on the piece runs from as laid to dry, coat by coat', () => {
  const b = {
    ...newBust('b', '2026-12-01'),
    regions: { painted: [], seams: [], everywhere: { coats: [0.005, 0.005] }, own: {} },
  };
  const r = new Evaluator().evaluate(asBriefed(b));
  if (!r.ok) throw new Error(r.message);
  const region = r.value.regions[0];
  if (!region) throw new Error('no region');
  expect(moistureShare(region, 0)).toBeCloseTo(1, 6);
  const second = region.coats[1]?.start ?? 0;
  expect(moistureShare(region, second * 0.99)).toBeLessThan(0.1);
  expect(moistureShare(region, second)).toBeCloseTo(1, 6);
  expect(moistureShare(region, 1e9)).toBeLessThan(0.06);
});
