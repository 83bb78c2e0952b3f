import type { Armature } from '../core/armature';
import type { Build, Mass } from '../core/build';
import type { SurfaceMesh } from '../core/form';
import type { Failure, UnitSystem } from '../core/quantity';
import type { Report } from '../core/verdict';

/** Every message between the bench and its worker. Requests carry a number; answers to an older one are dropped. */
export interface EvaluateRequest {
  readonly kind: 'evaluate';
  readonly seq: number;
  readonly build: Build;
  readonly units: UnitSystem;
  /** Key of the picture the bench already has. */
  readonly pictureKey: string;
}
export type Request = EvaluateRequest;

/** What the piece view draws. */
export interface Picture {
  readonly key: string;
  readonly surface: SurfaceMesh;
  readonly masses: readonly Mass[];
  readonly armature: Armature;
  /** Outside diameter of each member, metres. */
  readonly memberAcross: Readonly<Record<string, number>>;
}

/** Cover at every point of the picture's face, metres. */
export interface FaceCover {
  readonly key: string;
  readonly values: Float32Array;
  /** Where the largest ball fits in the form: metres through, and the mass it is in. */
  readonly thickest: { readonly thickness: number; readonly place: string };
}

export type Answer =
  | {
      readonly kind: 'nominal';
      readonly seq: number;
      readonly report: Report;
      readonly picture: Picture | null;
      readonly milliseconds: number;
    }
  | { readonly kind: 'ranges'; readonly seq: number; readonly report: Report; readonly cover: FaceCover }
  | { readonly kind: 'complete'; readonly seq: number; readonly report: Report }
  | { readonly kind: 'progress'; readonly seq: number; readonly done: number }
  | { readonly kind: 'failed'; readonly seq: number; readonly why: Failure };
