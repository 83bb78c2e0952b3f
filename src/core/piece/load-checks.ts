import { LoadCheck, lifeStages, type CheckInputs, type LifeStage, type StageCheck } from '../load';
import { buildHash, partHash } from '../document';
import { success, type Range, type Result } from '../quantity';
import type { Piece } from './piece';
import { dryShareInRoom } from './quick-drying';
import type { ResultCache } from './result-cache';
import { mouldStage } from './under-mould';
import { windStage } from './wind';

/** Stages of its life: under its mould after it is finished, the last outdoors in the gust it must stand. */
export function lifeStagesOf(piece: Piece): LifeStage[] {
  const stages = stagesIndoors(piece);
  const at = stages.findIndex((s) => s.id === 'dry');
  const dry = stages[at];
  if (!dry) return stages;
  const mould = mouldStage(piece, dry);
  const all = mould ? [...stages.slice(0, at + 1), mould, ...stages.slice(at + 1)] : stages;
  return piece.build.brief.outdoors ? [...all, windStage(piece, dry)] : all;
}

function stagesIndoors(piece: Piece): LifeStage[] {
  return lifeStages({
    situation: piece.build.brief.situation,
    hasBulk: !piece.face.solid,
    coats: piece.coats,
    wetDensity: piece.mixed.wetDensity,
    dryDensity: piece.mixed.wetDensity * dryShareInRoom(piece),
    dries: piece.clay.setting === 'dries',
  });
}

/** What is uncertain, as factors; 1 is as reckoned. */
export interface LoadPush {
  readonly clayStrength?: number;
  readonly bulkStrength?: number;
  readonly joins?: number;
  readonly bulkDensity?: number;
  readonly clayThickness?: number;
  /** Where in the range of its strength a metal lies: -1 its low end, 0 as reckoned, 1 its high end. */
  readonly metal?: number;
}

/** How far what is not the catalogue's own lies either way: yield stresses and crushing, joins, what is filled in, what is laid. */
export const strengthEnds = [0.6, 1.5] as const;
export const joinEnds = [0.8, 1.2] as const;
export const bulkDensityEnds = [0.75, 1.25] as const;
export const thicknessEnds = [0.85, 1.15] as const;

export function inputsOf(piece: Piece, props: CheckInputs['props'], push: LoadPush = {}): CheckInputs {
  const { clayStrength = 1, bulkStrength = 1, bulkDensity = 1, joins, metal } = push;
  return {
    armature: piece.armature,
    load: piece.load,
    bulk: bulkStrength === 1 ? piece.bulk : { ...piece.bulk, crushing: piece.bulk.crushing * bulkStrength },
    bulkDensity: piece.face.solid ? 0 : piece.bulk.density * bulkDensity,
    wrapPerArea: piece.wrapPerArea,
    ...(piece.wrap.skin && !piece.face.solid ? { skin: piece.wrap.skin } : {}),
    clay: { ...piece.hold, yieldStress: piece.hold.yieldStress * clayStrength },
    grip: piece.face.grip,
    ...(joins === undefined ? {} : { joins }),
    props,
    stockOf: !metal
      ? piece.stockOf
      : (id) => {
          const s = piece.stockOf(id);
          return s && { ...s, strength: { ...s.strength, nominal: strengthAt(s.strength, metal) } };
        },
  };
}

const strengthAt = ({ low, nominal, high }: Range, at: number): number =>
  nominal * ((at < 0 ? low : high) / nominal) ** Math.abs(at);

/** Every bone's utilisation with all that is uncertain set at once: what the ranges, worked out one by one, are held against. */
export function utilisationAs(piece: Piece, push: LoadPush): Result<ReadonlyMap<string, number>> {
  const check = new LoadCheck(inputsOf(piece, standingProps(piece), push));
  const most = new Map<string, number>();
  for (const stage of lifeStagesOf(piece)) {
    const thick = push.clayThickness ?? 1;
    const found = check.at({ ...stage, clayDensity: stage.clayDensity.map((d) => d * thick) });
    if (!found.ok) return found;
    for (const b of found.value.bones) most.set(b.bone, Math.max(most.get(b.bone) ?? 0, b.utilisation, b.buckling));
  }
  return success(most);
}

function standingProps(piece: Piece): CheckInputs['props'] {
  const known = new Set(piece.armature.nodes.map((n) => n.id));
  return piece.build.armature.props
    .filter((p) => known.has(p.node))
    .map((p) => ({ node: p.node, lasting: p.until === 'always' }));
}

/** The frame of a piece solved through its life: every stage with its props and without. */
export interface SolvedLoad {
  readonly stages: readonly LifeStage[];
  readonly lifeStages: readonly StageCheck[];
  readonly unpropped: readonly StageCheck[];
  /** The checks that solved them: what is pushed to its ends is held against these. */
  readonly standing: CheckInputs['props'];
  readonly propped: LoadCheck;
  readonly bare: LoadCheck;
}

/** Once for a build and what its log knows. Fails as `LoadCheck.at` does. */
export function solvedLoad(piece: Piece, cache: ResultCache): Result<SolvedLoad> {
  const key = `${buildHash(piece.build)}:${partHash(piece.known)}`;
  return cache.keep<Result<SolvedLoad>>('load checks', key, () => {
    const stages = lifeStagesOf(piece);
    const standing = standingProps(piece);
    const propped = new LoadCheck(inputsOf(piece, standing), cache.symbolicFactor);
    const bare = standing.length > 0 ? new LoadCheck(inputsOf(piece, [])) : propped;
    const checks: StageCheck[] = [];
    const unpropped: StageCheck[] = [];
    for (const stage of stages) {
      const found = propped.at(stage);
      if (!found.ok) return found;
      checks.push(found.value);
      const alone = stage.propped === 'none' || bare === propped ? found : bare.at(stage);
      if (!alone.ok) return alone;
      unpropped.push(alone.value);
    }
    cache.symbolicFactor = propped.symbolicFactor;
    return success({ stages, lifeStages: propped.withBowing(checks), unpropped, standing, propped, bare });
  });
}
