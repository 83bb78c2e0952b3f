import { ratiosOf, type FullRegion, type RegionFigures } from './full-findings';

const hour = 3600;
const figures = (through: number | null, crack: number, more: Partial<RegionFigures> = {}): RegionFigures => ({
  touch: null,
  leather: null,
  hold: null,
  through,
  steady: null,
  crack,
  ...more,
});
const region = (start: number, quick: RegionFigures, full: RegionFigures): FullRegion => ({
  id: 'head',
  start,
  quick,
  full,
  restrained: 0,
  differential: 0,
});

test('full over quick is counted from when the last coat went on', () => {
  const ratios = ratiosOf(region(10 * hour, figures(30 * hour, 0.5), figures(40 * hour, 0.8)));
  expect(ratios).toEqual({ through: 1.5, crack: expect.closeTo(1.6, 12) });
});

test('nothing is said of what either never reaches, reached before the coat was on, or hardly cracks', () => {
  const quick = figures(null, 0.005, { touch: 2 * hour, leather: 20 * hour });
  const full = figures(30 * hour, 0.5, { touch: 12 * hour, leather: null });
  expect(ratiosOf(region(10 * hour, quick, full))).toEqual({});
});
