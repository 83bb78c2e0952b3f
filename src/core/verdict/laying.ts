import { sectionsByJoins, type Section } from '../armature';
import { hashOf, partHash, type DryState } from '../build';
import type { DryingCoefficients } from '../catalogue';
import { stagesOf } from '../clay';
import {
  airSpells,
  crackIndex,
  freeEndShare,
  slidesBelow,
  dryLayer,
  evaporationCurve,
  furtherCoatRestraint,
  liftedOffRestraint,
  moistureAt,
  weekdayOf,
  type AirPhase,
  type CrackIndex,
  type DryingCourse,
  type Geometry,
  type RestraintSpell,
  type RoomCalendar,
} from '../drying';
import type { Memory } from './memory';
import type { Piece } from './piece';

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

/** Inside a hollow that has been closed again the air hardly changes. */
const closedHollow = 0.1;

export function calendarOf(piece: Pick<Piece, 'build'>): RoomCalendar {
  const { room, stages, brief } = piece.build;
  return { room, startHour: stages.startHour, weekday: weekdayOf(brief.startDate) };
}

/** A form open on one side lets a film slip; one that closes on itself grips the clay whatever is on it. */
const openForms = new Set(['mask', 'worn-shell']);

/** What it comes apart into; none or one where it does not. */
export function sectionsIn(piece: Pick<Piece, 'armature'>): readonly Section[] {
  return piece.armature.sections ?? sectionsByJoins(piece.armature);
}

export function restraintOnCore(piece: Piece, region: number): number {
  const { stages, form } = piece.build;
  const slips = stages.film && openForms.has(form.start.kind) ? 0.5 : 1;
  const core = piece.faces[region]?.restraint ?? piece.face.restraint;
  // Sections clad by themselves have free ends.
  const slides = stages.apart && core < slidesBelow && sectionsIn(piece).length > 1 ? freeEndShare : 1;
  return core * slips * slides;
}

export function stateTime(course: DryingCourse, state: DryState): number {
  return (
    (state === 'touch-dry' ? course.touchDry : state === 'leather-hard' ? course.leatherHard : course.throughDry) ??
    Infinity
  );
}

interface InnerChange {
  /** Seconds after the first clay. */
  readonly at: number;
  readonly innerFace: number;
  readonly lets: boolean;
}

/** When and how the inner face of the first coat changes. */
function innerChanges(piece: Piece, lifted: number | null): InnerChange[] {
  const { split } = piece.build.stages;
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
  piece: Piece,
  memory: Memory,
  region: string,
  start: number,
  transfer: number,
  changes: readonly InnerChange[],
): AirPhase[] {
  const calendar = calendarOf(piece);
  const own = piece.build.room.covers.some((c) => c.regions.length > 0) ? region : '';
  const key = hashOf([partHash(piece.build.room), calendar.startHour, calendar.weekday, own, start]);
  const spells = memory.keep('spells', key, () => airSpells(calendar, region, start));
  const factor = transfer * (piece.learned?.evaporation ?? 1);
  const curve = (s: (typeof spells)[number]) =>
    memory.keep('curve', `${s.air.temperature}:${s.air.relativeHumidity}:${s.air.speed}:${s.cover}:${factor}`, () =>
      evaporationCurve(s.air, s.cover, factor),
    );
  const out: AirPhase[] = [];
  let begun = 0;
  for (const s of spells) {
    const cuts = changes.map((c) => c.at - start).filter((t) => t > begun && t < s.until);
    for (const until of [...cuts, s.until]) {
      const last = changes.filter((c) => c.at - start <= begun).pop();
      out.push({
        until,
        curve: curve(s),
        relativeHumidity: s.air.relativeHumidity,
        ...(last ? { innerFace: last.innerFace } : {}),
      });
      begun = until;
    }
  }
  return out;
}

export function layClay(
  piece: Piece,
  memory: Memory,
  clay: DryingCoefficients,
  shapes: readonly RegionShape[],
  push: Push = nominalPush,
): Laid {
  const learned = piece.learned;
  const pushed: DryingCoefficients = {
    ...clay,
    D_wet: clay.D_wet * push.diffusivity * (learned?.diffusion ?? 1),
    D_dry: clay.D_dry * push.diffusivity * (learned?.diffusion ?? 1),
    w_m: clay.w_m * push.sorption,
    shrinkage: clay.shrinkage * push.shrinkage,
  };
  const lift = piece.build.stages.lift;
  const key = hashOf([
    pushed,
    push.transfer,
    piece.mixed.tabulatedW0,
    shapes,
    partHash(piece.build.room),
    partHash(piece.build.stages),
    piece.build.brief.startDate,
    partHash(piece.build.regions),
    piece.faces,
    push.restraint,
    lift ? piece.regions.map((_, r) => areaOf(piece, r)) : 0,
  ]);
  return memory.keep('laid', key, () => {
    if (!lift) return layOnce(piece, memory, pushed, shapes, push, null);
    if (lift.when === 'hours') return layOnce(piece, memory, pushed, shapes, push, lift.hours * 3600);
    // When it is ready to come off is found on the form; from then on it dries from both faces.
    const on = layOnce(piece, memory, pushed, shapes, push, null);
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
      const face = areaOf(piece, r);
      if (at === 0 || !Number.isFinite(at)) return;
      sum += face * at;
      area += face;
    });
    const ready = area > 0 ? sum / area : Infinity;
    return layOnce(piece, memory, pushed, shapes, push, ready + lift.hours * 3600);
  });
}

function areaOf(piece: Piece, region: number): number {
  return piece.volumes.perMass.reduce((sum, m, i) => (piece.regionOfMass[i] === region ? sum + m.area : sum), 0);
}

function layOnce(
  piece: Piece,
  memory: Memory,
  clay: DryingCoefficients,
  shapes: readonly RegionShape[],
  push: Push,
  lifted: number | null,
): Laid {
  const { waits } = piece.build.stages;
  const changes = innerChanges(piece, lifted);
  const numbers = piece.regions.map((id) => stagesOf(piece.build, id));
  const stageOf = (r: number, k: number) => (shapes[r]?.solid ? 1 : (numbers[r]?.[k] ?? k + 1));
  const all = [...new Set(shapes.flatMap((s, r) => s.thicknesses.map((_, k) => stageOf(r, k))))].sort((a, b) => a - b);
  const coats: LaidCoat[][] = shapes.map(() => []);
  const starts: { stage: number; at: number }[] = [];
  let start = 0;
  all.forEach((stage, n) => {
    starts.push({ stage, at: start });
    const wait = waits[n] ?? { until: 'through-dry' as const, hours: 0 };
    let reached = 0;
    shapes.forEach((shape, r) =>
      shape.thicknesses.forEach((thickness, k) => {
        if (stageOf(r, k) !== stage) return;
        const coat = dryCoat(piece, memory, clay, shape, r, k, thickness, stage, start, push, changes);
        coats[r]?.push(coat);
        reached = Math.max(reached, stateTime(coat.course, wait.until));
      }),
    );
    start += reached + wait.hours * 3600;
  });
  return { coats, starts, lifted };
}

function dryCoat(
  piece: Piece,
  memory: Memory,
  clay: DryingCoefficients,
  shape: RegionShape,
  r: number,
  k: number,
  thickness: number,
  stage: number,
  start: number,
  push: Push,
  changes: readonly InnerChange[],
): LaidCoat {
  const first = k === 0;
  const region = piece.regions[r] ?? '';
  const begins = Number.isFinite(start) ? start : 0;
  const innerFace = first && !shape.solid ? (piece.faces[r]?.innerFace ?? 0) : 0;
  const mine = first && !shape.solid ? changes : [];
  const phases = phasesFrom(piece, memory, region, begins, push.transfer, mine);
  // Phases are few and their curves kept: what they are is told by their ends and a figure of each curve.
  const key = hashOf([
    clay,
    piece.mixed.tabulatedW0,
    shape.geometry,
    thickness,
    innerFace,
    phases.map((p) => [p.until, p.innerFace ?? -1, p.curve.fluxes[256], p.curve.fluxes[0]]),
  ]);
  const course = memory.keep('course', key, () =>
    dryLayer({ clay, tabulatedW0: piece.mixed.tabulatedW0, geometry: shape.geometry, thickness, innerFace, phases }),
  );
  const restraint = Math.min(1, (first ? restraintOnCore(piece, r) : furtherCoatRestraint) * push.restraint);
  const let1 = mine.find((c) => c.lets);
  const spells: RestraintSpell[] =
    let1 && Number.isFinite(start)
      ? [
          { restraint, until: let1.at <= begins ? 0 : moistureAt(course.history, let1.at - begins).shrinkageDone },
          { restraint: liftedOffRestraint, until: 1 },
        ]
      : [{ restraint, until: 1 }];
  return { thickness, stage, start, restraint, course, crack: crackIndex(clay, thickness, course, spells) };
}
