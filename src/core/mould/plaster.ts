import type { DryingCoefficients } from '../catalogue';
import type { CastKind } from './cast';
import type { MouldKind } from './kind';
import { dryLayer, evaporationCurve, type RoomAir } from '../drying';

/** Plaster as it sets and dries: how warm a wall of it gets, and when it has given off its water. */

/**
 * Mixed 100 parts to 65 of water, 18.6 of which it binds as it sets: 46.4 to 118.6 of dry plaster are left to dry out.
 * 1150 kg of it to a m3, 1600 with that water. It hardly shrinks, and holds little water in a damp room.
 */
const drying: DryingCoefficients = {
  w0: 0.391,
  w_sl: 0,
  w_m: 0.006,
  rho_dry: 1150,
  D_wet: 2e-8,
  D_dry: 1e-9,
  shrinkage: 0,
  capacityWet: 1,
  capacityDry: 1,
};

/** Seconds until an opened wall so thick, both its faces to the room, has lost all but a twentieth of its water; null where the room never gets it there. */
export function plasterDries(thickness: number, air: RoomAir): number | null {
  return dryLayer({
    clay: drying,
    geometry: 'slab',
    thickness,
    innerFace: 1,
    phases: [{ until: Infinity, curve: evaporationCurve(air), relativeHumidity: air.relativeHumidity }],
    rough: true,
  }).throughDry;
}

/** Degrees that it would warm if nothing of its heat were lost: 133 kJ a kg of powder, 0.606 of it in a kg that takes 2.2 kJ a degree. */
export const plasterWarmsAtMost = (133 * 0.606) / 2.2;
/** Of heat given off and lost: seconds in which it sets, J to a m3 and degree, W to a m2 and degree to air and to clay. */
const setsIn = 900,
  heatOfVolume = 1600 * 2200,
  lostTo = 20;

/**
 * Degrees by which a wall warms at most: heat given off as it sets, lost as it warms, both falling off evenly. Of two such
 * decays with r between their times the peak is r^(-1/(r-1)) of what would stay.
 */
export function plasterWarms(thickness: number): number {
  const r = (heatOfVolume * thickness) / lostTo / setsIn;
  const peak = Math.abs(r - 1) < 1e-6 ? 1 / Math.E : r ** (-1 / (r - 1));
  return plasterWarmsAtMost * peak;
}

/** Seconds until an opened mould is dry enough for what is cast in it; nought where that does not matter, null where the room never dries it. */
export function dryForCast(kind: MouldKind, cast: CastKind, wall: number | null, air: RoomAir): number | null {
  const drinks = kind.shell?.material === 'plaster' && kind.skin === null;
  return cast.wantsDryMould && drinks && wall !== null ? plasterDries(wall, air) : 0;
}
