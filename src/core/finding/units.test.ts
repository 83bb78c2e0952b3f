import { changed } from '../../../tests/support/judged';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import { asBriefed, Evaluator } from '../evaluate';
import { evaluateWithRemedies } from '../improve';
import { newBust, type Build } from '../document';

/** Whoever works in inches and pounds is told in inches and pounds, and the other way round: every finding, every remedy. */
const evaluator = new Evaluator();
const demos = [lamplighter('2026-12-01', '2026-12-24'), ...otherDemoBuilds('2026-12-01', '2027-01-10')].filter((b) =>
  ['The Lamplighter', 'Whelk pauldron', 'Harbour master', 'The net that failed'].includes(b.name),
);
const bust = newBust('b', '2026-12-01');
const others: Build[] = [
  changed(bust, { path: ['brief', 'clay'], value: 'oven-polymer' }),
  changed(bust, { path: ['brief', 'clay'], value: 'oil-soft' }, { path: ['room', 'temperature'], value: 30 }),
  changed(
    bust,
    { path: ['armature', 'mount'], value: { kind: 'wall' } },
    { path: ['brief', 'limits', 'weight'], value: 1 },
  ),
  changed(
    bust,
    { path: ['brief', 'travel'], value: { vehicle: 'estate', ramp: 5, doorWidth: 0.3 } },
    { path: ['form', 'start', 'measures', 'headForward'], value: 0.2 },
  ),
];

/** Names of stock, of sizes and of clays are what they are sold by. */
const sold = /\d[\d./]* ?(mm|AWG|SWG|in)\b(,? [\d.]+ mm)?( x [\d.]+ mm)?( annealed wire)?/g;
const metric = /\d ?(mm|cm|m|kg|g|N|Nm|°C|l|m²|cm²)\b/;
const imperial = /\d ?(in|ft|lb|oz|lbf|lbf ft|°F|cu in)\b/;

function said(build: Build, units: 'metric' | 'imperial'): { what: string; text: string }[] {
  const answer = evaluateWithRemedies(evaluator, asBriefed(build), { units });
  if (!answer.ok) throw new Error(`${answer.path}: ${answer.message}`);
  return answer.value.findings.flatMap((f) => [
    { what: `${f.id}, its sentence`, text: f.sentence },
    { what: `${f.id}, its reason`, text: f.reason },
    ...f.remedies.flatMap((r) => [
      { what: `${f.id}, ${r.id}`, text: r.note },
      // A stock's own size stands in the label.
      { what: `${f.id}, ${r.id}`, text: r.edit.label.replace(sold, '') },
      ...r.worse.map((w) => ({ what: `${f.id}, ${r.id} makes worse`, text: w.sentence })),
    ]),
  ]);
}

test.each([...demos, ...others].map((b, i) => [`${b.name} ${i}`, b] as const))('%s', (_, build) => {
  const [inMetric, inImperial] = [said(build, 'metric'), said(build, 'imperial')];
  expect(inMetric.length).toBe(inImperial.length);
  expect(inImperial.filter(({ text }) => metric.test(text))).toEqual([]);
  expect(inMetric.filter(({ text }) => imperial.test(text))).toEqual([]);
  expect(inImperial.some(({ text }) => imperial.test(text))).toBe(true);
});
