import { changed } from '../../../tests/support/judged';
import { clayAt, weighings } from '../../../tests/support/weighed-log';
import { lamplighter } from '../../server/demo-builds';
import { asBriefed, Evaluator, type EvaluateOptions } from '../evaluate';
import { startBuild } from '../school';
import { compareSchool, schoolsFor, underSchool } from './compare-schools';

const lamp = changed(lamplighter('2026-12-01', '2026-12-24'), {
  path: ['armature', 'edits', 'stuffed/loop-front', 'strands'],
  value: 2,
});
const evaluator = new Evaluator();

test('under its own school a build stays as its maker has set it', () =>
  expect(underSchool(lamp, lamp.armature.school.kind)).toBe(lamp));

test('under another, what was changed by hand on the first armature goes; board, mount and the rest stay', () => {
  const other = underSchool(lamp, 'foil-only');
  expect(other.armature).toMatchObject({
    school: { kind: 'foil-only', parameters: {} },
    edits: {},
    props: [],
    removed: [],
  });
  expect(other.armature.mount).toEqual(lamp.armature.mount);
  expect({ ...other, armature: null }).toEqual({ ...lamp, armature: null });
});

test('its own school comes first, and only those that suit the form are offered', () => {
  const offered = schoolsFor(lamp).map((s) => s.kind);
  expect(offered[0]).toBe('stuffed');
  expect(new Set(offered).size).toBe(offered.length);
  const coral = startBuild('coral', '2026-12-01', 'branching', 1);
  if (!coral.ok) throw new Error(coral.message);
  expect(schoolsFor(coral.value).map((s) => s.kind)).toContain('branching');
  expect(offered).not.toContain('branching');
});

test('a row says what the report of that school says', () => {
  for (const { kind } of schoolsFor(lamp).slice(0, 3)) {
    const row = compareSchool(asBriefed(lamp), kind, evaluator);
    if ('message' in row) throw new Error(row.message);
    const report = new Evaluator().evaluate(asBriefed(underSchool(lamp, kind)));
    if (!report.ok) throw new Error(report.message);
    expect(row.summary).toEqual(report.value.summary);
    expect(row.dates).toEqual(report.value.dates);
    expect(row.clayOn).toBe(report.value.clay.onPiece);
    const wet = report.value.lifeStages.filter((m) => m.stage.startsWith('clay')).flatMap((m) => m.bones);
    expect(row.sag).toBe(Math.max(...wet.map((b) => b.sag)));
  }
});

test('under another school the weighings are not read again: what they taught stays', () => {
  const build = lamplighter('2026-12-01', '2026-12-24');
  const log = weighings(evaluator, build, [1, 24, 48, 72], 0.7);
  const question = { build, log, now: clayAt(build) + 73 * 3600 };
  const known = evaluator.knownOf(question, undefined);
  if (!known.ok) throw new Error(known.message);
  const row = compareSchool(question, 'foil-only', evaluator);
  if ('message' in row) throw new Error(row.message);
  const under = (options: EvaluateOptions) => {
    const r = evaluator.evaluate({ ...question, build: underSchool(build, 'foil-only') }, options);
    if (!r.ok) throw new Error(r.message);
    return r.value.dates;
  };
  expect(row.dates).toEqual(under({ known: known.value.history }));
  // Read again, foil in place of paper would have to have dried as the bust did.
  expect(row.dates).not.toEqual(under({}));
});
