import { cross, distance, subtract, unit, type Vec3 } from '../quantity';

/** A round bar along a bent path as a closed mesh, its ends flat: for taking the armature out to other programs. */
export function tubeMesh(
  path: readonly Vec3[],
  diameter: number,
  sides = 12,
): { positions: Float32Array; triangles: Uint32Array } {
  const points = path.filter((p, i) => i === 0 || distance(p, path[i - 1]!) > 1e-9);
  if (points.length < 2) return { positions: new Float32Array(0), triangles: new Uint32Array(0) };
  const r = diameter / 2;
  const positions: number[] = [];
  let side: Vec3 = [1, 0, 0];
  points.forEach((p, i) => {
    const ahead = unit(subtract(points[Math.min(points.length - 1, i + 1)]!, points[Math.max(0, i - 1)]!));
    if (i === 0) side = Math.abs(ahead[2]) < 0.9 ? unit(cross(ahead, [0, 0, 1])) : unit(cross(ahead, [0, 1, 0]));
    // Carried along without twisting.
    const up = unit(cross(side, ahead));
    side = unit(cross(ahead, up));
    for (let k = 0; k < sides; k++) {
      const a = (2 * Math.PI * k) / sides;
      const c = Math.cos(a) * r,
        s = Math.sin(a) * r;
      positions.push(p[0] + side[0] * c + up[0] * s, p[1] + side[1] * c + up[1] * s, p[2] + side[2] * c + up[2] * s);
    }
  });
  const triangles: number[] = [];
  const last = points.length - 1;
  for (let i = 0; i < last; i++) {
    for (let k = 0; k < sides; k++) {
      const a = i * sides + k,
        b = i * sides + ((k + 1) % sides),
        c = a + sides,
        d = b + sides;
      triangles.push(a, d, b, a, c, d);
    }
  }
  for (let k = 1; k < sides - 1; k++) triangles.push(0, k, k + 1, last * sides, last * sides + k + 1, last * sides + k);
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}
