import { newBust, type Build } from '../document';
import { startBuild } from '../school';
import { resolveForm, startForms } from '.';

function resolved(build: Build) {
  const form = resolveForm(build);
  if (!form.ok) throw new Error(`${form.path}: ${form.message}`);
  return form.value;
}
const edited = (edits: Build['form']['edits']): Build => {
  const b = newBust('b', '2026-12-01');
  return { ...b, form: { ...b.form, edits } };
};
const mass = (form: ReturnType<typeof resolved>, id: string) => form.masses.find((m) => m.id === id)!;

test('a twin that is locked, or was hidden and is shown again, still follows its source; set apart it does not', () => {
  const left = { moved: [0.01, 0.02, 0.03] as [number, number, number] };
  const plain = resolved(edited({}));
  for (const own of [{ locked: true }, { hidden: false }, { moved: [0, 0, 0.05] as [number, number, number] }]) {
    const form = resolved(edited({ 'shoulder-left': left, 'shoulder-right': own }));
    const [l, r] = [mass(form, 'shoulder-left').at, mass(form, 'shoulder-right').at];
    expect([-l[0], l[1], l[2]]).toEqual([...r].map((v) => expect.closeTo(v, 9)));
  }
  const apart = resolved(edited({ 'shoulder-left': left, 'shoulder-right': { apart: true } }));
  expect(mass(apart, 'shoulder-right').at).toEqual(mass(plain, 'shoulder-right').at);
  expect(mass(apart, 'shoulder-left').at).not.toEqual(mass(plain, 'shoulder-left').at);
});

test.each(startForms.map((f) => [f.kind, f.usualSize] as const))(
  '%s: a landmark is as wide as it is said',
  (kind, size) => {
    const build = startBuild('x', '2026-12-01', kind, size);
    if (!build.ok) throw new Error(build.message);
    for (const { ends, half } of resolved(build.value).landmarks) {
      const [a, b] = ends;
      expect(Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])).toBeCloseTo(2 * half * size, 9);
    }
  },
);

test('a posed figure with a joint moved is at a fifth of its size a fifth of itself in all', () => {
  const at = (size: number) => {
    const build = startBuild('x', '2026-12-01', 'figure', size);
    if (!build.ok) throw new Error(build.message);
    const pose: Build['form']['pose'] = {
      'elbow-left': { moved: [0.03, -0.02, 0.05], turned: [0, 40, 10] },
      pelvis: { turned: [10, 0, 25] },
    };
    return resolved({ ...build.value, form: { ...build.value.form, pose } });
  };
  const [small, whole] = [at(0.2), at(1)];
  expect(whole.masses.some((m, i) => m.at.some((v, k) => Math.abs(v - small.masses[i]!.at[k]!) > 0.1))).toBe(true);
  whole.masses.forEach((m, i) => m.at.forEach((v, k) => expect(small.masses[i]!.at[k]! / 0.2).toBeCloseTo(v, 9)));
  whole.skeleton.joints.forEach((j, i) =>
    j.at.forEach((v, k) => expect(small.skeleton.joints[i]!.at[k]! / 0.2).toBeCloseTo(v, 9)),
  );
});
