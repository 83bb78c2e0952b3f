import type { Weighing } from '../log';
import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { Matrix, inverse } from 'ml-matrix';

const { abs, exp, log, max, min, sqrt } = Math;

/**
 * What the scale says about this clay in this room: how fast water leaves the face, how fast it moves inside, and how
 * much clay went on, as factors on what was expected. Least squares over the weighings, with what is known beforehand
 * standing beside them as so many readings more; Marquardt (1963), *An algorithm for least-squares estimation of
 * nonlinear parameters*. The band is linear in the logarithms of the factors, at two standard deviations.
 * Left out: a room that changed without being told; clay knocked off.
 */
export interface DryingFactors {
  readonly evaporation: number;
  readonly diffusion: number;
  /** Of the clay that was expected to go on. */
  readonly amount: number;
}

/** kg the scale should show at a time. */
export type Forecaster = (factors: DryingFactors) => (time: number) => number;

/** One standard deviation beforehand, in logarithms: the ends of the usual ranges are two of them. */
export const priors = { evaporation: log(1.4) / 2 + 0.02, diffusion: log(1.6) / 2, amount: 0.03 } as const;

export interface WeighingFit {
  readonly factors: DryingFactors;
  /** One standard deviation of each, as a share. */
  readonly spread: DryingFactors;
  /** kg, one standard deviation of a single weighing. */
  readonly noise: number;
  /** Covariance of the three logarithms, by rows. */
  readonly covariance: readonly (readonly number[])[];
  readonly odd: readonly OddReading[];
}

export interface OddReading {
  readonly index: number;
  /** kg too much. */
  readonly off: number;
  /** In standard deviations. */
  readonly by: number;
  readonly why: 'digit' | 'tare' | 'added' | 'unknown';
  /** kg it may have been. */
  readonly meant: number | null;
}

const names = ['evaporation', 'diffusion', 'amount'] as const;
const sds = names.map((n) => priors[n]);

export function factorsOf(p: readonly number[]): DryingFactors {
  return { evaporation: exp(p[0] ?? 0), diffusion: exp(p[1] ?? 0), amount: exp(p[2] ?? 0) };
}

/** Readings that lie further from the rest than this many standard deviations are called out and set aside. */
const oddFrom = 4;
/** No more of them than this share: beyond it the forecast is what is wrong. */
const mostOdd = 0.25;

/**
 * Fits the factors. `tare` is what may have been left out or added by mistake, `least` the finest the scale shows; kg.
 * Needs one reading; with few of them it stays near what was known beforehand.
 */
export function fitWeighings(
  readings: readonly Weighing[],
  forecaster: Forecaster,
  tare: number,
  least = 0.001,
): WeighingFit {
  const kept = new Set(readings.map((_, i) => i));
  const typical = readings.reduce((m, r) => max(m, abs(r.mass)), least);
  let noise = max(least, 0.005 * typical);
  let p = [0, 0, 0];
  let odd: OddReading[] = [];
  // A slipped reading pulls the first fits towards itself: the worst is set aside one at a time.
  for (let round = 0; round < 12; round++) {
    const used = readings.filter((_, i) => kept.has(i));
    const robust = round === 0 ? starting(readings, forecaster) : p;
    p = solve(used, forecaster, noise, robust);
    const model = forecaster(factorsOf(p));
    const off = readings.map((r) => r.mass - model(r.time));
    noise = max(
      least / 2,
      spreadOf(
        used.map((r) => r.mass - model(r.time)),
        0.005 * typical,
      ),
    );
    const worst = [...kept].reduce((w, i) => (abs(off[i]!) > abs(off[w]!) ? i : w), [...kept][0] ?? 0);
    const others = [...kept].filter((i) => i !== worst).map((i) => off[i]!);
    const without = max(least / 2, spreadOf(others, 0.005 * typical));
    if (
      kept.size < 3 ||
      readings.length - kept.size >= mostOdd * readings.length ||
      abs(off[worst]!) < oddFrom * without
    ) {
      odd = readings.flatMap((r, i) => (kept.has(i) ? [] : [explain(i, r.mass, off[i]!, noise, tare)]));
      break;
    }
    kept.delete(worst);
  }
  const used = readings.filter((_, i) => kept.has(i));
  p = solve(used, forecaster, noise, p);
  const covariance = covarianceOf(used, forecaster, noise, p);
  const sd = (k: number) => sqrt(max(0, covariance[k]?.[k] ?? 0));
  return {
    factors: factorsOf(p),
    spread: { evaporation: sd(0), diffusion: sd(1), amount: sd(2) },
    noise,
    covariance,
    odd,
  };
}

/** A first guess that no single reading can pull far: the amount at which half the readings lie above. */
function starting(readings: readonly Weighing[], forecaster: Forecaster): number[] {
  const model = forecaster(factorsOf([0, 0, 0]));
  const shares = readings.map((r) => r.mass / max(1e-9, model(r.time))).sort((a, b) => a - b);
  const middle = shares[shares.length >> 1] ?? 1;
  return [0, 0, min(0.2, max(-0.2, log(max(0.1, middle))))];
}

function solve(
  readings: readonly Weighing[],
  forecaster: Forecaster,
  noise: number,
  from: readonly number[],
): number[] {
  const n = readings.length;
  const x = Array.from({ length: n + 3 }, (_, i) => i);
  const y = [...readings.map((r) => r.mass / noise), 0, 0, 0];
  let lastKey = '',
    lastModel: ((time: number) => number) | null = null;
  const model = (p: number[]) => {
    const key = p.join();
    if (key !== lastKey || !lastModel) {
      lastKey = key;
      lastModel = forecaster(factorsOf(p));
    }
    const at = lastModel;
    // What was known beforehand is three readings more, of nought.
    return (i: number) => (i < n ? at(readings[i]!.time) / noise : p[i - n]! / sds[i - n]!);
  };
  const found = levenbergMarquardt({ x, y }, model, {
    initialValues: [...from],
    damping: 0.01,
    gradientDifference: 0.01,
    centralDifference: true,
    maxIterations: 10,
    errorTolerance: 1e-9,
    improvementThreshold: 1e-6,
    minValues: [-2, -2.5, -0.7],
    maxValues: [2, 2.5, 0.7],
  });
  return [...found.parameterValues];
}

/** Spread of single readings, held near what scales usually do while there are few of them. */
function spreadOf(residuals: readonly number[], usual: number): number {
  const sum = residuals.reduce((s, r) => s + r * r, 0);
  const weight = 3;
  return sqrt((sum + weight * usual * usual) / (max(1, residuals.length - 2) + weight));
}

function covarianceOf(
  readings: readonly Weighing[],
  forecaster: Forecaster,
  noise: number,
  p: readonly number[],
): number[][] {
  const slopes = readings.map((r) => slopesAt(forecaster, p, (m) => m(r.time)));
  const normal = Matrix.zeros(3, 3);
  for (const s of slopes)
    for (let a = 0; a < 3; a++)
      for (let b = 0; b < 3; b++) normal.set(a, b, normal.get(a, b) + (s[a]! * s[b]!) / noise ** 2);
  for (let a = 0; a < 3; a++) normal.set(a, a, normal.get(a, a) + 1 / sds[a]! ** 2);
  return inverse(normal).to2DArray();
}

function slopesAt(
  forecaster: Forecaster,
  p: readonly number[],
  read: (model: (time: number) => number) => number,
): number[] {
  const h = 0.02;
  return [0, 1, 2].map((k) => {
    const push = (by: number) => read(forecaster(factorsOf(p.map((v, i) => (i === k ? v + by : v)))));
    return (push(h) - push(-h)) / (2 * h);
  });
}

/** Two standard deviations either side of a figure that follows from the factors. */
export function bandOf(
  fit: WeighingFit,
  figure: (factors: DryingFactors) => number,
): { readonly low: number; readonly nominal: number; readonly high: number } {
  const p = names.map((n) => log(fit.factors[n]));
  const nominal = figure(fit.factors);
  const h = 0.02;
  const slopes = [0, 1, 2].map(
    (k) =>
      (figure(factorsOf(p.map((v, i) => (i === k ? v + h : v)))) -
        figure(factorsOf(p.map((v, i) => (i === k ? v - h : v))))) /
      (2 * h),
  );
  let variance = 0;
  for (let a = 0; a < 3; a++)
    for (let b = 0; b < 3; b++) variance += slopes[a]! * slopes[b]! * (fit.covariance[a]?.[b] ?? 0);
  const reach = 2 * sqrt(max(0, variance));
  return { low: nominal - reach, nominal, high: nominal + reach };
}

/** Two neighbouring digits changed places, a digit read or written wrong, the board left on or tared twice, or clay added. */
function explain(index: number, mass: number, off: number, noise: number, tare: number): OddReading {
  const by = abs(off) / noise;
  const wanted = mass - off;
  const near = (v: number) => abs(v - wanted) < 3 * noise;
  if (tare > 0 && (near(mass - tare) || near(mass + tare)))
    return { index, off, by, why: 'tare', meant: near(mass - tare) ? mass - tare : mass + tare };
  const slipped = slips(mass + tare)
    .map((g) => g - tare)
    .concat(slips(mass))
    .filter(near);
  if (slipped.length > 0)
    return {
      index,
      off,
      by,
      why: 'digit',
      meant: slipped.reduce((b, v) => (abs(v - wanted) < abs(b - wanted) ? v : b)),
    };
  return { index, off, by, why: off > 0 ? 'added' : 'unknown', meant: null };
}

/** What a reading in kg may have been if one digit slipped: two changed places, one was another, or the point moved. */
export function slips(mass: number): number[] {
  const text = mass.toFixed(3);
  const digits = [...text];
  const out = new Set<number>();
  digits.forEach((d, i) => {
    if (d === '.') return;
    const next = digits[i + 1] === '.' ? i + 2 : i + 1;
    if (next < digits.length && digits[next] !== d) {
      const swapped = [...digits];
      swapped[i] = digits[next]!;
      swapped[next] = d;
      out.add(Number(swapped.join('')));
    }
    for (let k = 0; k < 10; k++)
      if (String(k) !== d) out.add(Number([...digits.slice(0, i), String(k), ...digits.slice(i + 1)].join('')));
  });
  out.add(mass * 10);
  out.add(mass / 10);
  return [...out].filter((v) => Number.isFinite(v) && v >= 0);
}

export type DryAnswer = 'dry' | 'not-yet' | 'unknown';

/**
 * Is it dry? Two weighings at least a night apart that differ by no more than a thousandth say so; a scale that cannot
 * show so little cannot say it. `least` is the finest it shows, kg.
 */
export function isItDry(
  readings: readonly Weighing[],
  least = 0.001,
): { readonly answer: DryAnswer; readonly change: number | null; readonly over: number | null } {
  const sorted = [...readings].sort((a, b) => a.time - b.time);
  const last = sorted[sorted.length - 1];
  const night = 8 * 3600;
  const before = last
    ? sorted.filter((r) => last.time - r.time >= night && last.time - r.time <= 3 * 86400).pop()
    : undefined;
  if (!last || !before) return { answer: 'unknown', change: null, over: null };
  const change = (before.mass - last.mass) / max(1e-9, last.mass);
  const over = last.time - before.time;
  if (least / max(1e-9, last.mass) > 0.001) return { answer: 'unknown', change, over };
  // A change over several nights counts by the night.
  return { answer: abs(change) / max(1, over / 86400) <= 0.001 ? 'dry' : 'not-yet', change, over };
}
