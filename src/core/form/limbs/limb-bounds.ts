import type { Vec3 } from '../../quantity';
import { depthInSolid } from '../mesh/depth-in-solid';
import type { LimbPlaces } from './limb-places';

const { abs, floor, max, min, sqrt } = Math;

/**
 * What is looked up in one way only: places of some joints, less what a bend takes up, as a signed distance on the lattice
 * of the limbs' places. Where two ways meet they overlap, so that neither cuts into the other's inside.
 */
/** The part of a limb about a joint that a bend takes up, and what is looked up in two ways to either side of it. */
export interface Slice {
  readonly at: Vec3;
  readonly way: Vec3;
  readonly reach: number;
  readonly half: number;
  /** No further from the joint than this. */
  readonly within: number;
}

/** Places of a joint that are left out within a slice: from `until` on along the limb, or before `since`. */
export interface End {
  readonly joint: number;
  readonly slice: Slice;
  readonly since?: number;
  readonly until?: number;
}

export interface Bounds {
  readonly low: readonly [number, number, number];
  readonly size: readonly [number, number, number];
  readonly out: Float32Array;
  /** A ball about what is meant of the mesh itself, in samples. */
  readonly middle: Vec3;
  readonly radius: number;
}

const kept = new WeakMap<LimbPlaces, Map<string, Bounds | null>>();
const mostKept = 60;

/**
 * Distance to the places that go with the joints meant, below nought among them; null where there are none. `ends`: what of a
 * joint's places lies in a bend is left out; `only`: nothing but a bend's places is meant.
 */
export function boundsOf(
  places: LimbPlaces,
  own: readonly boolean[],
  ends: readonly End[],
  only?: Slice,
): Bounds | null {
  const shelf = kept.get(places) ?? new Map<string, Bounds | null>();
  kept.set(places, shelf);
  const key = JSON.stringify([own, ends, only]);
  const known = shelf.get(key);
  if (known !== undefined) return known;
  const made = boundsIn(places, own, ends, only);
  shelf.set(key, made);
  if (shelf.size > mostKept) shelf.delete(shelf.keys().next().value!);
  return made;
}

/** How far a place is along a slice's limb from its joint; NaN where it is too far off to be of it. */
function alongSlice({ at, way, within }: Slice, x: number, y: number, z: number): number {
  const dx = x - at[0],
    dy = y - at[1],
    dz = z - at[2];
  if (dx * dx + dy * dy + dz * dz > within * within) return NaN;
  return dx * way[0] + dy * way[1] + dz * way[2];
}

function boundsIn(places: LimbPlaces, own: readonly boolean[], ends: readonly End[], only?: Slice): Bounds | null {
  const { lattice, joint, inside } = places;
  const { cells, step, from } = lattice;
  const endsOf = own.map((_, j) => ends.filter((e) => e.joint === j));
  const here = new Uint8Array(joint.length);
  const low = [...cells] as [number, number, number],
    high: [number, number, number] = [-1, -1, -1];
  for (let z = 0, i = 0; z < cells[2]; z++)
    for (let y = 0; y < cells[1]; y++)
      for (let x = 0; x < cells[0]; x++, i++) {
        const j = joint[i]!;
        if (!own[j]) continue;
        const px = from[0] + x * step,
          py = from[1] + y * step,
          pz = from[2] + z * step;
        if (only && !(abs(alongSlice(only, px, py, pz)) <= only.half)) continue;
        let out = false;
        for (const { slice, since, until } of endsOf[j]!) {
          const along = alongSlice(slice, px, py, pz);
          if ((since !== undefined && along < since) || (until !== undefined && along > until)) out = true;
        }
        if (out) continue;
        here[i] = 1;
        if (!inside[i]) continue;
        low[0] = min(low[0], x);
        low[1] = min(low[1], y);
        low[2] = min(low[2], z);
        high[0] = max(high[0], x);
        high[1] = max(high[1], y);
        high[2] = max(high[2], z);
      }
  if (high[0] < 0) return null;
  // Beyond the box of what lies inside, with room for its distances, nothing is asked.
  const room = 4;
  const begin = low.map((v) => max(0, v - room)) as [number, number, number];
  const size = high.map((v, k) => min(cells[k]!, v + room + 1) - begin[k]!) as [number, number, number];
  const [nx, ny, nz] = size;
  const meant = new Uint8Array(nx * ny * nz),
    others = new Uint8Array(nx * ny * nz);
  const middle = low.map((v, k) => from[k as 0] + ((v + high[k]!) / 2) * step) as unknown as Vec3;
  let radius = 0;
  const about = only?.at ?? middle;
  for (let z = 0, i = 0; z < nz; z++)
    for (let y = 0; y < ny; y++)
      for (let x = 0; x < nx; x++, i++) {
        const place = begin[0] + x + cells[0] * (begin[1] + y + cells[1] * (begin[2] + z));
        meant[i] = here[place]!;
        others[i] = 1 - meant[i]!;
        if (meant[i] && inside[place])
          radius = max(
            radius,
            (from[0] + (begin[0] + x) * step - about[0]) ** 2 +
              (from[1] + (begin[1] + y) * step - about[1]) ** 2 +
              (from[2] + (begin[2] + z) * step - about[2]) ** 2,
          );
      }
  const within = depthInSolid(meant, { cells: size });
  const without = depthInSolid(others, { cells: size });
  const most = 1e3;
  const out = new Float32Array(meant.length);
  for (let i = 0; i < out.length; i++)
    out[i] = (meant[i] ? 0.5 - min(most, within[i]!) : min(most, without[i]!) - 0.5) * step;
  return { low: begin, size, out, middle: about, radius: sqrt(radius) + step };
}

/** How far outside the bounds a place lies, in samples; below nought within. */
export function outside({ low, size, out }: Bounds, { lattice }: LimbPlaces, u: number, v: number, w: number): number {
  const [nx, ny, nz] = size;
  const { step, from } = lattice;
  const x = (u - from[0]) / step - low[0],
    y = (v - from[1]) / step - low[1],
    z = (w - from[2]) / step - low[2];
  const cx = min(nx - 1.001, max(0, x)),
    cy = min(ny - 1.001, max(0, y)),
    cz = min(nz - 1.001, max(0, z));
  const ix = floor(cx),
    iy = floor(cy),
    iz = floor(cz);
  const fx = cx - ix,
    fy = cy - iy,
    fz = cz - iz;
  const i = ix + nx * (iy + ny * iz),
    up = nx * ny;
  const a = (out[i]! * (1 - fx) + out[i + 1]! * fx) * (1 - fy) + (out[i + nx]! * (1 - fx) + out[i + nx + 1]! * fx) * fy;
  const b =
    (out[i + up]! * (1 - fx) + out[i + up + 1]! * fx) * (1 - fy) +
    (out[i + up + nx]! * (1 - fx) + out[i + up + nx + 1]! * fx) * fy;
  const far =
    abs(x - cx) + abs(y - cy) + abs(z - cz) > 1e-9 ? sqrt((x - cx) ** 2 + (y - cy) ** 2 + (z - cz) ** 2) * step : 0;
  const d = a * (1 - fz) + b * fz;
  return far > 0 ? max(far, d) : d;
}
