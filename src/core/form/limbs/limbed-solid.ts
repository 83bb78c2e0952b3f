import type { Limbs } from '../../document';
import { cross, dot, norm, scale, subtract, type Vec3 } from '../../quantity';
import { decodedSamples, sampledDistance, type SampledShape } from '../mesh/sampled';
import { compose, inverse, rotate, rotationOf, type Rotation } from '../turn';
import { boundsOf, outside, type Bounds, type Slice } from './limb-bounds';
import { limbPlaces, limbWay, type LimbPlaces } from './limb-places';

const { abs, acos, ceil, cos, max, min, round, sin, sqrt } = Math;

/**
 * A mesh with limbs, posed: one signed distance for all of it, and by place the joint that carries it. What no joint has
 * turned is read where it lies. Where one has, each side is read as its own joint carries it, and between them the limb
 * bends evenly: a place is turned back by its share of the joint's turn before it is looked up, so that it stays whole and
 * keeps its volume to a few percent of the bend.
 */
export interface LimbTurn {
  /** Where the joint stands posed, and how it is turned in all. */
  readonly at: Vec3;
  readonly rotation: Rotation;
}

/** The mesh as it stands before the pose, at full scale. */
export interface RestingMesh {
  readonly shape: SampledShape;
  readonly limbs: Limbs;
  readonly at: Vec3;
  readonly turn: Vec3;
}

/** A part of the mesh that is looked up in one way. */
interface Lot {
  /** From a place in the world to samples: rows of nine, then the shift. */
  readonly to: Float64Array;
  readonly bend: Bend | null;
  /** How far outside what it stands for a place of the mesh lies, in samples; null for all of the mesh. */
  readonly bounds: Bounds | null;
  /** A ball about it in the world: middle, radius. */
  readonly ball: readonly [number, number, number, number];
}

interface Bend {
  readonly at: Vec3;
  readonly axis: Vec3;
  /** Radians between the two sides. */
  readonly angle: number;
  /** Square to the middle of the bend, and how far it reaches to either side. */
  readonly way: Vec3;
  readonly reach: number;
}

/** A bend reaches this far to either side of its joint, of the depth there and each radian: what lies on its inner side is pressed to half at most. */
const reachEachRadian = 1;
const leastReach = 0.6;
/** What is looked up in two ways overlaps by so many of the depth, so that neither cuts into the other's inside. */
const overlap = 2.3;

export class LimbedSolid {
  readonly places: LimbPlaces;
  /** Two with the same one are the same to the last bit. */
  readonly key: string;
  /** The most a distance in it can change over a way of one. */
  readonly slope: number;
  readonly samples: Float32Array;
  private readonly info: Float64Array;
  private readonly bends: readonly (Bend | null)[];
  private made: readonly Lot[] | null = null;

  constructor(
    private readonly rest: RestingMesh,
    private readonly turns: readonly LimbTurn[],
    /** By joint: left out of the form. */
    private readonly hidden: readonly boolean[],
  ) {
    const { shape, limbs } = rest;
    this.places = limbPlaces(shape, limbs);
    this.samples = decodedSamples(shape.values);
    this.info = Float64Array.of(...shape.cells, 0, 0, 0);
    this.bends = limbs.map((_, i) => (this.places.parentOf[i]! < 0 ? null : this.bendOf(i)));
    this.slope = this.bends.reduce((most, b, i) => {
      if (!b) return most;
      const across = max(this.places.across[i]!, this.places.depth[i]!);
      return max(most, 1 + (b.angle / (2 * b.reach)) * (across + this.places.depth[i]! + b.reach));
    }, 1);
    this.key = JSON.stringify([
      this.places.id,
      rest.at,
      rest.turn,
      shape.step,
      shape.from,
      turns,
      hidden,
      limbs.map((j) => j.at),
    ]);
  }

  /** Found when a place is first asked for: a form is made more often than it is measured. */
  private get lots(): readonly Lot[] {
    return (this.made ??= this.lotsOf(this.sameAs(), this.bends));
  }

  /** Its own words in a hash or a message. */
  toJSON(): string {
    return this.key;
  }

  /** Signed distance at a place in the world, metres. */
  at(x: number, y: number, z: number): number {
    return this.find(x, y, z) * this.rest.shape.step;
  }

  /** Index of the joint that carries a place. */
  jointAt(x: number, y: number, z: number): number {
    this.find(x, y, z);
    const { lattice, joint } = this.places;
    const { cells, step, from } = lattice;
    const u = min(cells[0] - 1, max(0, round((this.u - from[0]) / step))),
      v = min(cells[1] - 1, max(0, round((this.v - from[1]) / step))),
      w = min(cells[2] - 1, max(0, round((this.w - from[2]) / step)));
    return joint[u + cells[0] * (v + cells[1] * w)]!;
  }

  /** A box in the world that holds what goes with a joint; null where nothing does. */
  boxOf(index: number): { low: Vec3; high: Vec3 } | null {
    const box = this.places.boxes[index];
    if (!box || this.hidden[index]) return null;
    const out = cornersOf(box).map((c) => this.toWorld(index, c));
    const low = [0, 1, 2].map((k) => min(...out.map((p) => p[k as 0]))) as unknown as Vec3;
    const high = [0, 1, 2].map((k) => max(...out.map((p) => p[k as 0]))) as unknown as Vec3;
    return { low, high };
  }

  /** A box that holds all of it, what bulges at its bends too. */
  box(): { low: Vec3; high: Vec3 } {
    const boxes = this.rest.limbs.flatMap((_, i) => this.boxOf(i) ?? []);
    for (const { bend, ball } of this.lots)
      if (bend)
        boxes.push({
          low: [0, 1, 2].map((k) => ball[k as 0] - ball[3]) as unknown as Vec3,
          high: [0, 1, 2].map((k) => ball[k as 0] + ball[3]) as unknown as Vec3,
        });
    return {
      low: [0, 1, 2].map((k) => min(...boxes.map((b) => b.low[k as 0]))) as unknown as Vec3,
      high: [0, 1, 2].map((k) => max(...boxes.map((b) => b.high[k as 0]))) as unknown as Vec3,
    };
  }

  private u = 0;
  private v = 0;
  private w = 0;

  /** In samples; where it was looked up stays in u, v and w. */
  private find(x: number, y: number, z: number): number {
    const { samples, info, rest, lots } = this;
    const deepest = rest.shape.deepest / rest.shape.step;
    let best = Infinity;
    let bu = 0,
      bv = 0,
      bw = 0;
    for (let l = 0; l < lots.length; l++) {
      const { to, bend, bounds, ball } = lots[l]!;
      if (bounds && best < Infinity) {
        const dx = x - ball[0],
          dy = y - ball[1],
          dz = z - ball[2];
        const far = best * rest.shape.step + ball[3];
        if (far <= 0 || dx * dx + dy * dy + dz * dz > far * far) continue;
      }
      let u = to[0]! * x + to[1]! * y + to[2]! * z + to[9]!,
        v = to[3]! * x + to[4]! * y + to[5]! * z + to[10]!,
        w = to[6]! * x + to[7]! * y + to[8]! * z + to[11]!;
      if (bend) {
        const { at, axis, angle, way, reach } = bend;
        const px = u - at[0],
          py = v - at[1],
          pz = w - at[2];
        const along = way[0] * px + way[1] * py + way[2] * pz;
        const a = -angle * min(1, max(0, (along + reach) / (2 * reach)));
        const c = cos(a),
          s = sin(a);
        const on = (axis[0] * px + axis[1] * py + axis[2] * pz) * (1 - c);
        u = at[0] + c * px + s * (axis[1] * pz - axis[2] * py) + on * axis[0];
        v = at[1] + c * py + s * (axis[2] * px - axis[0] * pz) + on * axis[1];
        w = at[2] + c * pz + s * (axis[0] * py - axis[1] * px) + on * axis[2];
      }
      let d = sampledDistance(samples, info, 1, deepest, u, v, w);
      if (bounds && d < best) d = max(d, outside(bounds, this.places, u, v, w));
      if (d < best) {
        best = d;
        bu = u;
        bv = v;
        bw = w;
      }
    }
    this.u = bu;
    this.v = bv;
    this.w = bw;
    return best;
  }

  /** By joint: the first one that is carried just as it is. */
  private sameAs(): number[] {
    const shifts = this.turns.map((t, i) => subtract(t.at, rotate(t.rotation, this.restOf(i))));
    return this.turns.map((t, i) =>
      this.turns.findIndex(
        (o, k) =>
          o.rotation.every((r, n) => abs(r - t.rotation[n]!) < 1e-9) && norm(subtract(shifts[k]!, shifts[i]!)) < 1e-9,
      ),
    );
  }

  /** Where a joint is before the pose. */
  private restOf(i: number): Vec3 {
    const { at, turn, limbs } = this.rest;
    const p = rotate(rotationOf(turn), limbs[i]!.at);
    return [at[0] + p[0], at[1] + p[1], at[2] + p[2]];
  }

  /** From the world to samples, as the joint carries it. */
  private toSamples(i: number): Float64Array {
    const { shape, at, turn } = this.rest;
    const back = inverse(rotationOf(turn));
    const unposed = inverse(this.turns[i]!.rotation);
    const both = compose(back, unposed).map((r) => r / shape.step);
    const zero = subtract(subtract(this.restOf(i), at), rotate(unposed, this.turns[i]!.at));
    const shift = rotate(back, zero).map((v, k) => (v - shape.from[k]!) / shape.step);
    return Float64Array.of(...both, ...shift);
  }

  private toWorld(i: number, p: Vec3): Vec3 {
    const { shape, at, turn } = this.rest;
    const own = p.map((v, k) => v * shape.step + shape.from[k]!) as unknown as Vec3;
    const unposed = rotate(rotationOf(turn), own).map((v, k) => v + at[k]!) as unknown as Vec3;
    const t = this.turns[i]!;
    const out = rotate(t.rotation, subtract(unposed, this.restOf(i)));
    return [out[0] + t.at[0], out[1] + t.at[1], out[2] + t.at[2]];
  }

  /** How a joint bends what it is on, as seen from what it hangs on; null where it does not. */
  private bendOf(i: number): Bend | null {
    const { parentOf, at, depth } = this.places;
    const own = rotationOf(this.rest.turn);
    const between = compose(inverse(this.turns[parentOf[i]!]!.rotation), this.turns[i]!.rotation);
    const turned = compose(compose(inverse(own), between), own);
    const cosine = min(1, max(-1, (turned[0]! + turned[4]! + turned[8]! - 1) / 2));
    const angle = acos(cosine);
    if (angle < 1e-4) return null;
    const twist: Vec3 = [turned[7]! - turned[5]!, turned[2]! - turned[6]!, turned[3]! - turned[1]!];
    const long = norm(twist);
    const axis: Vec3 = long > 1e-6 ? scale(twist, 1 / long) : squareAxis(turned);
    const way = turnedBy(axis, angle / 2, limbWay(i, at, parentOf));
    return { at: at[i]!, axis, angle, way, reach: ceil(2 * max(leastReach, reachEachRadian * angle) * depth[i]!) / 2 };
  }

  private lotsOf(same: readonly number[], bends: readonly (Bend | null)[]): Lot[] {
    const first = [...new Set(same)];
    const whole = first.length === 1 && !this.hidden.some(Boolean);
    const everywhere = [0, 0, 0, Infinity] as const;
    if (whole) return [{ to: this.toSamples(0), bend: null, bounds: null, ball: everywhere }];
    const out: Lot[] = [];
    const slices = bends.map((b, i) => b && this.sliceOf(b, i));
    const { parentOf } = this.places;
    for (const f of first) {
      const own = same.map((s, i) => s === f && !this.hidden[i]);
      // It ends where a bend of its own begins, and begins where the one it hangs on ends.
      const ends = slices.flatMap((slice, i) => [
        ...(slice && own[i] ? [{ joint: i, slice, since: slice.reach }] : []),
        ...(slice && own[parentOf[i]!] ? [{ joint: parentOf[i]!, slice, until: -slice.reach }] : []),
      ]);
      const bounds = boundsOf(this.places, own, ends);
      if (bounds) out.push({ to: this.toSamples(f), bend: null, bounds, ball: this.ballOf(f, bounds) });
    }
    bends.forEach((bend, i) => {
      const parent = parentOf[i]!;
      if (!bend || this.hidden[i] || this.hidden[parent]) return;
      const bounds = boundsOf(
        this.places,
        same.map((_, k) => k === i || k === parent),
        [],
        slices[i]!,
      );
      if (bounds) out.push({ to: this.toSamples(parent), bend, bounds, ball: this.ballOf(parent, bounds) });
    });
    return out;
  }

  private sliceOf(bend: Bend, i: number): Slice {
    const { at, parentOf, depth, across } = this.places;
    const half = bend.reach + overlap * depth[i]! + 2;
    const round = max(across[i]! * 1.15, depth[i]! * 1.3) + 2;
    return {
      at: at[i]!,
      way: limbWay(i, at, parentOf),
      reach: bend.reach,
      half,
      within: sqrt(round * round + half * half),
    };
  }

  /** What a bend turns stays as far from its joint as it was. */
  private ballOf(joint: number, { middle, radius }: Bounds): Lot['ball'] {
    return [...this.toWorld(joint, middle), radius * this.rest.shape.step];
  }
}

function cornersOf({ low, high }: { low: Vec3; high: Vec3 }): Vec3[] {
  return Array.from(
    { length: 8 },
    (_, c) => [0, 1, 2].map((k) => ((c >> k) & 1 ? high : low)[k as 0]) as unknown as Vec3,
  );
}

/** Rodrigues' turn of a vector about an axis. */
function turnedBy(axis: Vec3, angle: number, v: Vec3): Vec3 {
  const c = cos(angle),
    s = sin(angle);
  const across = cross(axis, v);
  const on = dot(axis, v) * (1 - c);
  return [0, 1, 2].map((k) => c * v[k as 0] + s * across[k as 0] + on * axis[k as 0]) as unknown as Vec3;
}

/** The axis of a half turn, which its rotation tells by its diagonal alone. */
function squareAxis(r: Rotation): Vec3 {
  const own = [0, 4, 8].map((d) => sqrt(max(0, (r[d]! + 1) / 2)));
  const k = own.indexOf(max(...own));
  const rest = [0, 1, 2].map((j) => (j === k ? own[k]! : (r[3 * k + j]! + r[3 * j + k]!) / (4 * own[k]!)));
  return rest as unknown as Vec3;
}
