import {
  capacityAt,
  capacityParts,
  freedoms,
  setShare,
  type Armature,
  type Bone,
  type CompositeSection,
  type FactoredFrame,
  type FrameSolution,
  type SectionForces,
} from '../armature';
import { joinEfficiency, type JoinKindId } from '../catalogue';
import { distance, type Vec3 } from '../quantity';
import type { LifeStage } from './life-stages';
import type { LumpedLoad } from './lumping';

/** What each bone is asked for and can bear, read from a solved frame. */

/** An end that moves by more than this of its way from the base has lost its pose; watched from half of it. Ours. */
export const sagLimit = 0.02;
export const sagWatched = sagLimit / 2;

export interface BoneCheck {
  readonly bone: string;
  readonly utilisation: number;
  /** Nm under the load times its safety, over that safety. */
  readonly demand: number;
  readonly capacity: number;
  readonly metalShare: number;
  readonly bulkShare: number;
  readonly clayShare: number;
  readonly axial: number;
  /** Of the utilisation, what the push or pull along it asks. */
  readonly pushShare: number;
  /** kg it hangs, itself included. */
  readonly carries: number;
  /** How far its outer joint moves, metres. */
  readonly sag: number;
  /** Sag as a share of its distance from what holds it: judged against `sagLimit`. */
  readonly sagShare: number;
  /** Strain of the clay's skin from bending. */
  readonly skinStrain: number;
  /** Share of the bend that stays when the load is taken off. */
  readonly set: number;
  /** Safety over the factor at which the frame folds, of bones that bow as it does; 0 for others and far from it. */
  readonly buckling: number;
  /** What does it: its own weight, braking. */
  readonly cause: string;
}

export interface StageCheck {
  readonly stage: string;
  readonly name: string;
  readonly bones: readonly BoneCheck[];
  /** Displacement of each node in the worst case, metres. */
  readonly moves: Readonly<Record<string, Vec3>>;
  /** Largest overturning moment at the foot, Nm, and the downward force there, N. */
  readonly footMoment: number;
  readonly footForce: number;
  /** Push of each prop, N. */
  readonly props: Readonly<Record<string, number>>;
}

export interface StationMass {
  readonly bone: number;
  readonly station: number;
  readonly mass: number;
  readonly first: Vec3;
}

/** What a case does to the frame that moves under it. */
export interface Moved {
  /** Under the load times safety, over safety. */
  readonly forces: FrameSolution['forces'];
  readonly reactions: Float64Array;
  readonly over: number;
  /** Under the load alone; metres and radians. */
  readonly alone: FrameSolution['forces'];
  readonly displacements: Float64Array;
  /** Where the load times safety folds it: by bone, safety over the factor that does. */
  readonly folds: readonly number[] | null;
}

/** N, Nm2: what keeps a frame of nothing from being a mechanism. */
export const floor = { EA: 100, EI: 1e-3, GJ: 1e-3 };
/** A set that is no share any more: it folds. */
const keepsAll = 99;
/** What is asked of something that resists with nothing at all: no figure says by how much. */
const nothingResists = 1000;

export function worseOf(a: StageCheck, b: StageCheck): StageCheck {
  const most = (m: StageCheck) => m.bones.reduce((u, x) => Math.max(u, x.utilisation), 0);
  const keep = most(b) > most(a) ? b : a;
  return {
    ...keep,
    bones: a.bones.map((x, i) => (b.bones[i]!.utilisation > x.utilisation ? b.bones[i]! : x)),
    footMoment: Math.max(a.footMoment, b.footMoment),
    footForce: Math.max(a.footForce, b.footForce),
  };
}

export function readCase(
  { armature, load, joins = 1 }: { readonly armature: Armature; readonly load: LumpedLoad; readonly joins?: number },
  stage: LifeStage,
  sections: readonly CompositeSection[],
  frame: FactoredFrame,
  masses: readonly StationMass[],
  moved: Moved,
  props: Record<string, number>,
  outward: ReadonlyMap<string, number>,
  cause: string,
): StageCheck {
  const moves: Record<string, Vec3> = {};
  let footMoment = 0,
    footForce = 0;
  frame.model.nodes.forEach((n, i) => {
    const d = i * 6;
    moves[n.id] = [moved.displacements[d]!, moved.displacements[d + 1]!, moved.displacements[d + 2]!];
    if (n.fixed !== freedoms) return;
    const r = moved.reactions;
    footMoment = Math.max(footMoment, Math.hypot(r[d + 3]!, r[d + 4]!) / moved.over);
    footForce += r[d + 2]! / moved.over;
  });
  const carries = new Float64Array(armature.bones.length);
  for (const m of masses) carries[m.bone]! += m.mass;
  const bones = armature.bones.map((bone, i) =>
    checkBone(
      bone,
      sections[i]!,
      moved,
      i,
      joins,
      stage,
      distance(...load.ends[i]!),
      load.outerDiameter[i]!,
      carries[i]!,
      moves,
      outward,
      cause,
    ),
  );
  return { stage: stage.id, name: stage.name, bones, moves, footMoment, footForce, props };
}

function checkBone(
  bone: Bone,
  section: CompositeSection,
  { forces, over: times, alone, folds }: Moved,
  index: number,
  joins: number,
  stage: LifeStage,
  length: number,
  diameter: number,
  carries: number,
  moves: Readonly<Record<string, Vec3>>,
  outward: ReadonlyMap<string, number>,
  cause: string,
): BoneCheck {
  const joinAt = (at: number) => (at <= 1e-9 ? bone.joinFrom : at >= length - 1e-9 ? bone.joinTo : null);
  const through = (join: JoinKindId) => {
    const e = joinEfficiency(join);
    return e < 1 ? Math.min(1, e * joins) : 1;
  };
  const between = capacityAt(section, 1);
  const limits = {
    from: capacityAt(section, through(bone.joinFrom), bone.joinFrom === 'threaded'),
    to: capacityAt(section, through(bone.joinTo), bone.joinTo === 'threaded'),
  };
  const limitAt = (at: number) => (at <= 1e-9 ? limits.from : at >= length - 1e-9 ? limits.to : between);
  let utilisation = 0,
    demand = 0,
    capacity = Infinity,
    weakestAt: JoinKindId | null = null,
    axial = 0,
    pushShare = 0;
  for (const s of forces[index] ?? []) {
    const push = Math.abs(s.axial) / times;
    axial = Math.max(axial, push);
    const limit = limitAt(s.at);
    const m = bone.tie ? 0 : bendOf(s) / times;
    const share = ratio(push, limit.axial) + ratio(m, limit.moment);
    if (share >= utilisation) {
      utilisation = share;
      demand = m;
      capacity = limit.moment;
      weakestAt = joinAt(s.at);
      pushShare = ratio(push, limit.axial);
    }
  }
  // What stays bent, and what the skin of clay is strained by, come of the load alone.
  let over = 0,
    curvature = 0;
  for (const s of alone[index] ?? []) {
    if (!bone.tie) over = Math.max(over, ratio(bendOf(s), limitAt(s.at).moment));
    curvature = Math.max(curvature, Math.hypot(s.momentY, s.momentZ) / (section.EI + floor.EI));
  }
  const parts = weakestAt
    ? capacityParts(section, through(weakestAt), weakestAt === 'threaded')
    : capacityParts(section, 1);
  const to = moves[bone.to] ?? [0, 0, 0];
  const sag = Math.hypot(to[0], to[1], to[2]);
  return {
    bone: bone.id,
    utilisation: Math.min(nothingResists, utilisation * stage.safety),
    demand,
    capacity: Number.isFinite(capacity) ? capacity : 0,
    metalShare: parts.metal,
    bulkShare: parts.bulk,
    clayShare: parts.clay,
    axial,
    pushShare: pushShare * stage.safety,
    carries,
    sag,
    sagShare: sag / Math.max(outward.get(bone.to) ?? length, 1e-6),
    skinStrain: stage.clayDensity.length > 0 ? curvature * (diameter / 2) : 0,
    set: section.metalMoment > 0 ? Math.min(keepsAll, setShare(over)) : 0,
    buckling: folds?.[index] ?? 0,
    cause,
  };
}

/** Nm that bend and twist a section together. */
function bendOf(s: SectionForces): number {
  return Math.sqrt(s.momentY ** 2 + s.momentZ ** 2 + 0.75 * s.torsion ** 2);
}

function ratio(demand: number, limit: number): number {
  if (demand < 1e-9) return 0;
  return limit > 0 ? Math.min(nothingResists, demand / limit) : nothingResists;
}
