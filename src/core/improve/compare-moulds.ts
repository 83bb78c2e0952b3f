import { applyEdit } from '../document';
import type { EvaluateOptions, Evaluator, Question } from '../evaluate';
import {
  castInUse,
  castNeeds,
  dryForCast,
  mouldChosen,
  mouldFiguresOf,
  mouldKinds,
  mouldMaterials,
  mouldProcesses,
  plasterWarms,
  pourBox,
  pullsExpected,
  pullsOf,
  pullsUntilGone,
  saidWalls,
  takeMould,
  castUseOf,
  type CastInUse,
  type CastNeed,
  type MouldFigures,
  type MouldKind,
  type MouldKindId,
  type PourBox,
} from '../mould';
import { wornLimits } from '../load';
import { masterOf, type Piece } from '../piece';
import type { BuildPlan } from '../plan';
import { success, type Range, type Result, type Vec3 } from '../quantity';

/** One kind of mould on this piece: what goes into it, what comes out, and what it does to the plan. */
export interface MouldRow {
  readonly figures: MouldFigures;
  /** Of what is bought for it, in the build's currency. */
  readonly cost: Range;
  /** What casts of it take: as many as are wanted, or one. */
  readonly casts: { readonly count: number; readonly needs: readonly CastNeed[] };
  /** What a cast then costs, its share of the mould with it. */
  readonly eachCost: Range;
  /** What a cast's weight does where it goes. */
  readonly inUse: CastInUse;
  /** Degrees its plaster warms as it sets; null without any. */
  readonly warms: number | null;
  /** Seconds until it has dried enough for its cast; nought where that does not matter, null where the room never dries it. */
  readonly dries: number | null;
  /** Of work at it, as the plan has them, and the day all is done. */
  readonly hours: number;
  readonly ready: string | null;
  /** To pour it in; null where nothing is poured. */
  readonly box: PourBox | null;
  /** Until a pore is gone. */
  readonly pulls: Range;
  readonly chosen: boolean;
}

/** A pore or a crease of skin, metres. */
export const detailDepth = 0.0003;

/** Every kind of mould, with the cast that was chosen where it takes it, else the first it does. */
export function compareMoulds(question: Question, evaluator: Evaluator, options: EvaluateOptions): Result<MouldRow[]> {
  const piece = evaluator.piece(question, options);
  if (!piece.ok) return piece;
  const { build } = question;
  const chosen = mouldChosen(build);
  const kinds: readonly MouldKind<MouldKindId>[] = mouldKinds;
  const { cast } = build.mould;
  const master = masterOf(piece.value);
  const figures = mouldFiguresOf(
    master,
    kinds.map((k) => ({
      kind: k.id,
      ...(cast !== null && k.takes.includes(cast) ? { cast } : {}),
      ...(k.id === chosen?.kind ? saidWalls(chosen.walls) : {}),
    })),
  );
  if (!figures.ok) return figures;
  const rows: MouldRow[] = [];
  const { temperature, relativeHumidity, airSpeed: speed } = build.room;
  const air = { temperature, relativeHumidity, speed };
  const { mount } = build.armature;
  const use = castUseOf(build);
  const limits = mount.kind === 'worn' && mount.where === use ? wornLimits(mount) : undefined;
  for (const [i, kind] of kinds.entries()) {
    const taken = applyEdit(build, takeMould(build, kind.id));
    if (!taken.ok) return taken;
    const report = evaluator.evaluate({ ...question, build: taken.value }, options);
    if (!report.ok) return report;
    const own = figures.value[i]!;
    const count = Math.max(1, build.mould.casts);
    const needs = castNeeds(own, count);
    const cost = costOf(own);
    rows.push({
      figures: own,
      cost,
      casts: { count, needs },
      inUse: castInUse(own.castMass, sizeOf(piece.value.extent), own.left.nominal, use, limits),
      eachCost: eachOf(cost, needs, count),
      dries: dryForCast(kind, own.cast, own.shell?.thickness ?? null, air),
      warms: own.shell?.material === 'plaster' ? plasterWarms(own.shell.thickness) : null,
      hours: mouldHours(report.value.plan),
      ready: report.value.dates.ready?.likely ?? null,
      box: own.block
        ? pourBox(master.box, master.board, own.block.thickness, mouldMaterials[own.block.material].density)
        : null,
      pulls:
        kind.id === chosen?.kind
          ? pullsExpected(detailDepth, kind.wear, pullsOf(question.log))
          : pullsUntilGone(detailDepth, kind.wear),
      chosen: kind.id === chosen?.kind,
    });
  }
  return success(rows);
}

function costOf({ skin, shell, block }: MouldFigures): Range {
  const sum = (end: keyof Range): number =>
    [skin, shell, block].reduce((all, p) => all + (p ? p.toBuy * mouldMaterials[p.material].price[end] : 0), 0);
  return { low: sum('low'), nominal: sum('nominal'), high: sum('high') };
}

function sizeOf({ low, high }: Piece['extent']): Vec3 {
  return [high[0] - low[0], high[1] - low[1], high[2] - low[2]];
}

/** Of one of so many casts: what it is made of, and its share of the mould. */
function eachOf(mould: Range, needs: readonly CastNeed[], count: number): Range {
  const of = (end: keyof Range) => needs.reduce((sum, n) => sum + n.price[end], mould[end] / count);
  return { low: of('low'), nominal: of('nominal'), high: of('high') };
}

function mouldHours(plan: BuildPlan | null): number {
  const own = plan?.steps.filter((s) => mouldProcesses.some((p) => s.id.startsWith(`${p}/`))) ?? [];
  return own.reduce((sum, s) => sum + s.hours * s.people, 0);
}
