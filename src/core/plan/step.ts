import type { MixId } from '../cure';
import type { Fineness, Need, StepKind } from '../document';
import type { CastId, MouldKindId } from '../mould';
import type { Range } from '../quantity';

/** What the steps of a job are made from: the piece as it was measured and dried, without anything of how that was found. SI; seconds. */
export interface JobFacts {
  readonly setting: 'dries' | 'sets' | 'never' | 'damp' | 'bakes';
  readonly clayName: string;
  readonly area: number;
  /** Hours of the armature, and of bulk and wrap. */
  readonly armatureHours: number;
  readonly bulkHours: number;
  /** Seconds until joins of the armature that are glued have set; null where none is. */
  readonly joinsSet: number | null;
  /** What is wound or laid over the core as part of it, by its id among the wraps. */
  readonly wrap: string;
  readonly wrapped: LayerFacts | null;
  readonly fineness: Fineness;
  /** Hours to lay a kg of clay; smoothing and refining are steps of their own. */
  readonly hoursPerKg: number;
  readonly regions: readonly RegionFacts[];
  /** Layers under and over the clay, ids and names, in order. */
  readonly under: readonly LayerFacts[];
  readonly over: readonly LayerFacts[];
  readonly processes: readonly string[];
  /** The kind of mould that is taken, and kg of what is poured round the piece for it. */
  readonly mould?: MouldFacts | null;
  readonly props: number;
  readonly letGo: LetGoFacts;
  readonly lift: { readonly least: number; readonly most: number } | null;
  readonly split: { readonly from: number; readonly until: number } | null;
  readonly turns: readonly { readonly at: number; readonly lying: string }[];
  readonly uncover: readonly { readonly at: number; readonly what: string }[];
  /** Sections clad and dried by themselves, then joined. */
  readonly sections: number;
  /** Epoxy: seconds a batch still works once it is placed, and until it is hard. */
  readonly soft: number | null;
  readonly cure: number | null;
  /** kg mixed at a time, and seconds of kneading. */
  readonly batch: { readonly mass: number; readonly kneading: number } | null;
  /** Clay the maker mixes: kg at a time, kg mixed to a kg laid, seconds it rests before it is used, and for which it keeps. */
  readonly ownMix: {
    readonly each: number;
    readonly mixed: number;
    readonly rests: number;
    readonly keeps: number;
  } | null;
  /** Of the room, degrees. */
  readonly celsius: number;
  /** Polymer: seconds in the oven at each bake, one a coat. */
  readonly bakes: readonly number[];
  /** Oil-based: seconds until it is warm. */
  readonly warming: number | null;
  /** Water-based: seconds it stays workable. */
  readonly workable: number | null;
  readonly heavy: boolean;
  /** Stands on a board or in a holder: no hand has to grip it. Or else whether it lies in a cradle of foam or sand. */
  readonly held: boolean;
  readonly lies: boolean;
  /** The region that is laid last, to hold it by until then; null is the last from the base up. */
  readonly bareFirst: string | null;
}

/** A layer under or over the clay: m2 it covers and kg of it, where they are known. */
export interface LayerFacts {
  readonly id: string;
  readonly name: string;
  readonly area?: number;
  readonly mass?: number;
}

/** When the props may go: so long after the clay, or when it is hard; null where they stay for good. */
export type LetGoFacts =
  | { readonly when: 'after'; readonly after: number; readonly why: string }
  | { readonly when: 'hard'; readonly why: string }
  | null;

export interface RegionFacts {
  readonly id: string;
  readonly name: string;
  readonly area: number;
  readonly bulkShare: number;
  /** Height of its middle, metres: laid from the base up. */
  readonly height: number;
  /** 0..1, how much the eye rests on it. */
  readonly seen: number;
  readonly crack: number;
  readonly coats: readonly CoatFacts[];
}

/** One coat as it goes on: seconds after it is laid. */
export interface CoatFacts {
  readonly stage: number;
  readonly mass: number;
  readonly thickness: number;
  readonly smoothUntil: Range | null;
  readonly hold: Range | null;
  readonly through: Range | null;
  /** When what is put over it has nothing more to fear from it. */
  readonly steady: Range | null;
  /** When the next stage may go over it. */
  readonly next: Range | null;
}

export interface StepMix {
  readonly id: MixId;
  readonly each: number;
  readonly works: number;
}

export interface StepWait {
  readonly task: string;
  readonly least: Range;
  readonly most: Range | null;
  readonly why: string;
}

export interface Step {
  readonly id: string;
  readonly name: string;
  readonly kind: StepKind;
  readonly region: string | null;
  /** The region's name; empty where it is the whole piece. */
  readonly place: string;
  readonly hours: number;
  readonly whole: boolean;
  readonly people: number;
  /** Large enough for two to stand at. */
  readonly shared?: boolean;
  /** kg of clay it lays. */
  readonly clay: number;
  /** What else is put on in it, kg. */
  readonly material?: { readonly name: string; readonly mass: number };
  /** Passes over the face that are its work, from rough to fine: ids of `surface-passes.ts`. */
  readonly passes?: readonly string[];
  /** kg of clay it gives back to the shelf. */
  readonly returns?: number;
  /** What is mixed for it a little at a time: what, kg of each batch, and seconds that works once it is on. */
  readonly mixed?: StepMix;
  /** Of clay that is laid warm: seconds it has to warm. */
  readonly warmed?: number;
  readonly tools: readonly string[];
  readonly needs: readonly Need[];
  /** How much it is missed when it is left out, 0..1. */
  readonly missed: number;
  readonly after: readonly StepWait[];
  readonly wets: readonly { readonly zone: string; readonly after: Range }[];
  readonly holds: readonly string[] | null;
  /** It lies on one of those, in a cradle, with both hands free. */
  readonly lies?: boolean;
}

export interface MouldFacts {
  readonly kind: MouldKindId;
  /** m2 of the face it is laid on: what bears clay. All of the face where it is not said. */
  readonly area?: number;
  /** m3 that it goes round. */
  readonly volume?: number;
  readonly block: number;
  /** Metres, in place of the usual ones. */
  readonly skin?: number | null;
  readonly shell?: number | null;
  readonly casts?: CastFacts | null;
}

/** Casts that are to be taken in it. */
export interface CastFacts {
  readonly cast: CastId;
  readonly count: number;
  /** Bought for one: kg of each of what it is made of, then of what fills it behind. */
  readonly each: readonly { readonly name: string; readonly mass: number }[];
  /** Seconds until its mould has dried, where it wants that; null where the room never dries it. */
  readonly mouldDries: number | null;
  /** Set into each when it is out: eyes, hinges, sockets. */
  readonly setIn?: readonly string[];
}
