import type { Armature } from '../core/armature';
import type { Build, Limbs, Mass } from '../core/document';
import type { RoomReadings, WholeDrying, WholeRegion } from '../core/drying';
import type { Report } from '../core/evaluate';
import type { Dates } from '../core/finding';
import type { MeshFormat, MeshSolid, MeshUnit, Placing, Rotation, SampledShape, SurfaceMesh } from '../core/form';
import type { MouldRow, SchoolRow, Sooner, StrengthenResult, Thinnest, WayToHold } from '../core/improve';
import type { LogEntry } from '../core/log';
import type { CastInHand, Parting, Shells } from '../core/parting';
import type { FullFindings, GirthOfForm, Knock, Narrowest, Summary } from '../core/piece';
import type { PlanSurroundings, Step } from '../core/plan';
import type { Failure, UnitSystem } from '../core/quantity';
import type { ExportedPart } from '../core/sheet';

/** Every message there is between a page and its workers. */

/** What is asked of a build: with its log, at this moment, among what surrounds it. */
export interface Asked {
  readonly id: string;
  readonly build: Build;
  readonly log: readonly LogEntry[];
  readonly now: number;
  readonly units: UnitSystem;
  readonly surroundings: PlanSurroundings | null;
  readonly full: FullFindings | null;
}

/** The session's one question: the report, in the order in which it can be had, then what is worked at beside it. */
export interface SessionRequest {
  readonly kind: 'evaluate';
  readonly asked: Asked;
  /** Of the picture the page has; a picture is sent only when there is another. */
  readonly pictureKey: string | null;
  readonly remedies: boolean;
  /** Also what would make it ready sooner, and what could be left out. */
  readonly ways: boolean;
}

export type SessionAnswer =
  | {
      readonly kind: 'nominal';
      readonly report: Report;
      readonly picture: Picture | null;
      /** Of the build as it stands: the drying of the whole that belongs to it. Null while its sizes are being chosen. */
      readonly dryingKey: string | null;
      readonly milliseconds: number;
    }
  /** A face that stands in the place of a rougher one. */
  | { readonly kind: 'picture'; readonly picture: Picture }
  | { readonly kind: 'ranges'; readonly report: Report; readonly cover: FaceCover | null }
  | { readonly kind: 'complete'; readonly report: Report }
  | { readonly kind: 'sooner'; readonly ways: readonly Sooner[]; readonly done: boolean }
  | { readonly kind: 'holding'; readonly ways: readonly WayToHold[] }
  | { readonly kind: 'leave-out'; readonly steps: readonly Step[] | null; readonly finish: number }
  | Ended;

export interface Refused {
  readonly kind: 'refused';
  readonly why: Failure;
  /** Of several things asked for at once: which. */
  readonly index?: number;
  readonly school?: string;
}

/** Whatever is asked ends with one of these. */
export type Ended = { readonly kind: 'done' } | Refused;

export interface Picture {
  readonly key: string;
  /** Of its masses alone, however finely it is drawn and whatever stands in it. */
  readonly formKey: string;
  readonly surface: SurfaceMesh;
  readonly masses: readonly Mass[];
  readonly armature: Armature;
  /** Outside diameter by member, for drawing. */
  readonly memberAcross: Readonly<Record<string, number>>;
}

export interface FaceCover {
  readonly key: string;
  /** By vertex of the surface: metres to the nearest member. */
  readonly values: Float32Array;
  readonly thickest: { readonly thickness: number; readonly place: string };
}

/** Long work on drying: the whole piece, variants side by side, a hygrometer's record. */
export type DryingRequest =
  | { readonly kind: 'whole'; readonly asked: Asked; readonly step?: number }
  | { readonly kind: 'kept'; readonly bytes: Uint8Array }
  | {
      readonly kind: 'variants';
      readonly asked: Asked;
      readonly builds: readonly Build[];
      readonly whole: boolean;
    }
  | { readonly kind: 'record'; readonly text: string };

/** Said to work that is under way. */
export type Told = { readonly kind: 'pause' } | { readonly kind: 'go-on' };

export type DryingAnswer =
  | { readonly kind: 'progress'; readonly done: number; /** Seconds, where it can be told. */ readonly left: number }
  | {
      readonly kind: 'whole';
      readonly whole: WholeDrying;
      readonly key: string;
      /** Null for one that was kept. */
      readonly found: FullFindings | null;
      readonly seconds: number;
      /** Packed, to be kept. */
      readonly packed: Uint8Array<ArrayBuffer> | null;
    }
  | { readonly kind: 'variant'; readonly row: VariantRow }
  | { readonly kind: 'record'; readonly record: RoomReadings }
  | Ended;

/** One variant: what both answers say of it. */
export interface VariantRow {
  readonly index: number;
  readonly summary: Summary;
  readonly dates: Dates;
  readonly regions: readonly {
    readonly id: string;
    readonly name: string;
    readonly crack: number;
    readonly throughDry: number | null;
    readonly touchDry: number | null;
  }[];
  /** From three dimensions, where asked for. */
  readonly whole: readonly WholeRegion[] | null;
}

/** Work on builds beside the open one. */
export type CompareRequest =
  | { readonly kind: 'builds'; readonly builds: readonly Asked[] }
  | { readonly kind: 'schools'; readonly asked: Asked; readonly schools: readonly string[] }
  | { readonly kind: 'strengthen'; readonly asked: Asked }
  /** The thinnest a member can be that still holds. */
  | { readonly kind: 'thinnest'; readonly asked: Asked; readonly member: string }
  /** A knock of so many N against what sticks out. */
  | { readonly kind: 'knock'; readonly asked: Asked; readonly force: number };

export type CompareAnswer =
  | {
      readonly kind: 'row';
      readonly index: number;
      readonly summary: Summary;
      readonly dates: Dates;
      readonly height: number;
      readonly clayOn: number;
    }
  | { readonly kind: 'school'; readonly school: string; readonly row: SchoolRow }
  | { readonly kind: 'tried'; readonly sets: number }
  | { readonly kind: 'strengthened'; readonly result: StrengthenResult | null }
  | { readonly kind: 'thinnest'; readonly member: string; readonly found: Thinnest | 'already' | null }
  | { readonly kind: 'knocked'; readonly knock: Knock }
  | Ended;

/** Meshes: read and mended, turned this way and that, sampled as a mass, written. */
export type MeshRequest =
  | { readonly kind: 'read'; readonly bytes: Uint8Array; readonly name: string }
  /** What was read, with its hollow filled or left. */
  | { readonly kind: 'hollow'; readonly fillHollow: boolean }
  | { readonly kind: 'turned'; readonly turn: Rotation }
  | { readonly kind: 'sample'; readonly placing: Placing; readonly fillHollow: boolean; readonly limbs: boolean }
  /** Of a mesh that is in the build already, in its own axes. */
  | { readonly kind: 'limbs'; readonly shape: SampledShape }
  | {
      readonly kind: 'write';
      readonly build: Build;
      readonly parts: readonly ExportedPart[];
      readonly format: MeshFormat;
    };

/** What a mesh encloses, and what was done to find that; in its own unit. */
export type MeshSummary = Omit<MeshSolid, 'lattice' | 'inside' | 'surface'>;

/** A mesh as it would stand, with a small picture of it: rows from the top, four bytes a pixel. */
export interface MeshWay {
  readonly turn: Rotation;
  /** Left to right, front to back, up; in its own unit. */
  readonly sides: readonly [number, number, number];
  readonly picture: { readonly width: number; readonly height: number; readonly rgba: Uint8ClampedArray<ArrayBuffer> };
}

export type MeshAnswer =
  | { readonly kind: 'progress'; readonly what: string; readonly share: number }
  | {
      readonly kind: 'read';
      readonly triangles: number;
      readonly solid: MeshSummary;
      readonly unit: MeshUnit;
      /** The likeliest ways up first, the file's own among them. */
      readonly ways: readonly MeshWay[];
    }
  | { readonly kind: 'turned'; readonly way: MeshWay }
  | { readonly kind: 'sampled'; readonly shape: SampledShape; readonly limbs: Limbs | null }
  | { readonly kind: 'limbs'; readonly limbs: Limbs | null }
  | { readonly kind: 'written'; readonly bytes: Uint8Array }
  | Ended;

/** Long work on the mould: how it parts, every kind side by side, its hard parts as bodies, its cast taken in hand. */
export type MouldRequest =
  | { readonly kind: 'part'; readonly asked: Asked }
  | { readonly kind: 'kinds'; readonly asked: Asked }
  | { readonly kind: 'shells'; readonly asked: Asked; readonly parting: Parting }
  | { readonly kind: 'in-hand'; readonly asked: Asked };

/** The mould's parting with the face it lies on. */
export interface PartedPicture {
  readonly surface: SurfaceMesh;
  readonly parting: Parting;
  /** By triangle: it stands there, no mould lies on it. */
  readonly stands: Uint8Array;
  /** What holds its parts gives, or is dug out: they come away all the same. */
  readonly comesOff: boolean;
  /** Of the life form under a mask or a helmet. */
  readonly girths: readonly GirthOfForm[];
  /** Where its clay goes right round the head; null where it does nowhere. */
  readonly narrowest: Narrowest | null;
  readonly seconds: number;
}

export type MouldAnswer =
  | { readonly kind: 'progress'; readonly done: number }
  | { readonly kind: 'parted'; readonly parted: PartedPicture }
  | { readonly kind: 'kinds'; readonly rows: readonly MouldRow[] }
  | { readonly kind: 'shells'; readonly shells: Shells }
  | { readonly kind: 'in-hand'; readonly inHand: CastInHand }
  | Ended;

/** What goes to a worker and comes back: the number says which request it belongs to. */
export type ToWorker<Request> = { readonly seq: number; readonly request: Request } | { readonly tell: Told };
export interface FromWorker<Answer> {
  readonly seq: number;
  readonly answer: Answer;
  /** Nothing more comes of this request. */
  readonly last: boolean;
}
