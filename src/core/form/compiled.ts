import type { LimbedSolid } from './limbs/limbed-solid';
import type { Mass } from './mass';
import { decodedSamples } from './mesh/sampled';
import { inverse, rotationOf, unturned } from './turn';

const { hypot, max, min } = Math;

/** A mass made ready for the hot loops: its rotation worked out, its sizes flat. */
export interface CompiledMass {
  /** 0 ellipsoid, 1 round cone, 2 rounded box, 3 ring, 4 shell, 5 drum, 6 sampled, 7 sampled with limbs. */
  readonly kind: 0 | 1 | 2 | 3 | 4 | 5 | 6 | 7;
  readonly at: readonly [number, number, number];
  /** Rows of the rotation from world to mass. */
  readonly rotation: Float64Array;
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly extra: Float64Array;
  /** Of a sampled mass only. */
  readonly samples: Float32Array;
  /** Of one with limbs only: its own axes are the world's then. */
  readonly limbed: LimbedSolid | null;
  readonly blend: number;
  /** Clay over an object: how far the finished face stands outside the mass. */
  readonly grow: number;
  /** Smallest sphere about `at` that holds it. */
  readonly reach: number;
  /**
   * The root of an ellipsoid is found to a share of how far it lies from its pole. Without, it is found to a share of its
   * first axis: within one, on a plane of its own, that says it is further off than it is. Builds of before keep that.
   */
  readonly fine: boolean;
}

/** Newton squares its error: a step of 1e-6 leaves 1e-12. */
export const rootTolerance = 1e-6;

/** `clay` is what the mass's region carries, metres: over an object it stands outside, in a shell it is the thickness. */
export function compile(mass: Mass, clay = 0, fine = false): CompiledMass {
  const grow = mass.role === 'core' ? clay : 0;
  const made = shapeOf(mass, clay);
  return { ...made, grow, reach: made.reach + grow, fine };
}

/** Whether two come to the same distances, to the last bit. */
export function compiledAlike(one: CompiledMass, other: CompiledMass): boolean {
  return (
    one.kind === other.kind &&
    one.a === other.a &&
    one.b === other.b &&
    one.c === other.c &&
    one.blend === other.blend &&
    one.grow === other.grow &&
    one.fine === other.fine &&
    one.samples === other.samples &&
    one.limbed?.key === other.limbed?.key &&
    one.at.every((v, k) => v === other.at[k]) &&
    one.rotation.every((v, k) => v === other.rotation[k]) &&
    one.extra.length === other.extra.length &&
    one.extra.every((v, k) => v === other.extra[k])
  );
}

const none = new Float32Array(0);

function shapeOf(mass: Mass, clay: number): Omit<CompiledMass, 'grow' | 'fine'> {
  const common = {
    samples: none,
    limbed: null,
    at: mass.at,
    rotation: Float64Array.from(inverse(rotationOf(mass.turn))),
    blend: mass.blend,
  };
  const s = mass.shape;
  if (mass.part) {
    const { low, high } = mass.part.whole.box();
    return {
      ...common,
      kind: 7,
      at: low.map((v, k) => (v + high[k]!) / 2) as [number, number, number],
      rotation: Float64Array.from(unturned),
      a: 0,
      b: 0,
      c: 0,
      extra: new Float64Array(0),
      samples: mass.part.whole.samples,
      limbed: mass.part.whole,
      reach: hypot(...low.map((v, k) => (high[k]! - v) / 2)),
    };
  }
  if (s.kind === 'ellipsoid') {
    return {
      ...common,
      kind: 0,
      a: s.radii[0],
      b: s.radii[1],
      c: s.radii[2],
      extra: new Float64Array(0),
      reach: max(...s.radii),
    };
  }
  if (s.kind === 'round-cone') {
    const span = hypot(...s.reach);
    return {
      ...common,
      kind: 1,
      a: s.radiusFrom,
      b: s.radiusTo,
      c: span,
      extra: Float64Array.from(s.reach),
      reach: max(s.radiusFrom, span + s.radiusTo),
    };
  }
  if (s.kind === 'rounded-box') {
    const rounding = min(s.rounding, ...s.half);
    return {
      ...common,
      kind: 2,
      a: s.half[0] - rounding,
      b: s.half[1] - rounding,
      c: s.half[2] - rounding,
      extra: Float64Array.of(rounding),
      reach: hypot(...s.half),
    };
  }
  if (s.kind === 'shell') {
    return {
      ...common,
      kind: 4,
      a: s.radii[0],
      b: s.radii[1],
      c: s.radii[2],
      extra: Float64Array.of(max(clay, 1e-4), s.open),
      reach: max(...s.radii),
    };
  }
  if (s.kind === 'sampled') {
    const far = s.cells.map((n, k) => max(Math.abs(s.from[k]!), Math.abs(s.from[k]! + (n - 1) * s.step)));
    return {
      ...common,
      kind: 6,
      a: s.step,
      b: s.deepest,
      c: 0,
      extra: Float64Array.of(...s.cells, ...s.from),
      samples: decodedSamples(s.values),
      reach: hypot(...far),
    };
  }
  if (s.kind === 'drum') {
    const rounding = min(s.rounding, s.radius, s.half);
    return {
      ...common,
      kind: 5,
      a: s.radius - rounding,
      b: s.half - rounding,
      c: 0,
      extra: Float64Array.of(rounding),
      reach: hypot(s.radius, s.half),
    };
  }
  return {
    ...common,
    kind: 3,
    a: s.radius,
    b: s.thickness,
    c: 0,
    extra: new Float64Array(0),
    reach: s.radius + s.thickness,
  };
}
