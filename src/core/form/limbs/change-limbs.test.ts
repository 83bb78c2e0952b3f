import { buildWithScan, longEars, scanOf } from '../../../../tests/support/scans';
import { applyEdit, buildSchema, type Build, type BuildEdit } from '../../document';
import { distance, mix } from '../../quantity';
import { DistanceField, resolveForm, type ResolvedForm } from '..';
import { addLimbJoint, jointOfMesh, mergeLimbJoint, moveLimbJoint, removeLimb, renameLimb } from './change-limbs';

const resolved = (b: Build): ResolvedForm => {
  const form = resolveForm(b);
  if (!form.ok) throw new Error(`${form.path}: ${form.message}`);
  return form.value;
};
const after = (b: Build, edit: BuildEdit | null): Build => {
  const next = edit && applyEdit(b, edit);
  if (!next?.ok) throw new Error('refused');
  expect(buildSchema.safeParse(next.value).success).toBe(true);
  return next.value;
};
const build = buildWithScan(scanOf(longEars));
const root = resolved(build).skeleton.joints.find((j) => j.name.startsWith('root') && j.limb!.includes('left, top'))!;
const of = jointOfMesh(build, root.id)!;
const joint = (b: Build, id: string) => resolved(b).skeleton.joints.find((j) => j.id === id)!;

test('the joints of the start form that nothing is left on are gone; a mesh without limbs keeps them', () => {
  expect(resolved(build).skeleton.joints.every((j) => j.limb !== undefined)).toBe(true);
  expect(resolved(buildWithScan(scanOf(longEars), false)).skeleton.joints.map((j) => j.id)).toEqual(['base', 'body']);
});

test('each limb dries as one region, by its own name', () => {
  const { regions } = resolved(build);
  expect(regions).toContain('lower-body');
  expect(regions.filter((r) => r.endsWith('-top'))).toHaveLength(2);
});

test('a joint is moved in the mesh, by what is seen in the world, posed or not; the face stays', () => {
  const moved = after(build, moveLimbJoint(of, [0, 0.01, 0], root.rotation, 1));
  expect(distance(joint(moved, root.id).at, [root.at[0], root.at[1] + 0.01, root.at[2]])).toBeLessThan(1e-4);
  const [a, b] = [build, moved].map((x) => new DistanceField(resolved(x).masses));
  expect(a!.at(0.05, -0.04, 0.36, a!.all())).toBeCloseTo(b!.at(0.05, -0.04, 0.36, b!.all()), 12);
  const posed = {
    ...build,
    form: { ...build.form, pose: { [of.mesh ? root.id : '']: { turned: [0, 0, 90] as [number, number, number] } } },
  };
  const seen = joint(posed, root.id);
  const again = after(posed, moveLimbJoint(jointOfMesh(posed, root.id)!, [0, 0.01, 0], seen.rotation, 1));
  // Turned by a quarter, backward in the world is to one side in the mesh.
  const own = (b: Build) => jointOfMesh(b, root.id)!.joint.at;
  expect(own(again)[0] - own(posed)[0]).toBeCloseTo(0.01, 4);
  expect(own(again)[1]).toBeCloseTo(own(posed)[1], 4);
});

test('a joint added lies half way, takes over what hung beyond it, and merging it gives the joints back', () => {
  const parent = joint(build, root.parent!);
  const { edit, id } = addLimbJoint(of)!;
  const more = after(build, edit);
  expect(distance(joint(more, id).at, mix(parent.at, root.at, 0.5))).toBeLessThan(1e-6);
  expect(joint(more, root.id).parent).toBe(id);
  const back = after(more, mergeLimbJoint(jointOfMesh(more, id)!));
  expect(resolved(back).skeleton.joints.map((j) => [j.id, j.parent])).toEqual(
    resolved(build).skeleton.joints.map((j) => [j.id, j.parent]),
  );
});

test('a limb’s joints taken away: the ear stays, carried by what it hung on, and its pose and twin are forgotten', () => {
  const posed = {
    ...build,
    form: { ...build.form, pose: { [root.id]: { turned: [20, 0, 0] as [number, number, number] } } },
  };
  const without = after(posed, removeLimb(jointOfMesh(posed, root.id)!));
  const form = resolved(without);
  expect(form.skeleton.joints.some((j) => j.limb === root.limb)).toBe(false);
  expect(without.form.pose).toEqual({});
  expect(form.skeleton.joints.every((j) => j.twinOf === null)).toBe(true);
  const field = new DistanceField(form.masses);
  expect(field.at(0.06, -0.045, 0.4, field.all())).toBeLessThan(0);
  expect(form.masses[field.owner]!.region).toContain('body');
  expect(removeLimb(jointOfMesh(build, resolved(build).skeleton.joints[0]!.id)!)).toBeNull();
});

test('a limb called otherwise takes what its region carries along', () => {
  const own = { coats: [0.004] };
  const region = resolved(build).masses.find((m) => m.joint === root.id)!.region;
  const set = { ...build, regions: { ...build.regions, own: { [region]: own } } } as Build;
  const named = after(set, renameLimb(set, jointOfMesh(set, root.id)!, 'ear, left'));
  expect(named.regions.own).toEqual({ 'ear-left': own });
  expect(resolved(named).regions).toContain('ear-left');
  expect(
    resolved(named)
      .skeleton.joints.filter((j) => j.limb === 'ear, left')
      .map((j) => j.name),
  ).toEqual(['root of ear, left', 'ear, left']);
});

test('limbs that hang together wrongly are refused with where', () => {
  const at = build.form.added[0]!;
  const limbs = at.shape.kind === 'sampled' ? at.shape.limbs! : [];
  const wrong = (change: (l: typeof limbs) => unknown) => {
    const bad = { ...build, form: { ...build.form, added: [{ ...at, shape: { ...at.shape, limbs: change(limbs) } }] } };
    const result = buildSchema.safeParse(bad);
    return result.success ? null : result.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ');
  };
  expect(wrong((l) => [...l].reverse())).toContain('every joint but the first hangs on one before it');
  expect(wrong((l) => l.map((j) => ({ ...j, id: 'j1' })))).toContain('two joints are called "j1"');
  expect(wrong((l) => l.map((j, i) => (i === 2 ? { ...j, twinOf: 'nobody' } : j)))).toContain('no joint "nobody"');
  expect(wrong((l) => l.slice(0, 1))).not.toBeNull();
});
