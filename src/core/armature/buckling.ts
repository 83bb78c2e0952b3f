import { distance, failure, mix, success, type Result, type Vec3 } from '../quantity';
import { beamAxes, beamStiffness } from './beam';
import { factorFrame, type FactoredFrame, type FrameMember, type FrameModel, type FrameNode } from './frame';

/**
 * Linear buckling of a frame: the factor by which its axial forces would have to grow until it bows out sideways. Solves
 * K x = factor (-K_g) x by Lanczos in the product of K, K_g the consistent geometric stiffness of a beam under axial
 * force. Source: Przemieniecki, *Theory of Matrix Structural Analysis*, ch. 15. Left out: imperfection, yielding.
 */
export interface Buckling {
  /** Infinity where nothing is pushed. */
  readonly factor: number;
  /** By member: its share 0..1 in the work of the bow, the largest 1. */
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
  if (!Number.isFinite(found.largest)) return failure('not-finite', 'members', 'the frame is too loose to say when it bows');
  if (found.largest <= 1e-12) return success({ factor: Infinity, shares: axial.map(() => 0) });
  const work = new Float64Array(model.members.length);
  for (const { k, rows, member } of geometric) {
    const y = new Float64Array(order);
    multiply(k, rows, found.vector, y);
    let w = 0;
    for (const r of rows) if (r >= 0) w += (found.vector[r] as number) * (y[r] as number);
    (work[split.owner[member] as number] as number) += w;
  }
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
    const push = -(axial[i] as number);
    return push > 0 ? Math.max(most, (push * distance(place.get(m.from) as Vec3, place.get(m.to) as Vec3) ** 2) / (Math.PI ** 2 * m.E * Math.min(m.Iy, m.Iz))) : most;
  }, 0);
  const sway = lanczos(frame.order, timesOf(geometricParts(frame, axial)), (x) => frame.solveRows(x), roughSteps).largest;
  return Math.max(local, 2 * sway);
}

const roughSteps = 4;
/** Members with less than this share of the largest force neither push nor hold anything to speak of. */
const negligible = 1e-3;

function geometricParts(frame: FactoredFrame, axial: readonly number[]): Geometric[] {
  const place = new Map(frame.model.nodes.map((n) => [n.id, n.at]));
  const most = axial.reduce((m, n) => Math.max(m, Math.abs(n)), 0);
  return frame.model.members.flatMap((m, i) => (Math.abs(axial[i] as number) > negligible * most ? [geometricStiffness(frame, place, m, i, axial[i] as number)] : []));
}

function timesOf(parts: readonly Geometric[]): (x: Float64Array, out: Float64Array) => void {
  return (x, out) => {
    out.fill(0);
    for (const { k, rows } of parts) multiply(k, rows, x, out);
  };
}

/** Of the hardest-pressed member's push over its own Euler load: less than this and one beam is enough. */
const splitFrom = 0.15;

/** A pushed member is two beams, so that it can bow between its joints too. */
function splitPushed(model: FrameModel, axial: readonly number[]): { model: FrameModel; axial: number[]; owner: number[] } {
  const place = new Map(model.nodes.map((n) => [n.id, n.at]));
  const nodes: FrameNode[] = [...model.nodes];
  const members: FrameMember[] = [], forces: number[] = [], owner: number[] = [];
  const pressed = model.members.map((m, i) => {
    const a = place.get(m.from), b = place.get(m.to);
    return a && b ? (-(axial[i] as number) * distance(a, b) ** 2) / (Math.PI ** 2 * m.E * Math.min(m.Iy, m.Iz)) : 0;
  });
  const most = pressed.reduce((w, r) => Math.max(w, r), 0);
  model.members.forEach((m, i) => {
    const n = axial[i] as number;
    const a = place.get(m.from), b = place.get(m.to);
    if (!a || !b) return;
    if ((pressed[i] as number) < splitFrom * most || n >= 0) {
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

interface Geometric { readonly k: Float64Array; readonly rows: Int32Array; readonly member: number }

/** -K_g of one beam in global axes, on the frame's unknowns; end springs follow as in its stiffness. */
function geometricStiffness(frame: FactoredFrame, place: ReadonlyMap<string, Vec3>, m: FrameMember, index: number, axial: number): Geometric {
  const a = place.get(m.from) as Vec3, b = place.get(m.to) as Vec3;
  const length = distance(a, b);
  const local = new Float64Array(144);
  const c = -axial / (30 * length);
  const put = (v: number, r: number, sign: number) => {
    const v2 = v + 6, r2 = r + 6, l = length;
    const set = (i: number, j: number, value: number) => {
      local[i * 12 + j] = value * c;
      local[j * 12 + i] = value * c;
    };
    set(v, v, 36); set(v2, v2, 36); set(v, v2, -36);
    set(r, r, 4 * l * l); set(r2, r2, 4 * l * l); set(r, r2, -l * l);
    set(v, r, sign * 3 * l); set(v, r2, sign * 3 * l); set(v2, r, -sign * 3 * l); set(v2, r2, -sign * 3 * l);
  };
  put(1, 5, 1);
  put(2, 4, -1);
  const bent = throughSprings(m, length, local);
  return { k: toGlobal(beamAxes(a, b, m.up), bent), rows: frame.rowsOf(index), member: index };
}

/** The beam's own end rotations from its nodes', where springs stand between: k_c = C^T k C. */
function throughSprings(m: FrameMember, length: number, k: Float64Array): Float64Array {
  const { springFrom = Infinity, springTo = Infinity } = m;
  const ends = ([[4, springFrom], [5, springFrom], [10, springTo], [11, springTo]] as const).filter(([, s]) => Number.isFinite(s));
  if (ends.length === 0) return k;
  const stiff = new Float64Array(144);
  beamStiffness(m, length, stiff);
  let c = identity();
  for (const [i, spring] of ends) {
    const step = identity();
    const total = (stiff[i * 12 + i] as number) + spring;
    for (let j = 0; j < 12; j++) step[i * 12 + j] = j === i ? spring / total : -(stiff[i * 12 + j] as number) / total;
    // What is left of the beam once this end turns with its spring.
    const row = Float64Array.from({ length: 12 }, (_, j) => stiff[i * 12 + j] as number);
    for (let p = 0; p < 12; p++) {
      for (let q = 0; q < 12; q++) {
        if (p === i || q === i) continue;
        stiff[p * 12 + q] = (stiff[p * 12 + q] as number) - ((row[p] as number) * (row[q] as number)) / total;
      }
    }
    for (let p = 0; p < 12; p++) {
      if (p === i) continue;
      stiff[p * 12 + i] = ((row[p] as number) * spring) / total;
      stiff[i * 12 + p] = stiff[p * 12 + i] as number;
    }
    stiff[i * 12 + i] = (spring * (row[i] as number)) / total;
    c = product(c, step);
  }
  return product(transpose(c), product(k, c));
}

function identity(): Float64Array {
  const out = new Float64Array(144);
  for (let i = 0; i < 12; i++) out[i * 13] = 1;
  return out;
}

function transpose(m: Float64Array): Float64Array {
  const out = new Float64Array(144);
  for (let i = 0; i < 12; i++) for (let j = 0; j < 12; j++) out[j * 12 + i] = m[i * 12 + j] as number;
  return out;
}

function product(a: Float64Array, b: Float64Array): Float64Array {
  const out = new Float64Array(144);
  for (let i = 0; i < 12; i++) {
    for (let l = 0; l < 12; l++) {
      const v = a[i * 12 + l] as number;
      if (v === 0) continue;
      for (let j = 0; j < 12; j++) out[i * 12 + j] = (out[i * 12 + j] as number) + v * (b[l * 12 + j] as number);
    }
  }
  return out;
}

function toGlobal(axes: readonly [Vec3, Vec3, Vec3], k: Float64Array): Float64Array {
  const out = new Float64Array(144);
  const half = new Float64Array(9);
  for (let a = 0; a < 12; a += 3) {
    for (let b = 0; b < 12; b += 3) {
      for (let p = 0; p < 3; p++) for (let j = 0; j < 3; j++) {
        let sum = 0;
        for (let q = 0; q < 3; q++) sum += (k[(a + p) * 12 + b + q] as number) * ((axes[q] as Vec3)[j as 0 | 1 | 2]);
        half[p * 3 + j] = sum;
      }
      for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) {
        let sum = 0;
        for (let p = 0; p < 3; p++) sum += ((axes[p] as Vec3)[i as 0 | 1 | 2]) * (half[p * 3 + j] as number);
        out[(a + i) * 12 + b + j] = sum;
      }
    }
  }
  return out;
}

function multiply(k: Float64Array, rows: Int32Array, x: Float64Array, out: Float64Array): void {
  for (let i = 0; i < 12; i++) {
    const row = rows[i] as number;
    if (row < 0) continue;
    let sum = 0;
    for (let j = 0; j < 12; j++) {
      const column = rows[j] as number;
      if (column >= 0) sum += (k[i * 12 + j] as number) * (x[column] as number);
    }
    out[row] = (out[row] as number) + sum;
  }
}

const mostSteps = 28;

/** Largest eigenvalue of K^-1 B and its vector, B given by `times`, K^-1 in place by `solve`; kept orthogonal throughout. */
function lanczos(n: number, times: (x: Float64Array, out: Float64Array) => void, solve: (x: Float64Array) => void, steps: number): { largest: number; vector: Float64Array } {
  const q: Float64Array[] = [], p: Float64Array[] = [];
  const alpha: number[] = [], beta: number[] = [];
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
      if (size < 1e-10 * Math.max(1e-300, Math.abs(alpha[0] as number))) break;
      beta.push(size);
    }
    q.push(w.map((v) => v / size));
    p.push(kw.map((v) => v / size));
    const last = q[j] as Float64Array;
    times(last, b);
    alpha.push(inner(last, b));
    const value = largestOf(alpha, beta);
    if (j > 5 && value > 0 && Math.abs(value - best.value) < 1e-7 * value) {
      best = { value, steps: j + 1 };
      break;
    }
    best = { value, steps: j + 1 };
    kw = Float64Array.from(b);
    for (let i = 0; i <= j; i++) takeAway(kw, p[i] as Float64Array, inner(q[i] as Float64Array, kw));
    w = Float64Array.from(kw);
    solve(w);
  }
  const vector = new Float64Array(n);
  const weights = eigenvectorOf(alpha.slice(0, best.steps), beta, best.value);
  weights.forEach((s, i) => q[i]?.forEach((v, d) => {
    vector[d] = (vector[d] as number) + s * v;
  }));
  return { largest: best.value, vector };
}

function inner(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i] as number) * (b[i] as number);
  return sum;
}

function takeAway(from: Float64Array, what: Float64Array, times: number): void {
  for (let i = 0; i < from.length; i++) from[i] = (from[i] as number) - times * (what[i] as number);
}

/** Largest eigenvalue of a symmetric tridiagonal matrix by bisection on the count of those above. */
function largestOf(alpha: readonly number[], beta: readonly number[]): number {
  let low = Infinity, high = -Infinity;
  alpha.forEach((a, i) => {
    const r = Math.abs(beta[i - 1] ?? 0) + (i < alpha.length - 1 ? Math.abs(beta[i] ?? 0) : 0);
    low = Math.min(low, a - r);
    high = Math.max(high, a + r);
  });
  for (let k = 0; k < 100 && high - low > 1e-14 * Math.max(Math.abs(low), Math.abs(high)); k++) {
    const middle = (low + high) / 2;
    let d = 1, above = 0;
    alpha.forEach((a, i) => {
      const off = i === 0 ? 0 : (beta[i - 1] as number);
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
    const before = i === 0 ? 0 : (beta[i - 1] as number) * (v[i - 1] as number);
    v.push(((value - (alpha[i] as number)) * (v[i] as number) - before) / (beta[i] as number));
  }
  const size = Math.hypot(...v) || 1;
  return v.map((x) => x / size);
}
