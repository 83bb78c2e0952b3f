import { z } from 'zod';
import { slugSchema } from '../catalogue';
import { vec3Schema } from './mass';

/** What was said of the mould that is taken of the piece, and of what is cast in it. Whether there is one, the finish says. */
export const mouldKindIds = [
  'rubber-block',
  'rubber-in-two',
  'rubber-skin',
  'latex-skin',
  'plaster-parts',
  'plaster-open',
  'shim-halves',
  'rubber-press',
] as const;
export const castIds = [
  'latex-skin',
  'latex-foam',
  'silicone-skin',
  'resin-solid',
  'resin-hollow',
  'plaster-solid',
  'plaster-hollow',
  'wax',
  'cement',
  'epoxy-glass',
  'paper',
  'pressed-clay',
] as const;

/** Where a cast of it goes. */
export const castUses = ['table', 'wall', 'head', 'shoulder', 'chest', 'back', 'hand'] as const;
export type CastUse = (typeof castUses)[number];

const wall = z.number().min(0.0005).max(0.3).optional();

export const mouldPartSchema = z.strictObject({
  /** Null: the usual one of its material. */
  kind: z.enum(mouldKindIds).nullable().default(null),
  /** Null: the first that is cast in it. */
  cast: z.enum(castIds).nullable().default(null),
  /** Null: as many as its kind and the piece want. */
  parts: z.number().int().min(1).max(8).nullable().default(null),
  /** Where no seam is to run. */
  keepFree: z
    .strictObject({
      face: z.boolean().default(true),
      regions: z.array(slugSchema).max(40).default([]),
      /** Painted on the piece; at life size. */
      spots: z
        .array(z.strictObject({ at: vec3Schema, radius: z.number().min(0.003).max(2) }))
        .max(300)
        .default([]),
    })
    .prefault({}),
  /** How it is while the mould is laid on: as it stands, or lying on a bed that bears it. */
  posture: z.enum(['standing', 'lying']).default('standing'),
  /** By this the size of the piece is larger than the cast is to be. */
  oversize: z.number().min(0.8).max(2).default(1),
  /** How many are to be cast of it; they are planned and bought for. */
  casts: z.number().int().min(0).max(60).default(0),
  /** Null: what a cast of such a form is mostly for. */
  castUse: z.enum(castUses).nullable().default(null),
  /** Set into the cast, and keep their size: across, and from one to its fellow; metres. */
  inserts: z
    .array(
      z.strictObject({
        id: slugSchema,
        name: z.string().trim().min(1).max(60),
        size: z.number().min(0.0005).max(0.5),
        apart: z.number().min(0.001).max(2).nullable().default(null),
      }),
    )
    .max(20)
    .default([]),
  /** Metres between wearer and cast, all round. */
  gap: z.number().min(0).max(0.1).default(0),
  /** Metres, in place of the usual ones. */
  skin: wall,
  shell: wall,
  margin: wall,
});
export type MouldPart = z.infer<typeof mouldPartSchema>;
