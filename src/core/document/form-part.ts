import { z } from 'zod';
import { massIdSchema, massSchema, turnSchema, vec3Schema } from './mass';

/**
 * The form: what it starts from, changes to what the start makes by id, the pose, and masses of the user's own.
 * Lengths are at life size, so that a change of size takes everything along.
 */
const factor = z.number().min(0.05).max(20);

/** Set over what the start form makes. `moved`, `turned` and `stretched` go on from there; the others replace. */
export const massEditSchema = z.strictObject({
  moved: vec3Schema.optional(),
  turned: turnSchema.optional(),
  stretched: z.tuple([factor, factor, factor]).optional(),
  at: massSchema.shape.at.optional(),
  turn: massSchema.shape.turn.optional(),
  blend: massSchema.shape.blend.optional(),
  shape: massSchema.shape.shape.optional(),
  region: massSchema.shape.region.optional(),
  /** Left out of the form. */
  hidden: z.boolean().optional(),
  /** Not to be moved by hand. */
  locked: z.boolean().optional(),
  /** On a twin: its own changes count, not those of its source. */
  apart: z.boolean().optional(),
});
export type MassEdit = z.infer<typeof massEditSchema>;

export const jointEditSchema = z.strictObject({
  /** Its place before the pose; everything beyond comes along. */
  moved: vec3Schema.optional(),
  /** Degrees about x, then y, then z, on top of the stance. */
  turned: turnSchema.optional(),
  apart: z.boolean().optional(),
});
export type JointEdit = z.infer<typeof jointEditSchema>;

export const formPartSchema = z.strictObject({
  start: z.strictObject({
    kind: z.string().min(1).max(40),
    /** Which making of that form; without one the first. */
    version: z.number().int().min(1).max(1000).optional(),
    /** Fraction of life size. */
    size: z.number().min(0.05).max(5),
    /** Each start form reads its own and fills in the rest. */
    measures: z.record(z.string().max(40), z.union([z.number().min(-1e4).max(1e4), z.string().max(40), z.boolean()])),
  }),
  edits: z.record(z.string().max(80), massEditSchema).default({}),
  pose: z.record(z.string().max(80), jointEditSchema).default({}),
  /** The joint that stays where it stood while the rest is posed. */
  planted: massIdSchema.nullable().default(null),
  added: z.array(massSchema).max(500).default([]),
  /** A small study that is measured and scaled up: its height, and readings of the callipers on it. */
  study: z
    .strictObject({
      height: z.number().min(0.005).max(10),
      readings: z
        .array(z.strictObject({ name: z.string().max(60), value: z.number().min(0).max(10) }))
        .max(100)
        .default([]),
    })
    .nullable()
    .default(null),
});
export type FormPart = z.infer<typeof formPartSchema>;
