import type { Build } from '../core/build';
import type { Failure } from '../core/quantity';
import type { SchoolRow, StrengthenResult, Summary } from '../core/verdict';
import type { UnitSystem } from '../core/quantity';

/** Work on a build beside the open one: several side by side, the same form under several schools, or a search. */
export type CompareRequest =
  | { readonly kind: 'builds'; readonly builds: readonly Build[] }
  | { readonly kind: 'schools'; readonly build: Build; readonly schools: readonly string[] }
  | { readonly kind: 'strengthen'; readonly build: Build; readonly units: UnitSystem };

export type CompareAnswer =
  | {
      readonly kind: 'row';
      readonly index: number;
      readonly summary: Summary;
      readonly height: number;
      readonly clayOn: number;
    }
  | { readonly kind: 'refused'; readonly index: number; readonly school: string; readonly why: Failure }
  | { readonly kind: 'school'; readonly school: string; readonly row: SchoolRow }
  | { readonly kind: 'tried'; readonly sets: number }
  | { readonly kind: 'strengthened'; readonly result: StrengthenResult | null }
  | { readonly kind: 'done' };
