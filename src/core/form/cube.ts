const { abs, max, min, sqrt } = Math;

/** Cells along a side of the cube that `fillCube` works on. */
export const cubeSide = 4;
const cubeCells = cubeSide ** 3;

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
