import {
  capacityAt,
  compositeSection,
  factorFrame,
  freedoms,
  joinSpring,
  setShare,
  type Armature,
  type Bone,
  type CompositeSection,
  type FactoredFrame,
  type FrameLoad,
  type FrameMember,
  type SymbolicFactor,
  type FrameSolution,
  type Freedom,
  type MetalPart,
  type SectionForces,
} from '../armature';
import { joinEfficiency, type BulkKind, type Stock, type Wrap } from '../catalogue';
import { cross, distance, failure, success, type Result, type Vec3 } from '../quantity';
import { bowingOf, pushedAt, slenderFrom, slenderness, type Pushed } from './buckling-check';
import { amountIndex, stationAt, stationsPerBone, type LumpedLoad } from './lumping';
import type { LifeStage } from './life-stages';

/**
 * Whether the armature holds at one stage of its life. The frame is solved on the bones with everything that runs along them;
 * utilisation = safety x (|N|/N_p + M_eq/M_p), M_eq = sqrt(M^2 + 0.75 T^2). Dried clay is never relied on: the sleeve
 * counts with the strength it has when fresh. Left out: large displacement, fatigue of re-bent wire.
 */
/** An end that moves by more than this of its way from the base has lost its pose; watched from half of it. Ours. */
export const sagLimit = 0.02;
export const sagWatched = sagLimit / 2;

export interface BoneCheck {
  readonly bone: string;
  readonly utilisation: number;
  /** Nm, without the safety factor. */
  readonly demand: number;
  readonly capacity: number;
  readonly metalShare: number;
  readonly bulkShare: number;
  readonly clayShare: number;
  readonly axial: number;
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
  /** Push over the push at which the frame bows out, safety factor included. */
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

export interface CheckInputs {
  readonly armature: Armature;
  readonly load: LumpedLoad;
  readonly bulk: BulkKind;
  readonly bulkDensity: number;
  /** kg to a m2 of what is wrapped, and the hard skin it makes, if it does. */
  readonly wrapPerArea: number;
  readonly skin?: Wrap['skin'];
  readonly clayYield: number;
  readonly grip: number;
  readonly stockOf: (id: string) => Stock | undefined;
  /** Joints that a prop stands under, and whether it stays once the clay is dry. */
  readonly props: readonly { readonly node: string; readonly lasting: boolean }[];
  /** False leaves out whether the frame bows: for spreads of strength, which do not change that. */
  readonly bowing?: boolean;
}

const heldUp: readonly Freedom[] = ['uz'];
const floor = { EA: 100, EI: 1e-3, GJ: 1e-3 };
const steepest = 99;

/** Metal and timber along each bone. */
function metalByBone(armature: Armature, stockOf: CheckInputs['stockOf']): Map<string, MetalPart[]> {
  const byBone = new Map<string, MetalPart[]>(armature.bones.map((b) => [b.id, []]));
  for (const member of armature.members) {
    const stock = stockOf(member.stock);
    const size = stock?.sizes.find((s) => s.id === member.size);
    if (!stock || !size) continue;
    for (const id of new Set(member.bones)) {
      byBone.get(id)?.push({
        section: size.section,
        youngs: stock.youngs,
        strength: stock.strength.nominal * stock.allowed,
        brittle: stock.brittle,
        strands: member.strands * member.bones.filter((b) => b === id).length,
        bonded: member.bonded,
      });
    }
  }
  return byBone;
}

/** What the sections of a stage are made of: stages alike in this share one factorisation. */
interface Built {
  readonly sections: readonly CompositeSection[];
  readonly frame: FactoredFrame;
}

/** kg/m3 (or 1 for metal, already kg) of each component at a stage. */
function densities(load: LumpedLoad, stage: LifeStage, bulkDensity: number, wrapPerArea: number): Float64Array {
  const out = new Float64Array(load.components);
  stage.clayDensity.forEach((d, r) => {
    out[r] = d;
  });
  out[load.components - 3] = stage.bulkOn ? bulkDensity : 0;
  out[load.components - 2] = stage.bulkOn ? wrapPerArea : 0;
  out[load.components - 1] = 1;
  return out;
}

interface StationMass {
  readonly bone: number;
  readonly station: number;
  readonly mass: number;
  readonly first: Vec3;
}

function stationMasses(load: LumpedLoad, density: Float64Array): StationMass[] {
  const out: StationMass[] = [];
  for (let b = 0; b < load.bones.length; b++) {
    for (let s = 0; s < stationsPerBone; s++) {
      let mass = 0,
        x = 0,
        y = 0,
        z = 0;
      for (let c = 0; c < load.components; c++) {
        const i = amountIndex(load, b, s, c);
        const d = density[c]!;
        mass += d * load.amounts[i]!;
        x += d * load.amounts[i + 1]!;
        y += d * load.amounts[i + 2]!;
        z += d * load.amounts[i + 3]!;
      }
      if (mass > 0) out.push({ bone: b, station: s, mass, first: [x, y, z] });
    }
  }
  return out;
}

/** What hangs on the frame at a stage, with its centre of gravity: for standing and for tests of conservation. */
export function lumpedCentre(
  load: LumpedLoad,
  stage: LifeStage,
  bulkDensity: number,
  wrapPerArea = 0,
): { mass: number; at: Vec3 } {
  let mass = 0,
    x = 0,
    y = 0,
    z = 0;
  for (const s of stationMasses(load, densities(load, stage, bulkDensity, wrapPerArea))) {
    const at = stationAt(load.ends[s.bone]!, s.station);
    mass += s.mass;
    x += s.mass * at[0] + s.first[0];
    y += s.mass * at[1] + s.first[1];
    z += s.mass * at[2] + s.first[2];
  }
  return { mass, at: mass > 0 ? [x / mass, y / mass, z / mass] : [0, 0, 0] };
}

function loadsOf(input: CheckInputs, masses: readonly StationMass[], a: Vec3): FrameLoad[] {
  return masses.map((s) => ({
    member: input.armature.bones[s.bone]!.id,
    at: (s.station + 0.5) / stationsPerBone,
    force: [s.mass * a[0], s.mass * a[1], s.mass * a[2]],
    moment: cross(s.first, a),
  }));
}

/** Checks stages of one armature under one set of props. Keeps what they have in common. */
export class LoadCheck {
  private readonly metal: Map<string, MetalPart[]>;
  private readonly outward: ReadonlyMap<string, number>;
  private readonly joined: ReadonlySet<string>;
  private readonly built = new Map<string, Built>();
  /** By stage, the case that presses its slenderest parts hardest. */
  private readonly pushed = new Map<string, Pushed>();

  /**
   * `plan` may come from another check of the same joints; `alike` is a check that differs in strength only, whose
   * factored frames serve this one too: strength does not change stiffness.
   */
  constructor(
    private readonly input: CheckInputs,
    private plan?: SymbolicFactor,
    private readonly alike?: LoadCheck,
  ) {
    this.metal = metalByBone(input.armature, input.stockOf);
    this.outward = pathFromHeld(input.armature);
    this.joined = new Set(input.armature.bones.flatMap((b) => [b.from, b.to]));
  }

  get symbolicFactor(): SymbolicFactor | undefined {
    return this.plan;
  }

  private sectionsAt(stage: LifeStage): CompositeSection[] {
    const { armature, load, bulk, clayYield: yieldStress, grip, skin } = this.input;
    const hard = (i: number): MetalPart[] => {
      const across = load.coreDiameter[i]!;
      if (!skin || !stage.bulkOn || across < 4 * skin.thickness) return [];
      return [
        {
          section: { shape: 'tube', diameter: across, wall: skin.thickness },
          youngs: skin.youngs,
          strength: skin.strength,
          brittle: true,
          strands: 1,
          bonded: false,
        },
      ];
    };
    return armature.bones.map((bone, i) =>
      compositeSection({
        metal: [...(this.metal.get(bone.id) ?? []), ...hard(i)],
        bulk:
          stage.bulkOn && bulk.crushing > 0
            ? { diameter: load.coreDiameter[i]!, stiffness: bulk.stiffness, crushing: bulk.crushing }
            : null,
        clay:
          stage.clayDensity.length > 0
            ? { outer: load.outerDiameter[i]!, core: load.coreDiameter[i]!, yieldStress, grip }
            : null,
      }),
    );
  }

  private build(stage: LifeStage, props: ReadonlySet<string>, slack: ReadonlySet<string>): Result<Built> {
    const key = `${stage.bulkOn} ${stage.clayDensity.length > 0} ${[...props].join()} ${[...slack].join()}`;
    const kept = this.built.get(key);
    if (kept) return success(kept);
    const { armature, load } = this.input;
    const sections = this.sectionsAt(stage);
    if (this.alike) {
      const stiff = this.alike.build(stage, props, slack);
      if (!stiff.ok) return stiff;
      const built = { sections, frame: stiff.value.frame };
      this.built.set(key, built);
      return success(built);
    }
    const perLength = sections.map((s, i) => (s.EI + floor.EI) / distance(...load.ends[i]!));
    const weakest = new Map<string, number>();
    armature.bones.forEach((b, i) => {
      for (const n of [b.from, b.to]) weakest.set(n, Math.min(weakest.get(n) ?? Infinity, perLength[i]!));
    });
    const frame = factorFrame(
      {
        nodes: armature.nodes
          .filter((n) => this.joined.has(n.id))
          .map((n) => ({ id: n.id, at: n.at, fixed: n.held ? freedoms : props.has(n.id) ? heldUp : undefined })),
        members: armature.bones.map((b, i) => {
          const s = sections[i]!;
          if (b.tie) return tieBeam(b, slack.has(b.id) ? 0 : s.EA, s.EI);
          const EI = s.EI + floor.EI;
          // Unit moduli: the composite's EA, EI and GJ stand for areas and inertias.
          return {
            id: b.id,
            from: b.from,
            to: b.to,
            E: 1,
            G: 1,
            A: s.EA + floor.EA,
            Iy: EI,
            Iz: EI,
            J: s.GJ + floor.GJ,
            springFrom: joinSpring(joinEfficiency(b.joinFrom), weakest.get(b.from)!),
            springTo: joinSpring(joinEfficiency(b.joinTo), weakest.get(b.to)!),
          };
        }),
      },
      this.plan,
    );
    if (!frame.ok) return frame;
    this.plan = frame.value.plan;
    const built = { sections, frame: frame.value };
    this.built.set(key, built);
    return success(built);
  }

  /**
   * Looks whether the frame bows out, at the one of these stages that presses its slenderest parts hardest; there its
   * bones get their push over the push at which it does.
   */
  withBowing(checks: readonly StageCheck[]): StageCheck[] {
    const most = checks.reduce<{ at: number; ratio: number }>(
      (w, c, i) => {
        const ratio = this.pushed.get(c.stage)?.ratio ?? 0;
        return ratio > w.ratio ? { at: i, ratio } : w;
      },
      { at: -1, ratio: 0 },
    );
    const pushed = this.pushed.get(checks[most.at]?.stage ?? '');
    const bowing = pushed && bowingOf(pushed, this.input.armature.bones);
    if (!bowing) return [...checks];
    return checks.map((c, i) =>
      i !== most.at ? c : { ...c, bones: c.bones.map((b, k) => ({ ...b, buckling: Math.min(steepest, bowing[k]!) })) },
    );
  }

  /** Solves one stage. Props only push: one that would pull is let go and the frame solved again. */
  at(stage: LifeStage): Result<StageCheck> {
    const { input } = this;
    for (const node of input.armature.nodes) {
      if (!node.at.every(Number.isFinite))
        return failure('not-finite', `nodes.${node.id}`, `joint "${node.id}" has no place`);
    }
    const masses = stationMasses(input.load, densities(input.load, stage, input.bulkDensity, input.wrapPerArea));
    const standing = new Set(
      input.props
        .filter((p) => stage.propped === 'all' || (stage.propped === 'lasting' && p.lasting))
        .map((p) => p.node),
    );
    for (;;) {
      let worst: StageCheck | null = null;
      let pulled: string | undefined;
      let slender = { ratio: slenderFrom, pushed: null as Pick<Pushed, 'solution' | 'frame'> | null };
      for (const [i, a] of stage.accelerations.entries()) {
        const solved = this.solveCase(stage, standing, masses, a);
        if (!solved.ok) return solved;
        const { built, solution } = solved.value;
        const pushes = propPushes(built.frame, solution, standing);
        pulled ??= Object.entries(pushes).find(([, push]) => push < -1e-9)?.[0];
        const check = readCase(input, stage, built, masses, solution, pushes, this.outward, stage.causes[i] ?? '');
        const ratio =
          input.bowing === false ? 0 : slenderness(built.frame, input.armature.bones, solution, this.outward);
        if (ratio > slender.ratio) slender = { ratio, pushed: { solution, frame: built.frame } };
        worst = worst === null ? check : worseOf(worst, check);
      }
      if (pulled !== undefined) standing.delete(pulled);
      else if (!worst) return failure('no-case', 'stage', 'nothing to check');
      else {
        if (slender.pushed)
          this.pushed.set(stage.id, {
            ratio: slender.ratio * stage.safety,
            safety: stage.safety,
            ...slender.pushed,
          });
        return success(worst);
      }
    }
  }

  /** One way of being shaken. Ties only pull: one that would be pushed is slack in this case, and it is solved again. */
  private solveCase(
    stage: LifeStage,
    standing: ReadonlySet<string>,
    masses: readonly StationMass[],
    a: Vec3,
  ): Result<{ built: Built; solution: FrameSolution }> {
    const { armature } = this.input;
    const slack = new Set<string>();
    for (;;) {
      const built = this.build(stage, standing, slack);
      if (!built.ok) return built;
      const solved = built.value.frame.solve(loadsOf(this.input, masses, a));
      if (!solved.ok) return solved;
      const pushed = armature.bones.find(
        (b, i) => b.tie && !slack.has(b.id) && pushedAt(solved.value.forces[i] ?? []) > 1e-6,
      );
      if (!pushed) return success({ built: built.value, solution: solved.value });
      slack.add(pushed.id);
    }
  }
}

/** Hinged at both ends; loose, it is there only so that the numbering stays. */
function tieBeam(b: Bone, EA: number, EI: number): FrameMember {
  const bend = Math.max(EI, floor.EI);
  return {
    id: b.id,
    from: b.from,
    to: b.to,
    E: 1,
    G: 1,
    A: EA > 0 ? EA : floor.EA * 1e-6,
    Iy: bend,
    Iz: bend,
    J: floor.GJ * 1e-3,
    springFrom: 0,
    springTo: 0,
  };
}

function propPushes(frame: FactoredFrame, solution: FrameSolution, props: ReadonlySet<string>): Record<string, number> {
  const out: Record<string, number> = {};
  frame.model.nodes.forEach((n, i) => {
    if (props.has(n.id)) out[n.id] = solution.reactions[i * 6 + 2]!;
  });
  return out;
}

function worseOf(a: StageCheck, b: StageCheck): StageCheck {
  const most = (m: StageCheck) => m.bones.reduce((u, x) => Math.max(u, x.utilisation), 0);
  const keep = most(b) > most(a) ? b : a;
  return {
    ...keep,
    bones: a.bones.map((x, i) => (b.bones[i]!.utilisation > x.utilisation ? b.bones[i]! : x)),
    footMoment: Math.max(a.footMoment, b.footMoment),
    footForce: Math.max(a.footForce, b.footForce),
  };
}

function readCase(
  input: CheckInputs,
  stage: LifeStage,
  { sections, frame }: Built,
  masses: readonly StationMass[],
  solution: FrameSolution,
  props: Record<string, number>,
  outward: ReadonlyMap<string, number>,
  cause: string,
): StageCheck {
  const { armature, load } = input;
  const moves: Record<string, Vec3> = {};
  let footMoment = 0,
    footForce = 0;
  frame.model.nodes.forEach((n, i) => {
    const d = i * 6;
    moves[n.id] = [solution.displacements[d]!, solution.displacements[d + 1]!, solution.displacements[d + 2]!];
    if (n.fixed !== freedoms) return;
    const r = solution.reactions;
    footMoment = Math.max(footMoment, Math.hypot(r[d + 3]!, r[d + 4]!));
    footForce += r[d + 2]!;
  });
  const carries = new Float64Array(armature.bones.length);
  for (const m of masses) carries[m.bone]! += m.mass;
  const bones = armature.bones.map((bone, i) =>
    checkBone(
      bone,
      sections[i]!,
      solution.forces[i] ?? [],
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
  stations: readonly SectionForces[],
  stage: LifeStage,
  length: number,
  diameter: number,
  carries: number,
  moves: Readonly<Record<string, Vec3>>,
  outward: ReadonlyMap<string, number>,
  cause: string,
): BoneCheck {
  const efficiencies = { from: joinEfficiency(bone.joinFrom), to: joinEfficiency(bone.joinTo) };
  let utilisation = 0,
    demand = 0,
    capacity = Infinity,
    over = 0,
    curvature = 0,
    efficiency = 1,
    axial = 0;
  for (const s of stations) {
    axial = Math.max(axial, Math.abs(s.axial));
    const e = s.at <= 1e-9 ? efficiencies.from : s.at >= length - 1e-9 ? efficiencies.to : 1;
    const limit = capacityAt(section, e);
    const m = bone.tie ? 0 : Math.sqrt(s.momentY ** 2 + s.momentZ ** 2 + 0.75 * s.torsion ** 2);
    const share = ratio(Math.abs(s.axial), limit.axial) + ratio(m, limit.moment);
    curvature = Math.max(curvature, Math.sqrt(s.momentY * s.momentY + s.momentZ * s.momentZ) / (section.EI + floor.EI));
    if (share >= utilisation) {
      utilisation = share;
      demand = m;
      capacity = limit.moment;
      over = ratio(m, limit.moment);
      efficiency = e;
    }
  }
  const to = moves[bone.to] ?? [0, 0, 0];
  const sag = Math.hypot(to[0], to[1], to[2]);
  return {
    bone: bone.id,
    utilisation: Math.min(steepest, utilisation * stage.safety),
    demand,
    capacity: Number.isFinite(capacity) ? capacity : 0,
    metalShare: Number.isFinite(section.brittleMoment)
      ? Math.max(section.brittleMoment, section.metalMoment) * efficiency
      : section.metalMoment * efficiency,
    bulkShare: section.bulkMoment,
    clayShare: section.clayMoment,
    axial,
    carries,
    sag,
    sagShare: sag / Math.max(outward.get(bone.to) ?? length, 1e-6),
    skinStrain: stage.clayDensity.length > 0 ? curvature * (diameter / 2) : 0,
    set: section.metalMoment > 0 ? Math.min(steepest, setShare(over)) : 0,
    buckling: 0,
    cause,
  };
}

function ratio(demand: number, limit: number): number {
  if (demand < 1e-9) return 0;
  return limit > 0 ? Math.min(steepest, demand / limit) : steepest;
}

/** Length along the bones from whatever is held to each node: what sag is measured against. Shortest way, by relaxation. */
function pathFromHeld(armature: Armature): Map<string, number> {
  const place = new Map(armature.nodes.map((n) => [n.id, n.at]));
  const ways = new Map<string, { to: string; length: number }[]>();
  for (const b of armature.bones) {
    const length = distance(place.get(b.from)!, place.get(b.to)!);
    for (const [near, to] of [
      [b.from, b.to],
      [b.to, b.from],
    ] as const)
      ways.set(near, [...(ways.get(near) ?? []), { to, length }]);
  }
  const reached = new Map<string, number>();
  const queue = armature.nodes.filter((n) => n.held).map((n) => ({ id: n.id, way: 0 }));
  for (let next = queue.shift(); next; next = queue.shift()) {
    if ((reached.get(next.id) ?? Infinity) <= next.way) continue;
    reached.set(next.id, next.way);
    for (const { to, length } of ways.get(next.id) ?? []) queue.push({ id: to, way: next.way + length });
  }
  return reached;
}
