import {
  cross,
  distance,
  dot,
  gravity,
  norm,
  scale,
  subtract,
  success,
  unit,
  type Result,
  type Vec3,
} from '../quantity';
import { Shell, type ShellInputs } from './shell-solve';

/**
 * A shell that is taken in hand: squeezed, pressed with a thumb, dropped. It is held by nothing while it is: what presses
 * it is balanced by its own inertia. SI.
 */
export interface HandledInputs extends Pick<ShellInputs, 'positions' | 'triangles' | 'material'> {
  readonly thickness: number;
  readonly density: number;
}

export type HandledId = 'across' | 'front-to-back' | 'thumb' | 'dropped';

export interface Handled {
  readonly id: HandledId;
  /** Where it is pressed or hit. */
  readonly at: Vec3;
  /** N there. */
  readonly force: number;
  /** Metres it gives there: how much two hands come together, how deep a thumb or the floor goes in. */
  readonly gives: number;
  /** The largest pull on either face of it, Pa, and where: it cracks there first. */
  readonly stress: number;
  readonly cracksAt: Vec3;
}

/** N of two hands, of a thumb; metres of a table; metres round the middle of what presses. */
export const squeeze = 100,
  thumb = 50,
  tableHeight = 0.75,
  pressed = 0.015;

/** Places a thumb is tried at, strewn over it. */
const thumbs = 24;

/** Fails as `Shell.of` does. Tells how far it is between cases. */
export function* handled(
  inputs: HandledInputs,
): Generator<number, Result<{ mass: number; cases: Handled[] }>, undefined> {
  const { triangles, thickness, material } = inputs;
  const body = bodyOf(inputs);
  const first = triangles[0]!;
  // Held at one point in all six ways it can move nowhere, and what is balanced pulls at that point with nothing.
  const held = new Map([[first, [true, true, true, true, true, true]]]);
  const shell = Shell.of({ ...inputs, thickness: () => thickness, material, held });
  if (!shell.ok) return shell;
  yield 0.3;
  const ask = (pushes: readonly { readonly at: Vec3; readonly force: Vec3 }[]) => {
    const loads = new Float64Array(6 * body.points.length);
    for (const { at, force } of pushes) spread(body, loads, at, force);
    balance(body, loads);
    const moves = shell.value.solve(loads);
    let work = 0;
    for (let i = 0; i < loads.length; i++) work += loads[i]! * moves[i]!;
    let stress = -Infinity,
      where = 0;
    for (const [t, s] of shell.value.stresses(moves).entries()) if (s.pull > stress) [stress, where] = [s.pull, t];
    return { work, stress, cracksAt: middleOf(body, triangles, where) };
  };
  const cases: Handled[] = [];
  for (const [id, axis] of [
    ['across', 0],
    ['front-to-back', 1],
  ] as const) {
    const [from, to] = ends(body, axis);
    const way = unit(subtract(to, from));
    const { work, stress, cracksAt } = ask([
      { at: from, force: scale(way, squeeze) },
      { at: to, force: scale(way, -squeeze) },
    ]);
    cases.push({ id, at: from, force: squeeze, gives: work / squeeze, stress, cracksAt });
    yield 0.3 + 0.1 * cases.length;
  }
  let worst: Handled | null = null;
  for (const at of strewn(body, thumbs)) {
    const { work, stress, cracksAt } = ask([{ at, force: scale(normalAt(body, at), -thumb) }]);
    if (!worst || stress > worst.stress)
      worst = { id: 'thumb', at, force: thumb, gives: work / thumb, stress, cracksAt };
  }
  cases.push(worst!);
  yield 0.8;
  let hardest: Handled | null = null;
  for (const axis of [0, 1, 2] as const)
    for (const at of ends(body, axis)) {
      // Met by the floor towards the middle of its weight.
      const { work, stress, cracksAt } = ask([{ at, force: unit(subtract(body.centre, at)) }]);
      // What it had fallen goes into bending it: half the force times the way it gives.
      const force = Math.sqrt((2 * body.mass * gravity * tableHeight) / work);
      const hit: Handled = { id: 'dropped', at, force, gives: force * work, stress: stress * force, cracksAt };
      if (!hardest || hit.stress > hardest.stress) hardest = hit;
    }
  cases.push(hardest!);
  return success({ mass: body.mass, cases });
}

interface Body {
  readonly points: readonly Vec3[];
  readonly normals: readonly Vec3[];
  /** m2 and kg of each point. */
  readonly areas: Float64Array;
  readonly masses: Float64Array;
  readonly mass: number;
  readonly centre: Vec3;
}

function bodyOf({ positions: p, triangles, thickness, density }: HandledInputs): Body {
  const count = p.length / 3;
  const points = Array.from({ length: count }, (_, i): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!]);
  const areas = new Float64Array(count);
  const sums = Array.from({ length: count }, () => [0, 0, 0]);
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => points[triangles[t + k]!]!) as [Vec3, Vec3, Vec3];
    const u = subtract(b, a),
      v = subtract(c, a);
    const n = cross(u, v);
    const area = norm(n) / 2;
    for (let k = 0; k < 3; k++) {
      areas[triangles[t + k]!]! += area / 3;
      for (let i = 0; i < 3; i++) sums[triangles[t + k]!]![i]! += n[i as 0];
    }
  }
  const masses = areas.map((a) => a * thickness * density);
  const mass = masses.reduce((sum, m) => sum + m, 0);
  const centre = [0, 1, 2].map((k) => points.reduce((sum, q, i) => sum + q[k as 0] * masses[i]!, 0) / mass);
  const normals = sums.map((n): Vec3 => scale(n as unknown as Vec3, 1 / (Math.hypot(...n) || 1)));
  return { points, normals, areas, masses, mass, centre: centre as unknown as Vec3 };
}

/** The two points furthest out along an axis. */
function ends({ points, masses }: Body, axis: 0 | 1 | 2): [Vec3, Vec3] {
  let low: Vec3 | null = null,
    high: Vec3 | null = null;
  for (const [i, p] of points.entries()) {
    if (!(masses[i]! > 0)) continue;
    if (!low || p[axis] < low[axis]) low = p;
    if (!high || p[axis] > high[axis]) high = p;
  }
  return [low!, high!];
}

/** So many points, each as far from those before it as can be. */
function strewn({ points, masses }: Body, count: number): Vec3[] {
  const there = points.filter((_, i) => masses[i]! > 0);
  const least = new Float64Array(there.length).fill(Infinity);
  const out: Vec3[] = [];
  let next = 0;
  while (out.length < Math.min(count, there.length)) {
    out.push(there[next]!);
    for (const [i, p] of there.entries()) least[i] = Math.min(least[i]!, distance(p, there[next]!));
    next = least.reduce((best, v, i) => (v > least[best]! ? i : best), 0);
  }
  return out;
}

function normalAt({ points, normals }: Body, at: Vec3): Vec3 {
  return normals[points.findIndex((p) => p === at)] ?? [0, 0, 1];
}

/** A force shared by area among the points it presses on; the one nearest where there are none. */
function spread({ points, areas }: Body, loads: Float64Array, at: Vec3, force: Vec3): void {
  const under: number[] = [];
  let area = 0;
  for (const [i, p] of points.entries())
    if (areas[i]! > 0 && distance(p, at) <= pressed) {
      under.push(i);
      area += areas[i]!;
    }
  for (const i of under) for (let k = 0; k < 3; k++) loads[6 * i + k]! += (force[k as 0] * areas[i]!) / area;
}

/** Takes from the loads what would move it as a whole: it flies off as a stiff body does, every point by its mass. */
function balance({ points, masses, mass, centre }: Body, loads: Float64Array): void {
  const sum = [0, 0, 0],
    turn = [0, 0, 0];
  // Moments of inertia about the centre.
  const inertia = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (const [i, p] of points.entries()) {
    const r = subtract(p, centre);
    const f: Vec3 = [loads[6 * i]!, loads[6 * i + 1]!, loads[6 * i + 2]!];
    const m = cross(r, f);
    for (let k = 0; k < 3; k++) {
      sum[k]! += f[k as 0];
      turn[k]! += m[k as 0] + loads[6 * i + 3 + k]!;
      for (let l = 0; l < 3; l++)
        inertia[k]![l]! += masses[i]! * ((k === l ? r[0] ** 2 + r[1] ** 2 + r[2] ** 2 : 0) - r[k as 0] * r[l as 0]);
    }
  }
  const spin = solved(inertia, turn as unknown as Vec3);
  for (const [i, p] of points.entries()) {
    const off = cross(spin, subtract(p, centre));
    for (let k = 0; k < 3; k++) loads[6 * i + k]! -= masses[i]! * (sum[k]! / mass + off[k as 0]);
  }
}

/** By Cramer's rule. */
function solved(m: readonly (readonly number[])[], v: Vec3): Vec3 {
  const column = (k: number): Vec3 => [m[0]![k]!, m[1]![k]!, m[2]![k]!];
  const triple = (x: Vec3, y: Vec3, z: Vec3) => dot(x, cross(y, z));
  const [a, b, c] = [column(0), column(1), column(2)];
  const whole = triple(a, b, c);
  return whole === 0 ? [0, 0, 0] : [triple(v, b, c) / whole, triple(a, v, c) / whole, triple(a, b, v) / whole];
}

function middleOf({ points }: Body, triangles: ArrayLike<number>, t: number): Vec3 {
  const corners = [0, 1, 2].map((k) => points[triangles[3 * t + k]!]!);
  return [0, 1, 2].map((k) => corners.reduce((sum, p) => sum + p[k as 0], 0) / 3) as unknown as Vec3;
}
