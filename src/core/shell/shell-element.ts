import { cross, dot, unit, subtract, type Vec3 } from '../quantity';

/**
 * A flat triangle of a thin shell, six ways to move at each corner: along x, y, z and about them. It bends as a discrete
 * Kirchhoff triangle (Batoz, Bathe and Ho 1980, *A study of three-node triangular plate bending elements*) and stretches
 * as the optimal triangle with drilling freedoms (Felippa 2003, *A study of optimal membrane triangles with drilling
 * freedoms*), in which a side bends in the plane too. SI.
 */
export interface ShellMaterial {
  /** Pa. */
  readonly youngs: number;
  readonly poisson: number;
}

export type Corners = readonly [Vec3, Vec3, Vec3];

/** Rows of numbers. */
type Matrix = number[][];

/** The triangle laid in its own plane: its first side along x. */
interface Flat {
  readonly x: readonly [number, number, number];
  readonly y: readonly [number, number, number];
  readonly area: number;
  /** Unit vectors of the plane and out of it. */
  readonly axes: readonly [Vec3, Vec3, Vec3];
}

function flatten([a, b, c]: Corners): Flat {
  const side = subtract(b, a),
    other = subtract(c, a);
  const normal = cross(side, other);
  const twice = Math.hypot(...normal);
  const e1 = unit(side),
    e3 = unit(normal);
  const e2 = cross(e3, e1);
  return {
    x: [0, Math.hypot(...side), dot(other, e1)],
    y: [0, 0, dot(other, e2)],
    area: twice / 2,
    axes: [e1, e2, e3],
  };
}

const zeros = (rows: number, columns: number): Matrix => Array.from({ length: rows }, () => new Array(columns).fill(0));

/** `a` transposed times `b` times `a`, times `share`, added to `into`. */
function addSquare(into: Matrix, a: Matrix, b: Matrix, share: number): void {
  const inner = b.map((row) => a[0]!.map((_, j) => row.reduce((sum, v, k) => sum + v * a[k]![j]!, 0)));
  for (let i = 0; i < into.length; i++)
    for (let j = 0; j < into.length; j++) {
      let sum = 0;
      for (let k = 0; k < a.length; k++) sum += a[k]![i]! * inner[k]![j]!;
      into[i]![j]! += share * sum;
    }
}

const transposed = (a: Matrix): Matrix => a[0]!.map((_, j) => a.map((row) => row[j]!));

/** Plane stress: strains along x and y and the change of angle to stresses, Pa. */
function planeStress({ youngs, poisson }: ShellMaterial): Matrix {
  const e = youngs / (1 - poisson ** 2);
  return [
    [e, e * poisson, 0],
    [e * poisson, e, 0],
    [0, 0, (e * (1 - poisson)) / 2],
  ];
}

const next = [1, 2, 0] as const;

/**
 * Slopes of the plate at its corners and the middles of its sides, by the nine ways its corners move: out of the plane and
 * about x and y. Along a side the deflection is a cubic; across it the slope goes evenly from end to end.
 */
function slopes({ x, y }: Flat): { readonly ofX: Matrix; readonly ofY: Matrix } {
  const ofX = zeros(6, 9),
    ofY = zeros(6, 9);
  for (let i = 0; i < 3; i++) {
    // A turn about y tips the plate down along x.
    ofX[i]![3 * i + 2] = -1;
    ofY[i]![3 * i + 1] = 1;
  }
  for (let i = 0; i < 3; i++) {
    const j = next[i]!;
    const dx = x[j]! - x[i]!,
      dy = y[j]! - y[i]!;
    const l = Math.hypot(dx, dy);
    const [c, s] = [dx / l, dy / l];
    const along = new Array<number>(9).fill(0),
      across = new Array<number>(9).fill(0);
    along[3 * i] = -1.5 / l;
    along[3 * j] = 1.5 / l;
    for (const end of [i, j]) {
      // The slope along a side is c w,x + s w,y, with w,x = -turn about y and w,y = turn about x.
      along[3 * end + 1]! -= 0.25 * s;
      along[3 * end + 2]! += 0.25 * c;
      // Across it -s w,x + c w,y.
      across[3 * end + 1]! += 0.5 * c;
      across[3 * end + 2]! += 0.5 * s;
    }
    for (let k = 0; k < 9; k++) {
      ofX[3 + i]![k] = c * along[k]! - s * across[k]!;
      ofY[3 + i]![k] = s * along[k]! + c * across[k]!;
    }
  }
  return { ofX, ofY };
}

/** Curvatures at a place, by the nine: d2w/dx2, d2w/dy2, 2 d2w/dxdy. `l`: shares of the corners there. */
function curvatures(flat: Flat, { ofX, ofY }: ReturnType<typeof slopes>, l: readonly [number, number, number]): Matrix {
  const { x, y, area } = flat;
  // Of a corner's share, how it goes along x and y.
  const gx = [0, 1, 2].map((i) => (y[next[i]!]! - y[next[next[i]!]!]!) / (2 * area)),
    gy = [0, 1, 2].map((i) => (x[next[next[i]!]!]! - x[next[i]!]!) / (2 * area));
  const by = (g: readonly number[]): number[] => {
    const out: number[] = [];
    for (let i = 0; i < 3; i++) out.push((4 * l[i]! - 1) * g[i]!);
    for (let i = 0; i < 3; i++) out.push(4 * (l[i]! * g[next[i]!]! + l[next[i]!]! * g[i]!));
    return out;
  };
  const [nx, ny] = [by(gx), by(gy)];
  const of = (n: readonly number[], m: Matrix, k: number) => n.reduce((sum, v, i) => sum + v * m[i]![k]!, 0);
  const rows = zeros(3, 9);
  for (let k = 0; k < 9; k++) {
    rows[0]![k] = of(nx, ofX, k);
    rows[1]![k] = of(ny, ofY, k);
    rows[2]![k] = of(ny, ofX, k) + of(nx, ofY, k);
  }
  return rows;
}

const middles = [
  [0.5, 0.5, 0],
  [0, 0.5, 0.5],
  [0.5, 0, 0.5],
] as const;
const centre = [1 / 3, 1 / 3, 1 / 3] as const;

/** 9 x 9: out of the plane and about x and y at each corner. */
function bendingStiffness(flat: Flat, material: ShellMaterial, thickness: number): Matrix {
  const stiff = planeStress(material).map((row) => row.map((v) => (v * thickness ** 3) / 12));
  const k = zeros(9, 9);
  const by = slopes(flat);
  for (const at of middles) addSquare(k, curvatures(flat, by, at), stiff, flat.area / 3);
  return k;
}

/** Share of the mean forces that a side bent in the plane takes from its ends' turns. */
const drilling = 1.5;

/** Forces at the corners by mean stress, 9 x 3: along x and y and about z at each; of a metre of thickness. */
function lumping({ x, y }: Flat): Matrix {
  const out: Matrix = [];
  for (let i = 0; i < 3; i++) {
    const j = next[i]!,
      k = next[j]!;
    const dx = (a: number, b: number) => x[a]! - x[b]!,
      dy = (a: number, b: number) => y[a]! - y[b]!;
    out.push(
      [dy(j, k) / 2, 0, dx(k, j) / 2],
      [0, dx(k, j) / 2, dy(j, k) / 2],
      [
        (drilling / 12) * dy(j, k) * (dy(i, k) - dy(j, i)),
        (drilling / 12) * dx(k, j) * (dx(k, i) - dx(i, j)),
        (drilling / 6) * (dx(k, i) * dy(i, k) - dx(i, j) * dy(j, i)),
      ],
    );
  }
  return out;
}

/** How strains along the sides go with turns that go beyond the mean one, at each corner: shares of the optimal triangle. */
const shares = [
  [1, 2, 1],
  [0, 1, -1],
  [-1, -1, -2],
] as const;

/** What each corner turns more than the triangle as a whole, by its nine. */
function turnsBeyond({ x, y, area }: Flat): Matrix {
  const whole: number[] = [];
  for (let i = 0; i < 3; i++) {
    const j = next[i]!,
      k = next[j]!;
    whole.push((x[k]! - x[j]!) / (4 * area), (y[k]! - y[j]!) / (4 * area), 0);
  }
  return [0, 1, 2].map((i) => whole.map((v, k) => v + (k === 3 * i + 2 ? 1 : 0)));
}

/** Strains along the three sides to those along x and y. */
function fromSides({ x, y, area }: Flat, squares: readonly number[]): Matrix {
  const dx = (a: number, b: number) => x[a]! - x[b]!,
    dy = (a: number, b: number) => y[a]! - y[b]!;
  const f = 1 / (4 * area * area);
  const [a, b, c] = squares as [number, number, number];
  return [
    [dy(1, 2) * dy(0, 2) * a * f, dy(2, 0) * dy(1, 0) * b * f, dy(0, 1) * dy(2, 1) * c * f],
    [dx(1, 2) * dx(0, 2) * a * f, dx(2, 0) * dx(1, 0) * b * f, dx(0, 1) * dx(2, 1) * c * f],
    [
      (dy(1, 2) * dx(2, 0) + dx(2, 1) * dy(0, 2)) * a * f,
      (dy(2, 0) * dx(0, 1) + dx(0, 2) * dy(1, 0)) * b * f,
      (dy(0, 1) * dx(1, 2) + dx(1, 0) * dy(2, 1)) * c * f,
    ],
  ];
}

/** 9 x 9: along x and y and about z at each corner. */
function membraneStiffness(flat: Flat, material: ShellMaterial, thickness: number): Matrix {
  const { x, y, area } = flat;
  const stress = planeStress(material);
  const k = zeros(9, 9);
  addSquare(k, transposed(lumping(flat)), stress, thickness / area);
  // Squares of the sides from the first to the second corner, the second to the third, the third to the first.
  const squares = [0, 1, 2].map((i) => (x[next[i]!]! - x[i]!) ** 2 + (y[next[i]!]! - y[i]!) ** 2);
  const sides = fromSides(flat, squares);
  const natural = zeros(3, 3);
  addSquare(natural, sides, stress, 1);
  const row = (side: number, [a, b, c]: readonly [number, number, number]): number[] =>
    [a, b, c].map((v) => ((2 * area) / 3) * (v / squares[side]!));
  const [p, q, r] = shares;
  const corners = [
    [row(0, [p[0], p[1], p[2]]), row(1, q), row(2, r)],
    [row(0, [r[2], r[0], r[1]]), row(1, [p[2], p[0], p[1]]), row(2, [q[2], q[0], q[1]])],
    [row(0, [q[1], q[2], q[0]]), row(1, [r[1], r[2], r[0]]), row(2, [p[1], p[2], p[0]])],
  ];
  const turning = zeros(3, 3);
  for (let i = 0; i < 3; i++) {
    const [a, b] = [corners[i]!, corners[next[i]!]!];
    addSquare(
      turning,
      a.map((line, m) => line.map((v, n) => (v + b[m]![n]!) / 2)),
      natural,
      area * thickness,
    );
  }
  const beyond = Math.max(0.01, (1 - 4 * material.poisson ** 2) / 2);
  addSquare(k, turnsBeyond(flat), turning, 0.75 * beyond);
  return k;
}

/** Which of a corner's six each part of the flat triangle moves: the plane's own, and what leaves it. */
const inPlane = [0, 1, 5] as const,
  outOfPlane = [2, 3, 4] as const;

/** A corner's six in the triangle's axes, from those of space. */
function turned({ axes }: Flat, stiffness: Matrix): Float64Array {
  const out = new Float64Array(18 * 18);
  const part = (row: number, column: number, k: 0 | 1 | 2, l: 0 | 1 | 2): number => {
    let sum = 0;
    for (let a = 0; a < 3; a++)
      for (let b = 0; b < 3; b++) sum += axes[a as 0]![k] * stiffness[row + a]![column + b]! * axes[b as 0]![l];
    return sum;
  };
  for (let i = 0; i < 6; i++)
    for (let j = 0; j < 6; j++)
      for (let k = 0; k < 3; k++)
        for (let l = 0; l < 3; l++) out[(3 * i + k) * 18 + 3 * j + l] = part(3 * i, 3 * j, k as 0, l as 0);
  return out;
}

/** 18 x 18 by rows: three along and three about the axes of space, corner by corner. */
export function shellStiffness(corners: Corners, material: ShellMaterial, thickness: number): Float64Array {
  const flat = flatten(corners);
  const all = zeros(18, 18);
  const put = (own: Matrix, places: readonly number[]): void => {
    for (let i = 0; i < 9; i++)
      for (let j = 0; j < 9; j++)
        all[6 * Math.floor(i / 3) + places[i % 3]!]![6 * Math.floor(j / 3) + places[j % 3]!]! += own[i]![j]!;
  };
  put(membraneStiffness(flat, material, thickness), inPlane);
  put(bendingStiffness(flat, material, thickness), outOfPlane);
  return turned(flat, all);
}

/** At the middle of a triangle: N/m in its plane and Nm/m that bend it, along its own axes, and the stresses on both faces. */
export interface ShellStress {
  readonly forces: readonly [number, number, number];
  readonly moments: readonly [number, number, number];
  /** The largest pull and the largest push on either face, Pa; a push is below nought. */
  readonly pull: number;
  readonly push: number;
}

/**
 * Six rows of eighteen: by how the corners move, the stresses in the middle of the wall, Pa, and what they change by a
 * metre out of it, Pa/m; each along the triangle's own axes. They are the same all over what is stretched or bent evenly.
 */
export function stressRows(corners: Corners, material: ShellMaterial): Float64Array {
  const flat = flatten(corners);
  const [e1, e2, e3] = flat.axes;
  const stress = planeStress(material);
  const out = new Float64Array(6 * 18);
  const strains = transposed(lumping(flat)).map((row) => row.map((v) => v / flat.area));
  const curves = curvatures(flat, slopes(flat), centre);
  // Of a corner's nine numbers in the plane's axes, those along and about each axis of space.
  const put = (row: number, of: Matrix, own: readonly (readonly [0 | 3, Vec3])[]): void => {
    for (let r = 0; r < 3; r++)
      for (let n = 0; n < 9; n++) {
        const value = stress[r]!.reduce((sum, v, k) => sum + v * of[k]![n]!, 0);
        const [offset, axis] = own[n % 3]!;
        for (let k = 0; k < 3; k++) out[18 * (row + r) + 6 * Math.floor(n / 3) + offset + k]! += value * axis[k as 0];
      }
  };
  put(0, strains, [
    [0, e1],
    [0, e2],
    [3, e3],
  ]);
  put(3, curves, [
    [0, e3],
    [3, e1],
    [3, e2],
  ]);
  return out;
}

/** `rows` as `stressRows` has them; `moves`: eighteen, as `shellStiffness` has them. */
export function shellStress(rows: Float64Array, thickness: number, moves: ArrayLike<number>): ShellStress {
  const all = [0, 0, 0, 0, 0, 0];
  for (let r = 0; r < 6; r++) {
    let sum = 0;
    for (let k = 0; k < 18; k++) sum += rows[18 * r + k]! * moves[k]!;
    all[r] = sum;
  }
  const [mx, my, mxy, bx, by, bxy] = all as [number, number, number, number, number, number];
  let pull = -Infinity,
    push = Infinity;
  for (const out of [-thickness / 2, thickness / 2]) {
    const sx = mx - out * bx,
      sy = my - out * by;
    const middle = (sx + sy) / 2,
      half = Math.hypot((sx - sy) / 2, mxy - out * bxy);
    pull = Math.max(pull, middle + half);
    push = Math.min(push, middle - half);
  }
  const bend = thickness ** 3 / 12;
  return {
    forces: [mx * thickness, my * thickness, mxy * thickness],
    moments: [bx * bend, by * bend, bxy * bend],
    pull,
    push,
  };
}
