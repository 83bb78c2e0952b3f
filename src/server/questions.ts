import { parseBuild, type Build } from '../core/document';
import type { EvaluateOptions, Question } from '../core/evaluate';
import type { FullFindings } from '../core/piece';
import { failure, success, type Result } from '../core/quantity';
import * as db from '../db';
import { database } from './store';
import { entriesOf } from './workshop';

/** What is asked of a saved build: the build, its log, the moment, and what its last whole drying found. */
export interface SavedQuestion {
  readonly question: Question;
  readonly full: FullFindings | null;
}

export async function questionOf(id: string, now: number): Promise<Result<SavedQuestion>> {
  const row = await db.findBuild(await database(), id);
  if (!row) return failure('no-such-build', 'id', 'there is no such build');
  const build = parseBuild(row.document);
  return build.ok ? success(await questionAbout(id, build.value, now)) : build;
}

export async function questionAbout(id: string, build: Build, now: number): Promise<SavedQuestion> {
  const store = await database();
  const log = entriesOf(await db.listLog(store, id));
  return { question: { build, log, now }, full: await lastFullFindings(id) };
}

export async function lastFullFindings(id: string): Promise<FullFindings | null> {
  const text = await db.lastFindings(await database(), id);
  if (text === null) return null;
  try {
    return JSON.parse(text) as FullFindings;
  } catch {
    return null;
  }
}

export function optionsFor(
  id: string,
  saved: SavedQuestion,
  surroundings: EvaluateOptions['surroundings'],
): EvaluateOptions {
  return { id, full: saved.full, ...(surroundings ? { surroundings } : {}) };
}
