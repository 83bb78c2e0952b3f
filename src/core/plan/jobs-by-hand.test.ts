import { jobsByHand, type HandJob } from '../../../tests/support/jobs-by-hand';
import { changedBy, orderOf } from '../../../tests/support/planned-starts';
import { startIn } from '../../../scripts/starts';
import { otherDemoBuilds } from '../../server/demo-builds';
import type { Build } from '../document';
import { startBuild } from '../school';
import type { PlannedStep } from '.';

/** Plans against jobs that were written down by hand before the plans were looked at. */
const demo = (name: string): Build => {
  const found = otherDemoBuilds('2026-12-01', '2027-03-01').find((b) => b.name === name);
  if (!found) throw new Error(`no ${name}`);
  return { ...found, plan: { ...found.plan, classSet: null } };
};
const byHand = (build: Build): Build => ({ ...build, armature: { ...build.armature, sizing: 'by-hand' } });
const goesThrough = (build: Build, ...kinds: string[]): Build =>
  changedBy(build, { path: ['finish', 'processes'], value: kinds.map((kind) => ({ kind })) });
const coats = (build: Build, ...thick: number[]): Build =>
  changedBy(build, { path: ['regions', 'everywhere', 'coats'], value: thick });

const built: Readonly<Record<string, () => Build>> = {
  'branching piece in sections, paper clay': () => demo('Coral candelabrum'),
  'ring and figure on primed card, paper clay': () => {
    const ring = goesThrough(byHand(startIn('ringed', 'wire-figure', 'paper-clay')), 'spray-paint');
    return changedBy(ring, { path: ['regions', 'everywhere', 'under'], value: ['sealing-primer'] });
  },
  'foil and epoxy creature, propped': () => {
    const creature = byHand(startIn('four-legged', 'wire-figure', 'epoxy-clay'));
    return changedBy(creature, {
      path: ['armature', 'props'],
      value: [{ id: 'p1', name: 'under the head', node: 'head', until: 'through-dry' }],
    });
  },
  'foam-type head, lifted off and closed': () => demo('Harbour master'),
  'oven bust in three bakes': () => coats(byHand(startIn('bust', 'stuffed', 'oven-polymer')), 0.003, 0.004, 0.003),
  'dense bust in clay kept damp, for a plaster mould': () =>
    goesThrough(byHand(startIn('bust', 'dense', 'water-based')), 'plaster-mould'),
  'class of 24 wire figures, gauze and paper clay': () => demo('Acrobats'),
  'mask in clay kept damp on a head form, until its mould': () =>
    changedBy(goesThrough(demo('Otter mask'), 'plaster-mould'), { path: ['mould', 'casts'], value: 0 }),
  'giant in sections, steel, mesh and foam, paper clay': () =>
    changedBy(byHand(startIn('figure', 'steel-mesh-foam', 'paper-clay')), { path: ['stages', 'apart'], value: true }),
  'worn shell in epoxy over foil that is pulled out': () => demo('Whelk pauldron'),
  'bird on two feet, oil-based clay, wax over nothing: kept': () =>
    byHand(startIn('bird-like', 'wire-figure', 'oil-medium')),
};

/** Where a plan says other than the list; empty where it agrees. */
function differences({ lines }: HandJob, steps: readonly PlannedStep[]): string[] {
  const of = new Map(lines.map((l) => [l.key, steps.filter((s) => l.steps.test(s.id))]));
  const out = steps
    .filter((s) => lines.filter((l) => l.steps.test(s.id)).length !== 1)
    .map((s) => `${s.id} is no line, or several`);
  for (const l of lines) {
    const own = of.get(l.key)!;
    if (own.length === 0 && !l.maybe) out.push(`"${l.key}" is in no step`);
    for (const key of l.after)
      for (const s of own)
        for (const before of of.get(key) ?? []) {
          const apart = s.region !== null && before.region !== null && s.region !== before.region;
          if (!apart && before.until > s.from + 60) out.push(`${s.id} before ${before.id} is over`);
        }
  }
  return out;
}

test('there is a piece for every job', () => {
  expect(Object.keys(built).sort()).toEqual(jobsByHand.map((j) => j.name).sort());
});

test.each(jobsByHand)('$name: the steps and the order of the list', (job) => {
  const { steps, faults } = orderOf(built[job.name]!());
  expect(differences(job, steps)).toEqual([]);
  expect(faults).toEqual([]);
});

test('what is written down is looked for: a step too many, too few, or too early', () => {
  const made = startBuild('Bust', '2026-12-01', 'bust', 1);
  if (!made.ok) throw new Error(made.message);
  const { steps } = orderOf(made.value);
  const job = jobsByHand.find((j) => j.name.startsWith('ring and figure'))!;
  const plain = { ...job, lines: job.lines.filter((l) => !['prime', 'paint'].includes(l.key)) };
  expect(differences(plain, steps)).toEqual([]);
  expect(differences(job, steps)).toEqual(['"prime" is in no step', '"paint" is in no step']);
  expect(differences(plain, [...steps, { ...steps[0]!, id: 'polish' }])).toEqual(['polish is no line, or several']);
  const early = steps.map((s) => (s.id === 'fit' ? { ...s, from: steps[0]!.from } : s));
  expect(differences(plain, early)).toEqual(['fit before photograph is over']);
});
