import type { Build } from '../core/build';
import type { LogEntry, PlanSurroundings, Step, WorkshopPlan } from '../core/plan';
import type { Failure } from '../core/quantity';
import type { Sooner } from '../core/verdict';

/** One build planned among the others; then, until the next request, what would make it sooner and what could be left out. */
export interface PlanRequest {
  readonly ask: number;
  readonly id: string;
  readonly build: Build;
  readonly log: readonly LogEntry[];
  readonly surroundings: PlanSurroundings;
  readonly now: number;
  /** Also try ways to be sooner. */
  readonly ways: boolean;
}

export type PlanAnswer = { readonly ask: number } & (
  | { readonly kind: 'plan'; readonly plan: WorkshopPlan }
  | { readonly kind: 'sooner'; readonly ways: readonly Sooner[]; readonly done: boolean }
  | { readonly kind: 'leave-out'; readonly steps: readonly Step[] | null; readonly finish: number }
  | { readonly kind: 'refused'; readonly why: Failure }
);
