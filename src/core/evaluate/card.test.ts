import { changed } from '../../../tests/support/judged';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import { compareStatus } from '../piece';
import { asBriefed, cardOf, emptyCard, Evaluator } from '.';

const lamp = lamplighter('2026-12-01', '2026-12-24');
const card = (build = lamp) => cardOf(asBriefed(build), new Evaluator(), {});

test('the shelf’s figures and dates are the report’s', () => {
  const report = new Evaluator().evaluate(asBriefed(lamp), { ranges: 'dates' });
  if (!report.ok) throw new Error(report.message);
  expect(card().summary).toEqual(report.value.summary);
  expect(card().dates).toEqual(report.value.dates);
  expect(card().problem).toBeNull();
});

test('a station’s mark is that of its worst finding; a station without one has no mark', () => {
  for (const build of [lamp, ...otherDemoBuilds('2026-12-01', '2026-12-24').filter((b) => /net|Whelk/.test(b.name))]) {
    const report = new Evaluator().evaluate(asBriefed(build), { ranges: 'dates' });
    if (!report.ok) throw new Error(report.message);
    const { verdicts } = card(build);
    for (const f of report.value.findings) expect(compareStatus(f.status, verdicts[f.station]!)).toBeLessThanOrEqual(0);
    for (const [station, status] of Object.entries(verdicts))
      expect(report.value.findings.some((f) => f.station === station && f.status === status)).toBe(true);
  }
});

test('what cannot be worked out says where and why, and shows nothing else', () => {
  const broken = changed(lamp, { path: ['armature', 'school', 'parameters', 'bulk'], value: 'feathers' });
  expect(card(broken)).toEqual({ ...emptyCard, problem: expect.stringMatching(/bulk.*feathers/) as string });
});
