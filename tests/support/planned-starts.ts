import { schoolsOf, startClays, startedForms, startIn } from '../../scripts/starts';
import { applyEdit, type Build, type Change } from '../../src/core/document';
import { asBriefed, Evaluator, type Answer } from '../../src/core/evaluate';
import { outOfOrder, type OutOfOrder, type PlanSurroundings, type PlannedStep } from '../../src/core/plan';
import { seeded } from '../../src/core/quantity';

/** Pieces of every form, way of building and clay that suit each other, finished one way or another, to look at their plans. */
const finishes: readonly (readonly string[])[] = [
  [],
  ['spray-paint'],
  ['silicone-addition'],
  ['plaster-mould'],
  ['solvent'],
  ['styrene-resin', 'spray-paint'],
  ['solvent', 'latex-mould'],
  ['heat-gun', 'spray-paint'],
];

/** Every `every`-th of them; sizes are left as they are, since no order hangs on them. */
export function* plannedStarts(every = 1, first = 0): Generator<{ readonly name: string; readonly build: Build }> {
  let i = 0;
  for (const form of startedForms)
    for (const school of schoolsOf(form))
      for (const clay of startClays) {
        if (i++ % every !== first) continue;
        const processes = finishes[i % finishes.length]!;
        const start = startIn(form, school, clay);
        const build: Build = {
          ...start,
          armature: { ...start.armature, sizing: 'by-hand' },
          finish: { ...start.finish, processes: processes.map((kind) => ({ kind })) as Build['finish']['processes'] },
        };
        yield { name: `${form}, ${school}, ${clay}, ${processes.join(' and ') || 'nothing over it'}`, build };
      }
}

/** Hours of somebody's own: some days, some hours of them, from a seed. */
export function somebodysHours(seed: number): PlanSurroundings {
  const next = seeded(seed);
  const hours = [0, 1, 2, 3, 4, 5, 6].flatMap((day) =>
    next() < 0.45
      ? [{ days: [day], from: 60 * (8 + Math.floor(next() * 10)), until: 60 * (20 + Math.floor(next() * 3)) }]
      : [],
  );
  return {
    workshop: {
      zone: 'UTC',
      people: [
        {
          id: 'one',
          name: 'one',
          hours: hours.length > 0 ? hours : [{ days: [6], from: 540, until: 1080 }],
          away: [],
          other: [],
        },
      ],
    },
    paces: {},
    others: [],
  } as PlanSurroundings;
}

/** The plan of a build and what of it is out of order; each group of a class by itself. */
export function orderOf(
  build: Build,
  surroundings?: PlanSurroundings,
): { readonly answer: Answer; readonly steps: readonly PlannedStep[]; readonly faults: readonly OutOfOrder[] } {
  const answer = new Evaluator().judge(asBriefed(build), surroundings ? { surroundings } : {});
  if (!answer.ok) throw new Error(`${build.name}: ${answer.path} ${answer.message}`);
  const { piece, report, plan } = answer.value.judging;
  if (!plan) throw new Error(`${build.name}: no plan`);
  return {
    answer: answer.value,
    steps: plan.steps,
    faults: inGroups(plan.steps).flatMap((g) => outOfOrder(piece, report, g)),
  };
}

function inGroups(steps: readonly PlannedStep[]): readonly (readonly PlannedStep[])[] {
  const groups = new Map<string, PlannedStep[]>();
  for (const s of steps) {
    const group = /^group-\d+\//.exec(s.id)?.[0] ?? '';
    groups.set(group, [...(groups.get(group) ?? []), { ...s, id: s.id.slice(group.length) }]);
  }
  return [...groups.values()];
}

export function changedBy(build: Build, ...changes: Change[]): Build {
  const done = applyEdit(build, { label: 'changed', changes });
  if (!done.ok) throw new Error(`${done.path}: ${done.message}`);
  return done.value;
}
