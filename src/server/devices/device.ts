/**
 * What stands on the bench and can be read: one small interface, which a real scale or hygrometer on a serial line or
 * a network could take as well as the simulated ones here.
 */
export type DeviceReading =
  | {
      readonly ok: true;
      /** Milliseconds since 1970. */ readonly at: number;
      readonly values: Readonly<Record<string, number>>;
    }
  | { readonly ok: false; readonly at: number; readonly why: string };

export interface Device {
  readonly id: string;
  readonly name: string;
  readonly kind: 'scale' | 'hygrometer';
  /** True for the stand-ins that come with the program. */
  readonly simulated: boolean;
  /** `now` in milliseconds since 1970. Never throws: a device that does not answer says so. */
  read(now: number): Promise<DeviceReading>;
}

/** An even number from 0 to 1 that depends on `seed` and `at` alone: a simulated device read twice at one moment says the same. */
export function chance(seed: number, at: number): number {
  let h = (Math.imul(seed | 0, 2654435761) ^ Math.imul(Math.floor(at) | 0, 1597334677)) >>> 0;
  h = Math.imul(h ^ (h >>> 16), 2246822507) >>> 0;
  h = Math.imul(h ^ (h >>> 13), 3266489909) >>> 0;
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** Spread about nought like a scale's flicker; one standard deviation is 1. Sum of even chances. */
export function flicker(seed: number, at: number): number {
  let sum = 0;
  for (let k = 0; k < 6; k++) sum += chance(seed + k * 101, at);
  return (sum - 3) / Math.sqrt(0.5);
}
