/** When it is dry, and when it is ready: two dates, with their ranges, what decides them and what they rest on. */
export interface Dates {
  /** ISO times; null for clay that sets, bakes or stays as it is, and where it never gets there. */
  readonly dryThrough: DateRange | null;
  /** ISO days: the end of the plan, finish, mould and packing included. Null where there is no plan. */
  readonly ready: DateRange | null;
  /** The region that is dry through last. */
  readonly lastDry: string | null;
  /** What decides the day it is ready. */
  readonly decides: string;
  /** How many weighings they know of. */
  readonly weighings: number;
  readonly basis: 'quick' | 'corrected' | 'full';
}

export interface DateRange {
  readonly earliest: string;
  readonly likely: string;
  readonly latest: string;
}
