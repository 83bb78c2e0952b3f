import type { TriangleMesh } from './triangle-mesh';

const { atan2, max, min, sqrt } = Math;

/**
 * How often a mesh goes round a place: 1 inside a closed mesh and 0 outside it, in between where it is open, 2 where it
 * overlaps itself. What tells inside from outside in a mesh that is neither closed nor clean.
 * Jacobson, Kavan and Sorkine-Hornung (2013), *Robust inside-outside segmentation using generalized winding numbers*;
 * Barill, Dickson, Schmidt, Levin and Jacobson (2018), *Fast winding numbers for soups and clouds*.
 */
const fourPi = 4 * Math.PI;

/** Triangles in a leaf, each taken exactly. */
const leafSize = 4;
/** What lies further away than so many of its radii is taken as one source and its first moment. */
const farEnough = 2;

/** Part of the sphere about a place that one triangle fills, over the whole sphere. Van Oosterom and Strackee (1983). */
function windingOfTriangle(p: Float64Array, a: number, b: number, c: number, x: number, y: number, z: number): number {
  const ax = p[a]! - x,
    ay = p[a + 1]! - y,
    az = p[a + 2]! - z;
  const bx = p[b]! - x,
    by = p[b + 1]! - y,
    bz = p[b + 2]! - z;
  const cx = p[c]! - x,
    cy = p[c + 1]! - y,
    cz = p[c + 2]! - z;
  const la = sqrt(ax * ax + ay * ay + az * az),
    lb = sqrt(bx * bx + by * by + bz * bz),
    lc = sqrt(cx * cx + cy * cy + cz * cz);
  const volume = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
  const apart =
    la * lb * lc +
    (ax * bx + ay * by + az * bz) * lc +
    (bx * cx + by * cy + bz * cz) * la +
    (cx * ax + cy * ay + cz * az) * lb;
  // The solid angle is twice the arc; on the plane of the triangle it is nought or, on the triangle itself, in between.
  return volume === 0 && apart === 0 ? 0 : (2 * atan2(volume, apart)) / fourPi;
}

/** Every triangle, exactly: the slow twin, and what a few places are asked of. */
export function windingExactly(mesh: TriangleMesh, x: number, y: number, z: number): number {
  const p = Float64Array.from(mesh.positions);
  const t = mesh.triangles;
  let sum = 0;
  for (let f = 0; f < t.length; f += 3) sum += windingOfTriangle(p, t[f]! * 3, t[f + 1]! * 3, t[f + 2]! * 3, x, y, z);
  return sum;
}

/** Middle (3), reach squared, area vector (3), first moment of the area vector as a symmetric matrix (xx xy xz yy yz zz). */
const width = 13;

/** A mesh ready to be asked at many places; in the mesh's own unit. */
export class Winding {
  private readonly positions: Float64Array;
  private readonly corners: Uint32Array;
  private readonly order: Uint32Array;
  private nodes: Float64Array;
  /** By node, parents before children: the node that comes after all it holds; first triangle; how many, 0 when it has children. */
  private links: Int32Array;
  private count = 0;

  constructor(mesh: TriangleMesh) {
    const faces = mesh.triangles.length / 3;
    this.positions = Float64Array.from(mesh.positions);
    this.corners = mesh.triangles.map((v) => v * 3);
    this.order = Uint32Array.from({ length: faces }, (_, f) => f);
    const most = max(1, 4 * Math.ceil(faces / leafSize));
    this.nodes = new Float64Array(most * width);
    this.links = new Int32Array(most * 3);
    const middles = new Float64Array(faces * 3);
    for (let f = 0; f < faces; f++)
      for (let k = 0; k < 3; k++)
        middles[f * 3 + k] =
          (this.positions[this.corners[f * 3]! + k]! +
            this.positions[this.corners[f * 3 + 1]! + k]! +
            this.positions[this.corners[f * 3 + 2]! + k]!) /
          3;
    if (faces > 0) this.build(middles, 0, faces);
  }

  /** At one place; a bound on how far it is off is a few thousandths. */
  at(x: number, y: number, z: number): number {
    const { nodes, links, positions, corners, order } = this;
    let sum = 0;
    for (let i = 0; i < this.count;) {
      const n = i * width;
      const rx = nodes[n]! - x,
        ry = nodes[n + 1]! - y,
        rz = nodes[n + 2]! - z;
      const r2 = rx * rx + ry * ry + rz * rz;
      const triangles = links[i * 3 + 2]!;
      if (r2 > nodes[n + 3]!) {
        const inverse = 1 / r2;
        const cube = inverse / sqrt(r2);
        const xx = nodes[n + 7]!,
          yy = nodes[n + 10]!,
          zz = nodes[n + 12]!;
        const along =
          xx * rx * rx +
          yy * ry * ry +
          zz * rz * rz +
          2 * (nodes[n + 8]! * rx * ry + nodes[n + 9]! * rx * rz + nodes[n + 11]! * ry * rz);
        sum +=
          ((nodes[n + 4]! * rx + nodes[n + 5]! * ry + nodes[n + 6]! * rz + xx + yy + zz - 3 * along * inverse) * cube) /
          fourPi;
        i = links[i * 3]!;
      } else if (triangles > 0) {
        const from = links[i * 3 + 1]!;
        for (let k = from; k < from + triangles; k++) {
          const c = order[k]! * 3;
          sum += windingOfTriangle(positions, corners[c]!, corners[c + 1]!, corners[c + 2]!, x, y, z);
        }
        i = links[i * 3]!;
      } else i++;
    }
    return sum;
  }

  private build(middles: Float64Array, from: number, to: number): void {
    const node = this.count++;
    if (this.count * 3 > this.links.length) {
      const nodes = new Float64Array(this.nodes.length * 2),
        links = new Int32Array(this.links.length * 2);
      nodes.set(this.nodes);
      links.set(this.links);
      this.nodes = nodes;
      this.links = links;
    }
    this.gather(node, middles, from, to);
    this.links[node * 3 + 1] = from;
    if (to - from <= leafSize) this.links[node * 3 + 2] = to - from;
    else {
      const half = this.halve(middles, from, to);
      this.build(middles, from, half);
      this.build(middles, half, to);
    }
    this.links[node * 3] = this.count;
  }

  /** The sums over a run of triangles, about the middle of their area. */
  private gather(node: number, middles: Float64Array, from: number, to: number): void {
    const { positions: p, corners, order, nodes } = this;
    const n = node * width;
    let area = 0,
      mx = 0,
      my = 0,
      mz = 0;
    const vector = (c: number) => {
      const a = corners[c]!,
        b = corners[c + 1]!,
        d = corners[c + 2]!;
      const ux = p[b]! - p[a]!,
        uy = p[b + 1]! - p[a + 1]!,
        uz = p[b + 2]! - p[a + 2]!;
      const vx = p[d]! - p[a]!,
        vy = p[d + 1]! - p[a + 1]!,
        vz = p[d + 2]! - p[a + 2]!;
      return [(uy * vz - uz * vy) / 2, (uz * vx - ux * vz) / 2, (ux * vy - uy * vx) / 2] as const;
    };
    for (let k = from; k < to; k++) {
      const f = order[k]!;
      const [x, y, z] = vector(f * 3);
      const a = sqrt(x * x + y * y + z * z) + 1e-300;
      area += a;
      mx += a * middles[f * 3]!;
      my += a * middles[f * 3 + 1]!;
      mz += a * middles[f * 3 + 2]!;
    }
    mx /= area;
    my /= area;
    mz /= area;
    let reach = 0;
    for (let k = from; k < to; k++) {
      const f = order[k]!;
      const [x, y, z] = vector(f * 3);
      const ex = middles[f * 3]! - mx,
        ey = middles[f * 3 + 1]! - my,
        ez = middles[f * 3 + 2]! - mz;
      nodes[n + 4]! += x;
      nodes[n + 5]! += y;
      nodes[n + 6]! += z;
      nodes[n + 7]! += x * ex;
      nodes[n + 8]! += (x * ey + y * ex) / 2;
      nodes[n + 9]! += (x * ez + z * ex) / 2;
      nodes[n + 10]! += y * ey;
      nodes[n + 11]! += (y * ez + z * ey) / 2;
      nodes[n + 12]! += z * ez;
      for (let c = 0; c < 3; c++) {
        const v = corners[f * 3 + c]!;
        reach = max(reach, (p[v]! - mx) ** 2 + (p[v + 1]! - my) ** 2 + (p[v + 2]! - mz) ** 2);
      }
    }
    nodes[n] = mx;
    nodes[n + 1] = my;
    nodes[n + 2] = mz;
    nodes[n + 3] = reach * farEnough * farEnough;
  }

  /** Sorted along the longest side, into two as equal as can be. */
  private halve(middles: Float64Array, from: number, to: number): number {
    const part = this.order.subarray(from, to);
    const low = [Infinity, Infinity, Infinity],
      high = [-Infinity, -Infinity, -Infinity];
    for (const f of part)
      for (let k = 0; k < 3; k++) {
        low[k] = min(low[k]!, middles[f * 3 + k]!);
        high[k] = max(high[k]!, middles[f * 3 + k]!);
      }
    const sides = low.map((l, k) => high[k]! - l);
    const axis = sides.indexOf(max(...sides));
    select(part, (part.length / 2) | 0, (f) => middles[f * 3 + axis]!);
    return from + ((part.length / 2) | 0);
  }
}

/** Puts the k smallest by some key before the rest (Hoare's selection). */
function select(list: Uint32Array, k: number, key: (f: number) => number): void {
  let low = 0,
    high = list.length - 1;
  while (low < high) {
    const pivot = key(list[(low + high) >> 1]!);
    let i = low,
      j = high;
    while (i <= j) {
      while (key(list[i]!) < pivot) i++;
      while (key(list[j]!) > pivot) j--;
      if (i <= j) {
        const swap = list[i]!;
        list[i++] = list[j]!;
        list[j--] = swap;
      }
    }
    if (k <= j) high = j;
    else if (k >= i) low = i;
    else return;
  }
}
