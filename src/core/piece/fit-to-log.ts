import { fitWeighings, isItDry, moistureAt, type DryAnswer, type DryingFactors, type WeighingFit } from '../drying';
import type { Weighings } from '../log';
import { armatureItems } from '../load';
import { nominalPush, layClay, type Laid, type Push } from './laying';
import { clampFactor, type Fitted, type Piece } from './piece';
import { factorPushes, layingOf, regionShapes } from './quick-drying';
import type { ResultCache } from './result-cache';

/**
 * The bench corrects the model: what the scale should show, what weighings say of this clay in this room, and whether it
 * is dry by weight. The factors that are found belong to the piece's history and serve every variant of it.
 */
export interface PieceForecast {
  /** kg on the scale without the board, so many seconds after the first clay. */
  readonly mass: (push: Partial<Push>, amount?: number) => (time: number) => number;
  /** kg of everything that is weighed and is not clay. */
  readonly rest: number;
  /** Seconds for which it is worth drawing. */
  readonly until: number;
}

/** What the scale should show without the board; null for a clay that does not dry. */
export function forecastOf(piece: Piece, cache: ResultCache): PieceForecast | null {
  const inputs = layingOf(piece);
  if (!inputs || piece.clay.setting !== 'dries') return null;
  const { sums, shapes } = regionShapes(piece);
  const bulk = sums.reduce((sum, s) => sum + (piece.face.solid ? 0 : s.bulk * piece.bulk.density), 0);
  const layers = sums.reduce((sum, s, r) => sum + (s.clay > 0 ? s.area * (piece.layersPerArea[r] ?? 0) : 0), 0);
  const metal = armatureItems(piece.armature, piece.stockOf)
    .filter((i) => i.kind !== 'base' && i.kind !== 'ballast')
    .reduce((sum, i) => sum + i.wet, 0);
  const rest = bulk + layers + metal;
  const { rho_dry } = inputs.clay;
  const mass = (push: Partial<Push>, amount = 1) => {
    const laid = layClay(inputs, cache, { ...nominalPush, ...push });
    return (time: number) => {
      let sum = 0;
      laid.coats.forEach((coats, r) => {
        const whole = shapes[r]?.thicknesses.reduce((a, t) => a + t, 0) ?? 0;
        for (const c of coats) {
          if (c.start > time) continue;
          const solids = rho_dry * (sums[r]?.clay ?? 0) * (whole > 0 ? c.thickness / whole : 1);
          sum += solids * (1 + moistureAt(c.course.history, Math.max(0, time - c.start)).meanMoisture);
        }
      });
      return rest + amount * sum;
    };
  };
  return { mass, rest, until: (throughOf(layClay(inputs, cache)) ?? 30 * 86400) * 1.4 };
}

/** Seconds after the first clay until the last region is dry through by the quick answer; null when never. */
function throughOf(laid: Laid): number | null {
  const ends = laid.coats.flatMap((coats) => coats.map((c) => c.start + (c.course.throughDry ?? Infinity)));
  const last = ends.reduce((m, t) => Math.max(m, t), 0);
  return Number.isFinite(last) ? last : null;
}

/** What a fit found, and what is frozen of it. */
export interface LogFit {
  readonly fit: WeighingFit;
  readonly fitted: Fitted;
}

/** Fits a piece made without any fit to its weighings; null where nothing dries or nothing was weighed. */
export function fitToLog(piece: Piece, weighings: Weighings, cache: ResultCache): LogFit | null {
  const forecast = forecastOf(piece, cache);
  const { readings, tare, finest } = weighings;
  if (!forecast || readings.length === 0) return null;
  const mass = (f: DryingFactors) => forecast.mass({ diffusivity: f.diffusion, transfer: f.evaporation }, f.amount);
  const fit = fitWeighings(readings, mass, tare, finest);
  const at = (a: number, b: number) => fit.covariance[a]?.[b] ?? 0;
  return {
    fit,
    fitted: {
      clay: piece.clay.id,
      evaporation: clampFactor(fit.factors.evaporation),
      diffusion: clampFactor(fit.factors.diffusion),
      covariance: [
        [at(0, 0), at(0, 1)],
        [at(1, 0), at(1, 1)],
      ],
      weighings: readings.length - fit.odd.length,
    },
  };
}

/** What the scale says, beside what it should say. */
export interface ScaleReport {
  /** kg by time without the board: the forecast, corrected by what was weighed, and its band. */
  readonly curve: readonly {
    readonly time: number;
    readonly low: number;
    readonly at: number;
    readonly high: number;
  }[];
  readonly fit: WeighingFit | null;
  readonly dry: { readonly answer: DryAnswer; readonly change: number | null; readonly over: number | null };
}

const points = 60;

/** The forecast of a piece that carries its fit, with its band; null for a clay that does not dry. */
export function scaleReport(
  piece: Piece,
  weighings: Weighings,
  fit: WeighingFit | null,
  cache: ResultCache,
): ScaleReport | null {
  const forecast = forecastOf(piece, cache);
  if (!forecast) return null;
  const amount = fit?.factors.amount ?? 1;
  const middle = forecast.mass({}, amount);
  const ends = factorPushes(piece.factors.covariance).map((p) => forecast.mass(p, amount));
  const heavier = forecast.mass({}, amount * (1 + 2 * (fit?.spread.amount ?? usualAmount)));
  const until = Math.max(forecast.until, ...weighings.readings.map((r) => r.time * 1.1));
  const curve = Array.from({ length: points }, (_, i) => {
    const time = (until * i) / (points - 1);
    const at = middle(time);
    let below = (heavier(time) - at) ** 2,
      above = below;
    for (const end of ends) {
      const off = end(time) - at;
      if (off < 0) below += off * off;
      else above += off * off;
    }
    return { time, low: at - Math.sqrt(below), at, high: at + Math.sqrt(above) };
  });
  const odd = new Set(fit?.odd.map((o) => o.index));
  return {
    curve,
    fit,
    dry: isItDry(
      weighings.readings.filter((_, i) => !odd.has(i)),
      weighings.finest,
    ),
  };
}

/** One standard deviation of how much clay went on, where nothing was weighed. */
const usualAmount = 0.03;
