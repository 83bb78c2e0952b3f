import { compiledAlike, type CompiledMass } from './compiled';
import { cubeSide } from './cube';
import type { DistanceField } from './distance';
import { massDistance, massTangent } from './mass-distance';

const { hypot, max } = Math;

/** More than these, and a form is sampled anew sooner than compared. */
const mostChanged = 24;

/** Metres that rounding and roots leave a tangent wrong by across a cube, with much to spare. */
const slack = 1e-6;
const tangent = new Float64Array(4);

interface ChangedMass {
  readonly mass: CompiledMass;
  /** Largest blend of it and of those merged after it. */
  readonly felt: number;
}

/** Which masses two forms differ in, each as it was and as it is: all else of the form is as it was where none of them is felt. */
export class Changes {
  private constructor(private readonly masses: readonly ChangedMass[]) {}

  /** Null where they are not the same kind of form, or differ in too much. */
  static between(before: DistanceField, now: DistanceField): Changes | null {
    if (before.many !== now.many || before.named !== now.named) return null;
    const out: ChangedMass[] = [];
    const count = max(before.masses.length, now.masses.length);
    for (let i = 0; i < count; i++) {
      const was = before.compiled[i],
        is = now.compiled[i];
      const alike =
        was &&
        is &&
        compiledAlike(was, is) &&
        before.masses[i]!.role === now.masses[i]!.role &&
        before.countedWith[i] === now.countedWith[i];
      if (alike) continue;
      // What is cut by openings goes by them and by the objects under the clay, wherever those are.
      const role = before.masses[i]?.role ?? now.masses[i]?.role;
      if (role !== undefined && (before.cutOut || now.cutOut)) return null;
      const felt = max(before.feltWithin[i] ?? 0, now.feltWithin[i] ?? 0);
      if (was) out.push({ mass: was, felt });
      if (is) out.push({ mass: is, felt });
      if (out.length > 2 * mostChanged) return null;
    }
    return new Changes(out);
  }

  get count(): number {
    return this.masses.length;
  }

  /** Whether `prune` leaves all of them out within `radius` of a place, where the nearest mass is `nearest` away. */
  farFrom(x: number, y: number, z: number, radius: number, nearest: number): boolean {
    return this.masses.every(({ mass: m, felt }) => {
      const far = nearest + 2 * radius + 2 * felt;
      if (hypot(x - m.at[0], y - m.at[1], z - m.at[2]) - m.reach > far) return true;
      return massDistance(m, x, y, z) > far;
    });
  }

  /**
   * Whether none of them is felt in a cube of cells, whose distances stand from `from` in rows and layers as given: each
   * lies outside the union by more than its blend and by `beyond`.
   */
  clearOf(
    x0: number,
    y0: number,
    z0: number,
    step: number,
    distances: Float32Array,
    from: number,
    rowStride: number,
    layerStride: number,
    beyond: number,
  ): boolean {
    const half = (cubeSide * step) / 2;
    const radius = half * Math.sqrt(3);
    return this.masses.every(({ mass: m }) => {
      const clear = beyond + m.blend + slack;
      let gx = 0,
        gy = 0,
        gz = 0,
        first: number;
      if (m.kind <= 2) {
        massTangent(m, x0 + half, y0 + half, z0 + half, tangent);
        gx = tangent[1]! * step;
        gy = tangent[2]! * step;
        gz = tangent[3]! * step;
        first = tangent[0]! - ((cubeSide - 1) / 2) * (gx + gy + gz);
      } else first = massDistance(m, x0 + half, y0 + half, z0 + half) - radius * (m.limbed?.slope ?? 1);
      for (let z = 0; z < cubeSide; z++)
        for (let y = 0; y < cubeSide; y++) {
          let cell = from + y * rowStride + z * layerStride;
          let plane = first + y * gy + z * gz - clear;
          for (let x = 0; x < cubeSide; x++, cell++, plane += gx) if (plane < distances[cell]!) return false;
        }
      return true;
    });
  }
}
