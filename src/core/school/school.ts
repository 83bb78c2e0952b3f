import type { z } from 'zod';
import type { Armature } from '../armature';
import { massBox, type ResolvedForm } from '../form';
import { add, mix, scale, type Vec3 } from '../quantity';

/** A way of making an armature: one file each. A pure function of the form, the clay over it and its parameters. */
export interface School<P> {
  readonly kind: string;
  readonly name: string;
  /** When a maker would pick it. */
  readonly when: string;
  /** How it is set out, in a sentence or two. */
  readonly how: string;
  /** What is added to the bend when its stock is cut. */
  readonly cuts: string;
  readonly traits: SchoolTraits;
  readonly parameters: z.ZodType<P>;
  /** What a maker may set, in order. */
  readonly fields: readonly SchoolField[];
  /** Forms it can be set out in. */
  readonly fits: (form: ResolvedForm) => boolean;
  /** Of a form it fits and is not offered for: why, in a sentence. */
  readonly unsuited?: (form: ResolvedForm) => string | null;
  readonly make: (context: SchoolContext, parameters: P) => Armature;
}

/** What cannot be weighed, but is weighed up. */
export interface SchoolTraits {
  readonly posedLater: 'yes' | 'until the clay is on' | 'no';
  readonly reused: 'all of it' | 'the upright' | 'little' | 'nothing';
}

/** A figure of a school as the station shows it. `key` and `size` name parameters. */
export type SchoolField =
  | { readonly kind: 'heading'; readonly label: string }
  | { readonly kind: 'bulk' | 'wrap' | 'join'; readonly key: string; readonly label: string }
  | {
      readonly kind: 'stock';
      readonly key: string;
      readonly size: string;
      readonly label: string;
      readonly from: 'wire' | 'bar' | 'upright' | 'board';
    }
  | {
      readonly kind: 'number' | 'length' | 'mass' | 'angle';
      readonly key: string;
      readonly label: string;
      readonly hint?: string;
    }
  | { readonly kind: 'yes-no'; readonly key: string; readonly label: string }
  | {
      readonly kind: 'choice';
      readonly key: string;
      readonly label: string;
      readonly choices: readonly { readonly id: string; readonly name: string }[];
    };

export interface SchoolContext {
  readonly form: ResolvedForm;
  /** Clay over the core by region, metres. */
  readonly clayOver: (region: string) => number;
  /** Outside size of a stock, metres. */
  readonly across: (stock: string, size: string) => number;
  /** Sizes a stock comes in, smallest first: ids. */
  readonly sizesOf: (stock: string) => readonly string[];
  /** Whether wires go by the room there is for them and by what they carry, where nothing was set by hand. */
  readonly toCarry: boolean;
  /** How deep a place lies under the finished face, metres; below zero outside. */
  readonly depthAt: (p: Vec3) => number;
}

/** Box of the form from its masses, blends left out; metres. */
export function spanOfForm(form: ResolvedForm): { readonly low: Vec3; readonly high: Vec3 } {
  return spanOfMasses(form.masses);
}

export function spanOfMasses(masses: ResolvedForm['masses']): { readonly low: Vec3; readonly high: Vec3 } {
  const boxes = masses.filter((m) => m.role !== 'opening').map((m) => massBox(m));
  const side = (pick: 'low' | 'high', of: (...v: number[]) => number) =>
    [0, 1, 2].map((k) => of(...boxes.map((b) => b[pick][k as 0 | 1 | 2]))) as unknown as Vec3;
  return { low: side('low', Math.min), high: side('high', Math.max) };
}

export function heightOf(form: ResolvedForm): number {
  const { low, high } = spanOfForm(form);
  return high[2] - low[2];
}

/** Masses that hang on any of these joints. */
export function massesOn(form: ResolvedForm, joints: readonly string[]): string[] {
  return form.masses.filter((m) => m.joint !== undefined && joints.includes(m.joint)).map((m) => m.id);
}

/** A head hung far out on a neck, too large for what is bent by hand. */
export function reachesOut(form: ResolvedForm): boolean {
  return form.kind === 'long-neck' && heightOf(form) > bentByHand;
}
/** Metres: a neck this high is still carried by wire. */
const bentByHand = 0.6;

/** Forms in which no wire bent by hand carries, with why. */
export function withoutWire(form: ResolvedForm): string | null {
  if (reachesOut(form)) return 'Wire that is bent by hand does not carry a head this heavy so far out.';
  return form.kind === 'worn-shell'
    ? 'A shell has no limbs for a wire to run in: it is laid over a form that it leaves.'
    : null;
}

/** How many ends a form's skeleton has that do not stand on the ground: arms, heads, tails, branches. */
export function limbCount(form: ResolvedForm): number {
  const { joints } = form.skeleton;
  return joints.filter((j) => !j.ground && joints.every((k) => k.parent !== j.id)).length;
}

/** Points along an ellipse arc in the plane of `u` and `v`, angles in degrees from `u` towards `v`. */
export function arc(centre: Vec3, u: Vec3, v: Vec3, from: number, to: number, steps: number): Vec3[] {
  return Array.from({ length: steps + 1 }, (_, i) => {
    const a = ((from + ((to - from) * i) / steps) * Math.PI) / 180;
    const c = Math.cos(a),
      s = Math.sin(a);
    return [centre[0] + u[0] * c + v[0] * s, centre[1] + u[1] * c + v[1] * s, centre[2] + u[2] * c + v[2] * s] as Vec3;
  });
}

/**
 * The share of the way from `from` to `to` at which something so far across still lies inside, no further than asked where
 * that can be; 0 where it does nowhere. Metres.
 */
export function insideShare(context: SchoolContext, from: Vec3, to: Vec3, asked: number, across: number): number {
  const inside = (share: number) => context.depthAt(mix(from, to, share)) > across / 2 + 0.0005;
  for (let share = asked; share > 0; share -= 0.05) if (inside(share)) return share;
  // What comes in from outside may do so only further on.
  for (let share = asked; share < 1; share += 0.05) if (inside(share)) return share;
  return 0;
}

/**
 * The share of the way up to which what comes in from outside stays inside before it leaves again; 1 where it does not
 * leave; where it has no room at all, the deepest place there is.
 */
export function staysInside(context: SchoolContext, from: Vec3, to: Vec3, across: number): number {
  const steps = 48;
  let last = 0,
    deepest = { share: 1, depth: -Infinity };
  for (let i = 1; i <= steps; i++) {
    const share = i / steps;
    const depth = context.depthAt(mix(from, to, share));
    if (depth > deepest.depth) deepest = { share, depth };
    if (last > 0 && depth <= across / 2) return last;
    if (depth > across / 2) last = share;
  }
  return last > 0 ? 1 : deepest.share;
}

/** How far one can go from `from` along the unit vector `way` before less than `leave` lies over it; 0 when there is no room. */
export function reachInside(context: SchoolContext, from: Vec3, way: Vec3, leave: number, most: number): number {
  if (context.depthAt(from) < leave) return 0;
  let far = 0;
  for (let i = 0; i < 60 && far < most; i++) {
    const room = context.depthAt(add(from, scale(way, far))) - leave;
    if (room < 0) break;
    // Depth changes no faster than one goes on, so this step cannot overshoot.
    far += Math.max(room, most * 0.002);
  }
  let low = Math.max(0, far - most * 0.004),
    high = Math.min(far, most);
  if (context.depthAt(add(from, scale(way, low))) < leave) low = 0;
  for (let i = 0; i < 24; i++) {
    const middle = (low + high) / 2;
    if (context.depthAt(add(from, scale(way, middle))) >= leave) low = middle;
    else high = middle;
  }
  return low;
}
