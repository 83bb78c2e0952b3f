import type { Build } from '../build';
import type { BulkKind, Wrap } from '../catalogue';

/** Coats over the core in one region, metres, in the order they go on. */
export function coatsOf(build: Build, region: string): readonly number[] {
  const own = build.regions.own;
  return (Object.hasOwn(own, region) ? own[region] : undefined)?.coats ?? build.regions.everywhere.coats;
}

export function clayOver(build: Build, region: string): number {
  return coatsOf(build, region).reduce((sum, t) => sum + t, 0);
}

/** The face the clay dries and shrinks on: the bulk and what is wrapped round it. */
export interface CoreFace {
  /** Share of the clay's shrinkage held back. */
  readonly restraint: number;
  /** Share of the outer evaporation let through. */
  readonly innerFace: number;
  /** Grip, as a share of half the yield stress. */
  readonly grip: number;
  readonly solid: boolean;
}

export function coreFace(bulk: BulkKind, wrap: Wrap): CoreFace {
  const solid = bulk.id === 'none';
  return {
    restraint: Math.min(1, solid ? bulk.restraint : (wrap.restraint ?? bulk.restraint * wrap.restraintFactor)),
    innerFace: wrap.seals ? 0 : bulk.innerFace,
    grip: solid ? bulk.grip : (wrap.grip ?? bulk.grip),
    solid,
  };
}
