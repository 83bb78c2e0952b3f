import { buildHash, hashOf, partHash, type Build } from '../document';
import { cautionsFor, findingsOf, worstOf, type Finding, type Judged, type Judging } from '../finding';
import {
  begunOf,
  effectiveLog,
  firstClay,
  clayWentOn,
  happenedOf,
  roomHistory,
  weighingsOf,
  type LogEntry,
  type ReadEntry,
  type Weighings,
} from '../log';
import {
  dryingKey,
  fitToLog,
  fullFindings,
  makePiece,
  mouldPerArea,
  ResultCache,
  scaleReport,
  workOut,
  type FullFindings,
  type LogFit,
  type Piece,
  type PieceHistory,
  type PieceReport,
} from '../piece';
import { jobFacts, planWorkshop, stepsOf, type BuildToPlan, type PlanSurroundings, type WorkshopPlan } from '../plan';
import { noSizes, withSizes, type Sizes } from '../school';
import { sizeToCarry } from '../sizing';
import { secondsOf, success, type Result, type UnitSystem } from '../quantity';
import type { WholeDrying } from '../drying';
import { datesOf, laidDates } from './dates';
import type { Report, SizingState } from './report';

/** What is asked: a build, its log, and the moment it is asked at. */
export interface Question {
  readonly build: Build;
  readonly log: readonly LogEntry[];
  /** Seconds since the epoch. */
  readonly now: number;
}

/** A build with nothing in its log, on the day its clay is to go on. */
export function asBriefed(build: Build): Question {
  return { build, log: nothingLogged, now: secondsOf(build.brief.startDate) };
}
const nothingLogged: readonly LogEntry[] = [];

export interface EvaluateOptions {
  /** How sentences give their figures. */
  readonly units?: UnitSystem;
  /** Push everything uncertain to its ends; 'dates' only what the dates hang on. */
  readonly ranges?: boolean | 'dates';
  /** The build's id among those it is planned with. */
  readonly id?: string;
  /** Who works when, how fast, and what else is on the go; the brief's own hours where it is left out. */
  readonly surroundings?: PlanSurroundings;
  /** What the last drying of the whole piece found. */
  readonly full?: FullFindings | null;
  /** What the log of the real piece told, for a variant of it: the past is not fitted again under a room that is only tried. */
  readonly known?: PieceHistory;
  /** Sizes to be judged at, in place of those the build would be given: what is tried is tried at the sizes there are. */
  readonly sizes?: Sizes;
}

/** A build judged, before any remedy is tried. */
export interface Answer {
  readonly judging: Judging;
  readonly findings: readonly Judged[];
  readonly workshop: WorkshopPlan | null;
  readonly known: Known;
  /** Whether everything uncertain was pushed to its ends. */
  readonly ranged: boolean;
  readonly sizes: Sizes;
  readonly sizing: SizingState;
}

/** What the log tells, worked out once for a build and its log. */
export interface Known {
  readonly entries: readonly ReadEntry[];
  readonly firstClay: number;
  readonly clayIsOn: boolean;
  readonly weighings: Weighings;
  readonly history: PieceHistory;
  readonly fit: LogFit | null;
}

/** A quarter of an hour: two screens that are asked within one give one answer. */
const moment = 900;
const alone: PlanSurroundings = { workshop: { zone: 'UTC', people: [] }, paces: {}, others: [] };

/**
 * The one entry: a build, its log and the moment in, the whole report out; the same in worker, server, command line and
 * tests. Parts whose inputs did not change are kept from the last call, each by a hash of what it reads.
 */
export class Evaluator {
  private readonly cache = new ResultCache();

  evaluate(question: Question, options: EvaluateOptions = {}): Result<Report> {
    const answer = this.judge(question, options);
    return answer.ok ? success(this.reportOf(answer.value, answer.value.findings.map(withoutRemedies))) : answer;
  }

  /** The same, without putting it together: what searches over edits compare. */
  judge(question: Question, options: EvaluateOptions = {}): Result<Answer> {
    const units = options.units ?? 'metric';
    const known = this.knownOf(question, options.known, options.sizes);
    if (!known.ok) return known;
    const sizes = this.sizesFor(question.build, options.sizes);
    const piece = this.pieceAt(question.build, sizes, known.value.history);
    if (!piece.ok) return piece;
    const ranges = options.ranges === 'dates' ? 'drying' : options.ranges === true;
    const report = workOut(piece.value, this.cache, { ranges, full: options.full ?? null });
    if (!report.ok) return report;
    const now = Math.floor(question.now / moment) * moment;
    const workshop = this.plan(piece.value, report.value, known.value, now, options, ranges !== false);
    const plan = workshop?.builds[0] ?? null;
    const { firstClay: first, weighings } = known.value;
    const fitted = known.value.history.fitted?.weighings ?? 0;
    const dates = datesOf(piece.value, report.value, plan, first, weighings.readings.length > 0 ? fitted : 0);
    const judging: Judging = { piece: piece.value, report: report.value, plan, dates, units, now };
    return success({
      judging,
      findings: findingsOf(judging),
      workshop,
      known: known.value,
      ranged: ranges === true,
      sizes,
      sizing: this.sizingOf(question.build, options.sizes),
    });
  }

  /** Puts a judged build and its findings together. */
  reportOf({ judging, workshop, known, ranged, sizes, sizing }: Answer, findings: readonly Finding[]): Report {
    const { piece, report, plan, dates } = judging;
    const { weighings, fit } = known;
    const key = `${buildHash(piece.build)}:${partHash(piece.known)}:${hashOf(weighings.readings)}:${fit !== null}`;
    return {
      ...report,
      dates,
      laid: laidDates(report, plan, known.firstClay, known.clayIsOn),
      plan,
      workshop,
      // Its band is a range like the others.
      scale: ranged
        ? this.cache.keep('scale', key, () => scaleReport(piece, weighings, fit?.fit ?? null, this.cache))
        : null,
      logged: {
        firstClay: known.firstClay,
        clayIsOn: known.clayIsOn,
        armatureIsMade: known.clayIsOn || happenedOf(known.entries).some((h) => h.step === 'armature'),
        weighings: dates.weighings,
        readings: weighings.readings,
        before: weighings.before,
        tare: weighings.tare,
      },
      findings,
      sizing: { state: sizing, sizes, cannot: sizing === 'chosen' ? cannotOf(findings) : null },
      cautions: cautionsFor(piece),
      worst: worstOf(findings),
    };
  }

  /** The piece itself, as the log knows it: for pictures, sheets and the drying of the whole. */
  piece(question: Question, options: Pick<EvaluateOptions, 'known' | 'sizes'> = {}): Result<Piece> {
    const known = this.knownOf(question, options.known, options.sizes);
    if (!known.ok) return known;
    return this.pieceAt(question.build, this.sizesFor(question.build, options.sizes), known.value.history);
  }

  /** Whether the sizes of a build are known without choosing them anew. */
  isSized({ build }: Question): boolean {
    return build.armature.sizing !== 'to-carry' || this.chosen.has(sizingKey(build));
  }

  /** The sizes of a build; none where every one of them is as it was set. */
  sizesOf({ build }: Question): Sizes {
    return this.sizesFor(build, undefined);
  }

  private sizesFor(build: Build, given: Sizes | undefined): Sizes {
    return build.armature.sizing !== 'to-carry' ? noSizes : (given ?? this.choose(build));
  }

  private sizingOf(build: Build, given: Sizes | undefined): SizingState {
    if (build.armature.sizing !== 'to-carry') return 'by-hand';
    return given && given !== this.chosen.get(sizingKey(build)) ? 'being-chosen' : 'chosen';
  }

  /** A build with its sizes laid under what the maker set: one and the same object for one and the same build. */
  private sized(build: Build, sizes: Sizes): Build {
    if (sizes === noSizes) return build;
    return this.cache.keep('sized', `${buildHash(build)}:${partHash(sizes)}`, () => withSizes(build, sizes));
  }

  /** The piece at these sizes. What was chosen for parts that have since gone is not an edit of the maker's that is lost. */
  private pieceAt(build: Build, sizes: Sizes, history: PieceHistory): Result<Piece> {
    const made = makePiece(this.sized(build, sizes), this.cache, history);
    if (!made.ok || sizes === noSizes) return made;
    const lostEdits = made.value.lostEdits.filter(
      (id) => !Object.hasOwn(sizes.edits, id) || Object.hasOwn(build.armature.edits, id),
    );
    return lostEdits.length === made.value.lostEdits.length ? made : success({ ...made.value, lostEdits });
  }

  private readonly chosen = new Map<string, Sizes>();

  private choose(build: Build): Sizes {
    const key = sizingKey(build);
    const kept = this.chosen.get(key);
    if (kept) return kept;
    const sizes = sizeToCarry(build, this.cache);
    this.chosen.set(key, sizes);
    if (this.chosen.size > sizesKept) this.chosen.delete(this.chosen.keys().next().value!);
    return sizes;
  }

  /** What a drying of the whole piece found, kept small. */
  findingsOfFull(
    question: Question,
    key: string,
    whole: WholeDrying,
    options: Pick<EvaluateOptions, 'known' | 'sizes'> = {},
  ): Result<FullFindings> {
    const piece = this.piece(question, options);
    if (!piece.ok) return piece;
    const report = workOut(piece.value, this.cache, { ranges: false, full: null });
    return report.ok ? success(fullFindings(key, whole, report.value.regions)) : report;
  }

  /** The key under which a drying of the whole piece belongs to this question. */
  dryingKey(question: Question): Result<string> {
    const known = this.knownOf(question, undefined);
    return known.ok
      ? success(dryingKey(this.sized(question.build, this.sizesOf(question)), known.value.history))
      : known;
  }

  /** A build made ready to be planned among others. */
  toPlan(question: Question, options: EvaluateOptions = {}): Result<BuildToPlan> {
    const known = this.knownOf(question, options.known, options.sizes);
    if (!known.ok) return known;
    const piece = this.pieceAt(question.build, this.sizesFor(question.build, options.sizes), known.value.history);
    if (!piece.ok) return piece;
    const report = workOut(piece.value, this.cache, {
      ranges: options.ranges === false ? false : 'drying',
      full: options.full ?? null,
    });
    if (!report.ok) return report;
    return success(buildToPlan(piece.value, report.value, known.value.entries, options.id ?? 'this'));
  }

  /** What the log tells of a build: read once, fitted once. */
  knownOf({ build, log }: Question, frozen: PieceHistory | undefined, sizes?: Sizes): Result<Known> {
    const entries = readOnce(log);
    const first = firstClay(build, entries);
    const weighings = weighingsOf(entries, first);
    const clayIsOn = clayWentOn(build, entries) !== null;
    const common = { entries, firstClay: first, clayIsOn, weighings };
    if (frozen) return success({ ...common, history: frozen, fit: null });
    const room = this.cache.keep('room history', hashOf([partHash(log), first]), () => roomHistory(entries, first));
    const bare: PieceHistory = this.cache.keep('history', partHash(room), () => ({ room, fitted: null }));
    if (weighings.readings.length === 0) return success({ ...common, history: bare, fit: null });
    const fit = this.fitOf(build, bare, weighings, this.sizesFor(build, sizes));
    if (!fit.ok) return fit;
    if (!fit.value) return success({ ...common, history: bare, fit: null });
    const { fitted } = fit.value;
    const history = this.cache.keep('history', hashOf([partHash(room), fitted]), () => ({ room, fitted }));
    return success({ ...common, history, fit: fit.value });
  }

  /** Readings dried in the room of their own hour: what the build says of later hours does not touch them. */
  private fitOf(build: Build, bare: PieceHistory, weighings: Weighings, sizes: Sizes): Result<LogFit | null> {
    const last = bare.room.spells[bare.room.spells.length - 1];
    const asItWas: Build = last ? { ...build, room: this.roomThen(build, last.room) } : build;
    const piece = this.pieceAt(asItWas, sizes, bare);
    if (!piece.ok) return piece;
    const key = hashOf([
      buildHash({ ...asItWas, brief: asItWas.brief.clay, plan: 0, name: '' }),
      partHash(bare),
      partHash(sizes),
      asItWas.brief.startDate,
      weighings,
    ]);
    return success(this.cache.keep('fit', key, () => fitToLog(piece.value, weighings, this.cache)));
  }

  private roomThen(build: Build, was: object): Build['room'] {
    return this.cache.keep('room then', hashOf([partHash(build.room), partHash(was)]), () => ({
      ...build.room,
      ...was,
    }));
  }

  private plan(
    piece: Piece,
    report: PieceReport,
    known: Known,
    now: number,
    options: EvaluateOptions,
    ends: boolean,
  ): WorkshopPlan | null {
    const own = buildToPlan(piece, report, known.entries, options.id ?? 'this');
    const { workshop, paces, others } = options.surroundings ?? alone;
    const key = hashOf([own, options.surroundings ? partHash(options.surroundings) : '', now, ends]);
    return this.cache.keep('plan', key, () =>
      planWorkshop({ builds: [own, ...others.filter((o) => o.id !== own.id)], workshop, paces, now }, ends),
    );
  }
}

const sizesKept = 24;

/** What a way of building answers for, in the order in which one says why it cannot be done; doors, dates and lifting are not its fault. */
const reasons = [
  'no-metal',
  'member',
  'unsupported',
  'sag',
  'skin',
  'getting-on',
  'baking',
  'crack',
  'base',
  'tip',
  'cover',
];

/** What still fails once every size is chosen, in a sentence; the gravest of it. */
function cannotOf(findings: readonly Finding[]): string | null {
  const rank = (f: Finding) => reasons.indexOf(f.id.split('/')[0]!);
  const failing = findings.filter((f) => f.status === 'fails' && rank(f) >= 0).sort((a, b) => rank(a) - rank(b));
  return failing[0]?.sentence ?? null;
}

/** What the sizes of a build follow from. */
function sizingKey(build: Build): string {
  const { brief, room, form, armature, regions, materials } = build;
  const { clay, situation, limits, outdoors, travel } = brief;
  return hashOf([
    clay,
    situation,
    limits,
    outdoors,
    travel,
    // The face it lies on follows from the rest.
    mouldPerArea(build, { area: 1, volume: 1 }),
    ...[room, form, armature, regions, materials].map(partHash),
  ]);
}

function withoutRemedies(f: Judged): Finding {
  return { ...f, remedies: [] };
}

const read = new WeakMap<readonly LogEntry[], readonly ReadEntry[]>();
function readOnce(log: readonly LogEntry[]): readonly ReadEntry[] {
  const kept = read.get(log);
  if (kept) return kept;
  const made = effectiveLog(log);
  read.set(log, made);
  return made;
}

export function buildToPlan(piece: Piece, report: PieceReport, entries: readonly ReadEntry[], id: string): BuildToPlan {
  const { build } = piece;
  return {
    id,
    name: build.name,
    steps: stepsOf(jobFacts(piece, report)),
    plan: build.plan,
    hoursPerWeek: build.brief.hoursPerWeek,
    deadline: build.brief.deadline,
    happened: happenedOf(entries),
    begun: begunOf(entries),
  };
}
