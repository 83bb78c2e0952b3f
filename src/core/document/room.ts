import { z } from 'zod';
import { coverKindSchema, slugSchema } from '../catalogue';

/** Where it is made and dried: the room as it mostly is, hours at which it is otherwise, a record of it, and covers. */
const temperature = z.number().min(-10).max(60);
const humidity = z.number().min(0.02).max(0.99);
const speed = z.number().min(0.02).max(10);
const hourOfDay = z.number().min(0).max(24);

/** Hours of the day, on some days of the week, at which something is otherwise; from 22 until 7 runs over midnight. */
export const roomHoursSchema = z.strictObject({
  name: z.string().trim().min(1).max(60),
  days: z.enum(['every', 'working', 'weekend']).default('every'),
  from: hourOfDay,
  until: hourOfDay,
  temperature: temperature.optional(),
  relativeHumidity: humidity.optional(),
  airSpeed: speed.optional(),
});
export type RoomHours = z.infer<typeof roomHoursSchema>;

/** A hygrometer's record, evened out to steps; before its first and after its last reading the room is as it mostly is. */
export const roomRecordSchema = z
  .strictObject({
    name: z.string().max(120),
    /** Hours from the day the clay goes on, midnight, to the first step. */
    startsAt: z.number().min(-20000).max(20000),
    stepHours: z.number().min(0.25).max(24),
    temperature: z.array(temperature).min(1).max(3000),
    relativeHumidity: z.array(humidity).min(1).max(3000),
  })
  .refine((r) => r.temperature.length === r.relativeHumidity.length, {
    path: ['relativeHumidity'],
    message: 'temperatures and humidities are not as many',
  });
export type RoomRecord = z.infer<typeof roomRecordSchema>;

/** Over the piece, or over some regions, from and until hours after the first clay; `until` null for as long as it dries. */
export const coverSpellSchema = z.strictObject({
  kind: coverKindSchema,
  from: z.number().min(0).max(5000).default(0),
  until: z.number().min(0).max(5000).nullable().default(null),
  regions: z.array(slugSchema).max(40).default([]),
});
export type CoverSpell = z.infer<typeof coverSpellSchema>;

/** What weighing found of this clay in this room, against the catalogue's figures. */
export const learnedSchema = z.strictObject({
  name: z.string().trim().min(1).max(80),
  clay: slugSchema,
  evaporation: z.number().min(0.1).max(10),
  diffusion: z.number().min(0.1).max(10),
  /** One standard deviation of each, as a share. */
  spread: z.strictObject({ evaporation: z.number().min(0).max(2), diffusion: z.number().min(0).max(2) }),
});
export type Learned = z.infer<typeof learnedSchema>;

export const roomSchema = z.strictObject({
  /** degrees C */
  temperature: z.number().min(1).max(60).default(20),
  relativeHumidity: z.number().min(0.02).max(0.97).default(0.5),
  /** m/s over the piece; 0.1 is a still room, 1.5 a fan. */
  airSpeed: speed.default(0.1),
  hours: z.array(roomHoursSchema).max(12).default([]),
  record: roomRecordSchema.nullable().default(null),
  covers: z.array(coverSpellSchema).max(20).default([]),
  learned: learnedSchema.nullable().default(null),
});
export type Room = z.infer<typeof roomSchema>;
