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
  /** Nine a triangle. */
  private readonly corners: Float64Array;
  /** Middle and radius about it, four a triangle. */
  private readonly balls: Float64Array;
  private nearest = -1;
  /** Of the place last asked for, the nearest place on the face. */
  private readonly on = new Float64Array(3);
  private readonly at = new Float64Array(3);

  constructor(face: MasterFace, counts: (t: number) => boolean) {
    this.p = face.positions;
    const own: number[] = [];
    for (let t = 0; t < face.count; t++) if (counts(t)) own.push(t);
    this.all = Int32Array.from(own, (_, i) => i);
    this.room = new Int32Array(own.length);
    this.corners = new Float64Array(9 * own.length);
    this.balls = new Float64Array(4 * own.length);
    for (const [i, t] of own.entries()) {
      for (let c = 0; c < 3; c++)
        for (let k = 0; k < 3; k++) this.corners[9 * i + 3 * c + k] = this.p[3 * face.triangles[3 * t + c]! + k]!;
      for (let k = 0; k < 3; k++) this.balls[4 * i + k] = face.centres[3 * t + k]!;
      let most = 0;
      for (let c = 0; c < 3; c++)
        most = Math.max(
          most,
          Math.hypot(...[0, 1, 2].map((k) => this.corners[9 * i + 3 * c + k]! - this.balls[4 * i + k]!)),
        );
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
        this.at.set(this.on);
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
        this.at.set(this.on);
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
    const { corners: c, at } = this;
    const k = 9 * this.nearest;
    const ux = c[k + 3]! - c[k]!,
      uy = c[k + 4]! - c[k + 1]!,
      uz = c[k + 5]! - c[k + 2]!,
      vx = c[k + 6]! - c[k]!,
      vy = c[k + 7]! - c[k + 1]!,
      vz = c[k + 8]! - c[k + 2]!;
    const nx = uy * vz - uz * vy,
      ny = uz * vx - ux * vz,
      nz = ux * vy - uy * vx;
    return nx * (x - at[0]!) + ny * (y - at[1]!) + nz * (z - at[2]!) < 0;
  }

  /** Square of the distance; the nearest place on it is left in `on`. Ericson (2005), *Real-Time Collision Detection*, 5.1.5. */
  private toTriangle(i: number, x: number, y: number, z: number): number {
    const { corners: c, on } = this;
    const k = 9 * i;
    const ax = c[k]!,
      ay = c[k + 1]!,
      az = c[k + 2]!;
    const abx = c[k + 3]! - ax,
      aby = c[k + 4]! - ay,
      abz = c[k + 5]! - az;
    const acx = c[k + 6]! - ax,
      acy = c[k + 7]! - ay,
      acz = c[k + 8]! - az;
    const apx = x - ax,
      apy = y - ay,
      apz = z - az;
    const d1 = abx * apx + aby * apy + abz * apz,
      d2 = acx * apx + acy * apy + acz * apz;
    let s = 0,
      t = 0;
    if (d1 > 0 || d2 > 0) {
      const bpx = apx - abx,
        bpy = apy - aby,
        bpz = apz - abz;
      const d3 = abx * bpx + aby * bpy + abz * bpz,
        d4 = acx * bpx + acy * bpy + acz * bpz;
      const cpx = apx - acx,
        cpy = apy - acy,
        cpz = apz - acz;
      const d5 = abx * cpx + aby * cpy + abz * cpz,
        d6 = acx * cpx + acy * cpy + acz * cpz;
      const vc = d1 * d4 - d3 * d2,
        vb = d5 * d2 - d1 * d6,
        va = d3 * d6 - d5 * d4;
      if (d3 >= 0 && d4 <= d3) s = 1;
      else if (vc <= 0 && d1 >= 0 && d3 <= 0) s = d1 / (d1 - d3);
      else if (d6 >= 0 && d5 <= d6) t = 1;
      else if (vb <= 0 && d2 >= 0 && d6 <= 0) t = d2 / (d2 - d6);
      else if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
        t = (d4 - d3) / (d4 - d3 + (d5 - d6));
        s = 1 - t;
      } else {
        const all = va + vb + vc;
        s = vb / all;
        t = vc / all;
      }
    }
    on[0] = ax + s * abx + t * acx;
    on[1] = ay + s * aby + t * acy;
    on[2] = az + s * abz + t * acz;
    return (x - on[0]) ** 2 + (y - on[1]) ** 2 + (z - on[2]) ** 2;
  }
}
