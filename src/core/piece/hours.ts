import type { Armature } from '../armature';
import { placingHours } from '../cure';

/**
 * Hours at the bench until the clay is on: rates of our own for ordinary hands, a beginning until a maker's own are
 * learned. Drying, curing and finishing are not in it.
 */
export interface Hours {
  readonly armature: number;
  readonly bulk: number;
  readonly clay: number;
  readonly total: number;
}

/** Minutes: measuring, cutting and bending one strand; fixing one join; a square metre of wrap. Litres of bulk an hour. */
const perCut = 5;
const perBind = 6;
const perWrap = 45;
const litresOfBulk = 8;

export function hoursFor(
  armature: Armature,
  volumes: { readonly bulk: number; readonly wrapped: number; readonly clayMass: number },
): Hours {
  const strands = armature.members.reduce((n, m) => n + m.strands, 0);
  const joins =
    armature.bones.filter((b) => b.joinFrom !== 'welded').length +
    armature.bones.filter((b) => b.joinTo !== 'welded').length;
  const making = (strands * perCut + joins * perBind + armature.hardware.length * perBind) / 60;
  const bulk = (volumes.bulk * 1000) / litresOfBulk + (volumes.wrapped * perWrap) / 60;
  const clay = placingHours(volumes.clayMass);
  return { armature: making, bulk, clay, total: making + bulk + clay };
}
