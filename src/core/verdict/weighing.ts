import {
  fitWeighings,
  factorsOf,
  isItDry,
  moistureAt,
  type DryAnswer,
  type DryingFactors,
  type Forecaster,
  type Weighing,
  type WeighingFit,
} from '../drying';
import { armatureItems } from '../load';
import { regionShapes } from './drying-report';
import { layClay, nominalPush, type Laid } from './laying';
import { Memory } from './memory';
import type { Piece } from './piece';

/** The bench corrects the model: weighings against the forecast of this piece, in this room, with this batch. */
export interface WeighingReport {
  readonly fit: WeighingFit;
  /** kg by time: the fitted forecast and two standard deviations either side. */
  readonly curve: readonly {
    readonly time: number;
    readonly low: number;
    readonly at: number;
    readonly high: number;
  }[];
  /** Seconds after the first clay until it is dry through; null when never. */
  readonly ready: { readonly low: number; readonly nominal: number; readonly high: number } | null;
  /** What was forecast before anything was weighed. */
  readonly readyBefore: number | null;
  readonly dry: { readonly answer: DryAnswer; readonly change: number | null; readonly over: number | null };
  readonly readings: number;
}

export interface PieceForecast {
  readonly mass: Forecaster;
  readonly ready: (factors: DryingFactors) => number | null;
  /** kg of everything that is weighed and is not clay. */
  readonly rest: number;
  /** Seconds for which it is worth drawing. */
  readonly until: number;
}

/** What the scale should show without the board; null for a clay that does not dry. */
export function forecastOf(piece: Piece, memory = new Memory(200)): PieceForecast | null {
  const clay = piece.mixed.drying;
  if (!clay || piece.clay.setting !== 'dries') return null;
  const { sums, shapes } = regionShapes(piece);
  const lay = (f: DryingFactors): Laid =>
    layClay(piece, memory, clay, shapes, { ...nominalPush, diffusivity: f.diffusion, transfer: f.evaporation });
  const bulk = sums.reduce((sum, s) => sum + (piece.face.solid ? 0 : s.bulk * piece.bulk.density), 0);
  const layers = sums.reduce((sum, s, r) => sum + (s.clay > 0 ? s.area * (piece.layersPerArea[r] ?? 0) : 0), 0);
  const metal = armatureItems(piece.armature, piece.stockOf)
    .filter((i) => i.kind !== 'base' && i.kind !== 'ballast')
    .reduce((sum, i) => sum + i.wet, 0);
  const rest = bulk + layers + metal;
  const mass: Forecaster = (f) => {
    const laid = lay(f);
    return (time) => {
      let sum = 0;
      laid.coats.forEach((coats, r) => {
        const whole = shapes[r]?.thicknesses.reduce((a, t) => a + t, 0) ?? 0;
        for (const c of coats) {
          if (c.start > time) continue;
          const solids = clay.rho_dry * (sums[r]?.clay ?? 0) * (whole > 0 ? c.thickness / whole : 1);
          sum += solids * (1 + moistureAt(c.course.history, Math.max(0, time - c.start)).meanMoisture);
        }
      });
      return rest + f.amount * sum;
    };
  };
  const ready = (f: DryingFactors): number | null => {
    const ends = lay(f).coats.flatMap((coats) => coats.map((c) => c.start + (c.course.throughDry ?? Infinity)));
    const last = ends.reduce((m, t) => Math.max(m, t), 0);
    return Number.isFinite(last) ? last : null;
  };
  return { mass, ready, rest, until: (ready(factorsOf([])) ?? 30 * 86400) * 1.25 };
}

const points = 70;

/** `tare` is the board and stand, `least` the finest the scale shows; kg. Null where nothing dries or nothing was weighed. */
export function fitPiece(
  piece: Piece,
  readings: readonly Weighing[],
  tare: number,
  least = 0.001,
): WeighingReport | null {
  const forecast = forecastOf(piece);
  const worth = readings.filter((r) => r.time >= 0);
  if (!forecast || worth.length === 0) return null;
  const fit = fitWeighings(worth, forecast.mass, tare, least);
  const p = [fit.factors.evaporation, fit.factors.diffusion, fit.factors.amount].map(Math.log);
  const h = 0.02;
  const pushed = [0, 1, 2].map(
    (k) => [h, -h].map((by) => factorsOf(p.map((v, i) => (i === k ? v + by : v)))) as [DryingFactors, DryingFactors],
  );
  const middle = forecast.mass(fit.factors);
  const either = pushed.map(([up, down]) => [forecast.mass(up), forecast.mass(down)] as const);
  const reach = (slopes: readonly number[]) => {
    let variance = 0;
    for (let a = 0; a < 3; a++)
      for (let b = 0; b < 3; b++) variance += slopes[a]! * slopes[b]! * (fit.covariance[a]?.[b] ?? 0);
    return 2 * Math.sqrt(Math.max(0, variance));
  };
  const nominal = forecast.ready(fit.factors);
  const until = Math.max(forecast.until, (nominal ?? 0) * 1.15, ...worth.map((r) => r.time * 1.1));
  const curve = Array.from({ length: points }, (_, i) => {
    const time = (until * i) / (points - 1);
    const at = middle(time);
    const out = reach(either.map(([up, down]) => (up(time) - down(time)) / (2 * h)));
    return { time, low: at - out, at, high: at + out };
  });
  const readySlopes = pushed.map(
    ([up, down]) =>
      ((forecast.ready(up) ?? (nominal ?? 0) * 2) - (forecast.ready(down) ?? (nominal ?? 0) * 2)) / (2 * h),
  );
  const spread = reach(readySlopes);
  const odd = new Set(fit.odd.map((o) => o.index));
  return {
    fit,
    curve,
    ready: nominal === null ? null : { low: Math.max(0, nominal - spread), nominal, high: nominal + spread },
    readyBefore: forecast.ready(factorsOf([])),
    dry: isItDry(
      worth.filter((_, i) => !odd.has(i)),
      least,
    ),
    readings: worth.length,
  };
}
