import type { Build, BuildEdit, Change, Limbs, Mass } from '../document';
import { hasLimbs, resolveForm, type SampledShape } from '../form';
import { schools } from './schools';
import { usualSchool } from './start-build';

/**
 * A mesh taken into a build: in place of what is there or beside it, and with limbs of its own, so that the armature runs
 * along them.
 */
export interface BroughtIn {
  /** At full scale, in metres. */
  readonly shape: SampledShape;
  readonly limbs: Limbs | null;
  readonly name: string;
  readonly role: 'face' | 'core' | 'bare';
  /** Hides every mass that is there. */
  readonly alone: boolean;
}

/** Null where the build's form cannot be made. */
export function bringIn(
  build: Build,
  { shape, limbs, name, role, alone }: BroughtIn,
): { edit: BuildEdit; id: string } | null {
  const form = resolveForm(build);
  if (!form.ok) return null;
  const taken = new Set(build.form.added.map((m) => m.id));
  let n = 1;
  while (taken.has(`own/mesh-${n}`)) n++;
  const id = `own/mesh-${n}`;
  // The document holds life size; the mesh is brought in at full scale.
  const small = 1 / build.form.start.size;
  const mass: Mass = {
    id,
    name: name.slice(0, 60) || 'mesh',
    region: 'mesh',
    at: [0, 0, 0.001 * small],
    turn: [0, 0, 0],
    blend: 0,
    role,
    shape: {
      ...shape,
      step: shape.step * small,
      from: [shape.from[0] * small, shape.from[1] * small, shape.from[2] * small],
      deepest: shape.deepest * small,
      ...(limbs
        ? {
            limbs: limbs.map((j) => ({
              ...j,
              at: [j.at[0] * small, j.at[1] * small, j.at[2] * small],
              radius: j.radius * small,
            })),
          }
        : {}),
    },
  };
  const hides: Change[] = alone
    ? shownMasses(
        build,
        form.value.masses.map((m) => m.id),
      ).map((m) => ({
        path: ['form', 'edits', m],
        value: { ...(build.form.edits[m] ?? {}), hidden: true },
      }))
    : [];
  const changes: Change[] = [
    { path: ['form', 'added', build.form.added.length], value: mass },
    ...hides,
    ...(alone && limbs ? wayOfBuilding(build, mass) : []),
  ];
  return { id, edit: { label: `Bring in ${mass.name}`, changes } };
}

/** What is hidden to hide all that is shown: a mesh with limbs as a whole. */
function shownMasses(build: Build, shown: readonly string[]): string[] {
  const meshes = build.form.added.filter((m) => hasLimbs(m)).map((m) => m.id);
  return [...new Set(shown.map((id) => meshes.find((m) => id.startsWith(`${m}/`)) ?? id))];
}

/**
 * A way of building that was chosen stays where it suits the mesh. Else a head on a neck gets a stuffed frame, wire runs
 * along the limbs there are, and a lump without limbs stands on a post.
 */
function wayOfBuilding(build: Build, mesh: Mass): Change[] {
  const alone = {
    ...build,
    form: {
      ...build.form,
      added: [mesh],
      edits: Object.fromEntries(hiddenStart(build).map((id) => [id, { hidden: true }])),
    },
  };
  const form = resolveForm(alone);
  if (!form.ok) return [];
  const tips = form.value.skeleton.joints.filter(
    (j) => j.limb !== undefined && !form.value.skeleton.joints.some((c) => c.parent === j.id),
  );
  const suits = (kind: string) => schools.some((s) => s.kind === kind && s.fits(form.value));
  const wanted = suits('stuffed') ? 'stuffed' : tips.length > 1 && suits('wire-figure') ? 'wire-figure' : 'object-core';
  const now = build.armature.school.kind;
  const stays = now === wanted || (suits(now) && now !== usualSchool(build.form.start.kind));
  return stays ? [] : [{ path: ['armature', 'school'], value: { kind: wanted, parameters: {} } }];
}

function hiddenStart(build: Build): string[] {
  const bare = resolveForm({ ...build, form: { ...build.form, edits: {}, added: [] } });
  return bare.ok ? bare.value.masses.map((m) => m.id) : [];
}
