import type { DistanceField } from '../../src/core/form';
import type { Vec3 } from '../../src/core/quantity';

const { PI, cos, hypot, max, sin } = Math;

/** Callipers and tape on a form: everything is read off the face of the union itself, metres. */
export class Callipers {
  private readonly all: Int32Array;
  constructor(private readonly field: DistanceField) {
    this.all = field.all();
  }

  private at(p: Vec3): number {
    return this.field.at(p[0], p[1], p[2], this.all);
  }

  /** Name of the mass that a place belongs to. */
  massAt(p: Vec3): string {
    this.at(p);
    return this.field.masses[this.field.owner]?.id ?? '';
  }

  /** Where one meets the face coming from outside along a direction of length 1; null where one passes by. */
  touch(from: Vec3, along: Vec3, far = 0.5): Vec3 | null {
    let t = 0;
    while (t < far) {
      const p: Vec3 = [from[0] + t * along[0], from[1] + t * along[1], from[2] + t * along[2]];
      const d = this.at(p);
      if (d < 1e-6) return p;
      t += max(d, 2e-6);
    }
    return null;
  }

  /** Furthest out to the left over a patch of heights and places from front to back. */
  halfBreadth(
    z: readonly [number, number],
    y: readonly [number, number],
    skip: (mass: string) => boolean = () => false,
  ) {
    let most = 0;
    for (let i = 0; i <= 24; i++)
      for (let j = 0; j <= 24; j++) {
        const h = z[0] + ((z[1] - z[0]) * i) / 24,
          b = y[0] + ((y[1] - y[0]) * j) / 24;
        const p = this.touch([0.3, b, h], [-1, 0, 0], 0.3);
        if (p && !skip(this.massAt(p))) most = max(most, p[0]);
      }
    return most;
  }

  /** The middle of the face from the front: how far back it lies at a height. */
  profile(z: number, x = 0): number {
    return this.touch([x, -0.6, z], [0, 1, 0], 0.8)?.[1] ?? Infinity;
  }

  /** A tape drawn tight round a level: the girth of the hull of what it touches. */
  girth(z: number, axis: number, skip: (mass: string) => boolean = () => false): number {
    const points: [number, number][] = [];
    for (let k = 0; k < 720; k++) {
      const a = (k * PI) / 360;
      const dir: Vec3 = [-cos(a), -sin(a), 0];
      const p = this.touch([0.4 * cos(a), axis + 0.4 * sin(a), z], dir, 0.4);
      if (p && !skip(this.massAt(p))) points.push([p[0], p[1]]);
    }
    return hullGirth(points);
  }
}

function hullGirth(points: readonly [number, number][]): number {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: readonly [number, number][]) => {
    const out: [number, number][] = [];
    for (const p of list) {
      while (out.length > 1) {
        const [a, b] = [out[out.length - 2]!, out[out.length - 1]!];
        if ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 0) break;
        out.pop();
      }
      out.push(p);
    }
    return out;
  };
  const hull = [...half(sorted).slice(0, -1), ...half([...sorted].reverse()).slice(0, -1)];
  return hull.reduce((sum, p, i) => {
    const next = hull[(i + 1) % hull.length]!;
    return sum + hypot(next[0] - p[0], next[1] - p[1]);
  }, 0);
}
