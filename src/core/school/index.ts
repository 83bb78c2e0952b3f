/**
 * Ways of making an armature, one file each. In: the form, the clay over it, what the maker set. Out: joints, bones,
 * members, base and fittings; changes made by hand are laid over that.
 */
import type { Armature } from '../armature';
import { describeIssue, type Build } from '../document';
import { resolveForm, type ResolvedForm } from '../form';
import { failure, success, type Result } from '../quantity';
import { layHandChanges } from './hand-changes';
import type { School, SchoolContext } from './school';
import { schools } from './schools';
import { withWiresAlong } from './wires-along';

export { schools };
export type { School, SchoolContext, SchoolField, SchoolTraits } from './school';
export { startBuild } from './start-build';
export * from './edit-armature';
export { limbOfRun, twinKey } from './body-names';
export * from './sizes';
export * from './size-edits';
export { alongPath, awayFromLine, slenderParts, type SlenderPart } from './slender-parts';
export { hasBone, partsToWire } from './wires-along';
export { bonesFrom, letComeAway } from './comes-apart';
export { bringIn, type BroughtIn } from './bring-in';
export { boneName, chainsOf, mainChain, standingJoints } from './limbs';

/** Ways of building that are offered for a form; the one a build has already is among them. */
export function schoolsThatSuit(form: ResolvedForm, own?: string): School<never>[] {
  return schools.filter((s) => s.fits(form) && (s.kind === own || !s.unsuited?.(form)));
}

export interface ResolvedArmature {
  readonly armature: Armature;
  readonly parameters: Readonly<Record<string, unknown>>;
  readonly lostEdits: readonly string[];
}

/** The school a build asks for, with its parameters read; fails when there is none, it does not suit the form, or a figure is out of range. */
function schoolOf(build: Build, form: ResolvedForm): Result<{ school: School<unknown>; parameters: unknown }> {
  const { kind, parameters: given } = build.armature.school;
  const school = schools.find((s) => s.kind === kind) as School<unknown> | undefined;
  if (!school)
    return failure(
      'unknown-school',
      'armature.school.kind',
      `there is no school "${kind}"; there are: ${schools.map((s) => s.kind).join(', ')}`,
    );
  if (!school.fits(form))
    return failure('school-does-not-fit', 'armature.school.kind', `"${school.name}" does not suit this form`);
  const parameters = school.parameters.safeParse(given);
  if (parameters.success) return success({ school, parameters: parameters.data });
  const { path, message } = describeIssue(parameters.error, 'armature.school.parameters');
  return failure('out-of-range', path, message);
}

/** Checks what the document leaves to the start form and the school: their own measures and parameters. Makes nothing. */
export function checkParts(build: Build): Result<null> {
  const form = resolveForm(build);
  if (!form.ok) return form;
  const school = schoolOf(build, form.value);
  return school.ok ? success(null) : school;
}

/** The armature of a build: its school's, with the user's edits and additions laid over. */
export function resolveArmature(
  build: Build,
  form: ResolvedForm,
  context: Omit<SchoolContext, 'form'>,
): Result<ResolvedArmature> {
  const chosen = schoolOf(build, form);
  if (!chosen.ok) return chosen;
  const { school, parameters } = chosen.value;
  const whole = { ...context, form };
  const made = withWiresAlong(school.make(whole, parameters), build.armature.along ?? [], whole);
  const changed = layHandChanges(made, build.armature, context.across);
  if (!changed.ok) return changed;
  return success({ ...changed.value, parameters: parameters as Record<string, unknown> });
}
