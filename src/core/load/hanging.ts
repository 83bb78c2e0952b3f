import { gravity, add, cross, dot, norm, scale, subtract, unit, type Vec3 } from '../quantity';

/**
 * Hanging and wall pieces by statics of a rigid body. Left out: swing, stretch of lines, and what the hook or wall
 * itself takes.
 */
export interface HungShare {
  /** N in each line, downward pull on its point. */
  readonly pulls: readonly number[];
  /** Degrees it turns from how it was made until its weight hangs below what holds it. */
  readonly tilt: number;
  /** True when a line would have to push. */
  readonly slack: boolean;
}

/**
 * Upright lines from points: their shares are those of least squares that keep force and both level moments. From one
 * point it turns until the centre of gravity hangs below; from two, about the line through them.
 */
export function hangFrom(points: readonly Vec3[], mass: number, centre: Vec3): HungShare {
  const weight = mass * gravity;
  const middle = scale(
    points.reduce<Vec3>((s, p) => add(s, p), [0, 0, 0]),
    1 / points.length,
  );
  const first = points[0] ?? centre;
  if (points.length === 1) {
    const down = subtract(centre, first);
    return { pulls: [weight], tilt: angleFromDown(down), slack: false };
  }
  const shares = upwardShares(
    points.map((p): Vec3 => [p[0], p[1], 0]),
    centre,
  );
  let tilt = 0;
  if (points.length === 2) {
    const along = unit(subtract(points[1]!, first));
    const out = subtract(centre, middle);
    tilt = angleFromDown(subtract(out, scale(along, dot(out, along))));
  }
  return { pulls: shares.map((s) => s * weight), tilt, slack: shares.some((s) => s < -1e-9) };
}

function angleFromDown(v: Vec3): number {
  const n = norm(v);
  return n < 1e-9 ? 0 : (Math.acos(Math.min(1, Math.max(-1, -v[2] / n))) * 180) / Math.PI;
}

/** Shares of a weight at `centre` among supports: the least-norm ones that balance it, summing to one. */
export function upwardShares(supports: readonly Vec3[], centre: Vec3): number[] {
  const n = supports.length;
  if (n === 0) return [];
  // s = A^T (A A^T)^+ b with rows 1, x, y about the centre of gravity and b = (1, 0, 0).
  const rows = [supports.map(() => 1), supports.map((p) => p[0] - centre[0]), supports.map((p) => p[1] - centre[1])];
  const gram = rows.map((a) => rows.map((b) => a.reduce((s, v, i) => s + v * b[i]!, 0)));
  const solved = solveLeast(gram, [1, 0, 0]);
  const raw = supports.map((_, i) => rows.reduce((s, r, k) => s + solved[k]! * r[i]!, 0));
  const sum = raw.reduce((s, v) => s + v, 0);
  return sum > 1e-9 ? raw.map((v) => v / sum) : supports.map(() => 1 / n);
}

/** Three by three, with a little added on the diagonal so that points in a row still share out. */
function solveLeast(m: readonly (readonly number[])[], b: readonly number[]): number[] {
  const size = Math.max(...m.map((r, i) => r[i]!), 1e-12);
  const a = m.map((r, i) => r.map((v, j) => v + (i === j ? 1e-12 * size : 0)));
  const [p, q, r] = a as unknown as [Vec3, Vec3, Vec3];
  const det = dot(p, cross(q, r));
  const col = (k: number): Vec3[] =>
    [p, q, r].map((row, i) => row.map((v, j) => (j === k ? b[i]! : v)) as unknown as Vec3);
  return [0, 1, 2].map((k) => {
    const [x, y, z] = col(k) as [Vec3, Vec3, Vec3];
    return dot(x, cross(y, z)) / det;
  });
}

/** N in each of the upper half of a wall plate's screws: weight times how far it stands out, over the plate's height. */
export function wallPull(
  mass: number,
  standsOut: number,
  plateHeight: number,
  screws: number,
): { readonly tension: number; readonly shear: number } {
  const upper = Math.max(1, Math.ceil(screws / 2));
  return {
    tension: (mass * gravity * Math.max(0, standsOut)) / Math.max(1e-6, plateHeight) / upper,
    shear: (mass * gravity) / Math.max(1, screws),
  };
}
