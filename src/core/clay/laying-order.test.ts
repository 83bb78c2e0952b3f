import { judged } from '../../../tests/support/judged';
import { otherDemoBuilds, lamplighter } from '../../server/demo-builds';
import { jobFacts, stepsOf } from '../plan';
import { fromTheBaseUp } from '.';

test('from the base upward, by the middle of the clay; what lies alike stays in its order', () => {
  const order = fromTheBaseUp([
    { id: 'head', height: 0.6 },
    { id: 'left', height: 0.3 },
    { id: 'right', height: 0.3 + 1e-15 },
    { id: 'chest', height: 0.2 },
  ]);
  expect(order.map((r) => r.id)).toEqual(['chest', 'left', 'right', 'head']);
});

test('the plan lays each coat in the order that Clay tells of', () => {
  for (const build of [lamplighter('2026-12-01', null), ...otherDemoBuilds('2026-12-01', '2027-01-10')]) {
    const { piece, report } = judged(build);
    const told = fromTheBaseUp(report.regions.filter((r) => r.clayVolume > 0)).map((r) => r.id);
    for (const r of report.regions) expect(r.height).toBeGreaterThan(-0.5);
    const laid = stepsOf(jobFacts(piece, report)).flatMap((s) => /^lay\/(.+)\/1$/.exec(s.id)?.[1] ?? []);
    expect(laid).toEqual(told.filter((id) => laid.includes(id)));
    expect(laid.length).toBeGreaterThan(0);
  }
});
