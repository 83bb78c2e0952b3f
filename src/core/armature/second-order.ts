import { success, type Result } from '../quantity';
import { bucklingOf, pressedOf, type Buckling } from './buckling';
import { cutLoads, cutMembers, joinedUp, pushWithin, type CutFrame } from './cut-members';
import { factorFrame, type AppliedLoads, type FactoredFrame, type FrameLoad, type FrameSolution } from './frame';
import { CutRows, type SectionForces } from './beam';
import { GeometricStiffness, type PushAlong } from './geometric-stiffness';

/**
 * A frame solved as it stands once it has moved: (K + factor K_g) x = factor f, by conjugate gradients with K, factored
 * already, to precondition them. Source: Przemieniecki, *Theory of Matrix Structural Analysis*, ch. 15; Golub and Van Loan,
 * *Matrix Computations*, on conjugate gradients. Null where the load reaches what the frame folds under.
 */
export function solveMoved(
  frame: FactoredFrame,
  applied: AppliedLoads,
  pushes: GeometricStiffness,
  factor: number,
): Result<FrameSolution> | null {
  const n = applied.right.length;
  const load = applied.right.map((f) => factor * f);
  const x = Float64Array.from(load);
  frame.solveRows(x);
  const still = inner(x, load);
  const rest = new Float64Array(n);
  pushes.addTimes(x, -factor, rest);
  const z = Float64Array.from(rest);
  frame.solveRows(z);
  let left = inner(rest, z);
  const way = Float64Array.from(z),
    // K times the way: what it costs is known already.
    held = Float64Array.from(rest),
    against = new Float64Array(n);
  for (let i = 0; i < mostSteps && left > closeEnough * Math.abs(still); i++) {
    against.set(held);
    pushes.addTimes(way, factor, against);
    const stiff = inner(way, against);
    if (!(stiff > folded * inner(way, held))) return null;
    const step = left / stiff;
    for (let d = 0; d < n; d++) {
      x[d] = x[d]! + step * way[d]!;
      rest[d] = rest[d]! - step * against[d]!;
    }
    z.set(rest);
    frame.solveRows(z);
    const next = inner(rest, z);
    const share = next / left;
    left = next;
    for (let d = 0; d < n; d++) {
      way[d] = z[d]! + share * way[d]!;
      held[d] = rest[d]! + share * held[d]!;
    }
  }
  return frame.recover(x, scaled(applied, factor), {
    addEnds: (beam, local, end) => pushes.addEnds(beam, local, end, factor),
    alongBeam: (beam, local) => pushes.alongBeam(beam, local),
  });
}

/** A bone whose bending grows by less than this share as the frame moves, of what it has or of a thousandth of the most there is. */
const hardlyMoves = 0.1;
const ofTheMost = 1e-3;

/**
 * What a frame does under its load alone, from what it does as though nothing moved and under `factor` times the load: it
 * grows evenly between them where it grows little, to two or three parts in a thousand. Null where a bone's bending grows by more.
 */
export function between(still: FrameSolution, under: FrameSolution, factor: number): FrameSolution | null {
  const bend = (s: SectionForces) => Math.hypot(s.momentY, s.momentZ);
  const bends = under.forces.map((cuts) => cuts.reduce((most, s) => Math.max(most, bend(s) / factor), 0));
  const least = ofTheMost * bends.reduce((most, b) => Math.max(most, b), 0);
  const at = (a: number, b: number) => a + (b / factor - a) / factor;
  const rows = new CutRows(still.forces.reduce((sum, cuts) => sum + cuts.length, 0));
  const forces: SectionForces[][] = [];
  for (const [b, cuts] of still.forces.entries()) {
    const moved = under.forces[b]!;
    if (moved.length !== cuts.length) return null;
    const limit = hardlyMoves * Math.max(bends[b]!, least);
    const here: SectionForces[] = [];
    for (const [i, s] of cuts.entries()) {
      const m = moved[i]!;
      if (m.at !== s.at) return null;
      if (Math.hypot(m.momentY / factor - s.momentY, m.momentZ / factor - s.momentZ) > limit) return null;
      here.push(
        rows.add(
          s.at,
          at(s.axial, m.axial),
          at(s.shearY, m.shearY),
          at(s.shearZ, m.shearZ),
          at(s.torsion, m.torsion),
          at(s.momentY, m.momentY),
          at(s.momentZ, m.momentZ),
        ),
      );
    }
    forces.push(here);
  }
  const mix = (a: Float64Array, b: Float64Array) => a.map((v, i) => at(v, b[i]!));
  return {
    displacements: mix(still.displacements, under.displacements),
    reactions: mix(still.reactions, under.reactions),
    forces,
  };
}

const mostSteps = 60;
/** Of the strain energy: what moves most is then right to about a part in a million. */
const closeEnough = 1e-12;
/** A way that meets less than this share of its own stiffness is one the frame folds along. */
const folded = 1e-4;

function scaled(applied: AppliedLoads, factor: number): AppliedLoads {
  if (factor === 1) return applied;
  const times = (v: readonly [number, number, number]) => [v[0] * factor, v[1] * factor, v[2] * factor] as const;
  return {
    right: applied.right,
    atJoints: applied.atJoints.map((f) => f * factor),
    equivalent: applied.equivalent.map((f) => f * factor),
    onBeam: applied.onBeam.map((loads) =>
      loads.map((l) => ({ at: l.at, force: times(l.force), moment: times(l.moment) })),
    ),
  };
}

function inner(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}

/** One load case on a frame that moves under it, its members cut as finely as their pushes want. */
export class MovedFrame {
  private pushes: GeometricStiffness | null = null;
  /** Axial forces found once, at the largest load that is asked for, serve smaller ones. */
  private settled = false;

  private constructor(
    private readonly whole: FactoredFrame,
    /** Null where no member wants to be cut. */
    private readonly cut: CutFrame | null,
    private readonly frame: FactoredFrame,
    private readonly applied: AppliedLoads,
    private push: readonly PushAlong[],
  ) {}

  /**
   * `still` is the same case solved as though nothing moved; the frame will be asked up to `factor` times its load. Frames
   * cut before are kept in `kept`; `ready` are the loads, where they have been made ready. Fails as `factorFrame` and
   * `apply` do.
   */
  static of(
    whole: FactoredFrame,
    loads: readonly FrameLoad[],
    still: FrameSolution,
    factor: number,
    kept: Map<string, FactoredFrame> = new Map(),
    ready?: AppliedLoads,
  ): Result<MovedFrame> {
    const pieces = pressedOf(whole.model, still.forces).map((r) => piecesFor(r * factor));
    if (pieces.every((n) => n === 1)) {
      const applied = ready ? success(ready) : whole.apply(loads);
      return applied.ok ? success(new MovedFrame(whole, null, whole, applied.value, still.forces)) : applied;
    }
    const cut = cutMembers(whole.model, pieces);
    const key = pieces.join();
    let frame = kept.get(key);
    if (!frame) {
      const made = factorFrame(cut.model);
      if (!made.ok) return made;
      frame = made.value;
      kept.set(key, frame);
    }
    const indexOf = new Map(whole.model.members.map((m, i) => [m.id, i]));
    const applied = frame.apply(cutLoads(cut, indexOf, loads));
    if (!applied.ok) return applied;
    return success(new MovedFrame(whole, cut, frame, applied.value, still.forces));
  }

  /** Solved under `factor` times the load; null where that is what it folds under. Its axial forces are found again as it moves. */
  at(factor: number): Result<FrameSolution> | null {
    for (let round = 0; ; round++) {
      const solved = solveMoved(this.frame, this.applied, this.stiffness(), factor);
      if (!solved?.ok) return solved;
      const whole = this.cut
        ? joinedUp(this.cut, solved.value, this.whole.model.nodes.length, this.lengths)
        : solved.value;
      if (this.settled) return success(whole);
      if (round >= mostRounds || changeOf(this.push, whole.forces, factor) < steady) {
        this.settled = true;
        return success(whole);
      }
      this.push = whole.forces.map((cuts) => cuts.map((s) => ({ at: s.at, axial: s.axial / factor })));
      this.pushes = null;
    }
  }

  /** The factor on this load at which it folds, and where stiffness would help, by member. */
  buckling(): Buckling {
    const found = bucklingOf(this.stiffness());
    const shares = this.whole.beams.map(() => 0);
    found.shares.forEach((s, p) => {
      const m = this.cut?.owner[p] ?? p;
      shares[m] = Math.max(shares[m]!, s);
    });
    return { factor: found.factor, shares };
  }

  private get lengths(): number[] {
    return this.whole.beams.map((b) => b.length);
  }

  private stiffness(): GeometricStiffness {
    if (this.pushes) return this.pushes;
    const { cut, lengths } = this;
    const along = !cut
      ? this.push
      : cut.owner.map((m, p) => {
          const n = cut.pieces[m]!,
            from = (p - cut.first[m]!) / n;
          return n === 1 ? this.push[m]! : pushWithin(this.push[m]!, from * lengths[m]!, (from + 1 / n) * lengths[m]!);
        });
    this.pushes = new GeometricStiffness(this.frame, along);
    return this.pushes;
  }
}

/** No pushed piece is longer than an eighth of the wave it would bow in; powers of two, so that few frames are cut. */
function piecesFor(pressed: number): number {
  let pieces = 1;
  while (pieces < mostPieces && pieces < 4 * Math.sqrt(Math.max(0, pressed))) pieces *= 2;
  return pieces;
}

const mostPieces = 16;
const mostRounds = 4;
/** Axial forces that change by less than this share of the largest are as good as found. */
const steady = 0.002;

/** `now` is that under `factor` times the load. */
function changeOf(before: readonly PushAlong[], now: readonly PushAlong[], factor: number): number {
  let most = 0,
    change = 0;
  const compare = (a = 0, b = 0) => {
    most = Math.max(most, Math.abs(a));
    change = Math.max(change, Math.abs(a - b / factor));
  };
  before.forEach((cuts, m) => {
    const last = now[m]!;
    compare(cuts[0]?.axial, last[0]?.axial);
    compare(cuts[cuts.length - 1]?.axial, last[last.length - 1]?.axial);
  });
  return most > 0 ? change / most : 0;
}
