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

/**
 * What is kept under a name, as its schema has it; null where nothing is. What cannot be read is set aside under a name of
 * its own, so that the next save does not take its place, and is told on the shelf.
 */
export async function readKept<S extends z.ZodType>(key: string, schema: S): Promise<z.output<S> | null> {
  const text = await readFlag(key);
  if (text === undefined) return null;
  try {
    return schema.parse(JSON.parse(text));
  } catch {
    const at = new Date().toISOString();
    try {
      await db.renameSetting(await database(), key, `${key}${asideMark}${at}`);
    } catch {
      // Where nothing can be written it stays where it is.
    }
    process.stderr.write(`settings: what was kept as "${key}" cannot be read; it was set aside\n`);
    return null;
  }
}

const asideMark = ' set aside ';

/** What was kept, could not be read and was not set again; and since when. */
export async function setAsideSettings(): Promise<{ readonly name: string; readonly at: string }[]> {
  const keys = await db.settingKeys(await database());
  return keys
    .filter((k) => k.includes(asideMark) && !keys.includes(k.split(asideMark)[0]!))
    .map((k) => ({ name: names[k.split(asideMark)[0]!] ?? k.split(asideMark)[0]!, at: k.split(asideMark)[1]! }));
}

const names: Readonly<Record<string, string>> = {
  ways: 'Units and colours',
  workshop: 'Who works when',
  'step-lists': 'Lists of steps',
  learned: 'What weighings have taught',
};

export async function readSettings(): Promise<Settings> {
  return (await readKept('ways', settingsSchema)) ?? settingsSchema.parse({});
}

export async function writeSettings(settings: Settings): Promise<void> {
  await writeFlag('ways', JSON.stringify(settings));
}

/** Ids of the pieces that came with the demo data. */
export const demoBuildsFlag = 'demo-builds';

export async function readFlag(key: string): Promise<string | undefined> {
  return db.readSetting(await database(), key);
}

export async function writeFlag(key: string, value: string): Promise<void> {
  await db.writeSetting(await database(), key, value);
}
