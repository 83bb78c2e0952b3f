import type { ClayCells, ClayFaces } from '../clay-cells';
import { depthSteps, moistureSteps, type Diffusivity } from '../face-table';
import { sweepModule } from './sweep.wasm';

/**
 * The one memory the drying kernel works in, and the one file that knows where what lies in it. Numbers of the cells
 * are views of it: what is read here is what the kernel wrote.
 */
interface Exports {
  readonly sweepRuns: (
    runs: number,
    from: number,
    to: number,
    scale: number,
    growth: number,
    linear: number,
    u: number,
    next: number,
    moisture: number,
    inverse: number,
    xp: number,
    yp: number,
    ym: number,
    zp: number,
    zm: number,
    masks: number,
  ) => void;
  readonly sweepFaces: (
    from: number,
    to: number,
    dt: number,
    perMoisture: number,
    cells: number,
    pull: number,
    area: number,
    rows: number,
    between: number,
    changes: number,
    tables: number,
    moisture: number,
  ) => number;
  readonly settleFaces: (
    from: number,
    to: number,
    growth: number,
    linear: number,
    cells: number,
    changes: number,
    next: number,
  ) => void;
  readonly refresh: (
    from: number,
    to: number,
    perMoisture: number,
    moisture: number,
    u: number,
    table: number,
    last: number,
  ) => void;
  readonly fastest: (from: number, to: number, pace: number, u: number) => number;
}

let compiled: WebAssembly.Module | null = null;

function moduleOnce(): WebAssembly.Module {
  compiled ??= new WebAssembly.Module(Uint8Array.from(atob(sweepModule), (c) => c.charCodeAt(0)));
  return compiled;
}

const tablePoints = 4096;
const page = 65536;

/** Faces of one kind, in the kernel's memory. */
export interface KernelFaces {
  readonly faces: ClayFaces;
  readonly rows: Int32Array;
  readonly between: Float32Array;
  readonly pull: Float64Array;
  /** Of moisture in the cells, by the last step. */
  readonly changes: Float64Array;
  readonly at: {
    readonly cells: number;
    readonly pull: number;
    readonly area: number;
    readonly rows: number;
    readonly between: number;
    readonly changes: number;
  };
  /** Where its flux tables lie; 0 while nothing leaves. */
  tables: number;
}

export class SweepKernel {
  readonly moisture: Float64Array;
  readonly outer: KernelFaces;
  readonly inner: KernelFaces;
  private readonly exports: Exports;
  private readonly memory: WebAssembly.Memory;
  private used = 1024;
  private readonly at: Record<
    | 'runs'
    | 'u'
    | 'next'
    | 'moisture'
    | 'inverse'
    | 'xp'
    | 'yp'
    | 'ym'
    | 'zp'
    | 'zm'
    | 'pace'
    | 'masks'
    | 'table'
    | 'outerTables'
    | 'innerTables',
    number
  >;
  private swapped = false;
  private readonly growth: number;
  private readonly linear: number;

  /** `groups`: how many kinds of outer and of inner face there can be at a time. */
  constructor(
    readonly cells: ClayCells,
    d: Diffusivity,
    private readonly most: number,
    groups: number,
  ) {
    const length = cells.count + 2 * cells.pad;
    const perFace = 4 + 8 + 8 + 4 + 4 + 8;
    const tableBytes = groups * (depthSteps + 1) * (moistureSteps + 1) * 8;
    const bytes =
      length * (9 * 4 + 8) +
      cells.runs.length * 4 +
      (cells.outerFaces.count + cells.innerFaces.count) * perFace +
      2 * tableBytes +
      (tablePoints + 2) * 8 +
      4096;
    this.memory = new WebAssembly.Memory({ initial: Math.ceil(bytes / page) + 1 });
    this.exports = new WebAssembly.Instance(moduleOnce(), {
      env: {
        memory: this.memory,
        abort: () => {
          throw new Error('the drying kernel stopped');
        },
      },
    }).exports as unknown as Exports;
    const f32 = (from: Float32Array | null) => {
      const place = this.take(length * 4);
      if (from) new Float32Array(this.memory.buffer, place, length).set(from);
      return place;
    };
    this.at = {
      u: f32(null),
      next: f32(null),
      inverse: f32(cells.inverse),
      xp: f32(cells.xp),
      yp: f32(cells.yp),
      ym: f32(cells.ym),
      zp: f32(cells.zp),
      zm: f32(cells.zm),
      pace: f32(cells.pace),
      moisture: this.take(length * 8),
      runs: this.take(cells.runs.length * 4),
      masks: this.take(80),
      table: this.take((tablePoints + 2) * 8),
      outerTables: this.take(tableBytes),
      innerTables: this.take(tableBytes),
    };
    new Int32Array(this.memory.buffer, this.at.runs, cells.runs.length).set(cells.runs);
    // Mask m lets the first m of four through.
    const masks = new Int32Array(this.memory.buffer, this.at.masks, 20);
    for (let m = 0; m < 5; m++) for (let lane = 0; lane < m; lane++) masks[m * 4 + lane] = -1;
    const table = new Float64Array(this.memory.buffer, this.at.table, tablePoints + 2);
    for (let i = 0; i < table.length; i++) table[i] = d.kirchhoff((most * i) / tablePoints);
    this.moisture = new Float64Array(this.memory.buffer, this.at.moisture, length);
    this.growth = d.growth;
    this.linear = d.constant ? d.clay.D_dry : 0;
    const cell = d.clay.rho_dry * cells.lattice.step ** 3;
    this.outer = this.keepFaces(cells.outerFaces, cell);
    this.inner = this.keepFaces(cells.innerFaces, cell);
  }

  /** Tables one after another, as many as there are groups at most. */
  setTables(which: 'outer' | 'inner', tables: readonly Float64Array[]): void {
    const place = which === 'outer' ? this.at.outerTables : this.at.innerTables;
    const size = (depthSteps + 1) * (moistureSteps + 1);
    tables.forEach((t, g) => new Float64Array(this.memory.buffer, place + g * size * 8, size).set(t));
    this[which].tables = tables.length === 0 ? 0 : place;
  }

  /**
   * Cells of runs from-to and the faces of those cells; returns kg/s leaving. Reads what was before the step, writes what is
   * after. `diffusion` is how much faster water moves between cells than at 20 degrees; the faces' tables have it already.
   */
  sweep(
    runs: readonly [number, number],
    outer: readonly [number, number],
    inner: readonly [number, number],
    dt: number,
    diffusion = 1,
  ): number {
    const { at, cells, exports: e } = this;
    const u = this.swapped ? at.next : at.u,
      next = this.swapped ? at.u : at.next;
    const per = moistureSteps / this.most;
    // Faces look at moisture before the runs change it, and runs at u before the faces do: neither comes first.
    let leaving = 0;
    for (const [f, [from, to]] of [
      [this.outer, outer],
      [this.inner, inner],
    ] as const) {
      if (f.tables !== 0)
        leaving += e.sweepFaces(
          from,
          to,
          dt,
          per,
          f.at.cells,
          f.at.pull,
          f.at.area,
          f.at.rows,
          f.at.between,
          f.at.changes,
          f.tables,
          at.moisture,
        );
    }
    e.sweepRuns(
      at.runs,
      runs[0],
      runs[1],
      (dt * diffusion) / cells.lattice.step ** 2,
      this.growth,
      this.linear,
      u,
      next,
      at.moisture,
      at.inverse,
      at.xp,
      at.yp,
      at.ym,
      at.zp,
      at.zm,
      at.masks,
    );
    for (const [f, [from, to]] of [
      [this.outer, outer],
      [this.inner, inner],
    ] as const) {
      if (f.tables !== 0) e.settleFaces(from, to, this.growth, this.linear, f.at.cells, f.at.changes, next);
    }
    return leaving;
  }

  /** After every chunk has been swept. */
  turn(): void {
    this.swapped = !this.swapped;
  }

  refresh(): void {
    const { at, cells } = this;
    this.exports.refresh(
      cells.pad,
      cells.pad + cells.count,
      tablePoints / this.most,
      at.moisture,
      this.swapped ? at.next : at.u,
      at.table,
      tablePoints,
    );
  }

  /** Largest pace of a cell's sides times its u; pace alone where D is constant. */
  fastest(): number {
    const { at, cells } = this;
    return this.exports.fastest(cells.pad, cells.pad + cells.count, at.pace, this.swapped ? at.next : at.u);
  }

  private take(bytes: number): number {
    const place = this.used;
    this.used += Math.ceil(bytes / 16) * 16;
    return place;
  }

  private keepFaces(faces: ClayFaces, cell: number): KernelFaces {
    const { count } = faces;
    const at = {
      cells: this.take(count * 4),
      pull: this.take(count * 8),
      area: this.take(count * 8),
      rows: this.take(count * 4),
      between: this.take(count * 4),
      changes: this.take(count * 8),
    };
    const { buffer } = this.memory;
    new Int32Array(buffer, at.cells, count).set(faces.cell);
    new Float64Array(buffer, at.area, count).set(faces.area);
    const pull = new Float64Array(buffer, at.pull, count);
    for (let f = 0; f < count; f++) pull[f] = (faces.area[f]! * this.cells.inverse[faces.cell[f]!]!) / cell;
    return {
      faces,
      at,
      pull,
      changes: new Float64Array(buffer, at.changes, count),
      rows: new Int32Array(buffer, at.rows, count),
      between: new Float32Array(buffer, at.between, count),
      tables: 0,
    };
  }
}
