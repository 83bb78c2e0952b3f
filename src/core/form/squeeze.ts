import type { Mass } from '../document';
import type { Vec3 } from '../quantity';
import { triple } from './stretch';
import { rotationOf, turnOf, type Rotation } from './turn';

/**
 * An ellipsoid, however it is turned, stretched along the world's axes: still an ellipsoid, with other axes. Its surface
 * is M u for unit vectors u, M = S R D; the columns of M are turned among each other until they are square to one
 * another (Hestenes 1958), and then are its new half axes. A mass of another shape is moved only.
 */
export function stretchedOver(mass: Mass, by: Vec3): Mass {
  const at: Vec3 = [mass.at[0] * by[0], mass.at[1] * by[1], mass.at[2] * by[2]];
  const blend = mass.blend * Math.min(by[0], by[1], by[2]);
  if (mass.shape.kind !== 'ellipsoid') return { ...mass, at: triple(at), blend };
  const r = rotationOf(mass.turn);
  const { radii } = mass.shape;
  const columns = [0, 1, 2].map((k) => [0, 1, 2].map((i) => by[i]! * r[i * 3 + k]! * radii[k]!));
  for (let sweep = 0; sweep < 24; sweep++) {
    let off = 0;
    for (const [p, q] of [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const) {
      const a = columns[p]!,
        b = columns[q]!;
      const aa = inner(a, a),
        bb = inner(b, b),
        ab = inner(a, b);
      off = Math.max(off, Math.abs(ab) / Math.sqrt(aa * bb));
      if (Math.abs(ab) < 1e-15 * Math.sqrt(aa * bb)) continue;
      const zeta = (bb - aa) / (2 * ab);
      const t = Math.sign(zeta || 1) / (Math.abs(zeta) + Math.sqrt(1 + zeta * zeta));
      const c = 1 / Math.sqrt(1 + t * t),
        s = c * t;
      for (let i = 0; i < 3; i++) {
        const x = a[i]!,
          y = b[i]!;
        a[i] = c * x - s * y;
        b[i] = s * x + c * y;
      }
    }
    if (off < 1e-14) break;
  }
  const long = columns.map((c) => Math.sqrt(inner(c, c)));
  const axes = columns.map((c, k) => c.map((v) => v / long[k]!));
  const [a, b, c] = axes as [number[], number[], number[]];
  // A turn has no reflection in it.
  const cross = [a[1]! * b[2]! - a[2]! * b[1]!, a[2]! * b[0]! - a[0]! * b[2]!, a[0]! * b[1]! - a[1]! * b[0]!];
  const side = inner(cross, c) < 0 ? -1 : 1;
  const rotation = [0, 1, 2].flatMap((i) => [a[i]!, b[i]!, side * c[i]!]) as unknown as Rotation;
  return {
    ...mass,
    at: triple(at),
    blend,
    turn: triple(turnOf(rotation)),
    shape: { kind: 'ellipsoid', radii: [long[0]!, long[1]!, long[2]!] },
  };
}

const inner = (a: readonly number[], b: readonly number[]): number => a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;
