import { z } from 'zod';

/** The measures a start form asks for, in the maker's terms: one table makes the fields, their bounds and their checks. */
export interface LengthMeasure {
  readonly kind: 'length';
  readonly label: string;
  readonly low: number;
  readonly high: number;
  readonly start: number;
  readonly hint?: string;
}
export interface NumberMeasure {
  readonly kind: 'count' | 'share' | 'angle';
  readonly label: string;
  readonly low: number;
  readonly high: number;
  readonly start: number;
  readonly hint?: string;
}
export interface ChoiceMeasure<I extends string = string> {
  readonly kind: 'choice';
  readonly label: string;
  readonly options: readonly { readonly id: I; readonly name: string }[];
  readonly start: I;
  readonly hint?: string;
}
export interface YesNoMeasure {
  readonly kind: 'yes-no';
  readonly label: string;
  readonly start: boolean;
  readonly hint?: string;
}
export type Measure = LengthMeasure | NumberMeasure | ChoiceMeasure | YesNoMeasure;
export type MeasureTable = Readonly<Record<string, Measure>>;

export type MeasuresOf<T extends MeasureTable> = {
  readonly [K in keyof T]: T[K] extends ChoiceMeasure<infer I> ? I : T[K] extends YesNoMeasure ? boolean : number;
};

export const length = (label: string, low: number, high: number, start: number, hint?: string): LengthMeasure => ({
  kind: 'length',
  label,
  low,
  high,
  start,
  hint,
});
export const count = (label: string, low: number, high: number, start: number, hint?: string): NumberMeasure => ({
  kind: 'count',
  label,
  low,
  high,
  start,
  hint,
});
export const share = (label: string, low: number, high: number, start: number, hint?: string): NumberMeasure => ({
  kind: 'share',
  label,
  low,
  high,
  start,
  hint,
});
export const angle = (label: string, low: number, high: number, start: number, hint?: string): NumberMeasure => ({
  kind: 'angle',
  label,
  low,
  high,
  start,
  hint,
});
export const yesNo = (label: string, start: boolean, hint?: string): YesNoMeasure => ({
  kind: 'yes-no',
  label,
  start,
  hint,
});
export function choice<I extends string>(
  label: string,
  options: readonly { readonly id: I; readonly name: string }[],
  start: NoInfer<I>,
  hint?: string,
): ChoiceMeasure<I> {
  return { kind: 'choice', label, options, start, hint };
}

function schemaOf(m: Measure): z.ZodType {
  if (m.kind === 'yes-no') return z.boolean().default(m.start);
  if (m.kind === 'choice') return z.enum(m.options.map((o) => o.id)).default(m.start);
  const number = z.number().min(m.low).max(m.high);
  return (m.kind === 'count' ? number.int() : number).default(m.start);
}

export function measuresSchema<T extends MeasureTable>(table: T): z.ZodType<MeasuresOf<T>> {
  return z.strictObject(
    Object.fromEntries(Object.entries(table).map(([key, m]) => [key, schemaOf(m)])),
  ) as unknown as z.ZodType<MeasuresOf<T>>;
}
