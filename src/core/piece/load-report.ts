import { footprint } from '../form';
import {
  armatureItems,
  centreOf,
  contactsOf,
  groundUnder,
  checkBase,
  lumpedCentre,
  LoadCheck,
  situationStages,
  stanceOn,
  sumLedger,
  type BaseCheck,
  type CheckInputs,
  type Ledger,
  type LedgerItem,
  type LifeStage,
  type StageCheck,
  type Stance,
  type WindReport,
} from '../load';
import { combineDepartures, convexHull, success, type Range, type Result } from '../quantity';
import {
  bulkDensityEnds,
  inputsOf,
  joinEnds,
  solvedLoad,
  strengthEnds,
  thicknessEnds,
  type LoadPush,
} from './load-checks';
import { dryShareInRoom } from './quick-drying';
import { ResultCache } from './result-cache';
import type { Piece } from './piece';
import { statusOf } from './status';
import { windReport } from './wind';
import type { MemberReport, RegionReport, SituationReport } from './report';

export type StageStance = Stance & { readonly stage: string; readonly name: string };

export interface LoadReport {
  readonly lifeStages: readonly StageCheck[];
  readonly unpropped: readonly StageCheck[];
  readonly members: readonly MemberReport[];
  readonly ledger: Ledger;
  readonly stances: readonly StageStance[];
  readonly stance: Stance;
  readonly base: BaseCheck;
  /** Which stage asks most of the base. */
  readonly baseStage: string;
  readonly situations: readonly SituationReport[] | null;
  /** Outdoors; null indoors. */
  readonly wind: WindReport | null;
}

/** The load check alone, nothing kept from before: every stage, the base and the stance. */
export function checkLoad(piece: Piece): Result<LoadReport> {
  return loadReport(piece, new ResultCache(), [], false);
}

export function loadReport(
  piece: Piece,
  cache: ResultCache,
  regions: readonly RegionReport[],
  ranges: boolean,
): Result<LoadReport> {
  const solved = solvedLoad(piece, cache);
  if (!solved.ok) return solved;
  const { stages, lifeStages: checks, unpropped, standing, propped, bare } = solved.value;
  const pushed = ranges ? strengthRanges(piece, stages, checks, standing, propped) : null;
  const ledger = ledgerOf(piece, regions);
  const stances = stages.map((m) => stanceAt(piece, m, ledger));
  const stance = stances.reduce((worst, s) => (s.tipAngle < worst.tipAngle ? s : worst));
  const base = baseOf(piece, stages, checks);
  const inWind = stances.find((s) => s.stage === 'wind');
  return success({
    situations: ranges ? situationsOf(piece, bare) : null,
    baseStage: base.stage,
    lifeStages: checks,
    unpropped,
    members: memberReports(piece, checks, pushed),
    ledger,
    stances,
    stance,
    base: base.check,
    wind: inWind ? windReport(piece, inWind) : null,
  });
}

function ledgerOf(piece: Piece, regions: readonly RegionReport[]): Ledger {
  const items: LedgerItem[] = [];
  regions.forEach((r, i) => {
    const parts = piece.volumes.perMass.filter((_, m) => piece.regionOfMass[m] === i);
    const clay = centreOf(parts.map((v) => ({ mass: v.clay, at: v.clayCentre })));
    const bulk = centreOf(parts.map((v) => ({ mass: v.bulk, at: v.bulkCentre })));
    if (clay.mass > 0)
      items.push({
        id: `clay/${r.id}`,
        name: `clay, ${r.name}`,
        kind: 'clay',
        wet: r.clayWet,
        dry: r.clayDry,
        at: clay.at,
      });
    if (bulk.mass > 0 && !piece.face.solid) {
      const mass = bulk.mass * piece.bulk.density;
      items.push({
        id: `bulk/${r.id}`,
        name: `${piece.bulk.name}, ${r.name}`,
        kind: 'bulk',
        wet: mass,
        dry: mass,
        at: bulk.at,
      });
    }
    const wrap = centreOf(
      parts.map((v) => ({ mass: piece.layersPerArea[i]! * (v.clay > 0 ? v.area : 0), at: v.clayCentre })),
    );
    if (wrap.mass > 0)
      items.push({
        id: `wrap/${r.id}`,
        name: `${piece.build.regions.everywhere.under || piece.build.regions.own[r.id]?.under ? 'layers' : piece.wrap.name}, ${r.name}`,
        kind: 'wrap',
        wet: wrap.mass,
        dry: wrap.mass,
        at: wrap.at,
      });
  });
  items.push(...armatureItems(piece.armature, piece.stockOf));
  return sumLedger(items);
}

/** Its board's corners or feet; without a board, whatever of the form lies within two cells of the ground. */
function touching(piece: Piece): ReturnType<typeof contactsOf> {
  const { base } = piece.armature;
  if (base.standing !== 'own') return contactsOf(base);
  const under = footprint(piece.grid, piece.extent.low[2], 2 * piece.grid.step);
  return under.length > 0 ? convexHull(under) : contactsOf(base);
}

function stanceAt(piece: Piece, stage: LifeStage, ledger: Ledger): StageStance {
  const hung = lumpedCentre(piece.load, stage, piece.face.solid ? 0 : piece.bulk.density, piece.wrapPerArea);
  const rest = ledger.items
    .filter((i) => i.kind === 'hardware' || i.kind === 'base' || i.kind === 'ballast')
    .map((i) => ({ mass: i.wet, at: i.at }));
  const whole = centreOf([...rest, hung]);
  const { base } = piece.armature;
  const top = piece.armature.nodes.reduce((z, n) => Math.max(z, n.at[2]), 0);
  return {
    ...stanceOn(touching(piece), whole.mass, whole.at, groundUnder(base), top),
    stage: stage.id,
    name: stage.name,
  };
}

function baseOf(
  piece: Piece,
  stages: readonly LifeStage[],
  checks: readonly StageCheck[],
): { check: BaseCheck; stage: string } {
  const { base } = piece.armature;
  const stock = piece.stockOf(base.stock);
  const against = (moment: number, safety: number) =>
    checkBase(
      base,
      moment,
      safety,
      stock?.density ?? 640,
      (stock?.strength.nominal ?? 40e6) * (stock?.allowed ?? 1 / 3),
    );
  const most = (b: BaseCheck) => Math.max(b.screwUtilisation, b.boardUtilisation);
  return checks.reduce(
    (worst, c, i) => {
      const check = against(c.footMoment, stages[i]?.safety ?? 1.5);
      return most(check) > most(worst.check) ? { check, stage: c.name } : worst;
    },
    { check: against(0, 1.5), stage: checks[0]?.name ?? '' },
  );
}

/** Finished, without props, in each situation there is: what it would come through beyond what it is meant for. */
function situationsOf(piece: Piece, check: LoadCheck): SituationReport[] {
  const nameOf = new Map(piece.armature.bones.map((b) => [b.id, b.name]));
  const solved = situationStages({
    coats: piece.coats,
    dryDensity: piece.mixed.wetDensity * dryShareInRoom(piece),
  }).flatMap((m) => {
    const found = check.at(m);
    return found.ok ? [{ m, found: found.value }] : [];
  });
  return solved.map(({ m, found }): SituationReport => {
    const worst = check
      .withBowing([found])[0]
      ?.bones.reduce((w, b) => (Math.max(b.utilisation, b.buckling) > Math.max(w.utilisation, w.buckling) ? b : w));
    if (!worst) throw new Error('no bones');
    const utilisation = Math.max(worst.utilisation, worst.buckling);
    return {
      id: m.id as SituationReport['id'],
      name: m.name,
      utilisation,
      bone: nameOf.get(worst.bone) ?? worst.bone,
      cause: worst.cause,
      status: statusOf(utilisation),
    };
  });
}

interface Pushed {
  readonly byBone: ReadonlyMap<string, Range>;
}

const idle = 0.05;

/** Whether stage `i` is the one that asks most of some bone that is asked for anything. */
function asksMost(checks: readonly StageCheck[], i: number): boolean {
  return (
    checks[i]?.bones.some(
      (b, k) => b.utilisation > idle && checks.every((c) => (c.bones[k]?.utilisation ?? 0) <= b.utilisation),
    ) ?? false
  );
}

/**
 * Each bone's utilisation with strength of clay, metal, bulk and joins, thickness of the clay and density of the bulk at
 * their ends, one at a time, at the stage that asks most of it; together by root sum of squares.
 */
function strengthRanges(
  piece: Piece,
  stages: readonly LifeStage[],
  checks: readonly StageCheck[],
  props: CheckInputs['props'],
  nominal: LoadCheck,
): Pushed {
  const asOf = (push: LoadPush, loads: boolean) => ({
    check: new LoadCheck({ ...inputsOf(piece, props, push), bowing: false, still: !loads }, nominal.symbolicFactor, {
      check: nominal,
      loads,
    }),
    still: !loads,
    stage: (s: LifeStage): LifeStage =>
      push.clayThickness ? { ...s, clayDensity: s.clayDensity.map((d) => d * push.clayThickness!) } : s,
  });
  const cases = [
    ...strengthEnds.map((clayStrength) => ({
      check: new LoadCheck({ ...inputsOf(piece, props, { clayStrength }), bowing: false }, nominal.symbolicFactor),
      still: false,
      stage: (s: LifeStage) => s,
    })),
    ...[-1, 1].map((metal) => asOf({ metal }, true)),
    ...joinEnds.map((joins) => asOf({ joins }, true)),
    ...(piece.face.solid
      ? []
      : [
          ...strengthEnds.map((bulkStrength) => asOf({ bulkStrength }, true)),
          ...bulkDensityEnds.map((bulkDensity) => asOf({ bulkDensity }, false)),
          ...thicknessEnds.map((clayThickness) => asOf({ clayThickness }, false)),
        ]),
  ];
  const outcomes = new Map<string, number[]>();
  const asking = stages.filter((_, i) => asksMost(checks, i));
  const mostOf = ({ check, stage }: Pick<(typeof cases)[number], 'check' | 'stage'>) => {
    const best = new Map<string, number>();
    for (const s of asking) {
      const found = check.at(stage(s));
      if (!found.ok) continue;
      for (const b of found.value.bones) best.set(b.bone, Math.max(best.get(b.bone) ?? 0, b.utilisation));
    }
    return best;
  };
  const now = mostOf({ check: nominal, stage: (s) => s });
  // What other loads do is told by the frame as though it stood still, and grows by as much as it does once it has moved.
  const still = cases.some((c) => c.still) ? mostOf(asOf({}, false)) : now;
  for (const pushed of cases)
    for (const [id, u] of mostOf(pushed)) {
      const before = still.get(id) ?? 0;
      const moved = pushed.still && before > 0 ? (u * (now.get(id) ?? before)) / before : u;
      outcomes.set(id, [...(outcomes.get(id) ?? []), moved]);
    }
  const byBone = new Map<string, Range>();
  for (const [id, all] of outcomes) {
    const own = checks.flatMap((c) => c.bones.filter((b) => b.bone === id));
    const bends = own.reduce((m, b) => Math.max(m, b.utilisation), 0),
      bows = own.reduce((m, b) => Math.max(m, b.buckling), 0);
    // What bows does so by stiffness, which none of these changes much.
    const { low, high } = combineDepartures(bends, all);
    byBone.set(id, { low: Math.max(low, bows), nominal: Math.max(bends, bows), high: Math.max(high, bows) });
  }
  return { byBone };
}

function memberReports(piece: Piece, checks: readonly StageCheck[], pushed: Pushed | null): MemberReport[] {
  return piece.armature.bones.map((bone, i) => {
    let worst = checks[0]?.bones[i];
    let name = checks[0]?.name ?? '';
    for (const c of checks) {
      const b = c.bones[i];
      if (b && worst && Math.max(b.utilisation, b.buckling) > Math.max(worst.utilisation, worst.buckling)) {
        worst = b;
        name = c.name;
      }
    }
    if (!worst) throw new Error(`bone ${bone.id} was not checked`);
    const utilisation = Math.max(worst.utilisation, worst.buckling);
    const {
      demand,
      capacity,
      metalShare,
      bulkShare,
      clayShare,
      pushShare,
      carries,
      sag,
      sagShare,
      buckling,
      set,
      cause,
    } = worst;
    return {
      id: bone.id,
      name: bone.name,
      stage: name,
      utilisation,
      utilisationRange: pushed?.byBone.get(bone.id) ?? null,
      status: statusOf(utilisation),
      demand,
      capacity,
      metalShare,
      bulkShare,
      clayShare,
      pushShare,
      carries,
      sag,
      sagShare,
      buckling,
      set,
      cause,
    };
  });
}
