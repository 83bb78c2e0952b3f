import { ballMesh, boxMesh, insideOut, ringMesh, together, without } from '../../../../tests/support/meshes';
import { seeded } from '../../quantity';
import { latticeFor, sampleSolid, solidOfMesh, Winding, windingExactly, windingInside, type TriangleMesh } from '.';
import { decodedSamples } from './sampled';

const ring = ringMesh(0.1, 0.03, 64, 24);
const ball = (r: number) => (4 / 3) * Math.PI * r ** 3;

/** A seeded share of its triangles gone. */
const moth = (m: TriangleMesh, share: number, seed = 5) => {
  const random = seeded(seed);
  return without(m, () => random() < share);
};
const solid = (m: TriangleMesh, along = 64, fillHollow = true) => {
  const found = solidOfMesh(m, along, { fillHollow });
  if (!found.ok) throw new Error(found.message);
  return found.value;
};
const volume = (m: TriangleMesh, along = 64) => solid(m, along).volume.nominal;

describe('winding numbers', () => {
  test('one within, nought without, two where it overlaps itself', () => {
    const two = together(ballMesh(1), ballMesh(1, 48, [1, 0, 0]));
    const w = new Winding(two);
    for (const [x, to] of [
      [-0.5, 1],
      [0.5, 2],
      [1.5, 1],
      [3, 0],
    ] as const) {
      expect(windingExactly(two, x, 0.1, 0.05)).toBeCloseTo(to, 6);
      expect(Math.abs(w.at(x, 0.1, 0.05) - to)).toBeLessThan(0.1);
    }
  });
  test('one side of a cube, seen from its middle, is a sixth of all there is to see; from far off its solid angle', () => {
    const sheet = { ...boxMesh(2, 2, 2), triangles: Uint32Array.from([4, 5, 7, 4, 7, 6]) };
    expect(windingExactly(sheet, 0, 0, 0)).toBeCloseTo(1 / 6, 12);
    expect(windingExactly(sheet, 0, 0, 2)).toBeCloseTo(-1 / 6, 12);
    // Four square units, forty away, square on.
    expect(new Winding(sheet).at(0, 0, -39)).toBeCloseTo(4 / (4 * Math.PI * 40 ** 2), 6);
  });
  test.each([
    ['closed', ring],
    ['open', moth(ring, 0.2)],
    ['a ball in a ball', together(ballMesh(0.1), insideOut(ballMesh(0.05)))],
  ] as const)('%s: near enough to every triangle summed', (_, mesh) => {
    const w = new Winding(mesh);
    const random = seeded(3);
    for (let i = 0; i < 300; i++) {
      const [x, y, z] = [0.3, 0.3, 0.1].map((s) => (random() - 0.5) * s) as [number, number, number];
      expect(Math.abs(w.at(x, y, z) - windingExactly(mesh, x, y, z))).toBeLessThan(0.1);
    }
  });
  test('far off, where the first moment is all that counts: better by it than by the sum alone', () => {
    // A closed box has no sum: what is left is its moments, and they fall off fast.
    expect(Math.abs(new Winding(boxMesh(1, 1, 1)).at(4, 3, 2))).toBeLessThan(1e-4);
    const open = together(without(boxMesh(1, 1, 1), (f) => f < 2));
    expect(new Winding(open).at(2.2, 1.4, -1.8)).toBeCloseTo(windingExactly(open, 2.2, 1.4, -1.8), 3);
  });
});

describe('inside and outside', () => {
  test.each([
    ['closed', ring],
    ['a tenth gone', moth(ring, 0.1)],
    ['crossing', together(ballMesh(0.1), ballMesh(0.08, 40, [0.1, 0, 0]), boxMesh(0.4, 0.02, 0.02))],
    ['large triangles', boxMesh(0.3, 0.2, 0.1)],
  ] as const)('%s: whole blocks filled are what every place asked would be', (_, mesh) => {
    for (const along of [40, 56]) {
      const lattice = latticeFor(mesh, along);
      const quick = windingInside(mesh, lattice),
        slow = windingInside(mesh, lattice, { everyPlace: true });
      expect(quick.inside).toEqual(slow.inside);
      expect(quick.evaluated).toBeLessThan(slow.evaluated * 0.75);
    }
  });
  test('across an open rim inside ends where half of all there is to see is wall: half a ball is half a ball', () => {
    const m = ballMesh(0.1, 64);
    const half = without(m, (f) => [0, 1, 2].some((k) => m.positions[m.triangles[f * 3 + k]! * 3 + 2]! > 1e-6));
    const lattice = latticeFor(half, 48);
    const found = windingInside(half, lattice);
    const volume = found.inside.reduce((n, v) => n + v, 0) * lattice.step ** 3;
    expect(Math.abs(volume / (ball(0.1) / 2) - 1)).toBeLessThan(0.03);
    // What is in doubt lies about the rim's plane.
    expect(found.doubt.reduce((n, v) => n + v, 0)).toBeGreaterThan(500);
  });
  test('a closed mesh is its own, to the last figure', () => {
    expect(solid(ring)).toMatchObject({ clean: true, unsure: 0, filled: 0, crumbs: 0 });
    expect(solid(ring).lumps).toHaveLength(1);
    expect(solid(ring).surface.triangles).toHaveLength(ring.triangles.length);
  });
  test.each([1, 2, 3])('a seeded tenth of its triangles gone: at most 0.5 %% of its inside differs (%d)', (seed) => {
    const whole = solid(ring),
      torn = solid(moth(ring, 0.1, seed));
    // The box may have lost its outermost triangle: the lattices are the same only if it has not.
    expect(torn.lattice).toEqual(whole.lattice);
    let differ = 0,
      all = 0;
    whole.inside.forEach((v, i) => {
      all += v;
      differ += v ^ torn.inside[i]!;
    });
    expect(differ / all).toBeLessThan(0.005);
    expect(torn.clean).toBe(false);
    expect(torn.openEdges).toBeGreaterThan(100);
    expect(torn.volume.low).toBeLessThanOrEqual(torn.volume.nominal);
    expect(Math.abs(torn.volume.nominal / whole.volume.nominal - 1)).toBeLessThan(0.01);
    expect(torn.volume.high).toBeGreaterThan(whole.volume.nominal * 0.998);
  });
  test('crossing, doubled and inside out: what it takes up is counted once', () => {
    const lens = (Math.PI * (4 * 0.1 + 0.1) * (2 * 0.1 - 0.1) ** 2) / 12;
    const two = together(ballMesh(0.1), ballMesh(0.1, 48, [0.1, 0, 0]));
    expect(Math.abs(volume(two) / (2 * ball(0.1) - lens) - 1)).toBeLessThan(0.01);
    expect(solid(two).clean).toBe(false);
    const doubled = together(ballMesh(0.1), ballMesh(0.1));
    expect(solid(doubled)).toMatchObject({ doubled: ballMesh(0.1).triangles.length / 3, clean: true });
    expect(volume(insideOut(ballMesh(0.1))) / ball(0.1)).toBeCloseTo(1, 2);
    expect(solid(insideOut(ballMesh(0.1))).facesTurned).toBe(ballMesh(0.1).triangles.length / 3);
  });
  test('a cavity is filled, a crumb left out and told, a second piece kept', () => {
    const hollow = together(ballMesh(0.1), insideOut(ballMesh(0.05)));
    expect(volume(hollow) / ball(0.1)).toBeCloseTo(1, 2);
    const crumbs = solid(together(ballMesh(0.1), ballMesh(0.02, 20, [0.16, 0, 0])));
    expect(crumbs).toMatchObject({ crumbs: 1 });
    expect(crumbs.volume.nominal / ball(0.1)).toBeCloseTo(1, 2);
    const two = solid(together(ballMesh(0.1), ballMesh(0.06, 40, [0.3, 0, 0])), 96);
    expect(two.lumps.map((l) => l.share)).toEqual([expect.closeTo(1 / 1.216, 2), expect.closeTo(0.216 / 1.216, 2)]);
    expect(two.lumps[1]!.at[0]).toBeCloseTo(0.3, 2);
  });
  test('a skin open below is a solid, unless it is said to stay hollow', () => {
    // Two balls, one in the other, a millimetre apart, a cap cut off both: thinner than any place of the lattice.
    const under = (m: TriangleMesh) => without(m, (f) => m.positions[m.triangles[f * 3]! * 3 + 2]! < -0.085);
    const skin = together(under(ballMesh(0.1)), under(insideOut(ballMesh(0.099))));
    const filled = solid(skin);
    expect(filled.filled).toBeGreaterThan(0.5);
    const below = (Math.PI * 0.015 ** 2 * (0.3 - 0.015)) / 3;
    expect(Math.abs(filled.volume.nominal / (ball(0.1) - below) - 1)).toBeLessThan(0.03);
    const kept = solidOfMesh(skin, 64, { fillHollow: false });
    expect(kept.ok ? kept.value.volume.nominal / filled.volume.nominal : 0).toBeLessThan(0.2);
  });
  test('one sheet, as a scan is: its opening closed straight across; the hole of a ring is no hollow', () => {
    const m = ballMesh(0.1);
    const over = (z: number) => without(m, (f) => m.positions[m.triangles[f * 3]! * 3 + 2]! > z);
    const scan = solid(over(0.085));
    const above = (Math.PI * 0.015 ** 2 * (0.3 - 0.015)) / 3;
    expect(scan.openings).toEqual([
      expect.objectContaining({ round: expect.closeTo(2 * Math.PI * Math.sqrt(0.1 ** 2 - 0.085 ** 2), 1) }),
    ]);
    expect(scan.openings[0]!.at[2]).toBeCloseTo(0.085, 2);
    expect(scan.volume.low).toBeLessThan(scan.volume.nominal);
    expect(Math.abs(scan.volume.nominal / (ball(0.1) - above) - 1)).toBeLessThan(0.015);
    // A larger opening, more that may lie across it: the range says so.
    const bowl = solid(over(0.03));
    const spread = ({ volume: { low, high, nominal } }: typeof bowl) => (high - low) / nominal;
    expect(spread(bowl)).toBeGreaterThan(0.1);
    expect(spread(bowl)).toBeGreaterThan(4 * spread(scan));
    expect(bowl.volume.high).toBeLessThan(ball(0.1));
    expect(solid(ring).filled).toBe(0);
  });
  test.each([
    ['a third of it gone', moth(ring, 0.33), /inside and outside cannot be told apart, most of that about/],
    ['no triangles but lines', { ...boxMesh(1, 1, 1), triangles: Uint32Array.of(0, 0, 1) }, /none of its triangles/],
    ['all in one place', boxMesh(0, 0, 0), /in one place/],
    ['a flat sheet', { ...boxMesh(1, 1, 1), triangles: Uint32Array.from([4, 5, 7, 4, 7, 6]) }, /encloses nothing/],
  ])('%s is refused with what is wrong', (_, mesh, why) =>
    expect(solidOfMesh(mesh, 64)).toMatchObject({ ok: false, message: expect.stringMatching(why) }),
  );
  test('where its face is missing is said: half a ball gone, about the middle of that half', () => {
    const m = ballMesh(0.1);
    const half = moth(m, 0.5, 9);
    const found = solidOfMesh(
      together(
        without(m, (f) => m.positions[m.triangles[f * 3]! * 3]! > 0),
        without(half, (f) => half.positions[half.triangles[f * 3]! * 3]! < 0),
      ),
      64,
      { fillHollow: false },
    );
    expect(found).toMatchObject({ ok: false, code: 'no-inside' });
    const at = /about ([-\d.]+), ([-\d.]+), ([-\d.]+)/
      .exec(found.ok ? '' : found.message)!
      .slice(1)
      .map(Number);
    expect(at[0]!).toBeGreaterThan(0.02);
    expect(Math.abs(at[1]!)).toBeLessThan(0.03);
  });
});

describe('its face', () => {
  test('across a hole it runs as the rest does; a block within makes none', () => {
    const m = ballMesh(0.1, 60);
    const middle = (f: number) =>
      [0, 1, 2].map((k) => [0, 1, 2].reduce((s, c) => s + m.positions[m.triangles[f * 3 + c]! * 3 + k]!, 0) / 3);
    // A hole some 40 mm across on the right, and a block in the middle.
    const torn = without(m, (f) => Math.hypot(middle(f)[1]!, middle(f)[2]!) < 0.02 && middle(f)[0]! > 0);
    const shape = sampleSolid(solid(together(torn, boxMesh(0.12, 0.12, 0.02))));
    const values = decodedSamples(shape.values);
    const at = (x: number, y: number, z: number) => {
      const i = [x, y, z].map((v, k) => Math.round((v - shape.from[k]!) / shape.step));
      const p = i.map((v, k) => shape.from[k]! + v * shape.step);
      return {
        d: values[i[0]! + shape.cells[0] * (i[1]! + shape.cells[1] * i[2]!)]! * shape.deepest,
        r: Math.hypot(...p),
      };
    };
    // In the middle it is deep, whatever faces are there.
    expect(at(0, 0, 0).d).toBeLessThan(-0.085);
    expect(at(-0.06, 0.03, 0).d).toBeCloseTo(at(-0.06, 0.03, 0).r - 0.1, 2);
    // Across the hole within 4 mm of the ball, which bulges 2 mm there.
    for (const x of [0.085, 0.09, 0.105, 0.112])
      expect(Math.abs(at(x, 0, 0).d - (at(x, 0, 0).r - 0.1))).toBeLessThan(0.004);
  });
});
