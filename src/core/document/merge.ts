import { stableText } from './hash';
import type { Build } from './document';

/**
 * Two versions of a build that went apart from one they share, put together path by path. What only one of them changed is
 * taken from it; what both changed alike is taken once. Lists are taken whole. Null where both changed the same thing.
 */
export function mergeBuilds(shared: Build, mine: Build, theirs: Build): Build | null {
  try {
    return merged(shared, mine, theirs) as Build;
  } catch (error) {
    if (error instanceof BothChanged) return null;
    throw error;
  }
}

class BothChanged extends Error {}

function merged(shared: unknown, mine: unknown, theirs: unknown): unknown {
  if (same(mine, shared) || same(mine, theirs)) return theirs;
  if (same(theirs, shared)) return mine;
  if (!isRecord(shared) || !isRecord(mine) || !isRecord(theirs)) throw new BothChanged();
  const out: Record<string, unknown> = {};
  for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const value = merged(own(shared, key), own(mine, key), own(theirs, key));
    if (value !== undefined) out[key] = value;
  }
  return out;
}

function same(a: unknown, b: unknown): boolean {
  return a === b || (a !== undefined && b !== undefined && stableText(a) === stableText(b));
}

function isRecord(v: unknown): v is Readonly<Record<string, unknown>> {
  return typeof v === 'object' && v !== null && !Array.isArray(v);
}

function own(record: Readonly<Record<string, unknown>>, key: string): unknown {
  return Object.hasOwn(record, key) ? record[key] : undefined;
}
