import { eliminationOrder, SparseMatrix, sparsePattern } from '../armature';
import { cross, failure, norm, subtract, success, type Result, type Vec3 } from '../quantity';
import {
  shellStiffness,
  shellStress,
  stressRows,
  type Corners,
  type ShellMaterial,
  type ShellStress,
} from './shell-element';

/** A shell of triangles with what holds it; loads are asked of it after it has been made ready once. SI. */
export interface ShellInputs {
  /** Three a point. */
  readonly positions: ArrayLike<number>;
  /** Three points a triangle. */
  readonly triangles: ArrayLike<number>;
  /** Metres, of each triangle. */
  readonly thickness: (triangle: number) => number;
  readonly material: ShellMaterial;
  /** What is held of a point: three along and three about x, y and z. Points of which nothing is held are left out. */
  readonly held: ReadonlyMap<number, readonly boolean[]>;
}

export class Shell {
  private rows: Float64Array[] | null = null;

  private constructor(
    private readonly inputs: ShellInputs,
    private readonly matrix: SparseMatrix,
    /** By six a point: its place among the unknowns, -1 where it is held. */
    private readonly place: Int32Array,
    private readonly unknowns: number,
  ) {}

  /** Fails where a triangle has no area, where points hang on nothing, or where what holds it lets it move as a whole. */
  static of(inputs: ShellInputs): Result<Shell> {
    const { positions, triangles, held } = inputs;
    const points = positions.length / 3;
    const links: Set<number>[] = Array.from({ length: points }, () => new Set());
    for (let t = 0; t < triangles.length; t += 3)
      for (let a = 0; a < 3; a++)
        for (let b = 0; b < 3; b++) if (a !== b) links[triangles[t + a]!]!.add(triangles[t + b]!);
    const order = eliminationOrder(links.map((l) => [...l])).filter((p) => links[p]!.size > 0);
    const place = new Int32Array(6 * points).fill(-1);
    let unknowns = 0;
    for (const p of order) {
      const holds = held.get(p);
      for (let k = 0; k < 6; k++) if (!holds?.[k]) place[6 * p + k] = unknowns++;
    }
    if (unknowns === 0) return failure('nothing-moves', 'the shell', 'everything of it is held');
    const columns: number[][] = Array.from({ length: unknowns }, () => []);
    for (const p of order)
      for (let k = 0; k < 6; k++) {
        const column = place[6 * p + k]!;
        if (column < 0) continue;
        for (const q of [p, ...links[p]!])
          for (let l = 0; l < 6; l++) {
            const row = place[6 * q + l]!;
            if (row >= 0 && row <= column) columns[column]!.push(row);
          }
        columns[column]!.sort((a, b) => a - b);
      }
    const matrix = new SparseMatrix(sparsePattern(columns));
    for (let t = 0; t < triangles.length / 3; t++) {
      const corners = cornersOf(inputs, t);
      const k = shellStiffness(corners, inputs.material, inputs.thickness(t));
      if (!k.every(Number.isFinite))
        return failure('no-area', 'the shell', `triangle ${t + 1} has its corners in one line, or no thickness`);
      for (let i = 0; i < 18; i++) {
        const row = place[6 * triangles[3 * t + Math.floor(i / 6)]! + (i % 6)]!;
        if (row < 0) continue;
        for (let j = 0; j < 18; j++) {
          const column = place[6 * triangles[3 * t + Math.floor(j / 6)]! + (j % 6)]!;
          if (column >= row) matrix.add(row, column, k[18 * i + j]!);
        }
      }
    }
    if (matrix.factor() >= 0)
      return failure('free-to-move', 'the shell', 'what holds it lets it move as a whole: hold it in more places');
    return success(new Shell(inputs, matrix, place, unknowns));
  }

  /** Six a point, by forces and moments, six a point too: N and Nm along and about x, y and z. */
  solve(loads: ArrayLike<number>): Float64Array {
    const { place } = this;
    const x = new Float64Array(this.unknowns);
    for (let i = 0; i < place.length; i++) if (place[i]! >= 0) x[place[i]!] = loads[i]!;
    this.matrix.solve(x);
    return Float64Array.from(place, (p) => (p < 0 ? 0 : x[p]!));
  }

  /** At the middle of each triangle, of what `solve` gave. */
  stresses(moves: Float64Array): ShellStress[] {
    const { triangles, material, thickness } = this.inputs;
    this.rows ??= Array.from({ length: triangles.length / 3 }, (_, t) =>
      stressRows(cornersOf(this.inputs, t), material),
    );
    const { rows } = this;
    return Array.from({ length: triangles.length / 3 }, (_, t) => {
      const own = new Float64Array(18);
      for (let c = 0; c < 3; c++) for (let k = 0; k < 6; k++) own[6 * c + k] = moves[6 * triangles[3 * t + c]! + k]!;
      return shellStress(rows[t]!, thickness(t), own);
    });
  }
}

function cornersOf({ positions: p, triangles }: ShellInputs, t: number): Corners {
  return [0, 1, 2].map((c): Vec3 => {
    const k = 3 * triangles[3 * t + c]!;
    return [p[k]!, p[k + 1]!, p[k + 2]!];
  }) as unknown as Corners;
}

/** Six a point: its own weight shared among the corners of each triangle, N. */
export function ownWeight(
  { positions, triangles, thickness }: Pick<ShellInputs, 'positions' | 'triangles' | 'thickness'>,
  density: number,
  pull: Vec3,
): Float64Array {
  const out = new Float64Array(2 * positions.length);
  for (let t = 0; t < triangles.length / 3; t++) {
    const [a, b, c] = cornersOf({ positions, triangles } as ShellInputs, t);
    const area = norm(cross(subtract(b, a), subtract(c, a))) / 2;
    for (let corner = 0; corner < 3; corner++)
      for (let k = 0; k < 3; k++)
        out[6 * triangles[3 * t + corner]! + k]! += (density * thickness(t) * area * pull[k as 0]) / 3;
  }
  return out;
}
