import { bulks, stocks } from '../catalogue';
import type { Armature } from '../armature';
import type { Vec3 } from '../quantity';
import { LoadCheck, stationsPerBone, type CheckInputs, type LumpedLoad, type LifeStage } from '.';

/** A post with a weight on its top and two guys: each pulls when the post leans away from it, and never pushes. */
const nodes = [
  { id: 'foot', at: [0, 0, 0] as Vec3, held: true },
  { id: 'top', at: [0, 0, 1] as Vec3, held: false },
  { id: 'left', at: [0.6, 0, 0] as Vec3, held: true },
  { id: 'right', at: [-0.6, 0, 0] as Vec3, held: true },
];
const bone = (id: string, from: string, to: string, tie = false) => ({
  id,
  name: id,
  from,
  to,
  masses: [],
  joinFrom: 'welded' as const,
  joinTo: 'welded' as const,
  ...(tie ? { tie } : {}),
});
const member = (id: string, size: string) => ({
  id,
  name: id,
  stock: 'mild-steel',
  size,
  strands: 1,
  bonded: false,
  path: [],
  bones: [id],
  allowances: [],
});

function armature(ties: boolean): Armature {
  return {
    nodes: ties ? nodes : nodes.slice(0, 2),
    bones: [
      bone('post', 'foot', 'top'),
      ...(ties ? [bone('guy-left', 'left', 'top', true), bone('guy-right', 'right', 'top', true)] : []),
    ],
    members: [member('post', '12mm'), ...(ties ? [member('guy-left', '3mm'), member('guy-right', '3mm')] : [])],
    base: {} as never,
    hardware: [],
    bulk: 'none',
    wrap: 'none',
  };
}

function check(ties: boolean, accelerations: readonly Vec3[]) {
  const a = armature(ties);
  const place = new Map(nodes.map((n) => [n.id, n.at]));
  const components = 4;
  const amounts = new Float64Array(a.bones.length * stationsPerBone * components * 4);
  // Ten kilograms near the top of the post.
  amounts[((stationsPerBone - 1) * components + 3) * 4] = 10;
  const load: LumpedLoad = {
    bones: a.bones,
    ends: a.bones.map((b) => [place.get(b.from)!, place.get(b.to)!] as const),
    components,
    amounts,
    outerDiameter: new Float64Array(a.bones.length),
    coreDiameter: new Float64Array(a.bones.length),
  };
  const input: CheckInputs = {
    armature: a,
    load,
    bulk: bulks.get('none') as never,
    bulkDensity: 0,
    wrapPerArea: 0,
    clayYield: 0,
    grip: 0,
    stockOf: (id) => stocks.get(id),
    props: [],
  };
  const moment: LifeStage = {
    id: 'm',
    name: 'm',
    bulkOn: false,
    clayDensity: [],
    wet: false,
    safety: 1.5,
    accelerations,
    causes: accelerations.map((_, i) => `case ${i}`),
    propped: 'none',
  };
  const found = new LoadCheck(input).at(moment);
  if (!found.ok) throw new Error(found.message);
  return found.value;
}

const leftward: Vec3 = [6, 0, -9.81],
  rightward: Vec3 = [-6, 0, -9.81];

describe('ties', () => {
  test('the guy behind pulls, the one in front is slack, and the post is spared', () => {
    const guyed = check(true, [leftward]),
      alone = check(false, [leftward]);
    const of = (id: string) => guyed.bones.find((b) => b.bone === id);
    expect(of('guy-right')?.axial).toBeGreaterThan(20);
    expect(of('guy-left')?.axial).toBeLessThan(0.1);
    expect(of('post')?.utilisation).toBeLessThan(0.3 * (alone.bones[0]?.utilisation ?? 0));
  });
  test('shaken both ways each does its part: neither case takes the other’s guy away', () => {
    const both = check(true, [leftward, rightward]),
      one = check(true, [leftward]);
    const of = (c: typeof both, id: string) => c.bones.find((b) => b.bone === id);
    expect(of(both, 'guy-left')?.utilisation).toBeCloseTo(of(one, 'guy-right')?.utilisation ?? NaN, 6);
    expect(of(both, 'post')?.utilisation).toBeCloseTo(of(one, 'post')?.utilisation ?? NaN, 6);
  });
  test('standing still both are slack and the weight stays on the post', () => {
    const still = check(true, [[0, 0, -9.81]]);
    expect(still.bones.find((b) => b.bone === 'guy-left')?.axial).toBeLessThan(1);
    expect(still.footForce).toBeCloseTo(98.1, 1);
  });
});
