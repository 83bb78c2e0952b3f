import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { leansBack } from '../mould';
import type { Vec3 } from '../quantity';
import type { MasterFace } from './face';

/** Rays against the whole face, what it stands on with it: dearer than pictures, and exact. */
export class FaceRays {
  private readonly tree: MeshBVH;
  private readonly ray = new Ray();

  constructor(private readonly face: MasterFace) {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(face.positions, 3));
    geometry.setIndex(new BufferAttribute(face.triangles.slice(), 1));
    // The order of the triangles stays as it is: they are known by it.
    this.tree = new MeshBVH(geometry, { indirect: true });
  }

  /** How far along a direction of length one the face is met; Infinity where it is not. */
  meets(from: Vec3, d: Vec3): number {
    this.ray.origin.set(...from);
    this.ray.direction.set(...d);
    return this.tree.raycastFirst(this.ray, DoubleSide)?.distance ?? Infinity;
  }

  /**
   * Whether a triangle can be drawn along a direction: it leans back by no more than two degrees, and nothing is in its
   * way. One that does lean back slides along itself.
   */
  draws(t: number, d: Vec3): boolean {
    const { normals: n, centres: c, medianEdge } = this.face;
    const k = 3 * t;
    const lean = n[k]! * d[0] + n[k + 1]! * d[1] + n[k + 2]! * d[2];
    if (lean <= -leansBack) return false;
    const off = offTheFace * medianEdge;
    this.ray.origin.set(c[k]! + n[k]! * off, c[k + 1]! + n[k + 1]! * off, c[k + 2]! + n[k + 2]! * off);
    this.ray.direction.set(...d);
    if (lean < 0) this.ray.direction.addScaledVector(normal.set(n[k]!, n[k + 1]!, n[k + 2]!), -lean).normalize();
    return this.tree.raycastFirst(this.ray, DoubleSide) === null;
  }

  /** That, of every triangle. */
  drawable(d: Vec3): Uint8Array {
    return new Uint8Array(this.face.count).map((_, t) => (this.draws(t, d) ? 1 : 0));
  }
}

const normal = new Vector3();
/** Of an edge: a ray does not begin in the face it comes from. */
const offTheFace = 0.05;
