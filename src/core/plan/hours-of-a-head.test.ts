import { asBriefed, Evaluator } from '../evaluate';
import { startBuild } from '../school';
import { jobFacts } from './facts';
import { stepsOf } from '.';

/** What an old hand would say of a life-size head, all of it: 15 to 40 hours in detail for ordinary hands. */
const hoursOf = (fineness: 'rough' | 'finished' | 'portrait', clay = 'paper-clay'): number => {
  const made = startBuild('A head', '2026-12-01', 'head', 1);
  if (!made.ok) throw new Error(made.message);
  const build = {
    ...made.value,
    brief: { ...made.value.brief, clay },
    plan: { ...made.value.plan, fineness },
  };
  const found = new Evaluator().judge(asBriefed(build), { ranges: false });
  if (!found.ok) throw new Error(found.message);
  const { piece, report } = found.value.judging;
  const facts = jobFacts(piece, report);
  for (const r of facts.regions) expect(r.seen).toBeLessThanOrEqual(1);
  return stepsOf(facts).reduce((sum, s) => sum + s.hours, 0);
};

test('a life-size head finished takes 15 to 40 hours; a study of it a long day, a portrait the best part of a month of evenings', () => {
  const finished = hoursOf('finished');
  expect(finished).toBeGreaterThan(15);
  expect(finished).toBeLessThan(40);
  expect(hoursOf('rough')).toBeLessThan(0.6 * finished);
  expect(hoursOf('portrait')).toBeGreaterThan(1.8 * finished);
});

test('oil-based clay in slabs goes on faster than paper clay, epoxy clay slower', () => {
  expect(hoursOf('rough', 'epoxy-clay')).toBeGreaterThan(hoursOf('rough', 'oil-medium'));
});
