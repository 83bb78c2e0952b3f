import type { MassShape } from '../document';
import { scale, type Vec3 } from '../quantity';

/** Along the mass's own axes. A round cone is stretched along its reach by the third figure and thickened by the mean of the others. */
export function stretchedShape(shape: MassShape, by: Vec3): MassShape {
  const [x, y, z] = by;
  const mean = Math.sqrt(x * y);
  switch (shape.kind) {
    case 'ellipsoid':
    case 'shell':
      return {
        ...shape,
        radii: [shape.radii[0] * x, shape.radii[1] * y, shape.radii[2] * z],
        ...(shape.kind === 'shell' ? { open: shape.open * z } : {}),
      } as MassShape;
    case 'round-cone':
      return {
        ...shape,
        reach: triple(scale(shape.reach, z)),
        radiusFrom: shape.radiusFrom * mean,
        radiusTo: shape.radiusTo * mean,
      };
    case 'rounded-box':
      return {
        ...shape,
        half: [shape.half[0] * x, shape.half[1] * y, shape.half[2] * z],
        rounding: shape.rounding * Math.min(x, y, z),
      };
    case 'ring':
      return { ...shape, radius: shape.radius * mean, thickness: shape.thickness * z };
    // Samples of a distance stay one only when stretched alike all ways.
    case 'sampled':
      return scaledShape(shape, Math.cbrt(x * y * z));
    case 'drum':
      return {
        ...shape,
        radius: shape.radius * mean,
        half: shape.half * z,
        rounding: shape.rounding * Math.min(mean, z),
      };
  }
}

export function scaledShape(shape: MassShape, by: number): MassShape {
  switch (shape.kind) {
    case 'ellipsoid':
      return { ...shape, radii: triple(scale(shape.radii, by)) };
    case 'shell':
      return { ...shape, radii: triple(scale(shape.radii, by)), open: shape.open * by };
    case 'round-cone':
      return {
        ...shape,
        reach: triple(scale(shape.reach, by)),
        radiusFrom: shape.radiusFrom * by,
        radiusTo: shape.radiusTo * by,
      };
    case 'rounded-box':
      return { ...shape, half: triple(scale(shape.half, by)), rounding: shape.rounding * by };
    case 'ring':
      return { ...shape, radius: shape.radius * by, thickness: shape.thickness * by };
    case 'sampled':
      return {
        ...shape,
        step: shape.step * by,
        from: triple(scale(shape.from, by)),
        deepest: shape.deepest * by,
        ...(shape.limbs
          ? { limbs: shape.limbs.map((j) => ({ ...j, at: triple(scale(j.at, by)), radius: j.radius * by })) }
          : {}),
      };
    case 'drum':
      return { ...shape, radius: shape.radius * by, half: shape.half * by, rounding: shape.rounding * by };
  }
}

export function triple(v: Vec3): [number, number, number] {
  return [v[0], v[1], v[2]];
}
