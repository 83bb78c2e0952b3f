import { mostShrinkage, stagesOf } from '../clay';
import type { DryingCoefficients } from '../catalogue';
import { hashOf, partHash, type DryState, type Stages } from '../document';
import {
  airSpells,
  crackIndex,
  diffusionAt,
  dryLayer,
  evaporationCurve,
  liftedOffRestraint,
  moistureAt,
  weekdayOf,
  type AirPhase,
  type CrackIndex,
  type DrinkingCore,
  type DryingCourse,
  type Geometry,
  type RestraintSpell,
  type RoomCalendar,
} from '../drying';
import { isShell, lyingRadii, restingShut, standsUntil } from './lying';
import type { Piece } from './piece';
import { openForms, overMember, restraintOfCoat, restraintOnCore } from './restraint';
import type { ResultCache } from './result-cache';

/**
 * The clay laid stage by stage, each coat dried through its thickness in the weather it meets, later stages waiting for
 * earlier ones, and the core let go of when the piece is lifted off its form or opened.
 */

/** Coefficients pushed off their nominal, as factors; 1 is nominal. */
export interface Push {
  readonly diffusivity: number;
  readonly transfer: number;
  readonly sorption: number;
  readonly restraint: number;
  readonly shrinkage: number;
}
export const nominalPush: Push = { diffusivity: 1, transfer: 1, sorption: 1, restraint: 1, shrinkage: 1 };

export interface LaidCoat {
  readonly thickness: number;
  readonly stage: number;
  /** Seconds after the first clay. */
  readonly start: number;
  /** What held it back at first. */
  readonly restraint: number;
  readonly course: DryingCourse;
  readonly crack: CrackIndex;
  /** Right over a member with nothing but clay between: hardly any of the shrinkage is let go there. */
  readonly overMember: CrackIndex | null;
}

/** What a region dries like: one thickness a coat. */
export interface RegionShape {
  readonly geometry: Geometry;
  readonly solid: boolean;
  readonly thicknesses: readonly number[];
}

export interface Laid {
  /** By region, then coat. */
  readonly coats: readonly (readonly LaidCoat[])[];
  /** Seconds at which each stage goes on; Infinity where the one before never gets there. */
  readonly starts: readonly { readonly stage: number; readonly at: number }[];
  /** When it comes off its form; null where it does not. */
  readonly lifted: number | null;
}

/** Everything the laying is worked out from: what is not in here cannot change it. */
export interface LayingInputs {
  readonly regions: readonly LaidRegion[];
  readonly calendar: RoomCalendar;
  readonly stages: Pick<Stages, 'waits' | 'lift' | 'split'>;
  readonly clay: DryingCoefficients;
  readonly tabulatedW0: number;
  /** Of what weighing found. */
  readonly evaporation: number;
  /** Seconds after the first clay beyond which nothing is asked. */
  readonly until?: number;
  /** Worked out roughly: for how it moves with its coefficients. */
  readonly rough?: boolean;
}

interface LaidRegion extends RegionShape {
  readonly id: string;
  /** Of each coat. */
  readonly stages: readonly number[];
  /** Of the first coat's inner face. */
  readonly restraint: number;
  readonly innerFace: number;
  /** What drinks there; null where nothing does, or the face is sealed. */
  readonly core: DrinkingCore | null;
  readonly area: number;
  /** A member lies in its first coat. */
  readonly overMember: boolean;
  /** What of its face lies on what the piece stands on, as a disc, m, and until when, seconds after the first clay; null where none does. */
  readonly lying: { readonly radius: number; readonly until: number } | null;
}

/** Share of the room's air inside a hollow that has been closed again: it hardly changes. */
export const closedHollow = 0.1;

export function calendarOf(piece: Pick<Piece, 'build' | 'known'>): RoomCalendar {
  const { room, stages, brief } = piece.build;
  return {
    room,
    startHour: stages.startHour,
    weekday: weekdayOf(brief.startDate),
    history: piece.known.room,
  };
}

/** Behind a form that is open half of the inner face stands to the room. */
const openBehind = 0.5;

/** What the clay of a region dries on, where it takes water: its bulk and the layers on it. m2 of face, m3 of bulk. */
export function coreUnder(piece: Piece, region: number, area: number, bulk: number): DrinkingCore | null {
  const face = piece.faces[region];
  if (!face || face.innerFace <= 0 || area <= 0) return null;
  return {
    holds: face.drinks.perArea + (face.drinks.perKg * bulk * piece.bulk.density) / area,
    breathes: openForms.has(piece.build.form.start.kind) ? openBehind : 0,
  };
}

/** kg of wet clay in each of a region's coats, as they are laid. */
export function layingMasses(piece: Piece, r: { readonly id: string; readonly clayWet: number }): number[] {
  const coats = piece.coats[piece.regions.indexOf(r.id)] ?? [];
  const whole = coats.reduce((sum, t) => sum + t, 0);
  return coats.map((t) => (r.clayWet * t) / (whole || 1));
}

/** kg of water in a coat with so many kg of solids, and what the core under it has taken, seconds after it was laid. */
export function coatMass(
  coat: LaidCoat,
  solids: number,
  rhoDry: number,
  after: number,
): { water: number; core: number } {
  const m = moistureAt(coat.course.history, Math.max(0, after));
  return {
    water: solids * m.meanMoisture,
    core: coat.thickness > 0 ? (solids / (rhoDry * coat.thickness)) * m.coreWater : 0,
  };
}

export function layingInputs(
  piece: Piece,
  clay: DryingCoefficients,
  shapes: readonly RegionShape[],
  areas: readonly number[],
  bulks: readonly number[],
): LayingInputs {
  const { waits, lift, split } = piece.build.stages;
  const { evaporation, diffusion } = piece.factors;
  const lying = lyingRadii(piece);
  return {
    regions: piece.regions.map((id, r): LaidRegion => {
      const shape = shapes[r]!;
      const numbers = stagesOf(piece.build, id);
      return {
        ...shape,
        id,
        // What is too slight for a core is one lump, done when its last coat is on; clay all through is laid at once.
        stages: shape.thicknesses.map((_, k) =>
          !shape.solid ? (numbers[k] ?? k + 1) : piece.face.solid ? 1 : (numbers[numbers.length - 1] ?? 1),
        ),
        restraint: restraintOnCore(piece, r),
        innerFace: shape.solid ? 0 : (piece.faces[r]?.innerFace ?? 0),
        core: shape.solid ? null : coreUnder(piece, r, areas[r] ?? 0, bulks[r] ?? 0),
        area: areas[r] ?? 0,
        overMember: piece.thinOver[r]!.length > 0,
        lying:
          lying[r]! > 0 && !shape.solid && !isShell(piece, r) ? { radius: lying[r]!, until: standsUntil(piece) } : null,
      };
    }),
    calendar: calendarOf(piece),
    stages: { waits, lift, split },
    clay: { ...clay, D_wet: clay.D_wet * diffusion, D_dry: clay.D_dry * diffusion },
    tabulatedW0: piece.mixed.tabulatedW0,
    evaporation,
  };
}

export function stateTime(course: DryingCourse, state: DryState): number {
  return (
    (state === 'touch-dry' ? course.touchDry : state === 'leather-hard' ? course.leatherHard : course.throughDry) ??
    Infinity
  );
}

/** A region's last coat: the one that begins last. */
export function lastCoat(coats: readonly LaidCoat[]): LaidCoat | undefined {
  return coats.reduce<LaidCoat | undefined>((l, c) => (!l || c.start >= l.start ? c : l), undefined);
}

export function layClay(inputs: LayingInputs, cache: ResultCache, push: Push = nominalPush): Laid {
  const { calendar, ...rest } = inputs;
  const key = hashOf([rest, push, calendarHash(calendar)]);
  return cache.keep('laid', key, () => layPushed(inputs, cache, push));
}

function calendarHash({ room, startHour, weekday, history }: RoomCalendar): string {
  return `${partHash(room)}:${startHour}:${weekday}:${history ? partHash(history) : ''}`;
}

function layPushed(inputs: LayingInputs, cache: ResultCache, push: Push): Laid {
  const { clay } = inputs;
  const pushed: LayingInputs = {
    ...inputs,
    clay: {
      ...clay,
      D_wet: clay.D_wet * push.diffusivity,
      D_dry: clay.D_dry * push.diffusivity,
      w_m: clay.w_m * push.sorption,
      shrinkage: Math.min(mostShrinkage(clay), clay.shrinkage * push.shrinkage),
    },
    evaporation: inputs.evaporation * push.transfer,
  };
  const { lift } = inputs.stages;
  if (!lift) return layOnce(pushed, cache, push, null);
  if (lift.when === 'hours') return layOnce(pushed, cache, push, lift.hours * 3600);
  // When it is ready to come off is found on the form; from then on it dries from both faces.
  const on = layOnce(pushed, cache, push, null);
  const state = lift.when;
  const last = on.starts[on.starts.length - 1]?.stage;
  // Ears kept wrapped lag behind and are carried by the rest: what counts is when most of the face is there.
  let sum = 0,
    area = 0;
  on.coats.forEach((coats, r) => {
    const at = coats
      .filter((c) => c.stage === last)
      .map((c) => c.start + stateTime(c.course, state))
      .reduce((m, t) => Math.max(m, t), 0);
    const face = inputs.regions[r]?.area ?? 0;
    if (at === 0 || !Number.isFinite(at)) return;
    sum += face * at;
    area += face;
  });
  const ready = area > 0 ? sum / area : Infinity;
  return layOnce(pushed, cache, push, ready + lift.hours * 3600);
}

interface InnerChange {
  /** Seconds after the first clay. */
  readonly at: number;
  readonly innerFace: number;
  readonly lets: boolean;
}

/** When and how the inner face of the first coat changes. */
function innerChanges({ split }: LayingInputs['stages'], lifted: number | null): InnerChange[] {
  const out: InnerChange[] = [];
  if (split)
    out.push(
      { at: split.from * 3600, innerFace: 1, lets: true },
      { at: Math.max(split.from, split.until) * 3600, innerFace: closedHollow, lets: true },
    );
  if (lifted !== null && Number.isFinite(lifted)) out.push({ at: lifted, innerFace: 1, lets: true });
  return out.sort((a, b) => a.at - b.at);
}

function phasesFrom(
  { calendar, evaporation }: LayingInputs,
  cache: ResultCache,
  region: string,
  start: number,
  changes: readonly InnerChange[],
  lyingUntil = 0,
): AirPhase[] {
  const own = [calendar.room, ...(calendar.history?.spells.map((s) => s.room) ?? [])].some((room) =>
    room.covers.some((c) => c.regions.length > 0),
  )
    ? region
    : '';
  const key = hashOf([calendarHash(calendar), own, start]);
  const spells = cache.keep('spells', key, () => airSpells(calendar, region, start));
  const curve = ({ air, cover }: (typeof spells)[number], share: number) =>
    cache.keep(
      'curve',
      `${air.temperature}:${air.relativeHumidity}:${air.speed}:${cover}:${evaporation}:${share}`,
      () => evaporationCurve(air, cover, evaporation * share),
    );
  const out: AirPhase[] = [];
  let begun = 0;
  for (const s of spells) {
    const cuts = [...changes.map((c) => c.at), lyingUntil].map((at) => at - start);
    for (const until of [...cuts.filter((t) => t > begun && t < s.until).sort((a, b) => a - b), s.until]) {
      const last = changes.filter((c) => c.at - start <= begun).pop();
      out.push({
        until,
        curve: curve(s, begun < lyingUntil - start ? 1 - restingShut : 1),
        relativeHumidity: s.air.relativeHumidity,
        diffusion: diffusionAt(s.air.temperature),
        ...(last ? { innerFace: last.innerFace } : {}),
      });
      begun = until;
    }
  }
  return out;
}

function layOnce(inputs: LayingInputs, cache: ResultCache, push: Push, lifted: number | null): Laid {
  const { waits } = inputs.stages;
  const changes = innerChanges(inputs.stages, lifted);
  const all = [...new Set(inputs.regions.flatMap((r) => r.stages))].sort((a, b) => a - b);
  const coats: LaidCoat[][] = inputs.regions.map(() => []);
  const starts: { stage: number; at: number }[] = [];
  let start = 0;
  all.forEach((stage, n) => {
    starts.push({ stage, at: start });
    const wait = waits[n] ?? { until: 'through-dry' as const, hours: 0 };
    let reached = 0;
    inputs.regions.forEach((region, r) =>
      region.thicknesses.forEach((_, k) => {
        if (region.stages[k] !== stage) return;
        const coat = dryCoat(inputs, cache, region, k, start, push, changes);
        coats[r]?.push(coat);
        reached = Math.max(reached, stateTime(coat.course, wait.until));
      }),
    );
    start += reached + wait.hours * 3600;
  });
  return { coats, starts, lifted };
}

function dryCoat(
  inputs: LayingInputs,
  cache: ResultCache,
  region: LaidRegion,
  k: number,
  start: number,
  push: Push,
  changes: readonly InnerChange[],
): LaidCoat {
  const { clay, tabulatedW0 } = inputs;
  const first = k === 0;
  const thickness = region.thicknesses[k]!;
  const begins = Number.isFinite(start) ? start : 0;
  const innerFace = first ? region.innerFace : 0;
  const core = first && region.core ? region.core : undefined;
  const mine = first && !region.solid ? changes : [];
  const stopAt = inputs.until === undefined ? undefined : Math.max(1, inputs.until - begins);
  const dried = (geometry: Geometry, thick: number, inner: number, lyingUntil: number): DryingCourse => {
    const phases = phasesFrom(inputs, cache, region.id, begins, mine, lyingUntil);
    // Phases are few and their curves kept: what they are is told by their ends and a figure of each curve.
    const key = hashOf([
      clay,
      tabulatedW0,
      geometry,
      thick,
      inner,
      core ?? null,
      stopAt ?? -1,
      inputs.rough === true,
      phases.map((p) => [p.until, p.innerFace ?? -1, p.curve.fluxes[256], p.curve.fluxes[0], p.relativeHumidity]),
    ]);
    return cache.keep('course', key, () =>
      dryLayer({
        clay,
        tabulatedW0,
        geometry,
        thickness: thick,
        innerFace: inner,
        ...(core && geometry === 'slab' ? { core } : {}),
        phases,
        stopAt,
        rough: inputs.rough === true,
      }),
    );
  };
  const open = dried(region.geometry, thickness, innerFace, 0);
  const { lying } = region;
  // The side it stands on is the last to dry; a weighing hardly feels it.
  const course =
    lying && lying.until > begins && stopAt === undefined
      ? withLying(
          open,
          dried(region.geometry, thickness, innerFace, lying.until),
          lying.radius < 20 * thickness ? dried('cylinder', lying.radius, 0, 0) : null,
        )
      : open;
  const let1 = mine.find((c) => c.lets);
  const spellsOf = (restraint: number): RestraintSpell[] =>
    let1 && Number.isFinite(start)
      ? [
          {
            restraint,
            until: let1.at <= begins ? 0 : moistureAt(course.history, let1.at - begins).shrinkageDone,
          },
          { restraint: liftedOffRestraint, until: 1 },
        ]
      : [{ restraint, until: 1 }];
  const held = (share: number) => crackIndex(clay, thickness, course, spellsOf(Math.min(1, share * push.restraint)));
  const restraint = restraintOfCoat(region.restraint, !first);
  return {
    thickness,
    stage: region.stages[k]!,
    start,
    restraint: Math.min(1, restraint * push.restraint),
    course,
    crack: held(restraint),
    overMember: first && region.overMember ? held(overMember(restraint)) : null,
  };
}

/**
 * A coat of which some lies on what the piece stands on: there its water leaves down into the tenth of the air that gets
 * under it, and sideways to the rim of the patch, as from a rod; by both ways at once, whichever is quicker.
 */
function withLying(open: DryingCourse, under: DryingCourse, sideways: DryingCourse | null): DryingCourse {
  const last = (pick: (c: DryingCourse) => number | null): number | null => {
    const [out, down, side] = [open, under, sideways].map((c) => (c ? (pick(c) ?? Infinity) : Infinity));
    const both = Math.max(out!, 1 / (1 / down! + 1 / side!));
    return Number.isFinite(both) ? both : null;
  };
  return { ...open, throughDry: last((c) => c.throughDry), steady: last((c) => c.steady) };
}
