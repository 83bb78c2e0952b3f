import type { Vec3 } from '../quantity';
import type { MasterFace } from './face';
import { HeightFields } from './height-fields';

/** A place where a rigid mould holds the piece fast: its deepest point, how deep, and m3 to fill there so that it comes off. */
export interface Lock {
  readonly at: Vec3;
  /** Metres from there to the nearest place from which a part can be drawn. */
  readonly depth: number;
  readonly volume: number;
}

/** In the piece's box: finer tell nothing a scale would show. */
const wanted = 1_200_000;
/** Cells: less deep than this, or fewer, is what cells make of a face, not a lock. */
const least = 1.5,
  fewest = 20;

/** A mould that is open behind lies over what is labelled 0; looked at from behind, what has none of that before it is no place of it. */
export interface OpenBehind {
  readonly over: Uint8Array;
  readonly pull: Vec3;
}

/** Those triangles alone, as they are met from behind: turned over, or a picture along the other way would not hold them. */
function turnedOver(face: MasterFace, counts: (t: number) => boolean): MasterFace {
  const kept: number[] = [];
  for (let t = 0; t < face.count; t++) if (!face.stands[t] && counts(t)) kept.push(t);
  const triangles = new Uint32Array(3 * kept.length),
    normals = new Float32Array(3 * kept.length);
  for (const [i, t] of kept.entries())
    for (let k = 0; k < 3; k++) {
      triangles[3 * i + k] = face.triangles[3 * t + k]!;
      normals[3 * i + k] = -face.normals[3 * t + k]!;
    }
  return { ...face, triangles, normals, count: kept.length };
}

/** Cells in a box about the piece, one at a time. */
export interface Cells {
  readonly low: readonly [number, number, number];
  readonly step: number;
  readonly size: readonly [number, number, number];
  /** Inside the piece. */
  readonly solid: Uint8Array;
}

/**
 * Where in its cell each column of cells is asked: not all at the middle, or a flat side of the piece would gain or lose a
 * whole layer of them. Shares of a cell, evenly strewn by multiples of irrational numbers: Niederreiter (1992), *Random
 * Number Generation and Quasi-Monte Carlo Methods*.
 */
function strewn(x: number, y: number): [number, number, number] {
  const share = (a: number, b: number) => (0.5 + a * x + b * y) % 1;
  return [share(0.7548776662, 0.4198741234), share(0.5698402909, 0.8191725134), share(0.2450223337, 0.6710436067)];
}

/**
 * Places outside the piece, above the board, from which along every pull the piece is met: none of the parts can come
 * away past it. Those that hang together are one lock, deepest first.
 */
export function findLocks(
  face: MasterFace,
  pulls: readonly Vec3[],
  board: number | null,
  open: OpenBehind | null = null,
  cellCount = wanted,
): Lock[] {
  const cells = cellsOf(face, cellCount, board);
  const { solid, size, low, step } = cells;
  const locked = new Uint8Array(solid.length);
  for (let i = 0; i < solid.length; i++) if (!solid[i]) locked[i] = 1;
  // Finer than cells: at a silhouette a whole layer of them lies on one side or the other.
  const views = [
    ...pulls.map((pull) => ({ of: face, pull })),
    ...(open ? [{ of: turnedOver(face, (t) => open.over[t] === 0), pull: open.pull }] : []),
  ];
  for (const { of, pull } of views) {
    const fields = new HeightFields(of, step / 3).look(pull);
    for (let y = 0, column = 0; y < size[1]; y++)
      for (let x = 0; x < size[0]; x++, column++) {
        const [dx, dy, dz] = strewn(x, y);
        const lowest: Vec3 = [low[0] + (x + dx) * step, low[1] + (y + dy) * step, low[2] + dz * step];
        fields.clearOpen(locked, column, size[0] * size[1], size[2], lowest, step);
      }
  }
  if (!locked.includes(1)) return [];
  const depth = distanceToOpen(cells, locked);
  return lumps(cells, locked, depth)
    .filter((l) => l.depth >= least * step && l.volume >= fewest * step ** 3)
    .sort((a, b) => b.depth - a.depth);
}

/** Cells of the piece's box and two about it; inside is told by crossings of columns. */
export function cellsOf(face: MasterFace, count: number, board: number | null): Cells {
  const sides = face.high.map((v, k) => v - face.low[k]!);
  // A flat piece has fewer of them, no thinner than a thousandth of its length.
  const step = Math.max(Math.cbrt((sides[0]! * sides[1]! * sides[2]!) / count), Math.max(...sides) / 1000);
  const margin = 2;
  const low = face.low.map((v) => v - margin * step) as [number, number, number];
  if (board !== null) low[2] = Math.max(low[2], board);
  const size = face.high.map((v, k) => Math.ceil((v - low[k]!) / step) + margin) as [number, number, number];
  const solid = new Uint8Array(size[0] * size[1] * size[2]);
  const columns: number[][] = Array.from({ length: size[0] * size[1] }, () => []);
  const { positions: p, triangles } = face;
  for (let t = 0; t < face.count; t++) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * triangles[3 * t + k]!) as [number, number, number];
    const ax = (p[a]! - low[0]) / step,
      ay = (p[a + 1]! - low[1]) / step,
      bx = (p[b]! - low[0]) / step,
      by = (p[b + 1]! - low[1]) / step,
      cx = (p[c]! - low[0]) / step,
      cy = (p[c + 1]! - low[1]) / step;
    const twice = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (twice === 0) continue;
    const x0 = Math.max(0, Math.ceil(Math.min(ax, bx, cx) - 1)),
      x1 = Math.min(size[0] - 1, Math.floor(Math.max(ax, bx, cx))),
      y0 = Math.max(0, Math.ceil(Math.min(ay, by, cy) - 1)),
      y1 = Math.min(size[1] - 1, Math.floor(Math.max(ay, by, cy)));
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        const [dx, dy] = strewn(x, y);
        const qx = x + dx,
          qy = y + dy;
        const wa = ((bx - qx) * (cy - qy) - (by - qy) * (cx - qx)) / twice,
          wb = ((cx - qx) * (ay - qy) - (cy - qy) * (ax - qx)) / twice,
          wc = 1 - wa - wb;
        if (wa < 0 || wb < 0 || wc < 0) continue;
        columns[x + size[0] * y]!.push(wa * p[a + 2]! + wb * p[b + 2]! + wc * p[c + 2]!);
      }
  }
  for (const [column, heights] of columns.entries()) {
    heights.sort((a, b) => a - b);
    const dz = strewn(column % size[0], Math.floor(column / size[0]))[2];
    for (let k = 0; k + 1 < heights.length; k += 2) {
      const z0 = Math.max(0, Math.ceil((heights[k]! - low[2]) / step - dz)),
        z1 = Math.min(size[2] - 1, Math.floor((heights[k + 1]! - low[2]) / step - dz));
      for (let z = z0; z <= z1; z++) solid[column + size[0] * size[1] * z] = 1;
    }
  }
  return { low, step, size, solid };
}

/**
 * Metres from each locked cell to the nearest that is open: squares of distances, axis by axis. Felzenszwalb and
 * Huttenlocher (2012), *Distance Transforms of Sampled Functions*.
 */
function distanceToOpen({ size, step, solid }: Cells, locked: Uint8Array): Float64Array {
  const squares = new Float64Array(solid.length);
  for (let i = 0; i < squares.length; i++) squares[i] = solid[i] || locked[i] ? 1e12 : 0;
  const longest = Math.max(...size);
  const line = new Float64Array(longest),
    out = new Float64Array(longest),
    at = new Int32Array(longest),
    edge = new Float64Array(longest + 1);
  const strides = [1, size[0], size[0] * size[1]];
  // Along the second axis only lines that cross a column with something locked are asked for later; along the last, those columns.
  const columns = new Uint8Array(strides[2]!),
    crossing = new Uint8Array(size[0]);
  for (let i = 0; i < locked.length; i++) if (locked[i]) columns[i % strides[2]!] = crossing[i % size[0]] = 1;
  for (let axis = 0; axis < 3; axis++) {
    const n = size[axis]!,
      stride = strides[axis]!,
      slab = n * stride;
    for (let low = 0; low < squares.length; low += slab)
      for (let start = low; start < low + stride; start++) {
        if ((axis === 1 && !crossing[start % size[0]]) || (axis === 2 && !columns[start])) continue;
        let far = false;
        for (let i = 0; i < n; i++) if ((line[i] = squares[start + i * stride]!) > 0) far = true;
        if (!far) continue;
        lowerEnvelope(line, n, out, at, edge);
        for (let i = 0; i < n; i++) squares[start + i * stride] = out[i]!;
      }
  }
  for (let i = 0; i < squares.length; i++) squares[i] = locked[i] ? Math.sqrt(squares[i]!) * step : 0;
  return squares;
}

function lowerEnvelope(f: Float64Array, n: number, out: Float64Array, at: Int32Array, edge: Float64Array): void {
  let k = 0;
  at[0] = 0;
  edge[0] = -Infinity;
  edge[1] = Infinity;
  for (let q = 1; q < n; q++) {
    let s = 0;
    for (;;) {
      const v = at[k]!;
      s = (f[q]! + q * q - (f[v]! + v * v)) / (2 * (q - v));
      if (s > edge[k]! || k === 0) break;
      k--;
    }
    if (s <= edge[k]!) {
      at[k] = q;
      edge[k + 1] = Infinity;
      continue;
    }
    k++;
    at[k] = q;
    edge[k] = s;
    edge[k + 1] = Infinity;
  }
  for (let q = 0, j = 0; q < n; q++) {
    while (edge[j + 1]! < q) j++;
    out[q] = (q - at[j]!) ** 2 + f[at[j]!]!;
  }
}

function lumps({ size, low, step }: Cells, locked: Uint8Array, depth: Float64Array): Lock[] {
  const seen = new Uint8Array(locked.length);
  const [nx, ny, nz] = size;
  const out: Lock[] = [];
  for (let start = 0; start < locked.length; start++) {
    if (!locked[start] || seen[start]) continue;
    const waiting = [start];
    seen[start] = 1;
    let cells = 0,
      deepest = start;
    while (waiting.length > 0) {
      const i = waiting.pop()!;
      cells++;
      if (depth[i]! > depth[deepest]!) deepest = i;
      const x = i % nx,
        y = Math.floor(i / nx) % ny,
        z = Math.floor(i / (nx * ny));
      const visit = (there: boolean, j: number) => {
        if (!there || !locked[j] || seen[j]) return;
        seen[j] = 1;
        waiting.push(j);
      };
      visit(x > 0, i - 1);
      visit(x < nx - 1, i + 1);
      visit(y > 0, i - nx);
      visit(y < ny - 1, i + nx);
      visit(z > 0, i - nx * ny);
      visit(z < nz - 1, i + nx * ny);
    }
    const at: Vec3 = [
      low[0] + ((deepest % nx) + 0.5) * step,
      low[1] + ((Math.floor(deepest / nx) % ny) + 0.5) * step,
      low[2] + (Math.floor(deepest / (nx * ny)) + 0.5) * step,
    ];
    out.push({ at, depth: depth[deepest]!, volume: cells * step ** 3 });
  }
  return out;
}
