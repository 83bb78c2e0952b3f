import { clayStiffness, cutList, sectionGeometry } from '../armature';
import { usualPricePerMetre } from '../catalogue';
import { clayToBuy, yieldUnderTool } from '../clay';
import { layingRate, planBatches, type BatchPlan } from '../cure';
import { buildHash, partHash } from '../document';
import { compared, nightsOf, success, type Result } from '../quantity';
import { finishedParts, handlingOf, mountOf } from './carrying';
import { conflictsOf, heatOf, stayingPut } from './clay-report';
import { dryingKey, type FullFindings } from './full-findings';
import { giveUnderTool } from './give';
import { hoursFor } from './hours';
import { layingMasses } from './laying';
import { letGo } from './let-go';
import { loadReport, type LoadReport } from './load-report';
import type { Piece } from './piece';
import { quickDrying, type DryingReport } from './quick-drying';
import type { PieceReport, RegionReport, Summary } from './report';
import type { ResultCache } from './result-cache';
import { weightRange } from './weight-range';

/** How far a piece is worked out. */
export interface WorkOutOptions {
  /** Everything uncertain pushed to its ends; 'drying' does so with the drying alone. */
  readonly ranges: boolean | 'drying';
  readonly full: FullFindings | null;
}

/** The piece worked out: weight, strength, standing, drying, what it takes and how it is handled. */
export function workOut(piece: Piece, cache: ResultCache, options: WorkOutOptions): Result<PieceReport> {
  const key = `${buildHash(piece.build)}:${partHash(piece.known)}:${options.ranges}:${options.full ? partHash(options.full) : ''}`;
  return cache.keep('worked out', key, () => {
    const drying = quickDrying(piece, cache, {
      ranges: options.ranges !== false,
      full: options.full,
      key: options.full ? dryingKey(piece.build, piece.known) : '',
    });
    const load = loadReport(piece, cache, drying.regions, options.ranges === true);
    return load.ok ? success(assemble(piece, cache, drying, load.value)) : load;
  });
}

function batchesOf(piece: Piece, masses: readonly number[]): BatchPlan | null {
  const { clay, build } = piece;
  if (clay.setting !== 'sets' || clay.workingMinutes === null || clay.cureHours === null) return null;
  return planBatches(
    masses,
    clay.workingMinutes.nominal,
    clay.cureHours,
    build.room.temperature,
    layingRate(clay.setting),
  );
}

/** Seconds from the first clay until it is dry through or has set; placing a clay that sets takes its share of the week. */
function throughAfter(piece: Piece, regions: readonly RegionReport[], cure: BatchPlan | null): number | null {
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
  const weakest = load.members.reduce((w, m) => (compared(m.utilisation) > compared(w.utilisation) ? m : w));
  const cracked = regions.reduce<RegionReport | undefined>(
    (w, r) => (!w || compared(r.crack) > compared(w.crack) ? r : w),
    undefined,
  );
  const through = throughAfter(piece, regions, cure);
  return {
    wet: load.ledger.wet,
    dry: load.ledger.dry,
    utilisation: weakest.utilisation,
    weakest: weakest.name,
    weakestStage: weakest.stage,
    tipAngle: load.stance.tipAngle,
    push: load.stance.push,
    crack: cracked?.crack ?? 0,
    crackRegion: cracked?.name ?? '',
    throughAfter: through,
    nights: through === null ? null : nightsOf(through),
    clayToBuy: toBuy,
    cost,
  };
}

/** Of a stock and size, "mild-steel/6mm": the maker's own price, or the usual one by its weight. */
export function pricePerMetre(piece: Pick<Piece, 'build' | 'stockOf'>, key: string): number {
  const own = piece.build.materials.stockPrices;
  if (Object.hasOwn(own, key)) return own[key]!;
  const [stockId = '', sizeId = ''] = key.split('/');
  const stock = piece.stockOf(stockId);
  const size = stock?.sizes.find((s) => s.id === sizeId);
  return stock && size ? usualPricePerMetre(stock, sectionGeometry(size.section).area) : 0;
}

function assemble(piece: Piece, cache: ResultCache, drying: DryingReport, load: LoadReport): PieceReport {
  const { regions } = drying;
  const clayVolume = regions.reduce((sum, r) => sum + r.clayVolume, 0);
  const clay = clayToBuy(piece.build, piece.mixed, clayVolume);
  const cure = batchesOf(
    piece,
    drying.regions.filter((r) => r.clayWet > 0).flatMap((r) => layingMasses(piece, r)),
  );
  const stocks = new Map(
    piece.armature.members.flatMap((m) => {
      const s = piece.stockOf(m.stock);
      return s ? [[m.stock, s] as const] : [];
    }),
  );
  const cuts = cutList(piece.armature.members, stocks);
  const wireCost = cuts.reduce((sum, c) => sum + c.cutLength * c.pieces * pricePerMetre(piece, c.key), 0);
  const summary = summaryOf(piece, regions, load, cure, clay.cost + wireCost, clay.needed);
  const { volumes, grid } = piece;
  const box = piece.extent;
  const spread = volumes.volumeError * piece.mixed.wetDensity;
  const weighs = weightRange(load.ledger, spread, piece.face.solid);
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
    lifeStages: load.lifeStages,
    stances: load.stances,
    stance: load.stance,
    base: load.base,
    members: load.members,
    finished,
    mount: mountOf(piece, load.ledger, finished),
    handling: handlingOf(piece, load.ledger, load.stance, finished),
    situations: load.situations,
    wind: load.wind,
    baseStage: load.baseStage,
    give: giveUnderTool(
      {
        youngs: clayStiffness(yieldUnderTool(piece.clay, piece.mixed, piece.build.room.temperature)),
        thickness: thickest,
      },
      piece.face.solid ? null : { youngs: piece.bulk.stiffness },
    ),
    hours: hoursFor(piece.armature, {
      bulk: piece.face.solid ? 0 : bulkVolume,
      bulkKind: piece.bulk.id,
      wrapped:
        piece.face.solid || piece.wrap.id === 'none'
          ? 0
          : volumes.perMass.reduce((sum, m) => sum + (m.clay > 0 ? m.area : 0), 0),
      clayMass: clay.onPiece,
      setting: piece.clay.setting,
    }),
    letGo: letGo(piece, load, regions, piece.clay.setting === 'never' ? null : summary.throughAfter),
    cover: piece.cover,
    limbs: load.situations ? piece.limbs() : null,
    regions,
    clay,
    laying: { starts: drying.starts, lifted: drying.lifted },
    conflicts: cache.keep('conflicts', buildHash(piece.build), () => conflictsOf(piece)),
    staying: stayingPut(piece, cache),
    heat: heatOf(piece, clay.needed),
    cure,
    cuts,
    wireCost,
    workableDays:
      piece.clay.setting === 'damp' ? Math.min(...regions.map((r) => (r.leatherHard ?? Infinity) / 86400)) : null,
    basis: drying.basis,
    weightRange: weighs.dry,
    wetRange: weighs.wet,
  };
}
