import type { DryingCoefficients } from '../catalogue';
import { readCurve, type EvaporationCurve } from './air';

const { abs, exp, log, max } = Math;

/**
 * What leaves a face, against the moisture of the clay under it and how deep under it that clay lies: the balance
 * rho (u_P - u_s)/depth = share x E(w_s) solved once for a table and read many thousand times after.
 * u is the Kirchhoff variable, the integral of D dw; D(w) = D_dry (D_wet/D_dry)^(w/w0).
 */
export class Diffusivity {
  readonly growth: number;
  readonly constant: boolean;

  constructor(
    readonly clay: DryingCoefficients,
    tabulatedW0 = clay.w0,
  ) {
    this.constant = abs(clay.D_wet / clay.D_dry - 1) < 1e-9;
    this.growth = this.constant ? 0 : log(clay.D_wet / clay.D_dry) / tabulatedW0;
  }

  at(w: number): number {
    return this.constant ? this.clay.D_dry : this.clay.D_dry * exp(this.growth * w);
  }

  /** u at w; only differences of it mean anything. */
  kirchhoff(w: number): number {
    return this.constant ? this.clay.D_dry * w : this.at(w) / this.growth;
  }
}

/** Points along moisture and along depth. */
export const moistureSteps = 256;
export const depthSteps = 20;

export interface FaceTable {
  /** kg/m2s by depth, then moisture. */
  readonly flux: Float64Array;
  /** Moisture of the face itself, likewise. */
  readonly surface: Float64Array;
}

export interface FaceConditions {
  /** Null where nothing leaves. */
  readonly curve: EvaporationCurve | null;
  /** Share of the outer law, 0..1. */
  readonly share: number;
  /** What a drinking core behind it gives against it, kg/m2s of the law before its share; 0 where it stands to the room. */
  readonly against?: number;
  /** Holds the face at one moisture instead. */
  readonly fixed?: number;
}

/**
 * `most` is the wettest and `deepest` the deepest it will be asked for; `diffusion` is how much faster water moves inside
 * than at 20 degrees.
 */
export function faceTable(
  d: Diffusivity,
  conditions: FaceConditions,
  most: number,
  deepest: number,
  diffusion = 1,
): FaceTable {
  const size = (depthSteps + 1) * (moistureSteps + 1);
  const out: FaceTable = { flux: new Float64Array(size), surface: new Float64Array(size) };
  const pair = new Float64Array(2);
  const { clay } = d;
  for (let k = 0; k <= depthSteps; k++) {
    const gain = (diffusion * clay.rho_dry) / (max(k, 0.25) * (deepest / depthSteps));
    let ws = 0;
    for (let i = 0; i <= moistureSteps; i++) {
      const w = (most * i) / moistureSteps;
      const at = k * (moistureSteps + 1) + i;
      if (conditions.fixed !== undefined) ws = conditions.fixed;
      else if (!conditions.curve || conditions.share <= 0) ws = w;
      else ws = faceMoisture(d, gain, w, conditions.curve, conditions, ws, pair);
      out.surface[at] = ws;
      out.flux[at] = ws === w ? 0 : gain * (d.kirchhoff(w) - d.kirchhoff(ws));
    }
  }
  return out;
}

/** Newton with a bisection guard, as in the layer solver. */
function faceMoisture(
  d: Diffusivity,
  gain: number,
  w: number,
  curve: EvaporationCurve,
  { share, against = 0 }: FaceConditions,
  guess: number,
  pair: Float64Array,
): number {
  const { clay } = d;
  const inside = d.kirchhoff(w);
  let ws = guess,
    low = -clay.w_m,
    high = max(w, clay.w0) * 2 + 1;
  for (let i = 0; i < 60; i++) {
    const decay = exp(-ws / clay.w_m);
    readCurve(curve, 1 - decay, pair);
    const slope = (share * pair[1]! * decay) / clay.w_m;
    const miss = gain * (inside - d.kirchhoff(ws)) - share * (pair[0]! - against);
    if (miss > 0) low = ws;
    else high = ws;
    let next = ws + miss / (gain * d.at(ws) + slope);
    if (!(next > low && next < high)) next = (low + high) / 2;
    const moved = abs(next - ws);
    ws = next;
    if (moved < 1e-11) break;
  }
  return ws;
}
