import type { Mass } from './mass';

const { hypot, max, min } = Math;

/** A mass made ready for the hot loops: its rotation worked out, its sizes flat. */
export interface CompiledMass {
  /** 0 ellipsoid, 1 round cone, 2 rounded box, 3 ring. */
  readonly kind: 0 | 1 | 2 | 3;
  readonly at: readonly [number, number, number];
  /** Rows of the rotation from world to mass. */
  readonly rotation: Float64Array;
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly extra: Float64Array;
  readonly blend: number;
  /** Smallest sphere about `at` that holds it. */
  readonly reach: number;
}

/** Newton squares its error: a step of 1e-6 leaves 1e-12. */
export const rootTolerance = 1e-6;

function rotationOf(turn: readonly [number, number, number]): Float64Array {
  const [x, y, z] = turn.map((d) => (d * Math.PI) / 180) as [number, number, number];
  const cx = Math.cos(x), sx = Math.sin(x), cy = Math.cos(y), sy = Math.sin(y), cz = Math.cos(z), sz = Math.sin(z);
  // World from mass is Rz Ry Rx; its transpose takes world to mass.
  return Float64Array.of(
    cz * cy, sz * cy, -sy,
    cz * sy * sx - sz * cx, sz * sy * sx + cz * cx, cy * sx,
    cz * sy * cx + sz * sx, sz * sy * cx - cz * sx, cy * cx,
  );
}

export function compile(mass: Mass): CompiledMass {
  const common = { at: mass.at, rotation: rotationOf(mass.turn), blend: mass.blend };
  const s = mass.shape;
  if (s.kind === 'ellipsoid') {
    return { ...common, kind: 0, a: s.radii[0], b: s.radii[1], c: s.radii[2], extra: new Float64Array(0), reach: max(...s.radii) };
  }
  if (s.kind === 'round-cone') {
    const span = hypot(...s.reach);
    return {
      ...common, kind: 1, a: s.radiusFrom, b: s.radiusTo, c: span, extra: Float64Array.from(s.reach),
      reach: max(s.radiusFrom, span + s.radiusTo),
    };
  }
  if (s.kind === 'rounded-box') {
    const rounding = min(s.rounding, ...s.half);
    return { ...common, kind: 2, a: s.half[0] - rounding, b: s.half[1] - rounding, c: s.half[2] - rounding, extra: Float64Array.of(rounding), reach: hypot(...s.half) };
  }
  return { ...common, kind: 3, a: s.radius, b: s.thickness, c: 0, extra: new Float64Array(0), reach: s.radius + s.thickness };
}
