import type { BuildEdit } from '../document';
import type { BuildPlan } from '../plan';
import type { Piece, PieceReport, Status, Summary } from '../piece';
import type { Range, UnitSystem } from '../quantity';
import type { Dates } from './dates';

/** A judgement with its figure, limit, reason and remedies; and what a rule that makes such judgements is. */
/** The station that shows it: one of those in `ui/stations/stations.ts`. */
export type StationId = string;

export type FigureUnit = 'ratio' | 'kg' | 'degrees' | 'days' | 'metres' | 'share' | 'count';

export interface Finding {
  readonly id: string;
  readonly station: StationId;
  readonly status: Status;
  /** Where on the piece, in words; alike places are one finding. */
  readonly place: string;
  readonly sentence: string;
  readonly reason: string;
  readonly measured: number;
  readonly limit: number;
  readonly unit: FigureUnit;
  /** Larger is worse, unless this is set. */
  readonly smallerIsWorse?: boolean;
  readonly range: Range | null;
  /** When it comes to that, and what does it. */
  readonly stage?: string;
  readonly cause?: string;
  /** What it is made of: a member, a region, a joint each; one where it is of the whole piece. */
  readonly parts: readonly Part[];
  readonly remedies: readonly Remedy[];
}

/** A finding before its remedies are tried. */
export type Judged = Omit<Finding, 'remedies'>;

/** One thing judged, the same from one working out to the next. */
export interface Part {
  readonly id: string;
  readonly name: string;
  readonly status: Status;
  readonly measured: number;
}

export interface Remedy extends Proposal {
  /** The finding's own figure, now and after; and its verdict after. */
  readonly before: number;
  readonly after: number;
  readonly statusAfter: Status;
  /** It changes the verdict for the better; else it helps, and not enough. */
  readonly turns: boolean;
  /** What it makes worse elsewhere. */
  readonly worse: readonly Worse[];
  /** Everything the scale beam would show. */
  readonly promised: Summary;
  readonly dates: Dates | null;
}

export interface Worse {
  readonly finding: string;
  readonly place: string;
  readonly sentence: string;
  readonly from: Status;
  readonly to: Status;
}

/** What a rule judges: the piece, what was worked out of it, its plan and dates. */
export interface Judging {
  readonly piece: Piece;
  readonly report: PieceReport;
  /** Null where the plan cannot be made: the finding of the plan says why. */
  readonly plan: BuildPlan | null;
  readonly dates: Dates;
  readonly units: UnitSystem;
  /** Seconds since the epoch. */
  readonly now: number;
}

/** Something a maker could do about a finding; its effect is found by doing it to a copy. */
export interface Proposal {
  readonly id: string;
  readonly edit: BuildEdit;
  /** What else it brings, in words. */
  readonly note: string;
  /** It makes another piece of it: offered after what leaves the rest as it is. */
  readonly another?: true;
}

/** One rule of the craft, a file each: what it finds, what could be done about it, and how a part stands that it does not raise. */
export interface Rule {
  /** First part of the ids of what it finds. */
  readonly id: string;
  readonly judge: (on: Judging) => Judged[];
  readonly propose?: (on: Judging, finding: Judged) => Proposal[];
  /** How a part stands that is not among the findings: sound, unless this says otherwise. */
  readonly measure?: (on: Judging, part: string) => Pick<Part, 'status' | 'measured'>;
}

export interface Figure {
  readonly measured: number;
  readonly limit: number;
  readonly unit: FigureUnit;
  readonly range?: Range | null;
  readonly smallerIsWorse?: boolean;
  readonly stage?: string;
  readonly cause?: string;
  readonly parts?: readonly Part[];
}

export function finding(
  station: StationId,
  id: string,
  status: Status,
  place: string,
  sentence: string,
  reason: string,
  figure: Figure,
): Judged {
  const parts = figure.parts ?? [{ id, name: place, status, measured: figure.measured }];
  return { station, id, status, place, sentence, reason, range: null, ...figure, parts };
}

/** How a part stands in a list of findings; null where none of them tells of it. */
export function partIn(findings: readonly Judged[], part: string): Part | null {
  for (const f of findings) {
    const found = f.parts.find((p) => p.id === part);
    if (found) return found;
  }
  return null;
}
