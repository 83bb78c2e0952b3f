import { clays, type ClayFamily } from '../catalogue';
import { applyEdit, type Build, type BuildEdit } from '../build';
import {
  clayWentOn,
  effectiveLog,
  happenedOf,
  problemOf,
  readingsOf,
  schedule,
  stepsOf,
  usualHours,
  type BuildToPlan,
  type LogEntry,
  type PlanInputs,
  type ReadEntry,
} from '../plan';
import { success, type Result } from '../quantity';
import type { Evaluator } from './evaluate';
import { jobFacts } from './plan-facts';
import { fitPiece } from './weighing';

/**
 * A build and its log made ready to be planned: steps from the piece as it is, its drying as the scale has corrected it.
 */
const clampFactor = (v: number) => Math.min(10, Math.max(0.1, v));

export function buildToPlan(
  evaluator: Evaluator,
  id: string,
  build: Build,
  log: readonly LogEntry[],
  ranges = true,
): Result<BuildToPlan> {
  const entries = effectiveLog(log);
  const corrected = asWeighed(evaluator, build, entries);
  const report = evaluator.evaluate(corrected, { ranges });
  if (!report.ok) return report;
  const piece = evaluator.piece(corrected);
  if (!piece.ok) return piece;
  return success({
    id,
    name: build.name,
    steps: stepsOf(jobFacts(piece.value, report.value)),
    plan: build.plan,
    hoursPerWeek: build.brief.hoursPerWeek,
    deadline: build.brief.deadline,
    happened: happenedOf(entries),
  });
}

/** The build with what its weighings say of this clay in this room; itself where nothing was weighed. */
export function asWeighed(evaluator: Evaluator, build: Build, entries: readonly ReadEntry[]): Build {
  const readings = readingsOf(entries, clayWentOn(build, entries));
  if (readings.length < 2) return build;
  const piece = evaluator.piece(build);
  if (!piece.ok) return build;
  const tare =
    entries
      .filter((e) => e.kind === 'weigh-in' && !e.struck)
      .map((e) => Number(e.data['tare']))
      .pop() ?? 0;
  const fit = fitPiece(piece.value, readings, tare, 0.005)?.fit;
  if (!fit) return build;
  const before = piece.value.learned;
  return {
    ...build,
    room: {
      ...build.room,
      learned: {
        name: 'as weighed',
        clay: build.brief.clay,
        evaporation: clampFactor(fit.factors.evaporation * (before?.evaporation ?? 1)),
        diffusion: clampFactor(fit.factors.diffusion * (before?.diffusion ?? 1)),
        spread: { evaporation: Math.min(2, fit.spread.evaporation), diffusion: Math.min(2, fit.spread.diffusion) },
      },
    },
  };
}

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
  return !b.happened.some((h) => h.step.startsWith('lay/'));
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
  const details = own.steps.filter((s) => s.kind === 'detail' && !own.happened.some((h) => h.step === s.id));
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

const tries = 3;

/** Each way worked out whole, one at a time; the quickest is not known before the last. */
export function* waysToBeSooner(
  evaluator: Evaluator,
  inputs: PlanInputs,
  id: string,
  build: Build,
  log: readonly LogEntry[],
): Generator<Sooner | null> {
  const own = inputs.builds.find((b) => b.id === id);
  if (!own) return;
  const finishWith = (b: BuildToPlan, people = inputs.workshop): number => {
    const made = schedule(
      problemOf({ ...inputs, workshop: people, builds: inputs.builds.map((x) => (x.id === id ? b : x)) }).problem,
      tries,
    );
    return made
      ? made.placed.reduce((m, p) => (p.id.startsWith(`${id}:`) ? Math.max(m, p.until) : m), -Infinity)
      : Infinity;
  };
  const now = finishWith(own);
  for (const way of waysFor(build, own)) {
    const edited = applyEdit(build, way.edit);
    const made = edited.ok ? buildToPlan(evaluator, id, edited.value, log, false) : null;
    const finish = made?.ok ? finishWith(made.value) : Infinity;
    yield finish < now - 3600 ? { ...way, finish, gains: now - finish } : null;
  }
  const first = inputs.workshop.people[0] ?? {
    id: 'me',
    name: 'you',
    hours: usualHours(own.hoursPerWeek),
    away: [],
    other: [],
  };
  if (build.plan.classSet === null) {
    const known = inputs.workshop.people.length > 0 ? inputs.workshop.people : [first];
    const finish = finishWith(
      {
        ...own,
        plan: {
          ...own.plan,
          people: [...(own.plan.people.length > 0 ? own.plan.people : [first.id]), 'helper-to-try'],
        },
      },
      { ...inputs.workshop, people: [...known, { ...first, id: 'helper-to-try', name: 'a helper' }] },
    );
    yield finish < now - 3600
      ? {
          id: 'helper',
          label: 'A second pair of hands',
          edit: null,
          finish,
          gains: now - finish,
          note: 'Somebody with the same hours. Name them in the workshop.',
        }
      : null;
  }
}
