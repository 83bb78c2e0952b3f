import type { Vec3 } from '../quantity';

/** Rotations as nine numbers in rows, from a part's own axes to the world's. Turns are degrees about x, then y, then z. */
export type Rotation = readonly [number, number, number, number, number, number, number, number, number];

export const noTurn: Vec3 = [0, 0, 0];
export const unturned: Rotation = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** Rz Ry Rx. */
export function rotationOf(turn: Vec3): Rotation {
  const [x, y, z] = turn.map((d) => (d * Math.PI) / 180) as [number, number, number];
  const cx = Math.cos(x),
    sx = Math.sin(x),
    cy = Math.cos(y),
    sy = Math.sin(y),
    cz = Math.cos(z),
    sz = Math.sin(z);
  return [
    cz * cy,
    cz * sy * sx - sz * cx,
    cz * sy * cx + sz * sx,
    sz * cy,
    sz * sy * sx + cz * cx,
    sz * sy * cx - cz * sx,
    -sy,
    cy * sx,
    cy * cx,
  ];
}

/** The turn that gives a rotation; where two would, the one that turns nothing about x. */
export function turnOf(r: Rotation): Vec3 {
  const toDegrees = 180 / Math.PI;
  const flat = Math.hypot(r[0], r[3]);
  const y = Math.atan2(-r[6], flat);
  if (flat < 1e-9) return [0, y * toDegrees, Math.atan2(-r[1], r[4]) * toDegrees];
  return [Math.atan2(r[7], r[8]) * toDegrees, y * toDegrees, Math.atan2(r[3], r[0]) * toDegrees];
}

export function compose(a: Rotation, b: Rotation): Rotation {
  const cell = (i: number, j: number) => a[i * 3]! * b[j]! + a[i * 3 + 1]! * b[3 + j]! + a[i * 3 + 2]! * b[6 + j]!;
  return [cell(0, 0), cell(0, 1), cell(0, 2), cell(1, 0), cell(1, 1), cell(1, 2), cell(2, 0), cell(2, 1), cell(2, 2)];
}

export function inverse(r: Rotation): Rotation {
  return [r[0], r[3], r[6], r[1], r[4], r[7], r[2], r[5], r[8]];
}

export function rotate(r: Rotation, p: Vec3): Vec3 {
  return [
    r[0] * p[0] + r[1] * p[1] + r[2] * p[2],
    r[3] * p[0] + r[4] * p[1] + r[5] * p[2],
    r[6] * p[0] + r[7] * p[1] + r[8] * p[2],
  ];
}
