import { z } from 'zod';
import { massIdSchema } from './mass';

/** Pictures and outlines to model after, seen behind the piece from the front or the side. Metres at full scale. */
const pixels = z.number().min(1).max(20_000);

export const referenceSchema = z
  .strictObject({
    id: massIdSchema,
    name: z.string().min(1).max(80),
    view: z.enum(['front', 'side']),
    /** Small enough to travel with the build; only the three kinds a browser shows as they are. */
    image: z
      .string()
      .max(900_000)
      .regex(/^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/]+={0,2}$/, 'a picture is PNG, JPEG or WebP')
      .optional(),
    /** An outline template: lines of x, y in its own units, y down. */
    lines: z
      .array(z.array(z.number().min(-1e5).max(1e5)).min(4).max(8000))
      .max(300)
      .optional(),
    width: pixels,
    height: pixels,
    /** Metres to one of its own units. */
    perPixel: z.number().min(1e-7).max(1),
    /** The place in it, in its own units, that stands at `above` over the board, in the middle of the piece. */
    mark: z.tuple([z.number().min(-1e5).max(1e5), z.number().min(-1e5).max(1e5)]),
    above: z.number().min(-10).max(10).default(0),
    opacity: z.number().min(0.05).max(1).default(0.5),
    shown: z.boolean().default(true),
  })
  .refine((r) => (r.image === undefined) !== (r.lines === undefined), { message: 'it is a picture or an outline' });
export type Reference = z.infer<typeof referenceSchema>;

export const referencesSchema = z.array(referenceSchema).max(6).default([]);
