import { applyPatches, enablePatches, produceWithPatches, type Patch } from 'immer';
import { applyEdit, stableText, type Build, type BuildEdit } from '../../core/document';
import { success, type Result } from '../../core/quantity';
import { checkedParts } from './parts-check';

enablePatches();

/** One gesture: what it was, and the way there and back. Kept with the build, so undo survives a reload. */
export interface Step {
  readonly label: string;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
}

export interface History {
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

export const emptyHistory: History = { past: [], future: [] };
const longest = 150;

/** Applies an edit and records it. A refused edit leaves everything as it was. */
export function perform(build: Build, history: History, edit: BuildEdit): Result<{ build: Build; history: History }> {
  const applied = applyEdit(build, edit);
  if (!applied.ok) return applied;
  const parts = checkedParts(applied.value);
  if (!parts.ok) return parts;
  const [next, patches, inverse] = produceWithPatches(build, (draft) => {
    for (const change of edit.changes) copyAlong(draft, applied.value, change.path);
  });
  if (patches.length === 0) return success({ build, history });
  const step: Step = { label: edit.label, patches, inverse };
  return success({ build: next, history: { past: [...history.past, step].slice(-longest), future: [] } });
}

/** Copies what stands at `path` in `from` to the same place in `to`, or takes it away when it is not there. */
function copyAlong(to: unknown, from: unknown, path: readonly (string | number)[]): void {
  let target = to as Record<string, unknown>;
  let source = from as Record<string, unknown> | undefined;
  for (const [i, key] of path.entries()) {
    const value = source?.[key];
    const last = i === path.length - 1;
    if (last || value === undefined || target[key] === undefined || Array.isArray(target[key])) {
      if (value === undefined) delete target[key];
      else target[key] = value;
      return;
    }
    target = target[key] as Record<string, unknown>;
    source = value as Record<string, unknown>;
  }
}

/** Another version in the place of this one, as one gesture that can be undone; the version itself where they are alike. */
export function asOneStep(
  from: Build,
  history: History,
  to: Build,
  label: string,
): { readonly build: Build; readonly history: History } {
  const [build, patches, inverse] = produceWithPatches(from, (draft) => {
    const target = draft as Record<string, unknown>;
    for (const [part, value] of Object.entries(to))
      if (stableText(value) !== stableText(from[part as keyof Build])) target[part] = value;
  });
  if (patches.length === 0) return { build: from, history };
  const step: Step = { label, patches, inverse };
  return { build, history: { past: [...history.past, step].slice(-longest), future: [] } };
}

export function stepBack(build: Build, history: History): { build: Build; history: History; label: string } | null {
  const step = history.past[history.past.length - 1];
  if (!step) return null;
  return {
    build: applyPatches(build, step.inverse as Patch[]),
    label: step.label,
    history: { past: history.past.slice(0, -1), future: [step, ...history.future] },
  };
}

export function stepForward(build: Build, history: History): { build: Build; history: History; label: string } | null {
  const step = history.future[0];
  if (!step) return null;
  return {
    build: applyPatches(build, step.patches as Patch[]),
    label: step.label,
    history: { past: [...history.past, step], future: history.future.slice(1) },
  };
}

/** Reads a kept history; anything that is not one counts as none. */
export function readHistory(kept: unknown): History {
  const isStep = (s: unknown): s is Step =>
    typeof s === 'object' &&
    s !== null &&
    typeof (s as Step).label === 'string' &&
    Array.isArray((s as Step).patches) &&
    Array.isArray((s as Step).inverse);
  const { past, future } = (typeof kept === 'object' && kept !== null ? kept : {}) as {
    past?: unknown;
    future?: unknown;
  };
  if (!Array.isArray(past) || !Array.isArray(future) || ![...past, ...future].every(isStep)) return emptyHistory;
  return { past, future };
}
