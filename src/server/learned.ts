import { z } from 'zod';
import { describeIssue, learnedSchema, type Learned } from '../core/document';
import { failure, success, type Result } from '../core/quantity';
import { readKept, writeFlag } from './settings';

/** Fitted factors kept as "this clay in this room": the newest of a name takes the place of the one before. */
const listSchema = z.array(learnedSchema).max(50);
const key = 'learned';

export async function readLearned(): Promise<Learned[]> {
  return (await readKept(key, listSchema)) ?? [];
}

export async function rememberLearned(input: unknown): Promise<Result<Learned[]>> {
  const parsed = learnedSchema.safeParse(input);
  if (!parsed.success) {
    const { path, message } = describeIssue(parsed.error, 'learned');
    return failure('bad-entry', path, message);
  }
  const next = [parsed.data, ...(await readLearned()).filter((l) => l.name !== parsed.data.name)].slice(0, 50);
  await writeFlag(key, JSON.stringify(next));
  return success(next);
}
