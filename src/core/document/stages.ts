import { z } from 'zod';

/**
 * How the clay goes on and is handled while it dries. Hours count from the moment the first clay goes on.
 */
export const dryStates = ['touch-dry', 'leather-hard', 'through-dry'] as const;
export const dryStateSchema = z.enum(dryStates);
export type DryState = z.infer<typeof dryStateSchema>;

export const lyingWays = [
  { id: 'stands', name: 'standing', down: [0, 0, -1] },
  { id: 'back', name: 'on its back', down: [0, 1, 0] },
  { id: 'face', name: 'on its face', down: [0, -1, 0] },
  { id: 'crown', name: 'upside down', down: [0, 0, 1] },
  { id: 'left', name: 'on its left side', down: [1, 0, 0] },
  { id: 'right', name: 'on its right side', down: [-1, 0, 0] },
  { id: 'hung', name: 'hung free', down: null },
] as const;
export type LyingId = (typeof lyingWays)[number]['id'];
const hours = z.number().min(0).max(5000);

export const stagesSchema = z.strictObject({
  /** Hour of the day at which the first clay goes on. */
  startHour: z.number().min(0).max(23.75).default(9),
  /** What is waited for after each stage of clay before the next goes on; through-dry where nothing is said. */
  waits: z
    .array(z.strictObject({ until: dryStateSchema, hours: hours.default(0) }))
    .max(8)
    .default([]),
  /** The piece comes off its form, and dries from both faces. */
  lift: z
    .strictObject({ when: z.enum(['touch-dry', 'leather-hard', 'hours']), hours: hours.default(0) })
    .nullable()
    .default(null),
  /** A film on the form that lets the clay slip. */
  film: z.boolean().default(false),
  /** Cut in two, the core taken out, joined again. */
  split: z
    .strictObject({ across: z.enum(['left-right', 'front-back']), from: hours, until: hours })
    .nullable()
    .default(null),
  turns: z
    .array(z.strictObject({ at: hours, lying: z.enum(['stands', 'back', 'face', 'crown', 'left', 'right', 'hung']) }))
    .max(20)
    .default([]),
  /** Each section of the armature is clad and dried by itself, and joined when it is dry. */
  apart: z.boolean().default(false),
});
export type Stages = z.infer<typeof stagesSchema>;
