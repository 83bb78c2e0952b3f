import { ballMesh, finelyPlaced, latheMesh, ringMesh, together, turnedMesh } from '../../../tests/support/meshes';
import type { Mass } from '../document';
import { DistanceField, extractSurface, voxelise, weld, type TriangleMesh } from '../form';
import { cross, seeded, unit, type Vec3 } from '../quantity';
import {
  airTraps,
  pouredWith,
  checkAsked,
  masterFace,
  partingOf,
  readyToPart,
  withHeld,
  shimAt,
  type MasterFace,
  type Parting,
  type PartingAsked,
} from '.';
import { cellsOf, findLocks } from './locks';
import { FaceRays } from './rays';
import { settled } from './search';
import { stretchAlong } from './stretch';

beforeAll(readyToPart);

/** Moulds' partings against what can be worked out by hand, and against slow twins. */
const faceOf = (mesh: TriangleMesh, board: number | null): MasterFace => {
  const face = masterFace(weld(mesh, 1e-7), { board });
  if (!face.ok) throw new Error(face.message);
  return face.value;
};
const parted = (face: MasterFace, board: number | null, asked: PartingAsked): Parting => {
  const checked = checkAsked(asked);
  if (!checked.ok) throw new Error(checked.message);
  const work = partingOf(face, board, checked.value);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
    expect(value).toBeGreaterThanOrEqual(0);
    expect(value).toBeLessThanOrEqual(1);
  }
};
const turnAtRandom = (seed: number): ((p: Vec3) => Vec3) => {
  const random = seeded(seed);
  const vector = (): Vec3 => [random() - 0.5, random() - 0.5, random() - 0.5];
  const u = unit(vector());
  const w = unit(cross(u, vector()));
  const v = cross(w, u);
  return (p) => [0, 1, 2].map((k) => p[0] * u[k as 0] + p[1] * v[k as 0] + p[2] * w[k as 0]) as unknown as Vec3;
};
const upAndDown: Vec3[] = [
  [0, 0, 1],
  [0, 0, -1],
];

test.each([1, 2, 3])('a ball, turned at random (%d): two pieces along a great circle, nothing locked', (seed) => {
  const face = faceOf(turnedMesh(ballMesh(0.1, 40), turnAtRandom(seed)), null);
  const { pieces, partingLength, locked, lockedVolume, lines } = parted(face, null, {});
  expect(pieces).toHaveLength(2);
  expect(lines).toHaveLength(1);
  expect(lines[0]!.closed).toBe(true);
  expect(Math.abs(partingLength / (2 * Math.PI * 0.1) - 1)).toBeLessThan(0.01);
  expect(locked).toEqual([]);
  expect(lockedVolume).toBe(0);
  expect(pieces[0]!.area / pieces[1]!.area).toBeCloseTo(1, 1);
});

test('half a ball on its flat: one open piece, drawn up, with no line', () => {
  const bow = Array.from({ length: 40 }, (_, i): [number, number] => {
    const a = (i / 39) * (Math.PI / 2);
    return [0.1 * Math.cos(a), 0.1 * Math.sin(a)];
  });
  const face = faceOf(latheMesh(finelyPlaced([[0, 0], ...bow], 0.005)), 0);
  const { pieces, partingLength, locked } = parted(face, 0, {});
  expect(pieces).toHaveLength(1);
  expect(pieces[0]!.direction[2]).toBeGreaterThan(0.99);
  expect(partingLength).toBe(0);
  expect(locked).toEqual([]);
  // What it stands on is no part of the mould.
  expect(pieces[0]!.area / (2 * Math.PI * 0.01)).toBeCloseTo(1, 2);
});

describe('a ring of 60 mm to the middle of a tube of 20 mm', () => {
  const lying = ringMesh(0.06, 0.02, 160, 64, 0);
  const standing = turnedMesh(lying, ([x, y, z]) => [x, -z, y]);

  test('lying: two pieces, nothing locked', () => {
    const { pieces, locked } = parted(faceOf(lying, null), null, {});
    expect(pieces).toHaveLength(2);
    expect(locked).toEqual([]);
  });

  test('standing, drawn up and down: what its hole holds is locked, 249.03 cc', () => {
    const [R, r] = [0.06, 0.02];
    const hole = Math.PI * (2 * R * R * r - Math.PI * R * r * r + (4 / 3) * r ** 3);
    expect(hole * 1e6).toBeCloseTo(249.03, 1);
    const { lockedVolume, locked } = parted(faceOf(standing, null), null, { pulls: upAndDown });
    expect(Math.abs(lockedVolume / hole - 1)).toBeLessThan(0.01);
    expect(locked).toHaveLength(1);
    // From its middle to where it opens, at the side of the tube.
    expect(locked[0]!.depth).toBeCloseTo(0.02, 2);
  });

  test('standing, left to choose: nothing locked, across its axis', () => {
    const { pieces, locked } = parted(faceOf(standing, null), null, {});
    expect(pieces).toHaveLength(2);
    expect(Math.abs(pieces[0]!.direction[1])).toBeGreaterThan(0.95);
    expect(locked).toEqual([]);
  });

  test('it has a handle, past which nothing that gives comes off', () => {
    expect(stretchAlong(faceOf(lying, null), [0, 0, 1]).handles).toBe(1);
    expect(stretchAlong(faceOf(ballMesh(0.1), null), [0, 0, 1]).handles).toBe(0);
  });
});

describe('open behind', () => {
  const [tile, R, r, h] = [0.09, 0.05, 0.02, 0.03];
  const mushroomOnATile = latheMesh(
    finelyPlaced(
      [
        [0, 0],
        [tile, 0],
        [tile, 0.01],
        [r, 0.01],
        [r, 0.01 + h],
        [R, 0.01 + h],
        [R, 0.02 + h],
        [0, 0.04 + h],
      ],
      0.003,
    ),
    160,
  );

  test('one part over the front and the rim; the back is open, and what is undercut before it is a lock', () => {
    const face = faceOf(mushroomOnATile, null);
    const { pieces, behind, partingLength, locked, lockedVolume } = parted(face, null, { open: true });
    expect(pieces).toHaveLength(1);
    expect(pieces[0]!.direction[2]).toBeGreaterThan(0.999);
    expect(behind! / (Math.PI * tile ** 2)).toBeCloseTo(1, 2);
    expect(pieces[0]!.area / (face.area - behind!)).toBeCloseTo(1, 6);
    expect(partingLength / (2 * Math.PI * tile)).toBeCloseTo(1, 2);
    expect(locked).toHaveLength(1);
    expect(Math.abs(lockedVolume / (Math.PI * (R * R - r * r) * h) - 1)).toBeLessThan(0.02);
    expect(pieces[0]!.travel).toBe(0);
  });

  test('leaned, it is drawn square to its back, and what lies behind it holds nothing', () => {
    const a = Math.PI / 3;
    const leaned = turnedMesh(mushroomOnATile, ([x, y, z]) => [
      x,
      Math.cos(a) * y - Math.sin(a) * z,
      Math.sin(a) * y + Math.cos(a) * z,
    ]);
    const { pieces, lockedVolume } = parted(faceOf(leaned, null), null, { open: true });
    expect(pieces[0]!.direction[1]).toBeCloseTo(-Math.sin(a), 2);
    expect(Math.abs(lockedVolume / (Math.PI * (R * R - r * r) * h) - 1)).toBeLessThan(0.02);
  });

  test('other moulds leave nothing open', () => {
    expect(parted(faceOf(ballMesh(0.05), null), null, {}).behind).toBeNull();
  });
});

describe('a mushroom', () => {
  const [R, r, h] = [0.05, 0.02, 0.03];
  const profile = [
    [0, 0],
    [r, 0],
    [r, h],
    [R, h],
    [R, h + 0.01],
    [0, h + 0.03],
  ] as const;
  const face = faceOf(latheMesh(finelyPlaced(profile, 0.0015), 192), 0);
  const under = Math.PI * (R * R - r * r) * h;

  test('drawn up, what is under its cap is locked', () => {
    const { lockedVolume, pieces } = parted(face, 0, { pulls: [[0, 0, 1]] });
    expect(Math.abs(lockedVolume / under - 1)).toBeLessThan(0.01);
    expect(pieces[0]!.undrawn).toBeGreaterThan(0.9 * Math.PI * (R * R - r * r));
  });

  test('a rubber skin drawn off over the cap stretches from the stem to the cap', () => {
    expect(stretchAlong(face, [0, 0, 1]).share).toBeCloseTo(R / r - 1, 1);
  });

  test('drawn in one, a part more frees what is under the cap; in two there is nothing more to free', () => {
    const capped = Math.PI * (R * R - r * r);
    expect(parted(face, 0, { pieces: 1 }).oneMore! * face.area).toBeGreaterThan(0.4 * capped);
    expect(parted(face, 0, {}).oneMore).toBeLessThan(0.002);
    expect(parted(face, 0, { pulls: [[0, 0, 1]] }).oneMore).toBeNull();
  });

  test('two parts draw all of it', () => {
    const { pieces, locked } = parted(face, 0, { pieces: 2 });
    for (const { undrawn, area } of pieces) expect(undrawn).toBeLessThan(0.002 * area);
    expect(locked).toEqual([]);
  });
});

const part = (id: string, shape: Mass['shape'], at: Vec3): Mass =>
  ({ id, name: id, region: id, at: [...at], turn: [0, 0, 0], blend: 0, shape }) as Mass;

/** Five fingers on a palm, fingers up. */
function hand(): TriangleMesh {
  const fingers = [0, 1, 2, 3, 4].map((i) =>
    part(
      `finger-${i}`,
      {
        kind: 'round-cone',
        reach: [(i - 2) * 0.008, 0, 0.05 + 0.01 * (2 - Math.abs(i - 2))],
        radiusFrom: 0.009,
        radiusTo: 0.008,
      },
      [(i - 2) * 0.022, 0, 0.09],
    ),
  );
  const palm = part('palm', { kind: 'rounded-box', half: [0.055, 0.014, 0.045], rounding: 0.01 }, [0, 0, 0.046]);
  return extractSurface(voxelise(new DistanceField([palm, ...fingers]), { step: 0.0015, depth: 0.0015 }));
}

describe('a hand with five fingers', () => {
  const face = faceOf(hand(), null);

  test('poured fingertips up five places hold air, palm up one', () => {
    const tips = airTraps(face, [0, 0, 1]);
    expect(tips).toHaveLength(5);
    for (const t of tips) expect(t.at[2]).toBeGreaterThan(0.13);
    expect(airTraps(face, [0, 0, -1])).toHaveLength(1);
    expect(pouredWith([0, 0, 1], tips)).toMatchObject({ holes: 1, vents: 4 });
  });

  test.each([
    ['fingertips up', [0, 0, 1]],
    ['palm up', [0, 0, -1]],
    ['thumb side up', [1, 0, 0]],
    ['leaning', unit([0.5, 0.1, 0.8])],
  ] as const)('%s: flooding its cells from below leaves as many pockets', (_, up) => {
    const found = airTraps(face, up).length;
    // Within a cell or so of the 3 mm that are allowed either may say either.
    expect(found).toBeGreaterThanOrEqual(pocketsByFlood(face, up, 0.0055));
    expect(found).toBeLessThanOrEqual(pocketsByFlood(face, up, 0.0012));
  });
});

test('each cavity has a hole of its own to pour through; what is open needs none', () => {
  const two = together(ballMesh(0.03, 24, [0.05, 0, 0.03]), ballMesh(0.02, 24, [-0.05, 0, 0.02]));
  const traps = airTraps(faceOf(two, null), [0, 0, 1]);
  expect(pouredWith([0, 0, 1], traps)).toMatchObject({ holes: 2, vents: 0 });
  const open = traps.map((t, i) => ({ ...t, open: i === 0 }));
  expect(pouredWith([0, 0, 1], open)).toMatchObject({ holes: 1, vents: 0 });
});

test('a bell mouth down: its ceiling has the cast above it, and holds no air; mouth up its rim and nothing else', () => {
  const bow = (r: number) =>
    Array.from({ length: 20 }, (_, i): [number, number] => {
      const a = (i / 19) * (Math.PI / 2);
      return [r * Math.cos(a), r * Math.sin(a)];
    });
  const profile = [...bow(0.08).reverse(), ...bow(0.1)];
  const face = faceOf(latheMesh(profile, 96), null);
  const down = airTraps(face, [0, 0, 1]);
  expect(down).toHaveLength(1);
  expect(down[0]!.at[2]).toBeCloseTo(0.1, 3);
  expect(airTraps(face, [0, 0, -1])).toHaveLength(1);
});

/**
 * The cavity as cells, gone through from the highest down: a cell with no neighbour above that is filled begins a pocket,
 * one that joins two ends the lower where it stands `over` the joint.
 */
function pocketsByFlood(face: MasterFace, up: Vec3, over: number): number {
  const { solid, size, low, step } = cellsOf(face, 120_000, null);
  const [nx, ny] = size;
  const cells: number[] = [];
  const rise = new Map<number, number>();
  for (let i = 0; i < solid.length; i++) {
    if (!solid[i]) continue;
    const at = [i % nx, Math.floor(i / nx) % ny, Math.floor(i / (nx * ny))];
    rise.set(
      i,
      at.reduce((sum, v, k) => sum + (low[k as 0] + (v + 0.5) * step) * up[k as 0], 0),
    );
    cells.push(i);
  }
  cells.sort((a, b) => rise.get(b)! - rise.get(a)!);
  const group = new Map<number, number>();
  const find = (i: number): number => (group.get(i) === i ? i : find(group.get(i)!));
  let pockets = 0;
  for (const i of cells) {
    group.set(i, i);
    for (let d = 0; d < 27; d++) {
      const j = i + (d % 3) - 1 + nx * ((Math.floor(d / 3) % 3) - 1) + nx * ny * (Math.floor(d / 9) - 1);
      if (j === i || !group.has(j)) continue;
      const [a, b] = [find(i), find(j)];
      if (a === b) continue;
      const [elder, younger] = rise.get(a)! >= rise.get(b)! ? [a, b] : [b, a];
      if (rise.get(younger)! - rise.get(i)! > over) pockets++;
      group.set(younger, elder);
    }
  }
  return pockets + new Set(cells.map(find)).size;
}

/** Balls, cones and boxes thrown together. */
function thrown(seed: number): TriangleMesh {
  const random = seeded(seed);
  const between = (a: number, b: number) => a + (b - a) * random();
  const at = (): Vec3 => [between(-0.04, 0.04), between(-0.04, 0.04), between(-0.04, 0.04)];
  const masses = Array.from({ length: 2 + Math.floor(random() * 4) }, (_, i) => {
    const kind = Math.floor(random() * 3);
    if (kind === 0)
      return part(
        `m${i}`,
        { kind: 'ellipsoid', radii: [between(0.02, 0.05), between(0.02, 0.05), between(0.02, 0.05)] },
        at(),
      );
    if (kind === 1)
      return part(
        `m${i}`,
        { kind: 'round-cone', reach: [...at()], radiusFrom: between(0.01, 0.03), radiusTo: between(0.01, 0.02) },
        at(),
      );
    return part(
      `m${i}`,
      {
        kind: 'rounded-box',
        half: [between(0.015, 0.04), between(0.015, 0.04), between(0.015, 0.04)],
        rounding: 0.005,
      },
      at(),
    );
  });
  return extractSurface(voxelise(new DistanceField(masses), { step: 0.005, depth: 0.005 }));
}

test('on a hundred seeded forms, every triangle that is not told as held draws out, by rays one at a time', () => {
  for (let seed = 1; seed <= 100; seed++) {
    const face = faceOf(thrown(seed), null);
    const pulls = [[1, 0, 0] as Vec3, [-1, 0, 0] as Vec3, ...(seed % 2 ? [[0, 0, 1] as Vec3] : [])];
    const rays = new FaceRays(face);
    const { labels, held } = withHeld(face, settled(face, rays, pulls));
    let wrong = 0;
    for (let t = 0; t < face.count; t += 7) if (!held[t] && !rays.draws(t, pulls[labels[t]!]!)) wrong++;
    expect(wrong).toBe(0);
  }
});

test('a triangle held: met along every direction by a plain walk through all triangles', () => {
  const face = faceOf(thrown(7), null);
  const { labels, held } = parted(face, null, { pulls: upAndDown, pour: [0, 0, 1] });
  let asked = 0;
  for (let t = 0; t < face.count; t += 11) {
    const d = upAndDown[labels[t]!]!;
    const n = face.normals.subarray(3 * t, 3 * t + 3);
    // Those that graze are for the rule of two degrees.
    if (Math.abs(n[2]!) < 0.05) continue;
    asked++;
    const free = n[2]! * d[2] > 0 && !metByWalk(face, t, d);
    expect(held[t]).toBe(free ? 0 : 1);
  }
  expect(asked).toBeGreaterThan(100);
});

/** Moller and Trumbore, every triangle. */
function metByWalk(face: MasterFace, from: number, d: Vec3): boolean {
  const o = [0, 1, 2].map((k) => face.centres[3 * from + k]! + 1e-5 * face.normals[3 * from + k]!) as unknown as Vec3;
  const p = (t: number, c: number): Vec3 => {
    const i = 3 * face.triangles[3 * t + c]!;
    return [face.positions[i]!, face.positions[i + 1]!, face.positions[i + 2]!];
  };
  const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
  const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  for (let t = 0; t < face.count; t++) {
    if (t === from) continue;
    const a = p(t, 0),
      e = minus(p(t, 1), a),
      f = minus(p(t, 2), a);
    const h = cross(d, f);
    const det = dot(e, h);
    if (Math.abs(det) < 1e-15) continue;
    const s = minus(o, a);
    const u = dot(s, h) / det;
    const q = cross(s, e);
    const v = dot(d, q) / det;
    if (u >= 0 && v >= 0 && u + v <= 1 && dot(f, q) / det > 1e-9) return true;
  }
  return false;
}

test('no seam where it is painted: the line goes round', () => {
  const mesh = weld(ballMesh(0.1, 48), 1e-7);
  const plain = masterFace(mesh, { board: null });
  if (!plain.ok) throw new Error(plain.message);
  const front = (t: number) => plain.value.centres[3 * t + 1]! < -0.07;
  const kept = new Uint8Array(plain.value.count).map((_, t) => (front(t) ? 1 : 0));
  const face = masterFace(mesh, { board: null, kept });
  if (!face.ok) throw new Error(face.message);
  const { labels, pieces } = parted(face.value, null, { pieces: 2 });
  expect(pieces).toHaveLength(2);
  const there = new Set(Array.from(labels).filter((_, t) => kept[t]));
  expect(there.size).toBe(1);
});

test('the best flat sheet through an egg lies across its greatest girth, as long as it is round', () => {
  const egg = turnedMesh(ballMesh(0.05, 64), ([x, y, z]) => [x * 2, y, z]);
  const { shim, pieces, locked } = parted(faceOf(egg, null), null, { shim: true });
  expect(Math.abs(shim!.offset)).toBeLessThan(0.005);
  expect(Math.abs(shim!.normal[0])).toBeGreaterThan(0.95);
  expect(Math.abs(shim!.length / (2 * Math.PI * 0.05) - 1)).toBeLessThan(0.01);
  expect(shim!.outlines).toHaveLength(1);
  expect(pieces).toHaveLength(2);
  expect(locked).toEqual([]);
});

test('a sheet where somebody wants it says what each side cannot draw', () => {
  const face = faceOf(ballMesh(0.05, 64), null);
  // Off the middle by half the radius, the side with the equator has a band that leans back: 2 pi r (r / 2).
  const { undrawn } = shimAt(face, [1, 0, 0], 0.025);
  expect(undrawn[0]).toBeLessThan(1e-4);
  expect(undrawn[1] / (2 * Math.PI * 0.05 * 0.025)).toBeCloseTo(1, 0);
});

test('locks are told deepest first, and none where nothing is', () => {
  const face = faceOf(thrown(3), null);
  const locks = findLocks(face, upAndDown, null);
  for (let i = 1; i < locks.length; i++) expect(locks[i - 1]!.depth).toBeGreaterThanOrEqual(locks[i]!.depth);
});

test.each([
  [{ pieces: 0 }, 'pieces'],
  [{ pieces: 2.5 }, 'pieces'],
  [{ pieces: 99 }, 'pieces'],
  [{ pulls: [] }, 'pull'],
  [{ pulls: [[0, 0, 0]] }, 'pull'],
  [{ pulls: [[NaN, 0, 1]] }, 'pull'],
  [{ pour: [0, 0, Infinity] }, 'pour'],
  [{ shim: { normal: [0, 0, 0], offset: 0 } }, 'shim'],
] as const)('%j is refused by its name', (asked, path) => {
  const checked = checkAsked(asked as never);
  expect(checked).toMatchObject({ ok: false, path });
});

test('no face, no size and too many triangles are refused', () => {
  expect(masterFace({ positions: new Float32Array(), triangles: new Uint32Array() }, { board: null }).ok).toBe(false);
  const point = { positions: new Float32Array(9), triangles: Uint32Array.from([0, 1, 2]) };
  expect(masterFace(point, { board: null }).ok).toBe(false);
  const many = { positions: new Float32Array(9), triangles: new Uint32Array(3 * 130_000) };
  expect(masterFace(many, { board: null })).toMatchObject({ ok: false, code: 'too-large' });
});

test('three rings through each other want more than three parts, and each that is made draws what no other does', () => {
  const ring = (id: string, turn: Vec3): Mass => ({
    ...part(id, { kind: 'ring', radius: 0.05, thickness: 0.012 }, [0, 0, 0]),
    turn: [...turn],
  });
  const rings = [ring('a', [0, 0, 0]), ring('b', [90, 0, 0]), ring('c', [0, 90, 0])];
  const face = faceOf(extractSurface(voxelise(new DistanceField(rings), { step: 0.005, depth: 0.005 })), null);
  const { pieces, undrawn, held } = parted(face, null, { pour: [0, 0, 1] });
  expect(pieces.length).toBeGreaterThan(3);
  expect(undrawn.one!).toBeGreaterThan(undrawn.two!);
  let left = 0;
  for (let t = 0; t < face.count; t++) if (held[t]) left += face.areas[t]!;
  expect(left / face.area).toBeLessThan(undrawn.two! / 2);
});

test('rays: half of a ball draws along a direction, to two degrees past its waist and no further', () => {
  const face = faceOf(ballMesh(0.1, 48), null);
  const rays = new FaceRays(face);
  for (let t = 0; t < face.count; t++) {
    const lean = face.normals[3 * t + 2]!;
    if (Math.abs(lean + Math.sin((2 * Math.PI) / 180)) < 0.005) continue;
    expect(rays.draws(t, [0, 0, 1])).toBe(lean > -Math.sin((2 * Math.PI) / 180));
  }
});

test('how far a part comes away: not at all from under a cap, and all the way from what is free', () => {
  const cap = latheMesh(
    finelyPlaced(
      [
        [0, 0],
        [0.02, 0],
        [0.02, 0.03],
        [0.05, 0.03],
        [0.05, 0.04],
        [0, 0.06],
      ],
      0.004,
    ),
  );
  const up = parted(faceOf(cap, 0), 0, { pulls: [[0, 0, 1]], pour: [0, 0, 1] });
  expect(up.pieces[0]!.travel).toBe(0);
  const both = parted(faceOf(cap, 0), 0, { pieces: 2, pour: [0, 0, 1] });
  for (const p of both.pieces) expect(p.travel).toBe(Infinity);
});
