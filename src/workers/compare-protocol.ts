import type { Build } from '../core/build';
import type { Failure } from '../core/quantity';
import type { Summary } from '../core/verdict';

/** Several builds worked out side by side: what a change of size, or of school, would come to. */
export interface CompareRequest {
  readonly seq: number;
  readonly builds: readonly Build[];
}

export type CompareAnswer =
  | { readonly kind: 'row'; readonly seq: number; readonly index: number; readonly summary: Summary; readonly height: number; readonly clayOn: number }
  | { readonly kind: 'refused'; readonly seq: number; readonly index: number; readonly why: Failure }
  | { readonly kind: 'done'; readonly seq: number };
