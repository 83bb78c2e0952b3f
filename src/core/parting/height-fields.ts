import { leansBack } from '../mould';
import type { Vec3 } from '../quantity';
import { across } from './directions';
import type { MasterFace } from './face';

const mostAlong = 1600;

/**
 * Which triangles can be drawn along a direction, and which along its opposite: the highest and the lowest face over each
 * point of a picture square to it. A third of an edge is a point of the picture.
 */
export class HeightFields {
  private readonly pixel: number;
  private readonly px: Float32Array;
  private readonly py: Float32Array;
  private readonly ph: Float32Array;
  private top = new Float32Array(0);
  private bottom = new Float32Array(0);
  private wide = 0;
  private high = 0;
  private x0 = 0;
  private y0 = 0;
  private u: Vec3 = [1, 0, 0];
  private v: Vec3 = [0, 1, 0];
  private d: Vec3 = [0, 0, 1];

  /** `pixel`: metres a point of the picture. */
  constructor(
    private readonly face: MasterFace,
    pixel = face.medianEdge / 3,
  ) {
    this.pixel = Math.max(pixel, face.diagonal / mostAlong);
    const points = face.positions.length / 3;
    this.px = new Float32Array(points);
    this.py = new Float32Array(points);
    this.ph = new Float32Array(points);
  }

  /** The picture along a direction, for `drawable` and `clearOpen` to be asked of. */
  look(d: Vec3): this {
    const { px, py, ph, pixel, face } = this;
    const [u, v] = across(d);
    this.d = d;
    this.u = u;
    this.v = v;
    const p = face.positions;
    let lx = Infinity,
      ly = Infinity,
      hx = -Infinity,
      hy = -Infinity;
    for (let i = 0, k = 0; i < px.length; i++, k += 3) {
      const x = p[k]!,
        y = p[k + 1]!,
        z = p[k + 2]!;
      const a = (u[0] * x + u[1] * y + u[2] * z) / pixel,
        b = (v[0] * x + v[1] * y + v[2] * z) / pixel;
      px[i] = a;
      py[i] = b;
      ph[i] = d[0] * x + d[1] * y + d[2] * z;
      if (a < lx) lx = a;
      if (a > hx) hx = a;
      if (b < ly) ly = b;
      if (b > hy) hy = b;
    }
    this.x0 = Math.floor(lx) - 1;
    this.y0 = Math.floor(ly) - 1;
    this.wide = Math.ceil(hx) - this.x0 + 2;
    this.high = Math.ceil(hy) - this.y0 + 2;
    const pixels = this.wide * this.high;
    if (this.top.length < pixels) {
      this.top = new Float32Array(pixels);
      this.bottom = new Float32Array(pixels);
    }
    this.top.fill(-Infinity, 0, pixels);
    this.bottom.fill(Infinity, 0, pixels);
    this.draw();
    return this;
  }

  /** Each triangle once: what looks along the direction into the tops, what looks back into the bottoms. */
  private draw(): void {
    const { px, py, ph, wide, x0, y0, top, bottom } = this;
    const { triangles, count, normals } = this.face;
    const [dx, dy, dz] = this.d;
    for (let t = 0, k = 0; t < count; t++, k += 3) {
      const a = triangles[k]!,
        b = triangles[k + 1]!,
        c = triangles[k + 2]!;
      const up = normals[k]! * dx + normals[k + 1]! * dy + normals[k + 2]! * dz > 0;
      const ax = px[a]! - x0,
        ay = py[a]! - y0,
        ah = ph[a]!;
      const bx = px[b]! - x0 - ax,
        by = py[b]! - y0 - ay,
        bh = ph[b]! - ah;
      const cx = px[c]! - x0 - ax,
        cy = py[c]! - y0 - ay,
        ch = ph[c]! - ah;
      const twice = bx * cy - by * cx;
      if (twice === 0) continue;
      const inverse = 1 / twice;
      const i0 = Math.ceil(Math.min(0, bx, cx) + ax - 0.5),
        i1 = Math.floor(Math.max(0, bx, cx) + ax - 0.5);
      const j0 = Math.ceil(Math.min(0, by, cy) + ay - 0.5),
        j1 = Math.floor(Math.max(0, by, cy) + ay - 0.5);
      const sb = cy * inverse,
        tb = -by * inverse;
      for (let j = j0; j <= j1; j++) {
        const y = j + 0.5 - ay;
        let x = i0 + 0.5 - ax;
        let wb = (x * cy - y * cx) * inverse,
          wc = (y * bx - x * by) * inverse;
        for (let i = i0, at = j * wide + i0; i <= i1; i++, at++, x++, wb += sb, wc += tb) {
          if (wb < -1e-6 || wc < -1e-6 || wb + wc > 1.000001) continue;
          const h = ah + wb * bh + wc * ch;
          if (up) {
            if (h > top[at]!) top[at] = h;
          } else if (h < bottom[at]!) bottom[at] = h;
        }
      }
    }
  }

  /**
   * Marks the triangles that can be drawn along the direction and along its opposite. Each is asked a picture's point out
   * from its middle, so that a face along the direction does not stand in its own way. `faces`: 1 where it looks along.
   */
  drawable(along: Uint8Array, back: Uint8Array, faces?: Uint8Array): void {
    const { pixel, wide, high, x0, y0, top, bottom, u, v, d } = this;
    const { count, normals, centres } = this.face;
    for (let t = 0, k = 0; t < count; t++, k += 3) {
      const nx = normals[k]!,
        ny = normals[k + 1]!,
        nz = normals[k + 2]!;
      const x = centres[k]! + nx * pixel,
        y = centres[k + 1]! + ny * pixel,
        z = centres[k + 2]! + nz * pixel;
      const lean = nx * d[0] + ny * d[1] + nz * d[2];
      if (faces) faces[t] = lean > 0 ? 1 : 0;
      const i = Math.floor((u[0] * x + u[1] * y + u[2] * z) / pixel - x0),
        j = Math.floor((v[0] * x + v[1] * y + v[2] * z) / pixel - y0);
      const h = d[0] * x + d[1] * y + d[2] * z;
      const out = i < 0 || j < 0 || i >= wide || j >= high;
      const at = j * wide + i;
      along[t] = lean > -leansBack && (out || top[at]! <= h + pixel) ? 1 : 0;
      back[t] = lean < leansBack && (out || bottom[at]! >= h - pixel) ? 1 : 0;
    }
  }

  /**
   * Places of a column, each `rise` metres over the last: those over which nothing stands in the direction are taken out of
   * `marked`, where the column begins at `first` and goes on by `stride`.
   */
  clearOpen(marked: Uint8Array, first: number, stride: number, count: number, at: Vec3, rise: number): void {
    const { u, v, d, pixel, x0, y0, wide, high, top } = this;
    const [x, y, z] = at;
    const a0 = (u[0] * x + u[1] * y + u[2] * z) / pixel - x0,
      b0 = (v[0] * x + v[1] * y + v[2] * z) / pixel - y0,
      h0 = d[0] * x + d[1] * y + d[2] * z;
    const da = (u[2] * rise) / pixel,
      db = (v[2] * rise) / pixel,
      dh = d[2] * rise;
    for (let n = 0, k = first; n < count; n++, k += stride) {
      if (marked[k] === 0) continue;
      const i = Math.floor(a0 + n * da),
        j = Math.floor(b0 + n * db);
      if (i < 0 || j < 0 || i >= wide || j >= high || !(top[j * wide + i]! > h0 + n * dh)) marked[k] = 0;
    }
  }
}
