import { failure, success, type Result } from '../quantity';

/** Takes a document of version `from` to `from + 1`. Pure; never edits what it was given. */
export interface Migration {
  readonly from: number;
  readonly up: (document: Record<string, unknown>) => Record<string, unknown>;
}

/** In order, one a version. The first release is version 1, so there is none yet; each comes with a kept fixture. */
export const migrations: readonly Migration[] = [];

export function migrate(
  document: Record<string, unknown>, from: number, to: number, steps: readonly Migration[] = migrations,
): Result<Record<string, unknown>> {
  let current = document;
  for (let version = from; version < to; version++) {
    const step = steps.find((s) => s.from === version);
    if (!step) return failure('no-migration', 'schemaVersion', `no way from version ${version} to ${version + 1}`);
    current = { ...step.up(current), schemaVersion: version + 1 };
  }
  return success(current);
}
