import {
  capacityAt, compositeSection, factorFrame, joinSpring, memberPeaks, setShare,
  type Armature, type Bone, type CompositeSection, type FactoredFrame, type FrameLoad, type FrameSolution, type MetalPart, type SectionForces,
} from '../armature';
import { joinEfficiency, type BulkKind, type Stock } from '../catalogue';
import { cross, distance, failure, success, type Result, type Vec3 } from '../quantity';
import { amountIndex, stationAt, stationsPerBone, type HungLoad } from './hang';
import type { Moment } from './moments';

/**
 * Whether the armature holds at one moment. The frame is solved on the bones with everything that runs along them;
 * utilisation = safety x (|N|/N_p + M_eq/M_p), M_eq = sqrt(M^2 + 0.75 T^2). Dried clay is never relied on: the sleeve
 * counts with the strength it has when fresh. Left out: large displacement, fatigue of re-bent wire.
 */
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
  /** Sag as a share of its distance from what holds it. */
  readonly sagShare: number;
  /** Strain of the clay's skin from bending. */
  readonly skinStrain: number;
  /** Share of the bend that stays when the load is taken off. */
  readonly set: number;
  /** Utilisation in Euler buckling. */
  readonly buckling: number;
}

export interface MomentCheck {
  readonly moment: string;
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
  readonly load: HungLoad;
  readonly bulk: BulkKind;
  readonly bulkDensity: number;
  readonly clayYield: number;
  readonly grip: number;
  readonly stockOf: (id: string) => Stock | undefined;
  /** Joints that a prop stands under at this moment. */
  readonly props: readonly string[];
}

const floor = { EA: 100, EI: 1e-3, GJ: 1e-3 };
const steepest = 99;

export function metalAlong(bone: Bone, armature: Armature, stockOf: CheckInputs['stockOf']): MetalPart[] {
  const parts: MetalPart[] = [];
  for (const member of armature.members) {
    const legs = member.bones.filter((b) => b === bone.id).length;
    if (legs === 0) continue;
    const stock = stockOf(member.stock);
    const size = stock?.sizes.find((s) => s.id === member.size);
    if (!stock || !size) continue;
    parts.push({
      section: size.section, youngs: stock.youngs, strength: stock.strength.nominal * stock.allowed, brittle: stock.brittle,
      strands: member.strands * legs, bonded: member.bonded,
    });
  }
  return parts;
}

export function sectionsAt(input: CheckInputs, moment: Moment): CompositeSection[] {
  const { armature, load, bulk } = input;
  return armature.bones.map((bone, i) => compositeSection({
    metal: metalAlong(bone, armature, input.stockOf),
    bulk: moment.bulkOn && bulk.crushing > 0
      ? { diameter: load.coreDiameter[i] as number, stiffness: bulk.stiffness, crushing: bulk.crushing } : null,
    clay: moment.clayDensity.length > 0
      ? { outer: load.outerDiameter[i] as number, core: load.coreDiameter[i] as number, yieldStress: input.clayYield, grip: input.grip } : null,
  }));
}

function frameOf(input: CheckInputs, sections: readonly CompositeSection[], props: ReadonlySet<string>): Result<FactoredFrame> {
  const { armature, load } = input;
  const perLength = sections.map((s, i) => (s.EI + floor.EI) / distance(...(load.ends[i] as readonly [Vec3, Vec3])));
  const weakest = new Map<string, number>();
  armature.bones.forEach((b, i) => {
    for (const n of [b.from, b.to]) weakest.set(n, Math.min(weakest.get(n) ?? Infinity, perLength[i] as number));
  });
  return factorFrame({
    nodes: armature.nodes
      .filter((n) => armature.bones.some((b) => b.from === n.id || b.to === n.id))
      .map((n) => ({
        id: n.id, at: n.at,
        ...(n.held ? { fixed: ['ux', 'uy', 'uz', 'rx', 'ry', 'rz'] as const } : props.has(n.id) ? { fixed: ['uz'] as const } : {}),
      })),
    members: armature.bones.map((b, i) => {
      const s = sections[i] as CompositeSection;
      const EI = s.EI + floor.EI;
      // Unit moduli: the composite's EA, EI and GJ stand for areas and inertias.
      return {
        id: b.id, from: b.from, to: b.to, E: 1, G: 1, A: s.EA + floor.EA, Iy: EI, Iz: EI, J: s.GJ + floor.GJ,
        springFrom: joinSpring(joinEfficiency(b.joinFrom), weakest.get(b.from) as number),
        springTo: joinSpring(joinEfficiency(b.joinTo), weakest.get(b.to) as number),
      };
    }),
  });
}

/** kg/m3 (or 1 for metal, already kg) of each component at a moment. */
function densities(load: HungLoad, moment: Moment, bulkDensity: number): Float64Array {
  const out = new Float64Array(load.components);
  moment.clayDensity.forEach((d, r) => {
    out[r] = d;
  });
  out[load.components - 2] = moment.bulkOn ? bulkDensity : 0;
  out[load.components - 1] = 1;
  return out;
}

interface StationMass {
  readonly bone: number;
  readonly station: number;
  readonly mass: number;
  readonly first: Vec3;
}

function stationMasses(load: HungLoad, density: Float64Array): StationMass[] {
  const out: StationMass[] = [];
  for (let b = 0; b < load.bones.length; b++) {
    for (let s = 0; s < stationsPerBone; s++) {
      let mass = 0, x = 0, y = 0, z = 0;
      for (let c = 0; c < load.components; c++) {
        const i = amountIndex(load, b, s, c);
        const d = density[c] as number;
        mass += d * (load.amounts[i] as number);
        x += d * (load.amounts[i + 1] as number);
        y += d * (load.amounts[i + 2] as number);
        z += d * (load.amounts[i + 3] as number);
      }
      if (mass > 0) out.push({ bone: b, station: s, mass, first: [x, y, z] });
    }
  }
  return out;
}

/** What hangs on the frame at a moment, with its centre of gravity: for standing and for tests of conservation. */
export function hungCentre(load: HungLoad, moment: Moment, bulkDensity: number): { mass: number; at: Vec3 } {
  let mass = 0, x = 0, y = 0, z = 0;
  for (const s of stationMasses(load, densities(load, moment, bulkDensity))) {
    const at = stationAt(load.ends[s.bone] as readonly [Vec3, Vec3], s.station);
    mass += s.mass;
    x += s.mass * at[0] + s.first[0];
    y += s.mass * at[1] + s.first[1];
    z += s.mass * at[2] + s.first[2];
  }
  return { mass, at: mass > 0 ? [x / mass, y / mass, z / mass] : [0, 0, 0] };
}

function loadsOf(input: CheckInputs, masses: readonly StationMass[], a: Vec3): FrameLoad[] {
  return masses.map((s) => ({
    member: (input.armature.bones[s.bone] as Bone).id, at: (s.station + 0.5) / stationsPerBone,
    force: [s.mass * a[0], s.mass * a[1], s.mass * a[2]], moment: cross(s.first, a),
  }));
}

/** Solves one moment. Props only push: one that would pull is let go and the frame solved again. */
export function checkMoment(input: CheckInputs, moment: Moment): Result<MomentCheck> {
  const { armature, load } = input;
  for (const node of armature.nodes) {
    if (!node.at.every(Number.isFinite)) return failure('not-finite', `nodes.${node.id}`, `joint "${node.id}" has no place`);
  }
  const sections = sectionsAt(input, moment);
  const masses = stationMasses(load, densities(load, moment, input.bulkDensity));
  const standing = new Set(moment.propped ? input.props : []);
  let worst: MomentCheck | null = null;
  for (let attempt = 0; attempt <= input.props.length; attempt++) {
    const factored = frameOf(input, sections, standing);
    if (!factored.ok) return factored;
    worst = null;
    let pulled = '';
    for (const a of moment.accelerations) {
      const solved = factored.value.solve(loadsOf(input, masses, a));
      if (!solved.ok) return solved;
      const pushes = propPushes(factored.value, solved.value, standing);
      pulled = Object.entries(pushes).find(([, push]) => push < -1e-9)?.[0] ?? pulled;
      const check = readCase(input, moment, sections, masses, factored.value, solved.value, pushes);
      worst = worst === null ? check : worseOf(worst, check);
    }
    if (pulled === '') break;
    standing.delete(pulled);
  }
  return worst ? success(worst) : failure('no-case', 'moment', 'nothing to check');
}

function propPushes(frame: FactoredFrame, solution: FrameSolution, props: ReadonlySet<string>): Record<string, number> {
  const out: Record<string, number> = {};
  frame.model.nodes.forEach((n, i) => {
    if (props.has(n.id)) out[n.id] = solution.reactions[i * 6 + 2] as number;
  });
  return out;
}

function worseOf(a: MomentCheck, b: MomentCheck): MomentCheck {
  const most = (m: MomentCheck) => m.bones.reduce((u, x) => Math.max(u, x.utilisation), 0);
  const keep = most(b) > most(a) ? b : a;
  return {
    ...keep,
    bones: a.bones.map((x, i) => ((b.bones[i] as BoneCheck).utilisation > x.utilisation ? (b.bones[i] as BoneCheck) : x)),
    footMoment: Math.max(a.footMoment, b.footMoment), footForce: Math.max(a.footForce, b.footForce),
  };
}

function readCase(
  input: CheckInputs, moment: Moment, sections: readonly CompositeSection[], masses: readonly StationMass[],
  frame: FactoredFrame, solution: FrameSolution, props: Record<string, number>,
): MomentCheck {
  const { armature, load } = input;
  const moves: Record<string, Vec3> = {};
  let footMoment = 0, footForce = 0;
  const held = new Set(armature.nodes.filter((n) => n.held).map((n) => n.id));
  frame.model.nodes.forEach((n, i) => {
    const d = solution.displacements.subarray(i * 6, i * 6 + 3);
    moves[n.id] = [d[0] as number, d[1] as number, d[2] as number];
    if (!held.has(n.id)) return;
    const r = solution.reactions.subarray(i * 6, i * 6 + 6);
    footMoment = Math.max(footMoment, Math.hypot(r[3] as number, r[4] as number));
    footForce += r[2] as number;
  });
  const carries = new Float64Array(armature.bones.length);
  for (const m of masses) (carries[m.bone] as number) += m.mass;
  const outward = pathFromHeld(armature);
  const bones = armature.bones.map((bone, i) => checkBone(
    bone, sections[i] as CompositeSection, solution.forces[i] ?? [], moment, distance(...(load.ends[i] as readonly [Vec3, Vec3])),
    load.outerDiameter[i] as number, carries[i] as number, moves, outward,
  ));
  return { moment: moment.id, name: moment.name, bones, moves, footMoment, footForce, props };
}

function checkBone(
  bone: Bone, section: CompositeSection, stations: readonly SectionForces[], moment: Moment, length: number,
  diameter: number, carries: number, moves: Readonly<Record<string, Vec3>>, outward: ReadonlyMap<string, number>,
): BoneCheck {
  const efficiencies = { from: joinEfficiency(bone.joinFrom), to: joinEfficiency(bone.joinTo) };
  let utilisation = 0, demand = 0, capacity = Infinity, over = 0, curvature = 0, efficiency = 1;
  for (const s of stations) {
    const e = s.at <= 1e-9 ? efficiencies.from : s.at >= length - 1e-9 ? efficiencies.to : 1;
    const limit = capacityAt(section, e);
    const m = Math.sqrt(s.momentY ** 2 + s.momentZ ** 2 + 0.75 * s.torsion ** 2);
    const share = ratio(Math.abs(s.axial), limit.axial) + ratio(m, limit.moment);
    curvature = Math.max(curvature, Math.hypot(s.momentY, s.momentZ) / (section.EI + floor.EI));
    if (share >= utilisation) {
      utilisation = share;
      demand = m;
      capacity = limit.moment;
      over = ratio(m, limit.moment);
      efficiency = e;
    }
  }
  const peaks = memberPeaks(stations);
  const compression = stations.reduce((m, s) => Math.max(m, s.axial), 0);
  const euler = (Math.PI ** 2 * (section.EI + floor.EI)) / (2 * length) ** 2;
  const to = moves[bone.to] ?? [0, 0, 0];
  const sag = Math.hypot(to[0], to[1], to[2]);
  return {
    bone: bone.id, utilisation: Math.min(steepest, utilisation * moment.safety), demand,
    capacity: Number.isFinite(capacity) ? capacity : 0,
    metalShare: Number.isFinite(section.brittleMoment) ? Math.max(section.brittleMoment, section.metalMoment) * efficiency : section.metalMoment * efficiency,
    bulkShare: section.bulkMoment, clayShare: section.clayMoment, axial: peaks.axial, carries,
    sag, sagShare: sag / Math.max(outward.get(bone.to) ?? length, 1e-6),
    skinStrain: moment.clayDensity.length > 0 ? curvature * (diameter / 2) : 0,
    set: section.metalMoment > 0 ? Math.min(steepest, setShare(over)) : 0,
    buckling: Math.min(steepest, (compression * moment.safety) / euler),
  };
}

function ratio(demand: number, limit: number): number {
  if (demand < 1e-9) return 0;
  return limit > 0 ? Math.min(steepest, demand / limit) : steepest;
}

/** Length along the bones from whatever is held to each node: what sag is measured against. */
function pathFromHeld(armature: Armature): Map<string, number> {
  const place = new Map(armature.nodes.map((n) => [n.id, n.at]));
  const reached = new Map<string, number>(armature.nodes.filter((n) => n.held).map((n) => [n.id, 0]));
  for (let changed = true; changed;) {
    changed = false;
    for (const b of armature.bones) {
      const length = distance(place.get(b.from) as Vec3, place.get(b.to) as Vec3);
      for (const [near, far] of [[b.from, b.to], [b.to, b.from]] as const) {
        const way = (reached.get(near) ?? Infinity) + length;
        if (way < (reached.get(far) ?? Infinity) - 1e-12) {
          reached.set(far, way);
          changed = true;
        }
      }
    }
  }
  return reached;
}
