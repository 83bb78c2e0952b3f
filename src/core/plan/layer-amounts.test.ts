import { newBust, type Build } from '../document';
import { asBriefed, Evaluator } from '../evaluate';

/** How much of a layer its step puts on: by the area of the regions that have it. */
const bust = newBust('Wound', '2026-12-01', 0.5);
const evaluator = new Evaluator();
function groundOf(build: Build) {
  const question = asBriefed(build);
  const made = evaluator.toPlan(question, { id: 'b', ranges: false }),
    report = evaluator.evaluate(question);
  if (!made.ok || !report.ok) throw new Error('it does not work out');
  const areas = new Map(report.value.regions.map((r) => [r.id, r.area]));
  return { step: made.value.steps.find((s) => s.id === 'ground/gauze'), areas };
}

test('gauze over all of it, and on the head alone', () => {
  const { everywhere } = bust.regions;
  const all = groundOf({ ...bust, regions: { ...bust.regions, everywhere: { ...everywhere, under: ['gauze'] } } });
  const whole = [...all.areas.values()].reduce((sum, a) => sum + a, 0);
  // Two layers of plaster gauze weigh about 1.1 kg to a square metre.
  expect(all.step?.material?.mass).toBeCloseTo(1.1 * whole, 6);
  const own = { head: { ...everywhere, under: ['gauze'] } };
  const head = groundOf({ ...bust, regions: { ...bust.regions, own } });
  expect(head.step?.material?.mass).toBeCloseTo(1.1 * head.areas.get('head')!, 6);
  expect(head.step!.hours).toBeLessThan(all.step!.hours);
  expect(groundOf(bust).step).toBeUndefined();
});
