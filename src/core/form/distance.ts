import { compile, rootTolerance, type CompiledMass } from './compiled';
import { cube, cubeSide, intoAxes, massCube, mergeCube } from './cube';
import type { Mass } from './mass';
import { sampledDistance } from './mesh/sampled';

const { abs, hypot, max, min, sign, sqrt } = Math;

/**
 * Signed distance of a smooth union of masses, negative inside. Every primitive is exact to 1e-9 m or rounding,
 * and the union keeps a slope of at most 1, so a distance at a block's middle bounds the whole block.
 */
/**
 * Distance to an ellipsoid by the root of sum (e y/(t + e^2))^2 = 1: the function falls and is convex right of its
 * last pole, so Newton from the left end never overshoots. Eberly, *Distance from a Point to an Ellipsoid*.
 */
function ellipsoidDistance(px: number, py: number, pz: number, ea: number, eb: number, ec: number): number {
  const x = max(abs(px), 1e-9),
    y = max(abs(py), 1e-9),
    z = max(abs(pz), 1e-9);
  const a2 = ea * ea,
    b2 = eb * eb,
    c2 = ec * ec;
  const nx = ea * x,
    ny = eb * y,
    nz = ec * z;
  // One Newton step from the surface (t = 0) lands left of the root whichever side the point is on: near it, for most.
  const fa = nx / a2,
    fb = ny / b2,
    fc = nz / c2;
  const first = (fa * fa + fb * fb + fc * fc - 1) / (2 * ((fa * fa) / a2 + (fb * fb) / b2 + (fc * fc) / c2));
  // Far out, the root is near that of the sphere through the longest axis, and never left of it.
  const far = sqrt(nx * nx + ny * ny + nz * nz) - max(a2, b2, c2);
  let t = max(nx - a2, ny - b2, nz - c2, first, far);
  for (let i = 0; i < 40; i++) {
    const ra = nx / (t + a2),
      rb = ny / (t + b2),
      rc = nz / (t + c2);
    const f = ra * ra + rb * rb + rc * rc - 1;
    const step = f / (2 * ((ra * ra) / (t + a2) + (rb * rb) / (t + b2) + (rc * rc) / (t + c2)));
    t += step;
    if (step <= rootTolerance * a2) break;
  }
  return t * sqrt((x / (t + a2)) ** 2 + (y / (t + b2)) ** 2 + (z / (t + c2)) ** 2);
}

/** Round cone between two spheres; exact (the larger sphere alone when it swallows the smaller). */
function roundConeDistance(px: number, py: number, pz: number, m: CompiledMass): number {
  const bx = m.extra[0]!,
    by = m.extra[1]!,
    bz = m.extra[2]!;
  const l2 = m.c * m.c;
  const rr = m.a - m.b;
  const along = px * bx + py * by + pz * bz;
  const beyond = along - l2;
  const fromStart = sqrt(px * px + py * py + pz * pz);
  const ex = px - bx,
    ey = py - by,
    ez = pz - bz;
  const fromEnd = sqrt(ex * ex + ey * ey + ez * ez);
  const a2 = l2 - rr * rr;
  if (a2 <= 0) return rr > 0 ? fromStart - m.a : fromEnd - m.b;
  const il2 = 1 / l2;
  const xx = px * l2 - bx * along,
    xy = py * l2 - by * along,
    xz = pz * l2 - bz * along;
  const x2 = xx * xx + xy * xy + xz * xz;
  const y2 = along * along * l2;
  const z2 = beyond * beyond * l2;
  const k = sign(rr) * rr * rr * x2;
  if (sign(beyond) * a2 * z2 > k) return sqrt(x2 + z2) * il2 - m.b;
  if (sign(along) * a2 * y2 < k) return sqrt(x2 + y2) * il2 - m.a;
  return (sqrt(x2 * a2 * il2) + along * rr) * il2 - m.a;
}

function boxDistance(px: number, py: number, pz: number, m: CompiledMass): number {
  const qx = abs(px) - m.a,
    qy = abs(py) - m.b,
    qz = abs(pz) - m.c;
  const ox = max(qx, 0),
    oy = max(qy, 0),
    oz = max(qz, 0);
  return sqrt(ox * ox + oy * oy + oz * oz) + min(max(qx, qy, qz), 0) - m.extra[0]!;
}

function massDistance(m: CompiledMass, x: number, y: number, z: number): number {
  const r = m.rotation;
  const dx = x - m.at[0],
    dy = y - m.at[1],
    dz = z - m.at[2];
  const px = r[0]! * dx + r[1]! * dy + r[2]! * dz;
  const py = r[3]! * dx + r[4]! * dy + r[5]! * dz;
  const pz = r[6]! * dx + r[7]! * dy + r[8]! * dz;
  const { grow } = m;
  if (m.kind === 0) return ellipsoidDistance(px, py, pz, m.a, m.b, m.c) - grow;
  if (m.kind === 1) return roundConeDistance(px, py, pz, m) - grow;
  if (m.kind === 2) return boxDistance(px, py, pz, m) - grow;
  if (m.kind === 4) return shellDistance(px, py, pz, m) - grow;
  if (m.kind === 6) return sampledDistance(m.samples, m.extra, m.a, m.b, px, py, pz) - grow;
  const round = sqrt(px * px + py * py) - m.a;
  if (m.kind === 3) return sqrt(round * round + pz * pz) - m.b - grow;
  const over = abs(pz) - m.b;
  const ox = max(round, 0),
    oz = max(over, 0);
  return sqrt(ox * ox + oz * oz) + min(max(round, over), 0) - m.extra[0]! - grow;
}

/** Between the outer face and the inner one, and above the opening: a bound from below at the rim, exact elsewhere. */
function shellDistance(px: number, py: number, pz: number, m: CompiledMass): number {
  const outer = ellipsoidDistance(px, py, pz, m.a, m.b, m.c);
  return max(outer, -outer - m.extra[0]!, m.extra[1]! - pz);
}

export interface Box {
  readonly low: readonly [number, number, number];
  readonly high: readonly [number, number, number];
}

/** The form as one function of place. Reads are into the object's own fields, so the hot loop allocates nothing. */
export class DistanceField {
  private readonly compiled: readonly CompiledMass[];
  /** Largest blend of a mass and of all after it: how far a later one can still feel it. */
  private readonly feltWithin: Float64Array;
  private readonly scratch: Float64Array;
  /** Distance (or a bound under it) of each mass kept by the last `prune`, at its middle. */
  private readonly middle: Float64Array;
  /** Index of the nearest mass at the last `at`. */
  owner = 0;
  /** From the last `prune`: distance at the middle, masses kept, and how much nearer the nearest mass is than the next. */
  pruned = { distance: 0, count: 0, nearestGap: 0 };

  /** `clay` holds what each mass's region carries, metres; only objects and shells ask for it. */
  constructor(
    readonly masses: readonly Mass[],
    clay?: Float64Array,
  ) {
    this.compiled = masses.map((m, i) => compile(m, clay?.[i] ?? 0));
    this.feltWithin = new Float64Array(masses.length);
    let most = 0;
    for (let i = masses.length - 1; i >= 0; i--) {
      most = max(most, masses[i]!.blend);
      this.feltWithin[i] = most;
    }
    this.scratch = new Float64Array(masses.length);
    this.middle = new Float64Array(masses.length);
  }

  /** Every mass, for callers that do not prune. */
  all(): Int32Array {
    return Int32Array.from({ length: this.masses.length }, (_, i) => i);
  }

  /** Signed distance at a point over the masses listed (in rising order); sets `owner`. */
  at(x: number, y: number, z: number, candidates: Int32Array, count = candidates.length): number {
    let d = Infinity;
    let nearest = Infinity;
    for (let c = 0; c < count; c++) {
      const i = candidates[c]!;
      const m = this.compiled[i]!;
      const k = m.blend;
      if (c > 0) {
        // A mass that cannot come within its blend of what stands there changes nothing.
        const px = x - m.at[0],
          py = y - m.at[1],
          pz = z - m.at[2];
        const clear = max(d + k, nearest) + m.reach;
        if (clear > 0 && px * px + py * py + pz * pz > clear * clear) continue;
      }
      const own = massDistance(m, x, y, z);
      if (own < nearest) {
        nearest = own;
        this.owner = i;
      }
      const gap = abs(d - own);
      d = own < d ? own : d;
      if (k > 0 && gap < k) d -= ((k - gap) * (k - gap)) / (4 * k);
    }
    return d;
  }

  /**
   * The masses of `from` that can matter within `radius` of a point, into `out`; the rest into `pruned`.
   * A mass further than two radii and twice the blend it can be felt within, beyond the nearest, changes no value there:
   * what it is merged into is then itself too far to be felt.
   */
  prune(x: number, y: number, z: number, radius: number, from: Int32Array, fromCount: number, out: Int32Array): void {
    let nearest = Infinity;
    let second = Infinity;
    for (let c = 0; c < fromCount; c++) {
      const m = this.compiled[from[c]!]!;
      const px = x - m.at[0],
        py = y - m.at[1],
        pz = z - m.at[2];
      // Bounded from below by its sphere; measured only when that is not enough to leave it out.
      let own = sqrt(px * px + py * py + pz * pz) - m.reach;
      if (own <= nearest + 2 * radius + 2 * this.feltWithin[from[c]!]!) own = massDistance(m, x, y, z);
      this.scratch[c] = own;
      if (own < nearest) {
        second = nearest;
        nearest = own;
      } else if (own < second) second = own;
    }
    let count = 0;
    for (let c = 0; c < fromCount; c++) {
      const i = from[c]!;
      if (this.scratch[c]! > nearest + 2 * radius + 2 * this.feltWithin[i]!) continue;
      this.middle[count] = this.scratch[c]!;
      out[count++] = i;
    }
    this.pruned.count = count;
    this.pruned.nearestGap = second - nearest;
    this.pruned.distance = this.at(x, y, z, out, count);
  }

  /**
   * Distances and owners of a cube of cells from its corner, into the grid's arrays: cell (x, y, z) of the cube goes to
   * `to + x + rowStride y + layerStride z`. The same as `at` cell by cell, to rounding, in a quarter of the time. `justPruned`: the candidates are what `prune` kept for this very cube.
   */
  fillCube(
    x0: number,
    y0: number,
    z0: number,
    step: number,
    candidates: Int32Array,
    count: number,
    justPruned: boolean,
    distances: Float32Array,
    owners: Uint16Array,
    to: number,
    rowStride: number,
    layerStride: number,
  ): void {
    const half = (cubeSide * step) / 2;
    const radius = half * sqrt(3);
    cube.union.fill(Infinity);
    cube.nearest.fill(Infinity);
    let most = Infinity;
    for (let c = 0; c < count; c++) {
      const index = candidates[c]!;
      const m = this.compiled[index]!;
      if (justPruned && this.middle[c]! - radius > most + m.blend) continue;
      intoAxes(m, x0, y0, z0, step);
      massCube(m);
      most = mergeCube(index, m.blend);
    }
    let i = 0;
    for (let z = 0; z < cubeSide; z++) {
      for (let y = 0; y < cubeSide; y++) {
        let cell = to + y * rowStride + z * layerStride;
        for (let x = 0; x < cubeSide; x++, i++, cell++) {
          distances[cell] = cube.union[i]!;
          owners[cell] = cube.owner[i]!;
        }
      }
    }
  }

  /** A box that holds the whole union, blends included. */
  box(): Box {
    const low: [number, number, number] = [Infinity, Infinity, Infinity];
    const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
    this.compiled.forEach((m, i) => {
      const half = axisReach(m, this.masses[i]!);
      for (let k = 0; k < 3; k++) {
        low[k] = min(low[k]!, half.low[k]!);
        high[k] = max(high[k]!, half.high[k]!);
      }
    });
    const bulge = this.masses.length > 1 ? this.feltWithin[0]! / 2 : 0;
    return {
      low: low.map((v) => v - bulge) as [number, number, number],
      high: high.map((v) => v + bulge) as [number, number, number],
    };
  }
}

/** A box that holds one mass, without its blends. */
export function massBox(mass: Mass, clay = 0): Box {
  return axisReach(compile(mass, clay), mass);
}

function axisReach(m: CompiledMass, mass: Mass): Box {
  const low: number[] = [];
  const high: number[] = [];
  for (let k = 0; k < 3; k++) {
    // Column k of the world-to-mass rotation is world axis k in the mass's own axes.
    const ux = m.rotation[k]!,
      uy = m.rotation[k + 3]!,
      uz = m.rotation[k + 6]!;
    const s = mass.shape;
    let minus: number;
    let plus: number;
    if (s.kind === 'ellipsoid' || s.kind === 'shell')
      minus = plus = hypot(ux * s.radii[0], uy * s.radii[1], uz * s.radii[2]);
    else if (s.kind === 'rounded-box') minus = plus = abs(ux) * s.half[0] + abs(uy) * s.half[1] + abs(uz) * s.half[2];
    else if (s.kind === 'drum') minus = plus = s.radius * hypot(ux, uy) + s.half * abs(uz);
    else if (s.kind === 'sampled') {
      // The border of empty samples is left out, but for one.
      const ends = s.cells.map((n, j) => [s.from[j]! + 2 * s.step, s.from[j]! + (n - 3) * s.step] as const);
      plus = ends.reduce((sum, [low, high], j) => sum + max(low * [ux, uy, uz][j]!, high * [ux, uy, uz][j]!), 0);
      minus = -ends.reduce((sum, [low, high], j) => sum + min(low * [ux, uy, uz][j]!, high * [ux, uy, uz][j]!), 0);
    } else if (s.kind === 'ring') minus = plus = s.radius * hypot(ux, uy) + s.thickness;
    else {
      const end = ux * s.reach[0] + uy * s.reach[1] + uz * s.reach[2];
      plus = max(s.radiusFrom, end + s.radiusTo);
      minus = max(s.radiusFrom, -end + s.radiusTo);
    }
    low.push(m.at[k]! - minus - m.grow);
    high.push(m.at[k]! + plus + m.grow);
  }
  return { low: low as unknown as Box['low'], high: high as unknown as Box['high'] };
}
