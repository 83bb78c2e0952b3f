import { z } from 'zod';
import { joinIds } from '../catalogue';
import { vec3Schema } from './mass';

/** The armature: a school with its few parameters, edits by generated id, and what the user added. */
const id = z.string().regex(/^[a-z0-9]+([-/][a-z0-9]+)*$/).max(80);
const join = z.enum(joinIds);
const stock = z.string().min(1).max(60);
const strands = z.number().int().min(1).max(24);

export const memberEditSchema = z.strictObject({
  stock: stock.optional(), size: z.string().min(1).max(30).optional(),
  strands: strands.optional(), bonded: z.boolean().optional(),
  joinFrom: join.optional(), joinTo: join.optional(),
  /** Bent inward wherever it lies less than this under the finished face, metres. */
  drawnIn: z.number().min(0).max(0.5).optional(),
});
export type MemberEdit = z.infer<typeof memberEditSchema>;

export const propSchema = z.strictObject({
  id, name: z.string().min(1).max(80),
  /** The joint it stands under. */
  node: id,
  /** It comes when the clay goes on, and stays until the piece is dry or for good. */
  until: z.enum(['through-dry', 'always']),
});
export type Prop = z.infer<typeof propSchema>;

export const armaturePartSchema = z.strictObject({
  school: z.strictObject({
    kind: z.string().min(1).max(40),
    parameters: z.record(z.string().max(40), z.union([z.number().min(-1e6).max(1e6), z.string().max(60), z.boolean()])),
  }),
  edits: z.record(z.string().max(80), memberEditSchema).default({}),
  added: z.strictObject({
    nodes: z.array(z.strictObject({ id, at: vec3Schema, held: z.boolean().default(false) })).max(600).default([]),
    bones: z.array(z.strictObject({
      id, name: z.string().min(1).max(80), from: id, to: id, masses: z.array(z.string().max(80)).max(500).default([]),
      joinFrom: join.default('welded'), joinTo: join.default('welded'),
    })).max(1000).default([]),
    members: z.array(z.strictObject({
      id, name: z.string().min(1).max(80), stock, size: z.string().min(1).max(30), strands: strands.default(1),
      bonded: z.boolean().default(false), path: z.array(vec3Schema).min(2).max(200), bones: z.array(id).max(200),
      allowances: z.array(z.strictObject({ what: z.string().max(60), length: z.number().min(0).max(5) })).max(10).default([]),
    })).max(1000).default([]),
  }).prefault({}),
  props: z.array(propSchema).max(40).default([]),
});
export type ArmaturePart = z.infer<typeof armaturePartSchema>;
