/**
 * Wire gauges. "Gauge" alone is ambiguous: two series share the same numbers,
 * so the system must always be named (8 AWG is 3.26 mm, 8 SWG is 4.06 mm).
 */
export type GaugeSystem = 'AWG' | 'SWG';

/** Standard Wire Gauge diameters in mm, sizes 4/0 (-3) to 30; the series is a table, not a formula. */
const swgMm: ReadonlyMap<number, number> = new Map([
  [-3, 10.16],
  [-2, 9.449],
  [-1, 8.839],
  [0, 8.23],
  [1, 7.62],
  [2, 7.01],
  [3, 6.401],
  [4, 5.893],
  [5, 5.385],
  [6, 4.877],
  [7, 4.47],
  [8, 4.064],
  [9, 3.658],
  [10, 3.251],
  [11, 2.946],
  [12, 2.642],
  [13, 2.337],
  [14, 2.032],
  [15, 1.829],
  [16, 1.626],
  [17, 1.422],
  [18, 1.219],
  [19, 1.016],
  [20, 0.914],
  [21, 0.813],
  [22, 0.711],
  [23, 0.61],
  [24, 0.559],
  [25, 0.508],
  [26, 0.457],
  [27, 0.417],
  [28, 0.376],
  [29, 0.345],
  [30, 0.315],
]);

/** Diameter in metres, or undefined where the series has no such size. AWG: d = 0.127 x 92^((36 - n)/39) mm. */
export function gaugeDiameter(system: GaugeSystem, size: number): number | undefined {
  if (!Number.isInteger(size)) return undefined;
  if (system === 'AWG') {
    if (size < -3 || size > 40) return undefined;
    return (0.127 * 92 ** ((36 - size) / 39)) / 1000;
  }
  const mm = swgMm.get(size);
  return mm === undefined ? undefined : mm / 1000;
}

/** The nearest whole size of a series to a diameter in metres, if within 3 %. */
export function nearestGauge(system: GaugeSystem, diameter: number): number | undefined {
  for (let size = -3; size <= 40; size++) {
    const d = gaugeDiameter(system, size);
    if (d !== undefined && Math.abs(d - diameter) <= 0.03 * diameter) return size;
  }
  return undefined;
}
