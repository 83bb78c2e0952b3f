const { abs, cbrt, exp, floor, max, min, sqrt } = Math;
/**
 * The room a piece dries in, and what leaves a wet surface.
 * Sources: Buck (1981) for saturation pressure; Incropera, *Fundamentals of Heat and Mass Transfer*,
 * for the Chilton-Colburn analogy. Left out: sun on the piece, draughts that differ from side to side.
 */
export interface RoomAir {
  /** degrees C */
  readonly temperature: number;
  /** 0..1 */
  readonly relativeHumidity: number;
  /** m/s; still indoor air is about 0.1 */
  readonly speed: number;
}

const latentHeat = 2.45e6; // J/kg
const airHeatCapacity = 1207; // rho c_p, J/m3K
const lewis = 0.85;
const radiation = 5.5; // W/m2K
const gasConstantWater = 461.5; // J/kgK

/** Pa over water at `celsius`. Buck (1981). */
export function saturationPressure(celsius: number): number {
  return 611.21 * exp(((18.678 - celsius / 234.5) * celsius) / (257.14 + celsius));
}

/** kg/m3 of vapour at saturation. */
export function saturationDensity(celsius: number): number {
  return saturationPressure(celsius) / (gasConstantWater * (celsius + 273.15));
}

/** W/m2K: still-air convection and forced flow over a piece about 0.2 m across (Hilpert, in Incropera). */
export function heatTransfer(speed: number): number {
  const forced = 7.5 * sqrt(max(0, speed));
  return cbrt(27 + forced * forced * forced);
}

/** m/s, by the analogy of heat and mass transfer. */
export function massTransfer(speed: number): number {
  return (heatTransfer(speed) / airHeatCapacity) * lewis ** (-2 / 3);
}

export interface Evaporation {
  /** kg/m2s, negative when the clay takes water up. */
  readonly flux: number;
  /** degrees C: a wet surface cools itself. */
  readonly surfaceTemperature: number;
}

/**
 * Flux from a surface of water activity `activity` (0..1). The surface temperature is found where the heat
 * drawn in equals the heat carried off: (h + 5.5)(T - Ts) = L k (rho_s(Ts) a - rho_air). Newton, 1e-10 K.
 * `transferFactor` scales k for the uncertainty range; `cover` is s/m.
 */
export function evaporationAt(air: RoomAir, activity: number, cover = 0, transferFactor = 1): Evaporation {
  const h = heatTransfer(air.speed) + radiation;
  const k = 1 / (1 / (massTransfer(air.speed) * transferFactor) + cover);
  const vapour = air.relativeHumidity * saturationDensity(air.temperature);
  let t = air.temperature;
  for (let i = 0; i < 60; i++) {
    const density = saturationDensity(t) * activity;
    const step = 1e-4;
    const slope = ((saturationDensity(t + step) * activity - density) / step) * latentHeat * k + h;
    const miss = latentHeat * k * (density - vapour) - h * (air.temperature - t);
    const change = miss / slope;
    t -= change;
    if (abs(change) < 1e-10) break;
  }
  return { flux: k * (saturationDensity(t) * activity - vapour), surfaceTemperature: t };
}

const tableSize = 256;

/** Flux against water activity for one room and cover, tabulated because the solver asks for it thousands of times. */
export interface EvaporationCurve {
  readonly fluxes: Float64Array;
}

export function evaporationCurve(air: RoomAir, cover = 0, transferFactor = 1): EvaporationCurve {
  const fluxes = new Float64Array(tableSize + 1);
  for (let i = 0; i <= tableSize; i++) fluxes[i] = evaporationAt(air, i / tableSize, cover, transferFactor).flux;
  return { fluxes };
}

/** Writes [flux, d flux / d activity] at `activity` into `out`. Linear between table points (error below 1e-4 of the flux). */
export function readCurve(curve: EvaporationCurve, activity: number, out: Float64Array): void {
  const x = min(1, max(0, activity)) * tableSize;
  const i = min(tableSize - 1, floor(x));
  const a = curve.fluxes[i]!;
  const slope = curve.fluxes[i + 1]! - a;
  out[0] = a + slope * (x - i);
  out[1] = slope * tableSize;
}

/** Times as fast as at 20 degrees that water moves inside clay, in a room so warm: 2.5 % a degree. */
export function diffusionAt(celsius: number): number {
  return exp(0.025 * (celsius - 20));
}

/** a_w = 1 - exp(-w/w_m). */
export function waterActivity(w: number, w_m: number): number {
  return 1 - exp(-w / w_m);
}

/** Moisture the clay settles at in this room. */
export function equilibriumMoisture(relativeHumidity: number, w_m: number): number {
  return -w_m * Math.log(1 - min(0.999999, relativeHumidity));
}
