import { z } from 'zod';
import { slugSchema } from '../catalogue';
import { limbsSchema } from './mass-limbs';

/**
 * One mass of the form. Angles in degrees, lengths in metres; left is the sculpture's own left (+x), front is -y.
 * In the document a mass stands at life size and before any pose; `resolveForm` brings it to its size and pose.
 */
const coordinate = z.number().min(-20).max(20);
const length = z.number().min(0.0005).max(20);
export const vec3Schema = z.tuple([coordinate, coordinate, coordinate]);
const side = z.number().int().min(4).max(128);
const angle = z.number().min(-360).max(360);
export const turnSchema = z.tuple([angle, angle, angle]);

export const massShapeSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('ellipsoid'), radii: z.tuple([length, length, length]) }),
  /** From the mass's place to `reach` away, its radius changing on the way. */
  z.strictObject({ kind: z.literal('round-cone'), reach: vec3Schema, radiusFrom: length, radiusTo: length }),
  /** `half` sizes include the rounding. */
  z.strictObject({
    kind: z.literal('rounded-box'),
    half: z.tuple([length, length, length]),
    rounding: z.number().min(0).max(20),
  }),
  z.strictObject({ kind: z.literal('ring'), radius: length, thickness: length }),
  /** Upright cylinder; `half` its half height, rounding included. */
  z.strictObject({ kind: z.literal('drum'), radius: length, half: length, rounding: z.number().min(0).max(20) }),
  /** A mesh brought in: its signed distance on a grid of samples, one byte each (see `form/mesh/sampled.ts`). Scaled as a whole only. */
  z
    .strictObject({
      kind: z.literal('sampled'),
      cells: z.tuple([side, side, side]),
      step: z.number().min(1e-6).max(5),
      /** Middle of the first sample, from the mass's place. */
      from: vec3Schema,
      /** Empty samples all round it; 3 where it is not said. */
      empty: z.number().int().min(2).max(40).optional(),
      /** Largest distance there is in it, metres. */
      deepest: z.number().min(1e-6).max(50),
      values: z
        .string()
        .max(1_500_000)
        .regex(/^[A-Za-z0-9+/]*={0,2}$/, 'samples are base64'),
      /** Its limbs, once its maker has asked for them. */
      limbs: limbsSchema.optional(),
    })
    .refine((s) => s.values.length === Math.ceil((s.cells[0] * s.cells[1] * s.cells[2]) / 3) * 4, {
      path: ['values'],
      message: 'its samples are not as many as its cells',
    }),
  /** A bowl turned over: an ellipsoid hollowed to the thickness of its clay and open below `open` (in its own axes). */
  z.strictObject({ kind: z.literal('shell'), radii: z.tuple([length, length, length]), open: coordinate }),
]);
export type MassShape = z.infer<typeof massShapeSchema>;

/**
 * Whether a mass is the finished face with its clay inside it, an object with clay over it, an object left bare, or an
 * opening: what it takes up is cut out of the clay, down to the object if there is one under it.
 */
export const massRoles = ['face', 'core', 'bare', 'opening'] as const;
export type MassRole = (typeof massRoles)[number];

export const massIdSchema = z
  .string()
  .regex(/^[a-z0-9]+([-/][a-z0-9]+)*$/)
  .max(80);

export const massSchema = z.strictObject({
  id: massIdSchema,
  name: z.string().min(1).max(80),
  region: slugSchema,
  at: vec3Schema,
  /** Turns about x, then y, then z. */
  turn: turnSchema,
  /** Radius over which it melts into its neighbours. */
  blend: z.number().min(0).max(5),
  shape: massShapeSchema,
  /** The pose joint it hangs on; without one it stands where it is. */
  joint: massIdSchema.optional(),
  role: z.enum(massRoles).optional(),
  /** Has a twin on the other side, by reference. */
  mirrored: z.boolean().optional(),
});
export type Mass = z.infer<typeof massSchema>;
