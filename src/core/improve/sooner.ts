import { applyEdit, type Build, type BuildEdit } from '../document';
import { clays, type ClayFamily } from '../catalogue';
import type { Answer, EvaluateOptions, Evaluator, Question } from '../evaluate';
import {
  earliestFinish,
  usualHours,
  hasTimeToSpare,
  type BuildToPlan,
  type PlanInputs,
  type PlanSurroundings,
} from '../plan';

/**
 * Ways to be ready sooner: each is done to a copy, dried with the log's factors frozen, and planned whole among the
 * other builds, in the same way as the plan on screen.
 */
/** One way to be done sooner: what it changes, and when it would be done. */
export interface Sooner {
  readonly id: string;
  readonly label: string;
  readonly edit: BuildEdit | null;
  readonly finish: number;
  /** Seconds gained. */
  readonly gains: number;
  readonly note: string;
}

interface Try {
  readonly id: string;
  readonly label: string;
  readonly note: string;
  readonly edit: BuildEdit;
}

/** Whether clay is still to go on: what is laid cannot be made thinner. */
function nothingLaid(b: BuildToPlan): boolean {
  return ![...b.happened, ...(b.begun ?? [])].some((h) => h.step.startsWith('lay/'));
}

function waysFor(build: Build, own: BuildToPlan): Try[] {
  const out: Try[] = [];
  const clay = clays.get(build.brief.clay);
  const dries = clay?.setting === 'dries';
  const set = (id: string, label: string, note: string, ...changes: BuildEdit['changes']) =>
    out.push({ id, label, note, edit: { label, changes } });
  if (dries && build.room.airSpeed < 1.2)
    set('fan', 'A fan over it', 'A fast face cracks sooner: look at Drying before you take it.', {
      path: ['room', 'airSpeed'],
      value: 1.5,
    });
  if (dries && build.room.covers.length > 0)
    set('uncovered', 'Without covers', 'It dries less evenly.', { path: ['room', 'covers'], value: [] });
  if (build.plan.held !== 'stands' && own.steps.some((s) => s.holds !== null))
    set('stand', 'A stand or skewer to hold it by', 'No region has to be dry for a hand.', {
      path: ['plan', 'held'],
      value: 'stands',
    });
  if (nothingLaid(own)) {
    const { everywhere, own: regions } = build.regions;
    const thinner = (coats: readonly number[]) => coats.map((t) => Math.max(0.001, Math.round(t * 0.75 * 1e5) / 1e5));
    set(
      'thinner',
      'Clay a quarter thinner',
      'Check that it covers what is under it.',
      { path: ['regions', 'everywhere', 'coats'], value: thinner(everywhere.coats) },
      ...Object.entries(regions).map(([id, l]) => ({ path: ['regions', 'own', id, 'coats'], value: thinner(l.coats) })),
    );
    if (dries && build.stages.waits.every((w) => w.until === 'through-dry') && everywhere.coats.length > 1) {
      set('next-coat', 'The next coat on leather-hard clay', 'It slips on well, and dries with the one under it.', {
        path: ['stages', 'waits'],
        value: everywhere.coats.slice(1).map(() => ({ until: 'leather-hard', hours: 0 })),
      });
    }
    for (const other of quickerClays(clay))
      set(
        `clay/${other.id}`,
        `${other.name[0]?.toUpperCase()}${other.name.slice(1)} instead`,
        'Another clay weighs, grips and shrinks otherwise: everything is judged anew.',
        { path: ['brief', 'clay'], value: other.id },
      );
  }
  const { classSet } = build.plan;
  if (classSet && classSet.sessions.length + classSet.groups <= 8) {
    // Each group once more a week, two days after its first session.
    const more = Array.from({ length: classSet.groups }, (_, g) => classSet.sessions[g % classSet.sessions.length]).map(
      (x) => ({ day: ((x?.day ?? 0) + 2) % 7, from: x?.from ?? 960 }),
    );
    set('session', 'One more session a week for each group', 'Somebody has to be there, and the room to be free.', {
      path: ['plan', 'classSet', 'sessions'],
      value: [...classSet.sessions.slice(0, classSet.groups), ...more],
    });
  }
  const details = own.steps.filter(
    (s) => s.kind === 'detail' && ![...own.happened, ...(own.begun ?? [])].some((h) => h.step === s.id),
  );
  if (details.length > 0)
    set(
      'plain',
      'Leave out the fine detail',
      'Surfaces stay as they are carved.',
      ...details.map((s) => ({ path: ['plan', 'steps', s.id], value: { ...build.plan.steps[s.id], off: true } })),
    );
  return out;
}

function quickerClays(clay: ClayFamily | undefined): ClayFamily[] {
  if (clay?.setting !== 'dries') return [];
  return ['epoxy-clay', 'foam-air-dry', 'paper-clay', 'earthen-air-dry']
    .filter((id) => id !== clay.id)
    .map((id) => clays.get(id))
    .filter((c) => c !== undefined);
}

/** Each way worked out whole, one at a time; the quickest is not known before the last. None where there is time to spare. */
export function* waysToBeSooner(
  evaluator: Evaluator,
  question: Question,
  answer: Answer,
  surroundings: PlanSurroundings,
  options: EvaluateOptions,
): Generator<Sooner | null> {
  if (hasTimeToSpare(answer.judging.plan)) return;
  const id = options.id ?? 'this';
  const { build, log, now } = question;
  const known = answer.known.history;
  const toPlan = (b: Build) =>
    evaluator.toPlan({ build: b, log, now }, { ...options, known, ranges: false, sizes: answer.sizes });
  const own = toPlan(build);
  if (!own.ok) return;
  const finishWith = (b: BuildToPlan, workshop = surroundings.workshop): number => {
    const inputs: PlanInputs = {
      builds: [b, ...surroundings.others.filter((o) => o.id !== id)],
      workshop,
      paces: surroundings.paces,
      now: answer.judging.now,
    };
    return earliestFinish(inputs, id);
  };
  const before = finishWith(own.value);
  for (const way of waysFor(build, own.value)) {
    const edited = applyEdit(build, way.edit);
    const made = edited.ok ? toPlan(edited.value) : null;
    const finish = made?.ok ? finishWith(made.value) : Infinity;
    yield finish < before - 3600 ? { ...way, finish, gains: before - finish } : null;
  }
  if (build.plan.classSet !== null) return;
  const { people } = surroundings.workshop;
  const first = people[0] ?? { id: 'me', name: 'you', hours: usualHours(own.value.hoursPerWeek), away: [], other: [] };
  const hands = people.length > 0 ? people : [first];
  const mine = own.value.plan.people;
  const finish = finishWith(
    { ...own.value, plan: { ...own.value.plan, people: [...(mine.length > 0 ? mine : [first.id]), 'helper-to-try'] } },
    { ...surroundings.workshop, people: [...hands, { ...first, id: 'helper-to-try', name: 'a helper' }] },
  );
  yield finish < before - 3600
    ? {
        id: 'helper',
        label: 'A second pair of hands',
        edit: null,
        finish,
        gains: before - finish,
        note: 'Somebody with the same hours. Name them in the workshop.',
      }
    : null;
}
