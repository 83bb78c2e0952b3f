import { z } from 'zod';
import { slugSchema } from '../catalogue';

/** What the piece is for, and what it must keep to. */
export const situations = [
  { id: 'bench', name: 'stands on a bench or shelf', safety: 1.5 },
  { id: 'moved', name: 'is carried and driven', safety: 2 },
  { id: 'worn', name: 'is worn, or hangs above people', safety: 3 },
] as const;
export type SituationId = (typeof situations)[number]['id'];

export function safetyFactor(id: SituationId): number {
  return situations.find((s) => s.id === id)?.safety ?? 1.5;
}

export const isoDateSchema = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/, 'a date as YYYY-MM-DD')
  .refine((text) => {
    const day = new Date(`${text}T00:00:00Z`);
    return !Number.isNaN(day.getTime()) && day.toISOString().slice(0, 10) === text;
  }, 'there is no such day');

export const briefSchema = z.strictObject({
  note: z.string().max(2000).default(''),
  situation: z.enum(['bench', 'moved', 'worn']).default('bench'),
  clay: slugSchema.default('paper-clay'),
  /** Clay goes on this day. */
  startDate: isoDateSchema,
  deadline: isoDateSchema.nullable().default(null),
  hoursPerWeek: z.number().min(0.5).max(100).default(8),
  limits: z
    .strictObject({
      /** kg, finished; null for no limit. */
      weight: z.number().min(0.01).max(5000).nullable().default(null),
      crack: z.number().min(0.1).max(3).default(1),
      /** Degrees it may lean before it tips. */
      tipAngle: z.number().min(1).max(45).default(15),
    })
    .prefault({}),
  /** It stands or hangs in the open: the gust it must stand, m/s, and what holds it; null indoors. */
  outdoors: z
    .strictObject({
      gust: z.number().min(5).max(60).default(25),
      held: z.enum(['weight', 'guyed', 'bolted']).default('weight'),
    })
    .nullable()
    .default(null),
  /** What it has to go through on its way. Metres; degrees of a ramp. */
  travel: z
    .strictObject({
      doorWidth: z.number().min(0.3).max(10).default(0.76),
      doorHeight: z.number().min(0.3).max(10).default(1.98),
      ramp: z.number().min(0).max(30).default(0),
      /** One of the usual vehicles, "own" for one measured, or none. */
      vehicle: z.string().max(30).default('none'),
      /** Length, width and height inside, when it is one's own. */
      inside: z
        .tuple([z.number().min(0.2).max(20), z.number().min(0.2).max(5), z.number().min(0.2).max(5)])
        .default([2, 1.2, 1.2]),
      /** Held by straps or chocks on the way. */
      lashed: z.boolean().default(false),
      /** There is a hoist, tackle or lifting trolley at both ends. */
      hoist: z.boolean().default(false),
    })
    .prefault({}),
});
export type Brief = z.infer<typeof briefSchema>;
