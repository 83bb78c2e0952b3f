import { changedBy, orderOf, plannedStarts, somebodysHours } from '../../../tests/support/planned-starts';
import { startIn } from '../../../scripts/starts';
import { lamplighter, otherDemoBuilds } from '../../server/demo-builds';
import type { Build } from '../document';
import { asBriefed, Evaluator } from '../evaluate';
import { orderRules, outOfOrder, type OrderRule, type PlannedStep } from '.';

/** Whether plans can be followed as they stand, and whether the rule that says so sees when they cannot. */
const hour = 3600;
const demos = [lamplighter('2026-12-01', '2027-03-01'), ...otherDemoBuilds('2026-12-01', '2027-03-01')];
const byHand = (build: Build): Build => ({ ...build, armature: { ...build.armature, sizing: 'by-hand' } });

test.each(demos.map((b) => [b.name, b] as const))('%s can be made as its plan stands', (_, build) => {
  expect(orderOf(build).faults).toEqual([]);
});

test('so can starts of every form, in every clay and finished every way', () => {
  for (const { name, build } of plannedStarts(23, 4)) expect([name, orderOf(build).faults]).toEqual([name, []]);
}, 240_000);

test('whoever works when: 300 calendars', () => {
  const builds = [
    ...demos.filter((b) =>
      ['The Lamplighter', 'Harbour master', 'Whelk pauldron', 'Coral candelabrum'].includes(b.name),
    ),
    byHand(startIn('bust', 'dense', 'oil-medium')),
    changedBy(byHand(startIn('four-legged', 'wire-figure', 'oven-polymer')), {
      path: ['regions', 'everywhere', 'coats'],
      value: [0.003, 0.003],
    }),
  ];
  for (const build of builds) {
    const evaluator = new Evaluator();
    for (let seed = 1; seed <= 50; seed++) {
      const answer = evaluator.judge(asBriefed(build), { surroundings: somebodysHours(seed) });
      if (!answer.ok) throw new Error(answer.message);
      const { piece, report, plan } = answer.value.judging;
      expect([build.name, seed, outOfOrder(piece, report, plan!.steps)]).toEqual([build.name, seed, []]);
    }
  }
}, 240_000);

/** Steps put where they should not be: each must be seen, by the rule that is about it. */
interface PutBack {
  readonly rule: OrderRule;
  readonly what: string;
  readonly build: () => Build;
  readonly wrong: (steps: readonly PlannedStep[]) => readonly PlannedStep[];
}
const at = (steps: readonly PlannedStep[], id: RegExp): PlannedStep => {
  const found = steps.find((s) => id.test(s.id));
  if (!found) throw new Error(`${id.source} is not among ${steps.map((s) => s.id).join()}`);
  return found;
};
/** The step begun at another hour, for as long as before. */
const moved = (steps: readonly PlannedStep[], id: RegExp, to: number): PlannedStep[] =>
  steps.map((s) => (id.test(s.id) ? { ...s, from: to, until: to + s.until - s.from, clashes: [] } : s));
/** An hour after the last moment at which it may begin. */
const tooLate = (steps: readonly PlannedStep[], id: RegExp): number => {
  const { task, most } = at(steps, id).after.find((w) => w.most !== null)!;
  return steps.find((s) => s.id === task)!.until + most!.nominal + hour;
};
const without = (steps: readonly PlannedStep[], id: RegExp) => steps.filter((s) => !id.test(s.id));

const lamp = demos[0]!;
const demo = (name: string) => demos.find((b) => b.name === name)!;
const moulded = (build: Build, ...kinds: string[]) =>
  changedBy(build, { path: ['finish', 'processes'], value: kinds.map((kind) => ({ kind })) });
const propped = (clay: string) =>
  changedBy(byHand(startIn('four-legged', 'wire-figure', clay)), {
    path: ['armature', 'props'],
    value: [{ id: 'p1', name: 'under the head', node: 'head', until: 'through-dry' }],
  });
const oven = () =>
  changedBy(byHand(startIn('bust', 'undercoat', 'oven-polymer')), {
    path: ['regions', 'everywhere', 'coats'],
    value: [0.003, 0.003],
  });
const glued = () => {
  const bust = byHand(startIn('bust', 'stuffed', 'paper-clay'));
  const bone = orderOf(bust).answer.judging.piece.armature.bones[1]!.id;
  return changedBy(bust, { path: ['armature', 'edits', bone], value: { joinFrom: 'epoxied' } });
};

const putBack: readonly PutBack[] = [
  {
    rule: 'what carries before what is carried',
    what: 'clay before the core is filled',
    build: () => lamp,
    wrong: (s) => moved(s, /^bulk$/, at(s, /^lay\/head/).from),
  },
  {
    rule: 'what carries before what is carried',
    what: 'props after the clay they hold',
    build: () => propped('paper-clay'),
    wrong: (s) => moved(s, /^props$/, at(s, /^lay\/head/).from),
  },
  {
    rule: 'glued joins, gauze and grounds dry before they are covered',
    what: 'a core on joins glued an hour ago',
    build: glued,
    wrong: (s) =>
      moved(s, /^armature$/, at(s, /^bulk$/).from - hour - (at(s, /^armature$/).until - at(s, /^armature$/).from)),
  },
  {
    rule: 'glued joins, gauze and grounds dry before they are covered',
    what: 'clay on gauze that was wound on that evening',
    build: () => ({ ...demo('Acrobats'), plan: { ...demo('Acrobats').plan, classSet: null } }),
    wrong: (s) => moved(s, /^bulk$/, at(s, /^lay\//).from - hour),
  },
  {
    rule: 'glued joins, gauze and grounds dry before they are covered',
    what: 'an undercoat that is never baked',
    build: oven,
    wrong: (s) => without(s, /^bake-undercoat$/),
  },
  {
    rule: 'clay warm when it is wanted',
    what: 'clay put to warm eight days before',
    build: () => demo('Walrus'),
    wrong: (s) => moved(s, /^warm$/, at(s, /^lay\//).from - 8 * 24 * hour),
  },
  {
    rule: 'clay warm when it is wanted',
    what: 'clay put to warm as it is laid',
    build: () => demo('Walrus'),
    wrong: (s) => moved(s, /^warm$/, at(s, /^lay\//).from - hour),
  },
  {
    rule: 'each coat when the one under it allows it',
    what: 'a second coat an hour after the first',
    build: () => ({ ...demo('Acrobats'), plan: { ...demo('Acrobats').plan, classSet: null } }),
    wrong: (s) => moved(s, /^lay\/trunk\/2$/, at(s, /^lay\/trunk\/1$/).until + hour),
  },
  {
    rule: 'each coat when the one under it allows it',
    what: 'a coat on one that is still hot',
    build: oven,
    wrong: (s) => moved(s, /^lay\/head\/2$/, at(s, /^bake\/1$/).until),
  },
  {
    rule: 'soft work while it is soft',
    what: 'a thin coat smoothed the day after, without a word',
    build: () => lamp,
    wrong: (s) => moved(s, /^smooth\/head$/, tooLate(s, /^smooth\/head$/)),
  },
  {
    rule: 'soft work while it is soft',
    what: 'modelled once it is baked',
    build: oven,
    wrong: (s) => moved(s, /^refine\/head$/, at(s, /^bake\/2$/).until + hour),
  },
  {
    rule: 'hard work when it is hard',
    what: 'carved the day after it was laid',
    build: () => lamp,
    wrong: (s) => moved(s, /^refine\/head$/, at(s, /^lay\/head/).until + 12 * hour),
  },
  {
    rule: 'fine marks after all that dulls them',
    what: 'sanded after its fine detail',
    build: () => lamp,
    wrong: (s) => moved(s, /^sand\/head$/, at(s, /^detail\/head$/).until),
  },
  {
    rule: 'fine marks after all that dulls them',
    what: 'smoothed with solvent after its fine detail',
    build: () => moulded(byHand(startIn('bust', 'dense', 'oil-medium')), 'solvent', 'silicone-addition'),
    wrong: (s) => moved(s, /^solvent\//, at(s, /^photograph$/).from),
  },
  {
    rule: 'covers off when the drying says',
    what: 'plastic due off after a day that comes off days later',
    build: () => demo('Harbour master'),
    wrong: (s) => moved(s, /^uncover\/1$/, at(s, /^uncover\/1$/).from + 4 * 24 * hour),
  },
  {
    rule: 'no prop away before the piece keeps its place',
    what: 'props off epoxy fourteen minutes after it was laid',
    build: () => propped('epoxy-clay'),
    wrong: (s) =>
      moved(s, /^props-away$/, Math.max(...s.filter((x) => x.kind === 'clay').map((x) => x.until)) + 14 * 60),
  },
  {
    rule: 'put together before it is worked over',
    what: 'carved before its sections are joined',
    build: () => demo('Coral candelabrum'),
    wrong: (s) => moved(s, /^join-sections$/, at(s, /^refine\/trunk$/).until),
  },
  {
    rule: 'nothing on the clay once it is covered',
    what: 'solvent after the mould is opened',
    build: () => moulded(byHand(startIn('bust', 'dense', 'oil-medium')), 'solvent', 'silicone-addition'),
    wrong: (s) => moved(s, /^solvent\//, at(s, /\/open$/).until),
  },
  {
    rule: 'sealed, painted and moulded when the clay is ready',
    what: 'sealed 28 hours before the report’s own window',
    build: () => changedBy(lamp, { path: ['regions', 'everywhere', 'over'], value: ['acrylic-seal'] }),
    wrong: (s) => moved(s, /^seal\//, Math.max(...s.filter((x) => x.kind === 'clay').map((x) => x.until)) + 60 * hour),
  },
  {
    rule: 'the end last',
    what: 'fitted and packed before it is photographed',
    build: () => lamp,
    wrong: (s) => moved(s, /^fit$/, at(s, /^photograph$/).from - hour),
  },
  {
    rule: 'the end last',
    what: 'moulded before it is photographed',
    build: () => moulded(byHand(startIn('bust', 'dense', 'oil-medium')), 'silicone-addition'),
    wrong: (s) => moved(s, /^photograph$/, at(s, /\/open$/).until),
  },
  {
    rule: 'the end last',
    what: 'clay reclaimed while it is on its armature',
    build: () => moulded(byHand(startIn('bust', 'dense', 'oil-medium')), 'silicone-addition'),
    wrong: (s) => moved(s, /^reclaim$/, at(s, /^take-apart$/).from),
  },
  {
    rule: 'cast in a mould that has been opened and is dry',
    what: 'latex in plaster of the day before',
    build: () => demo('Otter mask'),
    wrong: (s) => moved(s, /^cast\/1\/lay$/, at(s, /\/open$/).until + 24 * hour),
  },
  {
    rule: 'cast in a mould that has been opened and is dry',
    what: 'the second before the first is out',
    build: () => demo('Otter paws'),
    wrong: (s) => moved(s, /^cast\/2\/lay$/, at(s, /^cast\/1\/lay$/).until),
  },
];

test.each(putBack.map((p) => [p.what, p] as const))(
  'put back on purpose, it is seen: %s',
  (_, { rule, build, wrong }) => {
    const { answer, steps, faults } = orderOf(build());
    expect(faults).toEqual([]);
    const { piece, report } = answer.judging;
    expect(outOfOrder(piece, report, wrong(steps)).map((f) => f.rule)).toContain(rule);
  },
);

test('every rule has a fault that is put back', () => {
  expect([...new Set(putBack.map((p) => p.rule))].sort()).toEqual([...orderRules].sort());
});

test('props that never may go are not to be taken away at all', () => {
  const { answer, steps } = orderOf(propped('paper-clay'));
  const { piece, report } = answer.judging;
  const never = { ...report, letGo: { ...report.letGo, when: 'never' as const, after: null } };
  expect(outOfOrder(piece, never, steps).map((f) => f.rule)).toContain('no prop away before the piece keeps its place');
});

test('what comes too late is no fault where its step says so', () => {
  const { answer, steps } = orderOf(lamp);
  const { piece, report } = answer.judging;
  const late = moved(steps, /^smooth\/head$/, tooLate(steps, /^smooth\/head$/));
  const toldSo = late.map((s) =>
    s.id === 'smooth/head' ? { ...s, clashes: [{ kind: 'window' as const, task: s.id, other: '', by: hour }] } : s,
  );
  const soft = (all: readonly PlannedStep[]) =>
    outOfOrder(piece, report, all).filter((f) => f.rule === 'soft work while it is soft');
  expect(soft(late)).toHaveLength(1);
  expect(soft(toldSo)).toEqual([]);
});
