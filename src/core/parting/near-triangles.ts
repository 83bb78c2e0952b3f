import { nearestPlace, squaredToTriangle } from '../form';
import type { MasterFace } from './face';

/** Ids among the triangles of a set. */
export type TriangleList = Int32Array;

/**
 * Distances to some triangles of a face, for many places near each other: for all places within a ball, only those triangles
 * can be nearest that lie no further from its middle than the nearest does and its width. Lists of them are thinned from
 * large balls to small ones.
 */
export class NearTriangles {
  readonly all: TriangleList;
  private readonly p: Float32Array;
  /** To thin a list in. */
  private readonly room: Int32Array;
  /** Where each corner's place begins in `p`, three a triangle. */
  private readonly corners: Uint32Array;
  /** Middle and radius about it, four a triangle. */
  private readonly balls: Float64Array;
  private nearest = -1;
  /** Of the place last asked for, the nearest place on the face. */
  private readonly at = new Float64Array(3);

  constructor(face: MasterFace, counts: (t: number) => boolean) {
    this.p = face.positions;
    const own: number[] = [];
    for (let t = 0; t < face.count; t++) if (counts(t)) own.push(t);
    this.all = Int32Array.from(own, (_, i) => i);
    this.room = new Int32Array(own.length);
    this.corners = new Uint32Array(3 * own.length);
    this.balls = new Float64Array(4 * own.length);
    for (const [i, t] of own.entries()) {
      let most = 0;
      for (let k = 0; k < 3; k++) this.balls[4 * i + k] = face.centres[3 * t + k]!;
      for (let c = 0; c < 3; c++) {
        const corner = 3 * face.triangles[3 * t + c]!;
        this.corners[3 * i + c] = corner;
        most = Math.max(most, Math.hypot(...[0, 1, 2].map((k) => this.p[corner + k]! - this.balls[4 * i + k]!)));
      }
      this.balls[4 * i + 3] = most;
    }
  }

  /** Metres to the nearest of these; Infinity where there are none, or none within `most`. */
  distance(list: TriangleList, x: number, y: number, z: number, most = Infinity): number {
    const { balls } = this;
    let best = most * most;
    // Asked for one place after another, the nearest is often the same: what is further is then passed over at once.
    const before = this.nearest;
    this.nearest = -1;
    if (before >= 0) {
      const d = this.toTriangle(before, x, y, z);
      if (d < best) {
        best = d;
        this.nearest = before;
        this.at.set(nearestPlace);
      }
    }
    for (let n = 0; n < list.length; n++) {
      const i = list[n]!,
        k = 4 * i;
      const dx = x - balls[k]!,
        dy = y - balls[k + 1]!,
        dz = z - balls[k + 2]!;
      const squared = dx * dx + dy * dy + dz * dz;
      const radius = balls[k + 3]!;
      if (squared > radius * radius) {
        // |p - middle| - radius is no less than the best so far.
        const past = squared + radius * radius - best;
        if (past > 0 && past * past >= 4 * radius * radius * squared) continue;
      }
      const d = this.toTriangle(i, x, y, z);
      if (d < best) {
        best = d;
        this.nearest = i;
        this.at.set(nearestPlace);
      }
    }
    return this.nearest < 0 ? Infinity : Math.sqrt(best);
  }

  /** Of these, what can be nearest to any place within `radius` of one whose own nearest is `near` away. */
  thinned(list: TriangleList, x: number, y: number, z: number, near: number, radius: number): TriangleList {
    const { balls, room } = this;
    const reach = near + 2 * radius;
    let count = 0;
    for (let n = 0; n < list.length; n++) {
      const i = list[n]!,
        k = 4 * i;
      const dx = x - balls[k]!,
        dy = y - balls[k + 1]!,
        dz = z - balls[k + 2]!,
        most = reach + balls[k + 3]!;
      if (dx * dx + dy * dy + dz * dz <= most * most) room[count++] = i;
    }
    return room.slice(0, count);
  }

  /** Whether the place last asked for lies behind the triangle that is nearest to it. */
  behind(x: number, y: number, z: number): boolean {
    const { corners, p, at } = this;
    const first = 3 * this.nearest;
    const a = corners[first]!,
      b = corners[first + 1]!,
      c = corners[first + 2]!;
    const ux = p[b]! - p[a]!,
      uy = p[b + 1]! - p[a + 1]!,
      uz = p[b + 2]! - p[a + 2]!,
      vx = p[c]! - p[a]!,
      vy = p[c + 1]! - p[a + 1]!,
      vz = p[c + 2]! - p[a + 2]!;
    const nx = uy * vz - uz * vy,
      ny = uz * vx - ux * vz,
      nz = ux * vy - uy * vx;
    return nx * (x - at[0]!) + ny * (y - at[1]!) + nz * (z - at[2]!) < 0;
  }

  private toTriangle(i: number, x: number, y: number, z: number): number {
    const { corners: c } = this;
    return squaredToTriangle(this.p, c[3 * i]!, c[3 * i + 1]!, c[3 * i + 2]!, x, y, z);
  }
}
