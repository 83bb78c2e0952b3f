import { asBriefed } from '../evaluate';
import { newBust, type Build } from '../document';
import { Evaluator } from '../evaluate';

const evaluator = new Evaluator();
const findings = (build: Build, units: 'metric' | 'imperial' = 'metric') => {
  const report = evaluator.evaluate(asBriefed(build), { units });
  if (!report.ok) throw new Error(report.message);
  return report.value.findings.filter((f) => f.id.startsWith('proportion/'));
};
const bust = (size = 1) => newBust('b', '2026-12-01', size);
/** A loop round the head at eye level, `left` and as far to the right unless that is said too. */
const withLoop = (left: number, build = bust(), right = left): Build => {
  const z = build.form.start.size * 0.43;
  const loop = {
    id: 'own-loop',
    name: 'loop of my own',
    stock: 'aluminium-annealed',
    size: '4mm',
    strands: 1,
    bonded: false,
    path: [
      [-right, -0.03, z],
      [left, -0.03, z],
    ] as [number, number, number][],
    bones: [],
    allowances: [],
  };
  return { ...build, armature: { ...build.armature, added: { ...build.armature.added, members: [loop] } } };
};

test('a bust as it comes keeps to its proportions, at any size', () => {
  for (const size of [0.3, 1, 1.5]) expect(findings(bust(size))).toEqual([]);
});

test('a loop wider than the skull is told, by how much, in the maker’s units', () => {
  const [found] = findings(withLoop(0.11));
  expect(found).toMatchObject({
    station: 'armature',
    status: 'watch',
    sentence: 'The loop of my own is wider than the skull.',
  });
  // Half the breadth is 78 mm, and 12 mm are left for hair.
  expect(found?.measured).toBeCloseTo(0.11 - 0.078 - 0.012, 6);
  expect(findings(withLoop(0.11), 'imperial')[0]?.reason).toMatch(/ in at the most/);
  expect(findings(withLoop(0.085))).toEqual([]);
});

test('a wire far from the head belongs to something else', () => expect(findings(withLoop(0.4))).toEqual([]));

test('a face pulled well out of the skull is told on Form', () => {
  const b = bust();
  const pulled = { ...b, form: { ...b.form, edits: { face: { moved: [0, -0.09, 0] as [number, number, number] } } } };
  expect(findings(pulled)).toMatchObject([{ station: 'form', place: 'face and jaw' }]);
});

test('turned with the head, a loop within the skull stays within it', () => {
  const b = bust();
  expect(findings({ ...b, form: { ...b.form, pose: { head: { turned: [0, 0, 40] } } } })).toEqual([]);
});

test('a head turned to the side is judged in its own axes: across is where its nose pointed', () => {
  const b = bust();
  const turned: Build = { ...b, form: { ...b.form, pose: { head: { turned: [0, 0, 90] } } } };
  const told = (build: Build) => findings(build).map((f) => f.place);
  // Too far out for an ear is within for a nose that points there, and not for the nape on the other side.
  expect(told(withLoop(0.12, b, 0.05))).toEqual(['loop of my own']);
  expect(told(withLoop(0.12, turned, 0.05))).toEqual([]);
  expect(told(withLoop(0.05, turned, 0.12))).toEqual(['loop of my own']);
});
