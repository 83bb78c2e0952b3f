import type { Build } from '../core/build';
import type { MeshFormat, MeshReport, MeshUnit, Placing, SampledShape } from '../core/form';
import type { Failure } from '../core/quantity';
import type { ExportedPart } from '../core/verdict';

/** Every message between the Form station and its mesh worker. */
export type MeshRequest =
  | { readonly kind: 'read'; readonly bytes: Uint8Array; readonly name: string }
  | { readonly kind: 'sample'; readonly placing: Placing }
  | {
      readonly kind: 'write';
      readonly build: Build;
      readonly parts: readonly ExportedPart[];
      readonly format: MeshFormat;
    };

export type MeshAnswer =
  | { readonly kind: 'progress'; readonly what: string; readonly share: number }
  | {
      readonly kind: 'read';
      readonly report: MeshReport;
      readonly sides: readonly [number, number, number];
      readonly holesClosed: number;
      readonly facesTurned: number;
      readonly unit: MeshUnit;
      readonly up: 'z' | 'y';
    }
  | { readonly kind: 'sampled'; readonly shape: SampledShape; readonly volume: number; readonly height: number }
  | { readonly kind: 'written'; readonly bytes: Uint8Array }
  | { readonly kind: 'refused'; readonly why: Failure };
