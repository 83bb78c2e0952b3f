import type { Stroke } from '../document';

/**
 * Clay painted thicker or thinner on the form: each stroke is whole at its place and fades to nothing at its radius,
 * by (1 - r2/R2)2. The face stays where it is; the core lies deeper or less deep.
 */
export type PaintedAt = (x: number, y: number, z: number) => number;

/** Strokes stand at life size; `size` brings them to the piece. Null when there are none. */
export function paintedThickness(strokes: readonly Stroke[], size: number): PaintedAt | null {
  if (strokes.length === 0) return null;
  const flat = Float64Array.from(
    strokes.flatMap((s) => [s.at[0] * size, s.at[1] * size, s.at[2] * size, (s.radius * size) ** 2, s.by * size]),
  );
  return (x, y, z) => {
    let sum = 0;
    for (let o = 0; o < flat.length; o += 5) {
      const dx = x - flat[o]!,
        dy = y - flat[o + 1]!,
        dz = z - flat[o + 2]!;
      const share = 1 - (dx * dx + dy * dy + dz * dz) / flat[o + 3]!;
      if (share > 0) sum += flat[o + 4]! * share * share;
    }
    return sum;
  };
}
