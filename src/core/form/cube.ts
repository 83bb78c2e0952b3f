import { rootTolerance, type CompiledMass } from './compiled';
import { sampledDistance } from './mesh/sampled';

const { abs, max, min, sign, sqrt } = Math;

/** Cells along a side of the cube that `fillCube` works on. */
export const cubeSide = 4;
export const cubeCells = cubeSide ** 3;

/**
 * Working space of `fillCube`. The masses near a cube are measured from the last to the first, each only in the cells
 * where it can still change anything, then merged from the first to the last.
 */
export const cube = {
  x: new Float64Array(cubeCells),
  y: new Float64Array(cubeCells),
  z: new Float64Array(cubeCells),
  /** Distances to the mass at hand, in the `asked` cells listed. */
  own: new Float64Array(cubeCells),
  cells: new Uint8Array(cubeCells),
  asked: 0,
  /** Distances to one mass of the union: it lies nowhere further out. */
  bound: new Float64Array(cubeCells),
  /** How near the union of the masses before the one at hand must come for it to be felt in the end. */
  need: new Float64Array(cubeCells),
  /** The most that was needed of a union from the mass of the bound on back. */
  felt: new Float64Array(cubeCells),
  /** How near the mass at hand must come for that. */
  limit: new Float64Array(cubeCells),
  union: new Float64Array(cubeCells),
  nearest: new Float64Array(cubeCells),
  owner: new Int32Array(cubeCells),
};

const everyCell = Uint8Array.from({ length: cubeCells }, (_, i) => i);
const none = Infinity;
const farOff = new Float64Array(cubeCells).fill(none);

/** Room for one mass's distances and the cells they are of. */
class Measured {
  /** The mass is nowhere nearer than this. */
  readonly least = new Float64Array(cubeCells);
  /** Nor is the union of the masses up to it. */
  readonly unionLeast = new Float64Array(cubeCells);
  readonly own = new Float64Array(cubeCells);
  readonly cells = new Uint8Array(cubeCells);
  asked = 0;
}
const measured: Measured[] = [];

/** Room for the `c`-th mass of the list. */
function roomFor(c: number): Measured {
  while (measured.length <= c) measured.push(new Measured());
  return measured[c]!;
}

/** Makes the `c`-th mass of the list the one at hand; what is asked of it is kept by `keepMass`. */
export function takeMass(c: number): void {
  const room = roomFor(c);
  cube.own = room.own;
  cube.cells = room.cells;
  cube.asked = 0;
}

export function keepMass(c: number): void {
  measured[c]!.asked = cube.asked;
}

/** Has the `c`-th mass of the list at hand again, as it was kept. */
export function haveMass(c: number): void {
  const room = measured[c]!;
  cube.own = room.own;
  cube.cells = room.cells;
  cube.asked = room.asked;
}

export function beginCube(): void {
  cube.need.fill(none);
  cube.limit.fill(none);
  cube.union.fill(none);
  cube.nearest.fill(none);
}

export function askAll(): void {
  cube.cells.set(everyCell);
  cube.asked = cubeCells;
}

/** The union of two distances, by the blend of the one merged. */
export function blended(u: number, own: number, blend: number): number {
  const gap = abs(u - own);
  const d = own < u ? own : u;
  return gap < blend ? d - ((blend - gap) * (blend - gap)) / (4 * blend) : d;
}

/**
 * By how much a union must lie beyond what is needed, for it to be no less than that once it is merged with a mass that
 * lies `blend - short` beyond it: from 0, where the two are a blend apart, to the blend.
 */
export function shortfall(blend: number, short: number): number {
  if (short <= 0) return 0;
  if (short >= blend) return blend;
  return 2 * blend - short - 2 * sqrt(blend * (blend - short));
}

/**
 * How far the `c`-th of the planes (four figures each) lies outside the bound at least. The distance to a convex mass
 * less a plane is convex: it is largest in a corner.
 */
export function apartFromBound(planes: Float64Array, c: number, kindOfBound: number): number {
  const { bound } = cube;
  const middle = planes[4 * c]!,
    gx = planes[4 * c + 1]!,
    gy = planes[4 * c + 2]!,
    gz = planes[4 * c + 3]!;
  const every = kindOfBound <= 2 ? cubeSide - 1 : 1;
  const from = middle - ((cubeSide - 1) / 2) * (gx + gy + gz);
  let least = none;
  for (let z = 0; z < cubeSide; z += every)
    for (let y = 0; y < cubeSide; y += every)
      for (let x = 0; x < cubeSide; x += every)
        least = min(least, from + x * gx + y * gy + z * gz - bound[x + cubeSide * (y + cubeSide * z)]!);
  return least;
}

/**
 * Says of the `c`-th mass, one after the other, that it lies outside the `c`-th of the planes, or, where none are given,
 * just where the bound does. What the union up to it cannot be less than follows.
 */
export function leastOf(c: number, blend: number, planes: Float64Array | null): void {
  const { least, unionLeast } = roomFor(c);
  const before = c > 0 ? measured[c - 1]!.unionLeast : farOff;
  const quarter = blend > 0 ? 1 / (4 * blend) : 0;
  if (planes) leastAfter(c, planes);
  else least.set(cube.bound);
  for (let i = 0; i < cubeCells; i++) {
    const own = least[i]!;
    const u = before[i]!;
    const gap = abs(u - own);
    let d = own < u ? own : u;
    if (gap < blend) d -= (blend - gap) * (blend - gap) * quarter;
    unionLeast[i] = d;
  }
}

/** As `leastOf`, for a mass after that of the bound: what the union comes to is not asked for there. */
export function leastAfter(c: number, planes: Float64Array): void {
  const { least } = roomFor(c);
  const gx = planes[4 * c + 1]!,
    gy = planes[4 * c + 2]!,
    gz = planes[4 * c + 3]!;
  const first = planes[4 * c]! - ((cubeSide - 1) / 2) * (gx + gy + gz);
  let i = 0;
  for (let z = 0; z < cubeSide; z++)
    for (let y = 0; y < cubeSide; y++) {
      let plane = first + z * gz + y * gy;
      for (let x = 0; x < cubeSide; x++, i++, plane += gx) least[i] = plane;
    }
}

/**
 * Asks for the cells where the `c`-th mass can still be felt, and counts them. `bounded`: it is merged after the mass of
 * the bound, so that what it is merged into is no further out.
 */
export function askFelt(c: number, blend: number, bounded: boolean): number {
  const { need, bound, limit, cells } = cube;
  const { least, unionLeast } = measured[c]!;
  let asked = 0;
  for (let i = 0; i < cubeCells; i++) {
    const within = need[i]!;
    // Where the union up to it is not needed, nor are those before it.
    if (!bounded && unionLeast[i]! >= within) continue;
    const near = (bounded ? min(within, bound[i]!) : within) + blend;
    if (least[i]! >= near) continue;
    limit[i] = near;
    cells[asked++] = i;
  }
  cube.asked = asked;
  return asked;
}

/** Asks for the cells where a mass outside the `c`-th of the planes may change the union of those before it; counts them. */
export function askAgainstUnion(c: number, blend: number, planes: Float64Array): number {
  const { union, nearest, limit, cells } = cube;
  const gx = planes[4 * c + 1]!,
    gy = planes[4 * c + 2]!,
    gz = planes[4 * c + 3]!;
  const first = planes[4 * c]! - ((cubeSide - 1) / 2) * (gx + gy + gz);
  let i = 0,
    asked = 0;
  for (let z = 0; z < cubeSide; z++)
    for (let y = 0; y < cubeSide; y++) {
      let plane = first + z * gz + y * gy;
      for (let x = 0; x < cubeSide; x++, i++, plane += gx) {
        const near = max(union[i]! + blend, nearest[i]!);
        if (plane >= near) continue;
        limit[i] = near;
        cells[asked++] = i;
      }
    }
  cube.asked = asked;
  return asked;
}

/**
 * Leaves out the cells in which the mass at hand came no nearer than the limit, and works out how near those before it
 * must come. Let a union u be merged with this mass's distance o by a blend k into m(u). For u of o + k or more, m is o,
 * whatever u is; and m is no less than what is needed after it where u is no less than that by what m falls short of it.
 */
export function needBefore(blend: number): void {
  const { own, need, felt, limit, cells } = cube;
  let kept = 0;
  for (let q = 0; q < cube.asked; q++) {
    const i = cells[q]!;
    const o = own[i]!;
    if (o >= limit[i]!) continue;
    cells[kept++] = i;
    const after = need[i]!;
    const before = o >= after ? min(o + blend, after + shortfall(blend, blend - (o - after))) : o + blend;
    need[i] = before;
    if (before > felt[i]!) felt[i] = before;
  }
  cube.asked = kept;
}

// One loop a shape, the distance written out in it: calls with fractional numbers would cost more than the sums.
function ellipsoidCube(m: CompiledMass): void {
  const { x, y, z, own, limit, cells, asked } = cube;
  const ea = m.a,
    eb = m.b,
    ec = m.c;
  const a2 = ea * ea,
    b2 = eb * eb,
    c2 = ec * ec;
  const ia2 = 1 / a2,
    ib2 = 1 / b2,
    ic2 = 1 / c2;
  const least2 = min(a2, b2, c2),
    coarse = rootTolerance * a2;
  const { fine } = m;
  const longest2 = max(a2, b2, c2);
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const px = max(abs(x[i]!), 1e-9),
      py = max(abs(y[i]!), 1e-9),
      pz = max(abs(z[i]!), 1e-9);
    const nx = ea * px,
      ny = eb * py,
      nz = ec * pz;
    // Outside the sphere through its longest axis by more than matters: it changes nothing here.
    if (sqrt(px * px + py * py + pz * pz) - m.reach > limit[i]!) {
      own[i] = Infinity;
      continue;
    }
    const fa = nx * ia2,
      fb = ny * ib2,
      fc = nz * ic2;
    const sa = fa * fa,
      sb = fb * fb,
      sc = fc * fc;
    let t = max(
      nx - a2,
      ny - b2,
      nz - c2,
      (sa + sb + sc - 1) / (2 * (sa * ia2 + sb * ib2 + sc * ic2)),
      sqrt(nx * nx + ny * ny + nz * nz) - longest2,
    );
    let ia = 0,
      ib = 0,
      ic = 0;
    for (let n = 0; n < 40; n++) {
      ia = 1 / (t + a2);
      ib = 1 / (t + b2);
      ic = 1 / (t + c2);
      const ra = nx * ia,
        rb = ny * ib,
        rc = nz * ic;
      const ga = ra * ra,
        gb = rb * rb,
        gc = rc * rc;
      const step = (ga + gb + gc - 1) / (2 * (ga * ia + gb * ib + gc * ic));
      t += step;
      if (step <= (fine ? rootTolerance * (t + least2) : coarse)) break;
    }
    ia = px / (t + a2);
    ib = py / (t + b2);
    ic = pz / (t + c2);
    // The nearest point is p a2/(t + a2); what is left of p is t times the same.
    own[i] = t * sqrt(ia * ia + ib * ib + ic * ic);
  }
}

function roundConeCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  const bx = m.extra[0]!,
    by = m.extra[1]!,
    bz = m.extra[2]!;
  const ra = m.a,
    rb = m.b;
  const l2 = m.c * m.c,
    rr = ra - rb;
  const a2 = l2 - rr * rr,
    il2 = 1 / l2;
  const swallowed = a2 <= 0;
  const sign2 = sign(rr) * rr * rr;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const px = x[i]!,
      py = y[i]!,
      pz = z[i]!;
    if (swallowed) {
      own[i] =
        rr > 0
          ? sqrt(px * px + py * py + pz * pz) - ra
          : sqrt((px - bx) * (px - bx) + (py - by) * (py - by) + (pz - bz) * (pz - bz)) - rb;
      continue;
    }
    const along = px * bx + py * by + pz * bz;
    const beyond = along - l2;
    const xx = px * l2 - bx * along,
      xy = py * l2 - by * along,
      xz = pz * l2 - bz * along;
    const x2 = xx * xx + xy * xy + xz * xz;
    const y2 = along * along * l2,
      z2 = beyond * beyond * l2;
    const k = sign2 * x2;
    if (sign(beyond) * a2 * z2 > k) own[i] = sqrt(x2 + z2) * il2 - rb;
    else if (sign(along) * a2 * y2 < k) own[i] = sqrt(x2 + y2) * il2 - ra;
    else own[i] = (sqrt(x2 * a2 * il2) + along * rr) * il2 - ra;
  }
}

function boxCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  const { a, b, c } = m;
  const rounding = m.extra[0]!;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const qx = abs(x[i]!) - a,
      qy = abs(y[i]!) - b,
      qz = abs(z[i]!) - c;
    const ox = max(qx, 0),
      oy = max(qy, 0),
      oz = max(qz, 0);
    own[i] = sqrt(ox * ox + oy * oy + oz * oz) + min(max(qx, qy, qz), 0) - rounding;
  }
}

function ringCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  const { a, b } = m;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const px = x[i]!,
      py = y[i]!,
      pz = z[i]!;
    const ring = sqrt(px * px + py * py) - a;
    own[i] = sqrt(ring * ring + pz * pz) - b;
  }
}

/** After `ellipsoidCube`: hollowed to its thickness, open below. */
function shellCube(m: CompiledMass): void {
  const { z, own, cells, asked } = cube;
  const thickness = m.extra[0]!,
    open = m.extra[1]!;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const outer = own[i]!;
    own[i] = max(outer, -outer - thickness, open - z[i]!);
  }
}

function sampledCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    own[i] = sampledDistance(m.samples, m.extra, m.a, m.b, x[i]!, y[i]!, z[i]!);
  }
}

function drumCube(m: CompiledMass): void {
  const { x, y, z, own, cells, asked } = cube;
  const { a, b } = m;
  const rounding = m.extra[0]!;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const px = x[i]!,
      py = y[i]!;
    const round = sqrt(px * px + py * py) - a,
      over = abs(z[i]!) - b;
    const ox = max(round, 0),
      oz = max(over, 0);
    own[i] = sqrt(ox * ox + oz * oz) + min(max(round, over), 0) - rounding;
  }
}

/** Places of the cells asked for, in a mass's own axes. */
export function intoAxes(m: CompiledMass, x0: number, y0: number, z0: number, step: number): void {
  const { cells, asked } = cube;
  const r = m.rotation;
  const r0 = r[0]!,
    r1 = r[1]!,
    r2 = r[2]!,
    r3 = r[3]!,
    r4 = r[4]!;
  const r5 = r[5]!,
    r6 = r[6]!,
    r7 = r[7]!,
    r8 = r[8]!;
  const ax = m.at[0],
    ay = m.at[1],
    az = m.at[2];
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const dx = x0 + ((i & 3) + 0.5) * step - ax,
      dy = y0 + (((i >> 2) & 3) + 0.5) * step - ay,
      dz = z0 + ((i >> 4) + 0.5) * step - az;
    cube.x[i] = r0 * dx + r1 * dy + r2 * dz;
    cube.y[i] = r3 * dx + r4 * dy + r5 * dz;
    cube.z[i] = r6 * dx + r7 * dy + r8 * dz;
  }
}

/** How far beyond the union, at most, a mass is felt anywhere in the cube but for its own blend. */
export function feltBeyond(): number {
  const { felt, union } = cube;
  let most = 0;
  for (let i = 0; i < cubeCells; i++) most = max(most, felt[i]! - union[i]!);
  return most;
}

/** Merges the mass at hand, `index`, into the union in the cells asked for. */
export function mergeCube(index: number, k: number): void {
  const { own, union, nearest, owner, cells, asked } = cube;
  const quarter = k > 0 ? 1 / (4 * k) : 0;
  for (let q = 0; q < asked; q++) {
    const i = cells[q]!;
    const o = own[i]!;
    const u = union[i]!;
    if (o < nearest[i]!) {
      nearest[i] = o;
      owner[i] = index;
    }
    const gap = abs(u - o);
    let d = o < u ? o : u;
    if (gap < k) d -= (k - gap) * (k - gap) * quarter;
    union[i] = d;
  }
}

/** Distances of the cube's cells to one mass, into `cube.own`; `intoAxes` comes first. */
export function massCube(m: CompiledMass): void {
  if (m.kind === 0) ellipsoidCube(m);
  else if (m.kind === 1) roundConeCube(m);
  else if (m.kind === 2) boxCube(m);
  else if (m.kind === 3) ringCube(m);
  else if (m.kind === 5) drumCube(m);
  else if (m.kind === 6) sampledCube(m);
  else {
    ellipsoidCube(m);
    shellCube(m);
  }
  if (m.grow === 0) return;
  const { own, cells, asked } = cube;
  for (let q = 0; q < asked; q++) own[cells[q]!] = own[cells[q]!]! - m.grow;
}
