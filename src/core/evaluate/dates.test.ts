import type { Piece, PieceReport } from '../piece';
import type { BuildPlan } from '../plan';
import { datesOf, laidDates } from './dates';

/** Both dates from figures set by hand: regions dry so long after their last coat, a plan that lays them at its hours. */
const day = 86400;
const first = Date.parse('2026-12-01T09:00:00Z') / 1000;
const dries = (setting = 'dries') => ({ clay: { setting } }) as Piece;
const region = (id: string, days: number | null, more: object = {}) => ({
  id,
  name: id,
  lastStart: 0,
  throughDry: days === null ? null : days * day,
  throughDryRange: null,
  coats: [{ start: 0, course: { throughDry: days === null ? null : days * day } }],
  windows: windowsOf(days),
  ...more,
});
function windowsOf(days: number | null) {
  const at = days === null ? null : days * day;
  return { through: { at, range: at === null ? null : { low: at * 0.8, nominal: at, high: at * 1.5 } } };
}
const step = (id: string, until: number, spread = 0) => ({
  id,
  until,
  ends: { low: until - spread, nominal: until, high: until + spread },
});
const plan = (finish: number, steps: readonly object[] = []) =>
  ({
    finish: { low: finish, nominal: finish, high: finish },
    steps,
    zone: 'UTC',
    deciding: [],
    id: 'b',
  }) as unknown as BuildPlan;
const report = (...regions: object[]) => ({ regions, basis: 'quick' }) as unknown as PieceReport;

const of = (r: PieceReport, p: BuildPlan | null = null, piece = dries(), weighings = 0) =>
  datesOf(piece, r, p, first, weighings);

describe('ready: the end of the plan', () => {
  const on = (text: string) => plan(Date.parse(text) / 1000);
  test('the day its last step ends; at midnight, the day before', () => {
    expect(of(report(), on('2026-12-09T18:30:00Z')).ready?.likely).toBe('2026-12-09');
    expect(of(report(), on('2026-12-10T00:00:00Z')).ready?.likely).toBe('2026-12-09');
    expect(of(report(), on('2026-12-10T00:00:02Z')).ready?.likely).toBe('2026-12-10');
  });
  test('on the workshop’s own calendar', () => {
    const rome = { ...on('2026-12-09T23:30:00Z'), zone: 'Europe/Rome' };
    expect(of(report(), rome).ready?.likely).toBe('2026-12-10');
  });
  test('no plan, or one without end, is no day; a latest end that never comes is told as such', () => {
    expect(of(report()).ready).toBeNull();
    expect(of(report(), plan(Infinity)).ready).toBeNull();
    const late = { ...on('2026-12-09T18:30:00Z') };
    expect(of(report(), { ...late, finish: { ...late.finish, high: Infinity } }).ready?.latest).toBe('9999-12-31');
  });
});

describe('dry through: each region from when its clay is on', () => {
  test('without a plan, from the first clay; the last region has the date and the name', () => {
    const dates = of(report(region('head', 3), region('chest', 5), region('neck', 4)));
    expect(dates.dryThrough?.likely).toBe('2026-12-06T09:00:00.000Z');
    expect(dates.lastDry).toBe('chest');
    // Earliest when all of it may be, latest when the last of it may be: four days, and seven and a half.
    expect(dates.dryThrough).toMatchObject({
      earliest: '2026-12-05T09:00:00.000Z',
      latest: '2026-12-08T21:00:00.000Z',
    });
  });
  test('a coat that goes on later by its stage dries later, without a plan too', () => {
    // Its windows are told from the first clay on: through on the seventh day.
    const later = region('head', 3, { lastStart: 4 * day, windows: windowsOf(7) });
    const dates = of(report(later, region('chest', 5)));
    expect([dates.lastDry, dates.dryThrough?.likely]).toEqual(['head', '2026-12-08T09:00:00.000Z']);
  });
  test('what the plan lays later dries later, however thin', () => {
    const laid = plan(first + 20 * day, [step('lay/head/1', first + 4 * day), step('lay/chest/1', first)]);
    const dates = of(report(region('head', 3), region('chest', 5)), laid);
    expect([dates.lastDry, dates.dryThrough?.likely]).toEqual(['head', '2026-12-08T09:00:00.000Z']);
  });
  test('a class has it dry when its last group has', () => {
    const groups = plan(first + 20 * day, [
      step('group-1/lay/head/1', first + day),
      step('group-2/lay/head/1', first + 3 * day),
    ]);
    expect(of(report(region('head', 3)), groups).dryThrough?.likely).toBe('2026-12-07T09:00:00.000Z');
  });
  test('a region that never dries leaves no date; clay that does not dry has none; a region without clay does not count', () => {
    expect(of(report(region('head', 3), region('chest', null))).dryThrough).toBeNull();
    expect(of(report(region('head', 3)), null, dries('sets')).dryThrough).toBeNull();
    expect(of(report(region('head', 3), region('foot', 90, { coats: [] }))).lastDry).toBe('head');
  });
  test('how many weighings it knows of, and on what answer it rests', () =>
    expect(of(report(region('head', 3)), null, dries(), 4)).toMatchObject({ weighings: 4, basis: 'quick' }));
});

describe('when the clay went on', () => {
  const laid = plan(first + 9 * day, [step('lay/head/1', first + 2 * day), step('lay/chest/1', first + day)]);
  test('by the log where it is on; else by the plan, else by the brief', () => {
    expect(laidDates(report(), laid, first, true).first).toBe(first);
    expect(laidDates(report(), laid, first, false).first).toBe(first + day);
    expect(laidDates(report(), null, first, false).first).toBe(first);
  });
  test('each region’s last coat by its own step', () => {
    const { lastCoat } = laidDates(report(region('head', 3), region('neck', 3, { lastStart: 5 })), laid, first, true);
    expect(lastCoat).toEqual({ head: first + 2 * day, neck: first + 5 });
  });
});
