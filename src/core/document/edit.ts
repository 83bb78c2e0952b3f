import { failure, success, type Result } from '../quantity';
import { buildSchema, describeIssue, type Build } from './document';

/** One gesture on a build: a sentence for the history, and the places it sets. A value of undefined removes a key. */
export interface BuildEdit {
  readonly label: string;
  readonly changes: readonly Change[];
}

export interface Change {
  readonly path: readonly (string | number)[];
  readonly value: unknown;
}

const forbidden = new Set(['__proto__', 'constructor', 'prototype']);

function setAt(target: unknown, path: readonly (string | number)[], value: unknown): unknown {
  const [head, ...rest] = path;
  if (head === undefined) return value;
  if (Array.isArray(target)) {
    const copy = [...target] as unknown[];
    if (typeof head !== 'number') return copy;
    if (rest.length === 0 && value === undefined) copy.splice(head, 1);
    else copy[head] = setAt(copy[head], rest, value);
    return copy;
  }
  const copy: Record<string, unknown> = { ...(target as Record<string, unknown> | undefined) };
  const key = String(head);
  if (rest.length === 0 && value === undefined) delete copy[key];
  else copy[key] = setAt(copy[key], rest, value);
  return copy;
}

/** Applies an edit to a copy and checks the whole; on failure the path says which part would break. */
export function applyEdit(build: Build, edit: BuildEdit): Result<Build> {
  let next: unknown = build;
  for (const change of edit.changes) {
    if (change.path.length === 0 || change.path.some((p) => forbidden.has(String(p)))) {
      return failure('bad-path', change.path.join('.'), 'an edit names a part of the build');
    }
    next = setAt(next, change.path, change.value);
  }
  // Parts the edit did not touch stay the same objects, so that what was worked out from them is found again, and are
  // not read again: only what was touched can have broken.
  const out: Record<string, unknown> = { ...(build as Record<string, unknown>) };
  for (const part of new Set(edit.changes.map((c) => String(c.path[0])))) {
    const schema = Object.hasOwn(buildSchema.shape, part)
      ? buildSchema.shape[part as keyof typeof buildSchema.shape]
      : undefined;
    if (!schema) return failure('out-of-range', part, 'a build has no such part');
    const parsed = schema.safeParse((next as Record<string, unknown>)[part]);
    if (!parsed.success) {
      const { path, message } = describeIssue(parsed.error, part);
      return failure('out-of-range', path, message);
    }
    out[part] = parsed.data;
  }
  return success(out as Build);
}
