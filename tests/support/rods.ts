import type { Armature } from '../../src/core/armature';
import { bulks, stocks, type JoinKindId } from '../../src/core/catalogue';
import {
  LoadCheck,
  stationsPerBone,
  type CheckInputs,
  type LifeStage,
  type LumpedLoad,
  type StageCheck,
} from '../../src/core/load';
import { distance, gravity, type Vec3 } from '../../src/core/quantity';

/** A frame of bare rods with weights on it, small enough to be worked out by hand. */
export interface RodFrame {
  readonly places: Readonly<Record<string, Vec3>>;
  readonly held: readonly string[];
  readonly rods: readonly Rod[];
  readonly weights: readonly { readonly rod: string; readonly kg: number; readonly spread?: boolean }[];
  readonly props?: CheckInputs['props'];
  /** Of the clay round every rod, metres. */
  readonly across?: number;
  /** Of the core round every rod, metres, and the hard skin over it. */
  readonly core?: number;
  readonly skin?: CheckInputs['skin'];
}

export interface Rod {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly stock?: string;
  readonly size?: string;
  readonly strands?: number;
  /** The wire runs there and back. */
  readonly doubled?: boolean;
  readonly tie?: boolean;
  readonly joinFrom?: JoinKindId;
  readonly joinTo?: JoinKindId;
}

/** How far along its rod a weight lies that is not spread: the middle of the last of its stations. */
export const atItsEnd = 1;

export const atRest: LifeStage = {
  id: 'rest',
  name: 'at rest',
  bulkOn: false,
  clayDensity: [],
  wet: true,
  safety: 1.5,
  accelerations: [[0, 0, -gravity]],
  causes: ['its own weight'],
  propped: 'none',
};

export function checkRods(
  { places, held, rods, weights, props = [], across = 0, core = 0, skin }: RodFrame,
  stage = atRest,
): StageCheck {
  const bones = rods.map(({ id, from, to, tie, joinFrom = 'welded', joinTo = 'welded' }) => ({
    id,
    name: id,
    from,
    to,
    masses: [],
    joinFrom,
    joinTo,
    ...(tie ? { tie } : {}),
  }));
  const armature: Armature = {
    nodes: Object.entries(places).map(([id, at]) => ({ id, at, held: held.includes(id) })),
    bones,
    members: rods.map(({ id, from, to, stock = 'mild-steel', size = '12mm', strands = 1, doubled }) => ({
      id,
      name: id,
      stock,
      size,
      strands,
      bonded: false,
      path: [places[from]!, places[to]!],
      bones: doubled ? [id, id] : [id],
      allowances: [],
    })),
    base: {} as never,
    hardware: [],
    bulk: 'none',
    wrap: 'none',
  };
  const components = 4;
  const amounts = new Float64Array(bones.length * stationsPerBone * components * 4);
  for (const { rod, kg, spread } of weights) {
    const bone = rods.findIndex((r) => r.id === rod);
    const [from, to] = spread ? [1, stationsPerBone - 2] : [stationsPerBone - 1, stationsPerBone - 1];
    for (let s = from; s <= to; s++)
      amounts[((bone * stationsPerBone + s) * components + 3) * 4] = kg / (to - from + 1);
  }
  const load: LumpedLoad = {
    bones,
    ends: bones.map((b) => [places[b.from]!, places[b.to]!] as const),
    components,
    amounts,
    stretchLength: Float64Array.from(bones, (b) => distance(places[b.from]!, places[b.to]!)),
    outerDiameter: new Float64Array(bones.length).fill(across),
    coreDiameter: new Float64Array(bones.length).fill(core),
  };
  const check = new LoadCheck({
    armature,
    load,
    bulk: bulks.get('none') as never,
    bulkDensity: 0,
    wrapPerArea: 0,
    ...(skin ? { skin } : {}),
    clay: { yieldStress: 0, margin: 1.5 },
    grip: 0,
    stockOf: (id) => stocks.get(id),
    props,
  });
  const found = check.at(stage);
  if (!found.ok) throw new Error(found.message);
  return check.withBowing([found.value])[0]!;
}
