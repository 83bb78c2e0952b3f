import type { ClayCells } from './clay-cells';

const { floor, max, min } = Math;

/**
 * Means over the clay round a place: what its skin hangs together with. Sums of volume and of shrinkage stand in a
 * table of running totals over a coarser lattice, so that any box is eight readings. Crow (1984), *Summed-area tables
 * for texture mapping*, in three dimensions. Pieces that stand apart do not pull at each other.
 */
const reachInThicknesses = 1.5;
const mostCoarse = 400_000;

export class Neighbourhoods {
  private readonly size: [number, number, number];
  /** One table a piece. */
  private readonly volumes: Float64Array[];
  private readonly sums: Float64Array[];
  private readonly coarseOf: Int32Array;
  private readonly pieceOf: Uint8Array;
  /** Corners of each face's box: low x, y, z and high, in coarse cells. */
  private readonly boxes: Int16Array;
  private readonly facePiece: Uint8Array;

  /** `thickness` by region, metres. Cells that are not `fresh` are what the fresh clay lies on, and are left out. */
  constructor(
    cells: ClayCells,
    thickness: readonly number[],
    private readonly fresh: Uint8Array | null = null,
  ) {
    const { size, step, piece } = cells.lattice;
    const reach = thickness.map((t) => reachInThicknesses * t);
    const least = reach.reduce((m, r) => min(m, r), Infinity);
    let by = max(1, floor(least / 2 / step));
    if (!Number.isFinite(by)) by = 4;
    while ((size[0] / by) * (size[1] / by) * (size[2] / by) > mostCoarse) by += 1;
    this.size = size.map((n) => Math.ceil(n / by) + 1) as [number, number, number];
    const [nx, ny] = this.size;
    const total = this.size[0] * this.size[1] * this.size[2];
    this.coarseOf = new Int32Array(cells.count);
    this.pieceOf = new Uint8Array(cells.count);
    let pieces = 1;
    for (let c = 0; c < cells.count; c++) {
      const i = cells.latticeOf[c]!;
      const x = i % size[0],
        y = floor(i / size[0]) % size[1],
        z = floor(i / (size[0] * size[1]));
      this.coarseOf[c] = floor(x / by) + 1 + nx * (floor(y / by) + 1 + ny * (floor(z / by) + 1));
      const p = piece ? piece[i]! : 0;
      this.pieceOf[c] = p;
      pieces = max(pieces, p + 1);
    }
    const tables = () => Array.from({ length: pieces }, () => new Float64Array(total));
    this.volumes = tables();
    this.sums = tables();
    this.fill(this.volumes, cells, () => 1);
    const { count, cell } = cells.outerFaces;
    this.boxes = new Int16Array(count * 6);
    this.facePiece = new Uint8Array(count);
    for (let f = 0; f < count; f++) {
      const c = cell[f]! - cells.pad;
      const i = cells.latticeOf[c]!;
      const at = [i % size[0], floor(i / size[0]) % size[1], floor(i / (size[0] * size[1]))];
      const half = max(by, (reach[cells.region[c + cells.pad]!] ?? least) / step);
      for (let k = 0; k < 3; k++) {
        this.boxes[f * 6 + k] = max(0, Math.round((at[k]! + 0.5 - half) / by));
        this.boxes[f * 6 + 3 + k] = min(
          this.size[k]! - 1,
          max(Math.round((at[k]! + 0.5 + half) / by), this.boxes[f * 6 + k]! + 1),
        );
      }
      this.facePiece[f] = this.pieceOf[c]!;
    }
  }

  /** Takes a figure of every cell, by its index in the cell arrays. */
  gather(cells: ClayCells, value: (cell: number) => number): void {
    for (const t of this.sums) t.fill(0);
    this.fill(this.sums, cells, value);
  }

  /** Mean of what was gathered round outer face `f`. */
  meanAt(f: number): number {
    const p = this.facePiece[f]!;
    const volume = this.box(this.volumes[p]!, f);
    return volume > 1e-9 ? this.box(this.sums[p]!, f) / volume : 0;
  }

  private fill(tables: readonly Float64Array[], cells: ClayCells, value: (cell: number) => number): void {
    for (let c = 0; c < cells.count; c++) {
      if (this.fresh && this.fresh[c] === 0) continue;
      const table = tables[this.pieceOf[c]!]!;
      const at = this.coarseOf[c]!;
      table[at] = table[at]! + value(c + cells.pad) / cells.inverse[c + cells.pad]!;
    }
    const [nx, ny, nz] = this.size;
    for (const t of tables) {
      for (let z = 1; z < nz; z++)
        for (let y = 1; y < ny; y++) {
          let row = 0;
          for (let x = 1; x < nx; x++) {
            const i = x + nx * (y + ny * z);
            row += t[i]!;
            t[i] = row + t[i - nx]! + t[i - nx * ny]! - t[i - nx - nx * ny]!;
          }
        }
    }
  }

  private box(t: Float64Array, f: number): number {
    const { boxes } = this;
    const [nx, ny] = this.size;
    const o = f * 6;
    const x0 = boxes[o]!,
      y0 = boxes[o + 1]! * nx,
      z0 = boxes[o + 2]! * nx * ny;
    const x1 = boxes[o + 3]!,
      y1 = boxes[o + 4]! * nx,
      z1 = boxes[o + 5]! * nx * ny;
    return (
      t[x1 + y1 + z1]! -
      t[x0 + y1 + z1]! -
      t[x1 + y0 + z1]! -
      t[x1 + y1 + z0]! +
      t[x0 + y0 + z1]! +
      t[x0 + y1 + z0]! +
      t[x1 + y0 + z0]! -
      t[x0 + y0 + z0]!
    );
  }
}
