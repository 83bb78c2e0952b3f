import { capsuleTree, offAxis, recallOf, truthOfPlace } from '../../../../tests/support/capsule-trees';
import { ballMesh, boxMesh, ringMesh, together } from '../../../../tests/support/meshes';
import { distance, seeded } from '../../quantity';
import { depthInSolid } from './depth-in-solid';
import { latticePlace, type Lattice } from './lattice';
import { limbOfPlace, limbsInSolid, type SolidLimbs } from './limbs-in-solid';
import { solidOfMesh } from './solid';
import { thin } from './thinning';
import { wayFrom } from './ways-in-solid';
import type { TriangleMesh } from './triangle-mesh';

const small = (cells: [number, number, number]): Lattice => ({ cells, step: 1, from: [0, 0, 0], empty: 1 });
/** A lump of random cells with an empty border. */
const lump = (seed: number, share: number, [nx, ny, nz]: [number, number, number]) => {
  const random = seeded(seed);
  const inside = new Uint8Array(nx * ny * nz);
  for (let z = 1; z < nz - 1; z++)
    for (let y = 1; y < ny - 1; y++)
      for (let x = 1; x < nx - 1; x++) inside[x + nx * (y + ny * z)] = random() < share ? 1 : 0;
  return inside;
};
/** How many lots hang together, of what is there by all 26 neighbours, of what is not by the six. */
const lots = (inside: Uint8Array, [nx, ny, nz]: readonly [number, number, number], of: 0 | 1): number => {
  const seen = new Uint8Array(inside.length);
  let n = 0;
  for (let start = 0; start < inside.length; start++) {
    if (inside[start] !== of || seen[start]) continue;
    n++;
    const stack = [start];
    seen[start] = 1;
    while (stack.length > 0) {
      const i = stack.pop()!;
      const [x, y, z] = [i % nx, Math.floor(i / nx) % ny, Math.floor(i / (nx * ny))];
      for (let c = 0; c < 27; c++) {
        const [dx, dy, dz] = [(c % 3) - 1, (Math.floor(c / 3) % 3) - 1, Math.floor(c / 9) - 1];
        if (of === 0 && Math.abs(dx) + Math.abs(dy) + Math.abs(dz) !== 1) continue;
        if (x + dx < 0 || y + dy < 0 || z + dz < 0 || x + dx >= nx || y + dy >= ny || z + dz >= nz) continue;
        const j = x + dx + nx * (y + dy + ny * (z + dz));
        if (inside[j] !== of || seen[j]) continue;
        seen[j] = 1;
        stack.push(j);
      }
    }
  }
  return n;
};
/** Corners, less edges, plus faces, less cells: lumps less handles plus cavities. */
const euler = (inside: Uint8Array, [nx, ny]: readonly [number, number, number]): number => {
  const parts = [new Set<string>(), new Set<string>(), new Set<string>(), new Set<string>()] as const;
  inside.forEach((v, i) => {
    if (!v) return;
    const p = [i % nx, Math.floor(i / nx) % ny, Math.floor(i / (nx * ny))];
    for (let c = 0; c < 27; c++) {
      const d = [(c % 3) - 1, (Math.floor(c / 3) % 3) - 1, Math.floor(c / 9) - 1];
      parts[3 - d.filter((k) => k !== 0).length]!.add(p.map((q, k) => 2 * q + d[k]!).join());
    }
  });
  return parts[0].size - parts[1].size + parts[2].size - parts[3].size;
};

describe('how deep a place lies', () => {
  test('as every place outside asked would tell', () => {
    const cells: [number, number, number] = [13, 11, 9];
    const inside = lump(4, 0.85, cells);
    const depth = depthInSolid(inside, { cells });
    const places = [...inside.keys()].map((i) => latticePlace(small(cells), i));
    inside.forEach((v, i) => {
      const least = v ? Math.min(...places.filter((_, j) => !inside[j]).map((p) => distance(p, places[i]!))) : 0;
      expect(depth[i]).toBeCloseTo(least, 5);
    });
  });
});

describe('thinning', () => {
  test.each([1, 2, 3, 4, 5, 6])('lumps, handles and cavities stay as they were (%d)', (seed) => {
    const cells: [number, number, number] = [12, 12, 12];
    const before = lump(seed, 0.55, cells);
    const after = before.slice();
    thin(after, depthInSolid(before, { cells }), new Set(), small(cells));
    expect(lots(after, cells, 1)).toBe(lots(before, cells, 1));
    expect(lots(after, cells, 0)).toBe(lots(before, cells, 0));
    expect(euler(after, cells)).toBe(euler(before, cells));
    expect(after.every((v, i) => v <= before[i]!)).toBe(true);
    expect(after.reduce((a, b) => a + b, 0)).toBeLessThan(before.reduce((a, b) => a + b, 0));
  });
  test('a block with nothing to keep comes down to one place; with two, to a line between them', () => {
    const cells: [number, number, number] = [11, 7, 7];
    const block = new Uint8Array(11 * 7 * 7);
    for (let z = 1; z < 6; z++)
      for (let y = 1; y < 6; y++) for (let x = 1; x < 10; x++) block[x + 11 * (y + 7 * z)] = 1;
    const depth = depthInSolid(block, { cells });
    const one = block.slice();
    thin(one, depth, new Set(), small(cells));
    expect(one.reduce((a, b) => a + b, 0)).toBe(1);
    const two = block.slice();
    const [a, b] = [1 + 11 * (3 + 7 * 3), 9 + 11 * (3 + 7 * 3)];
    thin(two, depth, new Set([a, b]), small(cells));
    expect(two.reduce((x, y) => x + y, 0)).toBe(9);
  });
});

test('ways through a solid are as long as every way tried would tell', () => {
  const cells: [number, number, number] = [8, 7, 6];
  const inside = lump(8, 0.7, cells);
  const start = inside.indexOf(1);
  const { cost, before } = wayFrom([[start, 2]], inside, { cells }, () => 1);
  // Relaxed until nothing changes (Bellman and Ford).
  const slow = new Float64Array(inside.length).fill(Infinity);
  slow[start] = 2;
  for (let changed = true; changed;) {
    changed = false;
    for (let i = 0; i < inside.length; i++)
      for (let c = 0; c < 27; c++) {
        const d = [(c % 3) - 1, (Math.floor(c / 3) % 3) - 1, Math.floor(c / 9) - 1] as const;
        const j = i + d[0] + 8 * (d[1] + 7 * d[2]);
        if (!inside[i] || !inside[j] || slow[i]! + Math.hypot(...d) >= slow[j]! - 1e-12) continue;
        slow[j] = slow[i]! + Math.hypot(...d);
        changed = true;
      }
  }
  inside.forEach((v, i) => v && slow[i]! < Infinity && expect(cost[i]).toBeCloseTo(slow[i]!, 9));
  expect(before[start]).toBe(-1);
});

const degrees = ({ joints, limbs }: SolidLimbs) =>
  joints.map((_, i) => limbs.reduce((d, l) => d + (l.from === i ? 1 : 0) + (l.to === i ? 1 : 0), 0));
const loopsOf = ({ joints, limbs }: SolidLimbs) => limbs.length - joints.length + 1;

describe('limbs of capsule trees that nobody tuned', () => {
  const seeds = Array.from({ length: 12 }, (_, i) => 31_000 + i);
  const found = seeds.map((seed) => {
    const tree = capsuleTree(seed);
    return { tree, limbs: limbsInSolid(tree.inside, tree.lattice, true) };
  });
  test('tips, forks, no loop, lines in the middle', () => {
    let right = 0;
    for (const { tree, limbs } of found) {
      const tips = limbs.joints.filter((j) => j.kind === 'tip');
      const forks = limbs.joints.filter((_, i) => degrees(limbs)[i]! > 2);
      const near = (p: (typeof tree.tips)[number], among: typeof tips, by: number) =>
        among.some((q) => distance(p, q.at) < by * offAxis(tree, p).radius);
      expect(loopsOf(limbs)).toBe(0);
      const places = limbs.limbs.flatMap((l) => l.path.map((p) => offAxis(tree, p.at)));
      expect(places.reduce((sum, p) => sum + p.off / p.radius, 0) / places.length).toBeLessThan(0.3);
      if (
        tips.length === tree.tips.length &&
        forks.length === tree.forks.length &&
        tree.tips.every((p) => near(p, tips, 1.5)) &&
        tree.forks.every((p) => near(p, forks, 2))
      )
        right++;
    }
    expect(right).toBeGreaterThanOrEqual(11);
  });
  test('radii along a limb are the limb’s', () => {
    for (const { tree, limbs } of found.slice(0, 4))
      for (const l of limbs.limbs) {
        const { at, radius } = l.path[Math.floor(l.path.length / 2)]!;
        expect(Math.abs(radius / offAxis(tree, at).radius - 1)).toBeLessThan(0.45);
      }
  });
  test('places belong to their limb: recall 0.95 and precision 0.9 in the mean', () => {
    const shares = found.flatMap(({ tree, limbs }) =>
      recallOf(limbOfPlace(tree.inside, tree.lattice, limbs), truthOfPlace(tree), tree.capsules.length),
    );
    expect(shares.reduce((s, r) => s + r.recall, 0) / shares.length).toBeGreaterThan(0.95);
    expect(shares.reduce((s, r) => s + r.precision, 0) / shares.length).toBeGreaterThan(0.9);
  });
});

describe('limbs of meshes', () => {
  const limbsOf = (mesh: TriangleMesh, along = 56) => {
    const solid = solidOfMesh(mesh, along);
    if (!solid.ok) throw new Error(solid.message);
    return limbsInSolid(solid.value.inside, solid.value.lattice, true);
  };
  test('a ring is a loop and nothing else', () => {
    const ring = limbsOf(ringMesh(0.1, 0.03, 64, 24));
    expect(loopsOf(ring)).toBe(1);
    expect(ring.joints.filter((j) => j.kind === 'tip')).toEqual([]);
  });
  test('two balls that run into each other have a neck', () => {
    const two = limbsOf(together(ballMesh(0.1, 40), ballMesh(0.08, 40, [0, 0, 0.15])));
    const narrow = two.joints.filter((j) => j.kind === 'narrow');
    expect(narrow).toHaveLength(1);
    expect(narrow[0]!.at[2]).toBeGreaterThan(0.06);
    expect(narrow[0]!.at[2]).toBeLessThan(0.11);
  });
  test('a star of three bars has six tips about one middle', () => {
    const star = limbsOf(together(boxMesh(0.4, 0.05, 0.05), boxMesh(0.05, 0.4, 0.05), boxMesh(0.05, 0.05, 0.4)), 72);
    expect(star.joints.filter((j) => j.kind === 'tip')).toHaveLength(6);
    expect(loopsOf(star)).toBe(0);
    expect(distance(star.joints.find((j) => j.kind === 'middle')!.at, [0, 0, 0])).toBeLessThan(0.03);
  });
  test('of nothing, nothing', () => {
    const cells: [number, number, number] = [8, 8, 8];
    expect(limbsInSolid(new Uint8Array(512), small(cells), false)).toEqual({ joints: [], limbs: [] });
  });
});
