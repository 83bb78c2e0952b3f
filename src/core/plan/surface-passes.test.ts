import { jobFacts } from '../../../tests/support/job-facts';
import { stepsOf } from './steps';
import { passesIn, passesOf } from './surface-passes';

const settings = ['dries', 'sets', 'never', 'damp', 'bakes'] as const;

test.each(settings)('%s: every pass is there, and a step’s hours are shared out among its own', (setting) => {
  for (const kind of ['refining', 'smoothing', 'sanding', 'detail'] as const) {
    const ids = passesOf(setting, kind);
    const own = passesIn(ids, 2.5);
    expect(own.map((p) => p.pass.id)).toEqual(ids);
    if (ids.length > 0) expect(own.reduce((sum, p) => sum + p.hours, 0)).toBeCloseTo(2.5, 9);
  }
  expect(passesOf(setting, 'clay')).toEqual([]);
});

test.each(settings)('%s: in the plan what wipes out fine marks comes before they are cut', (setting) => {
  const steps = stepsOf(jobFacts({ setting }));
  const order = steps.flatMap((s) => (s.region === steps.find((x) => x.passes)!.region ? (s.passes ?? []) : []));
  expect(order.length).toBeGreaterThan(3);
  expect(new Set(order).size).toBe(order.length);
  const first = order.findIndex((id) => id.startsWith('folds'));
  const rough = order.map((id, i) => (/^(paper|rake|rasp|brush|block)/.test(id) ? i : -1));
  expect(Math.max(...rough)).toBeLessThan(first);
});

test('only clay that has gone hard is sanded, only clay that is soft is raked', () => {
  expect(passesOf('never', 'sanding')).toEqual([]);
  expect(passesOf('damp', 'detail')).toContain('soften-damp');
  expect(passesOf('never', 'detail')).toContain('soften-oil');
  expect(passesOf('dries', 'refining')).toEqual(['rasp', 'fill-lows']);
});
