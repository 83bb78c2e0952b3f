import { z } from 'zod';
import * as db from '../db';
import { database } from './store';

/** The user's own ways: one row. */
export const settingsSchema = z.strictObject({
  units: z.enum(['metric', 'imperial']).default('metric'),
  theme: z.enum(['day', 'evening', 'system']).default('system'),
  motion: z.boolean().default(true),
});
export type Settings = z.infer<typeof settingsSchema>;

export async function readSettings(): Promise<Settings> {
  const text = await db.readSetting(await database(), 'ways');
  const parsed = settingsSchema.safeParse(text === undefined ? {} : JSON.parse(text));
  return parsed.success ? parsed.data : settingsSchema.parse({});
}

export async function writeSettings(settings: Settings): Promise<void> {
  await db.writeSetting(await database(), 'ways', JSON.stringify(settings));
}

export async function readFlag(key: string): Promise<string | undefined> {
  return db.readSetting(await database(), key);
}

export async function writeFlag(key: string, value: string): Promise<void> {
  await db.writeSetting(await database(), key, value);
}
