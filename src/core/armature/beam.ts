import { cross, dot, norm, scale, subtract, unit, type Vec3 } from '../quantity';

const { abs } = Math;

/**
 * One Euler-Bernoulli beam in space: local axes, stiffness, consistent loads.
 * Local degrees of freedom, each end: u, v, w, then rotations about x, y, z.
 * Source: Przemieniecki, *Theory of Matrix Structural Analysis*, ch. 5. Left out: shear deformation, large displacement.
 */
export interface BeamSection {
  readonly E: number;
  readonly G: number;
  readonly A: number;
  /** Bends about local y. */
  readonly Iy: number;
  readonly Iz: number;
  readonly J: number;
}

/** Local x, y, z as rows, in global axes. */
export type Axes = readonly [Vec3, Vec3, Vec3];

/** z is as near `up` as it can be; a member along `up` takes local y = global y. */
export function beamAxes(from: Vec3, to: Vec3, up: Vec3 = [0, 0, 1]): Axes {
  const x = unit(subtract(to, from));
  const upward = unit(up);
  if (norm(cross(x, upward)) < 1e-6) {
    const y: Vec3 = abs(x[1]) > 0.999 ? [0, 0, 1] : [0, 1, 0];
    const yClean = unit(subtract(y, scale(x, dot(x, y))));
    return [x, yClean, cross(x, yClean)];
  }
  const z = unit(subtract(upward, scale(x, dot(x, upward))));
  return [x, cross(z, x), z];
}

/** Writes the 12 x 12 local stiffness, row-major, into `out`. */
export function beamStiffness(s: BeamSection, length: number, out: Float64Array): void {
  out.fill(0);
  put(out, 0, 6, (s.E * s.A) / length);
  put(out, 3, 9, (s.G * s.J) / length);
  // Bending in the x-y plane (v and rotation about z), then in x-z, where rotation about y turns the other way.
  bend(out, s.E * s.Iz, length, 1, 5, 1);
  bend(out, s.E * s.Iy, length, 2, 4, -1);
}

/** A spring of stiffness `k` between two freedoms. */
function put(out: Float64Array, i: number, j: number, k: number): void {
  out[i * 12 + i] = k;
  out[j * 12 + j] = k;
  out[i * 12 + j] = -k;
  out[j * 12 + i] = -k;
}

/** The four-by-four of bending on freedoms v, r at the start and v + 6, r + 6 at the end. */
function bend(out: Float64Array, ei: number, l: number, v: number, r: number, sign: number): void {
  const a = (12 * ei) / l ** 3;
  const b = (sign * 6 * ei) / l ** 2;
  const c = (4 * ei) / l;
  put(out, v, v + 6, a);
  const v2 = v + 6,
    r2 = r + 6;
  out[r * 12 + r] = c;
  out[r2 * 12 + r2] = c;
  out[r * 12 + r2] = c / 2;
  out[r2 * 12 + r] = c / 2;
  out[v * 12 + r] = b;
  out[r * 12 + v] = b;
  out[v * 12 + r2] = b;
  out[r2 * 12 + v] = b;
  out[v2 * 12 + r] = -b;
  out[r * 12 + v2] = -b;
  out[v2 * 12 + r2] = -b;
  out[r2 * 12 + v2] = -b;
}

/** A load on a beam in local axes: at `at` metres from its start, or spread over its length when `at` is null. */
export interface BeamLoad {
  readonly at: number | null;
  /** N, or N/m when spread. */
  readonly force: Vec3;
  /** Nm; ignored when spread. */
  readonly moment: Vec3;
}

/** Adds the consistent nodal loads of `load` into `out` (12). Exact for Euler-Bernoulli beams. */
export function consistentLoad(load: BeamLoad, length: number, out: Float64Array): void {
  const add = (i: number, value: number) => {
    out[i]! += value;
  };
  const [fx, fy, fz] = load.force;
  if (load.at === null) {
    const half = length / 2;
    add(0, fx * half);
    add(6, fx * half);
    add(1, fy * half);
    add(7, fy * half);
    add(2, fz * half);
    add(8, fz * half);
    const m = (length * length) / 12;
    add(5, fy * m);
    add(11, -fy * m);
    add(4, -fz * m);
    add(10, fz * m);
    return;
  }
  const s = load.at / length;
  const [mx, my, mz] = load.moment;
  const n1 = 1 - 3 * s * s + 2 * s ** 3;
  const n2 = length * (s - 2 * s * s + s ** 3);
  const n4 = length * (s ** 3 - s * s);
  const d1 = (-6 * s + 6 * s * s) / length;
  const d2 = 1 - 4 * s + 3 * s * s;
  const d4 = 3 * s * s - 2 * s;
  add(0, fx * (1 - s));
  add(6, fx * s);
  add(3, mx * (1 - s));
  add(9, mx * s);
  add(1, fy * n1 + mz * d1);
  add(5, fy * n2 + mz * d2);
  add(7, fy * (1 - n1) - mz * d1);
  add(11, fy * n4 + mz * d4);
  add(2, fz * n1 - my * d1);
  add(4, -fz * n2 + my * d2);
  add(8, fz * (1 - n1) + my * d1);
  add(10, -fz * n4 + my * d4);
}

const springRow = new Float64Array(12);
/** Freedoms that bend together with each end rotation: all others are zero in its row. */
const bendsWith: Readonly<Record<number, readonly number[]>> = {
  4: [2, 4, 8, 10],
  10: [2, 4, 8, 10],
  5: [1, 5, 7, 11],
  11: [1, 5, 7, 11],
};

/**
 * Puts a rotational spring of `stiffness` (Nm/rad) between the beam's end and its node at local freedom `i`
 * (4, 5, 10 or 11), condensing the beam's own rotation out of stiffness and loads. Infinite is rigid, zero a hinge.
 */
export function condenseSpring(i: 4 | 5 | 10 | 11, stiffness: number, k: Float64Array, f: Float64Array): void {
  if (!Number.isFinite(stiffness)) return;
  const kii = k[i * 12 + i]!;
  const total = kii + stiffness;
  if (total <= 0) return;
  const group = bendsWith[i]!;
  const row = springRow;
  for (let g = 0; g < 4; g++) row[group[g]!] = k[i * 12 + group[g]!]!;
  const fi = f[i]!;
  for (let g = 0; g < 4; g++) {
    const a = group[g]!;
    if (a === i) continue;
    const share = row[a]! / total;
    for (let h = 0; h < 4; h++) {
      const b = group[h]!;
      if (b !== i) k[a * 12 + b] = k[a * 12 + b]! - share * row[b]!;
    }
    k[a * 12 + i] = share * stiffness;
    k[i * 12 + a] = share * stiffness;
    f[a] = f[a]! - share * fi;
  }
  k[i * 12 + i] = (stiffness * kii) / total;
  f[i] = (fi * stiffness) / total;
}

/** What a section carries at one place along a beam, local axes. */
export interface SectionForces {
  readonly at: number;
  readonly axial: number;
  readonly shearY: number;
  readonly shearZ: number;
  readonly torsion: number;
  readonly momentY: number;
  readonly momentZ: number;
}

/** The same, read from a row of figures that all sections of a frame share: there are thousands of them to a solution. */
class Cut implements SectionForces {
  constructor(
    private readonly rows: Float64Array,
    private readonly row: number,
  ) {}
  get at(): number {
    return this.rows[this.row]!;
  }
  get axial(): number {
    return this.rows[this.row + 1]!;
  }
  get shearY(): number {
    return this.rows[this.row + 2]!;
  }
  get shearZ(): number {
    return this.rows[this.row + 3]!;
  }
  get torsion(): number {
    return this.rows[this.row + 4]!;
  }
  get momentY(): number {
    return this.rows[this.row + 5]!;
  }
  get momentZ(): number {
    return this.rows[this.row + 6]!;
  }
}
const perCut = 7;
const still = [0, 0] as const;

/** Where the sections of a frame are written, one after another. */
export class CutRows {
  private rows: Float64Array;
  private used = 0;

  constructor(cuts: number) {
    this.rows = new Float64Array(Math.max(1, cuts) * perCut);
  }

  add(
    at: number,
    axial: number,
    shearY: number,
    shearZ: number,
    torsion: number,
    momentY: number,
    momentZ: number,
  ): SectionForces {
    if (this.used + perCut > this.rows.length) {
      // Those written keep the rows they are in.
      this.rows = new Float64Array(this.rows.length);
      this.used = 0;
    }
    const { rows, used } = this;
    rows[used] = at;
    rows[used + 1] = axial;
    rows[used + 2] = shearY;
    rows[used + 3] = shearZ;
    rows[used + 4] = torsion;
    rows[used + 5] = momentY;
    rows[used + 6] = momentZ;
    this.used = used + perCut;
    return new Cut(rows, used);
  }
}

/**
 * Section forces at the ends, at each point load (both sides; they come in their order along the beam) and where a spread load makes a moment peak, written into
 * `rows`. `bent` gives what an axial force adds about y and z where the beam has moved to, between two cuts.
 */
export function sectionForces(
  end: Float64Array,
  loads: readonly BeamLoad[],
  length: number,
  rows: CutRows = new CutRows(2 * loads.length + 2),
  bent?: (at: number, axial: number) => readonly [number, number],
): SectionForces[] {
  let qx = 0,
    qy = 0,
    qz = 0;
  for (const l of loads) {
    if (l.at === null) {
      qx += l.force[0];
      qy += l.force[1];
      qz += l.force[2];
    }
  }
  const out: SectionForces[] = [];
  // Running totals of what stands left of the cut: forces, their first moments, and couples.
  let px = end[0]!,
    py = end[1]!,
    pz = end[2]!;
  let pya = 0,
    pza = 0;
  let mx = end[3]!,
    my = end[4]!,
    mz = end[5]!;
  const cut = (x: number) => {
    const axial = px + qx * x;
    const [aboutY, aboutZ] = bent ? bent(x, axial) : still;
    out.push(
      rows.add(
        x,
        axial,
        py + qy * x,
        pz + qz * x,
        mx,
        my + pz * x - pza + (qz * x * x) / 2 + aboutY,
        mz - (py * x - pya) - (qy * x * x) / 2 + aboutZ,
      ),
    );
  };
  let from = 0;
  const peak = (at: number, to: number) => {
    if (at > from && at < to) cut(at);
  };
  const span = (to: number) => {
    cut(from);
    if (qy !== 0) peak(-py / qy, to);
    if (qz !== 0) peak(-pz / qz, to);
    cut(to);
    from = to;
  };
  for (const load of loads) {
    const a = load.at;
    if (a === null) continue;
    span(a);
    px += load.force[0];
    py += load.force[1];
    pz += load.force[2];
    pya += load.force[1] * a;
    pza += load.force[2] * a;
    mx += load.moment[0];
    my += load.moment[1];
    mz += load.moment[2];
  }
  span(length);
  return out;
}
