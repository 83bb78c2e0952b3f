import { clayStiffness, cutList } from '../armature';
import { buildHash, type Build } from '../build';
import { clayToBuy } from '../clay';
import { placingRate, planBatches, type BatchPlan } from '../cure';
import { combineDepartures, nightsOf, success, type Range, type Result, type UnitSystem } from '../quantity';
import { conflictsOf, heatOf, stayingPut } from './clay-report';
import { dryingReport, type DryingReport } from './drying-report';
import { finishedParts, handlingOf, mountOf } from './carrying';
import type { BareFinding, BareReport } from './finding';
import { findingsOf, worstOf } from './findings';
import { giveUnderTool } from './give';
import { hoursFor } from './hours';
import { letGo, loadReport, type LoadReport } from './load-report';
import { Memory } from './memory';
import { makePiece, type Piece } from './piece';
import { remediesFor } from './remedies';
import { strengthen, type StrengthenResult } from './strengthen';
import type { EvaluateOptions, Finding, RegionReport, Report, Summary } from './report';

/** Of findings alike (members, regions) the worst come first; mend those, and the rest are mended too or move up. */
const remediedPerKind = 2;
/** A wire bent inward is mended by itself; the next one is mended the same way. */
const remediedOnce = new Set(['cover']);

interface Tried {
  readonly report: BareReport;
  readonly findings: readonly BareFinding[];
}

/**
 * The one entry: a build in, its whole report out; the same in worker, server, command line and tests.
 * Parts whose inputs did not change are kept from the last call.
 */
export class Evaluator {
  private readonly memory = new Memory();

  /** The whole answer at once. */
  evaluate(build: Build, options: EvaluateOptions = {}): Result<Report> {
    const steps = this.inSteps(build, options);
    for (;;) {
      const step = steps.next();
      if (step.done) return step.value;
    }
  }

  /** The same, pausing between pieces of work so that a caller can show progress, or walk away. */
  *inSteps(build: Build, options: EvaluateOptions = {}): Generator<void, Result<Report>> {
    const units = options.units ?? 'metric';
    const piece = makePiece(build, this.memory);
    if (!piece.ok) return piece;
    const bare = this.assess(piece.value, options.ranges === true);
    if (!bare.ok) return bare;
    const findings: Finding[] = [];
    const tried = new Map<string, number>();
    for (const f of findingsOf(piece.value, bare.value, units)) {
      const kind = f.id.split('/')[0] ?? f.id;
      const before = tried.get(kind) ?? 0;
      const wanted =
        options.remedies === true &&
        (f.status === 'fails' || f.status === 'watch') &&
        before < (remediedOnce.has(kind) ? 1 : remediedPerKind);
      if (wanted) tried.set(kind, before + 1);
      findings.push({
        ...f,
        remedies: wanted ? yield* remediesFor(piece.value, f, bare.value, (b) => this.tryOut(b, units), units) : [],
      });
    }
    return success({ ...bare.value, findings, worst: worstOf(findings) });
  }

  /** The smallest set of changes that makes it hold; yields how many were tried. */
  *strengthening(
    build: Build,
    units: UnitSystem = 'metric',
    stop: () => boolean = () => false,
  ): Generator<number, StrengthenResult | null> {
    return yield* strengthen(
      build,
      (b) =>
        this.memory.keep('strengthened', buildHash(b), () => {
          const piece = makePiece(b, this.memory);
          if (!piece.ok) return null;
          const report = this.assess(piece.value, false);
          return report.ok
            ? { piece: piece.value, report: report.value, findings: findingsOf(piece.value, report.value, units) }
            : null;
        }),
      units,
      stop,
    );
  }

  /** The piece itself, for pictures. */
  piece(build: Build): Result<Piece> {
    return makePiece(build, this.memory);
  }

  private tryOut(build: Build, units: UnitSystem): Tried | null {
    // One change is often the remedy of several findings: try it once.
    return this.memory.keep('tried', `${units}:${buildHash(build)}`, () => this.tryAfresh(build, units));
  }

  private tryAfresh(build: Build, units: UnitSystem): Tried | null {
    const piece = makePiece(build, this.memory);
    if (!piece.ok) return null;
    const report = this.assess(piece.value, false);
    return report.ok ? { report: report.value, findings: findingsOf(piece.value, report.value, units) } : null;
  }

  private assess(piece: Piece, ranges: boolean): Result<BareReport> {
    // Ranges are asked for twice, on their own and again with the remedies: worked out once.
    return ranges
      ? this.memory.keep('ranged', buildHash(piece.build), () => this.assessAfresh(piece, true))
      : this.assessAfresh(piece, false);
  }

  private assessAfresh(piece: Piece, ranges: boolean): Result<BareReport> {
    const drying = dryingReport(piece, this.memory, ranges);
    const load = loadReport(piece, this.memory, drying.regions, ranges);
    if (!load.ok) return load;
    return success(assemble(piece, this.memory, drying, load.value));
  }
}

function batchesOf(piece: Piece, mass: number): BatchPlan | null {
  const { clay, build } = piece;
  if (clay.setting !== 'sets' || clay.workingMinutes === null || clay.cureHours === null) return null;
  return planBatches(mass, clay.workingMinutes.nominal, clay.cureHours, build.room.temperature, placingRate.blockingIn);
}

/** Seconds from the start to ready; placing a clay that sets takes its share of the week. */
function readyAfter(piece: Piece, regions: readonly RegionReport[], cure: BatchPlan | null): number | null {
  if (cure) return placingSeconds(piece, cure) + cure.cureHours * 3600;
  if (piece.clay.setting === 'never') return 0;
  if (piece.clay.setting !== 'dries') return null;
  const all = regions.filter((r) => r.coats.length > 0).map((r) => r.throughDry);
  return all.some((t) => t === null) ? null : all.reduce<number>((m, t) => Math.max(m, t ?? 0), 0);
}

/** Placing runs on the hours there are: what does not fit in one evening's share goes on over the following days. */
function placingSeconds(piece: Piece, cure: BatchPlan): number {
  const hours = cure.placingMinutes / 60;
  const perDay = Math.max(1, piece.build.brief.hoursPerWeek / 7);
  const wholeDays = Math.max(0, Math.ceil(hours / perDay - 1e-9) - 1);
  return wholeDays * 86400 + (hours - wholeDays * perDay) * 3600;
}

function summaryOf(
  piece: Piece,
  regions: readonly RegionReport[],
  load: LoadReport,
  cure: BatchPlan | null,
  cost: number,
  toBuy: number,
): Summary {
  const weakest = load.members.reduce((w, m) => (m.utilisation > w.utilisation ? m : w));
  const cracked = regions.reduce<RegionReport | undefined>((w, r) => (!w || r.crack > w.crack ? r : w), undefined);
  const ready = readyAfter(piece, regions, cure);
  return {
    wet: load.ledger.wet,
    dry: load.ledger.dry,
    utilisation: weakest.utilisation,
    weakest: weakest.name,
    weakestMoment: weakest.moment,
    tipAngle: load.stance.tipAngle,
    push: load.stance.push,
    crack: cracked?.crack ?? 0,
    crackRegion: cracked?.name ?? '',
    readyAfter: ready,
    nights: ready === null ? null : nightsOf(ready),
    clayToBuy: toBuy,
    cost,
  };
}

function readyRangeOf(regions: readonly RegionReport[], ready: number | null): Range | null {
  const ranges = regions.map((r) => r.throughDryRange).filter((r): r is Range => r !== null);
  if (ranges.length === 0 || ready === null) return null;
  return {
    low: ranges.reduce((m, r) => Math.max(m, r.low), 0),
    nominal: ready,
    high: ranges.reduce((m, r) => Math.max(m, r.high), ready),
  };
}

function assemble(piece: Piece, memory: Memory, drying: DryingReport, load: LoadReport): BareReport {
  const { regions } = drying;
  const clayVolume = regions.reduce((sum, r) => sum + r.clayVolume, 0);
  const clay = clayToBuy(piece.build, piece.mixed, clayVolume);
  const cure = batchesOf(piece, clay.onPiece);
  const stocks = new Map(
    piece.armature.members.flatMap((m) => {
      const s = piece.stockOf(m.stock);
      return s ? [[m.stock, s] as const] : [];
    }),
  );
  const cuts = cutList(piece.armature.members, stocks);
  const wireCost = cuts.reduce((sum, c) => sum + c.cutLength * c.pieces, 0) * piece.build.materials.wirePricePerMetre;
  const summary = summaryOf(piece, regions, load, cure, clay.cost + wireCost, clay.needed);
  const { volumes, grid } = piece;
  const box = piece.extent;
  const spread = volumes.volumeError * piece.mixed.wetDensity;
  const finished = finishedParts(piece, load.ledger);
  const bulkVolume = regions.reduce((sum, r) => sum + r.bulkVolume, 0);
  const thickest = Math.max(...piece.coats.map((c) => c.reduce((sum, t) => sum + t, 0)));
  return {
    summary,
    size: {
      height: box.high[2],
      width: box.high[0] - box.low[0],
      depth: box.high[1] - box.low[1],
      volume: volumes.outerVolume,
      area: volumes.perMass.reduce((sum, m) => sum + m.area, 0),
      step: grid.step,
      volumeError: volumes.volumeError,
    },
    ledger: load.ledger,
    moments: load.moments,
    stances: load.stances,
    stance: load.stance,
    base: load.base,
    members: load.members,
    finished,
    mount: mountOf(piece, finished),
    handling: handlingOf(piece, load.ledger, load.stance, finished),
    situations: load.situations,
    baseMoment: load.baseMoment,
    give: giveUnderTool(
      { youngs: clayStiffness(piece.clay.yieldStress), thickness: thickest },
      piece.face.solid ? null : { youngs: piece.bulk.stiffness },
    ),
    hours: hoursFor(piece.armature, {
      bulk: piece.face.solid ? 0 : bulkVolume,
      wrapped:
        piece.face.solid || piece.wrap.id === 'none'
          ? 0
          : volumes.perMass.reduce((sum, m) => sum + (m.clay > 0 ? m.area : 0), 0),
      clayMass: clay.onPiece,
    }),
    letGo: letGo(piece, load, regions),
    cover: piece.cover,
    regions,
    clay,
    laying: { starts: drying.starts, lifted: drying.lifted },
    conflicts: memory.keep('conflicts', buildHash(piece.build), () => conflictsOf(piece)),
    staying: stayingPut(piece, memory),
    heat: heatOf(piece, clay.needed),
    cure,
    cuts,
    wireCost,
    workableDays:
      piece.clay.setting === 'damp' ? Math.min(...regions.map((r) => (r.leatherHard ?? Infinity) / 86400)) : null,
    readyRange: readyRangeOf(regions, summary.readyAfter),
    weightRange: combineDepartures(summary.dry, [summary.dry - spread, summary.dry + spread]),
  };
}
