import type { Mass } from './mass';

const { abs, hypot, max, min, sign, sqrt } = Math;

/**
 * Signed distance of a smooth union of masses, negative inside. Every primitive is exact to 1e-9 m or rounding,
 * and the union keeps a slope of at most 1, so a distance at a block's middle bounds the whole block.
 */
interface CompiledMass {
  readonly kind: 0 | 1 | 2 | 3;
  readonly at: readonly [number, number, number];
  /** Rows of the rotation from world to mass. */
  readonly rotation: Float64Array;
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly extra: Float64Array;
  readonly blend: number;
  /** Smallest sphere about `at` that holds it. */
  readonly reach: number;
}

function rotationOf(turn: readonly [number, number, number]): Float64Array {
  const [x, y, z] = turn.map((d) => (d * Math.PI) / 180) as [number, number, number];
  const cx = Math.cos(x), sx = Math.sin(x), cy = Math.cos(y), sy = Math.sin(y), cz = Math.cos(z), sz = Math.sin(z);
  // World from mass is Rz Ry Rx; its transpose takes world to mass.
  return Float64Array.of(
    cz * cy, sz * cy, -sy,
    cz * sy * sx - sz * cx, sz * sy * sx + cz * cx, cy * sx,
    cz * sy * cx + sz * sx, sz * sy * cx - cz * sx, cy * cx,
  );
}

function compile(mass: Mass): CompiledMass {
  const common = { at: mass.at, rotation: rotationOf(mass.turn), blend: mass.blend };
  const s = mass.shape;
  if (s.kind === 'ellipsoid') {
    return { ...common, kind: 0, a: s.radii[0], b: s.radii[1], c: s.radii[2], extra: new Float64Array(0), reach: max(...s.radii) };
  }
  if (s.kind === 'round-cone') {
    const span = hypot(...s.reach);
    return {
      ...common, kind: 1, a: s.radiusFrom, b: s.radiusTo, c: span, extra: Float64Array.from(s.reach),
      reach: max(s.radiusFrom, span + s.radiusTo),
    };
  }
  if (s.kind === 'rounded-box') {
    const rounding = min(s.rounding, ...s.half);
    return { ...common, kind: 2, a: s.half[0] - rounding, b: s.half[1] - rounding, c: s.half[2] - rounding, extra: Float64Array.of(rounding), reach: hypot(...s.half) };
  }
  return { ...common, kind: 3, a: s.radius, b: s.thickness, c: 0, extra: new Float64Array(0), reach: s.radius + s.thickness };
}

/** Newton squares its error: a step of 1e-6 leaves 1e-12. */
const rootTolerance = 1e-6;

/**
 * Distance to an ellipsoid by the root of sum (e y/(t + e^2))^2 = 1: the function falls and is convex right of its
 * last pole, so Newton from the left end never overshoots. Eberly, *Distance from a Point to an Ellipsoid*.
 */
function ellipsoidDistance(px: number, py: number, pz: number, ea: number, eb: number, ec: number): number {
  const x = max(abs(px), 1e-9), y = max(abs(py), 1e-9), z = max(abs(pz), 1e-9);
  const a2 = ea * ea, b2 = eb * eb, c2 = ec * ec;
  const nx = ea * x, ny = eb * y, nz = ec * z;
  // One Newton step from the surface (t = 0) lands left of the root whichever side the point is on: near it, for most.
  const fa = nx / a2, fb = ny / b2, fc = nz / c2;
  const first = (fa * fa + fb * fb + fc * fc - 1) / (2 * ((fa * fa) / a2 + (fb * fb) / b2 + (fc * fc) / c2));
  // Far out, the root is near that of the sphere through the longest axis, and never left of it.
  const far = sqrt(nx * nx + ny * ny + nz * nz) - max(a2, b2, c2);
  let t = max(nx - a2, ny - b2, nz - c2, first, far);
  for (let i = 0; i < 40; i++) {
    const ra = nx / (t + a2), rb = ny / (t + b2), rc = nz / (t + c2);
    const f = ra * ra + rb * rb + rc * rc - 1;
    const step = f / (2 * ((ra * ra) / (t + a2) + (rb * rb) / (t + b2) + (rc * rc) / (t + c2)));
    t += step;
    if (step <= rootTolerance * a2) break;
  }
  return t * sqrt((x / (t + a2)) ** 2 + (y / (t + b2)) ** 2 + (z / (t + c2)) ** 2);
}

/** Round cone between two spheres; exact (the larger sphere alone when it swallows the smaller). */
function roundConeDistance(px: number, py: number, pz: number, m: CompiledMass): number {
  const bx = m.extra[0] as number, by = m.extra[1] as number, bz = m.extra[2] as number;
  const l2 = m.c * m.c;
  const rr = m.a - m.b;
  const along = px * bx + py * by + pz * bz;
  const beyond = along - l2;
  const fromStart = sqrt(px * px + py * py + pz * pz);
  const ex = px - bx, ey = py - by, ez = pz - bz;
  const fromEnd = sqrt(ex * ex + ey * ey + ez * ez);
  const a2 = l2 - rr * rr;
  if (a2 <= 0) return rr > 0 ? fromStart - m.a : fromEnd - m.b;
  const il2 = 1 / l2;
  const xx = px * l2 - bx * along, xy = py * l2 - by * along, xz = pz * l2 - bz * along;
  const x2 = xx * xx + xy * xy + xz * xz;
  const y2 = along * along * l2;
  const z2 = beyond * beyond * l2;
  const k = sign(rr) * rr * rr * x2;
  if (sign(beyond) * a2 * z2 > k) return sqrt(x2 + z2) * il2 - m.b;
  if (sign(along) * a2 * y2 < k) return sqrt(x2 + y2) * il2 - m.a;
  return (sqrt(x2 * a2 * il2) + along * rr) * il2 - m.a;
}

function boxDistance(px: number, py: number, pz: number, m: CompiledMass): number {
  const qx = abs(px) - m.a, qy = abs(py) - m.b, qz = abs(pz) - m.c;
  const ox = max(qx, 0), oy = max(qy, 0), oz = max(qz, 0);
  return sqrt(ox * ox + oy * oy + oz * oz) + min(max(qx, qy, qz), 0) - (m.extra[0] as number);
}

function massDistance(m: CompiledMass, x: number, y: number, z: number): number {
  const r = m.rotation;
  const dx = x - m.at[0], dy = y - m.at[1], dz = z - m.at[2];
  const px = (r[0] as number) * dx + (r[1] as number) * dy + (r[2] as number) * dz;
  const py = (r[3] as number) * dx + (r[4] as number) * dy + (r[5] as number) * dz;
  const pz = (r[6] as number) * dx + (r[7] as number) * dy + (r[8] as number) * dz;
  if (m.kind === 0) return ellipsoidDistance(px, py, pz, m.a, m.b, m.c);
  if (m.kind === 1) return roundConeDistance(px, py, pz, m);
  if (m.kind === 2) return boxDistance(px, py, pz, m);
  const ring = sqrt(px * px + py * py) - m.a;
  return sqrt(ring * ring + pz * pz) - m.b;
}

/** Cells along a side of the cube that `fillCube` works on. */
export const cubeSide = 4;
const cubeCells = cubeSide ** 3;

/** Working space of `fillCube`: places in a mass's own axes, its distances, and the union so far. */
const cube = {
  x: new Float64Array(cubeCells), y: new Float64Array(cubeCells), z: new Float64Array(cubeCells),
  own: new Float64Array(cubeCells), union: new Float64Array(cubeCells), nearest: new Float64Array(cubeCells), owner: new Int32Array(cubeCells),
};

// One loop a shape, the distance written out in it: calls with fractional numbers would cost more than the sums.
function ellipsoidCube(m: CompiledMass): void {
  const { x, y, z, own, union, nearest } = cube;
  const k = m.blend;
  const ea = m.a, eb = m.b, ec = m.c;
  const a2 = ea * ea, b2 = eb * eb, c2 = ec * ec;
  const ia2 = 1 / a2, ib2 = 1 / b2, ic2 = 1 / c2;
  const near = rootTolerance * a2;
  const longest2 = max(a2, b2, c2);
  for (let i = 0; i < cubeCells; i++) {
    const px = max(abs(x[i] as number), 1e-9), py = max(abs(y[i] as number), 1e-9), pz = max(abs(z[i] as number), 1e-9);
    const nx = ea * px, ny = eb * py, nz = ec * pz;
    // Outside the sphere through its longest axis by more than matters: it changes nothing here.
    if (sqrt(px * px + py * py + pz * pz) - m.reach > max((union[i] as number) + k, nearest[i] as number)) {
      own[i] = Infinity;
      continue;
    }
    const fa = nx * ia2, fb = ny * ib2, fc = nz * ic2;
    const sa = fa * fa, sb = fb * fb, sc = fc * fc;
    let t = max(nx - a2, ny - b2, nz - c2, (sa + sb + sc - 1) / (2 * (sa * ia2 + sb * ib2 + sc * ic2)), sqrt(nx * nx + ny * ny + nz * nz) - longest2);
    let ia = 0, ib = 0, ic = 0;
    for (let n = 0; n < 40; n++) {
      ia = 1 / (t + a2);
      ib = 1 / (t + b2);
      ic = 1 / (t + c2);
      const ra = nx * ia, rb = ny * ib, rc = nz * ic;
      const ga = ra * ra, gb = rb * rb, gc = rc * rc;
      const step = (ga + gb + gc - 1) / (2 * (ga * ia + gb * ib + gc * ic));
      t += step;
      if (step <= near) break;
    }
    ia = px / (t + a2);
    ib = py / (t + b2);
    ic = pz / (t + c2);
    // The nearest point is p a2/(t + a2); what is left of p is t times the same.
    own[i] = t * sqrt(ia * ia + ib * ib + ic * ic);
  }
}

function roundConeCube(m: CompiledMass): void {
  const { x, y, z, own } = cube;
  const bx = m.extra[0] as number, by = m.extra[1] as number, bz = m.extra[2] as number;
  const ra = m.a, rb = m.b;
  const l2 = m.c * m.c, rr = ra - rb;
  const a2 = l2 - rr * rr, il2 = 1 / l2;
  const swallowed = a2 <= 0;
  const sign2 = sign(rr) * rr * rr;
  for (let i = 0; i < cubeCells; i++) {
    const px = x[i] as number, py = y[i] as number, pz = z[i] as number;
    if (swallowed) {
      own[i] = rr > 0 ? sqrt(px * px + py * py + pz * pz) - ra : sqrt((px - bx) * (px - bx) + (py - by) * (py - by) + (pz - bz) * (pz - bz)) - rb;
      continue;
    }
    const along = px * bx + py * by + pz * bz;
    const beyond = along - l2;
    const xx = px * l2 - bx * along, xy = py * l2 - by * along, xz = pz * l2 - bz * along;
    const x2 = xx * xx + xy * xy + xz * xz;
    const y2 = along * along * l2, z2 = beyond * beyond * l2;
    const k = sign2 * x2;
    if (sign(beyond) * a2 * z2 > k) own[i] = sqrt(x2 + z2) * il2 - rb;
    else if (sign(along) * a2 * y2 < k) own[i] = sqrt(x2 + y2) * il2 - ra;
    else own[i] = (sqrt(x2 * a2 * il2) + along * rr) * il2 - ra;
  }
}

function boxCube(m: CompiledMass): void {
  const { x, y, z, own } = cube;
  const { a, b, c } = m;
  const rounding = m.extra[0] as number;
  for (let i = 0; i < cubeCells; i++) {
    const qx = abs(x[i] as number) - a, qy = abs(y[i] as number) - b, qz = abs(z[i] as number) - c;
    const ox = max(qx, 0), oy = max(qy, 0), oz = max(qz, 0);
    own[i] = sqrt(ox * ox + oy * oy + oz * oz) + min(max(qx, qy, qz), 0) - rounding;
  }
}

function ringCube(m: CompiledMass): void {
  const { x, y, z, own } = cube;
  const { a, b } = m;
  for (let i = 0; i < cubeCells; i++) {
    const px = x[i] as number, py = y[i] as number, pz = z[i] as number;
    const ring = sqrt(px * px + py * py) - a;
    own[i] = sqrt(ring * ring + pz * pz) - b;
  }
}

function intoAxes(m: CompiledMass, x0: number, y0: number, z0: number, step: number): void {
  const r = m.rotation;
  const r0 = r[0] as number, r1 = r[1] as number, r2 = r[2] as number, r3 = r[3] as number, r4 = r[4] as number;
  const r5 = r[5] as number, r6 = r[6] as number, r7 = r[7] as number, r8 = r[8] as number;
  const ax = m.at[0], ay = m.at[1], az = m.at[2];
  let i = 0;
  for (let z = 0; z < cubeSide; z++) {
    const dz = z0 + (z + 0.5) * step - az;
    for (let y = 0; y < cubeSide; y++) {
      const dy = y0 + (y + 0.5) * step - ay;
      for (let x = 0; x < cubeSide; x++, i++) {
        const dx = x0 + (x + 0.5) * step - ax;
        cube.x[i] = r0 * dx + r1 * dy + r2 * dz;
        cube.y[i] = r3 * dx + r4 * dy + r5 * dz;
        cube.z[i] = r6 * dx + r7 * dy + r8 * dz;
      }
    }
  }
}

/** Merges `own` of mass `index` into the union; returns the largest distance in it. */
function mergeCube(index: number, k: number): number {
  const { own, union, nearest, owner } = cube;
  const quarter = k > 0 ? 1 / (4 * k) : 0;
  let most = -Infinity;
  for (let i = 0; i < cubeCells; i++) {
    const o = own[i] as number;
    const u = union[i] as number;
    if (o < (nearest[i] as number)) {
      nearest[i] = o;
      owner[i] = index;
    }
    const gap = abs(u - o);
    let d = o < u ? o : u;
    if (gap < k) d -= (k - gap) * (k - gap) * quarter;
    union[i] = d;
    if (d > most) most = d;
    if ((nearest[i] as number) > most) most = nearest[i] as number;
  }
  return most;
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

  constructor(readonly masses: readonly Mass[]) {
    this.compiled = masses.map(compile);
    this.feltWithin = new Float64Array(masses.length);
    let most = 0;
    for (let i = masses.length - 1; i >= 0; i--) {
      most = max(most, (masses[i] as Mass).blend);
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
      const i = candidates[c] as number;
      const m = this.compiled[i] as CompiledMass;
      const k = m.blend;
      if (c > 0) {
        // A mass that cannot come within its blend of what stands there changes nothing.
        const px = x - m.at[0], py = y - m.at[1], pz = z - m.at[2];
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
      const m = this.compiled[from[c] as number] as CompiledMass;
      const px = x - m.at[0], py = y - m.at[1], pz = z - m.at[2];
      // Bounded from below by its sphere; measured only when that is not enough to leave it out.
      let own = sqrt(px * px + py * py + pz * pz) - m.reach;
      if (own <= nearest + 2 * radius + 2 * (this.feltWithin[from[c] as number] as number)) own = massDistance(m, x, y, z);
      this.scratch[c] = own;
      if (own < nearest) {
        second = nearest;
        nearest = own;
      } else if (own < second) second = own;
    }
    let count = 0;
    for (let c = 0; c < fromCount; c++) {
      const i = from[c] as number;
      if ((this.scratch[c] as number) > nearest + 2 * radius + 2 * (this.feltWithin[i] as number)) continue;
      this.middle[count] = this.scratch[c] as number;
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
    x0: number, y0: number, z0: number, step: number, candidates: Int32Array, count: number, justPruned: boolean,
    distances: Float32Array, owners: Uint16Array, to: number, rowStride: number, layerStride: number,
  ): void {
    const half = (cubeSide * step) / 2;
    const radius = half * sqrt(3);
    cube.union.fill(Infinity);
    cube.nearest.fill(Infinity);
    let most = Infinity;
    for (let c = 0; c < count; c++) {
      const index = candidates[c] as number;
      const m = this.compiled[index] as CompiledMass;
      if (justPruned && (this.middle[c] as number) - radius > most + m.blend) continue;
      intoAxes(m, x0, y0, z0, step);
      if (m.kind === 0) ellipsoidCube(m);
      else if (m.kind === 1) roundConeCube(m);
      else if (m.kind === 2) boxCube(m);
      else ringCube(m);
      most = mergeCube(index, m.blend);
    }
    let i = 0;
    for (let z = 0; z < cubeSide; z++) {
      for (let y = 0; y < cubeSide; y++) {
        let cell = to + y * rowStride + z * layerStride;
        for (let x = 0; x < cubeSide; x++, i++, cell++) {
          distances[cell] = cube.union[i] as number;
          owners[cell] = cube.owner[i] as number;
        }
      }
    }
  }

  /** A box that holds the whole union, blends included. */
  box(): Box {
    const low: [number, number, number] = [Infinity, Infinity, Infinity];
    const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
    this.compiled.forEach((m, i) => {
      const half = axisReach(m, this.masses[i] as Mass);
      for (let k = 0; k < 3; k++) {
        low[k] = min(low[k] as number, (half.low[k] as number));
        high[k] = max(high[k] as number, (half.high[k] as number));
      }
    });
    const bulge = this.masses.length > 1 ? (this.feltWithin[0] as number) / 2 : 0;
    return {
      low: low.map((v) => v - bulge) as [number, number, number],
      high: high.map((v) => v + bulge) as [number, number, number],
    };
  }
}

function axisReach(m: CompiledMass, mass: Mass): Box {
  const low: number[] = [];
  const high: number[] = [];
  for (let k = 0; k < 3; k++) {
    // Column k of the world-to-mass rotation is world axis k in the mass's own axes.
    const ux = m.rotation[k] as number, uy = m.rotation[k + 3] as number, uz = m.rotation[k + 6] as number;
    const s = mass.shape;
    let minus: number;
    let plus: number;
    if (s.kind === 'ellipsoid') minus = plus = hypot(ux * s.radii[0], uy * s.radii[1], uz * s.radii[2]);
    else if (s.kind === 'rounded-box') minus = plus = abs(ux) * s.half[0] + abs(uy) * s.half[1] + abs(uz) * s.half[2];
    else if (s.kind === 'ring') minus = plus = s.radius * hypot(ux, uy) + s.thickness;
    else {
      const end = ux * s.reach[0] + uy * s.reach[1] + uz * s.reach[2];
      plus = max(s.radiusFrom, end + s.radiusTo);
      minus = max(s.radiusFrom, -end + s.radiusTo);
    }
    low.push((m.at[k] as number) - minus);
    high.push((m.at[k] as number) + plus);
  }
  return { low: low as unknown as Box['low'], high: high as unknown as Box['high'] };
}
