import { applyEdit, type Build, type BuildEdit, type Change } from '../../src/core/document';
import { asBriefed, Evaluator } from '../../src/core/evaluate';
import type { Judging } from '../../src/core/finding';

const evaluator = new Evaluator();

/** A build with these changes made; refused ones throw, with where and why. */
export function changed(build: Build, ...changes: readonly Change[]): Build {
  return edited(build, { label: 'test', changes });
}

export function edited(build: Build, edit: BuildEdit): Build {
  const next = applyEdit(build, edit);
  if (!next.ok) throw new Error(`${next.path} ${next.message}`);
  return next.value;
}

/** What the rules judge of a build, without ranges. */
export function judged(build: Build): Judging {
  const answer = evaluator.judge(asBriefed(build), { ranges: false });
  if (!answer.ok) throw new Error(answer.message);
  return answer.value.judging;
}

/** A change of one of the school's own parameters. */
export const parameter = (key: string, value: unknown): Change => ({
  path: ['armature', 'school', 'parameters', key],
  value,
});
