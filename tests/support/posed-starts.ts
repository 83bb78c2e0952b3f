import type { Build } from '../../src/core/document';
import { resolveForm, startForms } from '../../src/core/form';
import { seeded } from '../../src/core/quantity';
import { schoolsThatSuit, startBuild } from '../../src/core/school';
import { begunToCarry } from '../../src/core/sizing';
import { startClays } from '../../scripts/starts';

/** Any start form and type, at six tenths to fourteen of its usual size, turned at a third of its joints, in any way of building that suits it and any clay. */
export function posedStart(seed: number): Build {
  const random = seeded(seed * 104729 + 7);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const form = pick(startForms.filter((f) => f.kind !== 'free'));
  const type = form.types ? pick([undefined, ...form.types.map((t) => t.id)]) : undefined;
  const made = startBuild(`Start ${seed}`, '2026-12-01', form.kind, form.usualSize * (0.6 + 0.8 * random()), type);
  if (!made.ok) throw new Error(made.message);
  const bare = resolveForm(made.value);
  if (!bare.ok) throw new Error(bare.message);
  const pose: Build['form']['pose'] = {};
  for (const j of bare.value.skeleton.joints)
    if (!j.ground && j.parent !== null && random() < 0.3)
      pose[j.id] = { turned: [0, 1, 2].map(() => (random() - 0.5) * 50) as [number, number, number] };
  const school = pick(schoolsThatSuit(bare.value)).kind;
  const { armature } = made.value;
  return begunToCarry({
    ...made.value,
    brief: { ...made.value.brief, clay: pick(startClays) },
    form: { ...made.value.form, pose },
    armature: { ...armature, ...(school === armature.school.kind ? {} : { school: { kind: school, parameters: {} } }) },
  });
}
