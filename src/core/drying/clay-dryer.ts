import type { DryingCoefficients } from '../catalogue';
import { coreAfter, coreGives, coreWaterIn, type DrinkingCore } from './core-water';
import { clayCells, runWidth, type ClayCells, type ClayFaces, type ClayLattice } from './clay-cells';
import { depthSteps, Diffusivity, faceTable, moistureSteps, type FaceConditions, type FaceTable } from './face-table';
import { SweepKernel, type KernelFaces } from './kernel/kernel';

const { max, min } = Math;

/**
 * Drying of the whole piece in three dimensions: dw/dt = div grad u on the clay's cells, u the Kirchhoff variable
 * (integral of D dw), the same physics as through one thickness. Crank, *The Mathematics of Diffusion*, ch. 7.
 *
 * Steps are explicit, held inside stability by the wettest place; what a side gives one cell it takes from the other,
 * so water is kept to rounding. Every cell reads only what its neighbours were before the step, and sums are made by
 * fixed chunks of cells: the answer is the same to the last bit however the chunks are shared out, and whether it was
 * stopped and taken up again or not.
 * A core under a region that drinks fills and gives back (`core-water.ts`); what it gives against the clay is set anew at
 * every look, in steps, and what has really passed is what it holds.
 * Left out: clay pulled away from its core, cracks as new faces.
 */
export interface DryingStage {
  /** Seconds from the first clay. */
  readonly start: number;
  /** The clay there is from then on. Asked for once. */
  readonly lattice: () => ClayLattice;
}

export interface DryingSpan {
  readonly until: number;
  /** By region. */
  readonly outer: readonly FaceConditions[];
  readonly inner: readonly FaceConditions[];
  /** Which way is down, and how much of a face lying that way is shut by what it lies on; null when it hangs free. */
  readonly resting: { readonly down: readonly [number, number, number]; readonly share: number } | null;
  /** Of what it is at 20 degrees, how fast water moves inside; 1 where nothing is said. */
  readonly diffusion?: number;
  /** The clay lies on its core: the inner faces stand to that where it drinks, and to the room where it does not. */
  readonly onCore?: boolean;
  /** Spans of one key have like faces and are as warm. */
  readonly key: string;
}

/** A core under a whole region: `holds` is kg in all. */
export type RegionCore = DrinkingCore;

export interface WholePieceJob {
  readonly clay: DryingCoefficients;
  readonly tabulatedW0?: number;
  readonly initialMoisture?: number;
  /** What drinks under each region, and how humid it was when the first clay came; nothing where nothing does. */
  readonly cores?: { readonly under: readonly (RegionCore | null)[]; readonly humidity: number };
  /** In order; the first at 0. */
  readonly stages: readonly DryingStage[];
  /** In order; the last until Infinity. */
  readonly spans: readonly DryingSpan[];
}

/** What another run needs to go on from here. */
export interface DryerState {
  readonly stage: number;
  readonly time: number;
  readonly steps: number;
  readonly limit: number;
  readonly evaporated: number;
  readonly added: number;
  readonly moisture: Float64Array;
  /** kg in the core of each region, kg/s into it, and what it gives, in steps. */
  readonly cores: {
    readonly water: Float64Array;
    readonly flow: readonly number[];
    readonly level: readonly number[];
  };
}

const chunkCells = 8192;
/** Steps between looks at how fast the wettest place may change. */
export const lookEvery = 8;
const stepShare = 0.9;
/** What a core gives is told in so many steps of what it gives when full: a table of fluxes belongs to each. */
const coreSteps = 48;
const longestStep = 1200;

/** Cells from-to and their faces: the work of one chunk. */
interface Chunk {
  readonly runs: readonly [number, number];
  readonly outer: readonly [number, number];
  readonly inner: readonly [number, number];
}

const inTurn = (work: (chunk: number) => void, chunks: number): void => {
  for (let c = 0; c < chunks; c++) work(c);
};

export class ClayDryer {
  readonly d: Diffusivity;
  cells!: ClayCells;
  stage = -1;
  time = 0;
  steps = 0;
  /** kg that left, and kg of water that came with later clay. */
  evaporated = 0;
  added = 0;
  /** By cell, less the pad: whether its clay came with this stage; null where all did, or none. */
  fresh: Uint8Array | null = null;
  private kernel!: SweepKernel;
  private groups: { readonly outer: Uint8Array; readonly inner: Uint8Array } = {
    outer: new Uint8Array(0),
    inner: new Uint8Array(0),
  };
  private chunks: Chunk[] = [];
  private sums!: Float64Array;
  /** The wettest there can be, and the deepest a face's cell can lie. */
  readonly most: number;
  private limit = 0;
  private spanAt = -1;
  private readonly faceRate = { outer: 0, inner: 0 };
  /** kg in the core under each region, and m2 of inner face over it. */
  readonly coreWater: Float64Array;
  private coreArea!: Float64Array;
  /** kg of water to a unit of moisture in the cell of an inner face. */
  private innerWeight!: Float64Array;
  /** In steps, by region; what the tables in use were made for. */
  private readonly coreLevel: number[];
  /** kg/s that passed in the last step; NaN before there was one. And room to sum it in. */
  private readonly coreFlow: number[];
  private readonly corePassed = new Float64Array(256);
  private readonly tables = new Map<string, FaceTable>();

  /** `share` does a piece of work for every chunk, in any order: the answer does not depend on it. */
  constructor(
    readonly job: WholePieceJob,
    private readonly share: (work: (chunk: number) => void, chunks: number) => void = inTurn,
  ) {
    this.d = new Diffusivity(job.clay, job.tabulatedW0);
    this.most = max(job.clay.w0, job.initialMoisture ?? 0) * 1.1;
    const under = job.cores?.under ?? [];
    this.coreWater = new Float64Array(under.length);
    this.coreLevel = under.map(() => 0);
    this.coreFlow = under.map(() => NaN);
    under.forEach((core, r) => {
      if (core) this.coreWater[r] = coreWaterIn(core, job.cores!.humidity);
    });
    this.enter(0);
  }

  /** Moisture of each cell, at its index in the cell arrays. */
  get moisture(): Float64Array {
    return this.kernel.moisture;
  }

  get span(): DryingSpan {
    return this.job.spans[this.spanAt]!;
  }

  get deepest(): number {
    return 1.6 * this.cells.lattice.step;
  }

  /** kg of water in the clay. */
  water(): number {
    const { cells, moisture } = this;
    const cell = cells.lattice.step ** 3 * this.job.clay.rho_dry;
    let sum = 0;
    for (let i = cells.pad; i < cells.pad + cells.count; i++) sum += moisture[i]! / cells.inverse[i]!;
    return sum * cell;
  }

  /** kg of solids. */
  solids(): number {
    const { cells } = this;
    let sum = 0;
    for (let i = cells.pad; i < cells.pad + cells.count; i++) sum += 1 / cells.inverse[i]!;
    return sum * cells.lattice.step ** 3 * this.job.clay.rho_dry;
  }

  state(): DryerState {
    return {
      stage: this.stage,
      time: this.time,
      steps: this.steps,
      limit: this.limit,
      evaporated: this.evaporated,
      added: this.added,
      moisture: this.moisture.slice(),
      cores: { water: this.coreWater.slice(), flow: [...this.coreFlow], level: [...this.coreLevel] },
    };
  }

  /** Takes up where a run of the same job stopped. */
  restore(state: DryerState): void {
    this.build(state.stage);
    this.moisture.set(state.moisture);
    this.coreWater.set(state.cores.water);
    this.time = state.time;
    this.steps = state.steps;
    this.limit = state.limit;
    this.evaporated = state.evaporated;
    this.added = state.added;
    this.spanAt = -1;
    this.openSpan();
    this.limit = state.limit;
    state.cores.flow.forEach((v, r) => {
      this.coreFlow[r] = v;
      this.coreLevel[r] = state.cores.level[r]!;
    });
    this.faceRate.inner = this.dress('inner', this.onCores(this.span.inner), null);
    // What the kernel carries from step to step beside moisture is thrown away at every look: stop at one, and nothing is lost.
    this.kernel.refresh();
  }

  /**
   * Steps until `until`, or for about `most` steps; true when it got there. It stops between looks only, and `until`
   * should be one of a fixed list of times: then the steps taken do not depend on where it was stopped.
   */
  advance(until: number, most = Infinity): boolean {
    for (let n = 0; this.time < until; n++) {
      if (n >= most && this.steps % lookEvery === 0) return false;
      this.step(until);
    }
    return true;
  }

  /** One step, never past `until`, the end of a span or the start of a stage. */
  private step(until: number): void {
    const following = this.job.stages[this.stage + 1];
    if (following && this.time >= following.start) this.enter(this.stage + 1);
    if (this.time >= this.span.until) this.openSpan();
    if (this.steps % lookEvery === 0 || this.limit === 0) {
      this.kernel.refresh();
      this.limit = stepShare / (this.fastest() + this.faceRate.outer + this.faceRate.inner);
      if (this.drinks) this.lookAtCores(min(this.limit, longestStep) * lookEvery);
    }
    const end = min(until, this.span.until, this.job.stages[this.stage + 1]?.start ?? Infinity);
    const left = end - this.time;
    let dt = min(this.limit, longestStep);
    // Two like steps rather than one and a sliver.
    if (dt >= left) dt = left;
    else if (dt * 2 > left) dt = left / 2;
    this.share((chunk) => this.sweep(chunk, dt), this.chunks.length);
    let leaving = 0;
    for (let c = 0; c < this.chunks.length; c++) leaving += this.sums[c]!;
    this.evaporated += leaving * dt;
    if (this.drinks) this.fillCores(dt);
    this.kernel.turn();
    this.time = dt === left ? end : this.time + dt;
    this.steps += 1;
  }

  /** Some core takes water in this span. */
  private get drinks(): boolean {
    return this.span.onCore === true && this.coreWater.length > 0;
  }

  /** What a region's core gives against its clay, kg/m2s of the law before its share. */
  private coreGivesAt(r: number): number {
    const curve = this.span.inner[r]?.curve;
    return curve ? ((this.coreLevel[r] ?? 0) / coreSteps) * curve.fluxes[curve.fluxes.length - 1]! : 0;
  }

  /** What a region's core gives with so many kg of water, in steps of what it gives when full. */
  private levelOf(r: number, water: number): number {
    const core = this.job.cores?.under[r],
      curve = this.span.inner[r]?.curve;
    if (!core || !curve || !(core.holds > 0)) return 0;
    const pair = new Float64Array(2);
    coreGives(core, water, curve, pair);
    return Math.round((pair[0]! / curve.fluxes[curve.fluxes.length - 1]!) * coreSteps);
  }

  /** Water the inner faces lost in the last step, into the cores under them; less what goes on into the room. */
  private fillCores(dt: number): void {
    const { faces, changes } = this.kernel.inner;
    const { region } = this.cells;
    const passed = this.corePassed;
    passed.fill(0);
    if (this.kernel.inner.tables !== 0)
      for (let f = 0; f < faces.count; f++) {
        const r = region[faces.cell[f]!]!;
        passed[r] = passed[r]! - changes[f]! * this.innerWeight[f]!;
      }
    this.job.cores!.under.forEach((core, r) => {
      const inner = this.span.inner[r];
      if (!core || !inner || !(core.holds > 0)) return;
      const behind = 1 - core.breathes;
      const breathed = this.coreArea[r]! * inner.share * behind * core.breathes * this.coreGivesAt(r) * dt;
      this.coreWater[r] = this.coreWater[r]! + behind * passed[r]! - breathed;
      this.coreFlow[r] = passed[r]! / dt;
    });
  }

  /**
   * What the cores will give until the next look: solved at its end from how fast they fill now, so that a thin cloth
   * does not swing. Where that is another step than before, the inner faces get their tables anew.
   */
  private lookAtCores(seconds: number): void {
    const pair = new Float64Array(2);
    let changed = false;
    this.job.cores!.under.forEach((core, r) => {
      const inner = this.span.inner[r],
        area = this.coreArea[r]!;
      if (!core || !inner?.curve || inner.share <= 0 || area <= 0 || !(core.holds > 0)) return;
      const behind = 1 - core.breathes;
      const flow = this.coreFlow[r]!;
      const wet = inner.curve.fluxes[inner.curve.fluxes.length - 1]!;
      const clayGives = Number.isNaN(flow) ? wet : flow / area / inner.share + behind * this.coreGivesAt(r);
      const after = coreAfter(core, this.coreWater[r]!, seconds * area, clayGives, inner.share, inner.curve, pair);
      const level = this.levelOf(r, after);
      if (level === this.coreLevel[r]) return;
      this.coreLevel[r] = level;
      changed = true;
    });
    if (changed) this.faceRate.inner = this.dress('inner', this.onCores(this.span.inner), null);
  }

  /** Inner faces as they stand to the cores under them. */
  private onCores(inner: readonly FaceConditions[]): readonly FaceConditions[] {
    if (!this.drinks) return inner;
    return inner.map((c, r) => {
      const core = this.job.cores!.under[r];
      if (!core) return c;
      if (!(core.holds > 0)) return { ...c, share: c.share * core.breathes };
      return { ...c, against: (1 - core.breathes) * this.coreGivesAt(r) };
    });
  }

  private sweep(chunk: number, dt: number): void {
    const { runs, outer, inner } = this.chunks[chunk]!;
    this.sums[chunk] = this.kernel.sweep(runs, outer, inner, dt, this.span.diffusion);
  }

  private enter(stage: number): void {
    const before = this.stage < 0 ? null : { cells: this.cells, moisture: this.moisture };
    const start = this.job.initialMoisture ?? this.job.clay.w0;
    this.build(stage);
    const { cells } = this;
    if (!before) this.moisture.fill(start, cells.pad, cells.pad + cells.count);
    else this.carryOver(before.cells, before.moisture, start);
    this.kernel.refresh();
    this.limit = 0;
    this.spanAt = -1;
    this.openSpan();
  }

  /** Clay that was there keeps its water; what was added brings its own. */
  private carryOver(old: ClayCells, moisture: Float64Array, fresh: number): void {
    const { cells } = this;
    const oldShare = new Float32Array(old.cellOf.length);
    for (let p = 0; p < old.parts.lattice.length; p++) oldShare[old.parts.lattice[p]!] = old.parts.share[p]!;
    const water = new Float64Array(this.moisture.length);
    const came = new Float64Array(cells.count);
    let added = 0;
    for (let p = 0; p < cells.parts.lattice.length; p++) {
      const i = cells.parts.lattice[p]!,
        share = cells.parts.share[p]!,
        c = cells.parts.cell[p]!;
      const kept = min(share, oldShare[i]!),
        from = old.cellOf[i]!;
      const held = kept > 0 && from >= 0 ? kept * moisture[from]! : 0;
      water[c] = water[c]! + held + (share - kept) * fresh;
      added += (share - kept) * fresh;
      came[c - cells.pad] = came[c - cells.pad]! + share - kept;
    }
    // Rounding of shares is no clay.
    this.fresh =
      added > 1e-6 * cells.count
        ? Uint8Array.from(came, (a, i) => (a * cells.inverse[i + cells.pad]! > 0.5 ? 1 : 0))
        : null;
    for (let c = cells.pad; c < cells.pad + cells.count; c++) this.moisture[c] = water[c]! * cells.inverse[c]!;
    this.added += added * cells.lattice.step ** 3 * this.job.clay.rho_dry;
  }

  private build(stage: number): void {
    if (this.stage === stage) return;
    const given = this.job.stages[stage];
    if (!given) throw new Error(`no stage ${stage}`);
    this.stage = stage;
    this.cells = clayCells(given.lattice());
    this.kernel = new SweepKernel(this.cells, this.d, this.most, mostGroups(this.job));
    this.groups = {
      outer: new Uint8Array(this.cells.outerFaces.count),
      inner: new Uint8Array(this.cells.innerFaces.count),
    };
    this.chunks = chunksOf(this.cells);
    this.sums = new Float64Array(this.chunks.length);
    const { faces } = this.kernel.inner;
    const cell = this.job.clay.rho_dry * this.cells.lattice.step ** 3;
    this.innerWeight = Float64Array.from(faces.cell, (c) => cell / this.cells.inverse[c]!);
    this.coreArea = new Float64Array(256);
    for (let f = 0; f < faces.count; f++) {
      const r = this.cells.region[faces.cell[f]!]!;
      this.coreArea[r] = this.coreArea[r]! + faces.area[f]!;
    }
  }

  /** The span the present time lies in, and its tables. */
  private openSpan(): void {
    const before = this.spanAt < 0 ? '' : this.span.key;
    this.spanAt = this.job.spans.findIndex((s) => this.time < s.until);
    if (this.spanAt < 0) this.spanAt = this.job.spans.length - 1;
    if (this.span.key === before) return;
    const { span } = this;
    this.coreLevel.forEach((_, r) => {
      this.coreLevel[r] = this.levelOf(r, this.coreWater[r]!);
    });
    this.faceRate.outer = this.dress('outer', span.outer, span.resting);
    this.faceRate.inner = this.dress('inner', this.onCores(span.inner), null);
    this.limit = 0;
  }

  /** Gives every face its row in the tables; returns the fastest a cell can lose water through its face, 1/s. */
  private dress(
    which: 'outer' | 'inner',
    conditions: readonly FaceConditions[],
    resting: DryingSpan['resting'],
  ): number {
    const use: KernelFaces = this.kernel[which];
    const size = (depthSteps + 1) * (moistureSteps + 1);
    const both = withResting(conditions, resting);
    if (use.faces.count === 0 || both.every((c) => c.fixed === undefined && (!c.curve || c.share <= 0))) {
      this.kernel.setTables(which, []);
      return 0;
    }
    const tables = both.map((c) => this.tableFor(c).flux);
    this.kernel.setTables(which, tables);
    const lying = resting ? lyingFaces(this.cells, use.faces, resting.down) : null;
    const slopes = tables.map((t) => steepest(t, this.most));
    const group = this.groups[which];
    let fastest = 0;
    for (let f = 0; f < use.faces.count; f++) {
      const region = this.cells.region[use.faces.cell[f]!]!;
      const g = min(conditions.length - 1, region) * (resting ? 2 : 1) + (lying?.[f] ?? 0);
      const y = min(depthSteps - 1e-6, (use.faces.depth[f]! / this.deepest) * depthSteps);
      const k = Math.floor(y);
      group[f] = g;
      use.rows[f] = g * size + k * (moistureSteps + 1);
      use.between[f] = y - k;
      fastest = max(fastest, use.pull[f]! * slopes[g]![k]!);
    }
    return fastest;
  }

  /** Tables are kept by what made them: day and night come round again. */
  private tableFor(c: FaceConditions): FaceTable {
    const { diffusion = 1 } = this.span;
    const face =
      c.fixed !== undefined
        ? `at ${c.fixed}`
        : !c.curve || c.share <= 0
          ? 'shut'
          : `${c.share}:${c.curve.fluxes[0]}:${c.curve.fluxes[128]}:${c.curve.fluxes[256]}`;
    const key = `${face}:${diffusion}:${c.against ?? 0}`;
    const known = this.tables.get(key);
    if (known) return known;
    const made = faceTable(this.d, c, this.most, this.deepest, diffusion);
    if (this.tables.size > 400) this.tables.clear();
    this.tables.set(key, made);
    return made;
  }

  /** Fastest a cell can change by what passes its sides, 1/s. */
  private fastest(): number {
    // D is growth x u; where D is constant u is D w, and the wettest there can be stands for all.
    const rate = this.d.constant
      ? this.cells.pace.reduce((most, p) => max(most, p), 0) * this.job.clay.D_dry
      : this.kernel.fastest() * this.d.growth;
    return (rate * (this.span.diffusion ?? 1)) / this.cells.lattice.step ** 2;
  }

  /** Whether an outer face is turned to what the piece lies on now. */
  lies(face: number): boolean {
    return this.span.resting !== null && (this.groups.outer[face]! & 1) === 1;
  }

  /** Moisture of the outer faces themselves, into `out`. */
  surfaceMoisture(out: Float32Array): void {
    const { faces, tables: inUse } = this.kernel.outer;
    const tables =
      inUse === 0 ? [] : withResting(this.span.outer, this.span.resting).map((c) => this.tableFor(c).surface);
    const group = this.groups.outer;
    const { moisture, most } = this;
    const last = moistureSteps - 1,
      perMoisture = moistureSteps / most;
    const { rows, between } = this.kernel.outer;
    const size = (depthSteps + 1) * (moistureSteps + 1),
      next = moistureSteps + 1;
    for (let f = 0; f < faces.count; f++) {
      const w = moisture[faces.cell[f]!]!;
      const g = group[f]!;
      const table = tables[g];
      if (!table) {
        out[f] = w;
        continue;
      }
      const x = w > 0 ? w * perMoisture : 0;
      let i = x | 0;
      if (i > last) i = last;
      const t = rows[f]! - g * size + i;
      const a = table[t]! + (table[t + 1]! - table[t]!) * (x - i);
      const b = table[t + next]! + (table[t + next + 1]! - table[t + next]!) * (x - i);
      out[f] = a + (b - a) * between[f]!;
    }
  }
}

/** Each condition, and after it the same where the piece lies on that face. */
function withResting(conditions: readonly FaceConditions[], resting: DryingSpan['resting']): FaceConditions[] {
  return conditions.flatMap((c) => (resting ? [c, { ...c, share: c.share * (1 - resting.share) }] : [c]));
}

function mostGroups(job: WholePieceJob): number {
  return job.spans.reduce((most, s) => max(most, s.outer.length * 2, s.inner.length), 1);
}

function chunksOf(cells: ClayCells): Chunk[] {
  const out: Chunk[] = [];
  const total = cells.runs.length / runWidth;
  let from = 0,
    outer = 0,
    inner = 0;
  while (from < total) {
    const start = cells.runs[from * runWidth]!;
    let to = from;
    let end = start;
    while (to < total && end - start < chunkCells) {
      end = cells.runs[to * runWidth]! + cells.runs[to * runWidth + 1]!;
      to += 1;
    }
    const outerFrom = outer,
      innerFrom = inner;
    while (outer < cells.outerFaces.count && cells.outerFaces.cell[outer]! < end) outer += 1;
    while (inner < cells.innerFaces.count && cells.innerFaces.cell[inner]! < end) inner += 1;
    out.push({ runs: [from, to], outer: [outerFrom, outer], inner: [innerFrom, inner] });
    from = to;
  }
  return out;
}

/** Steepest rise of the flux with moisture, by depth. kg/m2s. */
function steepest(table: Float64Array, most: number): Float64Array {
  const out = new Float64Array(depthSteps + 1);
  for (let r = 0; r <= depthSteps; r++) {
    let best = 0;
    for (let i = 0; i < moistureSteps; i++)
      best = max(best, table[r * (moistureSteps + 1) + i + 1]! - table[r * (moistureSteps + 1) + i]!);
    out[r] = (best * moistureSteps) / most;
  }
  return out;
}

/** Faces turned down that stand within two cells of the lowest place that way. */
function lyingFaces(cells: ClayCells, faces: ClayFaces, down: readonly [number, number, number]): Uint8Array {
  const out = new Uint8Array(faces.count);
  const { size } = cells.lattice;
  const along = (f: number): number => {
    const i = cells.latticeOf[faces.cell[f]! - cells.pad]!;
    return (
      down[0] * (i % size[0]) +
      down[1] * (Math.floor(i / size[0]) % size[1]) +
      down[2] * Math.floor(i / (size[0] * size[1]))
    );
  };
  let lowest = -Infinity;
  for (let f = 0; f < faces.count; f++) lowest = max(lowest, along(f));
  for (let f = 0; f < faces.count; f++) {
    const facing =
      down[0] * faces.normal[f * 3]! + down[1] * faces.normal[f * 3 + 1]! + down[2] * faces.normal[f * 3 + 2]!;
    out[f] = facing > 0.5 && along(f) > lowest - 2.5 ? 1 : 0;
  }
  return out;
}
