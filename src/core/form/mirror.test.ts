import { seeded, type Vec3 } from '../quantity';
import { compose, DistanceField, inverse, rotate, rotationOf, twinId, turnOf, unturned, type Mass } from '.';
import { mirrorJointEdit, mirrorMass, mirrorPlace, mirrorTurn, twinName } from './mirror';

test.each([
  ['ear-left', 'ear-right'],
  ['limb/hand-left', 'limb/hand-right'],
  ['horn', 'horn-right'],
])('the twin of %s is %s', (id, twin) => expect(twinId(id)).toBe(twin));

test.each([
  ['ear, left', 'ear, right'],
  ['left ear', 'right ear'],
  ['horn', 'horn, right'],
])('the twin of "%s" is called "%s"', (name, twin) => expect(twinName(name)).toBe(twin));

const random = seeded(5);
const somewhere = (size = 0.2): [number, number, number] => [0, 1, 2].map(() => (random() - 0.5) * size) as never;
const lump = (more: Partial<Mass> = {}): Mass => ({
  id: 'lump-left',
  name: 'lump, left',
  region: 'r',
  at: [0.06, -0.02, 0.1],
  turn: [25, 40, -70],
  blend: 0,
  shape: { kind: 'ellipsoid', radii: [0.05, 0.03, 0.02] },
  mirrored: true,
  ...more,
});
const depth = (m: Mass, p: Vec3) => {
  const field = new DistanceField([m]);
  return field.at(p[0], p[1], p[2], field.all());
};

test.each<[string, Mass['shape']]>([
  ['ellipsoid', { kind: 'ellipsoid', radii: [0.05, 0.03, 0.02] }],
  ['round cone', { kind: 'round-cone', reach: [0.04, 0.02, 0.08], radiusFrom: 0.02, radiusTo: 0.01 }],
  ['block', { kind: 'rounded-box', half: [0.04, 0.03, 0.02], rounding: 0.004 }],
])('a %s and its reflection are as far from a place and its mirror', (_, shape) => {
  const left = lump({ shape }),
    right = mirrorMass(left, (id) => id);
  for (let k = 0; k < 40; k++) {
    const p = somewhere(0.4);
    expect(depth(right, mirrorPlace(p))).toBeCloseTo(depth(left, p), 6);
  }
});

test('reflected twice it is what it was, but for its name', () => {
  const left = lump();
  const {
    id: _i,
    name: _n,
    mirrored: _m,
    ...back
  } = mirrorMass(
    mirrorMass(left, (j) => j),
    (j) => j,
  );
  const { id: _a, name: _b, mirrored: _c, ...was } = left;
  expect(back).toEqual({ ...was, turn: was.turn.map((v) => expect.closeTo(v, 12) as number) });
  const edit = { moved: [0.1, 0.2, 0.3] as [number, number, number], turned: [1, 2, 3] as [number, number, number] };
  expect(mirrorJointEdit(mirrorJointEdit(edit))).toEqual(edit);
  expect(mirrorJointEdit({})).toEqual({});
});

describe('turns', () => {
  test('about each axis as the right hand has it', () => {
    const at = (turn: Vec3, p: Vec3) => rotate(rotationOf(turn), p).map((v) => Math.round(v * 1e9) / 1e9 + 0);
    expect(at([90, 0, 0], [0, 1, 0])).toEqual([0, 0, 1]);
    expect(at([0, 90, 0], [0, 0, 1])).toEqual([1, 0, 0]);
    expect(at([0, 0, 90], [1, 0, 0])).toEqual([0, 1, 0]);
    // About x first, then z: what was up ends in front of what was to the right.
    expect(at([90, 0, 90], [0, 0, 1])).toEqual([1, 0, 0]);
  });
  test('a turn and its inverse leave everything where it was, and lengths are kept', () => {
    for (let k = 0; k < 50; k++) {
      const r = rotationOf(somewhere(720)),
        p = somewhere();
      const [q, back] = [rotate(r, p), rotate(inverse(r), rotate(r, p))];
      expect(Math.hypot(...q)).toBeCloseTo(Math.hypot(...p), 12);
      back.forEach((v, i) => expect(v).toBeCloseTo(p[i]!, 12));
      compose(r, inverse(r)).forEach((v, i) => expect(v).toBeCloseTo(unturned[i]!, 12));
    }
  });
  test('straight up or down it has a turn too', () => {
    for (const y of [90, -90]) {
      const r = rotationOf([30, y, 20]);
      rotationOf(turnOf(r)).forEach((v, i) => expect(v).toBeCloseTo(r[i]!, 9));
    }
  });
  test('mirrored, a turn about x stays and the others go the other way', () =>
    expect(mirrorTurn([10, 20, 30])).toEqual([10, -20, -30]));
});
