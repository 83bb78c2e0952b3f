import { z } from 'zod';
import { slugSchema } from '../catalogue';

/** One mass of the form. Angles in degrees, lengths in metres; left is the sculpture's own left (+x), front is -y. */
const coordinate = z.number().min(-20).max(20);
const length = z.number().min(0.001).max(20);
export const vec3Schema = z.tuple([coordinate, coordinate, coordinate]);

export const massShapeSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('ellipsoid'), radii: z.tuple([length, length, length]) }),
  /** From the mass's place to `reach` away, its radius changing on the way. */
  z.strictObject({ kind: z.literal('round-cone'), reach: vec3Schema, radiusFrom: length, radiusTo: length }),
  /** `half` sizes include the rounding. */
  z.strictObject({ kind: z.literal('rounded-box'), half: z.tuple([length, length, length]), rounding: z.number().min(0).max(20) }),
  z.strictObject({ kind: z.literal('ring'), radius: length, thickness: length }),
]);
export type MassShape = z.infer<typeof massShapeSchema>;

export const massSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9]+([-/][a-z0-9]+)*$/).max(80),
  name: z.string().min(1).max(80),
  region: slugSchema,
  at: vec3Schema,
  /** Turns about x, then y, then z. */
  turn: z.tuple([z.number().min(-360).max(360), z.number().min(-360).max(360), z.number().min(-360).max(360)]),
  /** Radius over which it melts into its neighbours. */
  blend: z.number().min(0).max(5),
  shape: massShapeSchema,
});
export type Mass = z.infer<typeof massSchema>;
