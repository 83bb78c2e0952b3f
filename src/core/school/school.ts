import type { z } from 'zod';
import type { Armature } from '../armature';
import { massBox, type ResolvedForm } from '../form';
import type { Vec3 } from '../quantity';

/** A way of making an armature: one file each. A pure function of the form, the clay over it and its parameters. */
export interface School<P> {
  readonly kind: string;
  readonly name: string;
  /** When a maker would pick it. */
  readonly when: string;
  readonly parameters: z.ZodType<P>;
  readonly fits: (form: ResolvedForm) => boolean;
  readonly make: (context: SchoolContext, parameters: P) => Armature;
}

export interface SchoolContext {
  readonly form: ResolvedForm;
  /** Clay over the core by region, metres. */
  readonly clayOver: (region: string) => number;
  /** Outside size of a stock, metres. */
  readonly across: (stock: string, size: string) => number;
  /** Sizes a stock comes in, smallest first: ids. */
  readonly sizesOf: (stock: string) => readonly string[];
}

/** Box of the form from its masses, blends left out; metres. */
export function spanOfForm(form: ResolvedForm): { readonly low: Vec3; readonly high: Vec3 } {
  const boxes = form.masses.map((m) => massBox(m));
  const side = (pick: 'low' | 'high', of: (...v: number[]) => number) => [0, 1, 2].map((k) => of(...boxes.map((b) => b[pick][k as 0 | 1 | 2]))) as unknown as Vec3;
  return { low: side('low', Math.min), high: side('high', Math.max) };
}

/** Points along an ellipse arc in the plane of `u` and `v`, angles in degrees from `u` towards `v`. */
export function arc(centre: Vec3, u: Vec3, v: Vec3, from: number, to: number, steps: number): Vec3[] {
  return Array.from({ length: steps + 1 }, (_, i) => {
    const a = ((from + ((to - from) * i) / steps) * Math.PI) / 180;
    const c = Math.cos(a), s = Math.sin(a);
    return [centre[0] + u[0] * c + v[0] * s, centre[1] + u[1] * c + v[1] * s, centre[2] + u[2] * c + v[2] * s] as Vec3;
  });
}
