import { z } from 'zod';
import { processIdSchema } from '../catalogue';

/** What the piece goes through after the clay: ovens, paints, moulds, weather. */
export const finishSchema = z.strictObject({
  processes: z
    .array(
      z.strictObject({
        kind: processIdSchema,
        /** degrees C, where heat is the point of it. */
        temperature: z.number().min(20).max(1300).optional(),
      }),
    )
    .max(12)
    .default([]),
});
export type Finish = z.infer<typeof finishSchema>;
