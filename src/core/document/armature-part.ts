import { z } from 'zod';
import { joinIds } from '../catalogue';
import { vec3Schema } from './mass';

/** The armature: a school with its few parameters, edits by generated id, and what the user added. */
const id = z
  .string()
  .regex(/^[a-z0-9]+([-/][a-z0-9]+)*$/)
  .max(80);
const join = z.enum(joinIds);
const stock = z.string().min(1).max(60);
const strands = z.number().int().min(1).max(24);

export const memberEditSchema = z.strictObject({
  stock: stock.optional(),
  size: z.string().min(1).max(30).optional(),
  strands: strands.optional(),
  bonded: z.boolean().optional(),
  joinFrom: join.optional(),
  joinTo: join.optional(),
  /** Bent by hand: where it runs, from end to end. */
  path: z.array(vec3Schema).min(2).max(200).optional(),
  /** Bent inward wherever it lies less than this under the finished face, metres. */
  drawnIn: z.number().min(0).max(0.5).optional(),
});
export type MemberEdit = z.infer<typeof memberEditSchema>;

/** A joint of the armature moved from where the school put it (metres at full size), or built into the base. */
export const nodeEditSchema = z.strictObject({
  moved: vec3Schema.optional(),
  held: z.boolean().optional(),
});
export type NodeEdit = z.infer<typeof nodeEditSchema>;

/** How the finished piece meets the world. */
export const mountSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('stands') }),
  /** From one point or several above it. */
  z.strictObject({ kind: z.literal('hangs'), points: z.array(vec3Schema).min(1).max(12) }),
  /** On a plate behind it, screwed to a wall: plate height, and the screws' pull one may take, N. */
  z.strictObject({
    kind: z.literal('wall'),
    height: z.number().min(0.01).max(3).default(0.2),
    screws: z.number().int().min(1).max(40).default(4),
    pull: z.number().min(10).max(50000).default(400),
  }),
  z.strictObject({
    kind: z.literal('worn'),
    where: z.enum(['head', 'shoulder', 'chest', 'back', 'hand']).default('shoulder'),
    /** At a stretch. */
    hours: z.number().min(0.05).max(24).default(3),
    /** kg from which it is watched and from which it fails; null takes the usual ones for the place. */
    watchFrom: z.number().min(0.05).max(50).nullable().default(null),
    failsFrom: z.number().min(0.05).max(50).nullable().default(null),
    /** Straps, stitches and pads that carry it. */
    straps: z
      .array(z.strictObject({ id, name: z.string().min(1).max(60), at: vec3Schema }))
      .max(12)
      .default([]),
  }),
]);
export type Mount = z.infer<typeof mountSchema>;

export const propSchema = z.strictObject({
  id,
  name: z.string().min(1).max(80),
  /** The joint it stands under. */
  node: id,
  /** It comes when the clay goes on, and stays until the piece is dry or for good. */
  until: z.enum(['through-dry', 'always']),
});
export type Prop = z.infer<typeof propSchema>;

/**
 * Sizes as they were set, or chosen again at each change so that it carries; what is set by hand stays either way. What is
 * kept is set out as it was when it was sized, and not sized again.
 */
export const sizings = ['by-hand', 'to-carry', 'kept'] as const;

export const armaturePartSchema = z.strictObject({
  /** Builds of before say nothing: every size of theirs is as it was set. */
  sizing: z.enum(sizings).default('by-hand'),
  school: z.strictObject({
    kind: z.string().min(1).max(40),
    parameters: z.record(z.string().max(40), z.union([z.number().min(-1e6).max(1e6), z.string().max(60), z.boolean()])),
  }),
  /** By member or bone. */
  edits: z.record(z.string().max(80), memberEditSchema).default({}),
  /** By joint of the armature. */
  nodes: z.record(z.string().max(80), nodeEditSchema).default({}),
  /** Generated joints, bones and members left out. */
  removed: z.array(z.string().max(80)).max(2000).default([]),
  /** Bones cut in parts, each with a joint between: shares of the length, rising. */
  splits: z.record(z.string().max(80), z.array(z.number().gt(0).lt(1)).min(1).max(20)).default({}),
  added: z
    .strictObject({
      nodes: z
        .array(z.strictObject({ id, at: vec3Schema, held: z.boolean().default(false) }))
        .max(600)
        .default([]),
      bones: z
        .array(
          z.strictObject({
            id,
            name: z.string().min(1).max(80),
            from: id,
            to: id,
            masses: z.array(z.string().max(80)).max(500).default([]),
            joinFrom: join.default('welded'),
            joinTo: join.default('welded'),
            tie: z.boolean().optional(),
          }),
        )
        .max(1000)
        .default([]),
      members: z
        .array(
          z.strictObject({
            id,
            name: z.string().min(1).max(80),
            stock,
            size: z.string().min(1).max(30),
            strands: strands.default(1),
            bonded: z.boolean().default(false),
            path: z.array(vec3Schema).min(2).max(200),
            bones: z.array(id).max(200),
            allowances: z
              .array(z.strictObject({ what: z.string().max(60), length: z.number().min(0).max(5) }))
              .max(10)
              .default([]),
            bare: z.boolean().optional(),
          }),
        )
        .max(1000)
        .default([]),
    })
    .prefault({}),
  /** Parts of the form that get a wire of their own, though no joint runs through them; left open, an armature sized to carry chooses. */
  along: z.array(z.string().max(80)).max(200).optional(),
  props: z.array(propSchema).max(40).default([]),
  mount: mountSchema.default({ kind: 'stands' }),
});
export type ArmaturePart = z.infer<typeof armaturePartSchema>;
