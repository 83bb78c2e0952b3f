import type { SectionForces } from './beam';
import type { AddsToEnds, Beam, FactoredFrame } from './frame';

/**
 * What axial forces do to a frame that has moved: a pull straightens a beam, a push bends it further. The consistent
 * geometric stiffness of each beam, its axial force as it changes along it, so that weight along a column counts where it
 * is. Source: Przemieniecki, *Theory of Matrix Structural Analysis*, ch. 15. Left out: shortening by bowing, twisting under
 * a push.
 */

/** Along each beam, cuts in their order with the push there, N: above zero is pushed, as `sectionForces` gives it. */
export type PushAlong = readonly Pick<SectionForces, 'at' | 'axial'>[];

/** Freedoms that bend in the local x-y plane and in x-z: move, turn, move, turn. Turns about y go the other way round. */
const planes = [
  { at: [1, 5, 7, 11], sign: 1 },
  { at: [2, 4, 8, 10], sign: -1 },
] as const;

/** Members with less than this share of the largest force neither push nor hold anything to speak of. */
const negligible = 1e-3;

export class GeometricStiffness implements AddsToEnds {
  /** By beam and plane, 16 numbers: forces on move, turn, move, turn for each of them. */
  private readonly blocks: Float64Array;
  /** By beam and plane, 16 numbers: the beam's own ends from those of its joints, which end springs set apart. */
  private readonly ends: Float64Array;
  private readonly loaded: readonly number[];

  /** `push[m]` for each of the frame's members. */
  constructor(
    readonly frame: FactoredFrame,
    push: readonly PushAlong[],
  ) {
    const count = frame.beams.length;
    this.blocks = new Float64Array(count * 32);
    this.ends = new Float64Array(count * 32);
    const most = push.map((p) => p.reduce((m, s) => Math.max(m, Math.abs(s.axial)), 0));
    const largest = most.reduce((m, v) => Math.max(m, v), 0);
    const loaded: number[] = [];
    frame.beams.forEach((beam, b) => {
      if (!(most[b]! > negligible * largest)) return;
      loaded.push(b);
      this.fill(beam, b, push[b]!);
    });
    this.loaded = loaded;
  }

  private fill(beam: Beam, b: number, push: PushAlong): void {
    const { member, length } = beam;
    slopesUnder(push, length);
    planes.forEach(({ sign }, p) => {
      const from = b * 32 + p * 16;
      const ends = this.ends.subarray(from, from + 16);
      endsOf(ends, member.E * (p === 0 ? member.Iz : member.Iy), length, sign, member.springFrom, member.springTo);
      const l = sign * length;
      plain.set([
        aa, -l * ab, -aa, -l * ac,
        -l * ab, l * l * bb, l * ab, l * l * bc,
        -aa, l * ab, aa, l * ac,
        -l * ac, l * l * bc, l * ac, l * l * cc,
      ]); // prettier-ignore
      through(ends, plain, this.blocks.subarray(from, from + 16), 1 / length);
    });
  }

  /** Adds `factor` times the stiffness times `x` to `out`, both on the frame's unknowns. */
  addTimes(x: Float64Array, factor: number, out: Float64Array): void {
    for (const b of this.loaded) {
      this.frame.toBeam(b, x, moved);
      pushed.fill(0);
      this.addEnds(b, moved, pushed, factor);
      this.frame.fromBeam(b, pushed, out);
    }
  }

  addEnds(beam: number, local: Float64Array, end: Float64Array, factor = 1): void {
    for (let p = 0; p < 2; p++) {
      const { at } = planes[p]!;
      const from = beam * 32 + p * 16;
      for (let i = 0; i < 4; i++) {
        let sum = 0;
        for (let j = 0; j < 4; j++) sum += this.blocks[from + i * 4 + j]! * local[at[j as 0 | 1 | 2 | 3]]!;
        const d = at[i as 0 | 1 | 2 | 3];
        end[d] = end[d]! + factor * sum;
      }
    }
  }

  /**
   * Moments about y and z of the axial force about where each cut of a beam has moved to: asked for from its beginning on,
   * one cut after another, each with its own axial force.
   */
  alongBeam(beam: number, local: Float64Array): (at: number, axial: number) => readonly [number, number] {
    const { length } = this.frame.beams[beam]!;
    const inY = this.ownEnds(beam, 0, local),
      inZ = this.ownEnds(beam, 1, local);
    let y = 0,
      z = 0,
      last = 0,
      push = 0;
    let atY = moveAt(inY, length, 0),
      atZ = moveAt(inZ, length, 0);
    return (at, axial) => {
      if (at > last) {
        const mean = (push + axial) / 2;
        const toY = moveAt(inY, length, at),
          toZ = moveAt(inZ, length, at);
        y += mean * (toY - atY);
        z += mean * (toZ - atZ);
        [last, atY, atZ] = [at, toY, toZ];
      }
      push = axial;
      return [-z, y];
    };
  }

  /** Move and slope at both ends of the beam itself. */
  private ownEnds(beam: number, plane: 0 | 1, local: Float64Array): Float64Array {
    const { at, sign } = planes[plane];
    const from = beam * 32 + plane * 16;
    const out = new Float64Array(4);
    for (let i = 0; i < 4; i++) {
      let sum = 0;
      for (let j = 0; j < 4; j++) sum += this.ends[from + i * 4 + j]! * local[at[j as 0]]!;
      out[i] = i % 2 === 1 ? sign * sum : sum;
    }
    return out;
  }
}

const moved = new Float64Array(12),
  pushed = new Float64Array(12);
const plain = new Float64Array(16),
  half = new Float64Array(16);

/** Integrals over the beam of pull times products of the slopes a, b, c of a cubic for a move, and for a turn at each end. */
let aa = 0,
  ab = 0,
  ac = 0,
  bb = 0,
  bc = 0,
  cc = 0;
const gauss = [
  [0.5 - Math.sqrt(0.15), 5 / 18],
  [0.5, 8 / 18],
  [0.5 + Math.sqrt(0.15), 5 / 18],
] as const;

/** Three places between two cuts, where the push changes evenly, integrate these exactly. */
function slopesUnder(push: PushAlong, length: number): void {
  aa = ab = ac = bb = bc = cc = 0;
  for (let i = 1; i < push.length; i++) {
    const from = push[i - 1]!,
      to = push[i]!;
    const span = (to.at - from.at) / length;
    if (!(span > 0)) continue;
    for (let g = 0; g < 3; g++) {
      const share = gauss[g]![0],
        weight = gauss[g]![1];
      const x = (from.at + share * (to.at - from.at)) / length;
      const pull = -(from.axial + share * (to.axial - from.axial)) * weight * span;
      const a = 6 * x * (1 - x),
        b = 1 - 4 * x + 3 * x * x,
        c = 3 * x * x - 2 * x;
      aa += pull * a * a;
      ab += pull * a * b;
      ac += pull * a * c;
      bb += pull * b * b;
      bc += pull * b * c;
      cc += pull * c * c;
    }
  }
}

/** Move across at a place along a beam, from move and slope at its ends. */
function moveAt(ends: Float64Array, length: number, at: number): number {
  const s = at / length;
  return (
    ends[0]! * (1 - 3 * s * s + 2 * s ** 3) +
    ends[1]! * length * (s - 2 * s * s + s ** 3) +
    ends[2]! * (3 * s * s - 2 * s ** 3) +
    ends[3]! * length * (s ** 3 - s * s)
  );
}

/** out = times C^T k C for four-by-fours. */
function through(c: Float64Array, k: Float64Array, out: Float64Array, times: number): void {
  for (let i = 0; i < 4; i++) {
    for (let j = 0; j < 4; j++) {
      let sum = 0;
      for (let m = 0; m < 4; m++) sum += k[i * 4 + m]! * c[m * 4 + j]!;
      half[i * 4 + j] = sum;
    }
  }
  for (let i = 0; i < 4; i++) {
    for (let j = 0; j < 4; j++) {
      let sum = 0;
      for (let m = 0; m < 4; m++) sum += c[m * 4 + i]! * half[m * 4 + j]!;
      out[i * 4 + j] = times * sum;
    }
  }
}

/**
 * The beam's own moves and turns v, e, v2, e2 from those of its joints v, r, v2, r2. A sprung end turns by what bending and
 * spring agree on: (k_e + spring)(e) = spring r - k_v v.
 */
function endsOf(
  out: Float64Array,
  ei: number,
  l: number,
  sign: number,
  springFrom = Infinity,
  springTo = Infinity,
): void {
  out.fill(0);
  for (let i = 0; i < 4; i++) out[i * 5] = 1;
  if (springFrom === Infinity && springTo === Infinity) return;
  const k = (4 * ei) / l,
    across = (sign * 6 * ei) / (l * l);
  // A rigid end: its turn is the joint's, written as an equation like the others.
  const [a11, a12, b1] =
    springFrom === Infinity
      ? ([1, 0, [0, 1, 0, 0]] as const)
      : ([k + springFrom, k / 2, [-across, springFrom, across, 0]] as const);
  const [a21, a22, b2] =
    springTo === Infinity
      ? ([0, 1, [0, 0, 0, 1]] as const)
      : ([k / 2, k + springTo, [-across, 0, across, springTo]] as const);
  const det = a11 * a22 - a12 * a21;
  for (let j = 0; j < 4; j++) {
    const p = b1[j as 0],
      q = b2[j as 0];
    out[4 + j] = (a22 * p - a12 * q) / det;
    out[12 + j] = (a11 * q - a21 * p) / det;
  }
}
