import { z } from 'zod';
import { failure, success, type Result, readJson } from '../quantity';
import { armaturePartSchema } from './armature-part';
import { briefSchema } from './brief';
import { formPartSchema } from './form-part';
import { materialsSchema } from './materials';
import { migrate } from './migrations';
import { mouldPartSchema } from './mould-part';
import { referencesSchema } from './references';
import { finishSchema } from './finish';
import { planPartSchema } from './plan-part';
import { regionsSchema } from './regions';
import { roomSchema } from './room';
import { stagesSchema } from './stages';

/** The build document: inputs only, SI units. Results are worked out from it, never kept in it. */
export const schemaVersion = 9;

export const buildSchema = z.strictObject({
  schemaVersion: z.literal(schemaVersion),
  name: z.string().trim().min(1).max(120),
  brief: briefSchema,
  room: roomSchema.prefault({}),
  form: formPartSchema,
  references: referencesSchema,
  armature: armaturePartSchema,
  regions: regionsSchema.prefault({}),
  stages: stagesSchema.prefault({}),
  finish: finishSchema.prefault({}),
  mould: mouldPartSchema.prefault({}),
  materials: materialsSchema.prefault({}),
  plan: planPartSchema.prefault({}),
});
export type Build = z.infer<typeof buildSchema>;

/** Largest build file read, characters. */
export const largestBuildText = 8_000_000;

export function describeIssue(error: z.ZodError, root = ''): { path: string; message: string } {
  const issue = error.issues[0];
  const at = (issue?.path ?? [])
    .map((p) => (typeof p === 'number' ? `[${p}]` : `.${String(p)}`))
    .join('')
    .replace(/^\./, '');
  const path = [root, at].filter((p) => p !== '').join('.') || 'the document';
  return { path, message: issue?.message ?? 'is not valid' };
}

/** Reads a build from parsed JSON, older versions first brought up to date. The path names the broken part. */
export function readBuild(input: unknown): Result<Build> {
  if (typeof input !== 'object' || input === null || Array.isArray(input)) {
    return failure('not-a-build', 'the document', 'a build file holds one object');
  }
  const version = (input as { schemaVersion?: unknown }).schemaVersion;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    return failure('no-version', 'schemaVersion', 'a build file names its version, 1 or later');
  }
  if (version > schemaVersion) {
    return failure(
      'newer-version',
      'schemaVersion',
      `made by a newer Sostegno (version ${version}; this one reads up to ${schemaVersion})`,
    );
  }
  const migrated = migrate(input as Record<string, unknown>, version, schemaVersion);
  if (!migrated.ok) return migrated;
  const parsed = buildSchema.safeParse(migrated.value);
  if (!parsed.success) {
    const { path, message } = describeIssue(parsed.error);
    return failure('broken-part', path, message);
  }
  return success(parsed.data);
}

/** Reads a build from text. */
export function parseBuild(text: string): Result<Build> {
  if (text.length > largestBuildText) return failure('too-large', 'the file', 'a build file is at most 8 MB');
  const json = readJson(text);
  return json.ok ? readBuild(json.value) : json;
}
