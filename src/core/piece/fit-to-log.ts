import { fitWeighings, isItDry, type DryAnswer, type DryingFactors, type WeighingFit } from '../drying';
import type { Weighings } from '../log';
import { armatureItems } from '../load';
import { coatMass, layClay, nominalPush, type Laid, type LayingInputs, type Push } from './laying';
import { clampFactor } from './clamp-factor';
import type { Fitted, Piece } from './piece';
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
  const on = scaleInputs(piece);
  if (!on) return null;
  const mass = (push: Partial<Push>, amount = 1) => {
    const clay = on.clayMass(layClay(on.inputs, cache, { ...nominalPush, ...push }));
    return (time: number) => on.rest + amount * clay(time);
  };
  return { mass, rest: on.rest, until: (throughOf(layClay(on.inputs, cache)) ?? 30 * 86400) * 1.4 };
}

interface ScaleInputs {
  readonly inputs: LayingInputs;
  /** kg of everything that is weighed and is not clay. */
  readonly rest: number;
  /** kg of clay and its water, in the clay and in the core under it, of what is laid so. */
  readonly clayMass: (laid: Laid) => (time: number) => number;
}

function scaleInputs(piece: Piece): ScaleInputs | null {
  const inputs = layingOf(piece);
  if (!inputs || piece.clay.setting !== 'dries') return null;
  const { sums, shapes } = regionShapes(piece);
  const bulk = sums.reduce((sum, s) => sum + (piece.face.solid ? 0 : s.bulk * piece.bulk.density), 0);
  const layers = sums.reduce((sum, s, r) => sum + (s.clay > 0 ? s.area * (piece.layersPerArea[r] ?? 0) : 0), 0);
  const metal = armatureItems(piece.armature, piece.stockOf)
    .filter((i) => i.kind !== 'base' && i.kind !== 'ballast')
    .reduce((sum, i) => sum + i.wet, 0);
  const { rho_dry } = inputs.clay;
  const clayMass = (laid: Laid) => (time: number) => {
    let sum = 0;
    laid.coats.forEach((coats, r) => {
      const whole = shapes[r]?.thicknesses.reduce((a, t) => a + t, 0) ?? 0;
      for (const c of coats) {
        if (!(c.start <= time)) continue;
        const solids = rho_dry * (sums[r]?.clay ?? 0) * (whole > 0 ? c.thickness / whole : 1);
        const { water, core } = coatMass(c, solids, rho_dry, time - c.start);
        sum += solids + water + core;
      }
    });
    return sum;
  };
  return { inputs, rest: bulk + layers + metal, clayMass };
}

/** Seconds after the first clay until the last region is dry through by the quick answer; null when never. */
function throughOf(laid: Laid): number | null {
  const ends = laid.coats.flatMap((coats) => coats.map((c) => c.start + (c.course.throughDry ?? Infinity)));
  const last = ends.reduce((m, t) => Math.max(m, t), 0);
  return Number.isFinite(last) ? last : null;
}

/**
 * The weight of the clay at the readings' own times, as a smooth function of how fast water leaves and moves: drying laid
 * at a few pairs of factors round a middle, quadratic in their logarithms between. A least-squares search asks for
 * hundreds of pairs; these few are dried, and a few more, closer by, where the search has led it.
 */
class NearBy {
  /** Weights at the middle, and how they change with either logarithm, in spans: slope, half the bend, and together. */
  private readonly middle: Float64Array;
  private readonly changes: readonly {
    readonly slope: Float64Array;
    readonly bend: Float64Array;
  }[];
  private readonly together: Float64Array | null;
  private readonly index: ReadonlyMap<number, number>;

  constructor(
    private readonly on: ScaleInputs,
    times: readonly number[],
    private readonly at: readonly [number, number],
    private readonly span: readonly [number, number],
    closely: boolean,
    cache: ResultCache,
  ) {
    const fine = { ...on.inputs, until: Math.max(...times) + 60 },
      rough = { ...fine, rough: true };
    const dried = (inputs: LayingInputs, e: number, d: number): Float64Array => {
      const transfer = Math.exp(at[0] + e * span[0]),
        diffusivity = Math.exp(at[1] + d * span[1]);
      return Float64Array.from(times, on.clayMass(layClay(inputs, cache, { ...nominalPush, transfer, diffusivity })));
    };
    // How it moves from where it stands is worked out roughly; where it stands, once it is near, finely.
    const about = dried(rough, 0, 0);
    this.middle = closely ? dried(fine, 0, 0) : about;
    const beside = (e: number, d: number) => dried(rough, e, d).map((v, i) => (v * this.middle[i]!) / about[i]!);
    const ends = [
      [beside(-1, 0), beside(1, 0)],
      [beside(0, -1), beside(0, 1)],
    ] as const;
    this.changes = ends.map(([below, above]) => ({
      slope: above.map((v, i) => (v - below[i]!) / 2),
      bend: above.map((v, i) => (v + below[i]!) / 2 - this.middle[i]!),
    }));
    this.together = closely ? beside(1, 1).map((v, i) => v - ends[0][1][i]! - ends[1][1][i]! + this.middle[i]!) : null;
    this.index = new Map(times.map((t, i) => [t, i]));
  }

  readonly forecaster = (f: DryingFactors): ((time: number) => number) => {
    const u = (Math.log(f.evaporation) - this.at[0]) / this.span[0],
      v = (Math.log(f.diffusion) - this.at[1]) / this.span[1];
    const [e, d] = [this.changes[0]!, this.changes[1]!];
    return (time) => {
      const i = this.index.get(time)!;
      const clay =
        this.middle[i]! +
        u * (e.slope[i]! + u * e.bend[i]!) +
        v * (d.slope[i]! + v * d.bend[i]!) +
        u * v * (this.together?.[i] ?? 0);
      return this.on.rest + f.amount * clay;
    };
  };

  /** Whether a fit lies so near the middle that nothing is guessed. */
  holds(f: DryingFactors): boolean {
    return (
      Math.abs(Math.log(f.evaporation) - this.at[0]) <= this.span[0] &&
      Math.abs(Math.log(f.diffusion) - this.at[1]) <= this.span[1]
    );
  }
}

const firstSpan = [0.4, 0.5] as const,
  nextSpan = [0.22, 0.28] as const;
const mostMoves = 4;

/** What a fit found, and what is frozen of it. */
export interface LogFit {
  readonly fit: WeighingFit;
  readonly fitted: Fitted;
}

/** Fits a piece made without any fit to its weighings; null where nothing dries or nothing was weighed. */
export function fitToLog(piece: Piece, weighings: Weighings, cache: ResultCache): LogFit | null {
  const on = scaleInputs(piece);
  const { readings, tare, finest } = weighings;
  if (!on || readings.length === 0) return null;
  const times = [...new Set(readings.map((r) => r.time))];
  let near = new NearBy(on, times, [0, 0], firstSpan, false, cache);
  let fit = fitWeighings(readings, near.forecaster, tare, finest);
  // Once more about where it came to, closer by; and on from there, should it have led out of that.
  for (let move = 0; move < mostMoves; move++) {
    const { evaporation, diffusion } = fit.factors;
    const at = [bounded(Math.log(evaporation)), bounded(Math.log(diffusion))] as const;
    near = new NearBy(on, times, at, nextSpan, true, cache);
    fit = fitWeighings(readings, near.forecaster, tare, finest);
    if (near.holds(fit.factors)) break;
  }
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

const bounded = (v: number) => Math.min(2, Math.max(-2, v));

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
