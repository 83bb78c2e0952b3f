import { distance, success, type Result } from '../quantity';
import { cutMembers, pushWithin } from './cut-members';
import { factorFrame, type FactoredFrame, type FrameModel } from './frame';
import { GeometricStiffness, type PushAlong } from './geometric-stiffness';

/**
 * Linear buckling of a frame: the factor by which its axial forces would have to grow until it bows out sideways. Solves
 * K x = factor (-K_g) x by Lanczos in the product of K. Source: Przemieniecki, *Theory of Matrix Structural Analysis*,
 * ch. 15. Left out: imperfection, yielding.
 */
export interface Buckling {
  /** Infinity where nothing is pushed, or nothing bows. */
  readonly factor: number;
  /** By member: its share 0..1 in what bends as it bows, the largest 1: where stiffness would help. */
  readonly shares: readonly number[];
}

/** Of a frame whose pushed members are cut finely enough. */
export function bucklingOf(pushes: GeometricStiffness): Buckling {
  const { frame } = pushes;
  const found = lanczos(
    frame.order,
    (x, out) => bent(pushes, x, out),
    (x) => frame.solveRows(x),
    mostSteps,
  );
  if (!(found.largest > 1e-12) || !Number.isFinite(found.largest))
    return { factor: Infinity, shares: frame.beams.map(() => 0) };
  const work = frame.strainEnergies(found.vector);
  const most = work.reduce((m, w) => Math.max(m, w), 1e-300);
  return { factor: 1 / found.largest, shares: Array.from(work, (w) => Math.max(0, w / most)) };
}

/** Of any frame, `push[m]` along each of its members: those that are pressed hardest for what they are get cut first. */
export function bucklingOfModel(model: FrameModel, push: readonly PushAlong[]): Result<Buckling> {
  const pressed = pressedOf(model, push);
  const most = pressed.reduce((w, r) => Math.max(w, r), 0);
  const cut = cutMembers(
    model,
    pressed.map((r) => (r > slight * most ? piecesOfPushed : 1)),
  );
  const frame = factorFrame(cut.model);
  if (!frame.ok) return frame;
  if (most <= 0) return success({ factor: Infinity, shares: model.members.map(() => 0) });
  const lengths = lengthsOf(model);
  const along = cut.owner.map((m, p) => {
    const n = cut.pieces[m]!,
      from = (p - cut.first[m]!) / n;
    return n === 1 ? push[m]! : pushWithin(push[m]!, from * lengths[m]!, (from + 1 / n) * lengths[m]!);
  });
  const { factor, shares } = bucklingOf(new GeometricStiffness(frame.value, along));
  const work = model.members.map(() => 0);
  shares.forEach((s, p) => {
    work[cut.owner[p]!] = Math.max(work[cut.owner[p]!]!, s);
  });
  return success({ factor, shares: work });
}

const piecesOfPushed = 4;
/** Of the hardest-pressed member's push over its own Euler load: less than this and one beam is enough. */
const slight = 0.05;

/** Length of each member, metres. */
export function lengthsOf(model: FrameModel): number[] {
  const place = new Map(model.nodes.map((n) => [n.id, n.at]));
  return model.members.map((m) => {
    const a = place.get(m.from),
      b = place.get(m.to);
    return a && b ? distance(a, b) : 0;
  });
}

/** By member, its hardest push over what it would bow under as Euler's pinned column. */
export function pressedOf(model: FrameModel, push: readonly PushAlong[]): number[] {
  const lengths = lengthsOf(model);
  return model.members.map((m, i) => {
    const most = push[i]!.reduce((w, s) => Math.max(w, s.axial), 0);
    return (most * lengths[i]! ** 2) / (Math.PI ** 2 * m.E * Math.min(m.Iy, m.Iz));
  });
}

/**
 * A rough look at how near a solved frame is to bowing: 1/factor, good to a factor of about two and seldom low. From a
 * few Lanczos steps on the frame as it is, and every member between its own joints as Euler's pinned column.
 */
export function bucklingNear(frame: FactoredFrame, push: readonly PushAlong[], pushes: GeometricStiffness): number {
  const local = pressedOf(frame.model, push).reduce((most, r) => Math.max(most, r), 0);
  const sway = lanczos(
    frame.order,
    (x, out) => bent(pushes, x, out),
    (x) => frame.solveRows(x),
    roughSteps,
  ).largest;
  return Math.max(local, 2 * sway);
}

const roughSteps = 4;

/** out = -K_g x: what bends it further. */
function bent(pushes: GeometricStiffness, x: Float64Array, out: Float64Array): void {
  out.fill(0);
  pushes.addTimes(x, -1, out);
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
