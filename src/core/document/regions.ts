import { z } from 'zod';
import { slugSchema } from '../catalogue';
import { vec3Schema } from './mass';

/** Clay over the core, by region, and what lies under and over it. Metres. */
export const layersSchema = z.strictObject({
  /** In the order they go on. */
  coats: z.array(z.number().min(0.0005).max(0.3)).min(1).max(4),
  /** Stage each coat goes on in, from 1; a coat not named goes on in the stage of its own number. */
  stages: z.array(z.number().int().min(1).max(8)).max(4).optional(),
  /** Between the core and the clay, from the core out: wraps, barriers, primers, undercoats. Left out: the school's own wrap. */
  under: z.array(slugSchema).max(5).optional(),
  /** Over the clay, from the clay out: a skin, a seal. */
  over: z.array(slugSchema).max(3).optional(),
  /** Of each coat, when it is not the clay's own colour. */
  colours: z
    .array(z.enum(['own', 'white', 'dyed']))
    .max(4)
    .optional(),
});
export type Layers = z.infer<typeof layersSchema>;

/** Thicker or thinner round a place on the form: whole at the place, nothing at `radius`. At life size. */
export const strokeSchema = z.strictObject({
  at: vec3Schema,
  radius: z.number().min(0.003).max(2),
  by: z.number().min(-0.1).max(0.1),
});
export type Stroke = z.infer<typeof strokeSchema>;

/** Where two pieces of clay meet, and how the joint was made. */
export const seamSchema = z.strictObject({
  name: z.string().trim().min(1).max(60),
  regions: z.tuple([slugSchema, slugSchema]),
  made: z.enum(['scored-slipped', 'slipped', 'scored', 'pressed']),
});
export type Seam = z.infer<typeof seamSchema>;

export const regionsSchema = z.strictObject({
  everywhere: layersSchema.prefault({ coats: [0.01] }),
  own: z.record(z.string().max(60), layersSchema).default({}),
  painted: z.array(strokeSchema).max(300).default([]),
  seams: z.array(seamSchema).max(40).default([]),
});
export type Regions = z.infer<typeof regionsSchema>;
