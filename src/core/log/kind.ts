import type { z } from 'zod';
import type { Build } from '../document';
import { parseNumber, type Result, type UnitSystem, type Vec3 } from '../quantity';
import type { RoomAsItWas } from './room-as-it-was';

/**
 * What one kind of log entry is made of: its data as kept, the fields it is written in by hand, how they are read, and
 * what it says. A file each; a new kind is such a file and its line in `kinds.ts`.
 */
export interface EntryKind<Id extends string = string, Schema extends z.ZodType = z.ZodType> {
  readonly id: Id;
  /** On the button that writes one; kinds without fields are not written by hand. */
  readonly name: string;
  readonly schema: Schema;
  readonly fields: readonly DraftField[];
  /** Reads filled fields into data; the path of a failure is the field's key. */
  readonly read: (values: DraftValues, context: DraftContext) => Result<z.input<Schema>>;
  /** Fields as an entry has them, to put it right; null where it is struck and written anew. */
  readonly fill: ((data: z.output<Schema>, units: UnitSystem) => DraftValues) | null;
  readonly words: (data: z.output<Schema>, units: UnitSystem) => Said;
  /** Keys of data that hold the id of another entry. */
  readonly points?: readonly string[];
}

export interface Said {
  readonly main: string;
  readonly more: string;
}

/** A field of an entry that is being written: what it asks for, and what it might be answered with. */
export interface DraftField {
  readonly key: string;
  readonly label: string;
  readonly ask:
    | 'mass'
    | 'length'
    | 'temperature'
    | 'number'
    | 'line'
    | 'lines'
    | 'place'
    | 'yes-no'
    | 'spot'
    | 'picture'
    | 'choice';
  readonly example?: { readonly metric: string; readonly imperial: string };
  readonly most?: number;
  /** Of a choice: the answers, or the list of the context they come from. */
  readonly choices?: readonly { readonly id: string; readonly name: string }[];
  readonly from?: 'steps' | 'items' | 'damage';
  /** What an empty choice says. */
  readonly none?: string;
  /** Asked only where this holds. */
  readonly when?: (values: DraftValues) => boolean;
}

export type DraftValues = Readonly<Record<string, string | boolean | Vec3 | null>>;

/** What a draft is read against. */
export interface DraftContext {
  readonly units: UnitSystem;
  /** kg taken off where no tare is written: the last one, else the board. */
  readonly tare: number;
  readonly room: RoomAsItWas | null;
  readonly steps: readonly DoneStep[];
  readonly items: readonly { readonly item: string; readonly name: string; readonly unit: string }[];
  readonly damage: readonly { readonly id: string; readonly where: string }[];
}

/** What an entry says of a step of the plan that is done. */
export interface DoneStep {
  readonly id: string;
  readonly name: string;
  readonly kind: Build['plan']['own'][number]['kind'];
  readonly hours: number;
  /** kg it laid, and gave back to the shelf. */
  readonly clay: number;
  readonly returns?: number;
}

export function entryKind<Id extends string, Schema extends z.ZodType>(
  kind: EntryKind<Id, Schema>,
): EntryKind<Id, Schema> {
  return kind;
}

export const textIn = (values: DraftValues, key: string): string => {
  const v = values[key];
  return typeof v === 'string' ? v.trim() : '';
};
export const spotIn = (values: DraftValues, key: string): Vec3 | null => {
  const v = values[key];
  return Array.isArray(v) ? (v as unknown as Vec3) : null;
};

/** Hours as written, "1.5" or "1.5 h"; null where nothing is, undefined where it is no such number. */
export const hoursIn = (values: DraftValues, key: string): number | null | undefined => {
  const text = textIn(values, key);
  if (text === '') return null;
  const hours = parseNumber(text.replace(/\s*h(ours?)?$/i, ''));
  return hours !== undefined && hours > 0 && hours <= 400 ? hours : undefined;
};
