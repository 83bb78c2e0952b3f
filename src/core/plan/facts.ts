import { lyingWays } from '../document';
import { sectionsIn } from '../armature';
import { coverKinds, type LayerKind } from '../catalogue';
import { layersOverClay, layersUnderClay } from '../clay';
import { cureHours, kneadingMinutes, layingHours } from '../cure';
import {
  blockAbout,
  castNeeds,
  dryForCast,
  flatCast,
  leftInTheBowl,
  mouldChosen,
  mouldMaterials,
  type MouldChosen,
} from '../mould';
import {
  boardOf,
  castFrom,
  coatState,
  layingMasses,
  letGoWaitsFor,
  type Piece,
  type PieceReport,
  type RegionReport,
} from '../piece';
import { exactly, type Range } from '../quantity';
import { puttyCure } from './clocks';
import type { CastFacts, CoatFacts, JobFacts, LayerFacts, LetGoFacts, MouldFacts, RegionFacts } from './step';

/** What a job's steps are made from, read off a piece and its report. Ranges are there when the report has them. */
const never = 400 * 86400;

export function jobFacts(piece: Piece, report: PieceReport): JobFacts {
  const { build, clay } = piece;
  const { stages } = build;
  const regions = report.regions.filter((r) => r.clayVolume > 0);
  const heights = regions.map((r) => r.height);
  const top = Math.max(...heights, 1e-9),
    low = Math.min(...heights, top);
  const bulk = regions.reduce((sum, r) => sum + r.bulkVolume, 0);
  const under = layersOn(report.regions, (id) => layersUnderClay(build, id) ?? []);
  const over = layersOn(report.regions, (id) => layersOverClay(build, id));
  const facts = regions.map((r, i): RegionFacts => ({
    id: r.id,
    name: r.name,
    area: r.area,
    bulkShare: bulk > 0 ? r.bulkVolume / bulk : 0,
    height: heights[i] ?? 0,
    // The eye rests on what stands high, on a face and on hands; it passes over a back and a foot.
    seen: /head|face|feature|hand|muzzle|eye/.test(r.id)
      ? 1
      : top > low
        ? 0.2 + (0.6 * ((heights[i] ?? 0) - low)) / (top - low)
        : 0.6,
    crack: r.crack,
    coats: coatFacts(piece, r),
  }));
  return {
    setting: clay.setting,
    clayName: clay.name,
    area: report.size.area,
    armatureHours: report.hours.armature,
    joinsSet: piece.armature.bones.some((b) => b.joinFrom === 'epoxied' || b.joinTo === 'epoxied')
      ? cureHours(puttyCure, build.room.temperature) * 3600
      : null,
    // Layers that are chosen under the clay take the place of what the way of building winds over its core.
    wrap: piece.regions.some((id) => layersUnderClay(build, id) === null) ? piece.wrap.id : 'none',
    wrapped: wrappedOver(piece, report),
    bulkHours: under.length > 0 && !piece.face.solid ? Math.max(0, report.hours.bulk) : report.hours.bulk,
    hoursPerKg: layingHours(1, clay.setting),
    fineness: build.plan.fineness,
    regions: facts,
    under,
    over,
    processes: build.finish.processes.map((p) => p.kind),
    mould: mouldFacts(piece),
    props: build.armature.props.length,
    letGo: propsMayGo(piece, report.letGo),
    lift: stages.lift ? liftWindow(regions, stages.lift) : null,
    split: stages.split ? { from: stages.split.from * 3600, until: stages.split.until * 3600 } : null,
    turns: stages.turns.map((t) => ({
      at: t.at * 3600,
      lying: lyingWays.find((w) => w.id === t.lying)?.name ?? t.lying,
    })),
    uncover: build.room.covers
      .filter((c) => c.until !== null && c.kind !== 'none')
      .map((c) => ({
        at: (c.until ?? 0) * 3600,
        what: `${coverKinds.find((k) => k.id === c.kind)?.name ?? 'the cover'}${c.regions.length > 0 ? ` from the ${c.regions.map((id) => report.regions.find((r) => r.id === id)?.name ?? id).join(', ')}` : ''}`,
      })),
    sections: stages.apart ? sectionsIn(piece.armature).length : 1,
    soft: report.cure ? report.cure.softMinutes * 60 : null,
    cure: report.cure ? report.cure.cureHours * 3600 : null,
    ownMix: clayToMix(piece, report),
    celsius: build.room.temperature,
    batch: report.cure ? { mass: report.cure.each, kneading: kneadingMinutes(report.cure.each) * 60 } : null,
    bakes: report.heat.baking ? report.heat.baking.bakes.map((b) => b.minutes * 60) : [],
    warming: report.heat.warming ? report.heat.warming.time : null,
    workable: report.workableDays === null ? null : Math.min(never, report.workableDays * 86400),
    heavy: report.handling.whole.lift.people > 1,
    held: heldBy(piece),
    lies: build.plan.held === 'cradle',
    bareFirst: build.plan.bareFirst,
  };
}

/** Layers of all regions, each once, with the area of the regions that have it. */
function layersOn(regions: readonly RegionReport[], of: (region: string) => readonly LayerKind[]): LayerFacts[] {
  const out = new Map<string, LayerFacts>();
  for (const r of regions)
    for (const { id, name, perArea } of of(r.id)) {
      const area = (out.get(id)?.area ?? 0) + r.area;
      out.set(id, { id, name, area, mass: area * perArea });
    }
  return [...out.values()];
}

/** What the way of building winds over its core where nothing else is chosen for under the clay. */
function wrappedOver(piece: Piece, report: PieceReport): LayerFacts | null {
  if (piece.face.solid || piece.wrap.id === 'none') return null;
  const area = report.regions
    .filter((r) => layersUnderClay(piece.build, r.id) === null && r.clayVolume > 0)
    .reduce((sum, r) => sum + r.area, 0);
  return { id: piece.wrap.id, name: piece.wrap.name, area, mass: area * piece.wrap.perArea };
}

const hours = 3600;
/** Clay that makers mix, by its recipe: what a bowl and two arms mix, how long it rests in a closed bag, how long it keeps there. */
const mixesKept: Readonly<Record<string, { readonly each: number; readonly rests: number; readonly keeps: number }>> = {
  'paper-clay': { each: 2.5, rests: 12 * hours, keeps: 5 * 24 * hours },
  'cold-porcelain': { each: 1, rests: 24 * hours, keeps: 14 * 24 * hours },
};

function clayToMix({ clay }: Piece, report: PieceReport): JobFacts['ownMix'] {
  const kept = mixesKept[clay.recipe ?? ''] ?? mixesKept['paper-clay']!;
  const { toBuy, onPiece, mixedHere } = report.clay;
  return mixedHere && toBuy > 0 ? { ...kept, mixed: onPiece > 0 ? toBuy / onPiece : 1 } : null;
}

function heldBy(piece: Piece): boolean {
  const { held } = piece.build.plan;
  if (held !== 'auto') return held !== 'hands' && held !== 'cradle';
  const { mount } = piece.build.armature;
  return mount.kind !== 'worn' && piece.armature.base.standing !== 'own';
}

/** Clay that bears itself from the first is propped to keep its place until it is hard; what never bears it keeps its props. */
function propsMayGo({ build, clay }: Piece, letGo: PieceReport['letGo']): LetGoFacts {
  if (build.armature.props.some((p) => p.until === 'always') || letGo.when === 'never') return null;
  if (clay.setting === 'never' || clay.setting === 'damp') return null;
  const hard = letGo.when === 'at-once' || letGo.sags > letGo.keeps || letGo.after === null;
  return hard
    ? { when: 'hard', why: 'the clay is hard and keeps its place' }
    : { when: 'after', after: letGo.after, why: letGoWaitsFor(letGo) };
}

function coatFacts(piece: Piece, r: RegionReport): CoatFacts[] {
  const { waits } = piece.build.stages;
  const whole = r.coats.reduce((sum, c) => sum + c.thickness, 0);
  const coats = piece.coats[piece.regions.indexOf(r.id)] ?? [];
  // A clay that does not dry has coats too; the drying knows nothing of them.
  if (r.coats.length === 0) {
    return layingMasses(piece, r).map((mass, k) => ({
      stage: k + 1,
      mass,
      thickness: coats[k]!,
      smoothUntil: null,
      hold: null,
      through: null,
      steady: null,
      next: null,
    }));
  }
  const stages = [...new Set(r.coats.map((c) => c.stage))].sort((a, b) => a - b);
  const stateNamed = { 'touch-dry': 'touch', 'leather-hard': 'leather', 'through-dry': 'through' } as const;
  return r.coats.map((c) => {
    const wait = waits[stages.indexOf(c.stage)] ?? { until: 'through-dry' as const, hours: 0 };
    const ready = coatState(r, c, stateNamed[wait.until]);
    const through = coatState(r, c, 'through');
    return {
      stage: c.stage,
      mass: (r.clayWet * c.thickness) / (whole || 1),
      thickness: c.thickness,
      smoothUntil: c.course.smoothUntil === null ? null : within(exactly(c.course.smoothUntil)),
      hold: atMost(coatState(r, c, 'hold')),
      through: within(through ?? exactly(never)),
      steady: within(coatState(r, c, 'steady') ?? exactly(never)),
      next: within(
        ready
          ? {
              low: ready.low + wait.hours * 3600,
              nominal: ready.nominal + wait.hours * 3600,
              high: ready.high + wait.hours * 3600,
            }
          : exactly(never),
      ),
    };
  });
}

const within = (r: Range): Range => ({
  low: Math.min(never, r.low),
  nominal: Math.min(never, r.nominal),
  high: Math.min(never, r.high),
});
const atMost = (r: Range | null): Range | null => r && within(r);

/** From when the skin has set to when it is too stiff to give, over most of the face; not before the hours asked for. */
function liftWindow(
  regions: readonly RegionReport[],
  lift: { readonly when: 'touch-dry' | 'leather-hard' | 'hours'; readonly hours: number },
): { least: number; most: number } {
  let area = 0,
    first = 0,
    last = 0;
  for (const r of regions) {
    const coat = r.coats[r.coats.length - 1];
    const touch = coat && coatState(r, coat, 'touch')?.nominal,
      leather = coat && coatState(r, coat, 'leather')?.nominal;
    if (touch === undefined || leather === undefined) continue;
    area += r.area;
    first += r.area * Math.min(touch, leather);
    last += r.area * Math.max(touch, leather);
  }
  if (area === 0) return { least: lift.hours * 3600, most: never };
  const asked =
    lift.when === 'hours' ? lift.hours * 3600 : (lift.when === 'touch-dry' ? last : first) / area + lift.hours * 3600;
  return { least: Math.min(asked, last / area), most: Math.max(last / area, asked + 3600) };
}

/** Casts that are wanted; their mould dries in the room the piece dries in, its walls open to both sides. */
function castFacts({ build }: Piece, chosen: MouldChosen, from: ReturnType<typeof castFrom>): CastFacts | null {
  const { casts: count } = build.mould;
  if (count === 0) return null;
  const { kind, cast } = from;
  const weights = flatCast(kind, cast, from);
  const { temperature, relativeHumidity, airSpeed: speed } = build.room;
  return {
    cast: chosen.cast,
    count,
    each: castNeeds({ cast, ...weights }, count).map(({ name, each }) => ({ name, mass: each })),
    mouldDries: dryForCast(kind, cast, chosen.walls.shell, { temperature, relativeHumidity, speed }),
    setIn: build.mould.inserts.map((i) => i.name),
  };
}

/** Of a poured mould the kg of rubber: its box is known without counting cells. */
function mouldFacts(piece: Piece): MouldFacts | null {
  const chosen = mouldChosen(piece.build);
  if (!chosen) return null;
  const from = castFrom(piece, chosen);
  const { block } = from.kind;
  const { area } = from;
  const { skin, shell, margin } = chosen.walls;
  const casts = castFacts(piece, chosen, from);
  if (!block) return { kind: chosen.kind, area, volume: from.volume, block: 0, skin, shell, casts };
  const volume = blockAbout(piece.extent, boardOf(piece), margin ?? block.margin, from.volume);
  const poured = volume * mouldMaterials[block.material].bought * (1 + leftInTheBowl);
  return { kind: chosen.kind, area, block: poured, casts };
}
