import { dot, type Vec3 } from '../quantity';
import { across, opposedPairs, opposite } from './directions';
import { keptFree, type MasterFace } from './face';
import { HeightFields } from './height-fields';
import { seamWeight } from './labels';
import type { Working } from './search';

/** A flat sheet pressed into the piece: each side is drawn square to it. */
export interface Shim {
  readonly normal: Vec3;
  /** n.x = c on the plane, metres. */
  readonly offset: number;
  /** Outlines where it meets the face, each in its own plane: across and up, metres. */
  readonly outlines: readonly (readonly (readonly [number, number])[])[];
  /** Along the face: the strip to cut, metres. */
  readonly length: number;
  /** m2 that the half on the side of the normal, and the other, cannot draw. */
  readonly undrawn: readonly [number, number];
}

const slices = 48;
/** Of the face: less than this on one side of it and it parts nothing. */
const leastSide = 0.15;

/** The best of planes in all directions: least that cannot be drawn, and least seam. */
export function* bestShim(face: MasterFace): Working<Shim> {
  const fields = new HeightFields(face);
  const along = new Uint8Array(face.count),
    back = new Uint8Array(face.count);
  const weight = seamWeight(face);
  let best = { cost: Infinity, normal: [1, 0, 0] as Vec3, offset: 0 };
  const all = opposedPairs();
  for (const [i, normal] of all.entries()) {
    fields.look(normal).drawable(along, back);
    const found = bestOffset(face, normal, along, back, weight);
    if (found.cost < best.cost) best = { normal, ...found };
    if (i % 8 === 7) yield i / all.length;
  }
  return shimAt(face, best.normal, best.offset, fields);
}

/** That, of a plane that is given. */
export function shimAt(face: MasterFace, normal: Vec3, offset: number, fields = new HeightFields(face)): Shim {
  const along = new Uint8Array(face.count),
    back = new Uint8Array(face.count);
  fields.look(normal).drawable(along, back);
  const undrawn: [number, number] = [0, 0];
  for (let t = 0; t < face.count; t++) {
    if (face.stands[t]) continue;
    const front = sideOf(face, t, normal) > offset;
    if (front && !along[t]) undrawn[0] += face.areas[t]!;
    if (!front && !back[t]) undrawn[1] += face.areas[t]!;
  }
  const { outlines, length } = section(face, normal, offset);
  return { normal, offset, outlines, length, undrawn };
}

function sideOf({ centres: c }: MasterFace, t: number, n: Vec3): number {
  return c[3 * t]! * n[0] + c[3 * t + 1]! * n[1] + c[3 * t + 2]! * n[2];
}

/**
 * Every plane square to one direction at once: what lies past it is drawn one way, what lies before it the other. The
 * length of its section, over a slice, is the area there times the sine of the angle to the direction, by its thickness.
 */
function bestOffset(
  face: MasterFace,
  n: Vec3,
  along: Uint8Array,
  back: Uint8Array,
  weight: number,
): { cost: number; offset: number } {
  let low = Infinity,
    high = -Infinity;
  for (let t = 0; t < face.count; t++) {
    const c = sideOf(face, t, n);
    if (c < low) low = c;
    if (c > high) high = c;
  }
  const thick = (high - low) / slices;
  const past = new Float64Array(slices),
    before = new Float64Array(slices),
    seam = new Float64Array(slices),
    areas = new Float64Array(slices);
  for (let t = 0; t < face.count; t++) {
    if (face.stands[t]) continue;
    const i = Math.min(slices - 1, Math.floor((sideOf(face, t, n) - low) / thick));
    const area = face.areas[t]!;
    areas[i]! += area;
    if (!along[t]) past[i]! += area;
    if (!back[t]) before[i]! += area;
    const lean = face.normals[3 * t]! * n[0] + face.normals[3 * t + 1]! * n[1] + face.normals[3 * t + 2]! * n[2];
    const dear = face.kept[t] ? keptFree : 1;
    seam[i]! += (dear * area * Math.sqrt(Math.max(0, 1 - lean * lean))) / thick;
  }
  let locked = past.reduce((a, b) => a + b, 0),
    behind = 0;
  let best = { cost: Infinity, offset: 0 };
  for (let i = 0; i < slices - 1; i++) {
    locked += before[i]! - past[i]!;
    behind += areas[i]!;
    if (behind < leastSide * face.area || behind > (1 - leastSide) * face.area) continue;
    const cost = locked + (weight * (seam[i]! + seam[i + 1]!)) / 2;
    if (cost < best.cost) best = { cost, offset: low + (i + 1) * thick };
  }
  return best;
}

/** Where a plane meets the face: outlines in its own axes, and their length above the board. */
export function section(face: MasterFace, n: Vec3, offset: number): Pick<Shim, 'outlines' | 'length'> {
  const { positions: p, triangles, count } = face;
  const points = p.length / 3;
  const side = new Float64Array(points);
  for (let i = 0; i < points; i++) {
    side[i] = p[3 * i]! * n[0] + p[3 * i + 1]! * n[1] + p[3 * i + 2]! * n[2] - offset;
    // A point on the plane would end two outlines.
    if (side[i] === 0) side[i] = 1e-12;
  }
  const [u, v] = uprightAxes(n);
  const crossing = (a: number, b: number): [number, readonly [number, number]] => {
    const [i, j] = a < b ? [a, b] : [b, a];
    const k = side[i]! / (side[i]! - side[j]!);
    const at = [0, 1, 2].map((m) => p[3 * i + m]! + k * (p[3 * j + m]! - p[3 * i + m]!)) as unknown as Vec3;
    return [i * points + j, [dot(at, u), dot(at, v)]];
  };
  const places = new Map<number, readonly [number, number]>();
  const onward = new Map<number, number[]>();
  let length = 0;
  for (let t = 0; t < count; t++) {
    const corners = [0, 1, 2].map((k) => triangles[3 * t + k]!) as [number, number, number];
    const ends: number[] = [];
    for (let k = 0; k < 3; k++) {
      const a = corners[k]!,
        b = corners[(k + 1) % 3]!;
      if (side[a]! > 0 === side[b]! > 0) continue;
      const [key, at] = crossing(a, b);
      places.set(key, at);
      ends.push(key);
    }
    if (ends.length !== 2) continue;
    const [e, f] = ends as [number, number];
    if (!face.stands[t])
      length += Math.hypot(places.get(e)![0] - places.get(f)![0], places.get(e)![1] - places.get(f)![1]);
    onward.set(e, [...(onward.get(e) ?? []), f]);
    onward.set(f, [...(onward.get(f) ?? []), e]);
  }
  return { outlines: loops(places, onward), length };
}

function loops(
  places: ReadonlyMap<number, readonly [number, number]>,
  onward: ReadonlyMap<number, readonly number[]>,
): (readonly [number, number])[][] {
  const seen = new Set<number>();
  const out: (readonly [number, number])[][] = [];
  for (const start of onward.keys()) {
    if (seen.has(start)) continue;
    const loop: (readonly [number, number])[] = [];
    for (let at: number | undefined = start; at !== undefined && !seen.has(at);) {
      seen.add(at);
      loop.push(places.get(at)!);
      at = onward.get(at)!.find((k) => !seen.has(k));
    }
    if (loop.length > 2) out.push([...loop, loop[0]!]);
  }
  return out.sort((a, b) => b.length - a.length);
}

/** In a plane: across it, level where that can be, and up it. */
export function uprightAxes(n: Vec3): [Vec3, Vec3] {
  const level: Vec3 = [-n[1], n[0], 0];
  const l = Math.hypot(level[0], level[1]);
  if (l < 1e-6) return across(n);
  const u: Vec3 = [level[0] / l, level[1] / l, 0];
  const v: Vec3 = [n[1] * u[2] - n[2] * u[1], n[2] * u[0] - n[0] * u[2], n[0] * u[1] - n[1] * u[0]];
  return v[2] < 0 ? [opposite(u), opposite(v)] : [u, v];
}
