import { z } from 'zod';
import { massSchema } from './mass';

/** The form: what it starts from, edits to generated masses by id, and masses of the user's own. */
const edit = z.strictObject({
  at: massSchema.shape.at.optional(),
  turn: massSchema.shape.turn.optional(),
  blend: massSchema.shape.blend.optional(),
  shape: massSchema.shape.shape.optional(),
  region: massSchema.shape.region.optional(),
});

export const formPartSchema = z.strictObject({
  start: z.strictObject({
    kind: z.string().min(1).max(40),
    /** Fraction of life size. */
    size: z.number().min(0.05).max(5),
    /** Each start form reads its own and fills in the rest. */
    measures: z.record(z.string().max(40), z.number().min(-20).max(20)),
  }),
  edits: z.record(z.string().max(80), edit).default({}),
  added: z.array(massSchema).max(500).default([]),
});
export type FormPart = z.infer<typeof formPartSchema>;
