import { add, distance, dot, scale, seeded, subtract, unit, type Vec3 } from '../../src/core/quantity';
import type { Lattice } from '../../src/core/form';

/** A tree of capsules with known tips, forks and axes, as a solid on a lattice: what finding limbs is held to. */
export interface CapsuleTree {
  readonly capsules: readonly { readonly from: Vec3; readonly to: Vec3; readonly radius: number }[];
  readonly tips: readonly Vec3[];
  readonly forks: readonly Vec3[];
  readonly lattice: Lattice;
  readonly inside: Uint8Array;
}

function toSegment(p: Vec3, a: Vec3, b: Vec3): number {
  const d = subtract(b, a);
  const t = Math.min(1, Math.max(0, dot(subtract(p, a), d) / (dot(d, d) || 1)));
  return distance(p, add(a, scale(d, t)));
}

function apart(a: Vec3, b: Vec3, c: Vec3, d: Vec3): number {
  let least = Infinity;
  for (let i = 0; i <= 20; i++) least = Math.min(least, toSegment(add(a, scale(subtract(b, a), i / 20)), c, d));
  return least;
}

/** `cells` along its longest side; the thinnest limb is two cells in radius at least. `noise`: share of the cells at the face that are the other way. */
export function capsuleTree(seed: number, cells = 72, noise = 0.02): CapsuleTree {
  const random = seeded(seed);
  for (;;) {
    const tree = tried(random, cells, noise);
    if (tree) return tree;
  }
}

function tried(random: () => number, cells: number, noise: number): CapsuleTree | null {
  const between = (a: number, b: number) => a + (b - a) * random();
  const way = (): Vec3 => {
    const z = between(-1, 1),
      a = between(0, 2 * Math.PI);
    return [Math.sqrt(1 - z * z) * Math.cos(a), Math.sqrt(1 - z * z) * Math.sin(a), z];
  };
  const capsules: { from: Vec3; to: Vec3; radius: number; parent: number }[] = [];
  const trunk = between(0.5, 0.9);
  capsules.push({ from: [0, 0, 0], to: scale(way(), trunk), radius: between(0.1, 0.16), parent: -1 });
  const forks: Vec3[] = [];
  const grow = (parent: number, level: number) => {
    const p = capsules[parent]!;
    const count = random() < 0.6 ? 2 : 3;
    const along = unit(subtract(p.to, p.from));
    const ways: Vec3[] = [];
    for (let tries = 0; ways.length < count && tries < 200; tries++) {
      const w = way();
      if (dot(w, along) < -0.3 || dot(w, along) > 0.93) continue;
      if (ways.some((o) => dot(o, w) > 0.5)) continue;
      ways.push(w);
    }
    if (ways.length < count) return false;
    forks.push(p.to);
    for (const w of ways) {
      const radius = p.radius * between(0.6, 0.85);
      capsules.push({ from: p.to, to: add(p.to, scale(w, Math.max(between(4, 6) * p.radius, 0.35))), radius, parent });
      if (level < 2 && random() < 0.35 && !grow(capsules.length - 1, level + 1)) return false;
    }
    return true;
  };
  if (!grow(0, 1)) return null;
  const low = [0, 1, 2].map((k) =>
    Math.min(...capsules.flatMap((c) => [c.from[k as 0] - c.radius, c.to[k as 0] - c.radius])),
  );
  const high = [0, 1, 2].map((k) =>
    Math.max(...capsules.flatMap((c) => [c.from[k as 0] + c.radius, c.to[k as 0] + c.radius])),
  );
  const step = Math.max(...low.map((l, k) => high[k]! - l)) / (cells - 7);
  if (Math.min(...capsules.map((c) => c.radius)) < 2 * step) return null;
  for (let i = 0; i < capsules.length; i++)
    for (let j = 0; j < i; j++) {
      const [a, b] = [capsules[i]!, capsules[j]!];
      if (a.parent === j || b.parent === i || (a.parent === b.parent && a.parent >= 0)) continue;
      if (apart(a.from, a.to, b.from, b.to) < a.radius + b.radius + 4 * step) return null;
    }
  const size = low.map((l, k) => Math.ceil((high[k]! - l) / step) + 7) as [number, number, number];
  const lattice: Lattice = {
    cells: size,
    step,
    from: low.map((l) => l - 3 * step) as [number, number, number],
    empty: 3,
  };
  const inside = new Uint8Array(size[0] * size[1] * size[2]);
  for (let z = 0, i = 0; z < size[2]; z++)
    for (let y = 0; y < size[1]; y++)
      for (let x = 0; x < size[0]; x++, i++) {
        const p: Vec3 = [lattice.from[0] + x * step, lattice.from[1] + y * step, lattice.from[2] + z * step];
        const d = Math.min(...capsules.map((c) => toSegment(p, c.from, c.to) - c.radius));
        inside[i] = d < 0 ? 1 : 0;
        if (Math.abs(d) < step && random() < noise) inside[i] = 1 - inside[i]!;
      }
  const tips = [
    capsules[0]!.from,
    ...capsules.filter((_, i) => i > 0 && !capsules.some((c) => c.parent === i)).map((c) => c.to),
  ];
  return { capsules, tips, forks, lattice, inside };
}

/** How far off the nearest axis a place is, and the radius there. */
export function offAxis(tree: CapsuleTree, p: Vec3): { off: number; radius: number } {
  return tree.capsules.reduce(
    (best, c) => {
      const off = toSegment(p, c.from, c.to);
      return off < best.off ? { off, radius: c.radius } : best;
    },
    { off: Infinity, radius: 1 },
  );
}

/** The capsule each place inside belongs to, its index and one; 0 outside. */
export function truthOfPlace(tree: CapsuleTree): Uint16Array {
  const { cells, step, from } = tree.lattice;
  return Uint16Array.from(tree.inside, (v, i) => {
    if (!v) return 0;
    return capsuleAt(tree, [
      from[0] + (i % cells[0]) * step,
      from[1] + (Math.floor(i / cells[0]) % cells[1]) * step,
      from[2] + Math.floor(i / (cells[0] * cells[1])) * step,
    ]);
  });
}

/** The capsule a place lies deepest in, its index and one. */
function capsuleAt({ capsules }: CapsuleTree, p: Vec3): number {
  let best = 0,
    least = Infinity;
  capsules.forEach((c, k) => {
    const d = toSegment(p, c.from, c.to) - c.radius;
    if (d < least) [best, least] = [k + 1, d];
  });
  return best;
}

/** The one capsule a place lies in, its index and one; 0 where it lies in several, and is by right of each, or in none. */
export function loneCapsuleAt({ capsules }: CapsuleTree, p: Vec3): number {
  const over = capsules.flatMap((c, k) => (toSegment(p, c.from, c.to) < c.radius ? [k + 1] : []));
  return over.length === 1 ? over[0]! : 0;
}

/** By capsule, what of its places is told as its own, and what of the places told as its own are. `told`: the limb of each place, 0 for none. */
export function recallOf(told: ArrayLike<number>, truth: ArrayLike<number>, capsules: number) {
  // Each limb found stands for the capsule that most of it lies in.
  const counts = new Map<number, Map<number, number>>();
  for (let i = 0; i < told.length; i++) {
    if (!told[i] || !truth[i]) continue;
    const own = counts.get(told[i]!) ?? new Map<number, number>();
    counts.set(told[i]!, own.set(truth[i]!, (own.get(truth[i]!) ?? 0) + 1));
  }
  const stands = new Map([...counts].map(([l, own]) => [l, [...own].sort((a, b) => b[1] - a[1])[0]![0]]));
  return Array.from({ length: capsules }, (_, k) => {
    let both = 0,
      says = 0,
      there = 0;
    for (let i = 0; i < told.length; i++) {
      if (!truth[i] || !told[i]) continue;
      const own = stands.get(told[i]!) === k + 1;
      if (own) says++;
      if (truth[i] === k + 1) there++;
      if (own && truth[i] === k + 1) both++;
    }
    return { recall: both / Math.max(1, there), precision: both / Math.max(1, says) };
  });
}
