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

export const isoDateSchema = z.string().regex(/^\d{4}-\d{2}-\d{2}$/, 'a date as YYYY-MM-DD')
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
  limits: z.strictObject({
    /** kg, finished; null for no limit. */
    weight: z.number().min(0.01).max(5000).nullable().default(null),
    crack: z.number().min(0.1).max(3).default(1),
    /** Degrees it may lean before it tips. */
    tipAngle: z.number().min(1).max(45).default(15),
  }).prefault({}),
});
export type Brief = z.infer<typeof briefSchema>;
