import { sectionsIn } from '../armature';
import { lyingWays } from '../document';
import { stagesOf } from '../clay';
import {
  airAt,
  changesOf,
  coverOver,
  equilibriumMoisture,
  diffusionAt,
  evaporationCurve,
  meanAir,
  WholePieceRun,
  type ClayLattice,
  type DryingSpan,
  type DryingStage,
  type FaceConditions,
  type RegionCore,
  type RoomAir,
  type WatchedStage,
  type WholePieceInputs,
} from '../drying';
import { denseGrid, leastClay, voxelise } from '../form';
import { failure, success, type Result } from '../quantity';
import { dryingKey } from './full-findings';
import { heldClear, restingShut } from './lying';
import { quickDrying, regionShapes } from './quick-drying';
import { closedHollow, calendarOf, coreUnder } from './laying';
import { restraintsAt } from './restraint';
import { ResultCache } from './result-cache';
import type { Piece } from './piece';

/**
 * The whole piece made ready to dry in three dimensions: its clay as cells, stage by stage, in the room's weather, with
 * what is done to it on the way. Stages begin when the quick answer says they may.
 */
export interface WholeOptions {
  /** Metres to a cell; chosen from the thinnest coat and the room there is when left out. */
  readonly step?: number;
  /** Seconds at which to stop at the latest. */
  readonly until?: number;
}

export interface WholePlan {
  readonly inputs: WholePieceInputs;
  /** What it was made from: the same key, the same answer. */
  readonly key: string;
  readonly step: number;
}

const day = 86400;
/** Cells across the thinnest coat, and how many there may be in all. */
const cellsAcross = 3.3;
const mostCells = 260_000;
const mostLattice = 9_000_000;
const looks = 120;
const longest = 120 * day;

/** Cells that show the thinnest coat, but no more of them than there is time for. */
export function stepFor(piece: Piece): number {
  const thinnest = Math.min(
    ...piece.coats.flatMap((coats, r) => (piece.regionOfMass.includes(r) ? coats : [])),
    ...(piece.face.solid ? [0.03] : []),
  );
  const volume = piece.volumes.perMass.reduce((sum, m) => sum + m.clay, 0);
  const { low, high } = piece.extent;
  const box = (high[0] - low[0]) * (high[1] - low[1]) * (high[2] - low[2]);
  const wanted = piece.face.solid ? 0.003 : thinnest / cellsAcross;
  return Math.max(wanted, Math.cbrt(volume / mostCells), Math.cbrt(box / mostLattice), 0.0006);
}

export function wholePlan(piece: Piece, options: WholeOptions = {}): Result<WholePlan> {
  const clay = piece.mixed.drying;
  if (!clay || piece.clay.setting !== 'dries')
    return failure(
      'does-not-dry',
      'brief.clay',
      `${piece.clay.name} is not dried in air: there is nothing to work out`,
    );
  if (piece.regions.length > 250) return failure('too-many-regions', 'regions', 'a piece has at most 250 regions');
  const quick = quickDrying(piece, new ResultCache(), { ranges: false, full: null, key: '' });
  const starts = quick.starts.filter((s) => Number.isFinite(s.at));
  if (starts.length === 0) return failure('no-clay', 'regions', 'there is no clay on it');
  const step = options.step ?? stepFor(piece);
  const dryAt = quick.regions.reduce((most, r) => Math.max(most, r.windows.seal.at ?? r.throughDry ?? 30 * day), day);
  const soon = Math.min(
    options.until ?? longest,
    Math.max(dryAt * 1.1 + 6 * 3600, (starts[starts.length - 1]?.at ?? 0) + day),
  );
  const end = Math.min(options.until ?? longest, soon * 3);
  const lattices = new Lattices(piece, step);
  const { stages, watched } = stagesFor(piece, starts, lattices);
  const { diffusion } = piece.factors;
  const pushed = { ...clay, D_wet: clay.D_wet * diffusion, D_dry: clay.D_dry * diffusion };
  const air = meanAir(calendarOf(piece));
  const times = new Set<number>(stages.map((s) => s.start).filter((t) => t > 0));
  for (let i = 1; i <= looks; i++) times.add((soon * i) / looks);
  // The quick answer knows no crevices: the last places take longer, and are looked at less often.
  for (let i = 1; i <= looks / 3; i++) times.add(soon + ((end - soon) * i * 3) / looks);
  return success({
    step,
    key: dryingKey(piece.build, piece.known, options.step),
    inputs: {
      clay: pushed,
      tabulatedW0: piece.mixed.tabulatedW0,
      stages,
      watched,
      spans: spansFor(piece, quick.lifted),
      cores: { under: coresUnder(piece), humidity: airAt(calendarOf(piece), 0).relativeHumidity },
      regions: piece.regions,
      times: [...times].sort((a, b) => a - b),
      freeFrom: Math.min(
        quick.lifted ?? Infinity,
        piece.build.stages.split ? piece.build.stages.split.from * 3600 : Infinity,
      ),
      equilibrium: equilibriumMoisture(air.relativeHumidity, pushed.w_m),
      crackLimit: piece.build.brief.limits.crack,
    },
  });
}

/** Ready to run. Throws when the cells come out empty, which a piece that has clay does not. */
export function wholeRun(plan: WholePlan): WholePieceRun {
  return new WholePieceRun(plan.inputs);
}

/** The form sampled once; the clay there is at each stage is read off it. */
class Lattices {
  private dense: (ReturnType<typeof denseGrid> & { readonly origin: readonly [number, number, number] }) | null = null;

  constructor(
    private readonly piece: Piece,
    readonly step: number,
  ) {}

  private get form() {
    if (!this.dense) {
      const { coreDepths, paintedMost } = this.piece;
      const deepest =
        coreDepths.reduce((m, t) => (t < Infinity ? Math.max(m, t) : m), 0) +
        Math.max(0, ...paintedMost) +
        2 * this.step;
      const grid = voxelise(this.piece.field, { step: this.step, depth: deepest });
      this.dense = { ...denseGrid(grid), origin: grid.origin };
    }
    return this.dense;
  }

  /** `missing`: thickness still to come, by region; `apart`: by lattice place, which piece a cell belongs to. */
  make(missing: readonly number[], apart: 'no' | 'left-right' | 'front-back' | 'sections'): ClayLattice {
    const { piece, step } = this;
    const { size, distances, owners, origin } = this.form;
    const outer = new Float32Array(distances.length),
      inner = new Float32Array(distances.length),
      region = new Uint8Array(distances.length);
    const none = 8 * step;
    const last = piece.coats.map((_, r) => (missing[r] ?? 0) > 0);
    for (let z = 0, i = 0; z < size[2]; z++)
      for (let y = 0; y < size[1]; y++)
        for (let x = 0; x < size[0]; x++, i++) {
          const d = distances[i]!,
            m = owners[i]!,
            r = piece.regionOfMass[m] ?? 0;
          region[i] = r;
          const core = piece.coreDepths[m]!;
          const more =
            piece.painted && d < 0 && d > -none
              ? piece.painted(origin[0] + (x + 0.5) * step, origin[1] + (y + 0.5) * step, origin[2] + (z + 0.5) * step)
              : 0;
          const deep = core < Infinity ? Math.max(leastClay, core + more) : Infinity;
          inner[i] = deep === Infinity || (d >= none && d > 0) ? none : d + deep;
          outer[i] = d + (missing[r] ?? 0) + (last[r] ? more : 0);
        }
    const pieces = apart === 'no' ? null : this.pieces(apart);
    return {
      size,
      origin,
      step,
      outer,
      inner,
      region,
      piece: pieces,
      cut: apart === 'left-right' || apart === 'front-back',
    };
  }

  private pieces(apart: 'left-right' | 'front-back' | 'sections'): Uint8Array {
    const { size, owners, origin } = this.form;
    const out = new Uint8Array(owners.length);
    if (apart === 'sections') {
      const sections = sectionsIn(this.piece.armature);
      const sectionOf = this.piece.form.masses.map((m) =>
        Math.max(
          0,
          sections.findIndex((s) => s.masses.includes(m.id)),
        ),
      );
      for (let i = 0; i < out.length; i++) out[i] = sectionOf[owners[i]!] ?? 0;
      return out;
    }
    const axis = apart === 'left-right' ? 0 : 1;
    const { low, high } = this.piece.extent;
    const middle = apart === 'left-right' ? 0 : (low[1] + high[1]) / 2;
    for (let z = 0, i = 0; z < size[2]; z++)
      for (let y = 0; y < size[1]; y++)
        for (let x = 0; x < size[0]; x++, i++) {
          out[i] = origin[axis] + ((axis === 0 ? x : y) + 0.5) * this.step > middle ? 1 : 0;
        }
    return out;
  }
}

/** Stages of clay, and the changes at which it is cut apart and joined. */
function stagesFor(
  piece: Piece,
  starts: readonly { readonly stage: number; readonly at: number }[],
  lattices: Lattices,
): { stages: DryingStage[]; watched: WatchedStage[] } {
  const { stages: plan } = piece.build;
  const numbers = piece.regions.map((id) => stagesOf(piece.build, id));
  const coatsAt = (stage: number) =>
    piece.coats.map((coats, r) =>
      coats.reduce((sum, t, k) => ((numbers[r]?.[k] ?? k + 1) === stage ? sum + t : sum), 0),
    );
  const later = (stage: number) =>
    piece.coats.map((coats, r) => coats.reduce((sum, t, k) => ((numbers[r]?.[k] ?? k + 1) > stage ? sum + t : sum), 0));
  const firstStage = numbers.map((n) => Math.min(...n, 99));
  const changes: { at: number; stage: number; continues: boolean }[] = starts.map((s) => ({
    at: s.at,
    stage: s.stage,
    continues: false,
  }));
  if (plan.split)
    for (const at of [plan.split.from * 3600, Math.max(plan.split.from, plan.split.until) * 3600]) {
      const on = changes.filter((m) => m.at <= at).pop();
      if (on && at > on.at) changes.push({ at, stage: on.stage, continues: true });
    }
  changes.sort((a, b) => a.at - b.at);
  // Solid clay is one lump, however it was meant to be laid.
  const solidRegion = piece.regions.map((_, r) =>
    piece.form.masses.some((_m, i) => piece.regionOfMass[i] === r && piece.coreDepths[i] === Infinity),
  );
  const solidThickness = piece.regions.map((_, r) => {
    let clay = 0,
      area = 0;
    piece.form.masses.forEach((_m, i) => {
      if (piece.regionOfMass[i] !== r) return;
      clay += piece.volumes.perMass[i]?.clay ?? 0;
      area += piece.volumes.perMass[i]?.area ?? 0;
    });
    return area > 0 ? (3 * clay) / area : 0;
  });
  const stages: DryingStage[] = [],
    watched: WatchedStage[] = [];
  for (const m of changes) {
    const missing = later(m.stage).map((t, r) => (solidRegion[r] ? 0 : t));
    const split =
      plan.split && m.at >= plan.split.from * 3600 && m.at < plan.split.until * 3600 ? plan.split.across : null;
    stages.push({ start: m.at, lattice: () => lattices.make(missing, split ?? (plan.apart ? 'sections' : 'no')) });
    const thickness = coatsAt(m.stage).map((t, r) =>
      solidRegion[r] ? (solidThickness[r] ?? 0) : t + (t > 0 ? (piece.paintedMost[r] ?? 0) : 0),
    );
    watched.push({
      thickness,
      continues: m.continues,
      restraintAt: (places, regions) =>
        restraintsAt(piece, places, regions, thickness, lattices.step, (r) => m.stage > (firstStage[r] ?? 1)),
    });
  }
  return { stages, watched };
}

/** What drinks under each region: as for the quick answer, for all its face together. */
function coresUnder(piece: Piece): (RegionCore | null)[] {
  const { sums, shapes } = regionShapes(piece);
  return sums.map((s, r) => {
    const core = shapes[r]!.solid ? null : coreUnder(piece, r, s.area, s.bulk);
    return core && { ...core, holds: core.holds * s.area };
  });
}

/** Spells of like air, covers, inner faces and lying, one after another. */
function spansFor(piece: Piece, lifted: number | null): DryingSpan[] {
  const calendar = calendarOf(piece);
  const { room, stages } = piece.build;
  const at = new Set<number>(changesOf(calendar).map((h) => h * 3600));
  if (lifted !== null && Number.isFinite(lifted)) at.add(lifted);
  if (stages.split)
    for (const h of [stages.split.from, Math.max(stages.split.from, stages.split.until)]) at.add(h * 3600);
  for (const t of stages.turns) at.add(t.at * 3600);
  const ends = [...at].filter((t) => t > 0).sort((a, b) => a - b);
  const factor = piece.factors.evaporation;
  const curves = new Map<string, FaceConditions['curve']>();
  const curveOf = (air: RoomAir, cover: number) => {
    const key = `${air.temperature}:${air.relativeHumidity}:${air.speed}:${cover}`;
    if (!curves.has(key)) curves.set(key, evaporationCurve(air, cover, factor));
    return { key, curve: curves.get(key) as FaceConditions['curve'] };
  };
  const mean = meanAir(calendar);
  // Held up by its armature, it lies on nothing until it is laid down.
  const hung = heldClear(piece);
  let begun = 0;
  return [...ends, Infinity].map((until): DryingSpan => {
    const middle = until === Infinity ? begun + 1 : (begun + until) / 2;
    const hours = middle / 3600;
    const air = until === Infinity && room.hours.length > 0 ? mean : airAt(calendar, hours);
    const open = insideShare(piece, middle, lifted);
    const faces = piece.regions.map((id, r) => {
      const { key, curve } = curveOf(air, coverOver(calendar, hours, id));
      return { key, outer: { curve, share: 1 }, inner: { curve, share: open ?? piece.faces[r]?.innerFace ?? 0 } };
    });
    const turn = stages.turns
      .filter((t) => t.at * 3600 <= middle)
      .sort((a, b) => a.at - b.at)
      .pop();
    const lying = turn?.lying ?? (hung ? 'hung' : 'stands');
    const down = lyingWays.find((w) => w.id === lying)?.down ?? null;
    begun = until;
    return {
      until,
      outer: faces.map((f) => f.outer),
      inner: faces.map((f) => f.inner),
      resting: down ? { down, share: restingShut } : null,
      diffusion: diffusionAt(air.temperature),
      onCore: open === null,
      key: `${open === null ? 'on' : 'off'}|${air.temperature}|${faces.map((f) => `${f.key}/${f.inner.share}`).join('|')}/${lying}`,
    };
  });
}

/** Share of the outer law inside: all of it when lifted or apart, hardly any in a hollow closed again; null while it lies on its core. */
function insideShare(piece: Piece, at: number, lifted: number | null): number | null {
  const { split } = piece.build.stages;
  if (lifted !== null && at >= lifted) return 1;
  if (!split || at < split.from * 3600) return null;
  return at < Math.max(split.from, split.until) * 3600 ? 1 : closedHollow;
}
