import { add, cross, distance, dot, norm, scale, subtract, unit, type Vec3 } from '../quantity';
import type { TriangleMesh } from './mesh';

/** Something long and thin that stands out of a closed face: a spike, an ear, a finger, a tail. */
export interface StickingOut {
  /** Its end, and the place of that among the face's corners. */
  readonly tip: Vec3;
  readonly corner: number;
  /** Cuts across it from its tip to where it joins something else that stands out. */
  readonly cuts: readonly CutAcross[];
}

/** A cut across: the middle of it, and what bends there when the tip is pushed aside. SI. */
export interface CutAcross {
  readonly at: Vec3;
  /** Square to the cut, towards the tip. */
  readonly along: Vec3;
  /** Metres from it to the tip, square to it. */
  readonly arm: number;
  readonly area: number;
  readonly round: number;
  /** m3: the second moment of area over the farthest place, the way it is weakest. */
  readonly modulus: number;
  /** Metres across it, that way. */
  readonly across: number;
}

/** Metres, and edges: less is roughness of the face, and a knock is as broad as a finger. */
const leastOut = 0.01,
  leastEdges = 3;
/** Cuts from tip to root, and those on either side of one that tell which way it runs. */
const cutCount = 24,
  line = 3;

/**
 * Ends of a face are where the way over it from what it stands on is longest; two that meet on the way back end at their
 * saddle. What is cut across there, by how far its corners are on that way, tells how thick it is. A cut counts where the
 * tip is farther from it than it is thick: nearer it is sheared, and does not snap; and where it is as thick as an edge
 * of the face is long, `finest`: thinner ones are told by chance. `ground`: corners it stands on; none
 * for a piece that hangs or is worn, which is reckoned from its middle. Ways follow the edges, up to a tenth too long.
 */
export function stickingOut({ positions, triangles }: TriangleMesh, ground: readonly number[] = []): Ends {
  const face = neighboursOf({ positions, triangles });
  if (face.edge === 0) return { finest: 0, ends: [] };
  const from = ground.length > 0 ? ground : [nearestToTheMiddle(positions)];
  const way = waysOver(face, from);
  const snaps = ({ arm, across }: CutAcross) => across >= face.edge && arm >= Math.max(across, leastOut);
  const ends = branchesOf(face, way, Math.max(leastOut, leastEdges * face.edge))
    .map(({ corner, root }) => ({
      tip: at(positions, corner),
      corner,
      cuts: cutsOf(face, way, corner, root).filter(snaps),
    }))
    .filter(({ cuts }) => cuts.length > 0);
  return { finest: face.edge, ends };
}

export interface Ends {
  /** Metres: what is thinner is not told. */
  readonly finest: number;
  readonly ends: readonly StickingOut[];
}

interface Face {
  readonly positions: Float32Array;
  readonly triangles: Uint32Array;
  readonly points: number;
  /** By corner: the corners beside it, and the triangles about it, as places in one list. */
  readonly first: Uint32Array;
  readonly beside: Uint32Array;
  readonly triangle: Uint32Array;
  /** Metres, of an edge in the middle. */
  readonly edge: number;
}

function neighboursOf({ positions, triangles }: TriangleMesh): Face {
  const points = positions.length / 3;
  const first = new Uint32Array(points + 1);
  for (const i of triangles) first[i + 1]!++;
  for (let i = 0; i < points; i++) first[i + 1]! += first[i]!;
  const next = first.slice(0, points);
  // On a closed face each corner's edges are met once each way: one of the two is enough.
  const beside = new Uint32Array(triangles.length),
    triangle = new Uint32Array(triangles.length);
  const lengths = new Float64Array(triangles.length);
  for (let k = 0; k < triangles.length; k++) {
    const i = triangles[k]!,
      j = triangles[k % 3 === 2 ? k - 2 : k + 1]!;
    const place = next[i]!++;
    beside[place] = j;
    triangle[place] = Math.floor(k / 3);
    lengths[k] = distance(at(positions, i), at(positions, j));
  }
  lengths.sort();
  return { positions, triangles, points, first, beside, triangle, edge: lengths[lengths.length >> 1] ?? 0 };
}

const at = (p: Float32Array, i: number): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];

function nearestToTheMiddle(positions: Float32Array): number {
  const points = positions.length / 3;
  let middle: Vec3 = [0, 0, 0];
  for (let i = 0; i < points; i++) middle = add(middle, scale(at(positions, i), 1 / points));
  let best = 0;
  for (let i = 1; i < points; i++)
    if (distance(at(positions, i), middle) < distance(at(positions, best), middle)) best = i;
  return best;
}

/** Metres along the edges from these; Infinity for what does not hang together with them. */
function waysOver({ positions, points, first, beside }: Face, from: readonly number[]): Float64Array {
  const way = new Float64Array(points).fill(Infinity);
  const waits = new Uint8Array(points);
  let now = [...from];
  for (const i of now) way[i] = 0;
  while (now.length > 0) {
    const next: number[] = [];
    for (const i of now) {
      waits[i] = 0;
      for (let k = first[i]!; k < first[i + 1]!; k++) {
        const j = beside[k]!;
        const there = way[i]! + distance(at(positions, i), at(positions, j));
        if (there >= way[j]! - 1e-12) continue;
        way[j] = there;
        if (!waits[j]) next.push(j);
        waits[j] = 1;
      }
    }
    now = next;
  }
  return way;
}

/** Each end with how far on the way its branch begins; what never meets another is the piece itself. */
function branchesOf(
  { points, first, beside }: Face,
  way: Float64Array,
  least: number,
): { readonly corner: number; readonly root: number }[] {
  const order = Array.from({ length: points }, (_, i) => i)
    .filter((i) => Number.isFinite(way[i]!))
    .sort((a, b) => way[b]! - way[a]!);
  const group = new Int32Array(points).fill(-1);
  const peak = new Int32Array(points);
  const find = (i: number): number => {
    while (group[i] !== i) i = group[i] = group[group[i]!]!;
    return i;
  };
  const roots = new Map<number, number>();
  for (const i of order) {
    group[i] = i;
    peak[i] = i;
    for (let k = first[i]!; k < first[i + 1]!; k++) {
      if (group[beside[k]!]! < 0) continue;
      const [a, b] = [find(i), find(beside[k]!)];
      if (a === b) continue;
      const [elder, younger] = way[peak[a]!]! >= way[peak[b]!]! ? [a, b] : [b, a];
      // Both stand out far enough to be something: each ends here.
      if (way[peak[younger]!]! - way[i]! >= least)
        for (const p of [peak[elder]!, peak[younger]!]) if (!roots.has(p)) roots.set(p, way[i]!);
      group[younger] = elder;
    }
  }
  return [...roots].map(([corner, root]) => ({ corner, root }));
}

/**
 * The middles of what is cut off at equal ways lie along it, but for a lean, since ways reach one side of it sooner than
 * the other. Cuts square to the line of them have middles that lie along it better: they are cut again, square to those.
 */
function cutsOf(face: Face, way: Float64Array, corner: number, root: number): CutAcross[] {
  const tip = at(face.positions, corner);
  const middles: Vec3[] = [tip];
  for (let k = 1; k <= cutCount; k++) {
    // The root itself is where it meets the other.
    const level = way[corner]! - ((way[corner]! - root) * (k - 0.02)) / cutCount;
    const middle = middleOf(ringsWhere(face, (i) => way[i]! - level, partBeyond(face, way, corner, level)));
    if (middle) middles.push(middle);
  }
  // A cut that leans goes on below the root on one side.
  const near = partBeyond(face, way, corner, root - 0.3 * (way[corner]! - root) - 4 * face.edge);
  const leaning = withoutSlips(squareTo(face, near, middles, tip));
  return withoutSlips(
    squareTo(
      face,
      near,
      leaning.map((c) => c.at),
      tip,
    ),
  );
}

/** Cuts through these places, square to the line they make. */
function squareTo(face: Face, near: ReadonlySet<number>, places: readonly Vec3[], tip: Vec3): CutAcross[] {
  const out: CutAcross[] = [];
  for (const [k, place] of places.entries()) {
    const towards = subtract(places[Math.max(0, k - line)]!, places[Math.min(k + line, places.length - 1)]!);
    if (!(norm(towards) > 0)) continue;
    const along = unit(towards);
    const beyond = (i: number) => dot(subtract(at(face.positions, i), place), along);
    const cut = measured(aboutPlace(ringsWhere(face, beyond, near), place, along), tip);
    if (cut) out.push(cut);
  }
  return out;
}

/** A neck is longer than one cut: what is half as large as the cuts on both its sides has slipped off what it goes through. */
export function withoutSlips<Cut extends Pick<CutAcross, 'area'>>(cuts: readonly Cut[]): Cut[] {
  const left = cuts.filter(({ area }, i) => {
    const [before, after] = [cuts[i - 1], cuts[i + 1]];
    return !(before && after && area < Math.min(before.area, after.area) / 2);
  });
  return left.length < cuts.length ? withoutSlips(left) : left;
}

/** Triangles about the corners that hang together with this one beyond so far on the way. */
function partBeyond({ first, beside, triangle }: Face, way: Float64Array, corner: number, level: number): Set<number> {
  const inside = new Set([corner]);
  const about = new Set<number>();
  for (const i of inside)
    for (let k = first[i]!; k < first[i + 1]!; k++) {
      about.add(triangle[k]!);
      if (way[beside[k]!]! > level) inside.add(beside[k]!);
    }
  return about;
}

/** Segments about what is above nought, one way round. */
type Ring = readonly (readonly [Vec3, Vec3])[];

/** Where a function of the corners crosses nought in these triangles: rings of segments. */
function ringsWhere(
  { positions, triangles, points }: Face,
  value: (corner: number) => number,
  within: ReadonlySet<number>,
): Ring[] {
  const crossing = (i: number, j: number): Vec3 => {
    const [a, b] = [value(i), value(j)];
    const [p, q] = [at(positions, i), at(positions, j)];
    return add(p, scale(subtract(q, p), a / (a - b)));
  };
  // By the edges they cross, segments hang together.
  const edge = (i: number, j: number) => Math.min(i, j) * points + Math.max(i, j);
  const heads = new Map<number, number>();
  const find = (e: number): number => {
    let head = heads.get(e) ?? e;
    while (head !== (heads.get(head) ?? head)) head = heads.get(head)!;
    heads.set(e, head);
    return head;
  };
  const segments: { readonly on: number; readonly ends: readonly [Vec3, Vec3] }[] = [];
  const cut = (t: number) => {
    const corners = [triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!] as const;
    const above = corners.map((i) => value(i) > 0);
    const count = above.filter(Boolean).length;
    if (count === 0 || count === 3) return;
    const k = above.indexOf(count === 1);
    const [a, b, c] = [corners[k]!, corners[(k + 1) % 3]!, corners[(k + 2) % 3]!];
    const [onward, back] = [crossing(a, b), crossing(a, c)];
    segments.push({ on: edge(a, b), ends: count === 1 ? [onward, back] : [back, onward] });
    heads.set(find(edge(a, c)), find(edge(a, b)));
  };
  within.forEach(cut);
  const rings = new Map<number, (readonly [Vec3, Vec3])[]>();
  for (const { on, ends } of segments) {
    const head = find(on);
    const ring = rings.get(head);
    if (ring) ring.push(ends);
    else rings.set(head, [ends]);
  }
  return [...rings.values()].filter((r) => r.length >= 3);
}

/** The ring that goes round nearest to a place, with those inside it that go round a hollow: they run the other way. */
function aboutPlace(rings: readonly Ring[], place: Vec3, along: Vec3): Ring {
  const told = rings.map((ring) => ({ ring, middle: middleOf([ring])!, area: dot(roundedBy(ring), along) }));
  const [outer] = told.filter((r) => r.area > 0).sort((a, b) => distance(a.middle, place) - distance(b.middle, place));
  if (!outer) return [];
  const reach = Math.max(...outer.ring.map(([p]) => distance(p, outer.middle)));
  const hollows = told.filter((r) => r.area < 0 && -r.area < outer.area && distance(r.middle, outer.middle) < reach);
  return [outer, ...hollows].flatMap(({ ring }) => [...ring]);
}

/** Square to what a ring goes round, as long as that is large. */
function roundedBy(ring: Ring): Vec3 {
  const some = ring[0]![0];
  return ring.reduce<Vec3>(
    (sum, [p, q]) => add(sum, scale(cross(subtract(p, some), subtract(q, some)), 0.5)),
    [0, 0, 0],
  );
}

/** By length, of all of them; null where there is none. */
function middleOf(rings: readonly Ring[]): Vec3 | null {
  let sum: Vec3 = [0, 0, 0],
    length = 0;
  for (const ring of rings)
    for (const [p, q] of ring) {
      const l = distance(p, q);
      sum = add(sum, scale(add(p, q), l / 2));
      length += l;
    }
  return length > 0 ? scale(sum, 1 / length) : null;
}

/** Area and moments of what a ring of segments goes round, by Green's theorem, in the plane that is square to it. */
function measured(ends: Ring, tip: Vec3): CutAcross | null {
  if (ends.length === 0) return null;
  // Where it runs out of the triangles that were looked at it goes round nothing.
  const gap = ends.reduce<Vec3>((sum, [p, q]) => add(sum, subtract(q, p)), [0, 0, 0]);
  if (norm(gap) > 1e-6 * ends.reduce((sum, [p, q]) => sum + distance(p, q), 0)) return null;
  const some = ends[0]![0];
  const square = roundedBy(ends);
  const area = norm(square);
  if (!(area > 0)) return null;
  const along = unit(square);
  const u = unit(cross(along, Math.abs(along[0]) < 0.7 ? [1, 0, 0] : [0, 1, 0]));
  const v = cross(along, u);
  const flat = ends.map((pair) => pair.map((p) => [dot(subtract(p, some), u), dot(subtract(p, some), v)] as const));
  let [sx, sy, xx, yy, xy, round] = [0, 0, 0, 0, 0, 0];
  for (const [[px, py], [qx, qy]] of flat as [[number, number], [number, number]][]) {
    const a = px * qy - qx * py;
    sx += ((px + qx) * a) / 6;
    sy += ((py + qy) * a) / 6;
    xx += ((px * px + px * qx + qx * qx) * a) / 12;
    yy += ((py * py + py * qy + qy * qy) * a) / 12;
    xy += ((px * qy + 2 * px * py + 2 * qx * qy + qx * py) * a) / 24;
    round += Math.hypot(px - qx, py - qy);
  }
  const [mx, my] = [sx / area, sy / area];
  // About its middle: spread along either axis, and the way in which they lie.
  const [a, b, c] = [xx - area * mx * mx, yy - area * my * my, xy - area * mx * my];
  const turn = Math.atan2(2 * c, a - b) / 2;
  const weakest = [turn, turn + Math.PI / 2]
    .map((angle) => {
      const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
      const spread = a * ux * ux + 2 * c * ux * uy + b * uy * uy;
      const far = (flat as [[number, number], [number, number]][]).map(([[px, py]]) => (px - mx) * ux + (py - my) * uy);
      const [low, high] = [Math.min(...far), Math.max(...far)];
      return { modulus: spread / Math.max(-low, high), across: high - low };
    })
    .sort((one, other) => one.modulus - other.modulus)[0]!;
  const middle = add(some, add(scale(u, mx), scale(v, my)));
  return {
    at: middle,
    along,
    arm: dot(subtract(tip, middle), along),
    area,
    round,
    ...weakest,
  };
}
