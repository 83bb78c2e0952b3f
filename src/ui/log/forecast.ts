import { findClay, type Build } from '../../core/build';
import { mixClay } from '../../core/clay';
import { clayMassAt, type Report } from '../../core/verdict';

/** What the scale should show without the board, from the day the clay went on. kg against seconds. */
export interface Forecast {
  readonly at: (time: number) => number;
  /** Ends of the band: drying at its fastest and its slowest. */
  readonly least: (time: number) => number;
  readonly most: (time: number) => number;
  readonly until: number;
}

export function forecastOf(build: Build, report: Report): Forecast | null {
  const clay = findClay(build, build.brief.clay);
  if (!clay.ok) return null;
  const { drying } = mixClay(clay.value, build.materials.waterWorkedIn);
  const onBoard = report.ledger.items
    .filter((i) => i.kind === 'base' || i.kind === 'ballast')
    .reduce((sum, i) => sum + i.wet, 0);
  const rest = report.ledger.wet - report.ledger.clayWet - onBoard;
  if (!drying || !report.regions.some((r) => r.coats.length > 0)) {
    const steady = () => rest + report.ledger.clayWet;
    return { at: steady, least: steady, most: steady, until: 7 * 86400 };
  }
  const mass = (pace: (r: Report['regions'][number]) => number) => (time: number) =>
    rest +
    report.regions.reduce((sum, r) => {
      const m = clayMassAt(r, drying.rho_dry, Math.max(0, time) * pace(r));
      return sum + m.solids + m.water;
    }, 0);
  const last = Math.max(...report.regions.map((r) => r.throughDry ?? 0));
  const ratio = (r: Report['regions'][number], end: 'low' | 'high') =>
    r.throughDry && r.throughDryRange ? r.throughDry / r.throughDryRange[end] : 1;
  return {
    at: mass(() => 1),
    least: mass((r) => ratio(r, 'low')),
    most: mass((r) => ratio(r, 'high')),
    until: last * 1.2,
  };
}
