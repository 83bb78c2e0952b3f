const { abs, hypot, max, min, sqrt } = Math;

/**
 * The clay of a whole piece as cells for the drying solver, and the one file that owns their layout.
 *
 * A cubic lattice is cut by two faces given as signed distances: the clay's outer face and the core's. Every cell keeps
 * the share of it that is clay, how much of each side is open to its neighbour, and the area of either face in it. Those
 * areas close by themselves (the open sides of a cell sum to its face by the divergence theorem), so a tilted face has
 * its own area and not that of its stairs. Cells with little clay are joined to a neighbour, which keeps the time step.
 * After Johansen & Colella (1998), *A Cartesian grid embedded boundary method for Poisson's equation on irregular domains*.
 */
export interface ClayLattice {
  /** Cells along x, y, z; x runs fastest. At least two empty cells all round. */
  readonly size: readonly [number, number, number];
  /** Corner of the first cell, metres. */
  readonly origin: readonly [number, number, number];
  readonly step: number;
  /** At cell middles, metres: to the clay's outer face, negative inside. */
  readonly outer: Float32Array;
  /** To the core's face, negative within the core; large where there is no core. */
  readonly inner: Float32Array;
  readonly region: Uint8Array;
  /** Pieces that stand apart (halves, sections) and do not pull at each other. */
  readonly piece: Uint8Array | null;
  /** They are cut from each other: no water passes, and the cut faces lie open. Sections kept wrapped at their ends are not. */
  readonly cut: boolean;
}

export function latticeIndex(size: readonly [number, number, number], x: number, y: number, z: number): number {
  return x + size[0] * (y + size[1] * z);
}

/** Cells of a run lie next to each other along x, and their neighbours along y and z at the same offsets. */
export const runWidth = 6;

export interface ClayFaces {
  readonly count: number;
  readonly cell: Int32Array;
  /** m2. */
  readonly area: Float64Array;
  /** From the middle of the cell's clay to the face, metres. */
  readonly depth: Float32Array;
  /** Pointing out of the clay; three each. */
  readonly normal: Float32Array;
}

export interface ClayCells {
  readonly lattice: ClayLattice;
  readonly count: number;
  /** The first cell stands at this index of every cell array: room for reading past a run's end. */
  readonly pad: number;
  /** Index into the cell arrays for a lattice cell, joined ones too; -1 where there is no clay. */
  readonly cellOf: Int32Array;
  /** Lattice cell of each cell, by index less `pad`. */
  readonly latticeOf: Int32Array;
  /** One over the clay in the cell, in whole cells. */
  readonly inverse: Float32Array;
  /** Open side over distance, in 1/step2: towards +x, +y, -y, +z, -z. */
  readonly xp: Float32Array;
  readonly yp: Float32Array;
  readonly ym: Float32Array;
  readonly zp: Float32Array;
  readonly zm: Float32Array;
  /** Start, length, and offsets to the rows at +y, -y, +z, -z. */
  readonly runs: Int32Array;
  /** Sum of a cell's open sides over its clay: how fast it can change, 1/step2. */
  readonly pace: Float32Array;
  readonly region: Uint8Array;
  readonly outerFaces: ClayFaces;
  readonly innerFaces: ClayFaces;
  /** Every lattice cell with clay in it: where, how much of it, and the cell it was joined to. */
  readonly parts: { readonly lattice: Int32Array; readonly share: Float32Array; readonly cell: Int32Array };
  /** m3. */
  readonly volume: number;
}

/** Cells with less clay than this are joined to a neighbour. */
const joinedBelow = 0.45;
const leastClay = 1e-3;
/** Whole cells change at a pace of 6. */
const mostPace = 6.6;
const far = 1.2;

/** Share of a unit square below the line a x + b y = -d, its middle at the origin. Scardovelli & Zaleski (2000), in the plane. */
export function squareBelow(a: number, b: number, d: number): number {
  const p = abs(a),
    q = abs(b);
  const reach = (p + q) / 2;
  if (d >= reach) return 0;
  if (d <= -reach) return 1;
  const m = max(p, 1e-6),
    n = max(q, 1e-6);
  const alpha = (m + n) / 2 - d;
  const square = (v: number) => (v > 0 ? v * v : 0);
  return min(1, max(0, (square(alpha) - square(alpha - m) - square(alpha - n)) / (2 * m * n)));
}

/** Reads slopes and openings off one signed distance on the lattice, in cells. */
class Surface {
  gx = 0;
  gy = 0;
  gz = 0;
  private readonly strides: readonly [number, number, number];

  constructor(
    readonly field: Float32Array,
    private readonly inverseStep: number,
    size: readonly [number, number, number],
  ) {
    this.strides = [1, size[0], size[0] * size[1]];
  }

  at(i: number): number {
    return this.field[i]! * this.inverseStep;
  }

  cuts(i: number): boolean {
    return abs(this.at(i)) < far;
  }

  /** Unit slope at a cell into gx, gy, gz; far values are markers, not distances, and are left out. */
  slope(i: number): void {
    const here = this.at(i);
    const g: [number, number, number] = [0, 0, 0];
    for (let k = 0; k < 3; k++) {
      const s = this.strides[k]!;
      const up = this.at(i + s) - here,
        down = here - this.at(i - s);
      const upGood = abs(up) < 1.75,
        downGood = abs(down) < 1.75;
      g[k] = upGood && downGood ? (up + down) / 2 : upGood ? up : downGood ? down : 0;
    }
    const length = hypot(g[0], g[1], g[2]) || 1;
    this.gx = g[0] / length;
    this.gy = g[1] / length;
    this.gz = g[2] / length;
  }

  /** Share of the side between cell i and the next along axis k that lies inside. The same seen from either. */
  opening(i: number, k: number): number {
    const j = i + this.strides[k]!;
    const a = this.at(i),
      b = this.at(j);
    if (a >= far && b >= far) return 0;
    if (a <= -far && b <= -far) return 1;
    this.slope(i);
    let tx = k === 0 ? this.gy : this.gx,
      ty = k === 2 ? this.gy : this.gz;
    let middle = (a + b) / 2;
    const good = abs(a - b) < 1.75;
    if (!good) {
      // One of the two is a marker: go by the cell that is near the face.
      if (abs(b) < abs(a)) this.slope(j);
      const along = k === 0 ? this.gx : k === 1 ? this.gy : this.gz;
      middle = abs(b) < abs(a) ? b - along / 2 : a + along / 2;
      tx = k === 0 ? this.gy : this.gx;
      ty = k === 2 ? this.gy : this.gz;
    } else {
      this.slope(j);
      tx = (tx + (k === 0 ? this.gy : this.gx)) / 2;
      ty = (ty + (k === 2 ? this.gy : this.gz)) / 2;
    }
    return squareBelow(tx, ty, middle);
  }
}

const subs = 4;

/** Growing lists for the lattice cells that hold clay. */
interface Part {
  readonly lattice: Int32Array;
  readonly share: Float64Array;
  /** Middle of the clay from the cell's own, in cells. */
  readonly middle: Float32Array;
  readonly count: number;
}

function measureParts(lattice: ClayLattice, outer: Surface, inner: Surface): Part {
  const [nx, ny, nz] = lattice.size;
  let room = 1 << 16,
    count = 0;
  let where = new Int32Array(room),
    share = new Float64Array(room),
    middle = new Float32Array(room * 3);
  const push = (i: number, s: number, x: number, y: number, z: number) => {
    if (count === room) {
      room *= 2;
      const bigger = <T extends Int32Array | Float64Array | Float32Array>(old: T, next: T): T => {
        next.set(old as never);
        return next;
      };
      where = bigger(where, new Int32Array(room));
      share = bigger(share, new Float64Array(room));
      middle = bigger(middle, new Float32Array(room * 3));
    }
    where[count] = i;
    share[count] = s;
    middle[count * 3] = x;
    middle[count * 3 + 1] = y;
    middle[count * 3 + 2] = z;
    count += 1;
  };
  const inverse = 1 / lattice.step;
  for (let z = 1; z < nz - 1; z++)
    for (let y = 1; y < ny - 1; y++) {
      const row = nx * (y + ny * z);
      for (let x = 1; x < nx - 1; x++) {
        const i = row + x;
        const o = lattice.outer[i]! * inverse;
        if (o >= far) continue;
        const c = lattice.inner[i]! * inverse;
        if (c <= -far) continue;
        if (o <= -far && c >= far) {
          push(i, 1, 0, 0, 0);
          continue;
        }
        outer.slope(i);
        const ox = outer.gx,
          oy = outer.gy,
          oz = outer.gz;
        inner.slope(i);
        const cx = inner.gx,
          cy = inner.gy,
          cz = inner.gz;
        const cutO = o > -far,
          cutC = c < far;
        // A sub-cell is as wide along a slope as its sides stand across it.
        const wo = (abs(ox) + abs(oy) + abs(oz)) / subs || 1 / subs,
          wc = (abs(cx) + abs(cy) + abs(cz)) / subs || 1 / subs;
        let sum = 0,
          mx = 0,
          my = 0,
          mz = 0;
        for (let a = 0; a < subs; a++)
          for (let b = 0; b < subs; b++)
            for (let e = 0; e < subs; e++) {
              const px = (a + 0.5) / subs - 0.5,
                py = (b + 0.5) / subs - 0.5,
                pz = (e + 0.5) / subs - 0.5;
              let v = 1;
              if (cutO) v = min(1, max(0, 0.5 - (o + ox * px + oy * py + oz * pz) / wo));
              if (cutC && v > 0) v = min(v, max(0, min(1, 0.5 + (c + cx * px + cy * py + cz * pz) / wc)));
              sum += v;
              mx += v * px;
              my += v * py;
              mz += v * pz;
            }
        const s = sum / subs ** 3;
        if (s > leastClay) push(i, s, mx / sum, my / sum, mz / sum);
      }
    }
  return { lattice: where, share, middle, count };
}

/** For each part the one it is joined to; itself when it has clay enough or nothing to join. */
function joinSmall(
  parts: Part,
  partOf: Int32Array,
  strides: readonly number[],
  piece: Uint8Array | null,
  openings: (i: number, k: number) => number,
): Int32Array {
  const target = new Int32Array(parts.count);
  for (let p = 0; p < parts.count; p++) {
    target[p] = p;
    if (parts.share[p]! >= joinedBelow) continue;
    const i = parts.lattice[p]!;
    let best = -1,
      most = 0;
    for (let k = 0; k < 3; k++) {
      const s = strides[k]!;
      for (const way of [-1, 1]) {
        const q = partOf[i + way * s]!;
        if (q < 0 || (piece && piece[i] !== piece[i + way * s])) continue;
        const fit = openings(way > 0 ? i : i - s, k) * min(1, parts.share[q]! / joinedBelow) + 1e-6 * parts.share[q]!;
        const large = parts.share[q]! >= joinedBelow || parts.share[q]! > parts.share[p]!;
        if (large && fit > most) {
          most = fit;
          best = q;
        }
      }
    }
    if (best >= 0) target[p] = best;
  }
  // A small cell joined to a small one goes where that one went; shares rise along the way, so there is an end.
  for (let p = 0; p < parts.count; p++) {
    let q = p;
    while (target[q] !== q) q = target[q]!;
    target[p] = q;
  }
  return target;
}

/** Cuts the lattice into cells. Throws when there is no clay in it: the caller knows whether there should be. */
export function clayCells(lattice: ClayLattice): ClayCells {
  const { size, step } = lattice;
  const strides = [1, size[0], size[0] * size[1]] as const;
  const outer = new Surface(lattice.outer, 1 / step, size),
    inner = new Surface(lattice.inner, 1 / step, size);
  const parts = measureParts(lattice, outer, inner);
  if (parts.count === 0) throw new Error('there is no clay to dry');
  const partOf = new Int32Array(size[0] * size[1] * size[2]).fill(-1);
  for (let p = 0; p < parts.count; p++) partOf[parts.lattice[p]!] = p;
  const openOuter = (i: number, k: number) => outer.opening(i, k);
  const openInner = (i: number, k: number) => inner.opening(i, k);
  const openClay = (i: number, k: number) => max(0, openOuter(i, k) - openInner(i, k));
  const target = joinSmall(parts, partOf, strides, lattice.cut ? lattice.piece : null, openClay);

  // Cells in lattice order.
  const cellOfPart = new Int32Array(parts.count).fill(-1);
  let count = 0;
  for (let p = 0; p < parts.count; p++) if (target[p] === p) cellOfPart[p] = count++;
  const pad = size[0] + 8;
  const f32 = () => new Float32Array(count + 2 * pad);
  const cells = { inverse: f32(), xp: f32(), yp: f32(), ym: f32(), zp: f32(), zm: f32(), pace: f32() };
  const cellOf = new Int32Array(partOf.length).fill(-1);
  const latticeOf = new Int32Array(count);
  const region = new Uint8Array(count + 2 * pad);
  const clay = new Float64Array(count),
    middle = new Float64Array(count * 3);
  for (let p = 0; p < parts.count; p++) {
    const at = cellOfPart[target[p]!]!;
    const i = parts.lattice[p]!,
      s = parts.share[p]!;
    const home = parts.lattice[target[p]!]!;
    cellOf[i] = at + pad;
    if (target[p] === p) {
      latticeOf[at] = i;
      region[at + pad] = lattice.region[i]!;
    }
    clay[at] = clay[at]! + s;
    const away = offset(i, home, strides);
    for (let k = 0; k < 3; k++) middle[at * 3 + k] = middle[at * 3 + k]! + s * (parts.middle[p * 3 + k]! + away[k]!);
  }
  for (let c = 0; c < count; c++) {
    for (let k = 0; k < 3; k++) middle[c * 3 + k] = middle[c * 3 + k]! / clay[c]!;
    cells.inverse[c + pad] = 1 / clay[c]!;
  }
  const sides = [
    [cells.xp, null],
    [cells.yp, cells.ym],
    [cells.zp, cells.zm],
  ] as const;
  const cut: CutSide[] = [];
  for (let c = 0; c < count; c++) {
    const i = latticeOf[c]!;
    for (let k = 0; k < 3; k++) {
      const j = i + strides[k]!;
      const q = partOf[j]!;
      // A cell that was joined away takes its open sides with it.
      if (q < 0 || target[q] !== q) continue;
      const open = openClay(i, k);
      if (open <= 0) continue;
      const d = cellOfPart[q]!;
      if (lattice.cut && lattice.piece && lattice.piece[i] !== lattice.piece[j]) {
        cut.push({ cell: c, area: open, axis: k, way: 1 }, { cell: d, area: open, axis: k, way: -1 });
        continue;
      }
      const g = open / between(outer, i, j, k, middle, c, d);
      (sides[k]?.[0] as Float32Array)[c + pad] = g;
      if (k > 0) (sides[k]?.[1] as Float32Array)[d + pad] = g;
      cells.pace[c + pad] = cells.pace[c + pad]! + g;
      cells.pace[d + pad] = cells.pace[d + pad]! + g;
    }
  }
  steady(cells, latticeOf, cellOf, strides, pad);
  const facesOf = (surface: Surface, sign: number) =>
    cutFaces(surface, sign, parts, target, cellOfPart, latticeOf, strides, middle, count, pad, step);
  return {
    lattice,
    count,
    pad,
    cellOf,
    latticeOf,
    ...cells,
    region,
    runs: runsOf(latticeOf, cellOf, strides, count, pad, cells),
    outerFaces: withCut(facesOf(outer, 1), cut, pad, step),
    innerFaces: facesOf(inner, -1),
    parts: {
      lattice: parts.lattice.slice(0, parts.count),
      share: Float32Array.from(parts.share.subarray(0, parts.count)),
      cell: Int32Array.from(target, (t) => cellOfPart[t]! + pad),
    },
    volume: clay.reduce((sum, v) => sum + v, 0) * step ** 3,
  };
}

/**
 * A few cells cut at awkward angles would set the time step for all: their sides are narrowed until they keep pace, on
 * both sides alike.
 */
function steady(
  cells: {
    readonly inverse: Float32Array;
    readonly xp: Float32Array;
    readonly yp: Float32Array;
    readonly ym: Float32Array;
    readonly zp: Float32Array;
    readonly zm: Float32Array;
    readonly pace: Float32Array;
  },
  latticeOf: Int32Array,
  cellOf: Int32Array,
  strides: readonly number[],
  pad: number,
): void {
  const count = latticeOf.length;
  const narrowed = new Float32Array(count + 2 * pad).fill(1);
  for (let c = pad; c < count + pad; c++)
    narrowed[c] = min(1, mostPace / max(1e-9, cells.pace[c]! * cells.inverse[c]!));
  cells.pace.fill(0);
  const sides = [
    [cells.xp, null],
    [cells.yp, cells.ym],
    [cells.zp, cells.zm],
  ] as const;
  for (let c = pad; c < count + pad; c++) {
    for (let k = 0; k < 3; k++) {
      const [ahead, back] = sides[k] as readonly [Float32Array, Float32Array | null];
      const g = ahead[c]!;
      if (g === 0) continue;
      const d = cellOf[latticeOf[c - pad]! + strides[k]!]!;
      const kept = g * min(narrowed[c]!, narrowed[d]!);
      ahead[c] = kept;
      if (back) back[d] = ahead[c]!;
      cells.pace[c] = cells.pace[c]! + kept;
      cells.pace[d] = cells.pace[d]! + kept;
    }
  }
  for (let c = pad; c < count + pad; c++) cells.pace[c] = cells.pace[c]! * cells.inverse[c]!;
}

/** From cell `home` to cell `i`, in cells: they are neighbours, or neighbours of neighbours. */
function offset(i: number, home: number, strides: readonly number[]): readonly number[] {
  let rest = i - home;
  const z = Math.round(rest / strides[2]!);
  rest -= z * strides[2]!;
  const y = Math.round(rest / strides[1]!);
  return [rest - y * strides[1]!, y, z];
}

/**
 * How far two cells stand from each other as water sees it, in cells. Moisture changes across the faces and hardly
 * along them, so it is the way along the slope that counts, seen down the axis.
 */
function between(outer: Surface, i: number, j: number, k: number, middle: Float64Array, c: number, d: number): number {
  const way = [0, 1, 2].map((a) => (a === k ? 1 : 0) + middle[d * 3 + a]! - middle[c * 3 + a]!);
  const straight = way[k]!;
  let length = straight;
  if (outer.cuts(i) || outer.cuts(j) || straight !== 1) {
    outer.slope(i);
    let gx = outer.gx,
      gy = outer.gy,
      gz = outer.gz;
    outer.slope(j);
    gx += outer.gx;
    gy += outer.gy;
    gz += outer.gz;
    const size = hypot(gx, gy, gz) || 1;
    const along = (k === 0 ? gx : k === 1 ? gy : gz) / size;
    if (abs(along) > 0.35) length = (gx * way[0]! + gy * way[1]! + gz * way[2]!) / size / along;
  }
  return min(1.7, max(0.45, length));
}

/** Area of one face in every cell: what its sides do not close. */
function cutFaces(
  surface: Surface,
  sign: number,
  parts: Part,
  target: Int32Array,
  cellOfPart: Int32Array,
  latticeOf: Int32Array,
  strides: readonly number[],
  middle: Float64Array,
  count: number,
  pad: number,
  step: number,
): ClayFaces {
  const area = new Float64Array(count),
    normal = new Float64Array(count * 3);
  for (let p = 0; p < parts.count; p++) {
    const i = parts.lattice[p]!;
    if (!surface.cuts(i)) continue;
    const v: [number, number, number] = [0, 0, 0];
    for (let k = 0; k < 3; k++) v[k] = surface.opening(i - strides[k]!, k) - surface.opening(i, k);
    const size = hypot(v[0], v[1], v[2]);
    if (size < 1e-6) continue;
    const c = cellOfPart[target[p]!]!;
    area[c] = area[c]! + size;
    // The sides point from more to less of the inside: outward for the outer face; the core's face looks into the core.
    for (let k = 0; k < 3; k++) normal[c * 3 + k] = normal[c * 3 + k]! + sign * v[k]!;
  }
  const kept: number[] = [];
  for (let c = 0; c < count; c++) if (area[c]! > 1e-4) kept.push(c);
  const out = {
    count: kept.length,
    cell: new Int32Array(kept.length),
    area: new Float64Array(kept.length),
    depth: new Float32Array(kept.length),
    normal: new Float32Array(kept.length * 3),
  };
  kept.forEach((c, f) => {
    const i = latticeOf[c]!;
    surface.slope(i);
    const d =
      surface.at(i) + surface.gx * middle[c * 3]! + surface.gy * middle[c * 3 + 1]! + surface.gz * middle[c * 3 + 2]!;
    out.cell[f] = c + pad;
    out.area[f] = area[c]! * step * step;
    out.depth[f] = min(1.6, max(0.08, -sign * d)) * step;
    const n = sqrt(normal[c * 3]! ** 2 + normal[c * 3 + 1]! ** 2 + normal[c * 3 + 2]! ** 2) || 1;
    for (let k = 0; k < 3; k++) out.normal[f * 3 + k] = normal[c * 3 + k]! / n;
  });
  return out;
}

interface CutSide {
  readonly cell: number;
  readonly area: number;
  readonly axis: number;
  readonly way: number;
}

/** The faces of a cut lie half a cell from the middles on either side of it. In order of their cells, as all faces are. */
function withCut(faces: ClayFaces, cut: readonly CutSide[], pad: number, step: number): ClayFaces {
  if (cut.length === 0) return faces;
  const all = [
    ...Array.from({ length: faces.count }, (_, f) => ({
      cell: faces.cell[f]!,
      area: faces.area[f]!,
      depth: faces.depth[f]!,
      normal: [...faces.normal.subarray(f * 3, f * 3 + 3)],
    })),
    ...cut.map((s) => ({
      cell: s.cell + pad,
      area: s.area * step * step,
      depth: step / 2,
      normal: [0, 1, 2].map((a) => (a === s.axis ? s.way : 0)),
    })),
  ].sort((a, b) => a.cell - b.cell);
  return {
    count: all.length,
    cell: Int32Array.from(all, (f) => f.cell),
    area: Float64Array.from(all, (f) => f.area),
    depth: Float32Array.from(all, (f) => f.depth),
    normal: Float32Array.from(all.flatMap((f) => f.normal)),
  };
}

/** Stretches of cells whose neighbours lie at one offset each way. A missing neighbour may lie anywhere: its side is shut. */
function runsOf(
  latticeOf: Int32Array,
  cellOf: Int32Array,
  strides: readonly number[],
  count: number,
  pad: number,
  sides: { readonly yp: Float32Array; readonly ym: Float32Array; readonly zp: Float32Array; readonly zm: Float32Array },
): Int32Array {
  const runs: number[] = [];
  const ways = [strides[1]!, -strides[1]!, strides[2]!, -strides[2]!];
  const open = [sides.yp, sides.ym, sides.zp, sides.zm];
  let start = 0;
  let offsets: (number | null)[] = [null, null, null, null];
  const close = (end: number) => {
    if (end > start) runs.push(start + pad, end - start, ...offsets.map((o) => o ?? 0));
  };
  for (let c = 0; c < count; c++) {
    const i = latticeOf[c]!;
    const wanted = ways.map((w, k) => (open[k]![c + pad]! > 0 ? cellOf[i + w]! - (c + pad) : null));
    const fits = c - start < pad - 8 && wanted.every((w, k) => w === null || offsets[k] === null || offsets[k] === w);
    if (!fits) {
      close(c);
      start = c;
      offsets = [null, null, null, null];
    }
    wanted.forEach((w, k) => {
      if (w !== null) offsets[k] = w;
    });
  }
  close(count);
  return Int32Array.from(runs);
}
