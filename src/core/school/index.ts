import type { Armature, Member } from '../armature';
import { describeIssue, type Build, type MemberEdit } from '../build';
import { resolveForm, type ResolvedForm } from '../form';
import { failure, success, type Result } from '../quantity';
import type { School, SchoolContext } from './school';
import { limbWire } from './limb-wire';
import { onAForm } from './on-a-form';
import { stuffed } from './stuffed';

export type { School, SchoolContext } from './school';
export { stuffed, type StuffedParameters } from './stuffed';
export { limbWire, type LimbWireParameters } from './limb-wire';
export { onAForm, type OnAFormParameters } from './on-a-form';
export { startBuild } from './start-build';

/** Every school there is; a new one is a file and a line here. */
export const schools: readonly School<never>[] = [stuffed, limbWire, onAForm] as unknown as readonly School<never>[];

export interface ResolvedArmature {
  readonly armature: Armature;
  readonly parameters: Readonly<Record<string, unknown>>;
  readonly lostEdits: readonly string[];
}

/** The school a build asks for, with its parameters read; fails when there is none, it does not suit the form, or a figure is out of range. */
function schoolOf(build: Build, form: ResolvedForm): Result<{ school: School<unknown>; parameters: unknown }> {
  const { kind, parameters: given } = build.armature.school;
  const school = schools.find((s) => s.kind === kind) as School<unknown> | undefined;
  if (!school) return failure('unknown-school', 'armature.school.kind', `there is no school "${kind}"; there are: ${schools.map((s) => s.kind).join(', ')}`);
  if (!school.fits(form)) return failure('school-does-not-fit', 'armature.school.kind', `"${school.name}" does not suit this form`);
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
export function resolveArmature(build: Build, form: ResolvedForm, context: Omit<SchoolContext, 'form'>): Result<ResolvedArmature> {
  const { edits, added } = build.armature;
  const chosen = schoolOf(build, form);
  if (!chosen.ok) return chosen;
  const { school, parameters } = chosen.value;
  const made = school.make({ ...context, form }, parameters);
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
      members: [...made.members, ...added.members].map((m): Member => ({ ...m, ...pick(edits[m.id], ['stock', 'size', 'strands', 'bonded', 'drawnIn']) })),
    },
    parameters: parameters as Record<string, unknown>,
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
