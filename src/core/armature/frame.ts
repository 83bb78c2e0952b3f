import { distance, failure, success, type Result, type Vec3 } from '../quantity';
import {
  beamAxes,
  beamStiffness,
  condenseSpring,
  consistentLoad,
  CutRows,
  sectionForces,
  type Axes,
  type BeamLoad,
  type BeamSection,
  type SectionForces,
} from './beam';
import { eliminationOrder, SparseMatrix, sparsePattern, type SparsePattern } from './sparse';

/**
 * Linear space frame by direct stiffness: six freedoms a node, Euler-Bernoulli beams, rigid or sprung joints.
 * Source: Przemieniecki, *Theory of Matrix Structural Analysis*. Factor once, solve many load cases.
 * Left out: large displacement, shear deformation, plastic redistribution.
 */
export const freedoms = ['ux', 'uy', 'uz', 'rx', 'ry', 'rz'] as const;
export type Freedom = (typeof freedoms)[number];

export interface FrameNode {
  readonly id: string;
  readonly at: Vec3;
  readonly fixed?: readonly Freedom[];
}

export interface FrameMember extends BeamSection {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly up?: Vec3;
  /** Nm/rad in bending at each end; absent is rigid. */
  readonly springFrom?: number;
  readonly springTo?: number;
}

export interface FrameModel {
  readonly nodes: readonly FrameNode[];
  readonly members: readonly FrameMember[];
}

export type FrameLoad =
  | { readonly node: string; readonly force?: Vec3; readonly moment?: Vec3 }
  /** Global axes, N per metre of the member. */
  | { readonly member: string; readonly perLength: Vec3 }
  /** Global axes, at a share 0..1 of the member's length. */
  | { readonly member: string; readonly at: number; readonly force: Vec3; readonly moment?: Vec3 };

export interface FrameSolution {
  /** Six numbers a node, metres and radians, in the model's node order. */
  readonly displacements: Float64Array;
  /** Six numbers a node; zero where nothing is held. */
  readonly reactions: Float64Array;
  /** For each member, what its sections carry. */
  readonly forces: readonly (readonly SectionForces[])[];
}

/** A member between its two joints. */
export interface Beam {
  readonly member: FrameMember;
  /** Index of its joints. */
  readonly from: number;
  readonly to: number;
  readonly length: number;
  readonly axes: Axes;
}

/** A load case made ready: forces on the unknowns and on all freedoms, what lies on each beam and its consistent loads. */
export interface AppliedLoads {
  readonly right: Float64Array;
  readonly atJoints: Float64Array;
  readonly onBeam: readonly (readonly BeamLoad[])[];
  readonly equivalent: Float64Array;
}

/** What solving a moved frame adds to the ends of a beam, and to what its sections carry. */
export interface AddsToEnds {
  addEnds(beam: number, local: Float64Array, end: Float64Array): void;
  alongBeam(beam: number, local: Float64Array): (at: number, axial: number) => readonly [number, number];
}

export class FactoredFrame {
  constructor(
    readonly model: FrameModel,
    readonly beams: readonly Beam[],
    private readonly nodeIndex: ReadonlyMap<string, number>,
    readonly plan: SymbolicFactor,
    private readonly matrix: SparseMatrix,
    /** Local stiffness of each beam, its springs condensed in, 144 numbers each. */
    private readonly stiffness: Float64Array,
  ) {}

  /** Solves one load case. Fails on a load that names nothing. */
  solve(loads: readonly FrameLoad[]): Result<FrameSolution> {
    const applied = this.apply(loads);
    return applied.ok ? this.solveApplied(applied.value) : applied;
  }

  /** The same, of loads made ready. */
  solveApplied(applied: AppliedLoads): Result<FrameSolution> {
    const x = Float64Array.from(applied.right);
    this.matrix.solve(x);
    return this.recover(x, applied);
  }

  /** Fails on a load that names nothing. */
  apply(loads: readonly FrameLoad[]): Result<AppliedLoads> {
    const { beams, nodeIndex, matrix } = this;
    const { unknown } = this.plan;
    const beamIndex = new Map(beams.map((b, i) => [b.member.id, i]));
    const size = this.model.nodes.length * 6;
    const atJoints = new Float64Array(size);
    const onBeam: BeamLoad[][] = beams.map(() => []);
    for (const [i, load] of loads.entries()) {
      if ('node' in load) {
        const n = nodeIndex.get(load.node);
        if (n === undefined) return failure('unknown-node', `loads[${i}].node`, `no node is called "${load.node}"`);
        for (let k = 0; k < 3; k++) {
          atJoints[n * 6 + k]! += load.force?.[k] ?? 0;
          atJoints[n * 6 + 3 + k]! += load.moment?.[k] ?? 0;
        }
        continue;
      }
      const b = beamIndex.get(load.member);
      if (b === undefined)
        return failure('unknown-member', `loads[${i}].member`, `no member is called "${load.member}"`);
      const beam = beams[b]!;
      onBeam[b]?.push(
        'perLength' in load
          ? { at: null, force: toLocal(beam.axes, load.perLength), moment: [0, 0, 0] }
          : {
              at: load.at * beam.length,
              force: toLocal(beam.axes, load.force),
              moment: toLocal(beam.axes, load.moment ?? [0, 0, 0]),
            },
      );
    }
    const along = ({ at }: BeamLoad) => at ?? -1;
    for (const own of onBeam)
      if (own.some((l, i) => i > 0 && along(l) < along(own[i - 1]!))) own.sort((a, b) => along(a) - along(b));
    const right = new Float64Array(matrix.pattern.order);
    const spread = (dof: number, value: number) => {
      const row = unknown[dof]!;
      if (row >= 0) right[row]! += value;
    };
    for (let d = 0; d < size; d++) spread(d, atJoints[d]!);
    const k = new Float64Array(144);
    const equivalent = new Float64Array(12 * beams.length);
    const global = new Float64Array(12);
    beams.forEach((beam, b) => {
      if (onBeam[b]?.length === 0) return;
      const f = equivalent.subarray(b * 12, b * 12 + 12);
      elementOf(beam, onBeam[b] ?? [], k, f);
      rotate(beam.axes, f, global, true);
      for (let i = 0; i < 12; i++) spread(dofOf(beam, i), global[i]!);
    });
    return success({ right, atJoints, onBeam, equivalent });
  }

  /** Unknowns there are. */
  get order(): number {
    return this.matrix.pattern.order;
  }

  /** By beam, twice the strain energy of displacements given on the unknowns; end springs included. */
  strainEnergies(x: Float64Array): Float64Array {
    const out = new Float64Array(this.beams.length);
    const local = new Float64Array(12);
    this.beams.forEach((_, b) => {
      this.toBeam(b, x, local);
      let sum = 0;
      for (let i = 0; i < 12; i++)
        for (let j = 0; j < 12; j++) sum += local[i]! * this.stiffness[b * 144 + i * 12 + j]! * local[j]!;
      out[b] = sum;
    });
    return out;
  }

  /** Forces on the unknowns become their displacements, in place. */
  solveRows(x: Float64Array): void {
    this.matrix.solve(x);
  }

  /** Displacements on the unknowns, as the freedoms of one beam in its own axes. */
  toBeam(beam: number, x: Float64Array, local: Float64Array): void {
    const b = this.beams[beam]!;
    for (let i = 0; i < 12; i++) {
      const row = this.plan.unknown[dofOf(b, i)]!;
      ofJoints[i] = row >= 0 ? x[row]! : 0;
    }
    rotate(b.axes, ofJoints, local, false);
  }

  /** Forces on one beam's freedoms in its own axes, added to those on the unknowns. */
  fromBeam(beam: number, local: Float64Array, x: Float64Array): void {
    const b = this.beams[beam]!;
    rotate(b.axes, local, ofJoints, true);
    for (let i = 0; i < 12; i++) {
      const row = this.plan.unknown[dofOf(b, i)]!;
      if (row >= 0) x[row] = x[row]! + ofJoints[i]!;
    }
  }

  /** What follows from displacements on the unknowns; `bowed` adds what axial forces do to a frame that has moved. */
  recover(x: Float64Array, { atJoints, onBeam, equivalent }: AppliedLoads, bowed?: AddsToEnds): Result<FrameSolution> {
    const displacements = new Float64Array(this.model.nodes.length * 6);
    for (let d = 0; d < displacements.length; d++) {
      const row = this.plan.unknown[d]!;
      if (row >= 0) displacements[d] = x[row]!;
    }
    if (!displacements.every(Number.isFinite)) {
      return failure('mechanism', 'members', 'the frame moves without limit: check what holds it');
    }
    const reactions = new Float64Array(displacements.length);
    const k = this.stiffness;
    const global = new Float64Array(12);
    const local = new Float64Array(12);
    const end = new Float64Array(12);
    const rows = new CutRows(onBeam.reduce((sum, loads) => sum + 2 * loads.length + 2, 0));
    const forces = this.beams.map((beam, b) => {
      this.toBeam(b, x, local);
      for (let i = 0; i < 12; i++) {
        let sum = -equivalent[b * 12 + i]!;
        const row = b * 144 + i * 12;
        for (let j = 0; j < 12; j++) sum += k[row + j]! * local[j]!;
        end[i] = sum;
      }
      bowed?.addEnds(b, local, end);
      rotate(beam.axes, end, global, true);
      for (let i = 0; i < 12; i++) reactions[dofOf(beam, i)]! += global[i]!;
      return sectionForces(end, onBeam[b]!, beam.length, rows, bowed?.alongBeam(b, local));
    });
    for (let d = 0; d < reactions.length; d++) {
      const held = this.plan.unknown[d]! < 0;
      reactions[d] = held ? reactions[d]! - atJoints[d]! : 0;
    }
    return success({ displacements, reactions, forces });
  }
}

const ofJoints = new Float64Array(12);

function dofOf(beam: Beam, i: number): number {
  return i < 6 ? beam.from * 6 + i : beam.to * 6 + i - 6;
}

function toLocal(axes: Axes, v: Vec3): Vec3 {
  const [x, y, z] = axes;
  return [
    x[0] * v[0] + x[1] * v[1] + x[2] * v[2],
    y[0] * v[0] + y[1] * v[1] + y[2] * v[2],
    z[0] * v[0] + z[1] * v[1] + z[2] * v[2],
  ];
}

/** Rotates four triples between local and global axes. */
function rotate(axes: Axes, from: Float64Array, out: Float64Array, toGlobal: boolean): void {
  const x = axes[0],
    y = axes[1],
    z = axes[2];
  const x0 = x[0],
    x1 = x[1],
    x2 = x[2],
    y0 = y[0],
    y1 = y[1],
    y2 = y[2],
    z0 = z[0],
    z1 = z[1],
    z2 = z[2];
  for (let b = 0; b < 12; b += 3) {
    const u = from[b]!,
      v = from[b + 1]!,
      w = from[b + 2]!;
    if (toGlobal) {
      out[b] = x0 * u + y0 * v + z0 * w;
      out[b + 1] = x1 * u + y1 * v + z1 * w;
      out[b + 2] = x2 * u + y2 * v + z2 * w;
    } else {
      out[b] = x0 * u + x1 * v + x2 * w;
      out[b + 1] = y0 * u + y1 * v + y2 * w;
      out[b + 2] = z0 * u + z1 * v + z2 * w;
    }
  }
}

/** Local stiffness and consistent loads of a beam, its end springs condensed in. */
function elementOf(beam: Beam, loads: readonly BeamLoad[], k: Float64Array, f: Float64Array): void {
  const { member } = beam;
  beamStiffness(member, beam.length, k);
  f.fill(0);
  for (const load of loads) consistentLoad(load, beam.length, f);
  const { springFrom = Infinity, springTo = Infinity } = member;
  if (springFrom !== Infinity) {
    condenseSpring(4, springFrom, k, f);
    condenseSpring(5, springFrom, k, f);
  }
  if (springTo !== Infinity) {
    condenseSpring(10, springTo, k, f);
    condenseSpring(11, springTo, k, f);
  }
}

const halfway = new Float64Array(9);

/** Global stiffness of one beam into `out`, upper blocks only: T^T k T with T made of the axes, block by block. */
function globalStiffness(axes: Axes, k: Float64Array, out: Float64Array): void {
  const [[x0, x1, x2], [y0, y1, y2], [z0, z1, z2]] = axes;
  const t = [x0, x1, x2, y0, y1, y2, z0, z1, z2];
  for (let a = 0; a < 12; a += 3) {
    for (let b = a; b < 12; b += 3) {
      for (let p = 0; p < 3; p++) {
        const row = (a + p) * 12 + b;
        const k0 = k[row]!,
          k1 = k[row + 1]!,
          k2 = k[row + 2]!;
        halfway[p * 3] = k0 * x0 + k1 * y0 + k2 * z0;
        halfway[p * 3 + 1] = k0 * x1 + k1 * y1 + k2 * z1;
        halfway[p * 3 + 2] = k0 * x2 + k1 * y2 + k2 * z2;
      }
      for (let i = 0; i < 3; i++) {
        const t0 = t[i]!,
          t1 = t[3 + i]!,
          t2 = t[6 + i]!;
        for (let j = 0; j < 3; j++) {
          out[(a + i) * 12 + b + j] = t0 * halfway[j]! + t1 * halfway[3 + j]! + t2 * halfway[6 + j]!;
        }
      }
    }
  }
}

/** What depends only on which joints there are, how they are joined and held: worked out once, used for many sections. */
export interface SymbolicFactor {
  readonly signature: string;
  readonly unknown: Int32Array;
  readonly owner: readonly number[];
  readonly pattern: SparsePattern;
}

function signatureOf(model: FrameModel): string {
  return `${model.nodes.map((n) => `${n.id}:${n.fixed?.join('') ?? ''}`).join()}|${model.members.map((m) => `${m.from}>${m.to}`).join()}`;
}

function symbolicFactorOf(model: FrameModel, beams: readonly Beam[], signature: string): SymbolicFactor {
  const neighbours: number[][] = model.nodes.map(() => []);
  for (const b of beams) {
    neighbours[b.from]?.push(b.to);
    neighbours[b.to]?.push(b.from);
  }
  const order = eliminationOrder(neighbours);
  const place = new Int32Array(order.length);
  order.forEach((n, i) => {
    place[n] = i;
  });
  const unknown = new Int32Array(model.nodes.length * 6).fill(-1);
  const owner: number[] = [];
  for (const n of order) {
    const fixed = model.nodes[n]?.fixed ?? [];
    for (let d = 0; d < 6; d++) {
      if (fixed.includes(freedoms[d]!)) continue;
      unknown[n * 6 + d] = owner.length;
      owner.push(n * 6 + d);
    }
  }
  // Every freedom of a joint meets its own and those of the joints it is joined to that come before it.
  const columns: number[][] = [];
  for (const n of order) {
    const before = [...new Set(neighbours[n])]
      .filter((m) => place[m]! < place[n]!)
      .sort((a, b) => place[a]! - place[b]!);
    const rows: number[] = [];
    for (const m of [...before, n]) {
      for (let d = 0; d < 6; d++) if (unknown[m * 6 + d]! >= 0) rows.push(unknown[m * 6 + d]!);
    }
    for (let d = 0; d < 6; d++) {
      const own = unknown[n * 6 + d]!;
      if (own >= 0) columns.push(rows.filter((r) => r <= own));
    }
  }
  return { signature, unknown, owner, pattern: sparsePattern(columns) };
}

/**
 * Checks, orders, assembles and factors a frame. A joint that can move freely is reported by name
 * (code `mechanism`), as are members without length and sections without stiffness. `plan` is one that an earlier
 * frame of the same joints left behind; another is made when it does not fit.
 */
export function factorFrame(model: FrameModel, plan?: SymbolicFactor): Result<FactoredFrame> {
  const nodeIndex = new Map(model.nodes.map((n, i) => [n.id, i]));
  const beams: Beam[] = [];
  for (const member of model.members) {
    const path = `members.${member.id}`;
    const from = nodeIndex.get(member.from);
    const to = nodeIndex.get(member.to);
    if (from === undefined) return failure('unknown-node', `${path}.from`, `no node is called "${member.from}"`);
    if (to === undefined) return failure('unknown-node', `${path}.to`, `no node is called "${member.to}"`);
    const a = model.nodes[from]!.at;
    const b = model.nodes[to]!.at;
    const length = distance(a, b);
    if (!(length > 1e-9)) return failure('no-length', path, 'the member starts and ends at the same place');
    beams.push({ member, from, to, length, axes: beamAxes(a, b, member.up) });
  }
  const signature = signatureOf(model);
  const fitting = plan?.signature === signature ? plan : symbolicFactorOf(model, beams, signature);
  const stiffness = new Float64Array(144 * beams.length);
  const matrix = assemble(beams, fitting, stiffness);
  const loose = matrix.factor();
  if (loose >= 0) {
    const dof = fitting.owner[loose]!;
    const node = model.nodes[Math.floor(dof / 6)]!;
    const what = dof % 6 < 3 ? `slide along ${'xyz'[dof % 6]}` : `turn about ${'xyz'[(dof % 6) - 3]}`;
    return failure('mechanism', `nodes.${node.id}`, `joint "${node.id}" is free to ${what}: nothing holds it`);
  }
  return success(new FactoredFrame(model, beams, nodeIndex, fitting, matrix, stiffness));
}

/** Global stiffness on the unknowns; each beam's local one goes into `stiffness`. */
function assemble(beams: readonly Beam[], plan: SymbolicFactor, stiffness: Float64Array): SparseMatrix {
  const { unknown } = plan;
  const matrix = new SparseMatrix(plan.pattern);
  const f = new Float64Array(12);
  const g = new Float64Array(144);
  const place = new Int32Array(12);
  for (const [b, beam] of beams.entries()) {
    const k = stiffness.subarray(b * 144, b * 144 + 144);
    elementOf(beam, [], k, f);
    globalStiffness(beam.axes, k, g);
    for (let i = 0; i < 12; i++) place[i] = unknown[dofOf(beam, i)]!;
    for (let i = 0; i < 12; i++) {
      const row = place[i]!;
      if (row < 0) continue;
      for (let j = i; j < 12; j++) {
        const column = place[j]!;
        if (column >= 0) matrix.add(row, column, g[i * 12 + j]!);
      }
    }
  }
  return matrix;
}

/** Largest magnitudes along a member, as the command line prints them. */
export function memberPeaks(stations: readonly SectionForces[]): Omit<SectionForces, 'at'> {
  const most = (key: keyof SectionForces) => stations.reduce((m, s) => Math.max(m, Math.abs(s[key])), 0);
  return {
    axial: most('axial'),
    shearY: most('shearY'),
    shearZ: most('shearZ'),
    torsion: most('torsion'),
    momentY: most('momentY'),
    momentZ: most('momentZ'),
  };
}
