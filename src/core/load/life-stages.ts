import { safetyFactor, situations, type SituationId } from '../document';
import type { FrameLoad } from '../armature';
import { gravity, type Vec3 } from '../quantity';

/** A stage of the piece's life in which it must hold: what is on it, how wet, how it is shaken. */
export interface LifeStage {
  readonly id: string;
  readonly name: string;
  readonly bulkOn: boolean;
  /** kg/m3 of clay by region; empty when there is none yet. */
  readonly clayDensity: readonly number[];
  readonly wet: boolean;
  readonly safety: number;
  /** Acceleration cases, m/s2; the worst counts. */
  readonly accelerations: readonly Vec3[];
  /** What pushes in each case beside them: the wind. */
  readonly pushes?: readonly (readonly FrameLoad[])[];
  /** What each case is, in words: "braking". */
  readonly causes: readonly string[];
  /** Which props stand: all while the clay is soft, then those that are meant to stay, none on the road. */
  readonly propped: 'all' | 'lasting' | 'none';
}

const g = gravity;
const still: readonly Vec3[] = [[0, 0, -g]];
const byWeight: readonly string[] = ['its own weight'];
/** EN 12195-1 accelerations on the road: forward 0.8 g, sideways and back 0.5 g; a bump of 2 g. */
const road: readonly Vec3[] = [
  [0, -0.8 * g, -g],
  [0, 0.5 * g, -g],
  [0.5 * g, 0, -g],
  [-0.5 * g, 0, -g],
  [0, 0, -2 * g],
];
const onRoad: readonly string[] = ['braking', 'pulling away', 'a bend to the right', 'a bend to the left', 'a bump'];

export interface LifeStageInputs {
  readonly situation: SituationId;
  readonly hasBulk: boolean;
  /** Coats by region, metres. */
  readonly coats: readonly (readonly number[])[];
  readonly wetDensity: number;
  readonly dryDensity: number;
  readonly dries: boolean;
}

/** Stages in order. A coat goes on over dry ones, so each coat is its own stage. */
export function lifeStages(input: LifeStageInputs): LifeStage[] {
  const bench = safetyFactor('bench');
  const out: LifeStage[] = [
    {
      id: 'bare',
      name: 'bare armature',
      bulkOn: false,
      clayDensity: [],
      wet: false,
      safety: bench,
      accelerations: still,
      causes: byWeight,
      propped: 'none',
    },
  ];
  if (input.hasBulk) {
    out.push({
      id: 'bulk',
      name: 'bulk on',
      bulkOn: true,
      clayDensity: [],
      wet: false,
      safety: bench,
      accelerations: still,
      causes: byWeight,
      propped: 'none',
    });
  }
  const most = Math.max(...input.coats.map((c) => c.length), 1);
  for (let k = 0; k < most; k++) {
    out.push({
      id: `clay-${k + 1}`,
      name: most > 1 ? `coat ${k + 1} on, wet` : 'clay on, wet',
      bulkOn: true,
      wet: true,
      safety: bench,
      accelerations: still,
      causes: byWeight,
      propped: 'all',
      clayDensity: input.coats.map((coats) => coatDensity(coats, k, input)),
    });
  }
  const finished = { bulkOn: true, clayDensity: input.coats.map(() => input.dryDensity), wet: false } as const;
  out.push({
    id: 'dry',
    name: input.dries ? 'dry' : 'finished',
    ...finished,
    safety: bench,
    accelerations: still,
    causes: byWeight,
    propped: 'lasting',
  });
  if (input.situation !== 'bench') {
    out.push({
      id: input.situation,
      name: input.situation === 'moved' ? 'on the road' : 'worn or overhead',
      ...finished,
      safety: safetyFactor(input.situation),
      accelerations: road,
      causes: onRoad,
      propped: 'none',
    });
  }
  return out;
}

/** The finished piece in each of the three situations, whichever it is meant for: what it would come through. */
export function situationStages(input: Pick<LifeStageInputs, 'coats' | 'dryDensity'>): LifeStage[] {
  const finished = {
    bulkOn: true,
    clayDensity: input.coats.map(() => input.dryDensity),
    wet: false,
    propped: 'none',
  } as const;
  return situations.map(({ id, name, safety }) => ({
    id,
    name,
    safety,
    ...finished,
    accelerations: id === 'bench' ? still : road,
    causes: id === 'bench' ? byWeight : onRoad,
  }));
}

/** Mean density over the full thickness just after coat `k`: earlier coats dry, this one wet, later ones not there. */
function coatDensity(coats: readonly number[], k: number, input: LifeStageInputs): number {
  const total = coats.reduce((sum, t) => sum + t, 0);
  let weight = 0;
  coats.forEach((t, i) => {
    if (i < k) weight += t * input.dryDensity;
    else if (i === k) weight += t * input.wetDensity;
  });
  // A region with fewer coats is done and dry by now.
  return weight / total;
}
