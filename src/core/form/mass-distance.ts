import { rootTolerance, type CompiledMass } from './compiled';
import { sampledDistance } from './mesh/sampled';

const { abs, max, min, sign, sqrt } = Math;

/** Of the last distance to an ellipsoid: its root. Of the last to a round cone: 0 or 1 nearest to that end, 2 to its side. */
const ellipsoidRoot = { t: 0 };
const coneEnd = { end: 0 };

/**
 * Distance to an ellipsoid by the root of sum (e y/(t + e^2))^2 = 1: the function falls and is convex right of its
 * last pole, so Newton from the left end never overshoots. Eberly, *Distance from a Point to an Ellipsoid*.
 */
function ellipsoidDistance(px: number, py: number, pz: number, m: CompiledMass): number {
  const { a: ea, b: eb, c: ec, fine } = m;
  const x = max(abs(px), 1e-9),
    y = max(abs(py), 1e-9),
    z = max(abs(pz), 1e-9);
  const a2 = ea * ea,
    b2 = eb * eb,
    c2 = ec * ec;
  const nx = ea * x,
    ny = eb * y,
    nz = ec * z;
  const least2 = min(a2, b2, c2),
    coarse = rootTolerance * a2;
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
    if (step <= (fine ? rootTolerance * (t + least2) : coarse)) break;
  }
  ellipsoidRoot.t = t;
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
  if (a2 <= 0) {
    coneEnd.end = rr > 0 ? 0 : 1;
    return rr > 0 ? fromStart - m.a : fromEnd - m.b;
  }
  const il2 = 1 / l2;
  const xx = px * l2 - bx * along,
    xy = py * l2 - by * along,
    xz = pz * l2 - bz * along;
  const x2 = xx * xx + xy * xy + xz * xz;
  const y2 = along * along * l2;
  const z2 = beyond * beyond * l2;
  const k = sign(rr) * rr * rr * x2;
  coneEnd.end = 1;
  if (sign(beyond) * a2 * z2 > k) return sqrt(x2 + z2) * il2 - m.b;
  coneEnd.end = 0;
  if (sign(along) * a2 * y2 < k) return sqrt(x2 + y2) * il2 - m.a;
  coneEnd.end = 2;
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

/** Signed distance of one mass at a place, metres, negative inside: exact to 1e-9, or a bound from below at a shell's rim. */
export function massDistance(m: CompiledMass, x: number, y: number, z: number): number {
  const r = m.rotation;
  const dx = x - m.at[0],
    dy = y - m.at[1],
    dz = z - m.at[2];
  const px = r[0]! * dx + r[1]! * dy + r[2]! * dz;
  const py = r[3]! * dx + r[4]! * dy + r[5]! * dz;
  const pz = r[6]! * dx + r[7]! * dy + r[8]! * dz;
  const { grow } = m;
  if (m.kind === 0) return ellipsoidDistance(px, py, pz, m) - grow;
  if (m.kind === 1) return roundConeDistance(px, py, pz, m) - grow;
  if (m.kind === 2) return boxDistance(px, py, pz, m) - grow;
  if (m.kind === 4) return shellDistance(px, py, pz, m) - grow;
  if (m.kind === 7) return m.limbed!.at(x, y, z) - grow;
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
  const outer = ellipsoidDistance(px, py, pz, m);
  return max(outer, -outer - m.extra[0]!, m.extra[1]! - pz);
}

/** Distance to an ellipsoid, a round cone or a box at a place and its slope there along x, y and z, into `out`. */
export function massTangent(m: CompiledMass, x: number, y: number, z: number, out: Float64Array): void {
  const r = m.rotation;
  const dx = x - m.at[0],
    dy = y - m.at[1],
    dz = z - m.at[2];
  const px = r[0]! * dx + r[1]! * dy + r[2]! * dz;
  const py = r[3]! * dx + r[4]! * dy + r[5]! * dz;
  const pz = r[6]! * dx + r[7]! * dy + r[8]! * dz;
  const d =
    m.kind === 0
      ? ellipsoidDistance(px, py, pz, m)
      : m.kind === 1
        ? roundConeDistance(px, py, pz, m)
        : boxDistance(px, py, pz, m);
  let gx = px,
    gy = py,
    gz = pz;
  if (m.kind === 0) {
    // What is left of the place past its nearest point, by the same root: d is t times the length of p/(t + e^2).
    const t = ellipsoidRoot.t;
    gx = px / (t + m.a * m.a);
    gy = py / (t + m.b * m.b);
    gz = pz / (t + m.c * m.c);
  } else if (m.kind === 2) {
    const qx = abs(px) - m.a,
      qy = abs(py) - m.b,
      qz = abs(pz) - m.c;
    // Within, the face that is nearest.
    const most = max(qx, qy, qz);
    gx = sign(px) * (most > 0 ? max(qx, 0) : qx === most ? 1 : 0);
    gy = sign(py) * (most > 0 ? max(qy, 0) : qy === most ? 1 : 0);
    gz = sign(pz) * (most > 0 ? max(qz, 0) : qz === most ? 1 : 0);
  } else {
    const bx = m.extra[0]!,
      by = m.extra[1]!,
      bz = m.extra[2]!;
    const along = px * bx + py * by + pz * bz;
    const { end } = coneEnd;
    if (end === 1) {
      gx -= bx;
      gy -= by;
      gz -= bz;
    } else if (end === 2) {
      const share = along / (m.c * m.c);
      const ox = px - share * bx,
        oy = py - share * by,
        oz = pz - share * bz;
      const out = sqrt(ox * ox + oy * oy + oz * oz) || 1;
      const rr = m.a - m.b;
      const across = sqrt(m.c * m.c - rr * rr) / (m.c * out),
        on = rr / (m.c * m.c);
      gx = ox * across + bx * on;
      gy = oy * across + by * on;
      gz = oz * across + bz * on;
    }
  }
  const long = sqrt(gx * gx + gy * gy + gz * gz) || 1;
  out[0] = d - m.grow;
  out[1] = (r[0]! * gx + r[3]! * gy + r[6]! * gz) / long;
  out[2] = (r[1]! * gx + r[4]! * gy + r[7]! * gz) / long;
  out[3] = (r[2]! * gx + r[5]! * gy + r[8]! * gz) / long;
}
