import type { Build } from '../document';
import { formFor, setOutWell, under } from '../../../tests/support/set-out';
import { schools } from '.';

/** A mass of the maker's own that hangs on no joint of the pose. */
function withWart(build: Build): Build {
  const wart = {
    id: 'wart',
    name: 'wart',
    region: 'wart',
    at: [0, 0, 0.1] as [number, number, number],
    turn: [0, 0, 0] as [number, number, number],
    blend: 0.01,
    shape: { kind: 'ellipsoid' as const, radii: [0.03, 0.03, 0.03] as [number, number, number] },
  };
  return { ...build, form: { ...build.form, added: [wart] } };
}

test.each(schools.map((s) => [s.kind]))('%s: what a maker adds is carried too', (kind) => {
  const { armature, form } = setOutWell(under(withWart(formFor(kind)), kind));
  expect(form.masses.some((m) => m.id === 'wart')).toBe(true);
  expect(armature.bones.filter((b) => b.masses.includes('wart')).length).toBeGreaterThan(0);
});
