import { asBriefed } from '../evaluate';
import { applyEdit, type Build } from '../document';
import { otherDemoBuilds } from '../../server/demo-builds';
import { startBuild } from '../school';
import { Evaluator } from '../evaluate';
import { strengthen, type StrengthenResult } from '../improve';

/** `most`: sets tried, where it need not be all of them. */
function strengthened(build: Build, evaluator = new Evaluator(), most = Infinity): StrengthenResult {
  let tried = 0;
  const steps = strengthen(evaluator, asBriefed(build), {}, () => tried > most);
  for (let s = steps.next(); ; s = steps.next()) {
    if (!s.done) {
      tried = s.value;
      continue;
    }
    if (!s.value) throw new Error('the build cannot be worked out');
    return s.value;
  }
}

function unsound(build: Build): string[] {
  const report = new Evaluator().evaluate(asBriefed(build));
  if (!report.ok) throw new Error(report.message);
  return report.value.findings
    .filter((f) => f.station === 'load' && (f.status === 'fails' || f.status === 'watch'))
    .map((f) => f.id);
}

const applied = (build: Build, result: StrengthenResult, i: number): Build => {
  const done = applyEdit(build, result.sets[i]!.edit);
  if (!done.ok) throw new Error(`${done.path}: ${done.message}`);
  return done.value;
};

test('the net that failed: its arms come down, and every set proposed makes everything sound', () => {
  const net = otherDemoBuilds('2026-12-01', '2026-12-24').find((b) => b.name.includes('net'))!;
  // Alike findings are told as one: a fall, the bones and the joints.
  expect(unsound(net).length).toBeGreaterThanOrEqual(3);
  const result = strengthened(net);
  expect(result.sets.length).toBeGreaterThan(1);
  expect(result.exhaustive).toBe(true);
  expect(Math.min(...result.sets.map((s) => s.choices.length))).toBeLessThanOrEqual(2);
  result.sets.forEach((set, i) => {
    const mended = applied(net, result, i);
    expect([set.edit.label, unsound(mended)]).toEqual([set.edit.label, []]);
    // What was promised is what comes.
    const report = new Evaluator().evaluate(asBriefed(mended));
    expect(report.ok && report.value.summary).toEqual(set.promised);
  });
  expect(result.front.every((i) => i >= 0 && i < result.sets.length)).toBe(true);
});

test('a figure too weak for its clay, and a piece that tips: what comes nearest leaves less wanting, and as much as it says', () => {
  const made = startBuild('f', '2026-12-01', 'figure', 0.4);
  if (!made.ok) throw new Error(made.message);
  const weak: Build = {
    ...made.value,
    brief: { ...made.value.brief, clay: 'earthen-air-dry' },
    armature: {
      ...made.value.armature,
      school: { kind: 'wire-figure', parameters: { wireSize: '1.5mm', strands: 1, boardWidth: 0.1, boardDepth: 0.1 } },
    },
  };
  expect(unsound(weak).length).toBeGreaterThan(0);
  const result = strengthened(weak, new Evaluator(), 110);
  // No set of four makes all of it sound; the nearest is told with what it leaves.
  expect(result.sets).toEqual([]);
  const { edit, left } = result.nearest!;
  const nearer = applyEdit(weak, edit);
  if (!nearer.ok) throw new Error(nearer.message);
  expect(unsound(nearer.value)).toHaveLength(left);
  expect(left).toBeLessThan(unsound(weak).length);
});

test('what is sound already is left alone', () => {
  const made = startBuild('o', '2026-12-01', 'found-object', 1);
  if (!made.ok) throw new Error(made.message);
  expect(unsound(made.value)).toEqual([]);
  expect(strengthened(made.value)).toMatchObject({ soundAlready: true, sets: [] });
});

test('a thicker wire that would stand out of a thin limb is no answer', () => {
  const made = startBuild('b', '2026-12-01', 'bird-like', 0.2);
  if (!made.ok) throw new Error(made.message);
  const bird: Build = {
    ...made.value,
    brief: { ...made.value.brief, clay: 'epoxy-clay' },
    regions: { painted: [], seams: [], everywhere: { coats: [0.003] }, own: {} },
    armature: { ...made.value.armature, school: { kind: 'wire-figure', parameters: { wireSize: '1mm', strands: 1 } } },
  };
  const evaluator = new Evaluator();
  const out = (build: Build): string[] => {
    const report = evaluator.evaluate(asBriefed(build));
    if (!report.ok) throw new Error(report.message);
    return report.value.cover.filter((c) => c.least < 0).map((c) => c.member);
  };
  const before = new Set(out(bird));
  const result = strengthened(bird, evaluator, 110);
  expect(result.sets.length).toBeGreaterThan(0);
  result.sets.forEach((set, i) =>
    expect([set.edit.label, out(applied(bird, result, i)).filter((m) => !before.has(m))]).toEqual([set.edit.label, []]),
  );
});
