import { readCurve, type EvaporationCurve } from './air';

const { abs, exp, log, min } = Math;

/**
 * A core that drinks: paper, card, cloth, gauze, plaster. It is no endless room: it takes the clay's water until it is
 * as damp as the clay, and gives it back through the clay. Its isotherm is exponential like the clay's own, at what it
 * holds when full in air of 98 %. What passes is the outer law's share between clay and core: none once they are alike.
 * Left out: how water spreads inside the core, which is taken to be alike all through.
 */
export interface DrinkingCore {
  /** kg of water to a m2 of clay when it is full. */
  readonly holds: number;
  /** Share of the inner face that stands to the room: half behind a form that is open. */
  readonly breathes: number;
}

const fullAt = -log(1 - 0.98);

/** kg/m2 it holds in air so humid (0..1). */
export function coreWaterIn(core: DrinkingCore, humidity: number): number {
  return (-core.holds / fullAt) * log(1 - min(0.999999, humidity));
}

/** Water activity of its face at `water` kg/m2. */
export function coreActivity(core: DrinkingCore, water: number): number {
  return core.holds > 0 ? 1 - exp((-water * fullAt) / core.holds) : 1;
}

/** What the room law gives at the core's own face, kg/m2s, and its slope with the core's water, into `out`. */
export function coreGives(core: DrinkingCore, water: number, curve: EvaporationCurve, out: Float64Array): void {
  const dry = exp((-water * fullAt) / core.holds);
  readCurve(curve, 1 - dry, out);
  out[1] = (out[1]! * dry * fullAt) / core.holds;
}

/**
 * The core's water after `seconds`, kg/m2, when the clay's face would give the room `clayGives` kg/m2s of which `share`
 * passes: solved at the end of the step, so that a thin cloth does not swing. Newton; the balance is concave, so it
 * comes to its answer from below whatever it starts from.
 */
export function coreAfter(
  core: DrinkingCore,
  from: number,
  seconds: number,
  clayGives: number,
  share: number,
  curve: EvaporationCurve,
  out: Float64Array,
): number {
  if (!(core.holds > 0)) return from;
  const rate = seconds * share * (1 - core.breathes);
  let water = from;
  for (let i = 0; i < 40; i++) {
    coreGives(core, water, curve, out);
    const move = (from + rate * (clayGives - out[0]!) - water) / (1 + rate * out[1]!);
    water += move;
    if (abs(move) < 1e-12 * core.holds) break;
  }
  coreGives(core, water, curve, out);
  return water;
}
