import type { Box, DistanceField } from '../form';

/**
 * How much lies within some distances of a piece: skins and shells over it, walls within it, block round it. Cells are
 * counted by their distance from the face, those that are cut by the share of them that lies within; what lies under the
 * board is not counted. SI.
 */
export interface OffsetInputs {
  readonly field: DistanceField;
  /** Of the piece. */
  readonly box: Box;
  /** Height of the board it stands on: nothing is laid below it. Null for a piece that hangs free. */
  readonly board: number | null;
  /** Cells are no larger than this. */
  readonly finest: number;
}

const side = 8;
/** Cells along the longest side of what is counted: more tell nothing a scale would show, with fewer a thin limb is lost. */
const mostAlong = 180,
  leastAlong = 100;

/** m3 within each of these distances of the face, metres; below zero is within the piece. */
export function volumesWithin(inputs: OffsetInputs, offsets: readonly number[]): number[] {
  const grid = sampled(inputs, Math.min(0, ...offsets), Math.max(0, ...offsets));
  if (grid.open.includes(1)) spread(grid);
  const { distance, step } = grid;
  return offsets.map((offset) => {
    let cells = 0;
    for (let i = 0; i < distance.length; i++) cells += Math.min(1, Math.max(0, 0.5 + (offset - distance[i]!) / step));
    return cells * step ** 3;
  });
}

interface Sampled {
  readonly size: readonly [number, number, number];
  readonly step: number;
  /** At the middle of each cell; Infinity where it is further out than is asked for. */
  readonly distance: Float32Array;
  /** Cells that are measured from the face: further out than a cell or two, where the form's own distance is a bound only. */
  readonly open: Uint8Array;
  /** For each of those, and for those about the face, the cell about the face that is nearest; -1 where none is known. */
  readonly nearest: Int32Array;
}

/** Cells about the face have the form's own distance, those within too. */
function sampled({ field, box, board, finest }: OffsetInputs, least: number, most: number): Sampled {
  const low = box.low.map((v) => v - most),
    high = box.high.map((v) => v + most);
  if (board !== null) low[2] = Math.max(low[2]!, board);
  const longest = Math.max(...high.map((v, k) => v - low[k]!));
  const step = Math.min(longest / leastAlong, Math.max(finest, longest / mostAlong));
  const blocks = high.map((v, k) => Math.max(1, Math.ceil((v - low[k]!) / (step * side)))) as [number, number, number];
  const size = blocks.map((b) => b * side) as [number, number, number];
  const count = size[0] * size[1] * size[2];
  const distance = new Float32Array(count).fill(Infinity),
    open = new Uint8Array(count),
    nearest = new Int32Array(count).fill(-1);
  // Beyond its samples a mesh has a bound only; every other shape has its distance anywhere.
  const own = field.masses.every((m) => m.shape.kind !== 'sampled');
  const everyone = field.all();
  const kept = new Int32Array(everyone.length);
  const half = (side * step) / 2;
  const reach = half * Math.sqrt(3) * field.slope;
  for (let b = 0; b < blocks[0] * blocks[1] * blocks[2]; b++) {
    const x0 = (b % blocks[0]) * side,
      y0 = (Math.floor(b / blocks[0]) % blocks[1]) * side,
      z0 = Math.floor(b / (blocks[0] * blocks[1])) * side;
    field.prune(
      low[0]! + x0 * step + half,
      low[1]! + y0 * step + half,
      low[2]! + z0 * step + half,
      reach,
      everyone,
      everyone.length,
      kept,
    );
    const { count: many, distance: middle } = field.pruned;
    if (middle - reach > most + step) continue;
    const deep = middle + reach < least - step && middle + reach < -2 * step;
    for (let c = 0; c < side ** 3; c++) {
      const x = x0 + (c % side),
        y = y0 + (Math.floor(c / side) % side),
        z = z0 + Math.floor(c / side ** 2);
      const i = x + size[0] * (y + size[1] * z);
      if (deep) {
        distance[i] = -Infinity;
        continue;
      }
      const d = field.at(
        low[0]! + (x + 0.5) * step,
        low[1]! + (y + 0.5) * step,
        low[2]! + (z + 0.5) * step,
        kept,
        many,
      );
      if (Math.abs(d) < aboutTheFace * step) nearest[i] = i;
      if (own || d < aboutTheFace * step) distance[i] = d;
      else open[i] = 1;
    }
  }
  return { size, step, distance, open, nearest };
}

/** Cells from the face, within which the form's own distance is taken. */
const aboutTheFace = 1.5;

/**
 * How far the open cells are from the face: the way to a cell about the face and that cell's own distance, least of all
 * such cells, which is handed on from neighbour to neighbour, once forward and once back. Danielsson, *Euclidean Distance
 * Mapping*.
 */
function spread({ size: [nx, ny, nz], step, distance, open, nearest }: Sampled): void {
  const row = nx,
    sheet = nx * ny;
  const before: number[] = [];
  for (let dz = -1; dz <= 0; dz++)
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) if (dz < 0 || dy < 0 || (dy === 0 && dx < 0)) before.push(dx, dy, dz);
  const look = (i: number, x: number, y: number, z: number, way: 1 | -1): void => {
    for (let n = 0; n < before.length; n += 3) {
      const ox = x + way * before[n]!,
        oy = y + way * before[n + 1]!,
        oz = z + way * before[n + 2]!;
      if (ox < 0 || oy < 0 || oz < 0 || ox >= nx || oy >= ny || oz >= nz) continue;
      const from = nearest[ox + row * oy + sheet * oz]!;
      if (from < 0) continue;
      const sx = (from % nx) - x,
        sy = (Math.floor(from / nx) % ny) - y,
        sz = Math.floor(from / sheet) - z;
      const d = step * Math.sqrt(sx * sx + sy * sy + sz * sz) + distance[from]!;
      if (d >= distance[i]!) continue;
      distance[i] = d;
      nearest[i] = from;
    }
  };
  for (let z = 0; z < nz; z++)
    for (let y = 0; y < ny; y++)
      for (let x = 0, i = row * y + sheet * z; x < nx; x++, i++) if (open[i]) look(i, x, y, z, 1);
  for (let z = nz - 1; z >= 0; z--)
    for (let y = ny - 1; y >= 0; y--)
      for (let x = nx - 1, i = x + row * y + sheet * z; x >= 0; x--, i--) if (open[i]) look(i, x, y, z, -1);
}

/** m3 of a box about the piece, so far from it on every side but the one it stands on, less the piece. */
export function blockAbout(box: Box, board: number | null, margin: number, piece: number): number {
  const [w, d] = [0, 1].map((k) => box.high[k]! - box.low[k]! + 2 * margin) as [number, number];
  const h = box.high[2] + margin - (board ?? box.low[2] - margin);
  return w * d * h - piece;
}
