import { z } from 'zod';

/** Clay over the core, by region: coats in the order they go on, each dry before the next. Metres. */
export const layersSchema = z.strictObject({
  coats: z.array(z.number().min(0.0005).max(0.3)).min(1).max(4),
});
export type Layers = z.infer<typeof layersSchema>;

export const regionsSchema = z.strictObject({
  everywhere: layersSchema.prefault({ coats: [0.01] }),
  own: z.record(z.string().max(60), layersSchema).default({}),
});
export type Regions = z.infer<typeof regionsSchema>;

export const stagesSchema = z.array(z.strictObject({ id: z.enum(['armature', 'bulk', 'clay']) })).min(1).max(3)
  .default([{ id: 'armature' }, { id: 'bulk' }, { id: 'clay' }]);
export type Stages = z.infer<typeof stagesSchema>;

export const finishSchema = z.strictObject({}).default({});
export type Finish = z.infer<typeof finishSchema>;
