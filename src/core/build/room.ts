import { z } from 'zod';

/** Where it is made and dried. */
export const roomSchema = z.strictObject({
  /** degrees C */
  temperature: z.number().min(1).max(60).default(20),
  relativeHumidity: z.number().min(0.02).max(0.97).default(0.5),
  /** m/s over the piece; 0.1 is a still room, 1.5 a fan. */
  airSpeed: z.number().min(0.02).max(10).default(0.1),
  cover: z.enum(['none', 'cloth', 'loose-plastic', 'bagged']).default('none'),
  /** Hours under that cover before it comes off. */
  coverHours: z.number().min(0).max(2000).default(0),
});
export type Room = z.infer<typeof roomSchema>;
