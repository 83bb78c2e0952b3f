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

/**
 * Distance to an ellipsoid by the root of sum (e y/(t + e^2))^2 = 1: the function falls and is convex right of its
 * last pole, so Newton from the left end never overshoots. Eberly, *Distance from a Point to an Ellipsoid*.
 */
function ellipsoidDistance(px: number, py: number, pz: number, ea: number, eb: number, ec: number): number {
  const x = max(abs(px), 1e-9), y = max(abs(py), 1e-9), z = max(abs(pz), 1e-9);
  const a2 = ea * ea, b2 = eb * eb, c2 = ec * ec;
  const nx = ea * x, ny = eb * y, nz = ec * z;
  let t = max(nx - a2, ny - b2, nz - c2);
  for (let i = 0; i < 40; i++) {
    const ra = nx / (t + a2), rb = ny / (t + b2), rc = nz / (t + c2);
    const f = ra * ra + rb * rb + rc * rc - 1;
    const slope = 2 * ((ra * ra) / (t + a2) + (rb * rb) / (t + b2) + (rc * rc) / (t + c2));
    const step = f / slope;
    t += step;
    if (step <= 1e-11 * (a2 + abs(t))) break;
  }
  const qx = x - (a2 * x) / (t + a2), qy = y - (b2 * y) / (t + b2), qz = z - (c2 * z) / (t + c2);
  const d = sqrt(qx * qx + qy * qy + qz * qz);
  return t < 0 ? -d : d;
}

/** Round cone between two spheres; exact (the larger sphere alone when it swallows the smaller). */
function roundConeDistance(px: number, py: number, pz: number, m: CompiledMass): number {
  const [bx, by, bz] = m.extra as unknown as [number, number, number];
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

export interface Box {
  readonly low: readonly [number, number, number];
  readonly high: readonly [number, number, number];
}

/** The form as one function of place. Reads are into the object's own fields, so the hot loop allocates nothing. */
export class DistanceField {
  private readonly compiled: readonly CompiledMass[];
  private readonly largestBlend: number;
  private readonly scratch: Float64Array;
  /** Index of the nearest mass at the last `at`. */
  owner = 0;

  constructor(readonly masses: readonly Mass[]) {
    this.compiled = masses.map(compile);
    this.largestBlend = masses.reduce((m, mass) => max(m, mass.blend), 0);
    this.scratch = new Float64Array(masses.length);
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
      const own = massDistance(m, x, y, z);
      if (own < nearest) {
        nearest = own;
        this.owner = i;
      }
      const k = m.blend;
      const gap = abs(d - own);
      d = own < d ? own : d;
      if (k > 0 && gap < k) d -= ((k - gap) * (k - gap)) / (4 * k);
    }
    return d;
  }

  /**
   * Distance at a block's middle, and into `out` the masses that can matter within `radius` of it.
   * A mass further than 2 radii and two blends beyond the nearest cannot change any value in the block.
   */
  prune(x: number, y: number, z: number, radius: number, from: Int32Array, fromCount: number, out: Int32Array): { distance: number; count: number; nearestGap: number } {
    let nearest = Infinity;
    let second = Infinity;
    for (let c = 0; c < fromCount; c++) {
      const own = massDistance(this.compiled[from[c] as number] as CompiledMass, x, y, z);
      this.scratch[c] = own;
      if (own < nearest) {
        second = nearest;
        nearest = own;
      } else if (own < second) second = own;
    }
    const limit = nearest + 2 * radius + 2 * this.largestBlend;
    let count = 0;
    for (let c = 0; c < fromCount; c++) if ((this.scratch[c] as number) <= limit) out[count++] = from[c] as number;
    return { distance: this.at(x, y, z, out, count), count, nearestGap: second - nearest };
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
    const bulge = this.masses.length > 1 ? this.largestBlend / 2 : 0;
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
