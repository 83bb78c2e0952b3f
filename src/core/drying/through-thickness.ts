import type { DryingCoefficients } from '../catalogue';
import { equilibriumMoisture, readCurve, type EvaporationCurve } from './air';
import { coreAfter, coreWaterIn, type DrinkingCore } from './core-water';

const { abs, exp, max, min, round } = Math;

/**
 * Drying through the thickness of one layer: dw/dt = (1/r^n) d/dr (r^n D(w) dw/dr) in the coordinate of the dry
 * solids, so that shrinkage needs no moving grid. D(w) = D_dry (D_wet/D_dry)^(w/w0), and more of it in a warm room.
 *
 * Source: Crank, *The Mathematics of Diffusion*, ch. 5, 6 and 7. The Kirchhoff variable u = integral of D dw is used
 * between cells, so the flux is exact for the exponential D. Two-stage, second order, L-stable time stepping
 * (SDIRK2), step held so that no cell moves by more than `largestChange`.
 * A core under it that drinks fills and gives back: `core-water.ts`.
 * Left out: clay colder than its room, cracks as new faces, water fed back from a coat under it.
 */
export type Geometry = 'slab' | 'cylinder' | 'sphere';

/** Air over the piece from the end of the phase before until `until` seconds (Infinity for the last). */
export interface AirPhase {
  readonly until: number;
  readonly curve: EvaporationCurve;
  readonly relativeHumidity: number;
  /** Takes the place of the layer's own from here: off its form, or halves apart. */
  readonly innerFace?: number;
  /** Of what it is at 20 degrees, how fast water moves inside; 1 where nothing is said. */
  readonly diffusion?: number;
}

export interface LayerDrying {
  readonly clay: DryingCoefficients;
  /** D keeps the tabulated moisture even when water was worked in. Default: clay.w0. */
  readonly tabulatedW0?: number;
  readonly geometry: Geometry;
  /** Slab thickness, or the radius of a solid cylinder or sphere; as laid, metres. */
  readonly thickness: number;
  /** Share of the outer law at the inner face of a slab, 0 sealed, 1 open. */
  readonly innerFace: number;
  /** What lies at the inner face of a slab; without it that face stands to the room. */
  readonly core?: DrinkingCore;
  readonly phases: readonly AirPhase[];
  readonly initialMoisture?: number;
  /** Fixes the outer face instead of letting it evaporate. */
  readonly surfaceMoisture?: number;
  /** Report the state at exactly these seconds, rising. */
  readonly times?: readonly number[];
  /** Fewer cells and longer steps: how it moves with its coefficients rather than where it is. */
  readonly rough?: boolean;
  /** Seconds after which nothing is asked: what it would reach later is left null. */
  readonly stopAt?: number;
}

export interface MoisturePoint {
  readonly time: number;
  readonly meanMoisture: number;
  readonly surfaceMoisture: number;
  /** Wettest point. */
  readonly coreMoisture: number;
  /** kg/m2 of outer face, clay and its water. */
  readonly massPerArea: number;
  /** kg/m2 of outer face that its core holds more than at first. */
  readonly coreWater: number;
  /** Thickness mean of the shrinkage done. */
  readonly shrinkageDone: number;
}

export interface DryingCourse {
  /** Seconds; null when the room never gets it there. Until `smoothUntil` a damp finger still closes the skin. */
  readonly smoothUntil: number | null;
  readonly touchDry: number | null;
  readonly leatherHard: number | null;
  readonly throughDry: number | null;
  /** A fiftieth of its water left at the wettest: a scale no longer sees it lose any over a night. */
  readonly steady: number | null;
  readonly history: readonly MoisturePoint[];
  /** Thickness mean of the shrinkage done, at the end. */
  readonly finalShrinkageDone: number;
  /** max over time of (surface - mean shrinkage strain) / strain capacity of the surface. */
  readonly differentialPeak: number;
  readonly differentialPeakAt: number;
  /** kg/m2 of outer face that left, for the balance. */
  readonly evaporated: number;
  readonly equilibrium: number;
}

export const cellCount = 40;
const largestChange = 0.004;
/** A third of the cells and three times the step: for how an answer moves with its coefficients, not for the answer. */
const roughCells = 14,
  roughChange = 0.012;
/** Those steps are for a clay of so much water; a wetter one loses it in as many. */
const steppedFor = 0.3;
const longestRun = 20 * 365 * 86400;
/** Newton's last correction of a moisture; the error left after it is of the order of its square. */
const settled = 1e-6;
const gamma = 1 - Math.SQRT1_2;
const historyLimit = 240;

/** Shrinkage done at moisture w: 0 as laid, 1 at the shrinkage limit. */
export function shrinkageDone(w: number, w0: number, w_sl: number): number {
  const s = (w0 - w) / (w0 - w_sl);
  return s < 0 ? 0 : s > 1 ? 1 : s;
}

/** Tensile strain the clay takes, falling geometrically from wet to dry. */
export function strainCapacity(s: number, clay: DryingCoefficients): number {
  return clay.capacityWet * (clay.capacityDry / clay.capacityWet) ** s;
}

/** Cells, faces and the state of one solve; allocated once and written into. */
class LayerSolver {
  readonly n: number;
  readonly w: Float64Array;
  readonly stage1: Float64Array;
  readonly stage2: Float64Array;
  private readonly rate: Float64Array;
  private readonly base: Float64Array;
  private readonly faceArea: Float64Array;
  readonly volume: Float64Array;
  private readonly lower: Float64Array;
  private readonly diagonal: Float64Array;
  private readonly upper: Float64Array;
  private readonly residual: Float64Array;
  private readonly u: Float64Array;
  private readonly d: Float64Array;
  private readonly pair = new Float64Array(2);
  private readonly corePair = new Float64Array(2);
  readonly dx: number;
  private readonly growth: number;
  private readonly constantD: boolean;
  /** Moisture of the faces and kg/m2s leaving there, at the last solve. */
  outerMoisture = 0;
  innerMoisture = 0;
  outerFlux = 0;
  innerFlux = 0;
  private outerSlope = 0;
  private innerSlope = 0;
  private faceSlope = 0;
  private faceMoisture = 0;
  private faceFlux = 0;
  totalVolume = 0;
  /** Of the phase that is on. */
  innerFace: number;
  diffusion = 1;
  /** kg/m2 in the core: before the step, and at the last solve. */
  coreWater: number;
  private coreNow: number;
  /** The core is under it still: not lifted off, nor cut apart. */
  onCore = true;

  constructor(
    private readonly job: LayerDrying,
    start: number,
  ) {
    this.innerFace = job.innerFace;
    this.coreWater = job.core ? coreWaterIn(job.core, job.phases[0]?.relativeHumidity ?? 0.5) : 0;
    this.coreNow = this.coreWater;
    const n = job.rough ? roughCells : cellCount;
    this.n = n;
    this.w = new Float64Array(n);
    this.stage1 = new Float64Array(n);
    this.stage2 = new Float64Array(n);
    this.rate = new Float64Array(n);
    this.base = new Float64Array(n);
    this.faceArea = new Float64Array(n + 1);
    this.volume = new Float64Array(n);
    this.lower = new Float64Array(n);
    this.diagonal = new Float64Array(n);
    this.upper = new Float64Array(n);
    this.residual = new Float64Array(n);
    this.u = new Float64Array(n);
    this.d = new Float64Array(n);
    const power = job.geometry === 'slab' ? 0 : job.geometry === 'cylinder' ? 1 : 2;
    this.dx = job.thickness / this.n;
    for (let i = 0; i <= this.n; i++) this.faceArea[i] = (i * this.dx) ** power;
    for (let i = 0; i < this.n; i++) {
      this.volume[i] = (((i + 1) * this.dx) ** (power + 1) - (i * this.dx) ** (power + 1)) / (power + 1);
      this.totalVolume += this.volume[i]!;
    }
    if (power === 0) this.faceArea[0] = 1;
    const { D_wet, D_dry } = job.clay;
    this.constantD = abs(D_wet / D_dry - 1) < 1e-9;
    this.growth = this.constantD ? 0 : Math.log(D_wet / D_dry) / (job.tabulatedW0 ?? job.clay.w0);
    this.w.fill(start);
    this.outerMoisture = start;
    this.innerMoisture = start;
  }

  get outerArea(): number {
    return this.faceArea[this.n]!;
  }

  private diffusivity(w: number): number {
    const dry = this.job.clay.D_dry * this.diffusion;
    return this.constantD ? dry : dry * exp(this.growth * w);
  }

  private kirchhoff(w: number, d: number): number {
    return this.constantD ? d * w : d / this.growth;
  }

  /**
   * Balance of half a cell: rho (u_P - u_s)/(dx/2) = share x E(w_s). Sets faceMoisture, faceFlux and
   * faceSlope = d flux / d w_P. Newton with a bisection guard.
   */
  private solveFace(
    wP: number,
    uP: number,
    dP: number,
    curve: EvaporationCurve,
    share: number,
    guess: number,
    core: CoreStep | null = null,
  ): void {
    const { clay } = this.job;
    const gain = (2 * clay.rho_dry) / this.dx;
    let ws = guess;
    let low = -clay.w_m;
    let high = max(wP, clay.w0) * 2 + 1;
    let dryness = 0;
    let slope = 0;
    let ds = 0;
    for (let i = 0; i < 60; i++) {
      const decay = exp(-ws / clay.w_m);
      readCurve(curve, 1 - decay, this.pair);
      let e = share * this.pair[0]!;
      slope = (share * this.pair[1]! * decay) / clay.w_m;
      if (core) {
        const { kind, from, dt } = core;
        const pair = this.corePair;
        this.coreNow = coreAfter(kind, from, dt, this.pair[0]!, share, curve, pair);
        const behind = 1 - kind.breathes;
        const q = dt * share * behind * pair[1]!;
        e -= share * behind * pair[0]!;
        slope *= 1 - (behind * q) / (1 + q);
      }
      ds = this.diffusivity(ws);
      dryness = gain * (uP - this.kirchhoff(ws, ds)) - e;
      if (dryness > 0) low = ws;
      else high = ws;
      let next = ws + dryness / (gain * ds + slope);
      if (!(next > low && next < high)) next = (low + high) / 2;
      const moved = abs(next - ws);
      ws = next;
      // Newton doubles the digits that are right: after a move this small only rounding is left.
      if (moved < 1e-7) break;
    }
    this.faceMoisture = ws;
    this.faceFlux = gain * (uP - this.kirchhoff(ws, this.diffusivity(ws)));
    this.faceSlope = (gain * dP * slope) / (gain * ds + slope);
  }

  /** Solves y = from + dt f(y) into `y`, which holds the first guess. False when Newton does not settle. */
  private implicitStage(
    from: Float64Array,
    coreFrom: number,
    dt: number,
    y: Float64Array,
    curve: EvaporationCurve,
  ): boolean {
    const { core } = this.job;
    const coreStep = core && this.onCore ? { kind: core, from: coreFrom, dt } : null;
    const { clay, surfaceMoisture, geometry } = this.job;
    // A core that holds nothing is as good as sealed, but for what of it stands to the room.
    const full = coreStep !== null && !(coreStep.kind.holds > 0);
    const innerFace = this.innerFace * (full ? coreStep.kind.breathes : 1);
    const last = this.n - 1;
    for (let iteration = 0; iteration < 25; iteration++) {
      for (let i = 0; i <= last; i++) {
        const d = this.diffusivity(y[i]!);
        this.d[i] = d;
        this.u[i] = this.kirchhoff(y[i]!, d);
      }
      for (let i = 0; i <= last; i++) {
        const volume = this.volume[i]!;
        let residual = volume * (y[i]! - from[i]!);
        let diagonal = volume;
        const c0 = i > 0 ? (dt * this.faceArea[i]!) / this.dx : 0;
        const c1 = i < last ? (dt * this.faceArea[i + 1]!) / this.dx : 0;
        if (i > 0) residual += c0 * (this.u[i]! - this.u[i - 1]!);
        if (i < last) residual += c1 * (this.u[i]! - this.u[i + 1]!);
        diagonal += (c0 + c1) * this.d[i]!;
        this.lower[i] = i > 0 ? -c0 * this.d[i - 1]! : 0;
        this.upper[i] = i < last ? -c1 * this.d[i + 1]! : 0;
        this.residual[i] = residual;
        this.diagonal[i] = diagonal;
      }
      this.outerBoundary(y[last]!, last, dt, curve, surfaceMoisture);
      if (geometry === 'slab' && innerFace > 0) {
        this.solveFace(y[0]!, this.u[0]!, this.d[0]!, curve, innerFace, this.innerMoisture, full ? null : coreStep);
        this.innerMoisture = this.faceMoisture;
        this.innerFlux = this.faceFlux;
        this.innerSlope = this.faceSlope;
        const scale = (dt * this.faceArea[0]!) / clay.rho_dry;
        this.residual[0]! += scale * this.faceFlux;
        this.diagonal[0]! += scale * this.faceSlope;
      } else {
        this.innerMoisture = y[0]!;
        this.innerFlux = 0;
        this.innerSlope = 0;
      }
      const atOuter = y[last]!,
        atInner = y[0]!;
      const outerSlope = this.outerSlope,
        innerSlope = this.innerSlope;
      const moved = this.newtonUpdate(y);
      if (moved < settled) {
        // What left is that of the moisture it has come to.
        this.outerFlux += outerSlope * (y[last]! - atOuter);
        this.innerFlux += innerSlope * (y[0]! - atInner);
        return true;
      }
    }
    return false;
  }

  private outerBoundary(
    wP: number,
    last: number,
    dt: number,
    curve: EvaporationCurve,
    fixed: number | undefined,
  ): void {
    const { clay } = this.job;
    if (fixed === undefined) {
      this.solveFace(wP, this.u[last]!, this.d[last]!, curve, 1, this.outerMoisture);
    } else {
      const gain = (2 * clay.rho_dry) / this.dx;
      this.faceMoisture = fixed;
      this.faceFlux = gain * (this.u[last]! - this.kirchhoff(fixed, this.diffusivity(fixed)));
      this.faceSlope = gain * this.d[last]!;
    }
    this.outerMoisture = this.faceMoisture;
    this.outerFlux = this.faceFlux;
    this.outerSlope = this.faceSlope;
    const scale = (dt * this.outerArea) / clay.rho_dry;
    this.residual[last]! += scale * this.faceFlux;
    this.diagonal[last]! += scale * this.faceSlope;
  }

  /** Thomas elimination; returns the largest correction made. */
  private newtonUpdate(y: Float64Array): number {
    const { lower, diagonal, upper, residual } = this;
    for (let i = 1; i < this.n; i++) {
      const factor = lower[i]! / diagonal[i - 1]!;
      diagonal[i]! -= factor * upper[i - 1]!;
      residual[i]! -= factor * residual[i - 1]!;
    }
    let largest = 0;
    let after = 0;
    for (let i = this.n - 1; i >= 0; i--) {
      after = (residual[i]! - upper[i]! * after) / diagonal[i]!;
      y[i]! -= after;
      if (abs(after) > largest) largest = abs(after);
    }
    return largest;
  }

  /** Tries one step of `dt`. Returns the largest change in a cell (NaN on failure); the result is in stage2. */
  tryStep(dt: number, curve: EvaporationCurve): { change: number; leaves: number } {
    const { w, stage1, stage2, base, rate } = this;
    // Guessed from how fast it went in the step before.
    for (let i = 0; i < this.n; i++) stage1[i] = w[i]! + gamma * dt * rate[i]!;
    const coreBefore = this.coreWater;
    this.coreNow = coreBefore;
    if (!this.implicitStage(w, coreBefore, gamma * dt, stage1, curve)) return { change: NaN, leaves: 0 };
    const coreMiddle = coreBefore + ((1 - gamma) / gamma) * (this.coreNow - coreBefore);
    const leaves1 = this.leaving();
    const ratio = (1 - gamma) / gamma;
    for (let i = 0; i < this.n; i++) base[i] = w[i]! + ratio * (stage1[i]! - w[i]!);
    for (let i = 0; i < this.n; i++) stage2[i] = w[i]! + (stage1[i]! - w[i]!) / gamma;
    if (!this.implicitStage(base, coreMiddle, gamma * dt, stage2, curve)) return { change: NaN, leaves: 0 };
    let change = 0;
    for (let i = 0; i < this.n; i++) change = max(change, abs(stage2[i]! - w[i]!));
    return { change, leaves: dt * ((1 - gamma) * leaves1 + gamma * this.leaving()) };
  }

  /** Takes the step that was tried. */
  accept(dt: number): void {
    const { w, stage2, rate } = this;
    for (let i = 0; i < this.n; i++) {
      rate[i] = (stage2[i]! - w[i]!) / dt;
      w[i] = stage2[i]!;
    }
    this.coreWater = this.coreNow;
  }

  /** kg/s per m2 of outer face. */
  private leaving(): number {
    return this.outerFlux + (this.innerFlux * this.faceArea[0]!) / this.outerArea;
  }

  mean(): number {
    let sum = 0;
    for (let i = 0; i < this.n; i++) sum += this.volume[i]! * this.w[i]!;
    return sum / this.totalVolume;
  }

  /** Thickness mean of the shrinkage done. */
  meanShrinkage(w0: number, w_sl: number): number {
    let sum = 0;
    for (let i = 0; i < this.n; i++) sum += this.volume[i]! * shrinkageDone(this.w[i]!, w0, w_sl);
    return sum / this.totalVolume;
  }

  wettest(): number {
    let most = -Infinity;
    for (let i = 0; i < this.n; i++) most = max(most, this.w[i]!);
    return most;
  }
}

/** A core through one implicit stage. */
interface CoreStep {
  readonly kind: DrinkingCore;
  /** kg/m2 it begins with. */
  readonly from: number;
  readonly dt: number;
}

interface Watch {
  readonly value: number;
  readonly surface: number;
  readonly shrinkage: number;
  readonly core: number;
  readonly mean: number;
  readonly coreWater: number;
}

/** Runs one layer until it is dry through (and past the last of `times`). About 1 ms for a 10 mm coat. */
export function dryLayer(job: LayerDrying): DryingCourse {
  const { clay } = job;
  const start = job.initialMoisture ?? clay.w0;
  const solver = new LayerSolver(job, start);
  const coreAtFirst = solver.coreWater;
  const largest = (job.rough ? roughChange : largestChange) * max(1, clay.w0 / steppedFor);
  const lastPhase = job.phases[job.phases.length - 1];
  const equilibrium = job.surfaceMoisture ?? equilibriumMoisture(lastPhase?.relativeHumidity ?? 0.5, clay.w_m);
  const dryAt = equilibrium + 0.05 * (clay.w0 - equilibrium),
    steadyAt = equilibrium + 0.02 * (clay.w0 - equilibrium);
  const perArea = (clay.rho_dry * solver.totalVolume) / solver.outerArea;
  const times = job.times ?? [];
  const asked: MoisturePoint[] = [];
  const course: MoisturePoint[] = [];
  let smoothUntil: number | null = null;
  let touchDry: number | null = null;
  let leatherHard: number | null = null;
  let throughDry: number | null = null;
  let steady: number | null = null;
  let differentialPeak = 0;
  let differentialPeakAt = 0;
  let evaporated = 0;
  let t = 0;
  let dt = 1;
  let nextTime = 0;
  let phaseAt = 0;
  let surface = job.surfaceMoisture ?? start;
  const measure = (): Watch => ({
    value: t,
    surface,
    shrinkage: solver.meanShrinkage(clay.w0, clay.w_sl),
    core: solver.wettest(),
    mean: solver.mean(),
    coreWater: solver.coreWater - coreAtFirst,
  });
  const point = (m: Watch): MoisturePoint => ({
    time: m.value,
    meanMoisture: m.mean,
    surfaceMoisture: m.surface,
    coreMoisture: m.core,
    massPerArea: perArea * (1 + m.mean),
    coreWater: m.coreWater,
    shrinkageDone: m.shrinkage,
  });
  let before = measure();
  course.push(point(before));
  while (nextTime < times.length && times[nextTime]! <= 0) {
    asked.push({ ...point(before), time: times[nextTime]! });
    nextTime++;
  }
  const end = times.length > 0 ? times[times.length - 1]! : 0;
  const { stopAt = Infinity } = job;
  const needed = () => (steady === null || t < end) && t < stopAt;
  while (needed() && t < longestRun) {
    while (phaseAt < job.phases.length - 1 && t >= job.phases[phaseAt]!.until) phaseAt += 1;
    const phase = job.phases[phaseAt];
    if (!phase) break;
    solver.innerFace = phase.innerFace ?? job.innerFace;
    solver.onCore = phase.innerFace === undefined;
    solver.diffusion = phase.diffusion ?? 1;
    let step = min(dt, phase.until - t);
    if (nextTime < times.length) step = min(step, times[nextTime]! - t);
    const { change, leaves } = solver.tryStep(step, phase.curve);
    if (!(change <= largest * 1.2)) {
      dt = step * (Number.isNaN(change) ? 0.25 : max(0.2, (0.9 * largest) / change));
      if (dt < 1e-9) throw new Error('drying step vanished');
      continue;
    }
    solver.accept(step);
    surface = solver.outerMoisture;
    t += step;
    evaporated += leaves;
    dt = max(dt === step ? 0 : min(dt, step * 4), step * min(2, (0.9 * largest) / max(change, 1e-12)));
    const now = measure();
    const cross = (a: number, b: number) => before.value + ((now.value - before.value) * a) / (a - b || 1);
    const sBefore = shrinkageDone(before.surface, clay.w0, clay.w_sl) - 0.8;
    const sNow = shrinkageDone(now.surface, clay.w0, clay.w_sl) - 0.8;
    if (smoothUntil === null && sNow + 0.4 >= 0)
      smoothUntil = sBefore + 0.4 >= 0 ? before.value : cross(sBefore + 0.4, sNow + 0.4);
    if (touchDry === null && sNow >= 0) touchDry = sBefore >= 0 ? before.value : cross(sBefore, sNow);
    if (leatherHard === null && now.shrinkage >= 0.5) {
      leatherHard = before.shrinkage >= 0.5 ? before.value : cross(before.shrinkage - 0.5, now.shrinkage - 0.5);
    }
    if (throughDry === null && now.core <= dryAt) {
      throughDry = before.core <= dryAt ? before.value : cross(before.core - dryAt, now.core - dryAt);
    }
    if (steady === null && now.core <= steadyAt)
      steady = before.core <= steadyAt ? before.value : cross(before.core - steadyAt, now.core - steadyAt);
    const surfaceShrinkage = sNow + 0.8;
    let meanShrinkage = now.shrinkage;
    let at = t;
    if (before.surface > clay.w_sl && now.surface < clay.w_sl) {
      // The peak is a cusp, where the skin stops shrinking and the inside goes on: take it at that moment.
      const f = (before.surface - clay.w_sl) / (before.surface - now.surface);
      meanShrinkage = before.shrinkage + f * (now.shrinkage - before.shrinkage);
      at = before.value + f * (t - before.value);
    }
    const differential = (clay.shrinkage * (surfaceShrinkage - meanShrinkage)) / strainCapacity(surfaceShrinkage, clay);
    if (differential > differentialPeak) {
      differentialPeak = differential;
      differentialPeakAt = at;
    }
    course.push(point(now));
    if (nextTime < times.length && t >= times[nextTime]! - 1e-9) {
      asked.push(point(now));
      nextTime++;
    }
    before = now;
  }
  return {
    smoothUntil,
    touchDry,
    leatherHard,
    throughDry,
    steady,
    history: times.length > 0 ? asked : thinned(course),
    finalShrinkageDone: before.shrinkage,
    differentialPeak,
    differentialPeakAt,
    evaporated,
    equilibrium,
  };
}

/** Keeps a few hundred points spread evenly over the moisture lost, the shape a chart needs. */
function thinned(course: readonly MoisturePoint[]): MoisturePoint[] {
  if (course.length <= historyLimit) return [...course];
  const out: MoisturePoint[] = [];
  for (let i = 0; i < historyLimit; i++) {
    out.push(course[round((i * (course.length - 1)) / (historyLimit - 1))]!);
  }
  return out;
}

/** Moisture at `time`, linear between the points of a course. */
export function moistureAt(history: readonly MoisturePoint[], time: number): MoisturePoint {
  const first = history[0];
  const last = history[history.length - 1];
  if (!first || !last) throw new Error('empty drying history');
  if (time <= first.time) return first;
  if (time >= last.time) return last;
  let low = 0;
  let high = history.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (history[middle]!.time <= time) low = middle;
    else high = middle;
  }
  const a = history[low]!;
  const b = history[high]!;
  const f = (time - a.time) / (b.time - a.time || 1);
  const mix = (x: number, y: number) => x + (y - x) * f;
  return {
    time,
    meanMoisture: mix(a.meanMoisture, b.meanMoisture),
    surfaceMoisture: mix(a.surfaceMoisture, b.surfaceMoisture),
    coreMoisture: mix(a.coreMoisture, b.coreMoisture),
    massPerArea: mix(a.massPerArea, b.massPerArea),
    coreWater: mix(a.coreWater, b.coreWater),
    shrinkageDone: mix(a.shrinkageDone, b.shrinkageDone),
  };
}
