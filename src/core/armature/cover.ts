import { distance, dot, mix, scale, subtract, unit, type Vec3 } from '../quantity';
import type { Member } from './types';

/**
 * Cover: what lies between a member and the finished face. Too little and the wire shows in the mould, or the clay
 * over it cannot shrink and splits along it.
 */
export interface MemberCover {
  readonly member: string;
  readonly name: string;
  /** Metres at its thinnest; below zero it stands out. */
  readonly least: number;
  readonly at: Vec3;
  /** Index of the mass it lies in there. */
  readonly mass: number;
  /** What there should be there. */
  readonly wanted: number;
  /** Length of it that has less than wanted. */
  readonly short: number;
  /** Masses in which it has less than wanted over it, each where it lacks most. */
  readonly shortIn: readonly { readonly mass: number; readonly least: number; readonly wanted: number }[];
  /** Masses in whose clay it lies with less than wanted over it and no filling between, each at its thinnest. */
  readonly thinOver: readonly { readonly mass: number; readonly least: number }[];
}

/** Across a bundle of like round strands, over one strand. Circles packed in a circle. */
const packed = [0, 1, 2, 2.155, 2.414, 2.701, 3, 3] as const;
export function bundleAcross(across: number, strands: number): number {
  return across * (packed[strands] ?? Math.sqrt(strands / 0.75));
}

/**
 * Cover should be twice the wire, half the clay and six millimetres at least; in a thin limb, a third of what that is
 * across. The rule is one for wires: a pipe asks for no more than the thickest wire bent by hand does.
 */
export function coverWanted(across: number, clay: number, least = usualLeast, limb = Infinity): number {
  return Math.max(2 * Math.min(across, thickestWire), clay / 2, leastIn(limb, least));
}
const usualLeast = 0.006;

/** Metres over anything, in a limb so far across. */
function leastIn(limb: number, least: number): number {
  return Math.min(least, limb / thinLimb);
}
const thinLimb = 3;

/** Whether a thin limb asks for less: not where the wire or the clay asks for more than the least there is to be anywhere. */
function asksLessWhenThin(across: number, clay: number, least = usualLeast): boolean {
  return coverWanted(across, clay, 0) < Math.max(least, usualLeast);
}
const thickestWire = 0.008;

/** The thickest single wire through the middle of a limb, so deep under the face, that keeps its cover; 0 where there is none. Metres. */
export function thickestWithCover(depth: number, clay: number, least = usualLeast): number {
  const other = Math.max(clay / 2, leastIn(2 * depth, least));
  const thin = Math.min(depth / 2.5, 2 * (depth - other));
  // Above the thickest wire bent by hand cover asks for no more.
  const thick = 2 * (depth - Math.max(2 * thickestWire, other));
  return Math.max(0, thin <= thickestWire ? thin : Math.max(thickestWire, thick));
}

/**
 * Whether the clay over a member is held back by it: there is less of it than there should be. A wire with filling between
 * it and the clay holds nothing. Metres: what covers it, one strand across, the clay over the core.
 */
export function tooThinOver(cover: number, across: number, clay: number, limb = Infinity): boolean {
  return cover <= clay && cover < coverWanted(across, clay, usualLeast, limb);
}

export interface CoverInputs {
  /** Outside diameter of a member, all its strands, and of one strand; metres. */
  readonly acrossOf: (m: Member) => { readonly whole: number; readonly strand: number };
  /** Places built into the base: what leads to them may stand bare. */
  readonly held: readonly Vec3[];
  /** Signed distance to the face near a place, out to `radius` from it. */
  readonly near: (centre: Vec3, radius: number) => FaceDistance;
  readonly clayOver: (mass: number) => number;
  /** What there should be anywhere, metres; 6 mm unless said. */
  readonly least?: number;
}

/** Signed distance to the face, and the mass that is nearest there. */
export type FaceDistance = (p: Vec3) => { readonly distance: number; readonly mass: number };

/** Whatever can be asked about a path is within this of its middle. */
function about(points: readonly Vec3[]): { centre: Vec3; radius: number } {
  const low = [0, 1, 2].map((k) => points.reduce((m, p) => Math.min(m, p[k]!), Infinity));
  const high = [0, 1, 2].map((k) => points.reduce((m, p) => Math.max(m, p[k]!), -Infinity));
  const centre = low.map((l, k) => (l + high[k]!) / 2) as unknown as Vec3;
  return { centre, radius: Math.hypot(...low.map((l, k) => (high[k]! - l) / 2)) + 1e-6 };
}

const stepAlong = 0.006;

function samples(path: readonly Vec3[], step = stepAlong): Vec3[] {
  const out: Vec3[] = path.length > 0 ? [path[0]!] : [];
  for (let i = 1; i < path.length; i++) {
    const a = path[i - 1]!,
      b = path[i]!;
    const pieces = Math.min(400, Math.max(1, Math.ceil(distance(a, b) / step)));
    for (let k = 1; k <= pieces; k++) out.push(mix(a, b, k / pieces));
  }
  return out;
}

/** The thinnest place of a member, also of one that never comes near the face; null for one without a path. */
export function coverOfMember(member: Member, input: CoverInputs): MemberCover | null {
  const { whole, strand } = input.acrossOf(member);
  const points = samples(member.path);
  if (points.length === 0) return null;
  const place = about(points);
  const exact = input.near(place.centre, place.radius);
  const bare = bareStretch(points, input.held, exact, whole / 2);
  let least = Infinity,
    short = 0;
  let at: Vec3 = points[0] ?? [0, 0, 0];
  let mass = 0,
    wanted = coverWanted(strand, 0, input.least);
  const thin = new Map<number, number>();
  const shortIn = new Map<number, MemberCover['shortIn'][number]>();
  const spacing = points.length > 1 ? distance(points[0]!, points[1]!) : 0;
  const thick = thinLimb * Math.max(usualLeast, input.least ?? 0);
  for (let i = bare.from; i < bare.to;) {
    const p = points[i]!;
    const { distance: d, mass: owner } = exact(p);
    const cover = -d - whole / 2;
    const clay = input.clayOver(owner);
    let want = coverWanted(strand, clay, input.least);
    // Only where there is too little for the thick of the form, and less would be asked of a thin limb, is it asked how
    // thick it is there.
    const limb = cover < want && asksLessWhenThin(strand, clay, input.least) ? acrossAt(exact, p, -d, thick) : Infinity;
    want = coverWanted(strand, clay, input.least, limb);
    if (cover < want) {
      short += spacing;
      const most = shortIn.get(owner);
      if (!most || want - cover > most.wanted - most.least)
        shortIn.set(owner, { mass: owner, least: cover, wanted: want });
      if (tooThinOver(cover, strand, clay, limb)) thin.set(owner, Math.min(thin.get(owner) ?? Infinity, cover));
    }
    if (cover < least) {
      least = cover;
      at = p;
      mass = owner;
      wanted = want;
    }
    // Cover changes no faster than the path runs on: nothing thinner can lie nearer than this.
    const clear = spacing > 0 ? Math.floor((cover - Math.max(want, least)) / stepAlong) : 1;
    i += Math.max(1, clear);
  }
  const thinOver = [...thin].map(([m, l]) => ({ mass: m, least: l }));
  if (!(least < Infinity)) return null;
  const told = { member: member.id, name: member.name, least, at, mass, wanted, short };
  return { ...told, shortIn: [...shortIn.values()], thinOver };
}

/**
 * How far across the form is at a place inside it: twice the depth of the ridge above it, found straight in from the face.
 * `depth` is that of the place; it is looked no further than what is `thick` for certain. Metres.
 */
function acrossAt(face: FaceDistance, p: Vec3, depth: number, thick: number): number {
  if (depth <= 0 || 2 * depth >= thick) return Math.max(0, 2 * depth);
  const step = Math.max(1e-5, depth * 0.05);
  const deeper = [0, 1, 2].map(
    (k) =>
      (face([p[0] - (k === 0 ? step : 0), p[1] - (k === 1 ? step : 0), p[2] - (k === 2 ? step : 0)]).distance -
        face([p[0] + (k === 0 ? step : 0), p[1] + (k === 1 ? step : 0), p[2] + (k === 2 ? step : 0)]).distance) /
      (2 * step),
  );
  const slope = Math.hypot(...deeper);
  // On the ridge itself depth rises no way.
  if (slope < onRidge) return 2 * depth;
  const way = deeper.map((s) => s / slope) as unknown as Vec3;
  let far = 0,
    deepest = depth;
  for (let stride = depth; stride > depth / 20 && 2 * deepest < thick;) {
    const there = -face([
      p[0] + way[0] * (far + stride),
      p[1] + way[1] * (far + stride),
      p[2] + way[2] * (far + stride),
    ]).distance;
    if (there > deepest + onRidge * stride) {
      far += stride;
      deepest = there;
      if (far > 40 * depth) break;
    } else stride /= 2;
  }
  return 2 * deepest;
}
/** Depth rises by less than this a metre on the ridge between two faces. */
const onRidge = 0.5;

/** Leaves out what runs outside the form from an end that is held: an upright below the piece, a foot on the board. */
function bareStretch(
  points: readonly Vec3[],
  held: readonly Vec3[],
  exact: FaceDistance,
  half: number,
): { from: number; to: number } {
  const isHeld = (p: Vec3 | undefined) => p !== undefined && held.some((h) => distance(h, p) < 1e-6);
  let from = 0,
    to = points.length;
  const inside = (p: Vec3) => exact(p).distance < 0;
  if (isHeld(points[0])) {
    from = entry(points, exact, half);
    from = past(points, from, to, 1, exact);
  }
  if (isHeld(points[points.length - 1])) {
    while (to > from && !inside(points[to - 1]!)) to--;
    to = past(points, to - 1, from - 1, -1, exact) + 1;
  }
  return { from, to };
}

/** The first place that is inside; but one that only grazes a rim, by less than half of what it is across, has not come in there. */
function entry(points: readonly Vec3[], exact: FaceDistance, half: number): number {
  const deep = (i: number) => -exact(points[i]!).distance;
  let first = points.length;
  for (let i = 0; i < points.length; i++) {
    if (!(deep(i) > 0)) continue;
    first = Math.min(first, i);
    let most = 0,
      end = i;
    for (; end < points.length && deep(end) > 0 && most < half; end++) most = Math.max(most, deep(end));
    if (most >= half) return i;
    i = end;
  }
  return first;
}

/** Where it enters the form its cover rises from nothing: that is its way in, not thin clay. Skips on while it still rises. */
function past(points: readonly Vec3[], from: number, to: number, way: 1 | -1, exact: FaceDistance): number {
  let i = from;
  let before = -Infinity;
  while (i !== to) {
    const d = -exact(points[i]!).distance;
    if (d <= before + 1e-9) break;
    before = d;
    i += way;
  }
  return i;
}

/**
 * The path of a wire bent inward until it lies `depth` under the face, as far as the form is thick enough. Ends that are
 * held stay, and what runs further outside than `wellOutside`: it is not meant to be inside. Metres.
 */
export function drawnPath(
  path: readonly Vec3[],
  depth: number,
  held: readonly Vec3[],
  near: CoverInputs['near'],
  wellOutside = 0.02,
): Vec3[] {
  if (path.length === 0) return [];
  const place = about(path);
  const face = near(place.centre, place.radius + 2 * depth);
  const distanceAt = (p: Vec3) => face(p).distance;
  const long = path.slice(1).reduce((sum, b, i) => sum + distance(path[i]!, b), 0);
  // A bent wire is smooth: some thirty places along it are enough to bend it by.
  const points = samples(path, Math.max(0.012, long / 30));
  const step = Math.max(1e-4, depth * 0.02);
  /** Bent square to `along`, where that is given: what is bent between two places does not slide towards either. */
  const inward = (p: Vec3, along?: Vec3): Vec3 => {
    // What leads out to where it is held comes nearer the face on the way.
    if (held.some((h) => distance(h, p) < Math.max(1e-6, 2 * depth))) return p;
    let at = p;
    let here = distanceAt(at);
    if (here > wellOutside) return p;
    for (let i = 0; i < 6 && depth + here > 1e-4; i++) {
      const whole = [0, 1, 2].map(
        (k) =>
          (distanceAt([at[0] + (k === 0 ? step : 0), at[1] + (k === 1 ? step : 0), at[2] + (k === 2 ? step : 0)]) -
            here) /
          step,
      ) as [number, number, number];
      const slope = along ? subtract(whole, scale(along, dot(whole, along))) : whole;
      const steep = Math.hypot(...slope);
      // On the ridge between two faces there is nowhere deeper.
      if (steep < 0.15) break;
      const by = (depth + here) / steep;
      const next: Vec3 = [at[0] - slope[0] * by, at[1] - slope[1] * by, at[2] - slope[2] * by];
      const there = distanceAt(next);
      if (there > here) break;
      at = next;
      here = there;
    }
    return at;
  };
  // Across a hollow, under the jaw or at the nape, the straight between two bent places comes nearer again: bent there too.
  const between = (a: Vec3, b: Vec3, deep: number): Vec3[] => {
    const middle = mix(a, b, 0.5);
    if (deep === 0 || distance(a, b) < 2 * closest || depth + distanceAt(middle) < depth / 20) return [];
    const bent = inward(middle, unit(subtract(b, a)));
    // Nowhere deeper to go, or thrown far off: the straight is as good.
    if (distance(bent, middle) > distance(a, b)) return [];
    return [...between(a, bent, deep - 1), bent, ...between(bent, b, deep - 1)];
  };
  const bent = points.map((p) => inward(p));
  return bent.flatMap((b, i) => (i === 0 ? [b] : [...between(bent[i - 1]!, b, 3), b]));
}
/** No two bends are nearer to each other, metres. */
const closest = 0.003;

/** Distance from each point of a face to the nearest member's own surface, metres: the cover as the picture shows it. */
export function coverOnFace(
  positions: Float32Array,
  members: readonly Member[],
  wholeAcross: (m: Member) => number,
): Float32Array {
  const segments: number[] = [];
  for (const m of members) {
    const radius = wholeAcross(m) / 2;
    for (let i = 1; i < m.path.length; i++) segments.push(...m.path[i - 1]!, ...m.path[i]!, radius);
  }
  const flat = Float64Array.from(segments);
  const out = new Float32Array(positions.length / 3).fill(Infinity);
  const { sqrt, min, max } = Math;
  for (let v = 0; v < out.length; v++) {
    const x = positions[v * 3]!,
      y = positions[v * 3 + 1]!,
      z = positions[v * 3 + 2]!;
    let best = Infinity;
    for (let s = 0; s < flat.length; s += 7) {
      const ax = flat[s]!,
        ay = flat[s + 1]!,
        az = flat[s + 2]!;
      const bx = flat[s + 3]! - ax,
        by = flat[s + 4]! - ay,
        bz = flat[s + 5]! - az;
      const px = x - ax,
        py = y - ay,
        pz = z - az;
      const l2 = bx * bx + by * by + bz * bz;
      const t = l2 > 0 ? min(1, max(0, (px * bx + py * by + pz * bz) / l2)) : 0;
      const dx = px - t * bx,
        dy = py - t * by,
        dz = pz - t * bz;
      const d = sqrt(dx * dx + dy * dy + dz * dz) - flat[s + 6]!;
      if (d < best) best = d;
    }
    out[v] = best;
  }
  return out;
}
