import fc from 'fast-check';
import {
  combineDepartures,
  formatDate,
  formatDuration,
  formatLength,
  formatMass,
  formatStress,
  formatTemperature,
  fractionOfInch,
  gaugeDiameter,
  nearestGauge,
  nightsOf,
  parseLength,
  parseMass,
  parseNumber,
  parsePercent,
  parseTemperature,
  sensible,
  spanOf,
} from '.';

const value = (r: { ok: boolean }) => (r as { value?: number }).value;

describe('lengths as people type them', () => {
  test.each([
    ['12', 0.012],
    ['12 mm', 0.012],
    ['1.2cm', 0.012],
    ['1,2 cm', 0.012],
    ['3/16 in', 0.0047625],
    ['1 3/4"', 0.04445],
    ['1-3/4 inch', 0.04445],
    ['5\' 6 1/2"', 1.6891],
    ['-1 ft 6 in', -0.4572],
    ['5 ft 6', NaN],
    ['8 AWG', 0.0032639],
    ['AWG 8', 0.0032639],
    ['8 swg', 0.004064],
    ['½ in', 0.0127],
    ['2 m', 2],
    ['-3 mm', -0.003],
  ])('%s', (text, metres) => {
    const read = parseLength(text);
    if (Number.isNaN(metres)) expect(read.ok).toBe(false);
    else expect(value(read)).toBeCloseTo(metres, 6);
  });
  test('a bare number takes the unit in use', () => expect(value(parseLength('3/8', 'in'))).toBeCloseTo(0.009525, 9));
  test('a gauge without its system is asked for', () => {
    for (const text of ['8 gauge', '8 ga', 'gauge 8'])
      expect(parseLength(text)).toMatchObject({ ok: false, code: 'gauge-system-missing' });
    expect(parseLength('60 AWG')).toMatchObject({ ok: false, code: 'no-such-gauge' });
  });
  test.each(['', 'thick', '12 parsecs', '1/0 in', 'NaN', '1e9', '--3', '3 mm 2', '9'.repeat(100)])(
    'nonsense is refused: "%s"',
    (text) => expect(parseLength(text).ok).toBe(false),
  );
  test('any text at all gives a value or a reason, never a throw', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (text) => {
        const read = parseLength(text);
        expect(read.ok ? Number.isFinite(read.value) : read.message.length > 0).toBe(true);
      }),
      { seed: 3, numRuns: 500 },
    );
  });
});

test('weights, temperatures, shares', () => {
  expect(value(parseMass('1 lb 4 oz'))).toBeCloseTo(0.5669905, 6);
  expect(value(parseMass('350 g'))).toBeCloseTo(0.35, 9);
  expect(value(parseMass('2', 'lb'))).toBeCloseTo(0.90718474, 8);
  expect(value(parseTemperature('68 F'))).toBeCloseTo(20, 9);
  expect(value(parseTemperature('20'))).toBe(20);
  expect(value(parsePercent('55 %'))).toBeCloseTo(0.55, 12);
  expect(parseTemperature('warm').ok).toBe(false);
  expect(parseNumber('1 1/2')).toBe(1.5);
});

test('gauges: two series that share numbers', () => {
  expect(gaugeDiameter('AWG', 8)).toBeCloseTo(0.003264, 6);
  expect(gaugeDiameter('SWG', 8)).toBeCloseTo(0.004064, 6);
  expect(gaugeDiameter('SWG', 99)).toBeUndefined();
  expect(gaugeDiameter('AWG', 8.5)).toBeUndefined();
  expect(nearestGauge('AWG', 0.00326)).toBe(8);
});

test('figures to a sensible length', () => {
  expect(sensible(0)).toBe('0');
  expect(sensible(8.0321)).toBe('8.03');
  expect(sensible(1234.6)).toBe('1235');
  expect(sensible(NaN)).toBe('–');
  expect(formatLength(0.012)).toBe('12 mm');
  expect(formatLength(1.42)).toBe('1.42 m');
  expect(formatLength(0.012, 'imperial')).toBe('15/32 in');
  expect(fractionOfInch(0.0254 * 1.5)).toBe('1 1/2');
  expect(formatMass(0.35)).toBe('350 g');
  expect(formatMass(0.907184, 'imperial')).toBe('2 lb');
  expect(formatMass(2.2679, 'imperial')).toBe('5 lb');
  expect(formatMass(0.55, 'imperial')).toBe('1 lb 3.4 oz');
  expect(formatMass(7.35, 'imperial')).toBe('16 lb 3 oz');
  expect(formatTemperature(20, 'imperial')).toBe('68 °F');
  expect(formatDate('2026-12-12')).toBe('Sat 12 Dec');
  expect(formatDuration(3 * 86400)).toBe('3 days');
  expect(nightsOf(86400 * 2.2)).toBe(3);
});

test('what lies on the edge between two figures is told alike whichever side its last bits fall', () => {
  for (const edge of [7.75, 0.0775, 1.245, 2.5, 123.5])
    for (const figures of [2, 3])
      expect(sensible(edge * (1 - 1e-13), figures)).toBe(sensible(edge * (1 + 1e-13), figures));
  const [below, above] = [0.00775 * (1 - 1e-13), 0.00775 * (1 + 1e-13)];
  expect(formatLength(below)).toBe(formatLength(above));
  const half = (0.0254 * 1.5) / 16;
  expect(fractionOfInch(half * (1 - 1e-13))).toBe(fractionOfInch(half * (1 + 1e-13)));
  expect([sensible(7.7499), sensible(7.7501, 2)]).toEqual(['7.75', '7.8']);
});

test('what is written can be read back', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.001, max: 3, noNaN: true }),
      fc.constantFrom('metric' as const, 'imperial' as const),
      (metres, system) => {
        const back = parseLength(formatLength(metres, system));
        expect(Math.abs(value(back)! - metres)).toBeLessThan(Math.max(0.006 * metres, 0.0008));
      },
    ),
    { seed: 11, numRuns: 300 },
  );
});

test('what a material bears is told in megapascals, or in pounds on a square inch', () => {
  expect(formatStress(45e6)).toBe('45 MPa');
  expect(formatStress(1e6, 'imperial')).toBe('145 psi');
});

test('ranges hold their nominal', () => {
  expect(spanOf(3, [1, 2, 5, 4])).toEqual({ low: 1, nominal: 3, high: 5 });
  expect(spanOf(3, [])).toEqual({ low: 3, nominal: 3, high: 3 });
  expect(combineDepartures(10, [7, 14, 13])).toEqual({ low: 7, nominal: 10, high: 15 });
});
