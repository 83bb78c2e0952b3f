import { rotate, rotationOf, type Mass } from '../form';
import { add, distance, dot, mix, scale, subtract, type Vec3 } from '../quantity';

/**
 * Parts of a form that are long and thin: horns, antlers, tusks, the fingers and feathers of a wing, ears. No joint need
 * run through them, so what follows the skeleton leaves them to hang on their clay.
 */
export interface SlenderPart {
  /** Of the mass at its root. */
  readonly id: string;
  readonly name: string;
  /** From root to tip: cones in a row, or a plate along its length. Metres. */
  readonly line: readonly Vec3[];
  readonly masses: readonly string[];
}

interface Stretch {
  readonly mass: Mass;
  readonly from: Vec3;
  readonly to: Vec3;
}

/** Cones meet where their ends lie closer than this, metres. */
const meets = 0.003;
/** A plate's length against its thickness and its breadth. */
const plateOfThickness = 3,
  plateOfBreadth = 1.4;

const endOf = (m: Mass, reach: Vec3): Vec3 => add(m.at as Vec3, rotate(rotationOf(m.turn as Vec3), reach));

function coneOf(m: Mass): Stretch[] {
  return m.shape.kind === 'round-cone' ? [{ mass: m, from: m.at as Vec3, to: endOf(m, m.shape.reach as Vec3) }] : [];
}

/** A flat ellipsoid along its longest axis; which end is its root is told by what it hangs on. */
function plateOf(m: Mass, root: Vec3): Stretch[] {
  if (m.shape.kind !== 'ellipsoid') return [];
  const radii = m.shape.radii as Vec3;
  const [long, broad, thick] = [...radii].sort((a, b) => b - a) as [number, number, number];
  if (long < plateOfThickness * thick || long < plateOfBreadth * broad) return [];
  const axis = radii.indexOf(long);
  const along = [0, 1, 2].map((k) => (k === axis ? long : 0)) as unknown as Vec3;
  const ends = [endOf(m, along), endOf(m, scale(along, -1))] as const;
  const [from, to] = distance(ends[0], root) < distance(ends[1], root) ? ends : [ends[1], ends[0]];
  return [{ mass: m, from, to }];
}

/** Those that begin where another ends are one part with it; of several that do, the first. */
export function slenderParts(masses: readonly Mass[], jointAt: (id: string) => Vec3 | undefined): SlenderPart[] {
  const faces = masses.filter((m) => m.role === undefined || m.role === 'face');
  const cones = faces.flatMap(coneOf);
  const taken = new Set<Stretch>();
  const rows: Stretch[][] = [];
  const begins = (c: Stretch) => !cones.some((b) => b !== c && distance(b.to, c.from) < meets);
  const follow = (first: Stretch) => {
    const row = [first];
    taken.add(first);
    for (;;) {
      const next = cones.find((c) => !taken.has(c) && distance(c.from, row[row.length - 1]!.to) < meets);
      if (!next) break;
      taken.add(next);
      row.push(next);
    }
    rows.push(row);
  };
  for (const c of cones) if (begins(c)) follow(c);
  for (const c of cones) if (!taken.has(c)) follow(c);
  for (const m of faces) rows.push(...plateOf(m, jointAt(m.joint ?? '') ?? [0, 0, 0]).map((p) => [p]));
  return rows.map((row) => ({
    id: row[0]!.mass.id,
    name: row[0]!.mass.name,
    line: [row[0]!.from, ...row.map((c) => c.to)],
    masses: row.map((c) => c.mass.id),
  }));
}

/** Metres from a place to a line. */
export function awayFromLine(line: readonly Vec3[], p: Vec3): number {
  return line.slice(1).reduce((least, to, i) => {
    const from = line[i]!;
    const way = subtract(to, from);
    const l2 = dot(way, way);
    const t = l2 > 0 ? Math.min(1, Math.max(0, dot(subtract(p, from), way) / l2)) : 0;
    return Math.min(least, distance(p, mix(from, to, t)));
  }, Infinity);
}

/** A line from its start to a share of its length. */
export function cutAt(line: readonly Vec3[], share: number): Vec3[] {
  const lengths = line.slice(1).map((to, i) => distance(line[i]!, to));
  let left = share * lengths.reduce((sum, l) => sum + l, 0);
  const out: Vec3[] = [line[0]!];
  for (const [i, l] of lengths.entries()) {
    const part = l > 0 ? Math.min(1, left / l) : 1;
    out.push(mix(line[i]!, line[i + 1]!, part));
    left -= l;
    if (left <= 1e-9) break;
  }
  return out;
}

export const alongPath = (line: readonly Vec3[], share: number): Vec3 => cutAt(line, share).at(-1)!;
