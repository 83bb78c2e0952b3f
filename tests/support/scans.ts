import type { Build, Mass } from '../../src/core/document';
import {
  DistanceField,
  extractSurface,
  findLimbs,
  mendMesh,
  sampleSolid,
  solidOfMesh,
  voxelise,
  type SampledShape,
  type TriangleMesh,
} from '../../src/core/form';
import { subtract, type Vec3 } from '../../src/core/quantity';
import { bringIn, startBuild } from '../../src/core/school';

/** Meshes with limbs whose place is known, of balls and tapered limbs that melt into each other; metres, standing at nought. */
const lump = (at: Vec3, r: number | Vec3, blend = 0.02): Mass => ({
  id: `l-${Math.round(at[0] * 1e4)}-${Math.round(at[1] * 1e4)}-${Math.round(at[2] * 1e4)}`.replace(/--/g, '-m'),
  name: 'lump',
  region: 'all',
  at: [...at],
  turn: [0, 0, 0],
  blend,
  shape: { kind: 'ellipsoid', radii: typeof r === 'number' ? [r, r, r] : [...r] },
});
const limb = (from: Vec3, to: Vec3, thick: number, thin: number, blend = 0.015): Mass => ({
  ...lump(from, thick, blend),
  id: `c-${[...from, ...to].map((v) => Math.round(v * 1e4)).join('-')}`.replace(/--/g, '-m'),
  shape: { kind: 'round-cone', reach: [...subtract(to, from)], radiusFrom: thick, radiusTo: thin },
});

/** A sitting animal: a body on the board, a head, two long ears and a tail. Left and right alike. */
export const longEars: readonly Mass[] = [
  lump([0, 0.03, 0.11], [0.09, 0.12, 0.11]),
  lump([0, -0.09, 0.25], [0.055, 0.07, 0.06]),
  limb([0, -0.02, 0.16], [0, -0.08, 0.23], 0.06, 0.05),
  limb([0.03, -0.07, 0.28], [0.075, -0.03, 0.43], 0.022, 0.017),
  limb([-0.03, -0.07, 0.28], [-0.075, -0.03, 0.43], 0.022, 0.017),
  limb([0, 0.13, 0.08], [0, 0.24, 0.12], 0.035, 0.024),
];

/** The same with ears too thin for the wire in its body. */
export const thinEars: readonly Mass[] = longEars.map((m) =>
  m.shape.kind === 'round-cone' && m.shape.reach[2] > 0.1
    ? { ...m, shape: { ...m.shape, radiusFrom: 0.014, radiusTo: 0.011 } }
    : m,
);

/** A head on a neck on two shoulders. */
export const headAndShoulders: readonly Mass[] = [
  lump([0, 0, 0.09], [0.13, 0.08, 0.1]),
  limb([0, 0, 0.12], [0, -0.01, 0.24], 0.045, 0.04),
  lump([0, -0.02, 0.32], [0.07, 0.085, 0.1]),
  limb([0.1, 0, 0.11], [0.22, 0.01, 0.07], 0.07, 0.05),
  limb([-0.1, 0, 0.11], [-0.22, 0.01, 0.07], 0.07, 0.05),
];

/** A body on four legs, with a head out in front. */
export const fourLegs: readonly Mass[] = [
  lump([0, 0, 0.24], [0.075, 0.17, 0.075]),
  limb([0, -0.14, 0.26], [0, -0.27, 0.37], 0.045, 0.032),
  ...[-1, 1].flatMap((x) =>
    [-1, 1].map((y) => limb([0.05 * x, 0.11 * y, 0.2], [0.065 * x, 0.13 * y, 0.027], 0.035, 0.026)),
  ),
];

/** Two thick legs whose feet touch at their edges. */
export const feetTogether: readonly Mass[] = [
  lump([0, 0, 0.3], [0.11, 0.08, 0.09]),
  ...[-1, 1].map((x) => limb([0.06 * x, 0, 0.26], [0.056 * x, 0, 0.05], 0.04, 0.04, 0.002)),
  ...[-1, 1].map((x): Mass => ({
    ...lump([0.056 * x, 0, 0.015], 0.05, 0),
    id: `sole-${x + 1}`,
    shape: { kind: 'drum', radius: 0.06, half: 0.015, rounding: 0.002 },
  })),
];

export const oneBall: readonly Mass[] = [lump([0, 0, 0.1], 0.1)];

export function meshOf(masses: readonly Mass[], cells = 96): TriangleMesh {
  const field = new DistanceField(masses);
  const { low, high } = field.box();
  const step = Math.max(...low.map((l, k) => high[k]! - l)) / cells;
  const { positions, triangles } = extractSurface(voxelise(field, { step, depth: 0 }));
  return { positions, triangles };
}

const kept = new Map<unknown, SampledShape>();

export function shapeOf(mesh: TriangleMesh, along = 96): SampledShape {
  const mended = mendMesh(mesh);
  if (!mended.ok) throw new Error(mended.message);
  const solid = solidOfMesh(mended.value.mesh, along);
  if (!solid.ok) throw new Error(solid.message);
  return sampleSolid(solid.value);
}

export function scanOf(masses: readonly Mass[]): SampledShape {
  const known = kept.get(masses);
  if (known) return known;
  const made = shapeOf(meshOf(masses));
  kept.set(masses, made);
  return made;
}

/** A free start with nothing but this scan in it. */
export function buildWithScan(shape: SampledShape, limbs = true, kind = 'free', size = 1): Build {
  const begun = startBuild('A scan', '2026-12-01', kind, size);
  if (!begun.ok) throw new Error(begun.message);
  const found = limbs ? findLimbs(shape) : null;
  const made = bringIn(begun.value, { shape, limbs: found, name: 'scan', role: 'face', alone: true });
  if (!made) throw new Error('not brought in');
  return made.edit.changes.reduce<Build>((b, { path, value }) => setIn(b, path, value) as Build, begun.value);
}

function setIn(whole: unknown, [first, ...rest]: readonly (string | number)[], value: unknown): unknown {
  const copy: Record<string, unknown> | unknown[] = Array.isArray(whole) ? [...whole] : { ...(whole as object) };
  const own = (copy as Record<string | number, unknown>)[first!];
  (copy as Record<string | number, unknown>)[first!] = rest.length === 0 ? value : setIn(own ?? {}, rest, value);
  return copy;
}
