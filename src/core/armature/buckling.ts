import { distance, failure, mix, success, type Result, type Vec3 } from '../quantity';
import { beamAxes } from './beam';
import { factorFrame, type FactoredFrame, type FrameMember, type FrameModel, type FrameNode } from './frame';

/**
 * Linear buckling of a frame: the factor by which its axial forces would have to grow until it bows out sideways. Solves
 * K x = factor (-K_g) x by Lanczos in the product of K, K_g the consistent geometric stiffness of a beam under axial
 * force. Source: Przemieniecki, *Theory of Matrix Structural Analysis*, ch. 15. Left out: imperfection, yielding.
 */
export interface Buckling {
  /** Infinity where nothing is pushed. */
  readonly factor: number;
  /** By member: its share 0..1 in what bends as it bows, the largest 1: where stiffness would help. */
  readonly shares: readonly number[];
}

/** `axial[m]`: N in each member, pulled positive, in the model's member order. */
export function bucklingOf(model: FrameModel, axial: readonly number[]): Result<Buckling> {
  if (!axial.some((n) => n < 0)) return success({ factor: Infinity, shares: axial.map(() => 0) });
  const split = splitPushed(model, axial);
  const frame = factorFrame(split.model);
  if (!frame.ok) return frame;
  const { order } = frame.value;
  const geometric = geometricParts(frame.value, split.axial);
  const found = lanczos(order, timesOf(geometric), (x) => frame.value.solveRows(x), mostSteps);
  if (!Number.isFinite(found.largest))
    return failure('not-finite', 'members', 'the frame is too loose to say when it bows');
  if (found.largest <= 1e-12) return success({ factor: Infinity, shares: axial.map(() => 0) });
  const work = new Float64Array(model.members.length);
  frame.value.strainEnergies(found.vector).forEach((energy, i) => {
    work[split.owner[i]!]! += energy;
  });
  const most = work.reduce((m, w) => Math.max(m, w), 1e-300);
  return success({ factor: 1 / found.largest, shares: Array.from(work, (w) => Math.max(0, w / most)) });
}

/**
 * A rough look at how near a solved frame is to bowing: 1/factor, good to a factor of about two and seldom low. From a
 * few Lanczos steps on the frame as it is, and every member between its own joints as Euler's pinned column.
 */
export function bucklingNear(frame: FactoredFrame, axial: readonly number[]): number {
  const place = new Map(frame.model.nodes.map((n) => [n.id, n.at]));
  const local = frame.model.members.reduce((most, m, i) => {
    const push = -axial[i]!;
    return push > 0
      ? Math.max(
          most,
          (push * distance(place.get(m.from)!, place.get(m.to)!) ** 2) / (Math.PI ** 2 * m.E * Math.min(m.Iy, m.Iz)),
        )
      : most;
  }, 0);
  const sway = lanczos(
    frame.order,
    timesOf(geometricParts(frame, axial)),
    (x) => frame.solveRows(x),
    roughSteps,
  ).largest;
  return Math.max(local, 2 * sway);
}

const roughSteps = 4;
/** Members with less than this share of the largest force neither push nor hold anything to speak of. */
const negligible = 1e-3;

function geometricParts(frame: FactoredFrame, axial: readonly number[]): Geometric[] {
  const most = axial.reduce((m, n) => Math.max(m, Math.abs(n)), 0);
  const units = unitParts(frame);
  return units.flatMap((u, i) => (Math.abs(axial[i]!) > negligible * most ? [{ ...u, axial: axial[i]! }] : []));
}

/** By frame: each member's matrix for a pull of 1 N. They depend on the frame alone and serve every load on it. */
const unitsOf = new WeakMap<FactoredFrame, readonly Omit<Geometric, 'axial'>[]>();

function unitParts(frame: FactoredFrame): readonly Omit<Geometric, 'axial'>[] {
  const kept = unitsOf.get(frame);
  if (kept) return kept;
  const place = new Map(frame.model.nodes.map((n) => [n.id, n.at]));
  const made = frame.model.members.map((m, i) => geometricStiffness(frame, place, m, i));
  unitsOf.set(frame, made);
  return made;
}

function timesOf(parts: readonly Geometric[]): (x: Float64Array, out: Float64Array) => void {
  return (x, out) => {
    out.fill(0);
    for (const { k, rows, axial } of parts) multiply(k, rows, axial, x, out);
  };
}

/** Of the hardest-pressed member's push over its own Euler load: less than this and one beam is enough. */
const splitFrom = 0.15;

/** A pushed member is two beams, so that it can bow between its joints too. */
function splitPushed(
  model: FrameModel,
  axial: readonly number[],
): { model: FrameModel; axial: number[]; owner: number[] } {
  const place = new Map(model.nodes.map((n) => [n.id, n.at]));
  const nodes: FrameNode[] = [...model.nodes];
  const members: FrameMember[] = [],
    forces: number[] = [],
    owner: number[] = [];
  const pressed = model.members.map((m, i) => {
    const a = place.get(m.from),
      b = place.get(m.to);
    return a && b ? (-axial[i]! * distance(a, b) ** 2) / (Math.PI ** 2 * m.E * Math.min(m.Iy, m.Iz)) : 0;
  });
  const most = pressed.reduce((w, r) => Math.max(w, r), 0);
  model.members.forEach((m, i) => {
    const n = axial[i]!;
    const a = place.get(m.from),
      b = place.get(m.to);
    if (!a || !b) return;
    if (pressed[i]! < splitFrom * most || n >= 0) {
      members.push(m);
      forces.push(n);
      owner.push(i);
      return;
    }
    const middle = `${m.id}\u0000middle`;
    nodes.push({ id: middle, at: mix(a, b, 0.5) });
    const { springFrom, springTo, ...rest } = m;
    members.push({ ...rest, id: `${m.id}\u00001`, to: middle, ...(springFrom === undefined ? {} : { springFrom }) });
    members.push({ ...rest, id: `${m.id}\u00002`, from: middle, ...(springTo === undefined ? {} : { springTo }) });
    forces.push(n, n);
    owner.push(i, i);
  });
  return { model: { nodes, members }, axial: forces, owner };
}

interface Geometric {
  readonly k: Float64Array;
  readonly rows: Int32Array;
  readonly axial: number;
}

/** -K_g of one beam under a pull of 1 N in global axes, on the frame's unknowns; end springs follow as in its stiffness. */
function geometricStiffness(
  frame: FactoredFrame,
  place: ReadonlyMap<string, Vec3>,
  m: FrameMember,
  index: number,
): Omit<Geometric, 'axial'> {
  const a = place.get(m.from)!,
    b = place.get(m.to)!;
  const length = distance(a, b);
  const local = new Float64Array(144);
  // Bending in x-y turns about z, in x-z about y the other way.
  bow(local, [1, 5, 7, 11], m.E * m.Iz, length, 1, m.springFrom, m.springTo);
  bow(local, [2, 4, 8, 10], m.E * m.Iy, length, -1, m.springFrom, m.springTo);
  return { k: toGlobal(beamAxes(a, b, m.up), local), rows: frame.rowsOf(index) };
}

const plain = new Float64Array(16),
  ends = new Float64Array(16),
  half = new Float64Array(16);

/** One plane of it on the freedoms v, r, v2, r2: C^T (-K_g) C, C taking the joints' turns to the beam's own ends through its springs. */
function bow(
  out: Float64Array,
  at: readonly [number, number, number, number],
  ei: number,
  l: number,
  sign: number,
  springFrom = Infinity,
  springTo = Infinity,
): void {
  const c = -1 / (30 * l),
    s = sign * 3 * l;
  plain.set([36, s, -36, s, s, 4 * l * l, -s, -l * l, -36, -s, 36, -s, s, -l * l, -s, 4 * l * l]);
  ends.fill(0);
  for (let i = 0; i < 4; i++) ends[i * 5] = 1;
  if (springFrom !== Infinity || springTo !== Infinity) throughSprings(ei, l, sign, springFrom, springTo);
  for (let i = 0; i < 4; i++) {
    for (let j = 0; j < 4; j++) {
      let sum = 0;
      for (let k = 0; k < 4; k++) sum += plain[i * 4 + k]! * ends[k * 4 + j]!;
      half[i * 4 + j] = sum;
    }
  }
  for (let i = 0; i < 4; i++) {
    for (let j = 0; j < 4; j++) {
      let sum = 0;
      for (let k = 0; k < 4; k++) sum += ends[k * 4 + i]! * half[k * 4 + j]!;
      out[at[i]! * 12 + at[j]!] = sum * c;
    }
  }
}

/** Rows 1 and 3 of `ends`: the beam's own end turns e from v, r, v2, r2, where (k_e + spring)(e) = spring r - k_v v. */
function throughSprings(ei: number, l: number, sign: number, springFrom: number, springTo: number): void {
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
    ends[4 + j] = (a22 * p - a12 * q) / det;
    ends[12 + j] = (a11 * q - a21 * p) / det;
  }
}

function toGlobal(axes: readonly [Vec3, Vec3, Vec3], k: Float64Array): Float64Array {
  const out = new Float64Array(144);
  const half = new Float64Array(9);
  for (let a = 0; a < 12; a += 3) {
    for (let b = 0; b < 12; b += 3) {
      for (let p = 0; p < 3; p++)
        for (let j = 0; j < 3; j++) {
          let sum = 0;
          for (let q = 0; q < 3; q++) sum += k[(a + p) * 12 + b + q]! * axes[q]![j as 0 | 1 | 2];
          half[p * 3 + j] = sum;
        }
      for (let i = 0; i < 3; i++)
        for (let j = 0; j < 3; j++) {
          let sum = 0;
          for (let p = 0; p < 3; p++) sum += axes[p]![i as 0 | 1 | 2] * half[p * 3 + j]!;
          out[(a + i) * 12 + b + j] = sum;
        }
    }
  }
  return out;
}

function multiply(k: Float64Array, rows: Int32Array, times: number, x: Float64Array, out: Float64Array): void {
  for (let i = 0; i < 12; i++) {
    const row = rows[i]!;
    if (row < 0) continue;
    let sum = 0;
    for (let j = 0; j < 12; j++) {
      const column = rows[j]!;
      if (column >= 0) sum += k[i * 12 + j]! * x[column]!;
    }
    out[row] = out[row]! + times * sum;
  }
}

const mostSteps = 28;

/** Largest eigenvalue of K^-1 B and its vector, B given by `times`, K^-1 in place by `solve`; kept orthogonal throughout. */
function lanczos(
  n: number,
  times: (x: Float64Array, out: Float64Array) => void,
  solve: (x: Float64Array) => void,
  steps: number,
): { largest: number; vector: Float64Array } {
  const q: Float64Array[] = [],
    p: Float64Array[] = [];
  const alpha: number[] = [],
    beta: number[] = [];
  // A start that favours nothing: the same every time.
  let start = 1;
  const force = Float64Array.from({ length: n }, () => {
    start = (start * 16807) % 2147483647;
    return start / 2147483647 - 0.5;
  });
  let w = Float64Array.from(force);
  solve(w);
  let kw = force;
  const b = new Float64Array(n);
  let best = { value: 0, steps: 0 };
  for (let j = 0; j < Math.min(steps, n); j++) {
    const size = Math.sqrt(Math.max(0, inner(w, kw)));
    if (!(size > 1e-300)) break;
    if (j > 0) {
      if (size < 1e-10 * Math.max(1e-300, Math.abs(alpha[0]!))) break;
      beta.push(size);
    }
    q.push(w.map((v) => v / size));
    p.push(kw.map((v) => v / size));
    const last = q[j]!;
    times(last, b);
    alpha.push(inner(last, b));
    const value = largestOf(alpha, beta);
    if (j > 5 && value > 0 && Math.abs(value - best.value) < 1e-7 * value) {
      best = { value, steps: j + 1 };
      break;
    }
    best = { value, steps: j + 1 };
    kw = Float64Array.from(b);
    for (let i = 0; i <= j; i++) takeAway(kw, p[i]!, inner(q[i]!, kw));
    w = Float64Array.from(kw);
    solve(w);
  }
  const vector = new Float64Array(n);
  const weights = eigenvectorOf(alpha.slice(0, best.steps), beta, best.value);
  weights.forEach((s, i) =>
    q[i]?.forEach((v, d) => {
      vector[d] = vector[d]! + s * v;
    }),
  );
  return { largest: best.value, vector };
}

function inner(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}

function takeAway(from: Float64Array, what: Float64Array, times: number): void {
  for (let i = 0; i < from.length; i++) from[i] = from[i]! - times * what[i]!;
}

/** Largest eigenvalue of a symmetric tridiagonal matrix by bisection on the count of those above. */
function largestOf(alpha: readonly number[], beta: readonly number[]): number {
  let low = Infinity,
    high = -Infinity;
  alpha.forEach((a, i) => {
    const r = Math.abs(beta[i - 1] ?? 0) + (i < alpha.length - 1 ? Math.abs(beta[i] ?? 0) : 0);
    low = Math.min(low, a - r);
    high = Math.max(high, a + r);
  });
  for (let k = 0; k < 100 && high - low > 1e-14 * Math.max(Math.abs(low), Math.abs(high)); k++) {
    const middle = (low + high) / 2;
    let d = 1,
      above = 0;
    alpha.forEach((a, i) => {
      const off = i === 0 ? 0 : beta[i - 1]!;
      d = a - middle - (off * off) / (d === 0 ? 1e-300 : d);
      if (d > 0) above += 1;
    });
    if (above > 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

function eigenvectorOf(alpha: readonly number[], beta: readonly number[], value: number): number[] {
  const n = alpha.length;
  const v = [1];
  for (let i = 0; i + 1 < n; i++) {
    const before = i === 0 ? 0 : beta[i - 1]! * v[i - 1]!;
    v.push(((value - alpha[i]!) * v[i]! - before) / beta[i]!);
  }
  const size = Math.hypot(...v) || 1;
  return v.map((x) => x / size);
}
