import type { Build } from '../../core/document';
import { success, type Result } from '../../core/quantity';

/**
 * What start forms and schools say of their own measures. They are large and nothing on the first screen asks them, so
 * they come after it: by the time something is typed they are there. Until then a change goes on to where the piece is
 * worked out, which asks the same.
 */
type Check = (build: Build) => Result<null>;
let loaded: Check | null = null;

export async function partsCheck(): Promise<Check> {
  loaded ??= (await import('../../core/school')).checkParts;
  return loaded;
}

export function checkedParts(build: Build): Result<null> {
  return loaded ? loaded(build) : success(null);
}
