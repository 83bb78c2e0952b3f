import { changed, edited, judged } from '../../../tests/support/judged';
import { takeMould } from '../mould';
import { startBuild } from '../school';
import { worn } from './worn';

test('a cast that may come out heavy is watched, and says what it may weigh', () => {
  const made = startBuild('Test', '2026-12-01', 'mask', 1, 'helmet');
  if (!made.ok) throw new Error(made.message);
  const mount = { kind: 'worn', where: 'head', watchFrom: 0.9, failsFrom: 2, straps: [] };
  const on = judged(
    changed(
      edited(made.value, takeMould(made.value, 'rubber-skin')),
      { path: ['mould', 'cast'], value: 'resin-hollow' },
      { path: ['armature', 'mount'], value: mount },
    ),
  );
  const { mount: told } = on.report;
  if (told.kind !== 'worn') throw new Error(told.kind);
  expect(told.mass).toBeLessThan(0.9);
  expect(told.most).toBeGreaterThan(0.9);
  const [found] = worn.judge(on);
  expect(found).toMatchObject({ status: 'watch', measured: told.most });
  expect(found!.sentence).toMatch(/^A cast of \d+ g, [\d.]+ k?g at most, is felt after a while/);
});
