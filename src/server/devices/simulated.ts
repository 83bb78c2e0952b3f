import { chance, flicker, type Device, type DeviceReading } from './device';

/** Stand-ins that follow the model: what is really there, with flicker, slow drift and moments of silence. */
export interface SimulatedFaults {
  /** One standard deviation of a single reading. */
  readonly noise: number;
  /** Most it wanders off over a day. */
  readonly drift: number;
  /** Share of readings that do not come. */
  readonly silent: number;
  /** Finest it shows. */
  readonly finest: number;
}

const daySpan = 86_400_000;
/** Silence comes in spells of a few seconds, as a loose plug makes it. */
const silenceSpell = 4000;

function shown(value: number, faults: SimulatedFaults, seed: number, now: number): number {
  const wander = Math.sin((now / daySpan) * 2 * Math.PI + seed) * faults.drift;
  return Math.round((value + faults.noise * flicker(seed, now / 250) + wander) / faults.finest) * faults.finest;
}

function silent(faults: SimulatedFaults, seed: number, now: number): boolean {
  return chance(seed + 7, now / silenceSpell) < faults.silent;
}

export const scaleFaults: SimulatedFaults = { noise: 0.002, drift: 0.004, silent: 0.06, finest: 0.005 };

/** A bench scale under the piece and its board. `gross` gives kg at a moment. */
export class SimulatedScale implements Device {
  readonly id = 'bench-scale';
  readonly name = 'Bench scale (simulated)';
  readonly kind = 'scale' as const;
  readonly simulated = true;

  constructor(
    private readonly gross: (now: number) => number,
    private readonly seed: number,
    private readonly faults: SimulatedFaults = scaleFaults,
  ) {}

  read(now: number): Promise<DeviceReading> {
    if (silent(this.faults, this.seed, now))
      return Promise.resolve({ ok: false, at: now, why: 'the scale does not answer' });
    const value = Math.max(0, shown(this.gross(now), this.faults, this.seed, now));
    // A display is steady while it hardly flickers.
    const before = shown(this.gross(now - 1000), this.faults, this.seed, now - 1000);
    return Promise.resolve({
      ok: true,
      at: now,
      values: {
        gross: Math.round(value * 1000) / 1000,
        finest: this.faults.finest,
        steady: Math.abs(value - before) <= this.faults.finest ? 1 : 0,
      },
    });
  }
}

/** A thermo-hygrometer in the room. */
export class SimulatedHygrometer implements Device {
  readonly id = 'room-hygrometer';
  readonly name = 'Room hygrometer (simulated)';
  readonly kind = 'hygrometer' as const;
  readonly simulated = true;

  constructor(
    private readonly room: (now: number) => { readonly temperature: number; readonly relativeHumidity: number },
    private readonly seed: number,
  ) {}

  read(now: number): Promise<DeviceReading> {
    const faults = { noise: 0.08, drift: 0.4, silent: 0.05, finest: 0.1 };
    if (silent(faults, this.seed + 31, now))
      return Promise.resolve({ ok: false, at: now, why: 'the hygrometer does not answer' });
    const { temperature, relativeHumidity } = this.room(now);
    const t = shown(temperature, faults, this.seed + 3, now);
    const rh =
      shown(relativeHumidity * 100, { ...faults, noise: 0.4, drift: 1.5, finest: 0.1 }, this.seed + 5, now) / 100;
    return Promise.resolve({
      ok: true,
      at: now,
      values: {
        temperature: Math.round(t * 10) / 10,
        relativeHumidity: Math.min(0.99, Math.max(0.02, Math.round(rh * 1000) / 1000)),
      },
    });
  }
}
