import { bulks, stocks } from '../catalogue';
import type { Armature } from '../armature';
import type { Vec3 } from '../quantity';
import { LoadCheck, stationsPerBone, type LumpedLoad, type LifeStage } from '.';

/** A post with an arm to each side, ten kilograms on the left one, and a prop under an arm's end. */
const nodes = [
  { id: 'foot', at: [0, 0, 0] as Vec3, held: true },
  { id: 'top', at: [0, 0, 0.6] as Vec3, held: false },
  { id: 'left', at: [0.4, 0, 0.6] as Vec3, held: false },
  { id: 'right', at: [-0.4, 0, 0.6] as Vec3, held: false },
];
const bones = (
  [
    ['post', 'foot', 'top'],
    ['left', 'top', 'left'],
    ['right', 'top', 'right'],
  ] as const
).map(([id, from, to]) => ({
  id,
  name: id,
  from,
  to,
  masses: [],
  joinFrom: 'welded' as const,
  joinTo: 'welded' as const,
}));
const armature: Armature = {
  nodes,
  bones,
  members: bones.map((b) => ({
    id: b.id,
    name: b.id,
    stock: 'mild-steel',
    size: '12mm',
    strands: 1,
    bonded: false,
    path: [],
    bones: [b.id],
    allowances: [],
  })),
  base: {} as never,
  hardware: [],
  bulk: 'none',
  wrap: 'none',
};

function check(under: readonly string[], propped: LifeStage['propped'] = 'all', lasting = false) {
  const place = new Map(nodes.map((n) => [n.id, n.at]));
  const components = 4;
  const amounts = new Float64Array(bones.length * stationsPerBone * components * 4);
  amounts[((stationsPerBone + stationsPerBone - 1) * components + 3) * 4] = 10;
  const load: LumpedLoad = {
    bones,
    ends: bones.map((b) => [place.get(b.from)!, place.get(b.to)!] as const),
    components,
    amounts,
    outerDiameter: new Float64Array(3),
    coreDiameter: new Float64Array(3),
  };
  const moment: LifeStage = {
    id: 'm',
    name: 'm',
    bulkOn: false,
    clayDensity: [],
    wet: true,
    safety: 1.5,
    accelerations: [[0, 0, -9.81]],
    causes: [''],
    propped,
  };
  const found = new LoadCheck({
    armature,
    load,
    bulk: bulks.get('none') as never,
    bulkDensity: 0,
    wrapPerArea: 0,
    clayYield: 0,
    grip: 0,
    stockOf: (id) => stocks.get(id),
    props: under.map((node) => ({ node, lasting })),
  }).at(moment);
  if (!found.ok) throw new Error(found.message);
  return found.value;
}
const of = (c: ReturnType<typeof check>, bone: string) => c.bones.find((b) => b.bone === bone)?.demand ?? NaN;

test('under the loaded arm a prop pushes and spares the post', () => {
  const alone = check([]),
    held = check(['left']);
  expect(held.props['left']).toBeGreaterThan(50);
  expect(of(held, 'post')).toBeLessThan(0.3 * of(alone, 'post'));
});

test('under the arm that rises it would have to pull: it is let go, and everything is as without it', () => {
  const alone = check([]),
    wrong = check(['right']);
  expect(wrong.props['right']).toBeUndefined();
  expect(of(wrong, 'post')).toBeCloseTo(of(alone, 'post'), 9);
  // Of two, the one that pushes stays.
  const both = check(['left', 'right']);
  expect(both.props['left']).toBeGreaterThan(50);
  expect(of(both, 'post')).toBeCloseTo(of(check(['left']), 'post'), 6);
});

test('a prop stands while it is wet, a lasting one when dry too, none on the road', () => {
  expect(check(['left'], 'lasting').props).toEqual({});
  expect(check(['left'], 'lasting', true).props['left']).toBeGreaterThan(50);
  expect(check(['left'], 'none', true).props).toEqual({});
});
