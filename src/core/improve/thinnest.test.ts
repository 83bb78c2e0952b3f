import { changed, edited, judged } from '../../../tests/support/judged';
import { asBriefed, Evaluator } from '../evaluate';
import { startBuild } from '../school';
import { thinnestThatHolds } from '.';

const evaluator = new Evaluator();
const figure = (() => {
  const made = startBuild('Figure', '2026-12-01', 'figure', 0.3);
  if (!made.ok) throw new Error(made.message);
  // More than it needs in the arms, either side.
  return changed(
    made.value,
    ...['left', 'right'].flatMap((side) => [
      { path: ['armature', 'edits', `limb/wire-shoulder-${side}`, 'size'], value: '3mm' },
      { path: ['armature', 'edits', `limb/wire-shoulder-${side}`, 'strands'], value: 2 },
    ]),
  );
})();

test('the thinnest arm wire is found for both arms; one step thinner something stands worse', () => {
  const found = thinnestThatHolds(evaluator, asBriefed(figure), 'limb/wire-shoulder-left');
  if (!found || found === 'already') throw new Error('nothing found');
  const after = judged(edited(figure, found.edit));
  const own = after.piece.armature.members.filter((m) => /wire-shoulder/.test(m.id));
  expect(new Set(own.map((m) => `${m.size}x${m.strands}`)).size).toBe(1);
  const bones = new Set(own.flatMap((m) => m.bones));
  const most = Math.max(...after.report.members.filter((m) => bones.has(m.id)).map((m) => m.utilisation));
  expect(found.utilisation).toBeCloseTo(most, 9);
  expect(most).toBeLessThan(0.6);
  // Asked again there is nothing thinner.
  expect(thinnestThatHolds(evaluator, asBriefed(edited(figure, found.edit)), 'limb/wire-shoulder-left')).toBe(
    'already',
  );
});

test('what is strained already is not thinned, and of a member there is not nothing is said', () => {
  const made = startBuild('Coral', '2026-12-01', 'branching', 0.6);
  if (!made.ok) throw new Error(made.message);
  const thin = changed(made.value, { path: ['armature', 'school', 'parameters', 'wireSize'], value: '1.5mm' });
  const { piece, report } = judged(thin);
  const worst = report.members.reduce((w, m) => (m.utilisation > w.utilisation ? m : w));
  expect(worst.utilisation).toBeGreaterThan(0.6);
  const along = piece.armature.members.find((m) => m.bones.includes(worst.id))!;
  expect(thinnestThatHolds(evaluator, asBriefed(thin), along.id)).toBe('already');
  expect(thinnestThatHolds(evaluator, asBriefed(thin), 'branching/nobody')).toBeNull();
});
