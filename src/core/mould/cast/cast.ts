import type { Range } from '../../quantity';

/** What is cast in a mould. A file each; a new one is such a file and its line in `index.ts`. */
export interface CastKind<Id extends string = string> {
  readonly id: Id;
  readonly name: string;
  /** Metres of wall; null where it is poured full. */
  readonly wall: Range | null;
  /** kg/m3 once it is dry or has set. */
  readonly density: Range;
  /** How much smaller it comes out than the mould; below zero it comes out larger. */
  readonly shrinkage: Range;
  /** It can be peeled from what holds it. */
  readonly gives?: true;
  readonly caution: string;
}

export const castKind = <Id extends string>(kind: CastKind<Id>): CastKind<Id> => kind;

export const ranged = ([low, nominal, high]: readonly [number, number, number]): Range => ({ low, nominal, high });
