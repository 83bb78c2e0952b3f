import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import { applyEdit, type Build } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { resizeEdit } from './edits';
import { ruleOf } from './findings';
import { rules } from './rules';

const evaluator = new Evaluator();
const pieces: readonly Build[] = [
  lamplighter('2026-12-01', '2026-12-24'),
  ...otherDemoBuilds('2026-12-01', '2026-12-30'),
];
/** Half as large again on the same wires: more of it fails. */
const larger = pieces.flatMap((b) => {
  const made = applyEdit(b, resizeEdit(b, Math.min(5, b.form.start.size * 1.6)));
  return made.ok ? [{ ...made.value, name: `${b.name}, larger` }] : [];
});

const measured = new Set<string>();
test.each([...pieces, ...larger].map((b) => [b.name, b] as const))(
  '%s: what a rule measures after a remedy is what it finds before one',
  (_, build) => {
    const answer = evaluator.judge(asBriefed(build));
    if (!answer.ok) throw new Error(answer.message);
    // What is sound has nothing to be remedied, and is not measured again.
    for (const f of answer.value.findings.filter((x) => x.status === 'fails' || x.status === 'watch')) {
      const rule = ruleOf(f.id);
      for (const p of f.parts) {
        const now = rule?.measure?.(answer.value.judging, p.id);
        if (!now) continue;
        measured.add(rule!.id);
        expect([p.id, now.status, now.measured]).toEqual([p.id, p.status, expect.closeTo(p.measured, 9)]);
      }
    }
  },
);

test('every rule that measures was met', () =>
  expect([...measured].sort()).toEqual(
    rules
      .filter((r) => r.measure)
      .map((r) => r.id)
      .sort(),
  ));
