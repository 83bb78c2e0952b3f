import { judged } from '../../../tests/support/judged';
import { startForms } from '../form';
import { startBuild } from '.';
import { bodyLimb, bodyPart } from './body-names';

const namesOf = (kind: string, school?: string) => {
  const form = startForms.find((f) => f.kind === kind)!;
  const made = startBuild('Named', '2026-12-01', kind, form.usualSize);
  if (!made.ok) throw new Error(made.message);
  const build = school
    ? { ...made.value, armature: { ...made.value.armature, school: { kind: school, parameters: {} } } }
    : made.value;
  const { armature } = judged(build).piece;
  return { bones: armature.bones, members: armature.members };
};

test('bones and wires of bodies go by the body’s own names', () => {
  const figure = namesOf('figure');
  const bones = figure.bones.map((b) => b.name);
  for (const name of ['left upper arm', 'right forearm', 'left thigh', 'right shin', 'neck', 'ribs'])
    expect(bones).toContain(name);
  const wires = figure.members.map((m) => m.name);
  for (const name of ['left arm wire', 'right leg wire', 'neck wire']) expect(wires).toContain(name);
  const animal = namesOf('four-legged');
  for (const name of ['left upper foreleg', 'right hind shin', 'muzzle'])
    expect(animal.bones.map((b) => b.name)).toContain(name);
  expect(animal.members.map((m) => m.name)).toEqual(
    expect.arrayContaining(['left hind leg wire', 'right foreleg wire', 'tail wire']),
  );
  expect(namesOf('bird-like').bones.map((b) => b.name)).toEqual(expect.arrayContaining(['left shank', 'beak']));
  expect(namesOf('branching').bones.map((b) => b.name)).toEqual(
    expect.arrayContaining(['trunk', 'lower half of branch 1', 'tip 2 of branch 3']),
  );
});

test.each([
  ['figure', 'wire-figure'],
  ['figure', 'jointed'],
  ['figure', 'steel-mesh-foam'],
  ['four-legged', 'wire-figure'],
  ['bird-like', 'jointed'],
  ['ringed', 'wire-figure'],
  ['branching', 'branching'],
])('of a %s as a %s no two bones bear one name, and sides differ in their side only', (kind, school) => {
  const names = namesOf(kind, school).bones.map((b) => b.name);
  expect(new Set(names).size).toBe(names.length);
  const lefts = names.filter((n) => /\bleft\b/.test(n));
  for (const n of lefts) expect(names).toContain(n.replace(/\bleft\b/g, 'right'));
  expect(names.some((n) => /, left to /.test(n))).toBe(false);
});

test('what no body has keeps the names of its joints', () => {
  expect(bodyPart('neck-1', 'neck-2', [])).toBeNull();
  expect(bodyPart('hip-left', 'knee-right', [])).toBe('right thigh');
  expect(bodyLimb('top')).toBeNull();
});
