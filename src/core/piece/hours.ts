import type { Armature } from '../armature';
import { layingHours, type Setting } from '../cure';

/**
 * Hours at the bench until the clay is on: rates of our own for ordinary hands, a beginning until a maker's own are
 * learned. Drying, curing and finishing are not in it.
 */
export interface Hours {
  readonly armature: number;
  readonly bulk: number;
  readonly clay: number;
}

/**
 * Minutes: measuring, cutting and bending one strand; fixing one join; a square metre of wrap. Litres an hour of what is
 * crumpled and packed, and of boards and blocks that are carved with saw and knife.
 */
const perCut = 5;
const perBind = 6;
const perWrap = 45;
const litresPacked = 8,
  litresCarved = 25;
const carved = /^(polystyrene|foam)-/;

export function hoursFor(
  armature: Armature,
  volumes: {
    readonly bulk: number;
    readonly bulkKind: string;
    readonly wrapped: number;
    readonly clayMass: number;
    readonly setting: Setting;
  },
): Hours {
  const strands = armature.members.reduce((n, m) => n + m.strands, 0);
  const joins =
    armature.bones.filter((b) => b.joinFrom !== 'welded').length +
    armature.bones.filter((b) => b.joinTo !== 'welded').length;
  const making = (strands * perCut + joins * perBind + armature.hardware.length * perBind) / 60;
  const bulk =
    (volumes.bulk * 1000) / (carved.test(volumes.bulkKind) ? litresCarved : litresPacked) +
    (volumes.wrapped * perWrap) / 60;
  const clay = layingHours(volumes.clayMass, volumes.setting);
  return { armature: making, bulk, clay };
}
