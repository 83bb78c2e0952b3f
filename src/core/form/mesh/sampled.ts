import type { MassShape } from '../../document';
import { fromBase64, toBase64 } from './base64';
import { latticeFor, latticeSize, type Lattice } from './lattice';
import { nearestFaces } from './nearest-face';
import { solidOfMesh, type MeshSolid } from './solid';
import type { Progress, TriangleMesh } from './triangle-mesh';

const { abs, floor, max, min, round, sign, sqrt } = Math;

/**
 * A mesh as a mass: its signed distance sampled on a regular grid, kept with the build. A sample is one byte, finer near
 * the face: q in -127..127 stands for sign(q) (q/127)^2 of the deepest distance there is, so that at a face of a head it
 * is good to a few hundredths of a millimetre and to a millimetre in its middle.
 */
export type SampledShape = Extract<MassShape, { kind: 'sampled' }>;

/** As many bytes as a build can hold of one mesh, and places along its longest side. */
const mostSamples = 1_100_000;
const mostAlong = 126;

/** Places along the longest side for a mesh: as fine as the build's file has room for, so that ears and fingers keep their thickness. */
export function samplesAlong(mesh: TriangleMesh): number {
  let along = mostAlong;
  while (along > 40 && latticeSize(latticeFor(mesh, along)) > mostSamples) along -= 2;
  return along;
}

/** What is thinner than this may be lost between the samples, for a mesh with these sides. */
export function thinnestKept(sides: readonly number[]): number {
  const longest = max(...sides);
  const lattice = latticeFor(
    { positions: Float32Array.of(0, 0, 0, sides[0]!, sides[1]!, sides[2]!), triangles: Uint32Array.of(0, 1, 0) },
    mostAlong,
  );
  return longest > 0 ? 1.5 * lattice.step : 0;
}

/** Samples a solid, in metres. The mass's own place is the mesh's origin. */
export function sampleSolid(solid: MeshSolid, progress?: Progress): SampledShape {
  const { lattice, inside } = solid;
  const { away } = nearestFaces(solid.surface, lattice, false, progress);
  const signed = sharpened(
    Float64Array.from(away, (d, i) => (inside[i] ? -d : d)),
    lattice,
  );
  const deepest = signed.reduce((most, d) => max(most, abs(d)), 1e-6);
  const bytes = new Uint8Array(signed.length);
  for (let i = 0; i < signed.length; i++) {
    const d = signed[i]!;
    const q = round(127 * sqrt(abs(d) / deepest));
    bytes[i] = d < 0 ? 128 - q : 128 + q;
  }
  progress?.(1);
  return {
    kind: 'sampled',
    cells: [...lattice.cells],
    step: lattice.step,
    from: [...lattice.from],
    empty: lattice.empty,
    deepest,
    values: toBase64(bytes),
  };
}

/** No sample is moved further than this share of the way to the next. */
const mostSharpened = 0.25;

/**
 * Read between samples, a distance comes out too large wherever the face curves outward, by a twelfth of its second
 * differences in the mean: a finger would lose a tenth of its thickness. Each sample near the face is lowered by that first.
 */
function sharpened(signed: Float64Array, { cells: [nx, ny, nz], step }: Lattice): Float64Array {
  const out = signed.slice();
  const ways = [1, nx, nx * ny];
  for (let z = 1; z < nz - 1; z++)
    for (let y = 1; y < ny - 1; y++)
      for (let x = 1; x < nx - 1; x++) {
        const i = x + nx * (y + ny * z);
        const d = signed[i]!;
        if (abs(d) > 2.5 * step) continue;
        const bent = ways.reduce((sum, w) => sum + signed[i - w]! + signed[i + w]! - 2 * d, 0);
        out[i] = d - max(-mostSharpened * step, min(mostSharpened * step, bent / 12));
      }
  return out;
}

/** A mesh sampled as it is. Throws where it has no inside: ask `solidOfMesh` for why. */
export function sampleMesh(mesh: TriangleMesh, along = samplesAlong(mesh)): SampledShape {
  const solid = solidOfMesh(mesh, along);
  if (!solid.ok) throw new Error(`${solid.path}: ${solid.message}`);
  return sampleSolid(solid.value);
}

const kept = new Map<string, Float32Array>();

/** Samples as shares of the deepest distance, signed; the last few are kept, as a form is made anew at every edit. */
export function decodedSamples(values: string): Float32Array {
  const known = kept.get(values);
  if (known) return known;
  const made = Float32Array.from(fromBase64(values), (b) => {
    const q = (b - 128) / 127;
    return sign(q) * q * q;
  });
  kept.set(values, made);
  if (kept.size > 8) kept.delete(kept.keys().next().value!);
  return made;
}

/** Between the eight samples about a place in the shape's own axes; beyond the samples, a bound from below. */
export function sampledDistance(
  samples: Float32Array,
  info: Float64Array,
  step: number,
  deepest: number,
  px: number,
  py: number,
  pz: number,
): number {
  const nx = info[0]!,
    ny = info[1]!,
    nz = info[2]!;
  const ux = (px - info[3]!) / step,
    uy = (py - info[4]!) / step,
    uz = (pz - info[5]!) / step;
  const cx = min(nx - 1, max(0, ux)),
    cy = min(ny - 1, max(0, uy)),
    cz = min(nz - 1, max(0, uz));
  const x = min(nx - 2, floor(cx)),
    y = min(ny - 2, floor(cy)),
    z = min(nz - 2, floor(cz));
  const fx = cx - x,
    fy = cy - y,
    fz = cz - z;
  const i = x + nx * (y + ny * z),
    up = nx * ny;
  const low =
    (samples[i]! * (1 - fx) + samples[i + 1]! * fx) * (1 - fy) +
    (samples[i + nx]! * (1 - fx) + samples[i + nx + 1]! * fx) * fy;
  const high =
    (samples[i + up]! * (1 - fx) + samples[i + up + 1]! * fx) * (1 - fy) +
    (samples[i + up + nx]! * (1 - fx) + samples[i + up + nx + 1]! * fx) * fy;
  const d = (low * (1 - fz) + high * fz) * deepest;
  const ex = (ux - cx) * step,
    ey = (uy - cy) * step,
    ez = (uz - cz) * step;
  const out2 = ex * ex + ey * ey + ez * ez;
  // The face lies within the box of samples, on the far side of the place where the line into it meets the box.
  return out2 > 0 ? sqrt(out2 + max(0, d) * abs(d)) : d;
}
