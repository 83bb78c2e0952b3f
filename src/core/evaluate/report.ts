import type { PieceReport, ScaleReport } from '../piece';
import type { Dates, Finding, Worst } from '../finding';
import type { ReadEntry } from '../log';
import type { BuildPlan, WorkshopPlan } from '../plan';
import type { Sizes } from '../school';

/** Everything there is to say of a build at one moment: the one answer that every screen, sheet, file and command reads. */
export interface Report extends PieceReport {
  /** Dry through and ready: two dates, made here and nowhere else. */
  readonly dates: Dates;
  /** When the clay goes on, or went: seconds since the epoch. */
  readonly laid: LaidDates;
  /** The plan of this build; null where its own steps wait for each other in a ring. */
  readonly plan: BuildPlan | null;
  /** The plan of the workshop it is made in, this build first. */
  readonly workshop: WorkshopPlan | null;
  /** What the scale says and should say, worked out with the ranges; null before, and for a clay that does not dry. */
  readonly scale: ScaleReport | null;
  readonly logged: LogReport;
  readonly findings: readonly Finding[];
  readonly sizing: SizingReport;
  /** The usual cautions, by what it is made of and where it stands. */
  readonly cautions: readonly string[];
  /** The worst of all there is, in a sentence: place, moment, cause. */
  readonly worst: Worst | null;
}

/** As the maker set or kept them; chosen for the build as it stands; or those of before it was changed, while others are chosen. */
export type SizingState = 'by-hand' | 'chosen' | 'being-chosen';

export interface SizingReport {
  readonly state: SizingState;
  readonly sizes: Sizes;
  /** Why this way of building cannot do it, with every size chosen as well as can be; null where it can. */
  readonly cannot: string | null;
}

/** Drying counts from these: the first clay, and by region its last coat, as logged or else as planned. */
export interface LaidDates {
  readonly first: number;
  readonly lastCoat: Readonly<Record<string, number>>;
}

/** What the reckoning took from the log. */
export interface LogReport {
  /** Seconds since the epoch at which the first clay went on, or is to go on. */
  readonly firstClay: number;
  /** Whether the log says that it did. */
  readonly clayIsOn: boolean;
  /** Whether it says that the armature is cut and put together. */
  readonly armatureIsMade: boolean;
  /** Weighings that were fitted, and the whole of them in their order. */
  readonly weighings: number;
  readonly readings: readonly { readonly time: number; readonly mass: number }[];
  /** Weighings before the clay went on: asked about, not fitted. */
  readonly before: readonly ReadEntry<'weigh-in'>[];
  readonly tare: number;
}
