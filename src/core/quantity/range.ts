/** An uncertain figure: its likely value and the ends it may lie between. */
export interface Range {
  readonly low: number;
  readonly nominal: number;
  readonly high: number;
}

export function exactly(value: number): Range {
  return { low: value, nominal: value, high: value };
}

/** Range around a nominal from factors on it, e.g. 0.6 and 1.5. */
export function spread(nominal: number, lowFactor: number, highFactor: number): Range {
  return { low: nominal * lowFactor, nominal, high: nominal * highFactor };
}

/** The range a set of outcomes spans. `nominal` is widened into the span if it lies outside. */
export function spanOf(nominal: number, outcomes: readonly number[]): Range {
  let low = nominal;
  let high = nominal;
  for (const outcome of outcomes) {
    if (outcome < low) low = outcome;
    if (outcome > high) high = outcome;
  }
  return { low, nominal, high };
}

/**
 * Root-sum-square combination of one-at-a-time departures from the nominal:
 * independent coefficients are unlikely to be at their bad ends together.
 */
export function combineDepartures(nominal: number, outcomes: readonly number[]): Range {
  let below = 0;
  let above = 0;
  for (const outcome of outcomes) {
    const departure = outcome - nominal;
    if (departure < 0) below += departure * departure;
    else above += departure * departure;
  }
  return { low: nominal - Math.sqrt(below), nominal, high: nominal + Math.sqrt(above) };
}

/**
 * A figure as it is compared with its like: nine digits of it. What is alike by design (a left and a right) differs in its
 * last bits from one machine to the next, and is to be told in one order on all.
 */
export function compared(value: number): number {
  return Number.isFinite(value) ? Number(value.toPrecision(9)) : value;
}
