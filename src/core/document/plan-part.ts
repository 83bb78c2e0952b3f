import { z } from 'zod';
import { slugSchema } from '../catalogue';

/** What the maker has said about the plan: steps changed, put somewhere, left out or added; who works on it; a class. */
export const stepKinds = [
  'setting-out',
  'armature',
  'bulk',
  'ground',
  'props',
  'clay',
  'smoothing',
  'tending',
  'opening',
  'mending',
  'refining',
  'detail',
  'sanding',
  'sealing',
  'painting',
  'moulding',
  'heat',
  'fitting',
  'closing',
  'own',
] as const;
export type StepKind = (typeof stepKinds)[number];
export const stepKindSchema = z.enum(stepKinds);

export const needKinds = [
  'props',
  'oven',
  'two people',
  'fresh air',
  'respirator',
  'gloves',
  'eye protection',
] as const;
export type Need = (typeof needKinds)[number];

export const stepIdSchema = z
  .string()
  .regex(/^[a-z0-9]+([-/][a-z0-9]+)*$/, 'lower-case words joined by hyphens and strokes')
  .max(100);
const hours = z.number().min(0.02).max(400);

export const ownStepSchema = z.strictObject({
  id: stepIdSchema,
  name: z.string().trim().min(1).max(120),
  kind: stepKindSchema.default('own'),
  hours: hours.default(1),
  /** In one sitting. */
  whole: z.boolean().default(false),
  people: z.number().int().min(1).max(6).default(1),
  needs: z.array(z.enum(needKinds)).max(7).default([]),
  after: z
    .array(
      z
        .strictObject({
          step: stepIdSchema,
          /** Hours from its end. */
          least: z.number().min(0).max(5000).default(0),
          most: z.number().min(0).max(5000).nullable().default(null),
        })
        .refine((w) => w.most === null || w.most >= w.least, {
          path: ['most'],
          message: 'the longest wait is shorter than the shortest',
        }),
    )
    .max(20)
    .default([]),
  /** Steps that wait for this one. */
  before: z.array(stepIdSchema).max(20).default([]),
  region: slugSchema.nullable().default(null),
});
export type OwnStep = z.infer<typeof ownStepSchema>;

export const stepEditSchema = z.strictObject({
  hours: hours.optional(),
  off: z.boolean().optional(),
  /** Put there by the maker, UTC. */
  at: z.iso.datetime().optional(),
  people: z.number().int().min(1).max(6).optional(),
});
export type StepEdit = z.infer<typeof stepEditSchema>;

export const classSetSchema = z.strictObject({
  people: z.number().int().min(1).max(200),
  groups: z.number().int().min(1).max(8),
  /** Minutes of a session. */
  minutes: z.number().int().min(20).max(480).default(90),
  /** Hours of a learner to an hour of a practised hand. */
  pace: z.number().min(0.5).max(5).default(1.6),
  /** When each group meets, 0 Monday to 6 Sunday, minutes after midnight; the first group's first. */
  sessions: z
    .array(z.strictObject({ day: z.number().int().min(0).max(6), from: z.number().int().min(0).max(1425) }))
    .min(1)
    .max(8),
});
export type ClassSet = z.infer<typeof classSetSchema>;

/** How fine it is to be when it is done. */
export const finenesses = [
  { id: 'rough', name: 'rough: seen from a distance, or built in a day' },
  { id: 'finished', name: 'finished: clean to the hand and eye' },
  { id: 'portrait', name: 'portrait: every pore, for a close look or a mould' },
] as const;
export type Fineness = (typeof finenesses)[number]['id'];

export const planPartSchema = z.strictObject({
  fineness: z.enum(['rough', 'finished', 'portrait']).default('finished'),
  /** On the go: other builds of the workshop are planned round it. */
  active: z.boolean().default(false),
  /** What holds the piece while it is worked on: its base or a hook, a cradle it lies in, or hands alone. */
  held: z.enum(['auto', 'stands', 'hands', 'cradle', 'skewer']).default('auto'),
  /** The region left bare to hold it by until the others are laid; null is the last from the base up. */
  bareFirst: slugSchema.nullable().default(null),
  /** Of the hours there are, the share that is this piece's own. */
  share: z.number().min(0.1).max(1).default(1),
  /** Who works on it; nobody named, the first in the workshop. */
  people: z.array(slugSchema).max(8).default([]),
  steps: z
    .record(stepIdSchema, stepEditSchema)
    .refine((s) => Object.keys(s).length <= 400, 'more than 400 steps')
    .default({}),
  own: z
    .array(ownStepSchema)
    .max(80)
    .refine((own) => new Set(own.map((o) => o.id)).size === own.length, 'two steps have the same id')
    .default([]),
  classSet: classSetSchema.nullable().default(null),
});
export type PlanPart = z.infer<typeof planPartSchema>;
