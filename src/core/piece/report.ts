import type { Cut, MemberCover } from '../armature';
import type { LimbRoom } from './limb-room';
import type { ClayToBuy, Conflict } from '../clay';
import type { BakingPlan, WarmingPlan } from '../heat';
import type { BatchPlan } from '../cure';
import type { Geometry } from '../drying';
import type { SituationId } from '../document';
import type {
  BaseCheck,
  Carry,
  HungShare,
  Ledger,
  LiftVerdict,
  StageCheck,
  RoadStance,
  Stance,
  WornReport,
  WindReport,
} from '../load';
import type { Range, Vec3 } from '../quantity';
import type { RegionFigures } from './full-findings';
import type { Hours } from './hours';
import type { LaidCoat } from './laying';
import type { Against, DriedAs } from './quick-against-full';
import type { Status } from './status';

/** What the scale beam shows. */
export interface Summary {
  readonly wet: number;
  readonly dry: number;
  readonly utilisation: number;
  readonly weakest: string;
  readonly weakestStage: string;
  readonly tipAngle: number;
  readonly push: number;
  readonly crack: number;
  readonly crackRegion: string;
  /** Seconds from the first clay until it is dry through or has set; null when this clay or room never gets there. */
  readonly throughAfter: number | null;
  readonly nights: number | null;
  readonly clayToBuy: number;
  readonly cost: number;
}

/** What a state of the clay lets one do, in the order it comes. */
export const windowIds = ['smooth', 'touch', 'leather', 'hold', 'through', 'paint', 'seal', 'mould'] as const;
export type WindowId = (typeof windowIds)[number];

export interface WindowReport {
  /** Seconds after the first clay; null when never. */
  readonly at: number | null;
  readonly range: Range | null;
}

export type CoatReport = LaidCoat;

export interface RegionReport {
  readonly id: string;
  readonly name: string;
  readonly masses: readonly string[];
  readonly geometry: Geometry;
  readonly solid: boolean;
  /** Outer face, m2. */
  readonly area: number;
  readonly clayVolume: number;
  /** Of the middle of its clay, metres over the board. */
  readonly height: number;
  readonly bulkVolume: number;
  readonly clayWet: number;
  readonly clayDry: number;
  readonly thickness: number;
  readonly coats: readonly CoatReport[];
  readonly windows: Readonly<Record<WindowId, WindowReport>>;
  /** Seconds from the start; null when never. */
  readonly touchDry: number | null;
  readonly leatherHard: number | null;
  readonly throughDry: number | null;
  readonly throughDryRange: Range | null;
  /** Of its worst place, what lies thin over a member too. */
  readonly crack: number;
  readonly crackRange: Range | null;
  /** What of it the core holds back, and what the dry skin over a wet inside. */
  readonly crackParts: { readonly restrained: number; readonly differential: number };
  /** Right over members that lie in the clay with too little over them. */
  readonly crackPlaces: readonly CrackPlace[];
  readonly basis: DryingBasis;
  /** Seconds after the first clay at which its last coat goes on. */
  readonly lastStart: number;
  /** What the quick answer says by itself, and the factors on it. */
  readonly quick: RegionFigures;
  readonly as: DriedAs;
  readonly against: Against;
}

/** Where the figures of drying come from: the quick answer, the same corrected by a whole drying of an earlier state, or a whole drying of it as it stands. */
export type DryingBasis = 'quick' | 'corrected' | 'full';

export interface CrackPlace {
  readonly member: string;
  readonly name: string;
  readonly crack: number;
}

export interface MemberReport {
  readonly id: string;
  readonly name: string;
  /** At the stage of its life that asks most of it. */
  readonly stage: string;
  readonly utilisation: number;
  readonly utilisationRange: Range | null;
  readonly status: Status;
  readonly demand: number;
  readonly capacity: number;
  readonly metalShare: number;
  readonly bulkShare: number;
  readonly clayShare: number;
  /** Of the utilisation, what the push or pull along it asks. */
  readonly pushShare: number;
  readonly carries: number;
  readonly sag: number;
  readonly sagShare: number;
  readonly buckling: number;
  readonly set: number;
  readonly cause: string;
}

/** The finished piece in one of the three situations. */
export interface SituationReport {
  readonly id: SituationId;
  readonly name: string;
  readonly utilisation: number;
  readonly bone: string;
  readonly cause: string;
  readonly status: Status;
}

/** How the finished piece meets the world, and what that asks. */
export type MountReport =
  | { readonly kind: 'stands' }
  | ({ readonly kind: 'hangs' } & HungShare)
  | {
      readonly kind: 'wall';
      readonly tension: number;
      readonly shear: number;
      readonly pull: number;
      readonly standsOut: number;
      readonly ofCast: boolean;
    }
  | ({ readonly kind: 'worn'; readonly ofCast: boolean } & WornReport);

/** One piece of it as it is carried. */
export interface CarriedReport {
  readonly name: string;
  readonly heldBy: string;
  /** On the board it stands on, upright. */
  readonly onBase: boolean;
  /** On casters, as long as the door lets it through so. */
  readonly rolls: boolean;
  readonly mass: number;
  readonly size: Carry;
  readonly lift: LiftVerdict;
  readonly door: boolean;
  /** Null when no vehicle is named. */
  readonly vehicle: boolean | null;
}

export interface HandlingReport {
  readonly parts: readonly CarriedReport[];
  readonly whole: CarriedReport;
  readonly rampPush: number;
  readonly vehicleName: string | null;
  readonly slidesAt: number;
  readonly overhang: number;
  /** On the road, where it is driven standing up; null otherwise. */
  readonly road: RoadStance | null;
}

/** Soft clay against its own weight, region by region. */
export interface StayingPut {
  readonly region: string;
  readonly name: string;
  /** Thickest single coat, metres, and what the face holds upright. */
  readonly coat: number;
  readonly hangs: number;
  /** Share of the region's face too steep for the coat, 0..1. */
  readonly steep: number;
  /** The gentlest slope it slides off, degrees; null where it stays on all. */
  readonly slidesFrom: number | null;
  /** Height of solid clay against the height that squats under its own weight; null over a core. */
  readonly squat: { readonly height: number; readonly stands: number } | null;
}

export interface HeatReport {
  readonly warming: WarmingPlan | null;
  readonly baking: BakingPlan | null;
}

export interface LetGo {
  /** Whether it stands by itself, and in its pose, from the moment the clay is on. */
  readonly when: 'at-once' | 'after' | 'never';
  /** Seconds after the clay goes on. */
  readonly after: number | null;
  readonly unproppedWet: number;
  readonly unproppedDry: number;
  /** The most that any joint sags while the clay is wet and nothing props it, of its way from the base. */
  readonly sags: number;
  /** What it may sag by: less where it is propped, so that it keeps its place. */
  readonly keeps: number;
}

/** The piece worked out: everything that is judged, before it is judged. SI units. */
export interface PieceReport {
  readonly summary: Summary;
  readonly size: {
    readonly height: number;
    readonly width: number;
    readonly depth: number;
    readonly volume: number;
    readonly area: number;
    readonly step: number;
    readonly volumeError: number;
  };
  readonly ledger: Ledger;
  readonly lifeStages: readonly StageCheck[];
  readonly stances: readonly (Stance & { readonly stage: string; readonly name: string })[];
  readonly stance: Stance;
  readonly base: BaseCheck;
  readonly baseStage: string;
  readonly members: readonly MemberReport[];
  readonly letGo: LetGo;
  /** Worked out with the ranges; null before. */
  readonly situations: readonly SituationReport[] | null;
  /** In the gust it must stand, outdoors; null indoors. */
  readonly wind: WindReport | null;
  /** What is left when it is done: without the board of a piece that does not stand on it, without what came out. */
  readonly finished: { readonly mass: number; readonly centre: Vec3 };
  readonly mount: MountReport;
  readonly handling: HandlingReport;
  /** How far it gives under a tool, metres: what a thumb feels. */
  readonly give: number;
  /** Hours at the bench: making the armature and laying the clay. */
  readonly hours: Hours;
  readonly cover: readonly MemberCover[];
  /** Of the form alone: how thick it is between two joints, and the thickest wire with cover there. With the ranges; null before. */
  readonly limbs: readonly LimbRoom[] | null;
  readonly regions: readonly RegionReport[];
  readonly basis: DryingBasis;
  /** When each stage of clay goes on, and when it comes off its form. */
  readonly laying: {
    readonly starts: readonly { readonly stage: number; readonly at: number }[];
    readonly lifted: number | null;
  };
  readonly conflicts: readonly Conflict[];
  readonly staying: readonly StayingPut[];
  readonly heat: HeatReport;
  readonly clay: ClayToBuy;
  readonly cure: BatchPlan | null;
  readonly cuts: readonly Cut[];
  readonly wireCost: number;
  /** Days a damp clay stays workable, for clay kept damp. */
  readonly workableDays: number | null;
  /** kg dry, and wet. */
  readonly weightRange: Range;
  readonly wetRange: Range;
}
