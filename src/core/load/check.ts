import {
  between,
  compositeSection,
  factorFrame,
  freedoms,
  joinSpring,
  MovedFrame,
  type AppliedLoads,
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
} from '../armature';
import { joinEfficiency, type BulkKind, type Stock, type Wrap } from '../catalogue';
import type { ClayHold } from '../clay';
import { cross, distance, failure, success, type Result, type Vec3 } from '../quantity';
import { floor, readCase, worseOf, type Moved, type StageCheck, type StationMass } from './bone-check';
import { bowingOf, foldingOf, movesFrom, pushedAt, slenderFrom, slenderness, type Pushed } from './buckling-check';
import { amountIndex, stationAt, stationShare, stationsPerBone, type LumpedLoad } from './lumping';
import type { LifeStage } from './life-stages';

/**
 * Whether the armature holds at one stage of its life. The frame is solved on the bones with everything that runs along
 * them, as it stands once it has moved: under the load times its safety for utilisation, |N|/N_p + M_eq/M_p with
 * M_eq = sqrt(M^2 + 0.75 T^2), and under the load alone for sag. Where the load times safety reaches what the frame folds
 * under, utilisation is safety over the factor at which it does. Dried clay is never relied on: the sleeve counts with the
 * strength it has when fresh. Left out: large turns, fatigue of re-bent wire.
 */
export interface CheckInputs {
  readonly armature: Armature;
  readonly load: LumpedLoad;
  readonly bulk: BulkKind;
  readonly bulkDensity: number;
  /** kg to a m2 of what is wrapped, and the hard skin it makes, if it does. */
  readonly wrapPerArea: number;
  readonly skin?: Wrap['skin'];
  readonly clay: ClayHold;
  readonly grip: number;
  readonly stockOf: (id: string) => Stock | undefined;
  /** Times what every join lets through that is not one piece; 1 where nothing is said. */
  readonly joins?: number;
  /** Joints that a prop stands under, and whether it stays once the clay is dry. */
  readonly props: readonly { readonly node: string; readonly lasting: boolean }[];
  /** False leaves out whether the frame bows: for spreads of strength, which do not change that. */
  readonly bowing?: boolean;
  /** Solved as though nothing moved: for how an answer moves with its loads, not for the answer. */
  readonly still?: boolean;
}

const heldUp: readonly Freedom[] = ['uz'];
/** A frame that folds under its load falls until something stops it: how far it has moved at this share of that load is told. */
const nearFolding = 0.95;

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
  /** The same with its pushed bones cut, by how finely. */
  readonly cuts: Map<string, FactoredFrame>;
}

/** One way of being shaken, solved. */
interface SolvedCase {
  readonly built: Built;
  /** As though nothing moved: which ties pull and which props push is told from it. */
  readonly still: FrameSolution;
  readonly loads: readonly FrameLoad[];
  readonly applied: AppliedLoads;
  readonly standing: ReadonlySet<string>;
  readonly cause: string;
  readonly slender: number;
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
    at: stationShare(s.station),
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
  private readonly solved = new Map<
    string,
    { readonly cases: readonly SolvedCase[]; readonly moved: readonly Moved[] }
  >();
  private lastMasses: { readonly stage: LifeStage; readonly masses: readonly StationMass[] } | null = null;
  /** By stage, the case that presses its slenderest parts hardest. */
  private readonly pushed = new Map<string, Pushed>();

  /**
   * `plan` may come from another check of the same joints; `alike` is a check of the same stiffness, whose factored frames
   * serve this one too, and how they move where the loads are the same as well: strength changes neither.
   */
  constructor(
    private readonly input: CheckInputs,
    private plan?: SymbolicFactor,
    private readonly alike?: { readonly check: LoadCheck; readonly loads: boolean },
  ) {
    this.metal = metalByBone(input.armature, input.stockOf);
    this.outward = pathFromHeld(input.armature);
    this.joined = new Set(input.armature.bones.flatMap((b) => [b.from, b.to]));
  }

  get symbolicFactor(): SymbolicFactor | undefined {
    return this.plan;
  }

  private sectionsAt(stage: LifeStage): CompositeSection[] {
    const { armature, load, bulk, clay, grip, skin } = this.input;
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
            ? { outer: load.outerDiameter[i]!, core: load.coreDiameter[i]!, ...clay, grip }
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
      const stiff = this.alike.check.build(stage, props, slack);
      if (!stiff.ok) return stiff;
      const built = { sections, frame: stiff.value.frame, cuts: stiff.value.cuts };
      this.built.set(key, built);
      return success(built);
    }
    const perLength = sections.map((s, i) => (s.EI + floor.EI) / load.stretchLength[i]!);
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
    const built = { sections, frame: frame.value, cuts: new Map<string, FactoredFrame>() };
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
    const bowing = pushed && bowingOf(pushed);
    if (!bowing) return [...checks];
    return checks.map((c, i) =>
      i !== most.at
        ? c
        : { ...c, bones: c.bones.map((b, k) => ({ ...b, buckling: Math.max(b.buckling, bowing[k]!) })) },
    );
  }

  /** One stage, its worst case. */
  at(stage: LifeStage): Result<StageCheck> {
    const solved = this.solve(stage);
    if (!solved.ok) return solved;
    const { input } = this;
    const masses = this.massesAt(stage);
    const worst = solved.value.cases.reduce<StageCheck | null>((w, c, i) => {
      const moved = solved.value.moved[i]!;
      const props = propPushes(c.built.frame, moved, c.standing);
      const sections = this.alike ? this.sectionsAt(stage) : c.built.sections;
      const check = readCase(input, stage, sections, c.built.frame, masses, moved, props, this.outward, c.cause);
      return w === null ? check : worseOf(w, check);
    }, null);
    return worst ? success(worst) : failure('no-case', 'stage', 'nothing to check');
  }

  private massesAt(stage: LifeStage): readonly StationMass[] {
    if (this.lastMasses?.stage === stage) return this.lastMasses.masses;
    const { load, bulkDensity, wrapPerArea } = this.input;
    const masses = stationMasses(load, densities(load, stage, bulkDensity, wrapPerArea));
    this.lastMasses = { stage, masses };
    return masses;
  }

  private standingIn(stage: LifeStage): Set<string> {
    return new Set(
      this.input.props
        .filter((p) => stage.propped === 'all' || (stage.propped === 'lasting' && p.lasting))
        .map((p) => p.node),
    );
  }

  /** Every case of a stage. Props only push: one that would pull is let go and the stage solved again. */
  private solve(stage: LifeStage): Result<{ readonly cases: readonly SolvedCase[]; readonly moved: readonly Moved[] }> {
    // What differs in strength only moves as the other does.
    if (this.alike?.loads) return this.alike.check.solve(stage);
    // What the wind pushes follows from the piece, which a check is of.
    const { pushes: winds, ...told } = stage;
    const key = JSON.stringify([told, winds?.length]);
    const kept = this.solved.get(key);
    if (kept) return success(kept);
    const { input } = this;
    for (const node of input.armature.nodes) {
      if (!node.at.every(Number.isFinite))
        return failure('not-finite', `nodes.${node.id}`, `joint "${node.id}" has no place`);
    }
    const masses = this.massesAt(stage);
    const standing = this.standingIn(stage);
    for (;;) {
      const cases: SolvedCase[] = [];
      let pulled: string | undefined;
      for (const [i, a] of stage.accelerations.entries()) {
        const loads = [...loadsOf(input, masses, a), ...(winds?.[i] ?? [])];
        const found = this.solveCase(standing, stage, loads);
        if (!found.ok) return found;
        const { built, still, applied } = found.value;
        const pushes = propPushes(built.frame, { reactions: still.reactions, over: 1 }, standing);
        pulled ??= Object.entries(pushes).find(([, push]) => push < -1e-9)?.[0];
        const slender = slenderness(built.frame, input.armature.bones, still, this.outward) * stage.safety;
        cases.push({ built, still, loads, applied, standing, cause: stage.causes[i] ?? '', slender });
      }
      if (pulled !== undefined) {
        standing.delete(pulled);
        continue;
      }
      const moved: Moved[] = [];
      for (const c of cases) {
        const found = this.movedBy(c, stage);
        if (!found.ok) return found;
        moved.push(found.value);
      }
      const solved = { cases, moved };
      this.solved.set(key, solved);
      return success(solved);
    }
  }

  /** What a case does to the frame once it has moved. A stiff frame hardly moves, and stays as it was solved. */
  private movedBy(c: SolvedCase, { id, safety }: LifeStage): Result<Moved> {
    const { still, built } = c;
    const asSolved: Moved = {
      forces: still.forces,
      reactions: still.reactions,
      over: 1,
      alone: still.forces,
      displacements: still.displacements,
      folds: null,
    };
    if (c.slender < movesFrom || this.input.still) return success(asSolved);
    const made = MovedFrame.of(built.frame, c.loads, still, safety, built.cuts, c.applied);
    if (!made.ok) return made;
    const frame = made.value;
    if (c.slender > Math.max(slenderFrom, this.pushed.get(id)?.ratio ?? 0))
      this.pushed.set(id, { ratio: c.slender, safety, solution: still, frame: built.frame, moved: frame });
    const under = frame.at(safety);
    if (under && !under.ok) return under;
    const told = under && safety !== 1 ? between(still, under.value, safety) : null;
    const alone = told ? success(told) : safety === 1 ? under : frame.at(1);
    if (alone && !alone.ok) return alone;
    if (under && alone)
      return success({
        ...under.value,
        over: safety,
        alone: alone.value.forces,
        displacements: alone.value.displacements,
        folds: null,
      });
    const { factor } = frame.buckling();
    const far = alone ? null : frame.at(nearFolding * factor);
    return success({
      ...asSolved,
      alone: alone?.value.forces ?? still.forces,
      displacements:
        alone?.value.displacements ??
        (far?.ok ? far.value.displacements.map((d) => d / (nearFolding * factor)) : still.displacements),
      folds: foldingOf(frame, safety),
    });
  }

  /** One way of being shaken. Ties only pull: one that would be pushed is slack in this case, and it is solved again. */
  private solveCase(
    standing: ReadonlySet<string>,
    stage: LifeStage,
    loads: readonly FrameLoad[],
  ): Result<{ built: Built; still: FrameSolution; applied: AppliedLoads }> {
    const { armature } = this.input;
    const slack = new Set<string>();
    for (;;) {
      const built = this.build(stage, standing, slack);
      if (!built.ok) return built;
      const applied = built.value.frame.apply(loads);
      if (!applied.ok) return applied;
      const solved = built.value.frame.solveApplied(applied.value);
      if (!solved.ok) return solved;
      const pushed = armature.bones.find(
        (b, i) => b.tie && !slack.has(b.id) && pushedAt(solved.value.forces[i] ?? []) > 1e-6,
      );
      if (!pushed) return success({ built: built.value, still: solved.value, applied: applied.value });
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

function propPushes(
  frame: FactoredFrame,
  { reactions, over }: Pick<Moved, 'reactions' | 'over'>,
  props: ReadonlySet<string>,
): Record<string, number> {
  const out: Record<string, number> = {};
  frame.model.nodes.forEach((n, i) => {
    if (props.has(n.id)) out[n.id] = reactions[i * 6 + 2]! / over;
  });
  return out;
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
