import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { cross, dot, scale, subtract, unit, type Vec3 } from '../quantity';
import type { Member } from './types';

/**
 * A bending template: a bent member laid flat on the plane it lies nearest to, at full size. What leaves the plane is
 * bent afterwards by hand; how far is told.
 */
export interface Template {
  readonly member: string;
  readonly name: string;
  /** On paper, metres, from the lower left of its own box. */
  readonly points: readonly (readonly [number, number])[];
  readonly width: number;
  readonly height: number;
  /** Farthest any of it lies from the paper, metres. */
  readonly offPaper: number;
  readonly length: number;
}

/** Farther than this from a straight line, of its length, and it is bent; less and it is cut straight. */
const bentFrom = 0.02;

export function isBent(path: readonly Vec3[]): boolean {
  const first = path[0]!,
    last = path[path.length - 1]!;
  const chord = subtract(last, first);
  const total = path.slice(1).reduce((sum, p, i) => sum + Math.hypot(...subtract(p, path[i]!)), 0);
  const along = unit(chord);
  return (
    Math.hypot(...chord) < 0.9 * total ||
    path.some((p) => {
      const r = subtract(p, first);
      return Math.hypot(...subtract(r, scale(along, dot(r, along)))) > bentFrom * total;
    })
  );
}

export function templateOf(member: Member): Template | null {
  const { path } = member;
  if (path.length < 3 || !isBent(path)) return null;
  const n = path.length;
  const middle = scale(
    path.reduce<Vec3>((s, p) => [s[0] + p[0], s[1] + p[1], s[2] + p[2]], [0, 0, 0]),
    1 / n,
  );
  const spread = Matrix.zeros(3, 3);
  for (const p of path) {
    const r = subtract(p, middle);
    for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) spread.set(i, j, spread.get(i, j) + r[i]! * r[j]!);
  }
  const eigen = new EigenvalueDecomposition(spread, { assumeSymmetric: true });
  const order = [0, 1, 2].sort((a, b) => eigen.realEigenvalues[b]! - eigen.realEigenvalues[a]!);
  const axis = (k: number): Vec3 => [0, 1, 2].map((i) => eigen.eigenvectorMatrix.get(i, order[k]!)) as unknown as Vec3;
  const u = axis(0),
    normal = unit(cross(u, axis(1)));
  // Upright on the paper where it stands upright in the piece.
  const up: Vec3 =
    Math.abs(normal[2]) < 0.9 ? unit(subtract([0, 0, 1], scale(normal, normal[2]))) : unit(cross(normal, u));
  const right = cross(up, normal);
  const flat = path.map((p): [number, number] => [dot(subtract(p, middle), right), dot(subtract(p, middle), up)]);
  const low = [0, 1].map((k) => Math.min(...flat.map((p) => p[k as 0 | 1]))) as [number, number];
  const high = [0, 1].map((k) => Math.max(...flat.map((p) => p[k as 0 | 1]))) as [number, number];
  return {
    member: member.id,
    name: member.name,
    points: flat.map(([x, y]) => [x - low[0], y - low[1]] as const),
    width: high[0] - low[0],
    height: high[1] - low[1],
    offPaper: Math.max(...path.map((p) => Math.abs(dot(subtract(p, middle), normal)))),
    length: path.slice(1).reduce((sum, p, i) => sum + Math.hypot(...subtract(p, path[i]!)), 0),
  };
}

/** A sheet of paper's part of a template: where its lower left corner lies on it, metres. */
export interface Tile {
  readonly column: number;
  readonly row: number;
  readonly x: number;
  readonly y: number;
}

/** Sheets side by side with an overlap; only those something is drawn on. `margin` is kept round the drawing. */
export function tilesOf(
  template: Pick<Template, 'points' | 'width' | 'height'>,
  sheet: { readonly width: number; readonly height: number },
  overlap: number,
  margin: number,
): Tile[] {
  const across = sheet.width - overlap,
    up = sheet.height - overlap;
  const columns = Math.max(1, Math.ceil((template.width + 2 * margin - overlap) / across - 1e-9)),
    rows = Math.max(1, Math.ceil((template.height + 2 * margin - overlap) / up - 1e-9));
  const out: Tile[] = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const tile = { column, row, x: column * across - margin, y: row * up - margin };
      if (crosses(template.points, tile, sheet)) out.push(tile);
    }
  }
  return out;
}

function crosses(
  points: Template['points'],
  tile: Tile,
  sheet: { readonly width: number; readonly height: number },
): boolean {
  const inside = (x: number, y: number) =>
    x >= tile.x && x <= tile.x + sheet.width && y >= tile.y && y <= tile.y + sheet.height;
  return points.some((p, i) => {
    const q = points[i + 1] ?? p;
    for (let k = 0; k <= 20; k++)
      if (inside(p[0] + ((q[0] - p[0]) * k) / 20, p[1] + ((q[1] - p[1]) * k) / 20)) return true;
    return false;
  });
}
