import { changed, edited, judged } from '../../../tests/support/judged';
import type { Build } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { evaluateWithRemedies } from '../improve';
import { takeMould, type MouldKindId } from '../mould';
import { startBuild } from '../school';
import { mouldPerArea, underMould, underMouldName } from '.';

const bust = (kind: MouldKindId | null, clay = 'water-based'): Build => {
  const made = startBuild('Test', '2026-12-01', 'bust', 1);
  if (!made.ok) throw new Error(made.message);
  const plain = changed(made.value, { path: ['brief', 'clay'], value: clay });
  return kind ? edited(plain, takeMould(plain, kind)) : plain;
};
const lying = (build: Build) => changed(build, { path: ['mould', 'posture'], value: 'lying' });

test('kg to a m2 by hand, over the face of a ball of 200 mm: 25 mm of plaster 46.5; rubber of 10 mm under 12 of plaster 34.7', () => {
  const ball = { area: 4 * Math.PI * 0.2 ** 2, volume: (4 / 3) * Math.PI * 0.2 ** 3 };
  const on = (build: Build) => mouldPerArea(build, ball);
  // Three over the radius is its face to its volume; a fifth of that times the thickness, and twice what lies under it.
  expect(on(bust('plaster-parts'))).toBeCloseTo(0.025 * 1600 * (1 + (0.6 * 0.025) / 0.2), 6);
  expect(on(bust('rubber-skin'))).toBeCloseTo(
    0.01 * 1150 * (1 + (0.6 * 0.01) / 0.2) + 0.012 * 1600 * (1 + (0.6 * 0.032) / 0.2),
    6,
  );
  const thin = changed(bust('plaster-parts'), { path: ['mould', 'shell'], value: 0.015 });
  expect(on(thin)).toBeCloseTo(0.015 * 1600 * (1 + (0.6 * 0.015) / 0.2), 6);
  for (const build of [bust(null), bust('rubber-block'), bust('plaster-open'), lying(bust('plaster-parts'))])
    expect(on(build)).toBeNull();
});

test('what stands then weighs the mould more: its kg a m2 times the face that bears clay', () => {
  const { piece, report } = judged(bust('plaster-parts'));
  const massAt = (stage: string) => report.stances.find((s) => s.stage === stage)!.mass;
  const face = piece.volumes.perMass.reduce((sum, m) => sum + (m.clay > 0 ? m.area : 0), 0);
  const mould = massAt(underMould) - massAt('dry');
  expect(mould / (mouldPerArea(piece.build, { area: face, volume: piece.volumes.outerVolume })! * face)).toBeCloseTo(
    1,
    2,
  );
  expect(mould).toBeGreaterThan(12);
});

test('no stage without a mould, poured, or lying; after it is finished and before the road with one', () => {
  const stages = (build: Build) => judged(build).report.lifeStages.map((s) => s.stage);
  for (const build of [bust(null), bust('rubber-block'), lying(bust('plaster-parts'))])
    expect(stages(build)).not.toContain(underMould);
  const moved = changed(bust('plaster-parts'), { path: ['brief', 'situation'], value: 'moved' });
  const all = stages(moved);
  expect(all.indexOf(underMould)).toBe(all.indexOf('dry') + 1);
  expect(all.indexOf('moved')).toBe(all.indexOf(underMould) + 1);
});

test('a frame that gives way under plaster is laid down for it, with one press, and holds', () => {
  const build = changed(bust('plaster-parts'), { path: ['armature', 'sizing'], value: 'by-hand' });
  const evaluator = new Evaluator();
  const answer = evaluateWithRemedies(evaluator, asBriefed(build));
  if (!answer.ok) throw new Error(answer.message);
  const found = answer.value.findings.find((f) => f.id.startsWith('member/') && f.status === 'fails')!;
  expect(found.stage).toBe(underMouldName);
  const down = found.remedies.find((r) => r.id === 'lay-down')!;
  expect(down.before).toBeGreaterThan(1);
  expect(down.turns).toBe(true);
  const after = evaluator.evaluate(asBriefed(edited(build, down.edit)));
  if (!after.ok) throw new Error(after.message);
  expect(after.value.findings.filter((f) => f.id.startsWith('member/') && f.status === 'fails')).toEqual([]);
});

test('a frame that is sized to carry is sized for its mould, and for none where it lies', () => {
  const carry = (build: Build) => changed(build, { path: ['armature', 'sizing'], value: 'to-carry' });
  const evaluator = new Evaluator();
  const answer = (build: Build) => {
    const made = evaluator.evaluate(asBriefed(carry(build)));
    if (!made.ok) throw new Error(made.message);
    return made.value;
  };
  const most = (build: Build, stage: string) =>
    Math.max(
      ...answer(build)
        .lifeStages.find((s) => s.stage === stage)!
        .bones.map((b) => b.utilisation),
    );
  expect(most(bust('plaster-parts'), underMould)).toBeLessThan(1);
  expect(most(bust('plaster-parts'), 'dry')).toBeLessThan(most(bust(null), 'dry') / 2);
  expect(most(lying(bust('plaster-parts')), 'dry')).toBeCloseTo(most(bust(null), 'dry'), 9);
});
