import type { MassShape } from '../../document';
import { fromBase64, toBase64 } from './base64';
import { sizeOfMesh } from './measure-mesh';
import type { Progress, TriangleMesh } from './triangle-mesh';

const { abs, ceil, floor, max, min, round, sign, sqrt } = Math;

/**
 * A closed mesh as a mass: its signed distance sampled on a regular grid, kept with the build. A sample is one byte,
 * finer near the face: q in -127..127 stands for sign(q) (q/127)^2 of the deepest distance there is, so that at a face
 * of a head it is good to a few hundredths of a millimetre and to a millimetre in its middle.
 */
export type SampledShape = Extract<MassShape, { kind: 'sampled' }>;

/** Samples along the longest side; a life-size head comes to about 5 mm. */
export const samplesAlong = 64;
/** Empty samples all round, so that the face is never cut. */
const border = 3;

/** Distance from a point to a triangle, squared. Ericson, *Real-Time Collision Detection*, 5.1.5, written out flat. */
function distance2(p: Float32Array, a: number, b: number, c: number, x: number, y: number, z: number): number {
  const ax = p[a]!,
    ay = p[a + 1]!,
    az = p[a + 2]!;
  const ux = p[b]! - ax,
    uy = p[b + 1]! - ay,
    uz = p[b + 2]! - az;
  const vx = p[c]! - ax,
    vy = p[c + 1]! - ay,
    vz = p[c + 2]! - az;
  const wx = x - ax,
    wy = y - ay,
    wz = z - az;
  const d1 = ux * wx + uy * wy + uz * wz,
    d2 = vx * wx + vy * wy + vz * wz;
  if (d1 <= 0 && d2 <= 0) return wx * wx + wy * wy + wz * wz;
  const uu = ux * ux + uy * uy + uz * uz,
    uv = ux * vx + uy * vy + uz * vz,
    vv = vx * vx + vy * vy + vz * vz;
  const d3 = d1 - uu,
    d4 = d2 - uv;
  let s: number, t: number;
  if (d3 >= 0 && d4 <= d3) {
    s = 1;
    t = 0;
  } else {
    const d5 = d1 - uv,
      d6 = d2 - vv;
    const vc = d1 * d4 - d3 * d2,
      vb = d5 * d2 - d1 * d6,
      va = d3 * d6 - d5 * d4;
    if (vc <= 0 && d1 >= 0 && d3 <= 0) {
      s = d1 / (d1 - d3);
      t = 0;
    } else if (d6 >= 0 && d5 <= d6) {
      s = 0;
      t = 1;
    } else if (vb <= 0 && d2 >= 0 && d6 <= 0) {
      s = 0;
      t = d2 / (d2 - d6);
    } else if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
      t = (d4 - d3) / (d4 - d3 + d5 - d6);
      s = 1 - t;
    } else {
      const k = 1 / (va + vb + vc);
      s = vb * k;
      t = vc * k;
    }
  }
  const ex = wx - s * ux - t * vx,
    ey = wy - s * uy - t * vy,
    ez = wz - s * uz - t * vz;
  return ex * ex + ey * ey + ez * ez;
}

interface Lattice {
  readonly cells: readonly [number, number, number];
  readonly step: number;
  readonly from: readonly [number, number, number];
}

function latticeFor(mesh: TriangleMesh, along: number): Lattice {
  const [low, high] = sizeOfMesh(mesh).box;
  const sides = [0, 1, 2].map((k) => (high[k as 0] as number) - (low[k as 0] as number));
  const step = max(...sides) / (along - 1 - 2 * border);
  const cells = sides.map((s) => max(4, ceil(s / step) + 1 + 2 * border)) as [number, number, number];
  // Centred, so that a mesh with two like halves gives two like answers.
  const from = sides.map((s, k) => (low[k as 0] as number) + s / 2 - ((cells[k]! - 1) * step) / 2) as [
    number,
    number,
    number,
  ];
  return { cells, step, from };
}

/** Nearest triangle of each sample: exact about the face, handed on from neighbour to neighbour elsewhere. */
function nearestTriangles(mesh: TriangleMesh, { cells, step, from }: Lattice, progress?: Progress): Float32Array {
  const { positions: p, triangles: t } = mesh;
  const [nx, ny, nz] = cells;
  const index = (x: number, y: number, z: number) => x + nx * (y + ny * z);
  const nearest = new Int32Array(nx * ny * nz).fill(-1);
  const best = new Float32Array(nearest.length).fill(Infinity);
  const corner = (f: number, k: number) => t[f * 3 + k]! * 3;
  const reachOf = (f: number, axis: 0 | 1 | 2): [number, number] => {
    const a = p[corner(f, 0) + axis]!,
      b = p[corner(f, 1) + axis]!,
      c = p[corner(f, 2) + axis]!;
    return [
      max(0, floor((min(a, b, c) - from[axis]) / step)),
      min((cells[axis] as number) - 1, ceil((max(a, b, c) - from[axis]) / step)),
    ];
  };
  const faces = t.length / 3;
  for (let f = 0; f < faces; f++) {
    const [x0, x1] = reachOf(f, 0),
      [y0, y1] = reachOf(f, 1),
      [z0, z1] = reachOf(f, 2);
    const a = corner(f, 0),
      b = corner(f, 1),
      c = corner(f, 2);
    for (let z = z0; z <= z1; z++)
      for (let y = y0; y <= y1; y++)
        for (let x = x0; x <= x1; x++) {
          const d = distance2(p, a, b, c, from[0] + x * step, from[1] + y * step, from[2] + z * step);
          const i = index(x, y, z);
          if (d < best[i]!) {
            best[i] = d;
            nearest[i] = f;
          }
        }
    if ((f & 0x3fff) === 0) progress?.((0.5 * f) / faces);
  }
  const offer = (i: number, from2: number, x: number, y: number, z: number) => {
    const f = nearest[from2]!;
    if (f < 0 || f === nearest[i]) return;
    const d = distance2(
      p,
      corner(f, 0),
      corner(f, 1),
      corner(f, 2),
      from[0] + x * step,
      from[1] + y * step,
      from[2] + z * step,
    );
    if (d < best[i]!) {
      best[i] = d;
      nearest[i] = f;
    }
  };
  for (let sweep = 0; sweep < 16; sweep++) {
    const sx = sweep & 1 ? -1 : 1,
      sy = sweep & 2 ? -1 : 1,
      sz = sweep & 4 ? -1 : 1;
    for (let k = 0; k < nz; k++)
      for (let j = 0; j < ny; j++)
        for (let h = 0; h < nx; h++) {
          const x = sx > 0 ? h : nx - 1 - h,
            y = sy > 0 ? j : ny - 1 - j,
            z = sz > 0 ? k : nz - 1 - k;
          const i = index(x, y, z);
          if (h > 0) offer(i, index(x - sx, y, z), x, y, z);
          if (j > 0) offer(i, index(x, y - sy, z), x, y, z);
          if (k > 0) offer(i, index(x, y, z - sz), x, y, z);
        }
    progress?.(0.5 + (0.4 * sweep) / 16);
  }
  return best.map((d) => sqrt(d));
}

/** Inside or out by counting faces along three lines through each sample; the majority decides. */
function insideOf(mesh: TriangleMesh, lattice: Lattice): Uint8Array {
  const { cells, step, from } = lattice;
  const { positions: p, triangles: t } = mesh;
  const [nx, ny, nz] = cells;
  const votes = new Uint8Array(nx * ny * nz);
  // A line a hair off the samples meets no edge square on.
  const hair = [step * 1.37e-4, step * 2.11e-4] as const;
  for (const axis of [0, 1, 2] as const) {
    const u = ((axis + 1) % 3) as 0 | 1 | 2,
      v = ((axis + 2) % 3) as 0 | 1 | 2;
    const rows: number[][] = Array.from({ length: cells[u] * cells[v] }, () => []);
    for (let f = 0; f < t.length; f += 3) {
      const a = t[f]! * 3,
        b = t[f + 1]! * 3,
        c = t[f + 2]! * 3;
      const au = p[a + u]! - from[u] - hair[0],
        av = p[a + v]! - from[v] - hair[1];
      const bu = p[b + u]! - from[u] - hair[0],
        bv = p[b + v]! - from[v] - hair[1];
      const cu = p[c + u]! - from[u] - hair[0],
        cv = p[c + v]! - from[v] - hair[1];
      const area = (bu - au) * (cv - av) - (bv - av) * (cu - au);
      if (area === 0) continue;
      const u0 = max(0, ceil(min(au, bu, cu) / step)),
        u1 = min(cells[u] - 1, floor(max(au, bu, cu) / step));
      const v0 = max(0, ceil(min(av, bv, cv) / step)),
        v1 = min(cells[v] - 1, floor(max(av, bv, cv) / step));
      for (let j = v0; j <= v1; j++)
        for (let i = u0; i <= u1; i++) {
          const x = i * step,
            y = j * step;
          const wb = ((x - au) * (cv - av) - (y - av) * (cu - au)) / area;
          const wc = ((bu - au) * (y - av) - (bv - av) * (x - au)) / area;
          if (wb < 0 || wc < 0 || wb + wc > 1) continue;
          const at = p[a + axis]! * (1 - wb - wc) + p[b + axis]! * wb + p[c + axis]! * wc;
          rows[i + cells[u] * j]!.push((at - from[axis]) / step);
        }
    }
    rows.forEach((crossings, r) => {
      if (crossings.length < 2) return;
      crossings.sort((a, b) => a - b);
      const place = [0, 0, 0];
      place[u] = r % cells[u];
      place[v] = floor(r / cells[u]);
      for (let k = 0; k + 1 < crossings.length; k += 2) {
        for (let s = max(0, ceil(crossings[k]!)); s <= min(cells[axis] - 1, floor(crossings[k + 1]!)); s++) {
          place[axis] = s;
          const i = place[0]! + nx * (place[1]! + ny * place[2]!);
          votes[i] = votes[i]! + 1;
        }
      }
    });
  }
  return votes.map((v) => (v >= 2 ? 1 : 0));
}

/** Samples a closed mesh, in metres. The mass's own place is the mesh's origin. */
export function sampleMesh(mesh: TriangleMesh, along = samplesAlong, progress?: Progress): SampledShape {
  const lattice = latticeFor(mesh, along);
  const away = nearestTriangles(mesh, lattice, progress);
  const inside = insideOf(mesh, lattice);
  const deepest = away.reduce((most, d) => max(most, d), 1e-6);
  const bytes = new Uint8Array(away.length);
  for (let i = 0; i < away.length; i++) {
    const q = round(127 * sqrt(away[i]! / deepest));
    bytes[i] = inside[i] ? 128 - q : 128 + q;
  }
  progress?.(1);
  return {
    kind: 'sampled',
    cells: [...lattice.cells],
    step: lattice.step,
    from: [...lattice.from],
    deepest,
    values: toBase64(bytes),
  };
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
