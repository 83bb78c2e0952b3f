import { hashText, type Limbs } from '../../document';
import { distance, dot, norm, subtract, type Vec3 } from '../../quantity';
import { depthInSolid } from '../mesh/depth-in-solid';
import { limbOfPlace, type Limb } from '../mesh/limbs-in-solid';
import { solidOfShape } from '../mesh/limb-joints';
import { latticePlace, type Lattice } from '../mesh/lattice';
import type { SampledShape } from '../mesh/sampled';

const { ceil, max, min, round } = Math;

/**
 * Which joint each place of a mesh goes with: the one whose lines to the joints beyond it are nearest along the inside.
 * Places are counted in samples, so that they stay as they are when the mesh is scaled.
 */
export interface LimbPlaces {
  /** The same for the same samples and joints. */
  readonly id: string;
  readonly lattice: Lattice;
  readonly inside: Uint8Array;
  /** By place, in the air too: index of the joint it goes with. */
  readonly joint: Uint8Array;
  /** By joint: a box about its places inside, in samples; null where it has none. */
  readonly boxes: readonly ({ readonly low: Vec3; readonly high: Vec3 } | null)[];
  /** By joint: where it is, in samples, the joint it hangs on (-1 for none), and how deep it lies. */
  readonly at: readonly Vec3[];
  readonly parentOf: readonly number[];
  readonly depth: readonly number[];
  /** By joint: the furthest place of the limb across it, in samples from the joint. */
  readonly across: Float64Array;
}

/** Places along the longest side. */
const along = 64;

const kept = new Map<string, Map<string, LimbPlaces>>();

/** The joints are in the shape's own axes, as the shape is. */
export function limbPlaces(shape: SampledShape, limbs: Limbs): LimbPlaces {
  const inSamples = limbs.map(
    (j): Vec3 => j.at.map((v, k) => round((1e4 * (v - shape.from[k]!)) / shape.step) / 1e4) as unknown as Vec3,
  );
  const key = `${limbs.map((j) => j.parent).join()}/${inSamples.join()}`;
  const own = kept.get(shape.values) ?? new Map<string, LimbPlaces>();
  kept.delete(shape.values);
  kept.set(shape.values, own);
  if (kept.size > 6) kept.delete(kept.keys().next().value!);
  const known = own.get(key);
  if (known) return known;
  const id = hashText(`${hashText(shape.values)}/${key}`);
  const made = placesOf(
    id,
    { ...shape, step: 1, from: [0, 0, 0], deepest: shape.deepest / shape.step },
    limbs,
    inSamples,
  );
  own.set(key, made);
  if (own.size > 8) own.delete(own.keys().next().value!);
  return made;
}

function placesOf(id: string, shape: SampledShape, limbs: Limbs, at: readonly Vec3[]): LimbPlaces {
  const { inside, lattice } = solidOfShape(shape, along);
  const depth = depthInSolid(inside, lattice);
  const index = new Map(limbs.map((j, i) => [j.id, i]));
  const parentOf = limbs.map((j) => (j.parent === null ? -1 : index.get(j.parent)!));
  // A straight line from each joint to each that hangs on it: both belong to the first.
  const lines: (Limb & { readonly joint: number })[] = [];
  limbs.forEach((_, to) => {
    const from = parentOf[to]!;
    if (from < 0) return;
    // Where something runs on, the place of the joint itself is where that begins.
    const path = lineIn(at[from]!, at[to]!, depth, lattice);
    lines.push({ joint: from, from, to, path: parentOf.includes(to) ? path.slice(0, -2) : path });
  });
  const joints = limbs.map((j, i) => ({
    at: at[i]!,
    radius: depthAt(at[i]!, depth, lattice) * lattice.step,
    kind: j.kind === 'tip' ? ('tip' as const) : ('fork' as const),
  }));
  const of = limbOfPlace(inside, lattice, { joints, limbs: lines });
  const joint = new Uint8Array(inside.length).fill(255);
  // About a joint where limbs meet all belongs to it.
  const meets = limbs.flatMap((_, i) => (parentOf.filter((p) => p === i).length > 1 ? [i] : []));
  for (let i = 0; i < inside.length; i++) {
    if (!inside[i]) continue;
    if (of[i]! > 0) joint[i] = lines[of[i]! - 1]!.joint;
    else {
      const p = latticePlace(lattice, i);
      const nearest = meets.reduce((b, m) => (b < 0 || distance(at[m]!, p) < distance(at[b]!, p) ? m : b), -1);
      joint[i] = nearest < 0 ? 0 : nearest;
    }
  }
  intoTheAir(joint, lattice);
  return {
    id,
    lattice,
    inside,
    joint,
    at,
    parentOf,
    depth: joints.map((j) => j.radius),
    boxes: boxesOf(joint, inside, lattice, limbs.length),
    across: acrossOf(at, parentOf, inside, joint, lattice),
  };
}

function nearestPlace(p: Vec3, { cells, step, from }: Lattice): number {
  const [x, y, z] = p.map((v, k) => min(cells[k]! - 1, max(0, round((v - from[k as 0]) / step)))) as [
    number,
    number,
    number,
  ];
  return x + cells[0] * (y + cells[1] * z);
}

function depthAt(p: Vec3, depth: Float32Array, lattice: Lattice): number {
  return max(0.5, depth[nearestPlace(p, lattice)]!);
}

function lineIn(a: Vec3, b: Vec3, depth: Float32Array, lattice: Lattice): Limb['path'] {
  const steps = max(1, ceil((2 * distance(a, b)) / lattice.step));
  return Array.from({ length: steps + 1 }, (_, i) => {
    const at = a.map((v, k) => v + ((b[k]! - v) * i) / steps) as unknown as Vec3;
    return { at, radius: depthAt(at, depth, lattice) * lattice.step };
  });
}

/** Places outside go with the nearest inside. */
function intoTheAir(joint: Uint8Array, { cells: [nx, ny, nz] }: Lattice): void {
  let front: number[] = [];
  for (let i = 0; i < joint.length; i++) if (joint[i] !== 255) front.push(i);
  const steps = [1, -1, nx, -nx, nx * ny, -nx * ny];
  while (front.length > 0) {
    const next: number[] = [];
    for (const i of front) {
      const x = i % nx,
        y = Math.floor(i / nx) % ny,
        z = Math.floor(i / (nx * ny));
      const open = [x < nx - 1, x > 0, y < ny - 1, y > 0, z < nz - 1, z > 0];
      steps.forEach((s, k) => {
        if (!open[k] || joint[i + s] !== 255) return;
        joint[i + s] = joint[i]!;
        next.push(i + s);
      });
    }
    front = next;
  }
}

function boxesOf(joint: Uint8Array, inside: Uint8Array, lattice: Lattice, count: number): LimbPlaces['boxes'] {
  const low = Array.from({ length: count }, () => [Infinity, Infinity, Infinity]),
    high = Array.from({ length: count }, () => [-Infinity, -Infinity, -Infinity]);
  for (let i = 0; i < inside.length; i++) {
    if (!inside[i]) continue;
    const own = joint[i]!;
    latticePlace(lattice, i).forEach((v, k) => {
      low[own]![k] = min(low[own]![k]!, v - lattice.step);
      high[own]![k] = max(high[own]![k]!, v + lattice.step);
    });
  }
  return low.map((l, i) => (l[0]! < Infinity ? { low: l as unknown as Vec3, high: high[i] as unknown as Vec3 } : null));
}

/** How far off a joint the face is in the slice across its limb there, by what goes with it. */
function acrossOf(
  at: readonly Vec3[],
  parentOf: readonly number[],
  inside: Uint8Array,
  joint: Uint8Array,
  lattice: Lattice,
): Float64Array {
  const ways = at.map((_, i) => limbWay(i, at, parentOf));
  const out = new Float64Array(at.length);
  for (let i = 0; i < inside.length; i++) {
    const own = joint[i]!;
    if (!inside[i] || parentOf[own]! < 0) continue;
    const way = subtract(latticePlace(lattice, i), at[own]!);
    const beyond = dot(way, ways[own]!) / lattice.step;
    if (beyond > -1.5 && beyond < 2.5) out[own] = max(out[own]!, norm(way));
  }
  return out;
}

/** Which way a limb runs through a joint: between the way to it and the ways on from it. */
export function limbWay(i: number, at: readonly Vec3[], parentOf: readonly number[]): Vec3 {
  const sum = [0, 0, 0];
  const lay = (a: Vec3, b: Vec3) => {
    const long = distance(a, b) || 1;
    for (let k = 0; k < 3; k++) sum[k]! += (b[k]! - a[k]!) / long;
  };
  if (parentOf[i]! >= 0) lay(at[parentOf[i]!]!, at[i]!);
  parentOf.forEach((p, c) => {
    if (p === i) lay(at[i]!, at[c]!);
  });
  const long = Math.hypot(...sum) || 1;
  return [sum[0]! / long, sum[1]! / long, sum[2]! / long];
}
