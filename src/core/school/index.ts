import type { Armature, Member } from '../armature';
import { describeIssue, type Build, type MemberEdit } from '../build';
import { resolveForm, type ResolvedForm } from '../form';
import { failure, success, type Result } from '../quantity';
import type { School, SchoolContext } from './school';
import { stuffed } from './stuffed';

export type { School, SchoolContext } from './school';
export { stuffed, type StuffedParameters } from './stuffed';

/** Every school there is; a new one is a file and a line here. */
export const schools: readonly School<never>[] = [stuffed as unknown as School<never>];

export interface ResolvedArmature {
  readonly armature: Armature;
  readonly parameters: Readonly<Record<string, unknown>>;
  readonly lostEdits: readonly string[];
}

/** Checks what the document leaves to the start form and the school: their own measures and parameters. Makes nothing. */
export function checkParts(build: Build): Result<null> {
  const form = resolveForm(build);
  if (!form.ok) return form;
  const school = schools.find((s) => s.kind === build.armature.school.kind) as School<unknown> | undefined;
  if (!school) return failure('unknown-school', 'armature.school.kind', `there is no school "${build.armature.school.kind}"`);
  const parameters = school.parameters.safeParse(build.armature.school.parameters);
  if (parameters.success) return success(null);
  const { path, message } = describeIssue(parameters.error, 'armature.school.parameters');
  return failure('out-of-range', path, message);
}

/** The armature of a build: its school's, with the user's edits and additions laid over. */
export function resolveArmature(build: Build, form: ResolvedForm, context: Omit<SchoolContext, 'form'>): Result<ResolvedArmature> {
  const { school: chosen, edits, added } = build.armature;
  const school = schools.find((s) => s.kind === chosen.kind) as School<unknown> | undefined;
  if (!school) return failure('unknown-school', 'armature.school.kind', `there is no school "${chosen.kind}"`);
  const parameters = school.parameters.safeParse(chosen.parameters);
  if (!parameters.success) {
    const { path, message } = describeIssue(parameters.error, 'armature.school.parameters');
    return failure('out-of-range', path, message);
  }
  const made = school.make({ ...context, form }, parameters.data);
  const ids = new Set([...made.members, ...made.bones, ...added.members, ...added.bones].map((x) => x.id));
  const nodes = [...made.nodes, ...added.nodes];
  const known = new Set(nodes.map((n) => n.id));
  for (const [i, bone] of added.bones.entries()) {
    for (const end of ['from', 'to'] as const) {
      if (!known.has(bone[end])) return failure('unknown-node', `armature.added.bones.[${i}].${end}`, `no joint is called "${bone[end]}"`);
    }
  }
  return success({
    armature: {
      ...made, nodes,
      bones: [...made.bones, ...added.bones].map((b) => ({ ...b, ...pick(edits[b.id], ['joinFrom', 'joinTo']) })),
      members: [...made.members, ...added.members].map((m): Member => ({ ...m, ...pick(edits[m.id], ['stock', 'size', 'strands', 'bonded']) })),
    },
    parameters: parameters.data as Record<string, unknown>,
    lostEdits: Object.keys(edits).filter((id) => !ids.has(id)),
  });
}

function pick<K extends keyof MemberEdit>(edit: MemberEdit | undefined, keys: readonly K[]): { [P in K]?: NonNullable<MemberEdit[P]> } {
  const out: { [P in K]?: NonNullable<MemberEdit[P]> } = {};
  for (const key of keys) {
    const value = edit?.[key];
    if (value !== undefined) out[key] = value as NonNullable<MemberEdit[K]>;
  }
  return out;
}
