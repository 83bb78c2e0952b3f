import { resolveForm } from '../form';
import { setOut, setOutWell } from '../../../tests/support/set-out';
import { chainsOf, schools, standingJoints, startBuild } from '.';

function made(kind: string, measures: Record<string, string | number> = {}, size = 0.2) {
  const build = startBuild('x', '2026-12-01', kind, size);
  if (!build.ok) throw new Error(build.message);
  return setOutWell({ ...build.value, form: { ...build.value.form, start: { ...build.value.form.start, measures } } });
}

describe.each([
  'figure',
  'four-legged',
  'bird-like',
  'branching',
  'long-neck',
  'head',
  'free',
  'mask',
  'worn-shell',
  'found-object',
])('%s', (kind) => {
  const { armature, form } = made(kind);
  test('every bone joins two joints, carries a member, and leads to what is held', () => {
    const reached = new Set(armature.nodes.filter((n) => n.held).map((n) => n.id));
    expect(reached.size).toBeGreaterThan(0);
    for (let i = 0; i < armature.bones.length; i++)
      for (const b of armature.bones) if (reached.has(b.from) || reached.has(b.to)) reached.add(b.from).add(b.to);
    const carried = new Set(armature.members.flatMap((m) => m.bones));
    for (const b of armature.bones) {
      expect(reached.has(b.from) && reached.has(b.to)).toBe(true);
      expect(carried.has(b.id)).toBe(true);
    }
    expect(new Set(armature.bones.map((b) => b.id)).size).toBe(armature.bones.length);
  });
  test('every mass is some bone’s', () => {
    const held = new Set(armature.bones.flatMap((b) => b.masses));
    for (const m of form.masses) expect([m.id, held.has(m.id)]).toEqual([m.id, true]);
  });
});

test('chains run through every joint once, and branch where limbs do', () => {
  const { form } = made('figure');
  const chains = chainsOf(form.skeleton.joints);
  // Head and two legs from the pelvis, two arms from the chest.
  expect(chains).toHaveLength(5);
  const steps = chains.flatMap((c) => c.slice(1));
  expect(new Set(steps).size).toBe(steps.length);
  expect(steps).toHaveLength(form.skeleton.joints.length - 1);
});

test('standing, both feet are held; on one leg, one; kneeling, what is lowest', () => {
  const held = (stance: string) => [...standingJoints(made('figure', { stance }).form.skeleton.joints)].sort();
  expect(held('standing')).toEqual(['sole-left', 'sole-right']);
  expect(held('balancing')).toEqual(['sole-left']);
  expect(held('kneeling').length).toBeGreaterThan(1);
  // The foot in the air keeps its wire to the ankle only.
  expect(made('figure', { stance: 'balancing' }).armature.bones.map((b) => b.id)).not.toContain('limb/sole-right');
});

test('a stuffed frame does not suit a figure, and says so', () => {
  const build = startBuild('x', '2026-12-01', 'figure', 0.2);
  if (!build.ok) throw new Error(build.message);
  const form = resolveForm(build.value);
  if (!form.ok) throw new Error(form.message);
  const wrong = { ...build.value, armature: { ...build.value.armature, school: { kind: 'stuffed', parameters: {} } } };
  expect(setOut(wrong).made).toMatchObject({ ok: false, code: 'school-does-not-fit' });
  expect(schools.filter((s) => s.fits(form.value)).map((s) => s.kind)).toEqual([
    'wire-figure',
    'jointed',
    'foil-only',
    'undercoat',
    'object-core',
    'steel-mesh-foam',
  ]);
});

test('a form or a size there is not is refused', () => {
  expect(startBuild('x', '2026-12-01', 'teapot', 1)).toMatchObject({ ok: false, code: 'unknown-form' });
  expect(startBuild('x', '2026-12-01', 'figure', 99)).toMatchObject({ ok: false });
});
