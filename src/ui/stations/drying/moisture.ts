import { moistureAt } from '../../../core/drying';
import type { RegionReport } from '../../../core/piece';

/** Water still to leave a region's latest coat at `time`, as a share of what it was laid with: 1 as laid, 0 dry. */
export function moistureShare(region: RegionReport, time: number): number {
  const coat = [...region.coats].reverse().find((c) => c.start <= time) ?? region.coats[0];
  if (!coat) return 0;
  const first = coat.course.history[0]?.meanMoisture ?? 1;
  return (
    (moistureAt(coat.course.history, time - coat.start).meanMoisture - coat.course.equilibrium) /
    (first - coat.course.equilibrium || 1)
  );
}
