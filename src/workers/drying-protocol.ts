import type { Build } from '../core/build';
import type { RecordRow, RoomReadings, Weighing, WholeDrying, WholeRegion } from '../core/drying';
import type { Failure, UnitSystem } from '../core/quantity';
import type { Summary, WeighingReport } from '../core/verdict';

/** Long work on drying beside the bench: the whole piece, variants beside each other, weighings fitted, a record read. */
export type DryingRequest =
  | { readonly kind: 'whole'; readonly build: Build; readonly step?: number }
  | { readonly kind: 'kept'; readonly bytes: Uint8Array }
  | {
      readonly kind: 'variants';
      readonly builds: readonly Build[];
      readonly whole: boolean;
      readonly units: UnitSystem;
    }
  | {
      readonly kind: 'fit';
      readonly build: Build;
      readonly readings: readonly Weighing[];
      readonly tare: number;
      readonly least: number;
    }
  | { readonly kind: 'record'; readonly text: string }
  | { readonly kind: 'pause' }
  | { readonly kind: 'go-on' };

/** One variant: what both answers say of it. */
export interface VariantRow {
  readonly index: number;
  readonly summary: Summary;
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

export type DryingAnswer =
  | {
      readonly kind: 'progress';
      readonly done: number;
      /** Seconds left, as far as can be told. */ readonly left: number;
      readonly what: string;
    }
  | {
      readonly kind: 'whole';
      readonly whole: WholeDrying;
      readonly key: string;
      readonly seconds: number;
      /** Packed, to be kept. */ readonly packed: Uint8Array<ArrayBuffer> | null;
    }
  | { readonly kind: 'variant'; readonly row: VariantRow }
  | { readonly kind: 'fit'; readonly report: WeighingReport | null }
  | { readonly kind: 'record'; readonly record: RoomReadings }
  | { readonly kind: 'refused'; readonly why: Failure }
  | { readonly kind: 'done' };

export type { RecordRow };
