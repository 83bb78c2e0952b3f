import { newBust } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { masterOf } from '../piece';
import { startBuild } from '../school';
import { swells } from './laid-over';
import { volumesWithin } from './offset-volumes';

test('between nothing and what a ball has; more over a skin', () => {
  const r = 0.1,
    t = 0.01;
  const ball = { area: 4 * Math.PI * r * r, volume: (4 / 3) * Math.PI * r ** 3 };
  const exact = ((r + t) ** 3 - r ** 3) / 3 / (r * r * t);
  const own = swells(ball, t);
  expect(own - 1).toBeGreaterThan(0.5 * (exact - 1));
  expect(own - 1).toBeLessThan(exact - 1);
  expect(swells(ball, 0.012, 0.01)).toBeGreaterThan(swells(ball, 0.012));
  expect(swells({ area: 1, volume: 0 }, t)).toBe(1);
});

const figure = startBuild('f', '2026-12-01', 'figure', 0.3);
const paws = startBuild('p', '2026-12-01', 'hand', 1, 'paws');
if (!figure.ok || !paws.ok) throw new Error('no start');
test.each([
  ['a bust', newBust('b', '2026-12-01'), 0.1],
  ['a small figure, thinner than its mould', figure.value, 0.13],
  ['a pair of paws', paws.value, 0.1],
])('%s under 10 and 25 mm: as it is counted', (_, build, within) => {
  const piece = new Evaluator().piece(asBriefed(build));
  if (!piece.ok) throw new Error(piece.message);
  const { perMass, outerVolume: volume } = piece.value.volumes;
  const area = perMass.reduce((sum, m) => sum + m.area, 0);
  for (const t of [0.01, 0.025]) {
    const [own, out] = volumesWithin({ ...masterOf(piece.value), finest: t / 2 }, [0, t]);
    const told = area * t * swells({ area, volume }, t);
    expect(Math.abs(told / (out! - own!) - 1)).toBeLessThan(within);
  }
});
